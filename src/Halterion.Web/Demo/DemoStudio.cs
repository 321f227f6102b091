using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Halterion.Core.Checks;
using Halterion.Core.Leading;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Store;
using Halterion.Web.Endpoints;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Demo;

/// <summary>Fills an empty data folder with the demo studio. Its dates are relative to today.</summary>
internal sealed class DemoStudio(Classes classes, Store.People people, Leads leads, Logs logs, ShippedMoves moves, TimeProvider clock, TimeZoneInfo zone, IOptions<JsonOptions> json)
{
    private sealed record Studio(ImmutableArray<PersonDetails> People, ImmutableArray<Session> Classes);

    /// <param name="Day">Days from today.</param>
    /// <param name="Led">How it was led and logged; null: it is still to come.</param>
    private sealed record Session(string File, int Day, string Time, int HeadCount, LedSession? Led = null);

    private sealed record LedSession(int LateSeconds, int PauseSeconds, ImmutableArray<string> Absent, ImmutableArray<RowNote> Notes, string Note);

    private sealed record RowNote(string Name, string Note);

    public void Load()
    {
        if (!classes.List().IsEmpty || !people.List().IsEmpty)
        {
            return;
        }

        var studio = JsonSerializer.Deserialize<Studio>(File.ReadAllBytes(PathTo("studio.json")), json.Value.SerializerOptions)!;
        var roster = studio.People.Select(p => people.Add(p.Name, p.UsualTier, p.StatureCm)).ToImmutableArray();
        foreach (var session in studio.Classes)
        {
            Add(session, roster);
        }
    }

    private static string PathTo(string file) => Path.Combine(AppContext.BaseDirectory, "demo", file);

    private void Add(Session session, ImmutableArray<Person> roster)
    {
        var today = TimeZoneInfo.ConvertTime(clock.GetUtcNow(), zone).Date;
        var starts = today.AddDays(session.Day) + TimeOnly.Parse(session.Time, CultureInfo.InvariantCulture).ToTimeSpan();
        var plan = File.ReadAllText(PathTo(session.File), Encoding.UTF8);
        var id = classes.Add(ClassText.Revision(plan, new Booking(zone.Id, session.HeadCount, starts.ToString("yyyy-MM-ddTHH:mm", CultureInfo.InvariantCulture))));
        if (session.Led is not { } led)
        {
            return;
        }

        var preferences = new Preferences();
        var result = new Evaluator(moves.Library, preferences).Evaluate(plan);
        var script = LeadScript.Of(result.Plan!, result.Timeline!, preferences);
        var lead = leads.Add(id, 1, JsonSerializer.Serialize(script, json.Value.SerializerOptions));
        leads.Append(lead.Id, 0, Commands(script, new DateTimeOffset(starts, zone.GetUtcOffset(starts)), led));
        var log = LogPrefill.For(result.Plan!, roster, [.. roster.Where(p => !led.Absent.Contains(p.Name)).Select(p => p.Id)]);
        var notes = led.Notes.ToDictionary(n => roster.First(p => p.Name == n.Name).Id, n => n.Note);
        logs.Save(id, 0, log with { Note = led.Note, Rows = [.. log.Rows.Select(r => r with { Note = notes.GetValueOrDefault(r.PersonId, "") })] });
    }

    /// <summary>Started late, paused once in the middle, finished on its own.</summary>
    private static ImmutableArray<LeadCommand> Commands(LeadScript script, DateTimeOffset booked, LedSession led)
    {
        LeadCommand At(LeadCommandKind kind, int seconds) => new(Guid.CreateVersion7(), kind, booked.AddSeconds(led.LateSeconds + seconds).ToUnixTimeMilliseconds());
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
