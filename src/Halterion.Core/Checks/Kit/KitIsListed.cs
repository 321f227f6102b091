using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>What is needed stands in the stock.</summary>
public sealed class KitIsListed() : Rule(
    "kit.unknown",
    "Kit is on the kit list",
    "Nobody knows whether it is there, so it is not counted as missing.", Ours)
{
    /// <inheritdoc/>
    public override string? Several => "blocks use kit that is not on the list";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.Occasion is not { Room.Kit: { } stock })
        {
            yield break;
        }

        foreach (var at in review.Stations.GroupBy(s => s.B))
        {
            var unknown = at.SelectMany(s => review.InUse(s).SelectMany(option => review.Needs(option, s)))
                .Where(n => n.BarKg is null && !Supply.Lists(stock, n)).Select(n => n.Kind).Distinct().ToArray();
            if (unknown.Length > 0)
            {
                var block = at.First().Block;
                yield return Found(Severity.Consider, block.Id,
                    $"{block.Name} needs {Told.And(unknown.Select(NeedWords.Many))}: not on the kit list of the room.");
            }
        }
    }
}
