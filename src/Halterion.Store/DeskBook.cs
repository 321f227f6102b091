using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core;
using Halterion.Core.People;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>What the desk said last of a class, and which session that is.</summary>
/// <param name="Session">Null: no session of that time is planned, or several are.</param>
/// <param name="Who">By the key of a guest: who that is, of the roster.</param>
public sealed record HeardEvent(DeskEvent Event, Guid? Session, ImmutableDictionary<string, PersonId> Who)
{
    internal DeskSaid Said => DeskSaid.Of(Event, g => Who.TryGetValue(g.Key, out var who) ? who : null);
}

/// <summary>The lists of the booking desk, and what follows from them: who is expected.</summary>
public sealed class DeskBook(Database database, People people, TimeProvider clock)
{
    /// <summary>So long after a class its list is kept: until it is logged.</summary>
    private static readonly TimeSpan Kept = TimeSpan.FromDays(7);

    public ImmutableArray<HeardEvent> List()
    {
        using var connection = database.Connect();
        return [.. Events(connection, null)];
    }

    /// <summary>Who a guest is, as it was answered; null: nobody of the roster.</summary>
    public ImmutableDictionary<string, PersonId?> Answers()
    {
        using var connection = database.Connect();
        return Answers(connection);
    }

    /// <summary>Who is who, by the roster and the answers as they are now.</summary>
    public DeskNames Names() => new(people.List(), Answers());

    /// <summary>Takes in what the desk says of a class; those expected on its session follow, unless that was held already.</summary>
    /// <param name="session">Which session it is, where that is not known yet.</param>
    /// <returns>False: what is known is newer.</returns>
    public bool Keep(DeskEvent now, Guid? session)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var before = Events(connection, now.Uid).SingleOrDefault();
        if (before is not null && before.Event.Sequence > now.Sequence)
        {
            return false;
        }

        Write(connection, before, now, before?.Session ?? session);
        transaction.Commit();
        return true;
    }

    /// <summary>Says who a guest is, for this class and all others; null: nobody of the roster.</summary>
    /// <returns>False: there is no such guest.</returns>
    public bool Answer(string guest, PersonId? person)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var of = Events(connection, null).Where(e => e.Event.Guests.Any(g => g.Key == guest)).ToArray();
        if (of.Length == 0)
        {
            return false;
        }

        connection.Run(
            "INSERT INTO desk_answer (guest, person_id) VALUES (@guest, @person) ON CONFLICT (guest) DO UPDATE SET person_id = "
            + "excluded.person_id",
            [("@guest", guest), ("@person", person?.Value)]);
        foreach (var heard in of)
        {
            Write(connection, heard, heard.Event, heard.Session);
        }

        transaction.Commit();
        return true;
    }

    /// <summary>Says which session a class of the desk is; null: none of them.</summary>
    /// <returns>False: the desk said nothing of such a class.</returns>
    public bool Link(string uid, Guid? session)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (Events(connection, uid).SingleOrDefault() is not { } heard)
        {
            return false;
        }

        if (heard.Session is { } old && old != session)
        {
            Follow(connection, old, heard.Said, DeskSaid.Nothing);
        }

        Write(connection, heard.Session == session ? heard : null, heard.Event, session);
        transaction.Commit();
        return true;
    }

    /// <summary>Where somebody stands on the desk's lists.</summary>
    public ImmutableArray<(string Title, DateTimeOffset Starts, DeskStanding Standing)> Of(PersonId person)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                "SELECT e.title, e.starts_at, g.standing FROM desk_guest g JOIN desk_event e ON e.uid = g.uid WHERE g.person_id = @id "
                + "ORDER BY e.starts_at, e.uid",
                [("@id", person.Value)],
                r => (r.GetString(0), Moment(r.GetString(1)), Enum.Parse<DeskStanding>(r.GetString(2)))),
        ];
    }

    /// <summary>Lets go of the lists of classes that are long over.</summary>
    public void Forget()
    {
        using var connection = database.Connect();
        connection.Run("DELETE FROM desk_event WHERE starts_at < @old", [("@old", clock.GetUtcNow() - Kept)]);
    }

    private void Write(SqliteConnection connection, HeardEvent? before, DeskEvent now, Guid? session)
    {
        connection.Run("DELETE FROM desk_event WHERE uid = @uid", [("@uid", now.Uid)]);
        connection.Run(
            "INSERT INTO desk_event (uid, session_id, sequence, title, starts_at, cancelled, heard_at) VALUES (@uid, @session, "
            + "@sequence, @title, @starts, @cancelled, @now)",
            [("@uid", now.Uid), ("@session", session), ("@sequence", now.Sequence), ("@title", now.Title), ("@starts", now.Starts),
                ("@cancelled", now.Cancelled), ("@now", clock.GetUtcNow())]);
        var names = new DeskNames(people.List(), Answers(connection));
        foreach (var guest in now.Guests)
        {
            connection.Run(
                "INSERT INTO desk_guest (uid, guest, name, standing, person_id) VALUES (@uid, @guest, @name, @standing, @person)",
                [("@uid", now.Uid), ("@guest", guest.Key), ("@name", guest.Name), ("@standing", guest.Standing.ToString()),
                    ("@person", names.Of(guest)?.Value)]);
        }

        if (session is { } of)
        {
            Follow(connection, of, before?.Said, names.Said(now));
        }
    }

    /// <summary>A class that was held is history: the desk changes nothing in it.</summary>
    private static void Follow(SqliteConnection connection, Guid session, DeskSaid? before, DeskSaid now)
    {
        if (Sessions.Find(connection, session) is not { } stored
            || connection.Scalar($"SELECT {Sessions.IsHeld} FROM session s WHERE s.id = @id", [("@id", session)]) is 1L)
        {
            return;
        }

        var was = stored.Booking;
        var next = new Expectations(was.Expected, was.HeadCount).Follow(before, now);
        if (next.HeadCount != was.HeadCount || !next.People.SequenceEqual(was.Expected))
        {
            Sessions.Write(connection, session, was with { HeadCount = next.HeadCount, Expected = next.People });
        }
    }

    private static IEnumerable<HeardEvent> Events(SqliteConnection connection, string? uid)
    {
        var guests = connection.Query(
            "SELECT uid, guest, name, standing, person_id FROM desk_guest WHERE @uid IS NULL OR uid = @uid ORDER BY uid, rowid",
            [("@uid", uid)],
            r => (Uid: r.GetString(0), Guest: new DeskGuest(r.GetString(1), r.GetString(2), Enum.Parse<DeskStanding>(r.GetString(3))),
                Person: r.Text(4))).ToLookup(g => g.Uid);
        return connection.Query(
            "SELECT uid, session_id, sequence, title, starts_at, cancelled FROM desk_event WHERE @uid IS NULL OR uid = @uid ORDER BY "
            + "starts_at, uid",
            [("@uid", uid)],
            r => new HeardEvent(
                new DeskEvent(r.GetString(0), r.GetInt32(2), r.GetString(3), Moment(r.GetString(4)), r.GetBoolean(5),
                    [.. guests[r.GetString(0)].Select(g => g.Guest)]),
                r.Text(1) is { } session ? Guid.Parse(session) : null,
                guests[r.GetString(0)]
                    .Where(g => g.Person is not null)
                    .ToImmutableDictionary(g => g.Guest.Key, g => new PersonId(g.Person!))));
    }

    private static ImmutableDictionary<string, PersonId?> Answers(SqliteConnection connection) => connection.Query(
        "SELECT guest, person_id FROM desk_answer",
        [],
        r => KeyValuePair.Create(r.GetString(0), r.Text(1) is { } person ? new PersonId(person) : (PersonId?)null)).ToImmutableDictionary();

    private static DateTimeOffset Moment(string iso) => DateTimeOffset.Parse(iso, CultureInfo.InvariantCulture);
}
