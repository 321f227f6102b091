using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>When and for how many the room is booked.</summary>
/// <param name="StartsAt">Wall-clock start in <paramref name="Zone"/>, such as 2026-11-24T18:00; null: none yet.</param>
/// <param name="Zone">IANA time zone.</param>
/// <param name="Expected">Who is expected; empty: not said.</param>
public sealed record SessionBooking(string? StartsAt, string Zone, int HeadCount, ImmutableArray<PersonId> Expected);

/// <summary>An occasion on which a class is held.</summary>
/// <param name="Revision">Counts the changes of the booking.</param>
/// <param name="ClassVersion">The version that was led or logged; null: the latest will be.</param>
public sealed record StoredSession(Guid Id, Guid ClassId, int Revision, int? ClassVersion, SessionBooking Booking);

/// <summary>A session in a list.</summary>
/// <param name="StartedAt">Milliseconds since 1970 UTC; null: never started.</param>
public sealed record SessionLine(
    Guid Id,
    Guid ClassId,
    string Title,
    string? StartsAt,
    string Zone,
    int HeadCount,
    int? Seconds,
    int? OverSeconds,
    string? CopyOf,
    long? StartedAt,
    bool Logged,
    int Came,
    bool UnderWay);

/// <summary>Occasions: which class, when, for whom.</summary>
public sealed class Sessions(Database database, TimeProvider clock)
{
    /// <summary>A session <c>s</c> is held when it was started or logged.</summary>
    internal const string IsHeld = """
        (EXISTS (SELECT 1 FROM lead l JOIN lead_command k ON k.lead_id = l.id WHERE l.session_id = s.id AND k.kind = 'Start')
         OR EXISTS (SELECT 1 FROM log WHERE log.session_id = s.id))
        """;

    /// <summary>How long a class may take past its plan, in seconds, before one that was never ended is taken to be over. [M]</summary>
    private const int Late = 1800;

    /// <summary>
    /// A session <c>s</c> of the version <c>r</c> is under way: started, neither ended nor logged, and not so long ago that
    /// somebody has only forgotten to end it.
    /// </summary>
    internal static readonly string IsUnderWay = $"""
        (EXISTS (SELECT 1 FROM lead l JOIN lead_command k ON k.lead_id = l.id
                 WHERE l.session_id = s.id AND k.kind = 'Start' AND k.tapped_at + 1000 * (coalesce(r.seconds, 0) + {Late}) > @now)
         AND NOT EXISTS (SELECT 1 FROM lead l JOIN lead_command k ON k.lead_id = l.id WHERE l.session_id = s.id AND k.kind = 'Finish')
         AND NOT EXISTS (SELECT 1 FROM log WHERE log.session_id = s.id))
        """;

    private const string Columns = "s.id, s.class_id, s.revision, s.class_version, s.starts_at, s.zone, s.head_count";

    /// <param name="change">The id that it gets, so that one who is sent twice is added once.</param>
    /// <returns>Null: there is no such class.</returns>
    public Guid? Add(Guid classId, SessionBooking booking, Guid? change = null)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (connection.Scalar("SELECT 1 FROM class WHERE id = @id AND removed_at IS NULL", [("@id", classId)]) is null)
        {
            return null;
        }

        if (change is { } sent
            && connection.Scalar(
                "SELECT 1 FROM session WHERE id = @id AND class_id = @class", [("@id", sent), ("@class", classId)]) is not null)
        {
            return sent;
        }

        var id = Insert(connection, change ?? Guid.CreateVersion7(), classId, booking, clock.GetUtcNow());
        transaction.Commit();
        return id;
    }

    public StoredSession? Find(Guid id)
    {
        using var connection = database.Connect();
        return Find(connection, id);
    }

    /// <summary>Those with a start that were not held yet: what a list of the booking desk can be of.</summary>
    public ImmutableArray<(Guid Id, string Title, string StartsAt, string Zone)> ToCome()
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                $"""
                SELECT s.id, (SELECT r.title FROM revision r WHERE r.class_id = s.class_id ORDER BY r.version DESC LIMIT 1),
                       s.starts_at, s.zone
                FROM session s JOIN class c ON c.id = s.class_id
                WHERE c.removed_at IS NULL AND s.removed_at IS NULL AND s.starts_at IS NOT NULL AND NOT {IsHeld}
                ORDER BY s.starts_at, s.id
                """,
                [],
                r => (Guid.Parse(r.GetString(0)), r.GetString(1), r.GetString(2), r.GetString(3))),
        ];
    }

    /// <summary>Those of classes that stand, from one day to another, by start, with the version that was or will be held.</summary>
    /// <param name="until">Not itself.</param>
    public ImmutableArray<(Guid Session, Guid Class, string Title, string StartsAt, int Version)> Between(string from, string until)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT s.id, s.class_id, r.title, s.starts_at, r.version FROM session s JOIN class c ON c.id = s.class_id
                JOIN revision r ON r.class_id = s.class_id
                  AND r.version = coalesce(s.class_version, (SELECT max(version) FROM revision v WHERE v.class_id = s.class_id))
                WHERE s.removed_at IS NULL AND c.removed_at IS NULL AND s.starts_at >= @from AND s.starts_at < @until
                ORDER BY s.starts_at, s.id
                """,
                [("@from", from), ("@until", until)],
                r => (Guid.Parse(r.GetString(0)), Guid.Parse(r.GetString(1)), r.GetString(2), r.GetString(3), r.GetInt32(4))),
        ];
    }

    /// <summary>Those that were led, the last one first.</summary>
    public ImmutableArray<StoredSession> LedLast(int most)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT s.id FROM session s JOIN lead l ON l.session_id = s.id AND l.superseded_at IS NULL
                JOIN lead_command k ON k.lead_id = l.id AND k.kind = 'Start'
                WHERE s.removed_at IS NULL GROUP BY s.id ORDER BY max(k.tapped_at) DESC LIMIT @most
                """,
                [("@most", most)],
                r => Guid.Parse(r.GetString(0))).Select(id => Find(connection, id)!),
        ];
    }

    /// <summary>The sessions of a class, by start; those without one last.</summary>
    public ImmutableArray<(StoredSession Session, bool Held)> Of(Guid classId)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                $"SELECT {Columns}, {IsHeld} FROM session s WHERE s.class_id = @class AND s.removed_at IS NULL ORDER BY s.starts_at IS "
                + $"NULL, s.starts_at, s.id",
                [("@class", classId)],
                r => (Read(connection, r), r.GetBoolean(7))),
        ];
    }

    /// <summary>A window of the sessions: the one under way and those to come, the next first; or those held, the last first.</summary>
    /// <param name="of">Only those of one class; null: of all.</param>
    public (ImmutableArray<SessionLine> Lines, int All) List(bool held, int skip, int take, Guid? of = null)
    {
        using var connection = database.Connect();
        var which = $"c.removed_at IS NULL AND s.removed_at IS NULL AND (@of IS NULL OR s.class_id = @of) AND "
            + $"{(held ? $"{IsHeld} AND NOT {IsUnderWay}" : $"(NOT {IsHeld} OR {IsUnderWay})")}";
        const string started = "(SELECT min(k.tapped_at) FROM lead l JOIN lead_command k ON k.lead_id = l.id WHERE l.session_id = s.id "
            + "AND k.kind = 'Start')";
        var order = held ? $"coalesce(s.starts_at, datetime({started} / 1000, 'unixepoch')) DESC, s.id DESC"
            : $"{IsUnderWay} DESC, s.starts_at IS NULL, s.starts_at, s.id";
        const string from = """
            FROM session s JOIN class c ON c.id = s.class_id
            JOIN revision r ON r.class_id = s.class_id
             AND r.version = coalesce(s.class_version, (SELECT max(version) FROM revision WHERE class_id = s.class_id))
            """;
        var now = ("@now", (object?)clock.GetUtcNow().ToUnixTimeMilliseconds());
        var one = ("@of", (object?)of);
        var lines = connection.Query(
            $"""
            SELECT s.id, s.class_id, r.title, s.starts_at, s.zone, s.head_count, r.seconds, r.over_seconds,
                   (SELECT o.title FROM revision o WHERE o.class_id = c.copy_of ORDER BY o.version DESC LIMIT 1),
                   {started},
                   EXISTS (SELECT 1 FROM log WHERE log.session_id = s.id),
                   (SELECT count(*) FROM log_row w WHERE w.session_id = s.id AND w.came = 1)
                     + coalesce((SELECT erased FROM log WHERE log.session_id = s.id), 0),
                   {IsUnderWay}
            {from}
            WHERE {which} ORDER BY {order} LIMIT @take OFFSET @skip
            """,
            [("@take", take), ("@skip", skip), now, one],
            r => new SessionLine(
                Guid.Parse(r.GetString(0)),
                Guid.Parse(r.GetString(1)),
                r.GetString(2),
                r.Text(3),
                r.GetString(4),
                r.GetInt32(5),
                r.Whole(6),
                r.Whole(7),
                r.Text(8),
                r.IsDBNull(9) ? null : r.GetInt64(9),
                r.GetBoolean(10),
                r.GetInt32(11),
                r.GetBoolean(12)));
        var all = connection.Scalar($"SELECT count(*) {from} WHERE {which}", [now, one]);
        return ([.. lines], Convert.ToInt32(all, CultureInfo.InvariantCulture));
    }

    /// <summary>Changes the booking if nobody did since.</summary>
    /// <returns>The session as it now stands, and whether it was saved; null if there is none.</returns>
    public (StoredSession Session, bool Saved)? Save(Guid id, Basis basis, SessionBooking booking)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (Find(connection, id) is not { } current)
        {
            return null;
        }

        var document = $"session:{id}";
        if (Documents.Seen(connection, document, basis) is { } before)
        {
            return (current with { Revision = before.Revision }, true);
        }

        if (current.Revision != basis.Revision)
        {
            return (current, false);
        }

        Write(connection, id, booking);
        Documents.Note(database, connection, document, current.Revision + 1, basis);
        transaction.Commit();
        return (current with { Revision = current.Revision + 1, Booking = booking }, true);
    }

    /// <summary>Takes a session out of the lists, or puts it back; what was led and logged stays.</summary>
    public bool SetRemoved(Guid id, bool removed)
    {
        using var connection = database.Connect();
        return connection.Run(
            "UPDATE session SET removed_at = @at WHERE id = @id", [("@id", id), ("@at", removed ? clock.GetUtcNow() : null)]) == 1;
    }

    /// <summary>Fixes the version that was led or logged, once and for good.</summary>
    internal static void Pin(SqliteConnection connection, Guid id, int version) =>
        connection.Run(
            "UPDATE session SET class_version = @version WHERE id = @id AND class_version IS NULL", [("@id", id), ("@version", version)]);

    /// <summary>Changes a booking, whatever it was.</summary>
    internal static void Write(SqliteConnection connection, Guid id, SessionBooking booking)
    {
        connection.Run(
            "UPDATE session SET revision = revision + 1, starts_at = @starts, zone = @zone, head_count = @heads WHERE id = @id",
            [("@id", id), ("@starts", booking.StartsAt), ("@zone", booking.Zone), ("@heads", booking.HeadCount)]);
        connection.Run("DELETE FROM session_person WHERE session_id = @id", [("@id", id)]);
        Expect(connection, id, booking);
    }

    internal static StoredSession? Find(SqliteConnection connection, Guid id) => connection.Query(
        $"SELECT {Columns} FROM session s JOIN class c ON c.id = s.class_id WHERE s.id = @id AND s.removed_at IS NULL AND "
        + $"c.removed_at IS NULL",
        [("@id", id)],
        r => Read(connection, r)).SingleOrDefault();

    internal static Guid Insert(SqliteConnection connection, Guid id, Guid classId, SessionBooking booking, DateTimeOffset now)
    {
        connection.Run(
            "INSERT INTO session (id, class_id, revision, starts_at, zone, head_count, created_at) VALUES (@id, @class, 1, @starts, "
            + "@zone, @heads, @now)",
            [("@id", id), ("@class", classId), ("@starts", booking.StartsAt), ("@zone", booking.Zone), ("@heads", booking.HeadCount),
                ("@now", now)]);
        Expect(connection, id, booking);
        return id;
    }

    /// <summary>Someone erased meanwhile is not expected.</summary>
    private static void Expect(SqliteConnection connection, Guid id, SessionBooking booking)
    {
        foreach (var person in booking.Expected.Distinct())
        {
            connection.Run(
                "INSERT INTO session_person (session_id, person_id) SELECT @id, id FROM person WHERE id = @person",
                [("@id", id), ("@person", person.Value)]);
        }
    }

    private static StoredSession Read(SqliteConnection connection, SqliteDataReader r)
    {
        var id = Guid.Parse(r.GetString(0));
        var expected = connection.Query(
            "SELECT e.person_id FROM session_person e JOIN person p ON p.id = e.person_id WHERE e.session_id = @id ORDER BY p.name "
            + "COLLATE NOCASE, p.id",
            [("@id", id)],
            p => new PersonId(p.GetString(0)));
        return new StoredSession(
            id, Guid.Parse(r.GetString(1)), r.GetInt32(2), r.Whole(3), new SessionBooking(
                r.Text(4), r.GetString(5), r.GetInt32(6), [.. expected]));
    }
}
