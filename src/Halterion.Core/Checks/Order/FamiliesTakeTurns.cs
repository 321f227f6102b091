using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No two neighbours of one family without a breath between.</summary>
public sealed class FamiliesTakeTurns() : Rule(
    "order.family",
    "Two neighbouring stations are of different families, or have 30 s between them.",
    "The second one is done on legs that are gone, and its form with them.",
    Common,
    "Some put two of one family together on purpose, to tire it: then say so.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from course in review.Courses
        from pair in course.Neighbours()
        where pair.Before.Block == pair.After.Block && pair.After.Gap < Thresholds.FamilyGap
        let block = review.Plan.Blocks[pair.After.Block]
        where ClassReview.IsMain(block) && block.Shape.IsInRounds && block.Stations.Length >= 3
        let before = review.Done(pair.Before)
        let after = review.Done(pair.After)
        where before is { IsHard: true } && after is not null && before.Family == after.Family
        group (review.At(pair.Before), review.At(pair.After), pair.After.Gap,
            after.Family) by (pair.After.Block, pair.After.Station) into later
        let first = later.First()
        select Found(
            Severity.Consider, first.Item2.Id,
            $"{first.Item2.Name} comes {(first.Gap == 0 ? "straight" : new Seconds(first.Gap).ToString())} after {first.Item1.Name}: "
            + $"{first.Family.ToString().ToLowerInvariant()} on {first.Family.ToString().ToLowerInvariant()}.",
            new Repair("Another order", () => RepairKit.Swaps(first.Item2).Concat(RepairKit.Swaps(first.Item1))));
}
