using System.Collections.Immutable;
using System.Text;
using Halterion.Core;
using Halterion.Core.Leading;
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
/// <param name="Cut">"cut short, 12 of 36 s"; empty where it was done.</param>
/// <param name="Timed">Its sets count seconds; else reps.</param>
/// <param name="Sided">Its sets are counted by side.</param>
/// <param name="Main">It is main work; else warm-up, stretches and the like.</param>
public sealed record LogColumn(
    PlaceId Station, string Name, Family Family, string Target, ImmutableArray<LogChoice> Choices, string Cut, bool Timed, bool Sided,
    bool Main);

/// <summary>An option that can be logged.</summary>
/// <param name="Short">So that two of one tier are told apart: "harder", "harder 2".</param>
/// <param name="Sets">As the plan asks for them.</param>
public sealed record LogChoice(PlaceId Id, Tier Tier, string Short, string Words, ImmutableArray<DoneSet> Sets);

/// <summary>A row with the name of its person.</summary>
public sealed record NamedRow(string Name, LogRow Row);

/// <summary>A log that was corrected late.</summary>
public sealed record PastLog(int Version, DateTimeOffset SavedAt);

/// <summary>The log of a session, filled in beforehand while it is not saved (version 0).</summary>
/// <param name="Rows">Those who are expected, or who were logged.</param>
/// <param name="Others">The rest of the roster, each with a row to be added.</param>
/// <param name="About">What is said of the class; its rows are left out.</param>
/// <param name="Past">As it was before late corrections.</param>
public sealed record LogView(
    int Version,
    string Led,
    ImmutableArray<LogColumn> Columns, ImmutableArray<NamedRow> Rows, ImmutableArray<NamedRow> Others,
    string Note, ClassLog About, ImmutableArray<PastLog> Past);

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
            SteadyClock clock, Belts belts, SessionRooms halls, HttpContext http)
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
        var ran = Ran(lead, reading.Plan, session, rooms, halls, clock);
        var saved = logs.Find(id);
        var assigned = Assigning.Of(SessionRooms.Everyone(reading.Plan, session, roster, rooms));
        var noted = Noted(lead) is { } notes ? notes with { Words = WithHearts(notes.Words, belts) } : null;
        var log = saved?.Log ?? LogPrefill.For(
            assigned,
            LogPrefill.Expected(roster, session.Booking.Expected, logs.LastCame(id), session.Booking.HeadCount),
            noted);
        var known = roster.ToDictionary(p => p.Id);
        LogRow Filled(LogRow row) => LogPrefill.WithPain(
            LogPrefill.WithSets(Only(row, ran), reading.Plan, known.GetValueOrDefault(row.PersonId), ran is null ? null : ran.Shares),
            noted, (scene, who) => ran?.Where(scene, who));
        if (saved is null)
        {
            var (started, ended) = Times(lead, clock);
            log = WithEasier(log, noted, ran, reading.Plan) with
            {
                Note = string.Join("; ", Story(lead, ran, reading.Plan, session, clock).Append(log.Note).Where(l => l.Length > 0)),
                StartedAt = started,
                EndedAt = ended,
                Minutes = started is { } from && ended is { } to ? (int)((to - from + 30_000) / 60_000) : null,
            };
            log = log with { Rows = [.. log.Rows.Select(Filled)] };
        }

        var shown = log.Rows.Select(r => r.PersonId).ToHashSet();
        http.Tagged(saved?.Version ?? 0);
        return TypedResults.Ok(new LogView(
            saved?.Version ?? 0,
            Led(lead, clock),
            Columns(reading.Plan, evaluator.Preferences, ran),
            [.. log.Rows.Select(r => new NamedRow(known[r.PersonId].Name, r))],
            [
                .. roster.Where(p => !shown.Contains(p.Id)).Select(
                    p => new NamedRow(p.Name, Filled(LogPrefill.Row(assigned, p, came: true))))],
            log.Note,
            log with { Rows = [] },
            [.. logs.Past(id).Select(p => new PastLog(p.Version, p.SavedAt))]));
    }

    /// <summary>When it really began and ended.</summary>
    private static (long? StartedAt, long? EndedAt) Times(StoredLead? lead, SteadyClock clock) =>
        lead is not null && ScriptFile.Read(lead.Format, lead.Script) is { } script
            && LeadRecord.Of(lead.Commands, script.Times, clock.Now) is var record
                ? (record.StartedAt, record.EndedAt) : (null, null);

    /// <summary>What ran of the class; null where that is not known, as when it was not led.</summary>
    private static WorkThatRan? Ran(
        StoredLead? lead, ClassPlan plan, StoredSession session, Rooms rooms, SessionRooms halls, SteadyClock clock)
    {
        if (lead is null || ScriptFile.Read(lead.Format, lead.Script) is not { } script
            || LeadRecord.Of(lead.Commands, script.Times, clock.Now).StartedAt is null
            || Compiler.Compile(plan).Timeline is not { } timeline
            || !script.Times.Select(t => t.End).SequenceEqual(timeline.Spans.Select(s => s.End)))
        {
            return null;
        }

        var groups = Assigning.Of(halls.Of(plan, session, rooms.Of(session.Id))).Groups;
        return new WorkThatRan(plan, timeline, lead.Commands, groups, clock.Now);
    }

    /// <summary>How the class went, for its note.</summary>
    private static ImmutableArray<string> Story(
        StoredLead? lead, WorkThatRan? ran, ClassPlan plan, StoredSession session, SteadyClock clock)
    {
        if (lead is null || ran is null || ScriptFile.Read(lead.Format, lead.Script) is not { } script)
        {
            return [];
        }

        var starts = session.Booking.StartsAt is { } at ? BookingReader.Moment(at, session.Booking.Zone).ToUnixTimeMilliseconds()
            : (long?)null;
        return HowItWent.Lines(
            plan, ran, lead.Commands, LeadRecord.Of(lead.Commands, script.Times, clock.Now), starts,
            LeadEndpoints.EndsAt(session.Booking, script));
    }

    /// <summary>Whoever was seen to take the easier option is proposed with it.</summary>
    private static ClassLog WithEasier(ClassLog log, LeadNotes? noted, WorkThatRan? ran, ClassPlan plan)
    {
        foreach (var (who, scene) in noted?.Easier ?? [])
        {
            if (ran?.Where(scene, who) is { } station && plan.Find(station)?.Station is { } place
                && place.Options.FirstOrDefault(o => o.Tier == Tier.Easier) is { } easier)
            {
                log = log with
                {
                    Rows =
                    [
                        .. log.Rows.Select(r => r.PersonId != who ? r : r with
                        {
                            Uses = [.. r.Uses.Select(u => u.Station == station ? u with { Option = easier.Id } : u)],
                        }),
                    ],
                };
            }
        }

        return log;
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
            (all.TryGetValue(heart.Person, out var lines) ? lines : []).Add($"heart rate above 85% for {new Seconds(heart.HardSeconds)}")));

    private static LogRow Only(LogRow row, WorkThatRan? ran) =>
        ran is null ? row : row with { Uses = [.. row.Uses.Where(u => !ran.At(u.Station, row.PersonId).IsLeftOut)] };

    private static string Led(StoredLead? lead, SteadyClock clock) =>
        lead is null ? "Not led yet"
        : ScriptFile.Read(lead.Format, lead.Script) is { } script ? LeadRecord.Of(lead.Commands, script.Times, clock.Now).Words
        : "Led from an earlier version of this class";

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
                "Some entries of this class need putting right before it can be "
                    + "logged.", "faults", reading.Faults, StatusCodes.Status409Conflict);
        }

        if (LogFaults.Of(request.Log, reading.Plan) is { IsEmpty: false } faults)
        {
            return Problems.Faults(faults, "log");
        }

        // Someone erased while the log was open stays erased.
        var names = people.List().ToDictionary(p => p.Id, p => p.Name);
        var log = request.Log with { Rows = [.. request.Log.Rows.Where(r => names.ContainsKey(r.PersonId))] };
        var saved = logs.Save(id, basis, stored.Version, log, use => LoggedWork.Of(reading.Plan, use));
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
    private static ImmutableArray<LogColumn> Columns(ClassPlan plan, Preferences preferences, WorkThatRan? ran) =>
    [
        .. from block in plan.Blocks
           from station in block.Stations
           let done = ran?.At(station.Id)
           where done is not { IsLeftOut: true }
           select new LogColumn(
               station.Id,
               station.Name,
               plan.Moves.Find(station.Main.Move)!.Family,
               PlanWords.Target(station, block, 0),
               Choices(block, station, plan, preferences),
               done?.Words ?? "",
               station.Dose.FirstOrDefault(p => p.Kind.IsCounted || p.Kind.IsTimed) is { Kind.IsTimed: true },
               Doses.Sets(block, station, station.Main).Any(s => s.Side is not null),
               block.Phase is Phase.Main or Phase.Finisher),
    ];

    private static ImmutableArray<LogChoice> Choices(Block block, Station station, ClassPlan plan, Preferences preferences) =>
    [
        .. station.Options.Select((option, i) =>
        {
            var (tier, place) = (WordsOf<Tier>.Of(option.Tier), station.Options.Take(i).Count(o => o.Tier == option.Tier) + 1);
            return new LogChoice(
                option.Id, option.Tier, place == 1 ? tier : $"{tier} {place}", PlanWords.Option(option, station, plan.Moves, preferences),
                Doses.Sets(block, station, option));
        }),
    ];
}
