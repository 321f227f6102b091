using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>What is needed stands in the stock.</summary>
public sealed class KitIsListed() : Rule(
    "kit.unknown", "What is needed stands in the list of what there is.", "Nobody knows whether it is there; it is not counted as missing.", Ours)
{
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.Occasion is not { Room.Kit: { } stock } occasion)
        {
            yield break;
        }

        foreach (var at in review.Stations.GroupBy(s => s.B))
        {
            var unknown = at.SelectMany(s => InUse(occasion, s)).SelectMany(x => review.Needs(x.Option, x.At))
                .Where(n => !Supply.Lists(stock, n)).Select(n => n.Kind).Distinct().ToArray();
            if (unknown.Length > 0)
            {
                var block = at.First().Block;
                yield return Found(Severity.Consider, block.Id,
                    $"“{block.Name}” needs {Told.And(unknown.Select(NeedWords.Many))}, and the list of the room says nothing of it.");
            }
        }
    }

    /// <summary>Options that somebody is given; whoever has no name does the main one.</summary>
    public static IEnumerable<(StationAt At, Option Option)> InUse(Occasion occasion, StationAt at)
    {
        var given = occasion.Given.People.SelectMany(p => p.Stations).Where(s => s.Station == at.Id).Select(s => s.Option).OfType<PlaceId>().ToHashSet();
        return at.Station.Options.Where(o => given.Contains(o.Id) || o.Tier == Tier.Main && occasion.Heads > occasion.Room.People.Length).Select(o => (at, o));
    }
}
