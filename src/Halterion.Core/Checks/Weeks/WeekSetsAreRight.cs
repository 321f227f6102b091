using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>For strength each family has 10 to 20 hard sets in a week.</summary>
public sealed class WeekSetsAreRight() : WeekRule(
    "week.sets",
    "Strength weeks have 10–20 hard sets per family",
    "Fewer only maintains; more is more than most people recover from.", "Common practice: 10–20 hard sets a week for growth",
    "Some do well on less, close to failure.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.History is not { } history || review.Plan.Aim != Aim.Strength)
        {
            yield break;
        }

        var monday = MondayOf(history.Start);
        var today = HardSets(review);
        var sets = FamilyShares.Hard.Select(f => (Family: f, Sets: today.GetValueOrDefault(f)
            + history.Held.Where(h => MondayOf(h.Start) == monday).Sum(h => h.HardSets.GetValueOrDefault(f)))).ToArray();
        var last = history.LastOfWeek && history.Held.All(h => h.Start < history.Start || MondayOf(h.Start) != monday);
        var off = sets.Where(s => s.Sets > Thresholds.MostWeekSets || last && s.Sets < Thresholds.LeastWeekSets).ToArray();
        if (off.Length > 0)
        {
            yield return Found(
                Severity.Note, PlaceId.Class,
                $"Hard sets this week including this class (aim for 10–20): "
                + $"{Told.And(off.Select(s => FormattableString.Invariant($"{s.Family.ToString().ToLowerInvariant()} {s.Sets:0.#}")))}.");
        }
    }
}
