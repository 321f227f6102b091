using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Halterion.Core.Body;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;
using Halterion.Core.Views;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>
/// What an instructor takes along: the run sheet, a calendar entry, a table, captions, bells; of a class, or of a session of it
/// with its times of day.
/// </summary>
internal static class TakeAlongEndpoints
{
    /// <summary>Where nobody has told theirs, cm. [M]</summary>
    private const int UsualStature = 170;

    private sealed record Ready(StoredClass Class, ClassPlan Plan, Timeline Timeline, StoredSession? Session)
    {
        /// <summary>The booked start on the wall clock.</summary>
        public DateTime? StartsAt =>
            Session?.Booking.StartsAt is { } at ? DateTime.ParseExact(at[..16], BookingReader.Format, CultureInfo.InvariantCulture) : null;
    }

    public static void MapTakeAlong(this IEndpointRouteBuilder routes)
    {
        var along = routes.MapGroup("/api/classes/{id:guid}").WithTags("Take along");
        along.MapGet("/run-sheet", Sheet).ProducesProblem(404).ProducesProblem(422).WithName("runSheet");
        along.MapGet("/cards", Cards).ProducesProblem(404).ProducesProblem(422).WithName("classCards");
        routes.MapGet("/api/sessions/{id:guid}/calendar.ics", Ics)
            .ProducesProblem(404)
            .ProducesProblem(422)
            .WithTags("Take along")
            .WithName("calendarFile");
        along.MapGet("/tape.svg", Tape).ProducesProblem(404).WithName("tapePicture");
        along.MapGet("/timeline.csv", Csv).ProducesProblem(404).ProducesProblem(422).WithName("timelineFile");
        along.MapGet("/cues.vtt", Vtt).ProducesProblem(404).ProducesProblem(422).WithName("cueFile");
        along.MapGet("/lead.html", Page).ProducesProblem(404).ProducesProblem(422).WithName("leadPage");
        along.MapGet("/bells.wav", Wav).ProducesProblem(404).ProducesProblem(422).WithName("bellFile");
    }

    /// <summary>The class as a small tape, for lists; one that has faults is drawn empty.</summary>
    private static Results<ContentHttpResult, ProblemHttpResult> Tape(Guid id, Classes classes, Evaluator evaluator)
    {
        if (classes.Find(id) is not { } found)
        {
            return Problems.NotFound("class");
        }

        var result = evaluator.Evaluate(found.Plan);
        return TypedResults.Content(TapePicture.Of(result.Plan, result.Timeline), "image/svg+xml");
    }

    /// <summary>For the instructor's hand: with what lies where and who begins where, on the occasion that is meant.</summary>
    private static Results<Ok<RunSheet>, ProblemHttpResult> Sheet(
        Guid id, Guid? session, Classes classes, Sessions sessions, Rooms rooms, SessionRooms room, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, session, classes, sessions, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        var sheet = RunSheet.Of(ready.Plan, ready.Timeline, ready.StartsAt, evaluator.Preferences);
        return TypedResults.Ok(ready.Session is { } held
            ? sheet.In(RoomView.Of(room.Of(ready.Plan, held, rooms.Of(held.Id)), ready.Timeline, evaluator.Preferences))
            : sheet);
    }

    /// <param name="shortest">Stature in cm for which stations are set up; and the tallest. Left out: those of the roster, so far as they
    /// are told.</param>
    private static Results<Ok<ClassCards>, ProblemHttpResult> Cards(
        Guid id,
        Guid? session,
        int? shortest,
        int? tallest,
        Classes classes,
        Sessions sessions,
        Store.People people,
        Evaluator evaluator)
    {
        var told = people.List().Select(p => p.StatureCm).OfType<int>().DefaultIfEmpty(UsualStature).ToArray();
        var (from, to) = (shortest ?? told.Min(), tallest ?? told.Max());
        if (from is < 100 or > 230 || to is < 100 or > 230 || from > to)
        {
            return Problems.Query("range of statures", $"It goes from {from} to {to} cm.", "100–230 cm, the shortest first");
        }

        var (ready, problem) = Of(id, session, classes, sessions, evaluator);
        return ready is null ? problem!
            : TypedResults.Ok(
                ClassCards.Of(ready.Plan, ready.Timeline, evaluator.Preferences, new Stature(from / 100.0), new Stature(to / 100.0)));
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Ics(
        Guid id, Classes classes, Sessions sessions, Evaluator evaluator, TimeProvider clock)
    {
        if (sessions.Find(id) is not { } found)
        {
            return Problems.NotFound("session");
        }

        var (ready, problem) = Of(found.ClassId, id, classes, sessions, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        if (found.Booking.StartsAt is not { } starts)
        {
            return Problems.Conflict(
                "This class has no date yet. Add a day and a time in the brief.", "session", id, StatusCodes.Status409Conflict);
        }

        var sheet = RunSheet.Of(ready.Plan, ready.Timeline, ready.StartsAt, evaluator.Preferences);
        var entry = new CalendarEntry(
            id.ToString("D"),
            ready.Class.Version + found.Revision,
            BookingReader.Moment(starts, found.Booking.Zone),
            ready.Plan.SlotMinutes,
            ready.Plan.Title,
            string.Join("\n", sheet.Blocks.Select(b => $"{b.At} {b.Name}, {b.Length}")));
        var text = CalendarEntry.Write([entry], clock.GetUtcNow());
        return File(ready, text, "text/calendar", "ics");
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Csv(
        Guid id, Guid? session, Classes classes, Sessions sessions, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, session, classes, sessions, evaluator);
        return ready is null
            ? problem!
            : File(ready, TimelineCsv.Of(ready.Plan, ready.Timeline, ready.StartsAt, evaluator.Preferences), "text/csv", "csv");
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Vtt(
        Guid id, Guid? session, Classes classes, Sessions sessions, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, session, classes, sessions, evaluator);
        return ready is null
            ? problem!
            : File(ready, CueTrack.Of(LeadScript.Of(ready.Plan, ready.Timeline, evaluator.Preferences)), "text/vtt", "vtt");
    }

    /// <summary>One file that leads the class from any browser, with no server.</summary>
    private static Results<FileContentHttpResult, ProblemHttpResult> Page(
        Guid id, Guid? session, Classes classes, Sessions sessions, Clips clips, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, session, classes, sessions, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        var own = Clip.All.Select(word => (word, Clip: clips.Find(word))).Where(c => c.Clip is not null)
            .ToImmutableDictionary(c => c.word, c => c.Clip!.Value);
        var script = LeadScript.Of(ready.Plan, ready.Timeline, evaluator.Preferences);
        return File(
            ready,
            LeadPage.Of(ForEveryone.TakenAlong(script, ready.Plan), ClassFigures.UnderWay(ready.Plan), own),
            "text/html",
            "html");
    }

    private static Results<PushStreamHttpResult, ProblemHttpResult> Wav(
        Guid id,
        Guid? session,
        HttpContext http,
        Classes classes,
        Sessions sessions,
        Evaluator evaluator)
    {
        var (ready, problem) = Of(id, session, classes, sessions, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        http.Response.ContentLength = BellTrack.BytesOf(ready.Timeline.Length);
        return TypedResults.Stream(
            output => BellTrack.WriteAsync(output, ready.Timeline.Length, Cue.ListFor(ready.Timeline), http.RequestAborted),
            "audio/wav",
            ClassText.FileName(ready.Class.Title, "wav"));
    }

    private static FileContentHttpResult File(Ready ready, string text, string type, string ending) =>
        TypedResults.File(Encoding.UTF8.GetBytes(text), $"{type}; charset=utf-8", ClassText.FileName(ready.Class.Title, ending));

    private static (Ready? Ready, ProblemHttpResult? Problem) Of(
        Guid id, Guid? session, Classes classes, Sessions sessions, Evaluator evaluator)
    {
        if (classes.Find(id) is not { } found)
        {
            return (null, Problems.NotFound("class"));
        }

        var occasion = session is { } at ? sessions.Find(at) : null;
        if (session is not null && occasion?.ClassId != id)
        {
            return (null, Problems.NotFound("session"));
        }

        var result = evaluator.Evaluate(found.Plan);
        return result.Timeline is { } timeline
            ? (new Ready(found, result.Plan!, timeline, occasion), null)
            : (null, Problems.Faults(result.Faults));
    }
}
