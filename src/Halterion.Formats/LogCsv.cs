using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Logbook;

namespace Halterion.Formats;

/// <summary>What somebody did at a station, as a row of a table.</summary>
public sealed record LogLine(
    string StartsAt, string Title, string Person, string Station, string Move, string Option, Target? Target, ImmutableArray<DoneSet> Sets,
    decimal? Effort, Pain? Pain, int? Minutes, string Note);

/// <summary>Logs as CSV (RFC 4180): a row for each person and station.</summary>
public static class LogCsv
{
    private static readonly string[] Head =
    [
        "start", "class", "person", "station", "move", "option", "target", "unit", "sets", "kg", "sides", "effort", "pain", "pain side",
        "minutes", "note",
    ];

    /// <summary>Sets, their kilograms and their sides are lists of equal length with spaces between; a dash is nothing.</summary>
    public static string Of(IEnumerable<LogLine> lines) => CsvText.Write(lines.Select(Cells).Prepend(Head));

    private static string[] Cells(LogLine line) =>
    [
        line.StartsAt, line.Title, line.Person, line.Station, line.Move, line.Option,
        Number(line.Target?.Amount), line.Target is null ? "" : line.Target.IsTime ? "seconds" : "reps",
        List(line.Sets, s => Number(s.Amount)), List(line.Sets, s => Number(s.Kg)), List(line.Sets, s => SideOf(s.Side)),
        Number(line.Effort), line.Pain is { } pain ? pain.Where.Length > 0 ? pain.Where : "yes" : "", SideOf(line.Pain?.Side),
        Number(line.Minutes), line.Note,
    ];

    private static string List(ImmutableArray<DoneSet> sets, Func<DoneSet, string> of) =>
        string.Join(' ', sets.Select(s => of(s) is { Length: > 0 } word ? word : "–"));

    private static string SideOf(Core.People.BodySide? side) => side?.ToString().ToLowerInvariant() ?? "";

    private static string Number(decimal? number) => number?.ToString("0.##", CultureInfo.InvariantCulture) ?? "";
}
