namespace Halterion.Core.Checks;

/// <summary>The hands recover between two stations that tire them.</summary>
public sealed class GripRecovers() : Rule(
    "order.grip",
    "Two neighbours that tire the grip have 60 s between them.",
    "The hands open before the legs have had enough, and weights fall.",
    "[M] demand from the body model; docs/body-model.md")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from course in review.Courses
        from pair in course.Neighbours()
        let later = review.At(pair.After)
        where pair.After.Gap < Thresholds.GripGap && later.IsMain && review.At(pair.Before).IsMain
        where Tires(review.Done(pair.Before)) && Tires(review.Done(pair.After))
        group (Before: review.At(pair.Before), After: later) by (later.B, later.S) into place
        let first = place.First()
        select Found(
            Severity.Consider, first.After.Id, $"{first.After.Name} tires the grip right after {first.Before.Name}.",
            new Repair("Another order", () => RepairKit.Swaps(first.After).Concat(RepairKit.Swaps(first.Before))));

    private static bool Tires(DonePart? done) => done?.Facts is { Demand.Grip: >= Thresholds.TiringGrip };
}
