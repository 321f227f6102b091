using System.Collections.Immutable;
using System.Text;
using Halterion.Core;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Formats;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A table of people as text, and how it is to be read.</summary>
/// <param name="Heading">Whether its first row is a heading; left out: guessed.</param>
/// <param name="Columns">What each column holds; left out: guessed.</param>
public sealed record RosterText(string Text, bool? Heading = null, ImmutableArray<RosterColumn>? Columns = null) : IRead<RosterText>
{
    private const int Most = 1_000_000;

    public static RosterText? Read(Fields body, Faults faults)
    {
        var text = body.Text("text", 1, Most, required: true, controls: true);
        var heading = body.Flag("heading");
        var columns = body.Has("columns")
            ? body.WordList<RosterColumn>("columns", RosterTable.MostColumns)
            : (ImmutableArray<RosterColumn>?)null;
        return text is null ? null : new RosterText(text, heading, columns);
    }
}

/// <summary>A column as it was found.</summary>
/// <param name="Heading">Its heading; empty without one.</param>
public sealed record RosterColumnSeen(string Heading, RosterColumn Is, ImmutableArray<string> Samples);

/// <summary>What a table would do, before anything is done.</summary>
/// <param name="Take">What is said on the button that takes it in.</param>
/// <param name="Trouble">Why nothing can be taken in; empty where it can.</param>
public sealed record RosterLook(bool Heading, ImmutableArray<RosterColumnSeen> Columns, ImmutableArray<RosterRow> Rows, int Fresh,
    int Changed, int Same, int Faulty, string Trouble, string Take);

/// <summary>What was taken in.</summary>
public sealed record RosterTaken(int Fresh, int Changed, int Same);

internal static class RosterEndpoints
{
    private const int Samples = 3;

    public static void MapRoster(this IEndpointRouteBuilder routes)
    {
        var csv = routes.MapGroup("/api/people/csv").WithTags("People");
        csv.MapGet("/", Write).WithName("rosterFile");
        csv.MapPost("/look", (Body<RosterText> body, Store.People store) => Look(body, store)).Takes<RosterText>().WithName("lookAtRoster");
        csv.MapPost("/", Take).Takes<RosterText>().WithName("takeRoster");
    }

    private static FileContentHttpResult Write(Store.People store) => TypedResults.File(
        Encoding.UTF8.GetBytes("\uFEFF" + CsvText.Write(
            [RosterTable.Written.Select(RosterCells.HeadingOf),
                .. store.List().Select(p => RosterTable.Written.Select(c => RosterCells.Write(p, c)))])),
        "text/csv", "people.csv");

    private static Results<Ok<RosterLook>, ProblemHttpResult> Look(Body<RosterText> body, Store.People store) =>
        body.Value is { } asked ? TypedResults.Ok(LookAt(asked, store).Look) : body.Problem!;

    /// <summary>Takes a table in: all of it, or, with one fault anywhere, nothing.</summary>
    private static Results<Ok<RosterTaken>, ProblemHttpResult> Take(Body<RosterText> body, Store.People store)
    {
        if (body.Value is not { } asked)
        {
            return body.Problem!;
        }

        var (look, reading) = LookAt(asked, store);
        if (look.Trouble.Length > 0)
        {
            return Problems.Faults(
                look.Faulty == 0 ? [new PlanFault("/columns", look.Trouble, "a table with a name in every row")]
                : [.. look.Rows.SelectMany(r =>
                    r.Faults.Select(
                        f => new PlanFault(
                            "/text", $"Row {r.Row}{(f.Column is { } c ? $", column {c + 1}" : "")}: {f.What}", f.Right))).Take(200)],
                "table");
        }

        store.Take(reading.Fresh, reading.Changed);
        return TypedResults.Ok(new RosterTaken(look.Fresh, look.Changed, look.Same));
    }

    private static (RosterLook Look, RosterReading Reading) LookAt(RosterText asked, Store.People store)
    {
        var rows = CsvText.Read(asked.Text, RosterTable.MostRows + 1);
        var heading = asked.Heading ?? RosterTable.HasHeading(rows);
        var wide = rows.Any(r => r.Length > RosterTable.MostColumns);
        var guesses = wide ? [] : RosterTable.Guess(rows, heading);
        var columns = asked.Columns is { } chosen ? [.. guesses.Select((g, i) => i < chosen.Length ? chosen[i] : g)] : guesses;
        var reading = wide ? new RosterReading([], [], []) : RosterTable.Read(rows, heading, columns, store.List());
        int Count(RosterChange change) => reading.Rows.Count(r => r.Change == change);
        var twice = columns.Where(c => c != RosterColumn.Ignore).GroupBy(c => c).FirstOrDefault(g => g.Count() > 1)?.Key;
        var trouble = wide ? $"This table has too many columns (the most is {RosterTable.MostColumns})."
            : rows.Length > RosterTable.MostRows ? $"This table has more than {RosterTable.MostRows} rows. Import it in parts."
            : reading.Rows.IsEmpty ? "This table has no people in it."
            : twice is { } column ? $"Two columns are set to “{RosterCells.HeadingOf(column)}”. Choose one."
            : !columns.Any(c => c is RosterColumn.Name or RosterColumn.FirstName or RosterColumn.LastName) ? "Choose "
                + "which column is the name."
            : Count(RosterChange.Faulty) is > 0 and var faulty
                ? $"{Counted.Of(faulty, "row needs", "rows need")} fixing. Correct them or ignore their column; nothing is imported "
                    + $"until then."
            : "";
        return (new RosterLook(
            heading,
            [.. columns.Select((c, i) => new RosterColumnSeen(
                heading && i < rows[0].Length ? rows[0][i] : "", c,
                [.. rows.Skip(heading ? 1 : 0).Where(r => i < r.Length && r[i].Trim().Length > 0).Take(Samples)
                    .Select(r => r[i].Length > 60 ? r[i][..60] + "…" : r[i])]))],
            reading.Rows, Count(RosterChange.New), Count(
                RosterChange.Changed), Count(RosterChange.Same), Count(RosterChange.Faulty), trouble,
            Count(RosterChange.New) + Count(RosterChange.Changed) is var many
                ? $"Import {Counted.Of(many, "person", "people")}" : ""), reading);
    }
}
