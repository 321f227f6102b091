using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Logbook;
using Halterion.Core.People;
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
        $"Carried over: {log.CarriedOver}",
        $"Minutes: {(log.Minutes is { } minutes ? $"{minutes}" : "not said")}",
        $"Found hardest: {Station(log.Hardest, plan)}; liked least: {Station(log.LeastLiked, plan)}",
    ];

    /// <summary>How a date of a class went, in a line: "12 came, 34 min, effort 6.5, load 221".</summary>
    /// <param name="minutes">As led; null: not known.</param>
    /// <param name="effort">The mean of what people told, 0 to 10; null: nobody did.</param>
    public static string Date(int came, int? minutes, decimal? effort) => string.Join(
        ", ",
        ((IEnumerable<string?>)
        [
            $"{came} came",
            minutes is { } lasted ? $"{lasted} min" : null,
            effort is { } told ? string.Create(CultureInfo.InvariantCulture, $"effort {told:0.#}") : null,
            minutes is { } m && effort is { } e ? string.Create(CultureInfo.InvariantCulture, $"load {m * e:0}") : null,
        ]).OfType<string>());

    /// <summary>What a row says besides its stations: effort, pain, the day after, wishes, the note.</summary>
    public static IEnumerable<string> About(LogRow row)
    {
        if (row.Effort is { } effort)
        {
            yield return Effort(effort);
        }

        if (row.Pain is { } pain)
        {
            yield return Of(pain);
        }

        if (row.Felt is { } felt)
        {
            yield return $"the day after {WordsOf<Feeling>.Of(felt.How)} {felt.Where}".TrimEnd();
        }

        if (row.Wishes.Length > 0)
        {
            yield return $"wishes “{row.Wishes}”";
        }

        if (row.Note.Length > 0)
        {
            yield return $"“{row.Note}”";
        }
    }

    /// <summary>What a use says besides its option: "12 12 10 with 16 kg, pain knee left".</summary>
    /// <param name="name">Of an option.</param>
    public static IEnumerable<string> About(StationUse use, Func<PlaceId, string> name)
    {
        if (!use.Sets.IsEmpty)
        {
            yield return Of(use.Sets);
        }

        if (use.ChangedTo is { } changed)
        {
            yield return $"then {name(changed)}";
        }

        if (use.Effort is { } effort)
        {
            yield return Effort(effort);
        }

        if (use.Pain is { } pain)
        {
            yield return Of(pain);
        }

        if (use.Clean == false)
        {
            yield return "form slipped";
        }

        if (use.Note.Length > 0)
        {
            yield return $"“{use.Note}”";
        }
    }

    private static string Of(LogRow row, ClassPlan plan) => string.Join(
        ", ", (row.Came ? row.Uses.SelectMany(use => Of(use, plan)).Prepend("came") : ["did not come"]).Concat(About(row)));

    private static IEnumerable<string> Of(StationUse use, ClassPlan plan)
    {
        if (plan.Find(use.Station)?.Station is not { } station)
        {
            return [];
        }

        string Name(PlaceId id) => station.Options.FirstOrDefault(o => o.Id == id) is { } of ? WordsOf<Tier>.Of(of.Tier) : "another option";
        return [string.Join(' ', About(use, Name).Prepend($"{station.Name} {(use.Option is { } id ? Name(id) : "left out")}"))];
    }

    private static string Of(ImmutableArray<DoneSet> sets) =>
        string.Join(" ", sets.Select(s => $"{s.Amount}{(s.Reps is null ? " s" : "")}{Side(s.Side)}"))
        + (sets[^1].Kg is { } kg ? string.Create(CultureInfo.InvariantCulture, $" with {kg:0.##} kg") : "");

    private static string Of(Pain pain) => $"pain {pain.Where}".TrimEnd() + Side(pain.Side);

    private static string Side(BodySide? side) => side is null ? "" : $" {WordsOf<BodySide>.Of(side.Value)}";

    private static string Effort(decimal effort) => string.Create(CultureInfo.InvariantCulture, $"effort {effort:0.#}");

    private static string Station(PlaceId? id, ClassPlan plan) => id is { } of ? plan.Find(of)?.Station.Name ?? "gone" : "not said";
}
