using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No two neighbours of one family without a breath between.</summary>
public sealed class FamiliesTakeTurns() : Rule(
    "order.family",
    "The same muscles get a break",
    "The second one is done on tired legs, and its form suffers.",
    Common,
    "Some put two of one family together on purpose, to tire it. If so, accept this as is.")
{
    /// <inheritdoc/>
    public override string? Several => "stations repeat the family before them";

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
            $"{first.Item2.Name} follows {first.Item1.Name} "
                + $"{(first.Gap == 0 ? "at once" : $"after only {new Seconds(first.Gap)}")}, and both are "
            + $"{first.Family.ToString().ToLowerInvariant()} moves.",
            new Repair("Change the order", () => RepairKit.Swaps(first.Item2).Concat(RepairKit.Swaps(first.Item1))));
}
