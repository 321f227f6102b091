using System.Globalization;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>What the rules of weeks share. Weeks are ISO weeks: Monday to Sunday.</summary>
public abstract class WeekRule(
    string code, string says, string why, string source, string others = "") : Rule(code, says, why, source, others)
{
    /// <summary>The Monday of its week.</summary>
    protected static DateTime MondayOf(DateTime day) =>
        ISOWeek.ToDateTime(ISOWeek.GetYear(day), ISOWeek.GetWeekOfYear(day), DayOfWeek.Monday);

    /// <summary>Classes held before this one, the last one last.</summary>
    protected static IEnumerable<HeldClass> Before(History history) =>
        history.Held.Where(h => h.Start < history.Start).OrderBy(h => h.Start);

    /// <summary>What a class weighs: its minutes times its effort.</summary>
    protected static decimal LoadOf(HeldClass held) => held.Load ?? (held.Effort ?? Thresholds.UsualEffort) * (held.Minutes ?? 0);

    /// <summary>The goes of each family in this class's main work.</summary>
    public static IReadOnlyDictionary<Family, decimal> HardSets(ClassReview review) => review.Courses[0].Pieces
        .Where(p => review.At(p).IsMain)
        .Select(p => (p.Block, p.Round, p.Station, review.Done(p)?.Family))
        .Distinct()
        .Where(p => p.Family is Family.Squat or Family.Lunge or Family.Hinge or Family.Bridge)
        .GroupBy(p => p.Family!.Value).ToDictionary(g => g.Key, g => (decimal)g.Count());
}
