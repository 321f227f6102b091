using System.Globalization;
using Halterion.Core.Logbook;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Views;

/// <summary>A log in words, a line a person.</summary>
public static class LogWords
{
    /// <summary>A log in lines, for seeing what differs.</summary>
    public static IEnumerable<string> Lines(ClassLog log, ClassPlan plan, IReadOnlyDictionary<PersonId, string> names) =>
    [
        .. log.Rows.Select(row => $"{names.GetValueOrDefault(row.PersonId, "Someone")}: {Of(row, plan)}"),
        $"Notes for next time: {log.Note}",
    ];

    private static string Of(LogRow row, ClassPlan plan) => string.Join(", ", Parts(row, plan));

    private static IEnumerable<string> Parts(LogRow row, ClassPlan plan)
    {
        yield return row.Came ? "came" : "did not come";
        foreach (var use in row.Came ? row.Uses : [])
        {
            if (plan.Find(use.Station) is { } found)
            {
                var option = found.Station.Options.FirstOrDefault(o => o.Id == use.Option);
                yield return $"{found.Station.Name} {(option is null ? "left out" : WordsOf<Tier>.Of(option.Tier))}{Sets(use)}";
            }
        }

        if (row.Effort is { } effort)
        {
            yield return string.Create(CultureInfo.InvariantCulture, $"effort {effort:0.#}");
        }

        if (row.Pain is { } pain)
        {
            yield return $"pain {pain.Where}".TrimEnd();
        }

        if (row.Note.Length > 0)
        {
            yield return $"“{row.Note}”";
        }
    }

    private static string Sets(StationUse use) => use.Sets.IsEmpty ? ""
        : $" {string.Join(" ", use.Sets.Select(s => s.Reps is null ? $"{s.Amount} s" : $"{s.Amount}"))}"
            + (use.Sets[^1].Kg is { } kg ? string.Create(CultureInfo.InvariantCulture, $" with {kg:0.##} kg") : "");
}
