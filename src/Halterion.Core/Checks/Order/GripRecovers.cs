namespace Halterion.Core.Checks;

/// <summary>The hands recover between two stations that tire them.</summary>
public sealed class GripRecovers() : Rule(
    "order.grip",
    "Grip gets a break",
    "Hands give out before legs, and weights get dropped.",
    "Our body model (an estimate)")
{
    /// <inheritdoc/>
    public override string? Several => "stations tire the grip twice running";

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
            Severity.Consider, first.After.Id, $"{first.After.Name} works the grip again straight after {first.Before.Name}.",
            new Repair("Change the order", () => RepairKit.Swaps(first.After).Concat(RepairKit.Swaps(first.Before))));

    private static bool Tires(DonePart? done) => done?.Facts is { Demand.Grip: >= Thresholds.TiringGrip };
}
