using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Every station has at least one easier and one harder option, so that a mixed room starts and stops together.</summary>
public sealed class OptionsBothWays : IRule
{
    public IEnumerable<Finding> Check(ClassReview review) =>
        from block in review.Plan.Blocks.Select((block, index) => (block.Stations, Index: index))
        from station in block.Stations.Select((station, index) => (Station: station, Index: index))
        let missing = Missing(station.Station, review.Moves)
        where missing.Length > 0
        select Found(review.Moves, station.Station, $"/blocks/{block.Index}/stations/{station.Index}", missing);

    /// <summary>What is not there, and could be: a stretch that nothing makes harder lacks nothing.</summary>
    private static ImmutableArray<Tier> Missing(Station station, MoveLibrary moves)
    {
        var known = moves.Find(station.Main.Move)?.Poses is not null;
        var proposed = Proposals.For(station.Main.Move, moves);
        return [.. new[] { Tier.Easier, Tier.Harder }.Where(tier => !station.Options.Any(o => o.Tier == tier) && (!known || (tier == Tier.Easier ? proposed.Easier : proposed.Harder) is not null))];
    }

    private static Finding Found(MoveLibrary moves, Station station, string place, ImmutableArray<Tier> missing)
    {
        var words = string.Join(" and no ", missing.Select(m => m.ToString().ToLowerInvariant()));
        var proposed = Proposals.For(station.Main.Move, moves);
        var additions = missing.Select(m => m == Tier.Easier ? proposed.Easier : proposed.Harder).OfType<Proposal>().ToArray();
        return new Finding(
            "options.missing", Severity.Consider, station.Id,
            $"{station.Name} has no {words} option.",
            "A room of mixed ability can only start and stop together if everyone has something to do.",
            "Common practice, no source",
            additions.Length == 0 ? [] :
            [
                new Repair(
                    "Add " + string.Join(" and ", additions.Select(a => $"{WordsOf<Tier>.Of(a.Of.Tier)}: {a.Name} ({a.Dimension})")),
                    [.. additions.Select(a => new Edit($"{place}/options/-", a.Option))]),
            ]);
    }
}
