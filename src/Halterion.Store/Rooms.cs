using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Halterion.Core;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A room with its floor and its stock.</summary>
/// <param name="Revision">Counts its changes; 0: not kept yet.</param>
public sealed record StoredHall(Guid Id, string Name, HallFloor Floor, ImmutableArray<StockLine> Stock, int Revision = 0);

/// <summary>What was chosen for one session: its room, pins, groups, where stations stand, and which looks before use are done.</summary>
/// <param name="Groups">By block, then by person: the group in which they begin, from 0.</param>
/// <param name="Spots">By station: where its middle was put.</param>
/// <param name="Revision">Counts the changes of room, spots and looks.</param>
public sealed record SessionRoom(
    Guid? Hall,
    ImmutableArray<Pin> Pins,
    ImmutableDictionary<PlaceId, ImmutableDictionary<PersonId, int>> Groups,
    ImmutableDictionary<string, FloorSpot> Spots,
    ImmutableHashSet<string> Looked,
    int Revision);

/// <summary>Rooms, and what sessions do in them.</summary>
public sealed class Rooms(Database database)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    public ImmutableArray<StoredHall> List()
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                $"SELECT id, name, floor, stock, {Documents.Revision("'room:' || id")} FROM room ORDER BY name COLLATE NOCASE, id",
                [],
                r => new StoredHall(
                    Guid.Parse(r.GetString(0)),
                    r.GetString(1),
                    JsonSerializer.Deserialize<HallFloor>(r.GetString(2), Json)!,
                    JsonSerializer.Deserialize<ImmutableArray<StockLine>>(r.GetString(3), Json),
                    r.GetInt32(4))),
        ];
    }

    public Saved Keep(StoredHall hall, Basis basis) => database.Save(
        $"room:{hall.Id}",
        basis,
        c => c.Scalar("SELECT 1 FROM room WHERE id = @id", [("@id", hall.Id)]) is not null,
        c =>
        {
            // A session keeps its room, whatever comes before it in the list from now on.
            c.Run("UPDATE session SET room_id = (SELECT id FROM room ORDER BY name COLLATE NOCASE, id LIMIT 1) WHERE room_id IS NULL", []);
            c.Run(
            """
            INSERT INTO room (id, name, floor, stock) VALUES (@id, @name, @floor, @stock)
            ON CONFLICT (id) DO UPDATE SET name = excluded.name, floor = excluded.floor, stock = excluded.stock
            """,
            [("@id", hall.Id), ("@name", hall.Name), ("@floor", JsonSerializer.Serialize(hall.Floor, Json)),
                ("@stock", JsonSerializer.Serialize(hall.Stock, Json))]);
        });

    public bool Remove(Guid id)
    {
        using var connection = database.Connect();
        Documents.Drop(connection, $"room:{id}");
        return connection.Run("DELETE FROM room WHERE id = @id", [("@id", id)]) == 1;
    }

    public SessionRoom Of(Guid session)
    {
        using var connection = database.Connect();
        var hall = connection.Scalar("SELECT room_id FROM session WHERE id = @id", [("@id", session)]) as string;
        var pins = connection.Query(
            "SELECT person_id, station, option, reason FROM session_pin WHERE session_id = @id ORDER BY person_id, station",
            [("@id", session)],
            r => new Pin(new PersonId(r.GetString(0)), new PlaceId(r.GetString(1)), new PlaceId(r.GetString(2)), r.GetString(3)));
        var groups = connection.Query(
            "SELECT block, person_id, place FROM session_group WHERE session_id = @id",
            [("@id", session)],
            r => (Block: new PlaceId(r.GetString(0)), Person: new PersonId(r.GetString(1)), Place: r.GetInt32(2)));
        var layout = connection.Query(
            "SELECT layout, looked FROM session_layout WHERE session_id = @id",
            [("@id", session)],
            r => (Layout: r.GetString(0), Looked: r.GetString(1))).SingleOrDefault();
        return new SessionRoom(
            hall is null ? null : Guid.Parse(hall),
            [.. pins],
            groups.GroupBy(g => g.Block).ToImmutableDictionary(g => g.Key, g => g.ToImmutableDictionary(p => p.Person, p => p.Place)),
            layout.Layout is null ? ImmutableDictionary<string, FloorSpot>.Empty
                : JsonSerializer.Deserialize<ImmutableDictionary<string, FloorSpot>>(layout.Layout, Json)!,
            layout.Looked is null ? [] : JsonSerializer.Deserialize<ImmutableHashSet<string>>(layout.Looked, Json)!,
            Documents.RevisionOf(connection, ChosenIn(session)));
    }

    /// <summary>Keeps which room a session is held in, where stations stand, and which looks before use are done.</summary>
    public Saved Choose(Guid session, Guid? hall, ImmutableDictionary<string, FloorSpot> spots, ImmutableHashSet<string> looked,
        Basis basis) => database.Save(
        ChosenIn(session),
        basis,
        c => HasSession(c, session),
        c =>
        {
            c.Run(
                "UPDATE session SET room_id = (SELECT id FROM room WHERE id = @hall) WHERE id = @id", [("@id", session), ("@hall", hall)]);
            Lay(c, session, spots, looked);
        });

    /// <summary>Pins an option for somebody at a station; no option: takes the pin away.</summary>
    public void Pin(Guid session, PersonId person, PlaceId station, PlaceId? option, string reason)
    {
        using var connection = database.Connect();
        if (option is not { } chosen)
        {
            connection.Run(
                "DELETE FROM session_pin WHERE session_id = @id AND person_id = @person AND station = @station",
                [("@id", session), ("@person", person.Value), ("@station", station.Value)]);
            return;
        }

        connection.Run(
            """
            INSERT INTO session_pin (session_id, person_id, station, option, reason)
            SELECT @id, id, @station, @option, @reason FROM person WHERE id = @person
            ON CONFLICT (session_id, person_id, station) DO UPDATE SET option = excluded.option, reason = excluded.reason
            """,
            [("@id", session), ("@person", person.Value), ("@station", station.Value), ("@option", chosen.Value), ("@reason", reason)]);
    }

    /// <summary>Keeps the groups of a block.</summary>
    public void Group(Guid session, PlaceId block, IEnumerable<(PersonId Person, int Place)> groups)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        connection.Run("DELETE FROM session_group WHERE session_id = @id AND block = @block", [("@id", session), ("@block", block.Value)]);
        foreach (var (person, place) in groups)
        {
            connection.Run(
                "INSERT INTO session_group (session_id, person_id, block, place) SELECT @id, id, @block, @place FROM person WHERE "
                + "id = @person",
                [("@id", session), ("@person", person.Value), ("@block", block.Value), ("@place", place)]);
        }

        transaction.Commit();
    }

    private static void Lay(
        SqliteConnection connection, Guid session, ImmutableDictionary<string, FloorSpot> spots,
            ImmutableHashSet<string> looked) => connection.Run(
        """
        INSERT INTO session_layout (session_id, layout, looked) VALUES (@id, @layout, @looked)
        ON CONFLICT (session_id) DO UPDATE SET layout = excluded.layout, looked = excluded.looked
        """,
        [("@id", session), ("@layout", JsonSerializer.Serialize(spots, Json)),
            ("@looked", JsonSerializer.Serialize(looked.Order(), Json))]);

    /// <summary>What is left as it is for a session, and why.</summary>
    public ImmutableArray<Waiver> Waivers(Guid session)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                "SELECT code, place, reason FROM session_waiver WHERE session_id = @id ORDER BY code, place",
                [("@id", session)],
                r => new Waiver(r.GetString(0), new PlaceId(r.GetString(1)), r.GetString(2))),
        ];
    }

    /// <summary>Counts the changes of what is left as it is for a session.</summary>
    public int WaiversRevision(Guid session)
    {
        using var connection = database.Connect();
        return Documents.RevisionOf(connection, WaiversOf(session));
    }

    /// <summary>Leaves a finding as it is for a session; no reason: it is looked at again.</summary>
    public Saved Waive(Guid session, string code, PlaceId place, string? reason, Basis basis) => database.Save(
        WaiversOf(session),
        basis,
        c => HasSession(c, session),
        c => c.Run(
            reason is null
                ? "DELETE FROM session_waiver WHERE session_id = @id AND code = @code AND place = @place"
                : """
                  INSERT INTO session_waiver (session_id, code, place, reason) VALUES (@id, @code, @place, @reason)
                  ON CONFLICT (session_id, code, place) DO UPDATE SET reason = excluded.reason
                  """,
            [("@id", session), ("@code", code), ("@place", place.Value), ("@reason", reason)]));

    /// <summary>What was ticked off while the room of a session was set up.</summary>
    public ImmutableHashSet<string> Ticks(Guid session)
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT tick FROM session_tick WHERE session_id = @id", [("@id", session)], r => r.GetString(0))];
    }

    /// <summary>Counts the changes of what was ticked off for a session.</summary>
    public int TicksRevision(Guid session)
    {
        using var connection = database.Connect();
        return Documents.RevisionOf(connection, TicksOf(session));
    }

    public Saved Tick(Guid session, string tick, bool done, Basis basis) => database.Save(
        TicksOf(session),
        basis,
        c => HasSession(c, session),
        c => c.Run(
            done ? "INSERT OR IGNORE INTO session_tick (session_id, tick) VALUES (@id, @tick)"
                : "DELETE FROM session_tick WHERE session_id = @id AND tick = @tick",
            [("@id", session), ("@tick", tick)]));

    /// <summary>Ticks a look before use, which stands with what was chosen for the room.</summary>
    public Saved Look(Guid session, string look, bool done, Basis basis)
    {
        var chosen = Of(session);
        return database.Save(
            TicksOf(session),
            basis,
            c => HasSession(c, session),
            c =>
            {
                Lay(c, session, chosen.Spots, done ? chosen.Looked.Add(look) : chosen.Looked.Remove(look));
                Documents.Bump(c, ChosenIn(session));
            });
    }

    private static string ChosenIn(Guid session) => $"chosen:{session}";

    private static string WaiversOf(Guid session) => $"waivers:{session}";

    private static string TicksOf(Guid session) => $"ticks:{session}";

    private static bool HasSession(SqliteConnection connection, Guid session) =>
        connection.Scalar("SELECT 1 FROM session WHERE id = @id", [("@id", session)]) is not null;

    /// <summary>What the instructor chose for somebody, in plain words, for their own copy.</summary>
    public ImmutableArray<string> PinnedOf(PersonId person)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT (SELECT title FROM revision r WHERE r.class_id = s.class_id ORDER BY version DESC LIMIT 1),
                       coalesce(s.starts_at, ''), p.station, p.option, p.reason
                FROM session_pin p JOIN session s ON s.id = p.session_id WHERE p.person_id = @person ORDER BY s.starts_at
                """,
                [("@person", person.Value)],
                r => $"{r.GetString(0)} {r.GetString(1)}: station {r.GetString(2)}, option {r.GetString(3)}. {r.GetString(4)}".Trim()),
        ];
    }
}
