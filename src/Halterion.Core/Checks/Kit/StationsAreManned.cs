using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>In a rotation every station has people, and none a crowd.</summary>
public sealed class StationsAreManned() : Rule(
    "room.empty",
    "Rotation groups are a good size",
    "At an empty station no one is there; at a crowded one no one is seen.", Ours)
{
    /// <inheritdoc/>
    public override string? Several => "rotations have empty or crowded stations";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.Occasion is not { Heads: > 0 } occasion)
        {
            yield break;
        }

        foreach (var block in review.Plan.Blocks.Where(b => b.Shape == BlockShape.Rotation))
        {
            var most = Moment.GroupsOf(occasion, block).Max(g => g.Length);
            if (occasion.Heads < block.Stations.Length)
            {
                yield return Found(Severity.Note, block.Id,
                    $"{block.Name}: {Told.People(occasion.Heads)} for {block.Stations.Length} stations, so "
                    + $"{Counted.Of(block.Stations.Length - occasion.Heads, "station stays", "stations stay")} empty.");
            }
            else if (most > Thresholds.MostAtAStation)
            {
                yield return Found(Severity.Note, block.Id, $"{block.Name}: up to {most} people share a station; keep "
                    + $"it to {Thresholds.MostAtAStation}.");
            }
        }
    }
}
