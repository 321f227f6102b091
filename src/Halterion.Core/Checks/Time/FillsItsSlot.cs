using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>The class does not end more than a minute before its slot.</summary>
public sealed class FillsItsSlot() : Rule(
    "time.under", "The class fills its slot.", "Booked time is left over: room for a round, a longer rest or a calmer start.", Common)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => (Seconds.Zero - review.Over).Value <= Thresholds.Early ? [] :
        [Found(Severity.Consider, PlaceId.Class, $"The class ends {Seconds.Zero - review.Over} early.", EndsInTime.ToTheSlot(review))];
}
