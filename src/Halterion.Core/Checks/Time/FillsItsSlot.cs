using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>The class does not end more than a minute before its slot.</summary>
public sealed class FillsItsSlot() : Rule(
    "time.under",
    "Fills the booked time",
    "You have room for another round, longer rests or a calmer start.", Common)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => (Seconds.Zero - review.Over).Value <= Thresholds.Early ? [] :
        [Found(Severity.Consider, PlaceId.Class, $"{Seconds.Zero - review.Over} of the {review.Plan.SlotMinutes} booked "
            + $"minutes are free.", EndsInTime.ToTheSlot(review))];
}
