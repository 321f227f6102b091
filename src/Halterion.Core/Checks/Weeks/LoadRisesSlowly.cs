using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>A week's load does not leap.</summary>
public sealed class LoadRisesSlowly() : WeekRule(
    "week.load",
    "The week’s load rises slowly",
    "Bodies adapt slowly; a jump in load is felt the week after.",
    "Load = effort × minutes: Foster et al., J Strength Cond Res 15(1), 2001 (from memory); the limit is our own")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.History is not { } history)
        {
            yield break;
        }

        var monday = MondayOf(history.Start);
        var before = Before(history).ToArray();
        if (before.Length == 0 || MondayOf(before[0].Start) > monday.AddDays(-7 * Thresholds.WeeksBack))
        {
            yield break;
        }

        var known = before.TakeLast(4).Where(h => h.Effort is not null).Select(h => h.Effort!.Value).ToArray();
        var today = review.Timeline.Length.Value / 60m * (known.Length == 0 ? Thresholds.UsualEffort : known.Average());
        var week = history.Held.Where(h => MondayOf(h.Start) == monday).Sum(LoadOf) + today;
        var mean = before.Where(
            h => h.Start < monday && h.Start >= monday.AddDays(-7 * Thresholds.WeeksBack)).Sum(LoadOf) / Thresholds.WeeksBack;
        if (week > (decimal)Thresholds.WeekRise * mean)
        {
            var effort = known.Length == 0 ? Thresholds.UsualEffort : known.Average();
            var told =
                FormattableString.Invariant($"With this class the week’s load is {week:0}; the four weeks before had {mean:0} on average.");
            yield return Found(Severity.Consider, PlaceId.Class, told) with
            {
                Behind = FormattableString.Invariant($"This class counts {today:0}: its minutes times an effort of {effort:0.#}."),
            };
        }
    }
}
