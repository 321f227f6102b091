using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The room after a choice, and what that changed for the others.</summary>
public sealed record PinResult(RoomView Room, string Told);

/// <summary>What was chosen for a session, and the rooms there are to choose from.</summary>
public sealed record SessionRoomView(Guid? Hall, ImmutableDictionary<string, FloorSpot> Spots, ImmutableArray<string> Looked);

/// <summary>Rooms, stock, and what a session does in them.</summary>
internal static class RoomEndpoints
{
    public static void MapRooms(this IEndpointRouteBuilder routes)
    {
        var rooms = routes.MapGroup("/api/rooms").WithTags("Rooms");
        rooms.MapGet("/", (Rooms store) => TypedResults.Ok(store.List())).WithName("rooms");
        rooms.MapPost("/", (Body<HallDetails> body, Rooms store) => Keep(Guid.CreateVersion7(), body, store)).Takes<HallDetails>().WithName("addRoom");
        rooms.MapPut("/{id:guid}", Keep).Takes<HallDetails>().WithName("keepRoom");
        rooms.MapDelete("/{id:guid}", Remove).ProducesProblem(404).WithName("removeRoom");

        var session = routes.MapGroup("/api/sessions/{id:guid}").WithTags("Rooms");
        session.MapPost("/room", See).Takes<RoomRequest>().ProducesProblem(404).WithName("seeRoom");
        session.MapPost("/pins", Pin).Takes<PinRequest>().ProducesProblem(404).WithName("pin");
        session.MapPost("/ways-out", WaysOutOf).Takes<WaysOutRequest>().ProducesProblem(404).WithName("waysOut");
        session.MapPost("/groups", Group).Takes<GroupsRequest>().ProducesProblem(404).WithName("group");
        session.MapPost("/floor", Floor).Takes<FloorRequest>().ProducesProblem(404).WithName("floor");
        session.MapGet("/chosen", Chosen).ProducesProblem(404).WithName("sessionRoom");
        session.MapPut("/chosen", Choose).Takes<SessionRoomDetails>().ProducesProblem(404).WithName("chooseSessionRoom");
    }

    private static Results<Ok<StoredHall>, ProblemHttpResult> Keep(Guid id, Body<HallDetails> body, Rooms store)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        var hall = new StoredHall(id, details.Name, details.Floor, details.Stock);
        store.Keep(hall);
        return TypedResults.Ok(hall);
    }

    private static Results<NoContent, ProblemHttpResult> Remove(Guid id, Rooms store) =>
        store.Remove(id) ? TypedResults.NoContent() : Problems.NotFound("room");

    /// <summary>A class as it stands on the screen, read with the room of its session.</summary>
    private sealed record Ready(ClassPlan Plan, Core.Timing.Timeline Timeline, RoomOf Room, StoredSession Session, SessionRoom Chosen);

    private static (Ready? Ready, ProblemHttpResult? Problem) Read(Guid id, JsonElement file, Sessions sessions, Rooms rooms, SessionRooms room, Evaluator evaluator)
    {
        if (sessions.Find(id) is not { } session)
        {
            return (null, Problems.NotFound("session"));
        }

        var read = evaluator.Evaluate(file.GetRawText());
        if (read is not { Plan: { } plan, Timeline: { } timeline })
        {
            return (null, Problems.Faults(read.Faults.At("", "/class"), Problems.Request));
        }

        var chosen = rooms.Of(id);
        return (new Ready(plan, timeline, room.Of(plan, session, chosen), session, chosen), null);
    }

    private static Results<Ok<RoomView>, ProblemHttpResult> See(
        Guid id, Body<RoomRequest> body, Sessions sessions, Rooms rooms, SessionRooms room, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (ready, problem) = Read(id, request.Class, sessions, rooms, room, evaluator);
        return ready is null ? problem! : TypedResults.Ok(RoomView.Of(ready.Room, ready.Timeline, evaluator.Preferences));
    }

    /// <summary>Pins an option, or gives the choice back, and says whom that touches.</summary>
    private static Results<Ok<PinResult>, ProblemHttpResult> Pin(
        Guid id, Body<PinRequest> body, Sessions sessions, Rooms rooms, SessionRooms room, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (ready, problem) = Read(id, request.Class, sessions, rooms, room, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        var before = RoomView.Of(ready.Room, ready.Timeline, evaluator.Preferences);
        if (before.People.FirstOrDefault(p => p.Id == request.Person) is not { } person)
        {
            return Problems.Bad("/person", "Nobody who is expected has this id.", "somebody who is expected");
        }

        if (person.Cells.FirstOrDefault(c => c.Station == request.Station) is not { } cell)
        {
            return Problems.Bad("/station", "The class has no such station.", "the id of one of its stations");
        }

        if (request.Option is { } option)
        {
            if (cell.Choices.FirstOrDefault(c => c.Option == option) is not { } choice)
            {
                return Problems.Bad("/option", "The station has no such option.", "the id of one of its options");
            }

            if (!choice.Allowed && string.IsNullOrWhiteSpace(request.Reason))
            {
                return Problems.Bad("/reason", $"This goes against {choice.Why}: say why it is right all the same.", "a reason");
            }
        }

        rooms.Pin(id, request.Person, request.Station, request.Option, request.Reason?.Trim() ?? "");
        var after = RoomView.Of(room.Of(ready.Plan, ready.Session, rooms.Of(id)), ready.Timeline, evaluator.Preferences);
        return TypedResults.Ok(new PinResult(after, RoomView.Told(before, after, request.Person, request.Station)));
    }

    private static Results<Ok<ImmutableArray<WayOut>>, ProblemHttpResult> WaysOutOf(
        Guid id, Body<WaysOutRequest> body, Sessions sessions, Rooms rooms, SessionRooms room, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (ready, problem) = Read(id, request.Class, sessions, rooms, room, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        var shortages = Assigning.Of(ready.Room).Shortages;
        return request.Shortage >= shortages.Length
            ? TypedResults.Ok(ImmutableArray<WayOut>.Empty)
            : TypedResults.Ok(WaysOut.Of(shortages[request.Shortage], ready.Room, evaluator, (JsonObject)JsonNode.Parse(PlanIds.Written(request.Class).GetRawText())!));
    }

    /// <summary>Keeps groups as they were chosen, or makes them anew.</summary>
    private static Results<Ok<RoomView>, ProblemHttpResult> Group(
        Guid id, Body<GroupsRequest> body, Sessions sessions, Rooms rooms, SessionRooms room, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (ready, problem) = Read(id, request.Class, sessions, rooms, room, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        if (ready.Plan.Blocks.FirstOrDefault(b => b.Id == request.Block) is not { Shape: BlockShape.Rotation } block)
        {
            return Problems.Bad("/block", "The class has no such rotation.", "the id of a block in which groups rotate");
        }

        if (request.Groups is { } groups && groups.Length != block.Stations.Length)
        {
            return Problems.Bad("/groups", $"There are {groups.Length} groups.", $"as many as stations: {block.Stations.Length}");
        }

        var chosen = request.Groups ?? room.Even(ready.Plan, ready.Room.People, ready.Session, ready.Chosen)[block.Id];
        rooms.Group(id, block.Id, chosen.SelectMany((g, i) => g.Select(p => (p, i))).DistinctBy(p => p.p));
        return TypedResults.Ok(RoomView.Of(room.Of(ready.Plan, ready.Session, rooms.Of(id)), ready.Timeline, evaluator.Preferences));
    }

    private static Results<Ok<FloorView>, ProblemHttpResult> Floor(
        Guid id, Body<FloorRequest> body, Sessions sessions, Rooms rooms, SessionRooms room, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (ready, problem) = Read(id, request.Class, sessions, rooms, room, evaluator);
        if (ready is null)
        {
            return problem!;
        }

        return ready.Plan.Blocks.FirstOrDefault(b => b.Id == request.Block) is { Stations.IsEmpty: false } block
            ? TypedResults.Ok(room.FloorOf(block, ready.Room, ready.Chosen))
            : Problems.Bad("/block", "The class has no such block with stations.", "the id of a block with stations");
    }

    private static Results<Ok<SessionRoomView>, ProblemHttpResult> Chosen(Guid id, Sessions sessions, Rooms rooms, SessionRooms room)
    {
        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        var chosen = rooms.Of(id);
        return TypedResults.Ok(new SessionRoomView(room.HallOf(chosen)?.Id, chosen.Spots, [.. chosen.Looked.Order()]));
    }

    private static Results<NoContent, ProblemHttpResult> Choose(Guid id, Body<SessionRoomDetails> body, Sessions sessions, Rooms rooms)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        rooms.Choose(id, details.Hall);
        rooms.Lay(id, details.Spots, [.. details.Looked]);
        return TypedResults.NoContent();
    }
}
