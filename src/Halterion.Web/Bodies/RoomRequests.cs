using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Room;

namespace Halterion.Web.Bodies;

/// <summary>A class as it is on the screen, to be seen in the room of a session.</summary>
public sealed record ClassRequest(JsonElement Class) : IRead<ClassRequest>
{
    public static ClassRequest? Read(Fields body, Faults faults) => body.Json("class", faults) is { } file ? new ClassRequest(file) : null;
}

/// <summary>The instructor's own choice for somebody at a station.</summary>
/// <param name="Option">Left out: the choice is given back.</param>
/// <param name="Reason">Needed where the choice goes against a limit.</param>
public sealed record PinRequest(
    JsonElement Class, PersonId Person, PlaceId Station, PlaceId? Option = null, string? Reason = null) : IRead<PinRequest>
{
    public static PinRequest? Read(Fields body, Faults faults)
    {
        var file = body.Json("class", faults);
        var person = body.Text("person", 1, 64, required: true);
        var station = body.Text("station", 1, 40, required: true);
        var option = body.Text("option", 1, 40);
        var reason = body.Text("reason", 0, 400);
        return file is { } of && person is not null && station is not null
            ? new PinRequest(of, new PersonId(person), new PlaceId(station), option is null ? null : new PlaceId(option), reason)
            : null;
    }
}

/// <summary>Asks for ways out of a shortage, by its place in the list of the room.</summary>
public sealed record WaysOutRequest(JsonElement Class, int Shortage) : IRead<WaysOutRequest>
{
    public static WaysOutRequest? Read(Fields body, Faults faults)
    {
        var file = body.Json("class", faults);
        var at = body.Whole("shortage", 0, 10_000, required: true);
        return file is { } of && at is { } index ? new WaysOutRequest(of, index) : null;
    }
}

/// <summary>Groups of a rotation, chosen by hand; without any: made anew from what is known, so that most keep theirs.</summary>
/// <param name="Groups">Ids of people, a list a group.</param>
public sealed record GroupsRequest(
    JsonElement Class, PlaceId Block, ImmutableArray<ImmutableArray<PersonId>>? Groups = null) : IRead<GroupsRequest>
{
    public static GroupsRequest? Read(Fields body, Faults faults)
    {
        var file = body.Json("class", faults);
        var block = body.Text("block", 1, 40, required: true);
        ImmutableArray<ImmutableArray<PersonId>>? groups = null;
        if (body.Has("groups"))
        {
            var lists = body.Items("groups", 0, 16, "groups");
            groups =
            [
                .. lists.Select((list, i) =>
                {
                    if (list.ValueKind == JsonValueKind.Array && list.EnumerateArray()
                        .All(id => id.ValueKind == JsonValueKind.String && JsonText.Of(id) is not null))
                    {
                        return list.EnumerateArray().Select(id => new PersonId(id.GetString()!)).ToImmutableArray();
                    }

                    faults.Add(body.PointerTo("groups", i), $"This is {Fields.Kind(list)}.", "a list of ids of people");
                    return [];
                }),
            ];
        }

        return file is { } of && block is not null ? new GroupsRequest(of, new PlaceId(block), groups) : null;
    }
}

/// <summary>A block of a class as it is on the screen, to be laid out.</summary>
public sealed record FloorRequest(JsonElement Class, PlaceId Block) : IRead<FloorRequest>
{
    public static FloorRequest? Read(Fields body, Faults faults)
    {
        var file = body.Json("class", faults);
        var block = body.Text("block", 1, 40, required: true);
        return file is { } of && block is not null ? new FloorRequest(of, new PlaceId(block)) : null;
    }
}

/// <summary>What is chosen for a session: where stations were put by hand, the looks that are done, and the room.</summary>
/// <param name="Hall">Left out: the only or first one.</param>
public sealed record SessionRoomDetails(ImmutableDictionary<string, FloorSpot> Spots, ImmutableArray<string> Looked, Guid? Hall = null)
    : IRead<SessionRoomDetails>
{
    public static SessionRoomDetails? Read(Fields body, Faults faults)
    {
        body.Take("revision");
        var hall = body.Id("hall");
        var looked = body.Items("looked", 0, 100, "keys");
        for (var i = 0; i < looked.Length; i++)
        {
            if (looked[i].ValueKind != JsonValueKind.String || JsonText.Of(looked[i]) is not { Length: <= 80 })
            {
                faults.Add(body.PointerTo("looked", i), $"This is {Fields.Kind(looked[i])}.", "the key of a look");
            }
        }

        var spots = ImmutableDictionary.CreateBuilder<string, FloorSpot>();
        if (body.Object("spots") is { } map)
        {
            foreach (var station in map.Names.Take(500).ToArray())
            {
                var spot = new Fields(map.Take(station)!.Value, map.PointerTo(station), faults);
                var x = spot.Decimal("x", 0, 100) ?? spot.Missing<decimal>("x", "metres from the left");
                var y = spot.Decimal("y", 0, 100) ?? spot.Missing<decimal>("y", "metres from the front");
                var turned = spot.Flag("turned") ?? false;
                spot.Close("a place on the floor");
                if (x is { } left && y is { } front)
                {
                    spots[station] = new FloorSpot(left, front, turned);
                }
            }

            map.Close("the places on the floor");
        }

        return faults.None ? new SessionRoomDetails(spots.ToImmutable(), [.. looked.Select(l => l.GetString()!).Distinct()], hall) : null;
    }
}

/// <summary>A room with its floor and stock.</summary>
public sealed record HallDetails(string Name, HallFloor Floor, ImmutableArray<StockLine> Stock) : IRead<HallDetails>
{
    public static HallDetails? Read(Fields body, Faults faults)
    {
        body.Take("id");
        var name = body.Text("name", 1, 120, required: true);
        HallFloor? floor = null;
        if (body.Object("floor", required: true) is { } fields)
        {
            floor = HallFloor.Read(fields);
            fields.Close("a floor");
        }

        var stock = body.List("stock", 0, KitReader.MostLines, "a line of the stock", KitReader.Line, required: true);
        return name is not null && floor is not null ? new HallDetails(name.Trim(), floor, stock) : null;
    }
}

/// <summary>A finding of a session that is left as it is; without a reason it is looked at again.</summary>
public sealed record SessionWaiver(string Code, PlaceId Place, string? Reason = null) : IRead<SessionWaiver>
{
    public static SessionWaiver? Read(Fields body, Faults faults)
    {
        var code = body.Text("code", 1, 120, required: true);
        var place = body.Text("place", 1, 40, required: true);
        var reason = body.Text("reason", 1, 400);
        return code is null || place is null ? null : new SessionWaiver(code, new PlaceId(place), reason);
    }
}

/// <summary>Something ticked off while a room is set up, or not any more.</summary>
public sealed record SessionTick(string Key, bool Done) : IRead<SessionTick>
{
    public static SessionTick? Read(Fields body, Faults faults)
    {
        var key = body.Text("key", 1, 400, required: true);
        var done = body.Flag("done");
        return key is null ? null : new SessionTick(key, done ?? true);
    }
}
