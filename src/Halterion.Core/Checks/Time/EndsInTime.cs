using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Checks;

/// <summary>The class ends within its slot.</summary>
public sealed class EndsInTime() : Rule(
    "time.over", "The class ends within its slot.", "An overrun eats the cool-down, or the next class's time.", Common)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Over <= Seconds.Zero ? [] :
        [Found(Severity.Fix, PlaceId.Class, $"The class ends {review.Over} late.", ToTheSlot(review))];

    /// <summary>Working out the cheapest way takes longer than all checks, so it waits until it is asked for.</summary>
    public static Repair ToTheSlot(ClassReview review) => Repair.Later(
        $"Bring it to {review.Plan.SlotMinutes} min at the least cost",
        () => Fit.Of(review.Plan, new FitTerms { Changes = review.Settings.Changes }).Ways is [var best, ..] ? best.Edits : []);
}
