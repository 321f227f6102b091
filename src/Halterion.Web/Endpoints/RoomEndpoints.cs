using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.Leading.Calling;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The room after a choice, and what that changed for the others.</summary>
public sealed record PinResult(RoomView Room, string Told);

/// <summary>What was chosen for a session, and the rooms there are to choose from.</summary>
/// <param name="Revision">If-Match carries it with the next change.</param>
public sealed record SessionRoomView(Guid? Hall, ImmutableDictionary<string, FloorSpot> Spots, ImmutableArray<string> Looked, int Revision);

/// <summary>Rooms, stock, and what a session does in them.</summary>
internal static class RoomEndpoints
{
    public static void MapRooms(this IEndpointRouteBuilder routes)
    {
        var rooms = routes.MapGroup("/api/rooms").WithTags("Rooms");
        rooms.MapGet("/", (Rooms store) => TypedResults.Ok(store.List())).WithName("rooms");
        rooms.MapPost("/", Add).Takes<HallDetails>().WithName("addRoom");
        rooms.MapPut("/{id:guid}", Keep).Takes<HallDetails>().Revised().WithName("keepRoom");
        rooms.MapDelete("/{id:guid}", Remove).ProducesProblem(404).WithName("removeRoom");

        var session = routes.MapGroup("/api/sessions/{id:guid}").WithTags("Rooms");
        session.MapPost("/room", See).Takes<ClassRequest>().ProducesProblem(404).WithName("seeRoom");
        session.MapPost("/pins", Pin).Takes<PinRequest>().ProducesProblem(404).WithName("pin");
        session.MapPost("/ways-out", WaysOutOf).Takes<WaysOutRequest>().ProducesProblem(404).WithName("waysOut");
        session.MapPost("/groups", Group).Takes<GroupsRequest>().ProducesProblem(404).WithName("group");
        session.MapPost("/floor", Floor).Takes<FloorRequest>().ProducesProblem(404).WithName("floor");
        session.MapGet("/chosen", Chosen).ProducesProblem(404).WithName("sessionRoom");
        session.MapPut("/chosen", Choose).Takes<SessionRoomDetails>().Revised().WithName("chooseSessionRoom");
    }

    private static Results<Ok<StoredHall>, ProblemHttpResult> Add(Body<HallDetails> body, Rooms store, HttpRequest http)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        var id = http.Change() ?? Guid.CreateVersion7();
        store.Keep(new StoredHall(id, details.Name, details.Floor, details.Stock), new Basis(0, id));
        return TypedResults.Ok(store.List().First(h => h.Id == id));
    }

    private static Results<Ok<Kept>, ProblemHttpResult> Keep(Guid id, Body<HallDetails> body, Rooms store, HttpContext http)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        var mine = new StoredHall(id, details.Name, details.Floor, details.Stock);
        return Saving.Answer(http, "room", basis => store.Keep(mine, basis), () =>
        {
            var theirs = store.List().First(h => h.Id == id);
            return (theirs,
                Difference.Between(
                    HallWords.Lines(mine.Name, mine.Floor, mine.Stock), HallWords.Lines(theirs.Name, theirs.Floor, theirs.Stock)));
        });
    }

    private static Results<NoContent, ProblemHttpResult> Remove(Guid id, Rooms store) =>
        store.Remove(id) ? TypedResults.NoContent() : Problems.NotFound("room");

    private static Results<Ok<RoomView>, ProblemHttpResult> See(Guid id, Body<ClassRequest> body, SessionRooms rooms) =>
        rooms.Read(id, body, r => r.Class) is var (ready, _, problem) && ready is not null ? TypedResults.Ok(rooms.View(ready)) : problem!;

    /// <summary>Pins an option, or gives the choice back, and says whom that touches.</summary>
    private static Results<Ok<PinResult>, ProblemHttpResult> Pin(Guid id, Body<PinRequest> body, SessionRooms rooms, Rooms store)
    {
        var (ready, request, problem) = rooms.Read(id, body, r => r.Class);
        if (ready is null || request is null)
        {
            return problem!;
        }

        var before = rooms.View(ready);
        if (WhyNot(request, before) is { } fault)
        {
            return fault;
        }

        store.Pin(id, request.Person, request.Station, request.Option, request.Reason?.Trim() ?? "");
        var after = rooms.View(rooms.Again(ready));
        return TypedResults.Ok(new PinResult(after, RoomView.Told(before, after, request.Person, request.Station)));
    }

    /// <summary>What is wrong with a choice: who, where, what, or that it goes against a limit without a reason.</summary>
    private static ProblemHttpResult? WhyNot(PinRequest request, RoomView room)
    {
        if (room.People.FirstOrDefault(p => p.Id == request.Person) is not { } person)
        {
            return Problems.Bad("/person", "This person is not expected.", "somebody who is expected");
        }

        if (person.Cells.FirstOrDefault(c => c.Station == request.Station) is not { } cell)
        {
            return Problems.Bad("/station", "The class has no such station.", "the id of one of its stations");
        }

        if (request.Option is not { } option)
        {
            return null;
        }

        return cell.Choices.FirstOrDefault(c => c.Option == option) is not { } choice
            ? Problems.Bad("/option", "The station has no such option.", "the id of one of its options")
            : !choice.Allowed && string.IsNullOrWhiteSpace(request.Reason)
                ? Problems.Bad("/reason", $"This goes against a care note ({choice.Why}). Say why it is right today.", "a reason")
                : null;
    }

    private static Results<Ok<ImmutableArray<WayOut>>, ProblemHttpResult> WaysOutOf(
        Guid id, Body<WaysOutRequest> body, SessionRooms rooms, Evaluator evaluator)
    {
        var (ready, request, problem) = rooms.Read(id, body, r => r.Class);
        if (ready is null || request is null)
        {
            return problem!;
        }

        var shortages = Assigning.Of(ready.Room).Shortages;
        return TypedResults.Ok(request.Shortage >= shortages.Length ? []
            : WaysOut.Of(shortages[request.Shortage], ready.Room, evaluator,
                (JsonObject)JsonNode.Parse(PlanIds.Written(request.Class).GetRawText())!));
    }

    /// <summary>Keeps groups as they were chosen, or makes them anew.</summary>
    private static Results<Ok<RoomView>, ProblemHttpResult> Group(Guid id, Body<GroupsRequest> body, SessionRooms rooms, Rooms store)
    {
        var (ready, request, problem) = rooms.Read(id, body, r => r.Class);
        if (ready is null || request is null)
        {
            return problem!;
        }

        if (ready.Plan.Blocks.FirstOrDefault(b => b.Id == request.Block) is not { Shape: BlockShape.Rotation } block)
        {
            return Problems.Bad("/block", "This class has no such rotation.", "the id of a block in which groups rotate");
        }

        if (request.Groups is { } groups && groups.Length != block.Stations.Length)
        {
            return Problems.Bad("/groups", $"There are {groups.Length} groups.", $"as many as stations: {block.Stations.Length}");
        }

        var chosen = request.Groups ?? rooms.Even(ready.Plan, ready.Room.People, ready.Session, ready.Chosen)[block.Id];
        store.Group(id, block.Id, chosen.SelectMany((g, i) => g.Select(p => (p, i))).DistinctBy(p => p.p));
        return TypedResults.Ok(rooms.View(rooms.Again(ready)));
    }

    private static Results<Ok<FloorView>, ProblemHttpResult> Floor(Guid id, Body<FloorRequest> body, SessionRooms rooms)
    {
        var (ready, request, problem) = rooms.Read(id, body, r => r.Class);
        return ready is null || request is null ? problem!
            : ready.Plan.Blocks.FirstOrDefault(b => b.Id == request.Block) is { Stations.IsEmpty: false } block
                ? TypedResults.Ok(rooms.FloorOf(block, ready.Room, ready.Chosen))
                : Problems.Bad("/block", "The class has no such block with stations.", "the id of a block with stations");
    }

    private static Results<Ok<SessionRoomView>, ProblemHttpResult> Chosen(
        Guid id, Sessions sessions, Rooms rooms, SessionRooms room, HttpContext http)
    {
        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        var view = ChosenNow(id, rooms, room);
        http.Tagged(view.Revision);
        return TypedResults.Ok(view);
    }

    private static SessionRoomView ChosenNow(Guid id, Rooms rooms, SessionRooms room)
    {
        var chosen = rooms.Of(id);
        return new SessionRoomView(room.HallOf(chosen)?.Id, chosen.Spots, [.. chosen.Looked.Order()], chosen.Revision);
    }

    private static Results<Ok<Kept>, ProblemHttpResult> Choose(
        Guid id, Body<SessionRoomDetails> body, Sessions sessions, Rooms rooms, SessionRooms room, HttpContext http)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        return Saving.Answer(
            http, "choice for the room", basis => rooms.Choose(id, details.Hall, details.Spots, [.. details.Looked], basis), () =>
        {
            var (theirs, halls) = (ChosenNow(id, rooms, room), rooms.List());
            string NameOf(Guid? hall) => halls.FirstOrDefault(h => h.Id == hall)?.Name ?? "the first one";
            return (theirs, Difference.Between(
                [$"Room: {NameOf(details.Hall)}", $"Stations moved by hand: {details.Spots.Count}", $"Looks done: {details.Looked.Length}"],
                [$"Room: {NameOf(theirs.Hall)}", $"Stations moved by hand: {theirs.Spots.Count}", $"Looks done: {theirs.Looked.Length}"]));
        });
    }
}
