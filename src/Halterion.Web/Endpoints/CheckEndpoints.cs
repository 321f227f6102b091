using System.Collections.Immutable;
using Halterion.Core.Checks;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A rule of the checks, as the settings list it.</summary>
/// <param name="Limit">What can be set; null: nothing.</param>
public sealed record CheckRule(string Code, string Says, string Why, string Source, string Others, AdjustableLimit? Limit);

/// <summary>What the checks say of a class as it is held, and the repairs that keep their word.</summary>
/// <param name="Ready">Nothing is left that must not stay so.</param>
public sealed record SessionFindings(ImmutableArray<Finding> Findings, ImmutableArray<RepairOffer> Offers, bool Ready, HardestMoment? Hardest);

internal static class CheckEndpoints
{
    public static void MapChecks(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/checks", () => TypedResults.Ok(All)).WithTags("Checks").WithName("checks");
        var session = routes.MapGroup("/api/sessions/{id:guid}").WithTags("Checks");
        session.MapPost("/checks", Check).Takes<ClassRequest>().ProducesProblem(404).WithName("checkSession");
        session.MapPost("/ready", Ready).Takes<ClassRequest>().ProducesProblem(404).WithName("ready");
        session.MapPut("/waivers", Waive).Takes<SessionWaiver>().ProducesProblem(404).WithName("waive");
        session.MapPut("/ticks", Tick).Takes<SessionTick>().ProducesProblem(404).WithName("tick");
    }

    private static ImmutableArray<CheckRule> All { get; } =
        [.. Rules.All.Select(r => new CheckRule(r.Code, r.Says, r.Why, r.Source, r.Others, Thresholds.Adjustable.GetValueOrDefault(r.Code)))];

    private static Results<Ok<SessionFindings>,
        ProblemHttpResult> Check(Guid id, Body<ClassRequest> body, SessionRooms rooms, SessionChecks checks, Evaluator evaluator, CancellationToken stop)
    {
        var (ready, request, problem) = rooms.Read(id, body, r => r.Class);
        if (ready is null || request is null)
        {
            return problem!;
        }

        var (review, found, _) = checks.Of(ready);
        return TypedResults.Ok(new SessionFindings(
            found, Mender.Of(request.Class, evaluator)?.Offers(stop) ?? [], !found.Any(f => f.Waived is null && f.Severity is Severity.Stop or Severity.Fix),
            ClassMeasure.Of(review).Hardest));
    }

    private static Results<Ok<ReadyView>, ProblemHttpResult> Ready(Guid id, Body<ClassRequest> body, SessionRooms rooms, SessionChecks checks)
    {
        var (ready, _, problem) = rooms.Read(id, body, r => r.Class);
        return ready is null ? problem! : TypedResults.Ok(checks.View(ready));
    }

    private static Results<NoContent, ProblemHttpResult> Waive(Guid id, Body<SessionWaiver> body, Sessions sessions, Rooms rooms)
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
            return Problems.Bad("/code", $"“{waiver.Code}” is not waived for a session.", "the code of a check of people, kit, room or weeks");
        }

        rooms.Waive(id, waiver.Code, waiver.Place, waiver.Reason);
        return TypedResults.NoContent();
    }

    private static Results<NoContent, ProblemHttpResult> Tick(Guid id, Body<SessionTick> body, Sessions sessions, Rooms rooms)
    {
        if (body.Value is not { } tick)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        if (tick.Key.StartsWith(ReadyView.LookKey, StringComparison.Ordinal))
        {
            var (chosen, look) = (rooms.Of(id), tick.Key[ReadyView.LookKey.Length..]);
            rooms.Lay(id, chosen.Spots, tick.Done ? chosen.Looked.Add(look) : chosen.Looked.Remove(look));
        }
        else
        {
            rooms.Tick(id, tick.Key, tick.Done);
        }

        return TypedResults.NoContent();
    }
}
