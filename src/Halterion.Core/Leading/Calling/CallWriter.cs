using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Leading.Calling;

/// <summary>What should be said in a class, span by span (handbook, section 3, "Calls", and 9b; common practice, no source).</summary>
internal sealed class CallWriter(ClassPlan plan, Timeline timeline, ImmutableArray<Announced> words, Preferences schools)
{
    /// <summary>[M] Sides and time come first, then what makes people ready, then numbers, then form.</summary>
    private static class Order
    {
        public const int Side = 100;
        public const int Time = 90;
        public const int CountIn = 80;
        public const int LastReps = 75;
        public const int Next = 70;
        public const int Kit = 65;
        public const int Count = 60;
        public const int TimeWhileCounting = 55;
        public const int Round = 50;
        public const int Drink = 45;
        public const int Tier = 40;
        public const int Form = 35;
        public const int Breath = 30;
        public const int Rest = 20;
        public const int End = 10;
    }

    private const int CountIn = 3;
    private const decimal Ahead = 10;

    /// <summary>In less there is no room for what comes next, the side and a whole count-in.</summary>
    private const int Roomy = 14;
    private const int LongGo = 40;
    private const int LastFive = 5;
    private const int LongHold = 20;

    private readonly ImmutableArray<Span> spans = timeline.Spans;
    private readonly CallKit kit = new(plan, schools);

    public IEnumerable<CallWish> Wishes()
    {
        for (var i = 0; i < spans.Length; i++)
        {
            var found = spans[i].Kind switch
            {
                SpanKind.Work => Work(i),
                SpanKind.Rest or SpanKind.Change or SpanKind.Talk => Between(i),
                SpanKind.LeadIn or SpanKind.Switch or SpanKind.Wait => [],
            };
            foreach (var wish in found)
            {
                yield return wish;
            }
        }

        if (!spans.IsEmpty)
        {
            var end = (decimal)spans[^1].End.Value;
            yield return new CallWish(CallKind.End, Order.End, ["That is the end"], end, end, end + 10, spans.Length - 1, spans.Length)
            { Clips = [Clip.End] };
        }
    }

    private Block BlockOf(int i) => plan.Blocks[spans[i].Block];

    private Station? StationOf(int i) => spans[i].Station is { } s ? BlockOf(i).Stations[s] : null;

    private Move? MoveOf(int i) =>
        StationOf(i) is { } station && spans[i].Part is { } part ? plan.Moves.Find(station.Dose[part].Move) : null;

    private static decimal At(Seconds s) => s.Value;

    /// <summary>The last work before a span; -1: none.</summary>
    private int WorkBefore(int i)
    {
        do
        {
            i--;
        }
        while (i >= 0 && spans[i].Kind != SpanKind.Work);
        return i;
    }

    private IEnumerable<CallWish> Work(int i)
    {
        var (span, before) = (spans[i], WorkBefore(i));
        var free = before < 0 ? 0 : At(spans[before].End);
        var again = before >= 0 && IsSameGo(spans[before], span);
        return [.. Sides(i, before, free, again), .. again ? [] : Next(i, before, free), .. CountingIn(i), .. Times(i), .. Counts(i),
            .. Hints(i, again)];
    }

    /// <summary>Only the side is another.</summary>
    private static bool IsSameGo(Span before, Span now) =>
        before.Block == now.Block
            && before.Round == now.Round
            && before.Station == now.Station
            && before.Part == now.Part
            && now.Station is not null;

    private IEnumerable<CallWish> Sides(int i, int before, decimal free, bool again)
    {
        var span = spans[i];
        if (SideWords(i) is { Length: > 0 } side)
        {
            // Where nothing goes before it, it cannot be said before.
            var (start, seconds) = (At(span.Start), Call.SecondsFor(side));
            var until = start > 0 ? start : seconds;
            var room = until - free;
            var count = room >= Roomy ? CountIn : CountIn - 1;
            var best = room >= seconds + count + 0.4m ? until - count - 0.4m - seconds : room >= seconds && again ? free : until - seconds;
            var from = Math.Max(0, before < 0 ? 0 : Math.Max(At(spans[before].Start), until - 30));
            yield return new CallWish(
                CallKind.Side, Order.Side, [again ? $"Switch: {side}" : side.Capital(), side.Capital()], from, best, until, i, i)
            { Clips = again ? [Clip.Switch, .. Clip.Of(FirstSide(i))] : Clip.Of(FirstSide(i)) };
        }

        if (span.Leg is not null && timeline.SideChange(span.Block, span.Round!.Value) is { } change)
        {
            var at = At(span.Start + change);
            yield return new CallWish(
                CallKind.Side, Order.Side, ["Switch sides"], at - 2, at - 0.8m, at + 2, i, i)
            { Clips = [Clip.Switch] };
        }
    }

    private string SideWords(int i)
    {
        var span = spans[i];
        if (span.Leg is not null)
        {
            return FirstSide(i) is { } side ? $"{(side == Side.Left ? "left" : "right")} side first" : "";
        }

        if (span.Side is not (Side.Left or Side.Right) || StationOf(i) is not { } station)
        {
            return "";
        }

        var hand = kit.HandOf(station, span.Side.Value);
        return PlanWords.Of(span.Side.Value, MoveOf(i)) + (hand.Length > 0 ? $", weight in the {hand} hand" : "");
    }

    /// <summary>The side that works, or in a rotation begins everywhere; null: both, or one here and the other there.</summary>
    private Side? FirstSide(int i)
    {
        var span = spans[i];
        if (span.Leg is null)
        {
            return span.Side is Side.Left or Side.Right ? span.Side : null;
        }

        var firsts = timeline.Stays.Where(s => s.Block == span.Block && s.Round == span.Round)
            .Select(s => s.Spans.FirstOrDefault(x => x.Kind == SpanKind.Work)?.Side)
                .Where(s => s is Side.Left or Side.Right)
                .Distinct()
                .ToArray();
        return firsts is [{ } side] ? side : null;
    }

    /// <summary>What comes next, begun at least ten seconds before it.</summary>
    private IEnumerable<CallWish> Next(int i, int before, decimal free)
    {
        var (scene, start) = (words[i], At(spans[i].Start));
        if (start == 0)
        {
            yield break;
        }

        var first = before < 0 ? "First" : "Next";
        var name = spans[i].Leg switch
        {
            0 => $"{BlockOf(i).Name}, to your first station",
            { } leg => $"move on one station, go {leg + 1} of {BlockOf(i).Stations.Length}",
            _ => scene.Headline,
        };
        var target = spans[i].Leg is null ? scene.Target : "";
        var what = StationOf(i) is { } station ? kit.Words(station) : "";
        string Said(params string[] parts) => $"{first}: {string.Join(", ", parts.Where(p => p.Length > 0))}";
        var from = before < 0 ? 0 : Math.Max(At(spans[before].Start), start - 40);
        yield return new CallWish(
            CallKind.Next, Order.Next,
            [Said(name, target, scene.Side, what), Said(name, scene.Side, what), Said(name, scene.Side), Said(name)],
            from, Math.Max(from, Math.Min(free, start - Ahead)), start, i, i)
        { BegunBy = Math.Max(start - Ahead, 0), Clips = [Clip.Next, .. scene.Side.Length > 0 ? Clip.Of(spans[i].Side) : []] };
    }

    private IEnumerable<CallWish> CountingIn(int i)
    {
        // What begins with a tap cannot be counted in.
        if (i == 0 || spans[i].Gated || spans[i - 1].Kind == SpanKind.Work)
        {
            yield break;
        }

        for (var left = CountIn; left >= 1; left--)
        {
            var at = At(spans[i].Start) - left;
            if (at > At(spans[i - 1].Start))
            {
                yield return new CallWish(
                    CallKind.CountIn, Order.CountIn, [Call.Number(left)], at, at, at + 1, i, i)
                { BegunBy = at, Clips = Clip.Of(left) };
            }
        }
    }

    private bool IsCounted(int i) => Counting(i) != Plans.Counting.Off && StationOf(i)?.Dose[spans[i].Part!.Value].Kind == PartKind.Reps;

    private Counting Counting(int i) => StationOf(i) is { } station ? BlockOf(i).CountAt(station) : Plans.Counting.Off;

    private IEnumerable<CallWish> Times(int i)
    {
        var (start, end, length) = (At(spans[i].Start), At(spans[i].End), spans[i].Length().Value);
        var order = IsCounted(i) ? Order.TimeWhileCounting : Order.Time;
        CallWish Say(string text, decimal at, int shift, params ImmutableArray<string> clips) =>
            new(CallKind.Time, order, [text], at, at, at + 5, i, shift) { BegunBy = at, Clips = clips };
        if (length >= LongGo)
        {
            yield return Say("Half-way", start + (length / 2m), i, Clip.HalfWay);
        }

        var hold = StationOf(i)?.Dose[spans[i].Part!.Value].Kind == PartKind.Hold;
        if (hold && length > LongHold)
        {
            yield return Say("15 seconds to go", end - 15, i + 1);
        }

        if (length >= 20)
        {
            yield return Say("10 seconds to go", end - 10, i + 1, Clip.TenSeconds);
        }

        if (length >= 15)
        {
            yield return Say("5 seconds to go", end - 5, i + 1, Clip.FiveSeconds);
        }
    }

    /// <summary>Each rep as it begins: down to one, up from one, the last five, or none, as the school has it.</summary>
    private IEnumerable<CallWish> Counts(int i)
    {
        if (!IsCounted(i))
        {
            yield break;
        }

        var (span, part, school) = (spans[i], StationOf(i)!.Dose[spans[i].Part!.Value], Counting(i));
        var reps = span.Amount ?? 0;
        for (var rep = school == Plans.Counting.Last5 ? Math.Max(0, reps - LastFive) : 0; rep < reps; rep++)
        {
            var at = At(span.Start) + (rep * part.RepSeconds);
            var left = reps - rep;
            var number = school == Plans.Counting.Up ? rep + 1 : left;
            var text = Call.Number(number);
            if (at + Call.SecondsFor(text) <= At(span.End))
            {
                yield return new CallWish(CallKind.Count, left <= LastFive ? Order.LastReps : Order.Count, [text], at, at, at + 1, i, i)
                { BegunBy = at, Clips = Clip.Of(number) };
            }
        }
    }

    /// <summary>Options in a station's first go, one thing of form in the last third of each, breath where it is wanted.</summary>
    private IEnumerable<CallWish> Hints(int i, bool again)
    {
        var (start, end) = (At(spans[i].Start), At(spans[i].End));
        var third = end - ((end - start) / 3);
        if (StationOf(i) is not { } station)
        {
            if (plan.Focus is { Length: > 0 } all)
            {
                yield return new CallWish(CallKind.Form, Order.Form, [all], third, third, end, i, i, Fresh: true);
            }

            yield break;
        }

        var first = !again && spans[i] is { Round: 0, Pass: null or 0, Turn: null or 0 } && !spans[..i]
            .Any(s => s.Kind == SpanKind.Work && s.Block == spans[i].Block && s.Station == spans[i].Station);
        if (first)
        {
            foreach (var (tier, word) in new[] { (Tier.Easier, "Easier"), (Tier.Harder, "Harder") })
            {
                if (station.Options.FirstOrDefault(o => o.Tier == tier) is { } option)
                {
                    yield return new CallWish(
                        CallKind.Tier, Order.Tier, kit.OptionWords(word, option, station), start + 1, start + 1, third, i, i);
                }
            }
        }

        if (MoveOf(i) is not { } move)
        {
            yield break;
        }

        if (first)
        {
            yield return new CallWish(CallKind.Breath, Order.Breath, [move.Breath.TrimEnd('.')], start + 1, start + 1, end, i, i);
        }

        // To everybody only what is good for everybody; an own move without cues has its fixes.
        var good = move.Cues is { IsDefaultOrEmpty: false } own
            ? own
            : move.Faults.IsDefault ? []
            : [.. move.Faults.Select(f => f.Fix.TrimEnd('.'))];
        var turn = good.IsEmpty ? 0 : Go(i) % good.Length;
        ImmutableArray<string> cues = [.. good[turn..], .. good[..turn]];
        yield return new CallWish(
            CallKind.Form, Order.Form,
            plan.Focus is { Length: > 0 } focus ? (Go(i) % 3 == 2 ? [focus, .. cues] : [.. cues, focus]) : cues,
            third, third, end, i, i, Fresh: true);
    }

    /// <summary>Which go of the class it is, from 0: the focus is said in every third.</summary>
    private int Go(int i) => spans[..i].Count(s => s.Kind == SpanKind.Work);

    private IEnumerable<CallWish> Between(int i)
    {
        var (span, block) = (spans[i], BlockOf(i));
        var (start, end) = (At(span.Start), At(span.End));
        if (span.IsDrinkIn(block))
        {
            yield return new CallWish(CallKind.Drink, Order.Drink, ["Take a drink"], start, start, end, i, i) { Clips = [Clip.Drink] };
        }

        if (span.Kind == SpanKind.Talk)
        {
            yield break;
        }

        if (span.Gap == Gap.Rounds && span.Round is { } next && block.Shape != BlockShape.Sets)
        {
            yield return new CallWish(CallKind.Round, Order.Round, [$"Round {next} of {block.Rounds} done"], start, start, end, i, i)
            { Clips = [Clip.RoundDone] };
            var minutes = (int)Math.Round((timeline.Length.Value - span.Start.Value) / 60.0, MidpointRounding.AwayFromZero);
            if (minutes > 1)
            {
                yield return new CallWish(CallKind.Minutes, Order.Round,
                    [string.Create(CultureInfo.InvariantCulture, $"{minutes} minutes left")], start, start + 2, end, i, i);
            }
        }
        else if (span is { Kind: SpanKind.Rest, Gap: not null } && end - start >= 15)
        {
            yield return new CallWish(CallKind.Rest, Order.Rest,
                [string.Create(CultureInfo.InvariantCulture, $"Rest, {span.Length().Value} seconds")], start, start, end, i, i)
            { Clips = [Clip.Rest] };
        }

        var before = WorkBefore(i);
        if (before >= 0 && StationOf(before) is { } from && (i + 1 >= spans.Length || spans[i + 1].Kind != SpanKind.Rest))
        {
            var after = Array.FindIndex([.. spans[(i + 1)..]], s => s.Kind == SpanKind.Work);
            var to = after < 0 ? null : StationOf(i + 1 + after);
            foreach (var change in kit.Changes(from, to))
            {
                yield return new CallWish(CallKind.Kit, Order.Kit, [change], start, start, end, i, i);
            }
        }
    }
}
