using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Checks;

/// <summary>The class ends within its slot.</summary>
public sealed class EndsInTime() : Rule(
    "time.over",
    "Ends within the booked time",
    "Running over eats the cool-down or the next class’s time.", Common)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Over <= Seconds.Zero ? [] :
        [Found(Severity.Fix, PlaceId.Class, $"The class is {review.Over.Apart()} over its {review.Plan.SlotMinutes} booked "
            + $"minutes.", ToTheSlot(review))];

    /// <summary>Working out the cheapest way takes longer than all checks, so it waits until it is asked for.</summary>
    public static Repair ToTheSlot(ClassReview review) => Repair.Later(
        $"Make it fit {review.Plan.SlotMinutes} min",
        () => Fit.Of(review.Plan, new FitTerms { Changes = review.Settings.Changes }).Ways is [var best, ..] ? best.Edits : []);
}
