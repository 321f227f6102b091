using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.People;
using Halterion.Core.Planning;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>An occasion on which a class is held.</summary>
/// <param name="Revision">Counts the changes of the booking; If-Match carries it.</param>
/// <param name="Held">It was led or logged.</param>
/// <param name="ClassVersion">The version that was led or logged; null: the latest will be.</param>
public sealed record SessionView(Guid Id, Guid ClassId, int Revision, Booking Booking, bool Held, int? ClassVersion = null);

public sealed record SavedSession(int Revision);

/// <summary>A session in a list.</summary>
/// <param name="Status">planned, running, led or logged.</param>
/// <param name="CopyOf">The title of the class that this one was copied from.</param>
/// <param name="StartedAt">When it was really started, in milliseconds since 1970.</param>
public sealed record SessionSummary(
    Guid Id, Guid ClassId, string Title, Booking Booking, string Status, string Length, string Verdict, int Came, string? CopyOf =
        null, long? StartedAt = null);

/// <summary>A window of the sessions.</summary>
/// <param name="All">How many there are in all.</param>
public sealed record SessionList(ImmutableArray<SessionSummary> Sessions, int All);

internal static class SessionEndpoints
{
    /// <summary>Where nobody has said how many come. [M]</summary>
    public const int UsualHeads = 12;

    private const int Window = 20;
    private const int LargestWindow = 500;

    public static void MapSessions(this IEndpointRouteBuilder routes)
    {
        var sessions = routes.MapGroup("/api/sessions").WithTags("Sessions");
        sessions.MapGet("/", List).ProducesProblem(400).WithName("sessions");
        sessions.MapGet("/{id:guid}", Get).ProducesProblem(404).WithName("session");
        sessions.MapPut("/{id:guid}", Save).Takes<SaveSession>().Revised().WithName("saveSession");
        sessions.MapDelete("/{id:guid}", (Guid id, Sessions store) => Removed(store, id, true))
            .ProducesProblem(404)
            .WithName("removeSession");
        sessions.MapPost("/{id:guid}/restore", (Guid id, Sessions store) => Removed(store, id, false))
            .ProducesProblem(404)
            .WithName("restoreSession");
        routes.MapPost("/api/classes/{id:guid}/sessions", Add)
            .Takes<SaveSession>()
            .ProducesProblem(404)
            .WithTags("Sessions")
            .WithName("addSession");
    }

    /// <summary>What is under way and to come, the next first; or what was held, the last first.</summary>
    /// <remarks><c>of</c>: only those of one class.</remarks>
    private static Results<Ok<SessionList>, ProblemHttpResult> List(bool? held, int? skip, int? take, Guid? of, Sessions store)
    {
        if (Windows.Fault(skip, take, LargestWindow) is { } fault)
        {
            return fault;
        }

        var (lines, all) = store.List(held ?? false, skip ?? 0, take ?? Window, of);
        return TypedResults.Ok(new SessionList([.. lines.Select(Summary)], all));
    }

    internal static SessionSummary Summary(SessionLine l) => new(
        l.Id, l.ClassId, l.Title, new Booking(l.Zone, l.HeadCount, l.StartsAt), StatusOf(l),
        Lengths.Of(l.Seconds), Lengths.Verdict(l.OverSeconds), l.Came, l.CopyOf, l.StartedAt);

    private static string StatusOf(SessionLine line) =>
        line.Logged ? "logged" : line.UnderWay ? "running" : line.StartedAt is null ? "planned" : "led";

    private static Results<Ok<SessionView>, ProblemHttpResult> Get(Guid id, Sessions store, HttpContext http)
    {
        if (store.Find(id) is not { } found)
        {
            return Problems.NotFound("session");
        }

        http.Tagged(found.Revision);
        return TypedResults.Ok(View(found, store));
    }

    /// <summary>Another occasion for a class: a date to come, or "lead it again".</summary>
    private static Results<Ok<SessionView>, ProblemHttpResult> Add(Guid id, Body<SaveSession> body, Sessions store, HttpRequest http) =>
        body.Value is not { } request ? body.Problem!
        : store.Add(id, Stored(request.Booking), http.Change()) is { } added ? Get(added, store, http.HttpContext)
        : Problems.NotFound("class");

    /// <summary>Changes the booking. If-Match carries the revision it was made from.</summary>
    private static Results<Ok<SavedSession>, ProblemHttpResult> Save(
        Guid id, Body<SaveSession> body, HttpContext http, Sessions store, Store.People people)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (http.Request.Basis() is not { } basis)
        {
            return Problems.NoVersion();
        }

        var mine = Stored(request.Booking);
        return store.Save(id, basis, mine) switch
        {
            null => Problems.NotFound("session"),
            { Saved: true } saved => TypedResults.Ok(new SavedSession(saved.Session.Revision)),
            { } other => Problems.Changed("class date", View(other.Session, store), Differences(mine, other.Session.Booking, people)),
        };
    }

    private static ImmutableArray<Difference> Differences(SessionBooking mine, SessionBooking theirs, Store.People people)
    {
        var names = people.List().ToDictionary(p => p.Id, p => p.Name);
        IEnumerable<string> Lines(SessionBooking booking) =>
        [
            $"Starts: {booking.StartsAt?.Replace('T', ' ') ?? "no date yet"}",
            $"Time zone: {booking.Zone}",
            $"Head-count: {booking.HeadCount}",
            $"Expected: {PersonWords.Listed(booking.Expected, names)}",
        ];
        return Difference.Between(Lines(mine), Lines(theirs));
    }

    private static Results<NoContent, ProblemHttpResult> Removed(Sessions store, Guid id, bool removed) =>
        store.SetRemoved(id, removed) ? TypedResults.NoContent() : Problems.NotFound("session");

    internal static SessionBooking Stored(Booking booking) =>
        new(booking.StartsAt, booking.Zone, booking.HeadCount, [.. booking.Expected ?? []]);

    internal static SessionView View(StoredSession session, bool held) => new(
        session.Id, session.ClassId, session.Revision,
        new Booking(session.Booking.Zone, session.Booking.HeadCount, session.Booking.StartsAt,
            session.Booking.Expected), held, session.ClassVersion);

    private static SessionView View(StoredSession session, Sessions store) =>
        View(session, store.Of(session.ClassId).Any(s => s.Session.Id == session.Id && s.Held));
}
