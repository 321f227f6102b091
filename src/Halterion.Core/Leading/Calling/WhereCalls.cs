using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Leading.Calling;

/// <summary>
/// Where the class is: sets, rounds and minutes, rest and recovery, turns, own pace, drinks, gates, and the one word of care.
/// </summary>
internal sealed class WhereCalls(ClassPlan plan, Timeline timeline, Preferences schools)
{
    /// <summary>A shorter rest needs no words.</summary>
    private const decimal ShortRest = 15;

    private static readonly string[] Small = ["no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"];

    private readonly ImmutableArray<Span> spans = timeline.Spans;

    public IEnumerable<CallWish> Of(Go go) => [.. Done(go), .. Care(go), .. Turns(go), .. OwnPace(go), .. Gate(go)];

    /// <summary>In the gap, else in the first third of the next go.</summary>
    private static CallWish Before(Go go, CallKind kind, params ImmutableArray<string> texts) => new(
        kind, Order.Where, texts, go.FreeFrom, go.Gap > 0 ? go.FreeFrom + 1.5m : go.Start + 1, go.Start
            + Math.Round(go.Length / 3, 1), go.Index, go.Index);

    private IEnumerable<CallWish> Done(Go go)
    {
        if (go.Before is not { } before)
        {
            yield break;
        }

        var newBlock = before.Span.Block != go.Span.Block;
        var newRound = !newBlock && before.Span.Round != go.Span.Round;
        if (newRound && (go.Block.Shape != BlockShape.Sets || go.Follows == Follows.Set))
        {
            var (word, done, all) = (go.Block.Shape.RoundWord, go.Span.Round ?? 0, go.Block.Rounds);
            var left = all - done;
            yield return Before(go, CallKind.Round,
                left == 1 ? $"Last {word}"
                : $"{word.Capital()} {done} of {all} done, {(left < Small.Length ? Small[left] : Written(left))} to go",
                $"{word.Capital()} {done} of {all} done") with
            { Clips = [Clip.RoundDone] };
        }

        if (newBlock || (newRound && go.Block.Shape != BlockShape.Sets))
        {
            yield return Before(go, CallKind.Minutes, TimeLeft.Of(timeline.Length.Value - (go.Gap > 0 ? go.FreeFrom : go.Start)));
        }
    }

    /// <summary>Said of rests, drinks and recoveries, span by span.</summary>
    public IEnumerable<CallWish> Resting()
    {
        for (var i = 0; i < spans.Length; i++)
        {
            var (span, block) = (spans[i], plan.Blocks[spans[i].Block]);
            var (start, end) = ((decimal)span.Start.Value, (decimal)span.End.Value);
            if (span.Kind is SpanKind.Rest or SpanKind.Change && span.IsDrinkIn(block))
            {
                yield return new CallWish(CallKind.Drink, Order.Where, ["Take a drink"], start, start
                    + 1.2m, end, i, i)
                { Clips = [Clip.Drink] };
            }

            if (span is not { Kind: SpanKind.Rest, Gap: not null })
            {
                continue;
            }

            var recovery = block.Recovery.FirstOrDefault(o => o.Tier == Tier.Main);
            var length = $"{Written(span.Length().Value)} seconds";
            if (recovery is not null && plan.Moves.Find(recovery.Move) is { } move)
            {
                yield return new CallWish(CallKind.Rest, Order.Where, [$"{move.Name}, {length}", move.Name], start, start, end, i, i);
                foreach (var wish in RecoveryOptions(block, start, end, i))
                {
                    yield return wish;
                }
            }
            else if (end - start >= ShortRest)
            {
                yield return new CallWish(CallKind.Rest, Order.Where, [$"Rest, {length}"], start, start, end, i, i)
                { Clips = [Clip.Rest], BegunBy = start + 2 };
            }
        }
    }

    private IEnumerable<CallWish> RecoveryOptions(Block block, decimal start, decimal end, int scene)
    {
        var station = new Station { Id = default, Name = "", Dose = [], Options = block.Recovery };
        var said = Differs.Of(station, plan.Moves, schools);
        for (var i = 0; i < block.Recovery.Length; i++)
        {
            if (said[i] is { Length: > 0 } words)
            {
                var tier = block.Recovery[i].Tier;
                yield return new CallWish(CallKind.Tier, Order.Option,
                    [$"{(tier == Tier.Instead ? "Or" : tier.ToString())}: {words}"], start, start + 2, end, scene, scene);
            }
        }
    }

    /// <summary>Once, before the first main work.</summary>
    private IEnumerable<CallWish> Care(Go go)
    {
        if (go.Block.Phase == Phase.Main && !HasMain(go.Before))
        {
            yield return Before(go, CallKind.Care, "Stop at pain, and tell me");
        }

        static bool HasMain(Go? before) => before is not null && (before.Block.Phase == Phase.Main || HasMain(before.Before));
    }

    private IEnumerable<CallWish> Turns(Go go)
    {
        if (go.Station is not { Turns: true } station)
        {
            yield break;
        }

        if (go.Follows == Follows.Turn)
        {
            yield return new CallWish(
                CallKind.Turn, Order.Side, ["Swap"], Math.Max(go.FreeFrom - 2, 0), go.Gap > 0 ? go.FreeFrom : go.Start - 0.5m, go.Start + 1,
                go.Index, go.Index)
            { Clips = [Clip.Switch] };
        }
        else if (go.IsFirstOfStation)
        {
            var waits = station.Waiting.FirstOrDefault(o => o.Tier == Tier.Main) is { } waiting
                ? plan.Moves.Find(waiting.Move)?.Name.ToLowerInvariant()
                : null;
            yield return Before(go, CallKind.Turn, $"First of you works, the other: {waits ?? "rests"}", "First of you works");
        }
    }

    private IEnumerable<CallWish> OwnPace(Go go)
    {
        if (go.Block.Shape != BlockShape.OwnPace)
        {
            yield break;
        }

        if (PlanWords.Goal(go.Block) is { Length: > 0 } goal)
        {
            yield return new CallWish(
                CallKind.Round, Order.Where, [$"Goal: {goal}"], go.Start, go.Start + 2, Math.Min(go.End, go.Start
                    + 15), go.Index, go.Index);
        }

        decimal? last = null;
        foreach (var left in new[] { go.Length / 2, 120, 60 }.Where(l => l <= go.Length / 2 && l > 0))
        {
            var at = go.End - left;
            if (last is { } before && at - before <= 20)
            {
                continue;
            }

            last = at;
            var text = left < 60 ? $"{Written((int)left)} seconds" : TimeLeft.Of(left)[..^5];
            yield return new CallWish(
                CallKind.Time, Order.Where, [left == go.Length / 2 ? $"Halfway, {text} left" : $"{text} left"], at, at, at + 5, go.Index,
                go.Index + 1)
            { BegunBy = at };
        }
    }

    /// <summary>Where the class waits for a tap.</summary>
    private static IEnumerable<CallWish> Gate(Go go)
    {
        if (go.Span.Gated)
        {
            yield return new CallWish(
                CallKind.Gate, Order.Where, ["Waiting for you"], go.Start, go.Start, go.Start + 5, go.Index, go.Index)
            { BegunBy = go.Start };
        }
    }

    private static string Written(int number) => number.ToString(CultureInfo.InvariantCulture);
}
