using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Halterion.Core.Checks;
using Halterion.Core.Plans;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>When and for how many the room is booked.</summary>
/// <param name="StartsAt">Wall-clock start in <paramref name="Zone"/>, such as 2026-11-24T18:00; null: not fixed yet.</param>
/// <param name="Zone">IANA time zone.</param>
public sealed record Booking(string Zone, int HeadCount, string? StartsAt = null);

/// <summary>A class with its booking and what it adds up to; faults in place of the evaluation while it is a draft with faults.</summary>
public sealed record ClassView(Guid Id, int Version, Booking Booking, JsonElement Plan, ImmutableArray<PlanFault> Faults, Evaluation? Evaluation = null);

/// <summary>A line in the list of classes.</summary>
/// <param name="Status">planned, led or logged.</param>
public sealed record ClassSummary(Guid Id, string Title, Booking Booking, string Status, string Length, string Verdict, int Came);

public sealed record SaveRequest(Booking Booking, JsonElement Plan);

/// <summary>Starts a class: from a brief, or as a copy of another with a brief of its own.</summary>
public sealed record NewClass(string Title, int SlotMinutes, Aim Aim, Booking Booking, Guid? CopyOf = null);

internal static class ClassEndpoints
{
    public static void MapClasses(this IEndpointRouteBuilder routes)
    {
        var classes = routes.MapGroup("/api/classes").WithTags("Classes");
        classes.MapGet("/", List).WithName("classes");
        classes.MapPost("/", Create).ProducesProblem(422).WithName("createClass");
        classes.MapGet("/{id:guid}", Get).ProducesProblem(404).WithName("class");
        classes.MapPut("/{id:guid}", Save).ProducesProblem(404).ProducesProblem(412).ProducesProblem(422).WithName("saveClass");
        classes.MapDelete("/{id:guid}", (Guid id, Classes store) => Removed(store, id, true)).ProducesProblem(404).WithName("removeClass");
        classes.MapPost("/{id:guid}/restore", (Guid id, Classes store) => Removed(store, id, false)).ProducesProblem(404).WithName("restoreClass");
        classes.MapGet("/{id:guid}/file", Download).ProducesProblem(404).WithName("downloadClass");
        classes.MapPost("/file", OpenAsync).Accepts<JsonElement>("application/json").ProducesProblem(422).WithName("openClassFile");
    }

    private static Ok<ImmutableArray<ClassSummary>> List(Classes store, Evaluator evaluator) =>
        TypedResults.Ok(store.List().Select(line =>
        {
            var evaluation = evaluator.Evaluate(line.Class.Revision.Plan).Evaluation;
            return new ClassSummary(
                line.Class.Id,
                line.Class.Revision.Title,
                BookingOf(line.Class.Revision),
                line.Logged ? "logged" : line.Led ? "led" : "planned",
                evaluation?.Totals.Seconds.ToString() ?? "",
                evaluation?.Verdict ?? "a draft",
                line.Came);
        }).ToImmutableArray());

    private static Results<Ok<ClassView>, ProblemHttpResult> Create(NewClass wanted, Classes store, Evaluator evaluator, Starters starters)
    {
        if (BookingFault(wanted.Booking) is { } fault)
        {
            return fault;
        }

        var source = wanted.CopyOf is { } copied ? store.Find(copied) : null;
        if (wanted.CopyOf is not null && source is null)
        {
            return Problems.NotFound("class");
        }

        var plan = ClassText.New(wanted.Title, wanted.SlotMinutes, wanted.Aim, source?.Revision.Plan, starters.ClassFields());
        if (plan is null)
        {
            return Problems.Bad("/title", "A class needs a title of 1–120 characters and a slot of 5–180 minutes.", "a short title and whole minutes");
        }

        return Get(store.Add(ClassText.Revision(plan, wanted.Booking)), store, evaluator);
    }

    private static Results<Ok<ClassView>, ProblemHttpResult> Get(Guid id, Classes store, Evaluator evaluator) =>
        store.Find(id) is { } found ? TypedResults.Ok(View(found, evaluator)) : Problems.NotFound("class");

    /// <summary>Saves a class, whether it has faults or not. If-Match carries the version it was made from.</summary>
    private static Results<Ok<ClassView>, ProblemHttpResult> Save(Guid id, SaveRequest request, HttpRequest http, Classes store, OwnMoves own, Evaluator evaluator)
    {
        if (!int.TryParse(http.Headers.IfMatch.ToString().Trim('"'), out var version))
        {
            return TypedResults.Problem(title: "Say in If-Match which version this was made from.", statusCode: StatusCodes.Status428PreconditionRequired);
        }

        if (BookingFault(request.Booking) is { } fault)
        {
            return fault;
        }

        if (request.Plan.ValueKind != JsonValueKind.Object)
        {
            return Problems.Bad("/plan", "A class is an object.", "an object { … }");
        }

        if (store.Find(id) is not { } current)
        {
            return Problems.NotFound("class");
        }

        var whole = ShippedMoves.Carrying(request.Plan, evaluator.Moves, own);
        var plan = ClassText.Unchanged(current.Revision.Plan, whole) ? current.Revision.Plan : ClassText.Written(whole);
        if (Encoding.UTF8.GetByteCount(plan) > ClassReader.MaxBytes)
        {
            return Problems.Bad("/plan", "The class is too large.", $"at most {ClassReader.MaxBytes} bytes");
        }

        if (store.Save(id, version, ClassText.Revision(plan, request.Booking)) is not { } result)
        {
            return Problems.NotFound("class");
        }

        return result.Saved
            ? TypedResults.Ok(View(result.Class, evaluator))
            : Problems.Conflict("This class was changed elsewhere in the meantime.", "current", View(result.Class, evaluator));
    }

    private static Results<NoContent, ProblemHttpResult> Removed(Classes store, Guid id, bool removed) =>
        store.SetRemoved(id, removed) ? TypedResults.NoContent() : Problems.NotFound("class");

    private static Results<FileContentHttpResult, ProblemHttpResult> Download(Guid id, Classes store) =>
        store.Find(id) is { } found
            ? TypedResults.File(Encoding.UTF8.GetBytes(found.Revision.Plan), "application/json", ClassText.FileName(found.Revision.Title))
            : Problems.NotFound("class");

    /// <summary>Takes in a class file as it is, to the byte; one with faults changes nothing.</summary>
    private static async Task<Results<Ok<ClassView>, ProblemHttpResult>> OpenAsync(HttpRequest request, Classes store, Evaluator evaluator, TimeZoneInfo zone, CancellationToken cancel)
    {
        var file = await request.ReadBytesAsync(cancel);
        var result = evaluator.Evaluate(file);
        return result.Evaluation is null
            ? Problems.Faults(result.Faults)
            : Get(store.Add(ClassText.Revision(Encoding.UTF8.GetString(file.Span), new Booking(zone.Id, 12))), store, evaluator);
    }

    internal static ClassView View(StoredClass found, Evaluator evaluator)
    {
        var result = evaluator.Evaluate(found.Revision.Plan);
        return new ClassView(found.Id, found.Version, BookingOf(found.Revision), ClassText.Parse(found.Revision.Plan), result.Faults, result.Evaluation);
    }

    internal static Booking BookingOf(ClassRevision revision) => new(revision.Zone, revision.HeadCount, revision.StartsAt);

    private static ProblemHttpResult? BookingFault(Booking booking)
    {
        if (booking.HeadCount is < 0 or > 500)
        {
            return Problems.Bad("/booking/headCount", $"The head-count is {booking.HeadCount}.", "a whole number 0–500");
        }

        if (booking.StartsAt is { } starts && !DateTime.TryParseExact(starts, "yyyy-MM-ddTHH:mm", null, System.Globalization.DateTimeStyles.None, out _))
        {
            return Problems.Bad("/booking/startsAt", "The start is no date and time.", "such as 2026-11-24T18:00");
        }

        return TimeZoneInfo.TryFindSystemTimeZoneById(booking.Zone, out _)
            ? null
            : Problems.Bad("/booking/zone", "There is no such time zone.", "an IANA time zone, such as Europe/Lisbon");
    }
}
