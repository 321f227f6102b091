using System.Collections.Immutable;
using Halterion.Core.Checks;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A rule of the checks, as the settings list it.</summary>
/// <param name="Limit">What can be set; null: nothing.</param>
/// <param name="Several">What is said where it finds more than one place, after their number.</param>
public sealed record CheckRule(string Code, string Says, string? Several, string Why, string Source, string Others, AdjustableLimit? Limit);

/// <summary>What the checks say of a class as it is held, and the repairs that keep their word.</summary>
/// <param name="Ready">Nothing is left that must not stay so.</param>
/// <param name="Sure">It is ready, all of it is known, and the booked time is used.</param>
/// <param name="Untried">So many ways to fix something were not tried for want of time.</param>
public sealed record SessionFindings(
    ImmutableArray<Finding> Findings, ImmutableArray<RepairOffer> Offers, bool Ready, bool Sure, HardestMoment? Hardest,
    int Untried = 0);

/// <summary>Whether the class of a session, as it was saved last, can be led on it: for a line of the list.</summary>
/// <param name="Ready">Nothing is left that must not stay so.</param>
/// <param name="Sure">It is ready, all of it is known, and the booked time is used.</param>
/// <param name="Says">The same in words.</param>
public sealed record SessionStanding(bool Ready, bool Sure, string Says);

/// <summary>What is accepted as it is for a session.</summary>
/// <param name="Revision">If-Match carries it with the next change.</param>
public sealed record SessionWaivers(ImmutableArray<Waiver> Waivers, int Revision);

/// <summary>What is ticked off for a session, looks before use among it.</summary>
/// <param name="Revision">If-Match carries it with the next change.</param>
public sealed record SessionTicks(ImmutableArray<string> Ticks, int Revision);

internal static class CheckEndpoints
{
    public static void MapChecks(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/checks", () => TypedResults.Ok(All)).WithTags("Checks").WithName("checks");
        var session = routes.MapGroup("/api/sessions/{id:guid}").WithTags("Checks");
        session.MapPost("/checks", Check).Takes<ClassRequest>().ProducesProblem(404).WithName("checkSession");
        session.MapPost("/ready", Ready).Takes<ClassRequest>().ProducesProblem(404).WithName("ready");
        session.MapGet("/standing", Stands).ProducesProblem(404).WithName("standing");
        session.MapGet("/waivers", Waivers).ProducesProblem(404).WithName("waivers");
        session.MapPut("/waivers", Waive).Takes<SessionWaiver>().Revised().WithName("waive");
        session.MapGet("/ticks", Ticks).ProducesProblem(404).WithName("ticks");
        session.MapPut("/ticks", Tick).Takes<SessionTick>().Revised().WithName("tick");
    }

    private static ImmutableArray<CheckRule> All { get; } =
        [
            .. Rules.All.Select(
                r => new CheckRule(r.Code, r.Says, r.Several, r.Why, r.Source, r.Others, Thresholds.Adjustable.GetValueOrDefault(r.Code)))];

    private static Results<Ok<SessionFindings>,
        ProblemHttpResult> Check(
            Guid id,
            Body<ClassRequest> body,
            SessionRooms rooms,
            SessionChecks checks,
            Evaluator evaluator,
            TimeProvider clock,
            CancellationToken stop)
    {
        var (ready, request, problem) = rooms.Read(id, body, r => r.Class);
        if (ready is null || request is null)
        {
            return problem!;
        }

        var (review, found, _) = checks.Of(ready);
        var offers = Mender.Of(request.Class, evaluator)?.Offers(clock.Late(), stop);
        return TypedResults.Ok(new SessionFindings(
            found, offers?.Offers ?? [], IsReady(found), ReadyView.IsSure(review, found),
            ClassMeasure.Of(review).Hardest, offers?.Untried ?? 0));
    }

    /// <summary>Nothing is left that must not stay so.</summary>
    internal static bool IsReady(ImmutableArray<Finding> found) =>
        !found.Any(f => f.Waived is null && f.Severity is Severity.Stop or Severity.Fix);

    private static Results<Ok<ReadyView>, ProblemHttpResult> Ready(
        Guid id, Body<ClassRequest> body, SessionRooms rooms, SessionChecks checks)
    {
        var (ready, _, problem) = rooms.Read(id, body, r => r.Class);
        return ready is null ? problem! : TypedResults.Ok(checks.View(ready));
    }

    private static Results<Ok<SessionStanding>, ProblemHttpResult> Stands(
        Guid id, Sessions sessions, Classes classes, SessionRooms rooms, SessionChecks checks, Evaluator evaluator)
    {
        if (sessions.Find(id) is not { } session || classes.Find(session.ClassId) is not { } stored)
        {
            return Problems.NotFound("session");
        }

        var read = evaluator.Evaluate(stored.Plan);
        if (read is not { Plan: { } plan, Timeline: { } timeline })
        {
            var empty = read.Faults.All(f => f.Pointer == "/blocks");
            return TypedResults.Ok(new SessionStanding(
                false, false, empty ? "No stations yet." : "Not ready: some entries do not work yet."));
        }

        var view = checks.View(rooms.ReadyOf(plan, timeline, session));
        return TypedResults.Ok(new SessionStanding(view.Ready, view.Sure, view.Says));
    }

    private static Results<Ok<SessionWaivers>, ProblemHttpResult> Waivers(Guid id, Sessions sessions, Rooms rooms, HttpContext http)
    {
        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        http.Tagged(rooms.WaiversRevision(id));
        return TypedResults.Ok(WaiversOf(id, rooms));
    }

    private static SessionWaivers WaiversOf(Guid id, Rooms rooms) => new(rooms.Waivers(id), rooms.WaiversRevision(id));

    private static Results<Ok<Kept>, ProblemHttpResult> Waive(
        Guid id, Body<SessionWaiver> body, Sessions sessions, Rooms rooms, HttpContext http)
    {
        if (body.Value is not { } waiver)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        if (Rules.All.FirstOrDefault(r => r.Code == waiver.Code) is not { OfSession: true })
        {
            return Problems.Bad("/code", $"“{waiver.Code}” is accepted in the class, not for one date.", "the code of a check of people, "
                + "kit, room or weeks");
        }

        return Saving.Answer(http, "list of what "
            + "is accepted", basis => rooms.Waive(id, waiver.Code, waiver.Place, waiver.Reason, basis), () =>
        {
            var theirs = WaiversOf(id, rooms);
            var there = theirs.Waivers.FirstOrDefault(w => w.Code == waiver.Code && w.Place == waiver.Place)?.Reason;
            return (theirs, Difference.Between([$"{waiver.Code}: {waiver.Reason}"], [$"{waiver.Code}: {there}"]));
        });
    }

    private static Results<Ok<SessionTicks>, ProblemHttpResult> Ticks(Guid id, Sessions sessions, Rooms rooms, HttpContext http)
    {
        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        http.Tagged(rooms.TicksRevision(id));
        return TypedResults.Ok(TicksOf(id, rooms));
    }

    private static SessionTicks TicksOf(Guid id, Rooms rooms) =>
        new([.. rooms.Ticks(id).Union(rooms.Of(id).Looked.Select(k => ReadyView.LookKey + k)).Order(StringComparer.Ordinal)],
            rooms.TicksRevision(id));

    private static Results<Ok<Kept>, ProblemHttpResult> Tick(
        Guid id, Body<SessionTick> body, Sessions sessions, Rooms rooms, HttpContext http)
    {
        if (body.Value is not { } tick)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        Saved Save(Basis basis) => tick.Key.StartsWith(ReadyView.LookKey, StringComparison.Ordinal)
            ? rooms.Look(id, tick.Key[ReadyView.LookKey.Length..], tick.Done, basis)
            : rooms.Tick(id, tick.Key, tick.Done, basis);
        return Saving.Answer(http, "list of what is ticked off", Save, () =>
        {
            var theirs = TicksOf(id, rooms);
            return (theirs, Difference.Between([$"{tick.Key}: {Done(tick.Done)}"], [$"{tick.Key}: "
                + $"{Done(theirs.Ticks.Contains(tick.Key))}"]));
        });
    }

    private static string Done(bool done) => done ? "done" : "open";
}
