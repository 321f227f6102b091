using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading;

/// <summary>How much of somebody's work at a station has run, of all rounds together. leading.md, "What is recorded as done".</summary>
/// <param name="Ran">Milliseconds.</param>
/// <param name="Planned">Milliseconds; what a way to catch up took away is not planned.</param>
public sealed record WorkDone(long Ran, long Planned)
{
    /// <summary>At least half of it has run.</summary>
    public bool IsDone => Planned > 0 && 2 * Ran >= Planned;

    /// <summary>Nothing of it has.</summary>
    public bool IsLeftOut => Ran == 0;

    /// <summary>"cut short, 12 of 36 s"; empty where it is done, or left out.</summary>
    public string Words => IsDone || IsLeftOut ? ""
        : string.Create(CultureInfo.InvariantCulture, $"cut short, {Rounded(Ran)} of {Rounded(Planned)} s");

    private static long Rounded(long milliseconds) => (milliseconds + 500) / 1000;
}

/// <summary>What ran of a class as it was led, station by station and person by person.</summary>
public sealed class WorkThatRan
{
    private readonly ClassPlan plan;
    private readonly Timeline timeline;
    private readonly ImmutableArray<BlockGroups> groups;
    private readonly long[] ran;
    private readonly long[] planned;

    /// <param name="groups">Of the rotations: who is where at which bell.</param>
    /// <param name="now">Milliseconds since 1970 UTC.</param>
    public WorkThatRan(ClassPlan plan, Timeline timeline, ImmutableArray<LeadCommand> commands, ImmutableArray<BlockGroups> groups,
        long now)
    {
        (this.plan, this.timeline, this.groups) = (plan, timeline, groups);
        ImmutableArray<SceneTime> times = [.. timeline.Spans.Select(s => new SceneTime(s.End, s.Gated))];
        planned = LeadRecord.Planned(commands, times);
        ran = [.. LeadRecord.Ran(commands, times, now).Select((ms, i) => Math.Min(ms, planned[i]))];
    }

    /// <summary>Of a station, whoever was there.</summary>
    public WorkDone At(PlaceId station) => Sum(station, _ => true);

    /// <summary>Of a station for somebody: in a rotation their own stays there, where their group is known.</summary>
    public WorkDone At(PlaceId station, PersonId who) =>
        plan.Find(station) is { } place && GroupOf(place.Block, who) is { } group
            ? Sum(station, span => span.Leg is not { } leg
                || (group + leg) % place.Block.Stations.Length == place.Block.Stations.IndexOf(place.Station))
            : At(station);

    /// <summary>
    /// The share of a station's work for somebody that ran, by round from 0 and side; what was not planned did not. Where the clock does
    /// not tell the sides apart, of both.
    /// </summary>
    public Func<int, BodySide?, decimal> Shares(PlaceId station, PersonId who)
    {
        if (plan.Find(station) is not { } place)
        {
            return (_, _) => 0;
        }

        var group = GroupOf(place.Block, who);
        var spans = SpansOf(place, span => group is not { } g || span.Leg is not { } leg
                || (g + leg) % place.Block.Stations.Length == place.Block.Stations.IndexOf(place.Station))
            .ToLookup(i => timeline.Spans[i].Round ?? 0);
        return (round, side) =>
        {
            var all = spans[round].ToArray();
            var its = side is null ? [] : Array.FindAll(all, i => timeline.Spans[i].Side?.ToString() == side.ToString());
            return Share(its.Length > 0 ? its : all);
        };
    }

    private decimal Share(int[] spans) => spans.Sum(i => planned[i]) is > 0 and var asked ? (decimal)spans.Sum(i => ran[i]) / asked : 0;

    /// <summary>The station that somebody is at in a span; null: none, or in a rotation it is not known.</summary>
    public PlaceId? Where(int span, PersonId who)
    {
        if (span < 0 || span >= timeline.Spans.Length)
        {
            return null;
        }

        var (at, block) = (timeline.Spans[span], plan.Blocks[timeline.Spans[span].Block]);
        return at.Station is { } s ? block.Stations[s].Id
            : at.Leg is { } leg && GroupOf(block, who) is { } group ? block.Stations[(group + leg) % block.Stations.Length].Id
            : null;
    }

    /// <summary>Whole rounds of which nothing ran though they were planned, by block.</summary>
    public IEnumerable<(Block Block, int Round)> RoundsLeftOut() =>
        from i in Enumerable.Range(0, ran.Length)
        let span = timeline.Spans[i]
        where span is { Kind: SpanKind.Work, Round: not null }
        group i by (span.Block, Round: span.Round!.Value) into round
        where round.All(i => ran[i] == 0) && plan.Blocks[round.Key.Block].Rounds > 1
        orderby round.Key.Block, round.Key.Round
        select (plan.Blocks[round.Key.Block], round.Key.Round);

    private int? GroupOf(Block block, PersonId who) => groups.FirstOrDefault(g => g.Block == block.Id) is { } of
        && of.Groups.Select((people, g) => (people, g)).Where(x => x.people.Contains(who)).ToArray() is [var (_, found)]
            ? found
            : null;

    private WorkDone Sum(PlaceId station, Func<Span, bool> counts)
    {
        if (plan.Find(station) is not { } place)
        {
            return new WorkDone(0, 0);
        }

        var spans = SpansOf(place, counts);
        // Of two who share it each works one turn.
        var share = place.Station.Turns ? 2 : 1;
        return new WorkDone(spans.Sum(i => ran[i]) / share, spans.Sum(i => planned[i]) / share);
    }

    private int[] SpansOf((Block Block, Station Station) place, Func<Span, bool> counts)
    {
        var (block, index) = (plan.Blocks.IndexOf(place.Block), place.Block.Stations.IndexOf(place.Station));
        return
        [
            .. Enumerable.Range(0, ran.Length).Where(i => timeline.Spans[i] is { Kind: SpanKind.Work } s && s.Block == block
                && (s.Station ?? index) == index && counts(timeline.Spans[i])),
        ];
    }
}
