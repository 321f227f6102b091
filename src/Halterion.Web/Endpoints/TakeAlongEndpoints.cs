using System.Globalization;
using System.Text;
using Halterion.Core.Body;
using Halterion.Core.Checks;
using Halterion.Core.Formats;
using Halterion.Core.Leading;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>What an instructor takes along: the run sheet, a calendar entry, a table, captions, bells.</summary>
internal static class TakeAlongEndpoints
{
    /// <summary>Where nobody has told theirs, cm. [M]</summary>
    private const int UsualStature = 170;

    private sealed record Ready(StoredClass Class, ClassPlan Plan, Timeline Timeline, DateTime? StartsAt);

    public static void MapTakeAlong(this IEndpointRouteBuilder routes)
    {
        var along = routes.MapGroup("/api/classes/{id:guid}").WithTags("Take along");
        along.MapGet("/run-sheet", Sheet).ProducesProblem(404).ProducesProblem(422).WithName("runSheet");
        along.MapGet("/cards", Cards).ProducesProblem(404).ProducesProblem(422).WithName("classCards");
        along.MapGet("/calendar.ics", Ics).ProducesProblem(404).ProducesProblem(422).WithName("calendarFile");
        along.MapGet("/timeline.csv", Csv).ProducesProblem(404).ProducesProblem(422).WithName("timelineFile");
        along.MapGet("/cues.vtt", Vtt).ProducesProblem(404).ProducesProblem(422).WithName("cueFile");
        along.MapGet("/bells.wav", Wav).ProducesProblem(404).ProducesProblem(422).WithName("bellFile");
    }

    private static Results<Ok<RunSheet>, ProblemHttpResult> Sheet(Guid id, Classes classes, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, classes, evaluator);
        return ready is null ? problem! : TypedResults.Ok(RunSheet.Of(ready.Plan, ready.Timeline, ready.StartsAt, evaluator.Preferences));
    }

    /// <param name="shortest">Stature in cm for which stations are set up; and the tallest. Left out: those of the roster, so far as they are told.</param>
    private static Results<Ok<ClassCards>, ProblemHttpResult> Cards(Guid id, int? shortest, int? tallest, Classes classes, Store.People people, Evaluator evaluator)
    {
        var told = people.List().Select(p => p.StatureCm).OfType<int>().DefaultIfEmpty(UsualStature).ToArray();
        var (from, to) = (shortest ?? told.Min(), tallest ?? told.Max());
        if (from is < 100 or > 230 || to is < 100 or > 230 || from > to)
        {
            return Problems.Bad("/shortest", "These statures make no range.", "100–230 cm, the shortest first");
        }

        var (ready, problem) = Of(id, classes, evaluator);
        return ready is null ? problem! : TypedResults.Ok(ClassCards.Of(ready.Plan, evaluator.Preferences, new Stature(from / 100.0), new Stature(to / 100.0)));
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Ics(Guid id, Classes classes, Evaluator evaluator, TimeProvider clock)
    {
        var (ready, problem) = Of(id, classes, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        if (ready.StartsAt is not { } starts)
        {
            return Problems.Bad("/booking/startsAt", "This class has no date yet.", "a day and a time in the brief");
        }

        var zone = TimeZoneInfo.FindSystemTimeZoneById(ready.Class.Revision.Zone);
        var sheet = RunSheet.Of(ready.Plan, ready.Timeline, starts, evaluator.Preferences);
        var text = CalendarEntry.Of(sheet, ready.Plan, id.ToString("D"), ready.Class.Version, new DateTimeOffset(starts, zone.GetUtcOffset(starts)), clock.GetUtcNow());
        return File(ready, text, "text/calendar", "ics");
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Csv(Guid id, Classes classes, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, classes, evaluator);
        return ready is null ? problem! : File(ready, TimelineCsv.Of(ready.Plan, ready.Timeline, ready.StartsAt, evaluator.Preferences), "text/csv", "csv");
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Vtt(Guid id, Classes classes, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, classes, evaluator);
        return ready is null ? problem! : File(ready, CueTrack.Of(LeadScript.Of(ready.Plan, ready.Timeline, evaluator.Preferences)), "text/vtt", "vtt");
    }

    private static Results<PushStreamHttpResult, ProblemHttpResult> Wav(Guid id, HttpContext http, Classes classes, Evaluator evaluator)
    {
        var (ready, problem) = Of(id, classes, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        http.Response.ContentLength = BellTrack.BytesOf(ready.Timeline.Length);
        return TypedResults.Stream(
            output => BellTrack.WriteAsync(output, ready.Timeline.Length, Cue.ListFor(ready.Timeline), http.RequestAborted),
            "audio/wav",
            ClassText.FileName(ready.Class.Revision.Title, "wav"));
    }

    private static FileContentHttpResult File(Ready ready, string text, string type, string ending) =>
        TypedResults.File(Encoding.UTF8.GetBytes(text), $"{type}; charset=utf-8", ClassText.FileName(ready.Class.Revision.Title, ending));

    private static (Ready? Ready, ProblemHttpResult? Problem) Of(Guid id, Classes classes, Evaluator evaluator)
    {
        if (classes.Find(id) is not { } found)
        {
            return (null, Problems.NotFound("class"));
        }

        var result = evaluator.Evaluate(found.Revision.Plan);
        DateTime? starts = found.Revision.StartsAt is { } at ? DateTime.ParseExact(at, "yyyy-MM-ddTHH:mm", CultureInfo.InvariantCulture) : null;
        return result.Timeline is { } timeline
            ? (new Ready(found, result.Plan!, timeline, starts), null)
            : (null, Problems.Faults(result.Faults));
    }
}
