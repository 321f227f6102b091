using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Leading;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.Planning;
using Halterion.Core.Planning.Weeks;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Store;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Demo;

/// <summary>Fills an empty data folder with the demo studio. Its dates are relative to today.</summary>
internal sealed class DemoStudio(
    Classes classes,
    Sessions sessions,
    Store.People people,
    Rooms rooms,
    Leads leads,
    Logs logs,
    SeriesBook book,
    ShippedMoves moves,
    TimeProvider clock,
    TimeZoneInfo zone,
    IOptions<JsonOptions> json)
{
    private sealed record Studio(
        ImmutableArray<Person> People, StoredHall Hall, ImmutableArray<DemoCircle> Circles, ImmutableArray<Session> Sessions,
        ImmutableArray<Past> History, ImmutableArray<DemoHistory.Hurt> Pains, ImmutableArray<DemoSeries> Series);

    /// <param name="Days">From today, the oldest first.</param>
    private sealed record Past(string File, ImmutableArray<int> Days, string Time);

    /// <param name="FirstDay">Days from today.</param>
    private sealed record DemoSeries(
        string Name, int FirstDay, int Weeks, ImmutableArray<DemoDay> Days, ImmutableArray<HarderBy> Harder, int? LightEvery);

    private sealed record DemoDay(DayOfWeek Weekday, string Time, string File);

    private sealed record DemoCircle(string Name, bool Together, ImmutableArray<string> People);

    /// <param name="Day">Days from today.</param>
    /// <param name="Led">How it was led and logged; null: it is still to come.</param>
    private sealed record Session(string File, int Day, string Time, int HeadCount, LedSession? Led = null);

    private sealed record LedSession(
        int LateSeconds, int PauseSeconds, ImmutableArray<string> Absent, ImmutableArray<RowNote> Notes, string Note);

    private sealed record RowNote(string Name, string Note);

    public void Load()
    {
        if (classes.List(null, 0, 1).All > 0 || !people.List().IsEmpty)
        {
            return;
        }

        var studio = JsonSerializer.Deserialize<Studio>(File.ReadAllBytes(PathTo("studio.json")), json.Value.SerializerOptions)!;
        var roster = studio.People.Select(p => people.Add(p)).ToImmutableArray();
        rooms.Keep(studio.Hall with { Id = Guid.CreateVersion7() }, Basis.None);
        foreach (var circle in studio.Circles)
        {
            people.Keep(new Circle(Guid.CreateVersion7(), circle.Name, circle.Together,
                [.. roster.Where(p => circle.People.Contains(p.Name)).Select(p => p.Id)]), Basis.None);
        }

        var known = new Dictionary<string, Guid>();
        foreach (var session in studio.Sessions)
        {
            Add(session, roster, known);
        }

        foreach (var past in studio.History)
        {
            for (var i = 0; i < past.Days.Length; i++)
            {
                Held(past, i, roster, known, studio.Pains);
            }
        }

        foreach (var of in studio.Series)
        {
            var files = of.Days.Select(d => d.File).Distinct().ToArray();
            string NameOf(string file) => ((char)('A' + Array.IndexOf(files, file))).ToString();
            var series = new Series(
                of.Name, DateOnly.FromDateTime(Today()).AddDays(of.FirstDay), of.Weeks,
                [.. of.Days.Select(d => new SeriesDay(d.Weekday, d.Time, NameOf(d.File)))], of.Harder, of.LightEvery);
            book.Keep(Guid.CreateVersion7(), SeriesReader.Write(series).ToJsonString(),
                files.ToImmutableDictionary(NameOf, f => known[f]), Basis.None);
        }
    }

    private static string PathTo(string file) => Path.Combine(AppContext.BaseDirectory, "demo", file);

    /// <param name="known">The classes that were taken in already, by their files: one class, many sessions.</param>
    private void Add(Session session, ImmutableArray<Person> roster, Dictionary<string, Guid> known)
    {
        var starts = Today().AddDays(session.Day) + TimeOnly.Parse(session.Time, CultureInfo.InvariantCulture).ToTimeSpan();
        var booking = new SessionBooking(
            starts.ToString(BookingReader.Format, CultureInfo.InvariantCulture),
            zone.Id,
            session.HeadCount,
            [.. roster.Select(p => p.Id)]);
        var evaluator = new Evaluator(moves.Library, new Preferences());
        if (!known.TryGetValue(session.File, out var classId))
        {
            classId = classes.Add(ClassText.Revision(File.ReadAllText(PathTo(session.File), Encoding.UTF8), evaluator), null).Class;
            known.Add(session.File, classId);
        }

        var id = sessions.Add(classId, booking)!.Value;
        if (session.Led is not { } led)
        {
            return;
        }

        var result = evaluator.Evaluate(classes.Find(classId)!.Plan);
        var script = LeadScript.Of(result.Plan!, result.Timeline!, evaluator.Preferences);
        var lead = leads.Open(id, _ => (ScriptFile.Format, ScriptFile.Write(script)))!;
        leads.Append(lead.Id, 0, Commands(script, new DateTimeOffset(starts, zone.GetUtcOffset(starts)), led));
        var log = LogPrefill.For(Assigning.Of(SessionRooms.Everyone(result.Plan!, sessions.Find(id)!, roster, rooms)), roster);
        var notes = led.Notes.ToDictionary(n => roster.First(p => p.Name == n.Name).Id, n => n.Note);
        var absent = roster.Where(p => led.Absent.Contains(p.Name)).Select(p => p.Id).ToHashSet();
        logs.Save(id, Basis.None, 1, log with
        {
            Note = led.Note,
            Rows = [
                .. log.Rows.Select(r => r with { Came = !absent.Contains(r.PersonId), Note = notes.GetValueOrDefault(r.PersonId, "") })],
        }, use => LoggedWork.Of(result.Plan!, use));
    }

    private DateTime Today() => TimeZoneInfo.ConvertTime(clock.GetUtcNow(), zone).Date;

    /// <summary>A class of the weeks before: led, and logged set by set.</summary>
    private void Held(
        Past past, int place, ImmutableArray<Person> roster, Dictionary<string, Guid> known, ImmutableArray<DemoHistory.Hurt> pains)
    {
        var starts = Today().AddDays(past.Days[place]) + TimeOnly.Parse(past.Time, CultureInfo.InvariantCulture).ToTimeSpan();
        var id = sessions.Add(known[past.File], new SessionBooking(
            starts.ToString(BookingReader.Format, CultureInfo.InvariantCulture), zone.Id, roster.Length, [.. roster.Select(p =>
                p.Id)]))!.Value;
        var evaluator = new Evaluator(moves.Library, new Preferences());
        var result = evaluator.Evaluate(classes.Find(known[past.File])!.Plan);
        var script = LeadScript.Of(result.Plan!, result.Timeline!, evaluator.Preferences);
        var lead = leads.Open(id, _ => (ScriptFile.Format, ScriptFile.Write(script)))!;
        var commands = DemoHistory.Commands(script, new DateTimeOffset(starts, zone.GetUtcOffset(starts)), place);
        leads.Append(lead.Id, 0, commands);
        var assigned = Assigning.Of(SessionRooms.Everyone(result.Plan!, sessions.Find(id)!, roster, rooms));
        var log = LogPrefill.For(assigned, roster);
        log = log with
        {
            Rows =
            [
                .. log.Rows.Select(r => LogPrefill.WithSets(r, result.Plan!, roster.First(p => p.Id == r.PersonId), null))
                    .Select(r => DemoHistory.Row(
                        r, roster.First(p => p.Id == r.PersonId), roster.IndexOf(roster.First(p => p.Id == r.PersonId)), place,
                        past.Days.Length - 1 - place, past.Days[place], [.. pains.Where(p => p.File == past.File)])),
            ],
            StartedAt = commands[0].At,
            EndedAt = commands[^1].At,
            Minutes = (int)((commands[^1].At - commands[0].At) / 60_000),
        };
        logs.Save(id, Basis.None, 1, log, use => LoggedWork.Of(result.Plan!, use));
    }

    /// <summary>Started late, paused once in the middle, finished on its own.</summary>
    private static ImmutableArray<LeadCommand> Commands(LeadScript script, DateTimeOffset booked, LedSession led)
    {
        LeadCommand At(LeadCommandKind kind, int seconds) => new(
            Guid.CreateVersion7(),
            kind,
            booked.AddSeconds(led.LateSeconds + seconds).ToUnixTimeMilliseconds());
        var middle = script.Length.Value / 2;
        return
        [
            At(LeadCommandKind.Start, 0),
            At(LeadCommandKind.Pause, middle),
            At(LeadCommandKind.Resume, middle + led.PauseSeconds),
            At(LeadCommandKind.Finish, script.Length.Value + led.PauseSeconds),
        ];
    }
}
