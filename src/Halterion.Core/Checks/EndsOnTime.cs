namespace Halterion.Core.Checks;

/// <summary>The class must end when the room is booked to end, without leaving it idle.</summary>
public sealed class EndsOnTime : IRule
{
    /// <summary>Spare time up to this is no finding: a class may end a little early. [M] Our choice.</summary>
    private static readonly Seconds Slack = new(60);

    public IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.Over > Seconds.Zero)
        {
            var trims = Trim.Over(review);
            var way = trims.IsEmpty ? " No single change is enough: take out a station or a block." : "";
            yield return new Finding(
                "time.over", Severity.Fix, "/slotMinutes",
                $"The class ends {review.Over} late.{way}",
                "An overrun eats the cool-down, or the next class's time.",
                "Common practice, no source",
                trims);
        }
        else if (review.Over + Slack < Seconds.Zero)
        {
            yield return new Finding(
                "time.under", Severity.Consider, "/slotMinutes",
                $"The class ends {Seconds.Zero - review.Over} early.",
                "Booked time is left over: room for a round, a longer rest or a calmer start.",
                "Common practice, no source",
                Trim.Under(review));
        }
    }
}
