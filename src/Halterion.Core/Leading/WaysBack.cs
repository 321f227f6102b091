using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;
using Halterion.Core.Timing.Refitting;

namespace Halterion.Core.Leading;

/// <summary>A way back to the booked end, or a way to use time in hand: one command of the lead.</summary>
/// <param name="EndsAt">When the class then ends, in milliseconds since 1970 UTC.</param>
/// <param name="Changes">What changes, line by line.</param>
/// <param name="Shifts">What an adjust carries.</param>
public sealed record WayBack(string Title, int Cost, long EndsAt, ImmutableArray<string> Changes, ImmutableArray<SceneShift> Shifts);

/// <summary>How a class under way stands to its booked end, and what can be done about it.</summary>
/// <param name="LateSeconds">Negative: in hand.</param>
/// <param name="Words">Such as "1 min 10 s behind".</param>
/// <param name="ShortBy">By how many seconds it ends late even so; 0: in time.</param>
/// <param name="Obstacles">What stands in the way then.</param>
public sealed record WaysBack(
    Seconds LateSeconds, string Words, ImmutableArray<WayBack> Ways, Seconds ShortBy, ImmutableArray<string> Obstacles)
{
    /// <summary>With so much in hand it is worth a thought. [M]</summary>
    private static readonly Seconds InHand = new(120);

    private const int Step = 5;

    /// <param name="now">Milliseconds since 1970 UTC.</param>
    /// <param name="endsAt">When the booked time is over.</param>
    /// <returns>Null if the class has ended, or the script is not of this timeline.</returns>
    public static WaysBack? Of(
        ClassPlan plan, Timeline timeline, ImmutableArray<SceneTime> scenes, LeadState state, long now, long endsAt, FitTerms terms)
    {
        var position = state.PositionAt(now, scenes);
        var end = LeadFold.EndOf(scenes, state.Added, scenes.Length - 1);
        if (state.Phase == LeadPhase.Finished
            || position >= end
            || !scenes.Select(s => s.End).SequenceEqual(timeline.Spans.Select(s => s.End)))
        {
            return null;
        }

        // Whole seconds, so rounded that what ends in time here ends in time there.
        var scene = LeadFold.SceneAt(position, scenes, state.Added);
        var left = (int)((LeadFold.EndOf(scenes, state.Added, scene) - position + 999) / 1000);
        var elapsed = (int)((position - LeadFold.EndOf(scenes, state.Added, scene - 1)) / 1000);
        var lengths = scenes.Select(
            (_, i) => i == scene ? elapsed + left : (int)((LeadFold.LengthOf(scenes, state.Added, i) + 999) / 1000)).ToImmutableArray();
        var under = state.Phase == LeadPhase.Ready
            ? new ClassUnderWay(lengths, ClassUnderWay.NotBegun, Seconds.Zero)
            : new ClassUnderWay(lengths, scene, new Seconds(elapsed));
        var remaining = new Seconds((int)Math.Floor((endsAt - now) / 1000.0));
        var behind = now + end - position - endsAt;
        var late = new Seconds((int)Math.Ceiling(behind / 1000.0));
        var words = late > Seconds.Zero ? $"{late.Apart()} "
            + $"late" : late < Seconds.Zero ? $"{(Seconds.Zero - late).Apart()} early" : "on time";
        WayBack Way(RefitWay way) => new(
            way.Title,
            way.Cost,
            now + 1000L * way.EndsInSeconds.Value,
            way.Changes,
            [.. way.Lengths.Select(l => new SceneShift(l.Span, 1000L * (l.Seconds - lengths[l.Span])))]);
        if (late > Seconds.Zero)
        {
            var found = Refit.Of(plan, timeline, under, remaining, terms);
            // One after which nothing is left ends the class at once, and an ended class hears no adjust: it could not be taken back.
            return new WaysBack(
                late, words, [.. found.Ways.Where(w => w.Lengths.Length > 0 && w.EndsInSeconds > Seconds.Zero).Select(Way)], found.ShortBy,
                [.. found.Obstacles.Select(o => $"{o.Limit}: {o.Words}")]);
        }

        var spare = Seconds.Zero - late;
        ImmutableArray<RefitWay> longer = spare < InHand
            ? []
            : [.. Again(plan, timeline, under, spare), .. LongerCoolDown(plan, timeline, under, spare)];
        return new WaysBack(late, words, [.. longer.Select(Way)], Seconds.Zero, []);
    }

    /// <summary>A round that was left out and would fit again, if it is still to come: the last first.</summary>
    private static IEnumerable<RefitWay> Again(ClassPlan plan, Timeline timeline, ClassUnderWay now, Seconds spare)
    {
        var gone = Enumerable.Range(now.UnderWay + 1, Math.Max(0, timeline.Spans.Length - now.UnderWay - 1))
            .Where(i => now.Lengths[i] == 0 && timeline.Spans[i] is { Round: not null })
            .GroupBy(i =>
                (timeline.Spans[i].Block, timeline.Spans[i].Round, Station: plan.Blocks[timeline.Spans[i].Block].Shape == BlockShape.Sets
                    ? timeline.Spans[i].Station : null))
            .OrderByDescending(g => g.Key.Block).ThenBy(g => g.Key.Round);
        foreach (var round in gone)
        {
            var (block, lengths) = (
                plan.Blocks[round.Key.Block], round.Select(i => new NewLength(i, timeline.Spans[i].Length().Value)).ToImmutableArray());
            var whole = new Seconds(lengths.Sum(l => l.Seconds));
            if (whole <= spare && block.SidePass != SidePass.Alternate)
            {
                var what = round.Key.Station is { } s
                    ? $"{block.Stations[s].Name} set {round.Key.Round + 1}"
                    : $"round {round.Key.Round + 1}";
                yield return new RefitWay("Put a round back", 0, now.Left + whole, [], [$"{block.Name}: put back {what}, "
                    + $"{whole}"])
                { Lengths = lengths };
                yield break;
            }
        }
    }

    /// <summary>
    /// Every stretch of the cool-down still to come longer by the same, at most twice as long, so that both sides stay alike.
    /// </summary>
    private static IEnumerable<RefitWay> LongerCoolDown(ClassPlan plan, Timeline timeline, ClassUnderWay now, Seconds spare)
    {
        var spans = Enumerable.Range(now.UnderWay + 1, Math.Max(0, timeline.Spans.Length - now.UnderWay - 1))
            .Where(i => now.Lengths[i] > 0 && timeline.Spans[i].Kind is SpanKind.Work or SpanKind.Talk
                && plan.Blocks[timeline.Spans[i].Block].Phase == Phase.Cooldown)
            .ToArray();
        var started = timeline.Spans.Take(now.UnderWay + 1)
            .Where(s => s.Kind == SpanKind.Work)
            .Select(s => (s.Block, s.Station, s.Round))
            .ToHashSet();
        var open = spans.Where(
            i => !started.Contains((timeline.Spans[i].Block, timeline.Spans[i].Station, timeline.Spans[i].Round))).ToArray();
        if (open.Length == 0)
        {
            yield break;
        }

        var most = open.Min(i => now.Lengths[i]);
        var more = Math.Min(spare.Value / open.Length, most) / Step * Step;
        if (more > 0)
        {
            yield return new RefitWay("A longer cool-down", 0, now.Left + new Seconds(more * open.Length), [],
                [open.Length == 1 ? $"{more} s longer" : $"{Counted.Of(open.Length, "stretch", "stretches")}, {more} s longer each"])
            {
                Lengths = [.. open.Select(i => new NewLength(i, now.Lengths[i] + more))],
            };
        }
    }
}
