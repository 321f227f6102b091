using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>
/// What is said in a class, as a pure function of class, clock and schools (leading.md, "Calls", second edition; common practice, no
/// source): each kind of call has its own file, and the diary gives them room in the order of their weight.
/// </summary>
internal static class CallWriter
{
    /// <summary>A side and what is next that would begin so close together are said in one. leading.md, 3.</summary>
    private const decimal InOne = 5;

    private const decimal BreathGo = 8;

    public static ImmutableArray<Call> Write(ClassPlan plan, Timeline timeline, Preferences schools)
    {
        var goes = Go.Of(plan, timeline);
        var diary = new CallDiary(timeline);
        bool Wanted(CallKind kind) => !schools.Silent.Contains(kind);
        var (first, form) = Wishes(plan, timeline, schools, goes);
        foreach (var wish in first.Where(w => Wanted(w.Kind) && w.Priority > Order.Form).OrderByDescending(w => w.Priority)
            .ThenBy(w => w.Best))
        {
            if (wish.Kind != CallKind.Side || !SideCalls.IsKnown(wish, diary.Between(wish.Best - InOne, wish.Until)))
            {
                diary.Place(wish.Kind == CallKind.Tier ? BehindWhatIsNext(wish, diary) : wish);
            }
        }

        if (Wanted(CallKind.Form))
        {
            foreach (var go in goes)
            {
                form.Place(go, diary);
            }
        }

        foreach (var wish in first.Where(w => Wanted(w.Kind) && w.Priority <= Order.Form).OrderByDescending(w => w.Priority)
            .ThenBy(w => w.Best))
        {
            diary.Place(wish);
        }

        // Whichever number is the first to be said says of what.
        foreach (var go in goes.Where(g => g.IsCounted))
        {
            if (diary.Between(go.Start, go.End).FirstOrDefault(c => c.Kind == CallKind.Count) is { } number && !number.Text.Contains(' '))
            {
                diary.Lengthen(number, number.Text + NumberCalls.Unit(go.Part!, number.Text == "1"));
            }
        }

        return diary.Calls;
    }

    private static (ImmutableArray<CallWish> Wishes, FormCalls Form) Wishes(
        ClassPlan plan, Timeline timeline, Preferences schools, ImmutableArray<Go> goes)
    {
        var kit = new CallKit();
        var (sides, next, options) = (new SideCalls(timeline, kit), new NextCalls(kit, plan.Moves), new OptionCalls(plan, schools));
        var where = new WhereCalls(plan, timeline, schools);
        var wishes = ImmutableArray.CreateBuilder<CallWish>();
        var met = new HashSet<PlaceId>();
        foreach (var go in goes)
        {
            var side = sides.Of(go).ToArray();
            var coming = next.Of(go, timeline.Spans).ToArray();

            // Where both would begin within a moment, what is next names the side, and is said as surely as it.
            if (side is [{ } one] && coming is [{ } other, ..] && other.Best > one.Best - InOne && other.Texts.Length > 1
                && go.OneSide is not null && schools.Silent.IndexOf(CallKind.Next) < 0)
            {
                coming[0] = other.Texts.Where(t => SideCalls.IsNamedBy(one, t)).ToImmutableArray() is { IsEmpty: false } naming
                    ? other with { Priority = Order.Side + 1, Texts = naming }
                    : other;
            }

            wishes.AddRange(side);
            wishes.AddRange(coming.Where(c => !c.Texts.IsEmpty));
            wishes.AddRange(NumberCalls.Of(
                go, timeline.Spans, go.Span.Leg is not null && timeline.SideChange(go.Span.Block, go.Span.Round!.Value) is not null));
            wishes.AddRange(kit.Of(go));
            wishes.AddRange(options.Of(go, go.Station is { } station && met.Add(station.Id)));
            wishes.AddRange(where.Of(go));
            wishes.AddRange(Breath(go));
        }

        wishes.AddRange(where.Resting());
        if (goes is [.., var last])
        {
            wishes.AddRange(kit.After(last, timeline.Length.Value));
        }

        if (!timeline.Spans.IsEmpty)
        {
            var end = (decimal)timeline.Length.Value;
            wishes.Add(new CallWish(
                CallKind.End, Order.Where, ["That’s it, well done"], end, end, end + 10, timeline.Spans.Length - 1, timeline.Spans.Length)
            { OverTalk = true, Clips = [Clip.End] });
        }

        return (wishes.ToImmutable(), new FormCalls(plan));
    }

    /// <summary>Options are of what has been announced.</summary>
    private static CallWish BehindWhatIsNext(CallWish wish, CallDiary diary)
    {
        var next = diary.Between(wish.From, wish.Until).LastOrDefault(c => c.Kind == CallKind.Next && c.Scene == wish.Scene);
        return next is null ? wish : wish with { From = next.Ends, Best = next.Ends };
    }

    /// <summary>On the first and the middle rep of a go, where the school wants it.</summary>
    private static IEnumerable<CallWish> Breath(Go go)
    {
        if (go.Move is not { Breath: { Length: > 0 } breath } || go.Length < BreathGo)
        {
            yield break;
        }

        var text = breath.TrimEnd('.');
        foreach (var at in (decimal[])[go.Start + 0.5m, go.Start + (go.Length / 2)])
        {
            yield return new CallWish(CallKind.Breath, Order.Breath, [text], at, at, go.End, go.Index, go.Index) { BegunBy = at + 3 };
        }
    }
}
