using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <param name="Simulated">Stand-ins are on.</param>
public sealed record HeartList(bool Simulated, ImmutableArray<Heart> Hearts);

/// <summary>Whose belt it is.</summary>
public sealed record BeltWearer(Guid Person) : IRead<BeltWearer>
{
    public static BeltWearer? Read(Fields body, Faults faults) =>
        body.Id("person", required: true) is { } person ? new BeltWearer(person) : null;
}

internal static class BeltEndpoints
{
    private const int LongestFrame = 64;

    /// <summary>Where nobody has told how old they are. [M]</summary>
    private const int UsualAge = 40;

    public static void MapBelts(this IEndpointRouteBuilder routes)
    {
        routes.MapPut("/api/belts/{belt}", Give).Takes<BeltWearer>().ProducesProblem(404).WithTags("Belts").WithName("giveBelt");
        routes.MapPost("/api/belts/{belt}/frames", TakeAsync).ProducesProblem(422).WithTags("Belts").WithName("beltFrame");
        routes.MapPut("/api/sessions/{id:guid}/belts", Simulate)
            .Takes<SwitchedOn>()
            .ProducesProblem(404)
            .WithTags("Belts")
            .WithName("simulateBelts");
    }

    /// <summary>What whoever leads sees of them.</summary>
    public static void MapHearts(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/hearts", (Belts belts) => TypedResults.Ok(new HeartList(belts.Simulated, belts.Hearts())))
            .WithTags("Belts")
            .WithName("hearts");

    private static Results<NoContent, ProblemHttpResult> Give(
        string belt, Body<BeltWearer> body, Belts belts, Store.People people, TimeProvider clock)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (people.Find(new PersonId(request.Person.ToString())) is not { } person)
        {
            return Problems.NotFound("person");
        }

        belts.Give(belt, person.Id, Age(person.BirthYear, clock));
        return TypedResults.NoContent();
    }

    /// <summary>One frame, as the belt sent it.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeAsync(string belt, HttpRequest request, Belts belts)
    {
        var bytes = new byte[LongestFrame + 1];
        var length = await request.Body.ReadAtLeastAsync(
            bytes, bytes.Length, throwOnEndOfStream: false, request.HttpContext.RequestAborted);
        return length <= LongestFrame && belt.Length <= LongestFrame && belts.Take(belt, bytes.AsSpan(0, length))
            ? TypedResults.NoContent()
            : Problems.Bad("", "This is not a heart-rate reading.", "the bytes of characteristic 0x2A37: flags, rate, energy and RR "
                + "where the flags say so");
    }

    private static Results<NoContent, ProblemHttpResult> Simulate(
        Guid id, Body<SwitchedOn> body, Belts belts, Sessions sessions, SessionRooms rooms, Leads leads, SteadyClock steady,
            TimeProvider clock)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        if (request.On)
        {
            belts.Simulate([.. rooms.Expected(session).Select(p => (p.Id, Age(p.BirthYear, clock)))], () => Works(id, leads, steady));
        }
        else
        {
            belts.Stop();
        }

        return TypedResults.NoContent();
    }

    private static int Age(int? born, TimeProvider clock) => born is { } year ? clock.GetUtcNow().Year - year : UsualAge;

    private static bool Works(Guid session, Leads leads, SteadyClock clock)
    {
        if (leads.OpenOf(session) is not { } lead || ScriptFile.Read(lead.Format, lead.Script) is not { } script)
        {
            return false;
        }

        var state = LeadFold.Fold(lead.Commands, script.Times);
        return state.Phase == LeadPhase.Running
            && script.Scenes[LeadFold.SceneAt(state.PositionAt(clock.Now, script.Times), script.Times, state.Added)].Kind == SpanKind.Work;
    }
}
