using Halterion.Core.Moves;

namespace Halterion.Core.Checks;

/// <summary>No core work directly before a loaded hinge.</summary>
public sealed class TrunkRecovers() : Rule(
    "order.trunk",
    "Core work does not come right before a loaded hinge",
    "A tired trunk rounds, and the back takes over.",
    Common,
    "Some wake the trunk up with a light core move first.")
{
    /// <inheritdoc/>
    public override string? Several => "loaded hinges follow core work";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from course in review.Courses
        from pair in course.Neighbours()
        let hinge = review.At(pair.After)
        where pair.After.Gap < Thresholds.GripGap && hinge.IsMain && review.At(pair.Before).IsMain
        where review.Done(pair.Before) is { Family: Family.Core } && review.Done(pair.After) is { Family: Family.Hinge, IsLoaded: true }
        group (Before: review.At(pair.Before), After: hinge) by (hinge.B, hinge.S) into place
        let first = place.First()
        select Found(
            Severity.Consider, first.After.Id, $"{first.After.Name} (loaded) comes straight after core work "
                + $"({first.Before.Name}); leave 60 s.",
            new Repair("Change the order", () => RepairKit.Swaps(first.After).Concat(RepairKit.Swaps(first.Before))));
}
