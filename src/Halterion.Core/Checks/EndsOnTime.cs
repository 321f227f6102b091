using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Checks;

/// <summary>The class must end when the room is booked to end, without leaving it idle.</summary>
public sealed class EndsOnTime : IRule
{
    /// <summary>Spare time up to this is no finding: a class may end a little early. [M] Our choice.</summary>
    private static readonly Seconds Slack = new(60);

    public IEnumerable<Finding> Check(ClassReview review)
    {
        // Working out the cheapest way takes longer than all other checks, so it waits until it is asked for.
        var fit = new Repair(
            $"Bring it to {review.Plan.SlotMinutes} min at the least cost",
            () => Fit.Of(review.Plan, new FitTerms { Pace = review.Preferences.Pace }).Ways is [var best, ..] ? best.Edits : []);
        if (review.Over > Seconds.Zero)
        {
            yield return new Finding(
                "time.over", Severity.Fix, PlaceId.Class,
                $"The class ends {review.Over} late.",
                "An overrun eats the cool-down, or the next class's time.",
                "Common practice, no source",
                [fit]);
        }
        else if (review.Over + Slack < Seconds.Zero)
        {
            yield return new Finding(
                "time.under", Severity.Consider, PlaceId.Class,
                $"The class ends {Seconds.Zero - review.Over} early.",
                "Booked time is left over: room for a round, a longer rest or a calmer start.",
                "Common practice, no source",
                [fit]);
        }
    }
}
