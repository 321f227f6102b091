using System.Collections.Immutable;
using System.Text;
using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Core.Views;
using Halterion.Core.Words;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A station as a column of the log.</summary>
public sealed record LogColumn(PlaceId Station, string Name, Family Family, string Target, ImmutableArray<LogChoice> Choices);

/// <summary>An option that can be logged.</summary>
public sealed record LogChoice(PlaceId Id, Tier Tier, string Words);

/// <summary>A row with the name of its person.</summary>
public sealed record NamedRow(string Name, LogRow Row);

/// <summary>The log of a session, filled in beforehand while it is not saved (version 0).</summary>
/// <param name="Rows">Those who are expected, or who were logged.</param>
/// <param name="Others">The rest of the roster, each with a row to be added.</param>
public sealed record LogView(
    int Version,
    string Led,
    ImmutableArray<LogColumn> Columns, ImmutableArray<NamedRow> Rows, ImmutableArray<NamedRow> Others,
    string Note);

/// <summary>A log as it stands.</summary>
public sealed record StoredLog(int Version, ClassLog Log);

public sealed record SavedLog(int Version);

internal static class LogEndpoints
{
    public static void MapLogs(this IEndpointRouteBuilder routes)
    {
        var log = routes.MapGroup("/api/sessions/{id:guid}/log").WithTags("Log");
        log.MapGet("/", Get).ProducesProblem(404).ProducesProblem(422).WithName("log");
        log.MapPut("/", Save).Takes<SaveLog>().ProducesProblem(409).Revised().WithName("saveLog");
    }

    private static Results<Ok<LogView>, ProblemHttpResult> Get(
        Guid id, Sessions sessions, Classes classes, Leads leads, Logs logs, Store.People people, Rooms rooms, Evaluator evaluator,
            SteadyClock clock, Belts belts, HttpContext http)
    {
        if (sessions.Find(id) is not { } session || PlanOf(session, classes) is not { } stored)
        {
            return Problems.NotFound("session");
        }

        var reading = ClassReader.Read(Encoding.UTF8.GetBytes(stored.Plan), evaluator.Moves);
        if (!reading.IsValid)
        {
            return Problems.Faults(reading.Faults);
        }

        var roster = people.List();
        var lead = leads.OpenOf(id);
        var reached = Reached(lead, clock);
        var saved = logs.Find(id);
        var assigned = Assigning.Of(SessionRooms.Everyone(reading.Plan, session, roster, rooms));
        var noted = Noted(lead) is { } notes ? notes with { Words = WithHearts(notes.Words, belts) } : null;
        var log = saved?.Log ?? LogPrefill.For(
            assigned,
            LogPrefill.Expected(roster, session.Booking.Expected, logs.LastCame(id), session.Booking.HeadCount),
            noted);
        var names = roster.ToDictionary(p => p.Id, p => p.Name);
        var shown = log.Rows.Select(r => r.PersonId).ToHashSet();
        http.Tagged(saved?.Version ?? 0);
        return TypedResults.Ok(new LogView(
            saved?.Version ?? 0,
            Led(lead, clock),
            Columns(reading.Plan, evaluator.Preferences, reached),
            [.. log.Rows.Select(r => new NamedRow(names[r.PersonId], saved is null ? Only(r, reached) : r))],
            [
                .. roster.Where(p => !shown.Contains(p.Id)).Select(
                    p => new NamedRow(p.Name, Only(LogPrefill.Row(assigned, p, came: true), reached)))],
            log.Note));
    }

    /// <summary>The stations that were worked at; null where that is not known, as when it was not led.</summary>
    private static ImmutableHashSet<PlaceId>? Reached(StoredLead? lead, SteadyClock clock)
    {
        if (lead is null || ScriptFile.Read(lead.Format, lead.Script) is not { } script
            || LeadRecord.Of(lead.Commands, script.Times, clock.Now).StartedAt is null)
        {
            return null;
        }

        var played = LeadRecord.Played(lead.Commands, script.Times, clock.Now);
        return
        [
            .. from scene in played
               where script.Scenes[scene].Kind == SpanKind.Work
               from card in script.Scenes[scene].Cards
               where script.Cards[card].Id is not null
               select script.Cards[card].Id!.Value,
        ];
    }

    private static LeadNotes? Noted(StoredLead? lead) =>
        lead is not null && ScriptFile.Read(lead.Format, lead.Script) is { } script
            ? LeadNotes.Of(
                lead.Commands, i => i < script.Scenes.Length && script.Scenes[i].Kind == SpanKind.Work ? script.Scenes[i].Headline : "")
            : null;

    /// <summary>A time above 85 % of the estimated maximum is proposed for the log; nobody has kept it yet.</summary>
    private static ImmutableDictionary<PersonId, ImmutableArray<string>> WithHearts(
        ImmutableDictionary<PersonId, ImmutableArray<string>> words, Belts belts) =>
        belts.Hearts().Where(h => h.HardSeconds > 0).Aggregate(words, (all, heart) => all.SetItem(
            heart.Person,
            (all.TryGetValue(heart.Person, out var lines) ? lines : []).Add($"heart above 85 % for {new Seconds(heart.HardSeconds)}")));

    private static LogRow Only(LogRow row, ImmutableHashSet<PlaceId>? reached) =>
        reached is null ? row : row with { Uses = [.. row.Uses.Where(u => reached.Contains(u.Station))] };

    private static string Led(StoredLead? lead, SteadyClock clock) =>
        lead is null ? "Not led yet"
        : ScriptFile.Read(lead.Format, lead.Script) is { } script ? LeadRecord.Of(lead.Commands, script.Times, clock.Now).Words
        : "Led with another version";

    /// <summary>
    /// Saves a log of the version that was led, or else of the latest one: from then on it speaks of that version for good.
    /// </summary>
    private static Results<Ok<SavedLog>, ProblemHttpResult> Save(
        Guid id,
        Body<SaveLog> body,
        Sessions sessions,
        Classes classes,
        Logs logs,
        Store.People people,
        Evaluator evaluator,
        HttpContext http)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (http.Request.Basis() is not { } basis)
        {
            return Problems.NoVersion();
        }

        if (sessions.Find(id) is not { } session || PlanOf(session, classes) is not { } stored)
        {
            return Problems.NotFound("session");
        }

        var reading = ClassReader.Read(Encoding.UTF8.GetBytes(stored.Plan), evaluator.Moves);
        if (!reading.IsValid)
        {
            return Problems.Conflict(
                "This class has faults, so nothing can be logged of it.", "faults", reading.Faults, StatusCodes.Status409Conflict);
        }

        if (LogFaults.Of(request.Log, reading.Plan) is { IsEmpty: false } faults)
        {
            return Problems.Faults(faults, "log");
        }

        // Someone erased while the log was open stays erased.
        var names = people.List().ToDictionary(p => p.Id, p => p.Name);
        var log = request.Log with { Rows = [.. request.Log.Rows.Where(r => names.ContainsKey(r.PersonId))] };
        var saved = logs.Save(id, basis, stored.Version, log);
        http.Tagged(saved.Revision);
        if (saved.Done)
        {
            return TypedResults.Ok(new SavedLog(saved.Revision));
        }

        var theirs = logs.Find(id);
        return Problems.Changed(
            "log",
            theirs is { } stands ? new StoredLog(stands.Version, stands.Log) : null,
            theirs is { } other
                ? Difference.Between(LogWords.Lines(log, reading.Plan!, names), LogWords.Lines(other.Log, reading.Plan!, names))
                : []);
    }

    /// <summary>What was led or logged is what is logged, whatever the class has become since.</summary>
    private static StoredClass? PlanOf(StoredSession session, Classes classes) =>
        session.ClassVersion is { } version ? classes.At(session.ClassId, version) : classes.Find(session.ClassId);

    /// <summary>What was never reached is nobody's to log.</summary>
    private static ImmutableArray<LogColumn> Columns(ClassPlan plan, Preferences preferences, ImmutableHashSet<PlaceId>? reached) =>
    [
        .. from block in plan.Blocks
           from station in block.Stations
           where reached is null || reached.Contains(station.Id)
           select new LogColumn(
               station.Id,
               station.Name,
               plan.Moves.Find(station.Main.Move)!.Family,
               PlanWords.Target(station, block, 0),
               [.. station.Options.Select(o => new LogChoice(o.Id, o.Tier, PlanWords.Option(o, station, plan.Moves, preferences)))]),
    ];
}
