using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Halterion.Core.Leading;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Endpoints;

/// <summary>A station as a column of the log.</summary>
public sealed record LogColumn(int Block, int Station, string Name, Family Family, string Target, ImmutableArray<LogChoice> Choices);

/// <summary>An option that can be logged.</summary>
public sealed record LogChoice(Tier Tier, string Words);

/// <summary>A row with the name of its person.</summary>
public sealed record NamedRow(string Name, LogRow Row);

/// <summary>The log of a class, filled in beforehand while it is not saved (version 0).</summary>
public sealed record LogView(int Version, string Led, ImmutableArray<LogColumn> Columns, ImmutableArray<NamedRow> Rows, string Note);

public sealed record SaveLog(int Version, ClassLog Log);

public sealed record SavedLog(int Version);

internal static class LogEndpoints
{
    private const int NoteLength = 2000;

    public static void MapLogs(this IEndpointRouteBuilder routes)
    {
        var log = routes.MapGroup("/api/classes/{id:guid}/log").WithTags("Log");
        log.MapGet("/", Get).ProducesProblem(404).ProducesProblem(422).WithName("log");
        log.MapPut("/", Save).ProducesProblem(404).ProducesProblem(412).ProducesProblem(422).WithName("saveLog");
    }

    private static Results<Ok<LogView>, ProblemHttpResult> Get(
        Guid id, Classes classes, Leads leads, Logs logs, Store.People people, MoveLibrary moves, Preferences preferences, TimeProvider clock, IOptions<JsonOptions> json)
    {
        if (classes.Find(id) is not { } found)
        {
            return Problems.NotFound("class");
        }

        // What was led is what is logged, whatever the plan has become since.
        var lead = leads.Latest(id);
        var plan = lead is { Commands.Length: > 0 } ? classes.At(id, lead.Version)!.Plan : found.Revision.Plan;
        var reading = ClassReader.Read(Encoding.UTF8.GetBytes(plan), moves);
        if (!reading.IsValid)
        {
            return Problems.Faults(reading.Faults);
        }

        var roster = people.List();
        var saved = logs.Find(id);
        var log = saved?.Log ?? LogPrefill.For(reading.Plan, roster, logs.LastCame(id));
        var led = lead is null
            ? "Not led yet"
            : LeadRecord.Of(lead.Commands, JsonSerializer.Deserialize<LeadScript>(lead.Script, json.Value.SerializerOptions)!, clock.GetUtcNow().ToUnixTimeMilliseconds()).Words;
        var late = roster.Where(p => log.Rows.All(r => r.PersonId != p.Id)).Select(p => LogPrefill.Row(reading.Plan, p, false));
        var rows = log.Rows.Concat(late)
            .Join(roster, r => r.PersonId, p => p.Id, (row, person) => new NamedRow(person.Name, row))
            .ToImmutableArray();
        return TypedResults.Ok(new LogView(saved?.Version ?? 0, led, Columns(reading.Plan, preferences), rows, log.Note));
    }

    private static Results<Ok<SavedLog>, ProblemHttpResult> Save(Guid id, SaveLog request, Classes classes, Logs logs, Store.People people)
    {
        if (classes.Find(id) is null)
        {
            return Problems.NotFound("class");
        }

        if (request.Log.Note.Length > NoteLength || request.Log.Rows.Any(r => r.Note.Length > NoteLength))
        {
            return Problems.Bad("/log", "A note is too long.", $"at most {NoteLength} characters");
        }

        // Someone erased while the log was open stays erased; a name sent twice counts once.
        var known = people.List().Select(p => p.Id).ToHashSet();
        var rows = request.Log.Rows.Where(r => known.Contains(r.PersonId)).DistinctBy(r => r.PersonId)
            .Select(r => r with { Uses = [.. r.Uses.DistinctBy(u => (u.Block, u.Station))] }).ToImmutableArray();
        var (version, savedNow) = logs.Save(id, request.Version, request.Log with { Rows = rows });
        return savedNow ? TypedResults.Ok(new SavedLog(version)) : Problems.Conflict("This log was changed elsewhere in the meantime.", "version", version);
    }

    private static ImmutableArray<LogColumn> Columns(ClassPlan plan, Preferences preferences) =>
    [
        .. from block in plan.Blocks.Select((block, index) => (Block: block, Index: index))
           from station in block.Block.Stations.Select((station, index) => (Station: station, Index: index))
           select new LogColumn(
               block.Index,
               station.Index,
               station.Station.Name,
               plan.Moves.Find(station.Station.Main.Move)!.Family,
               PlanWords.Target(station.Station, block.Block, 0),
               [.. station.Station.Options.Select(o => new LogChoice(o.Tier, PlanWords.Option(o, plan.Moves, preferences)))]),
    ];
}
