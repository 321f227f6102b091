using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>What one session says of one person, for their own copy.</summary>
public sealed record LoggedOf(
    string Title, string? StartsAt, bool Came, string Note, ImmutableArray<StationUse> Uses, Guid ClassId, int? ClassVersion);

/// <summary>What was logged of each session.</summary>
public sealed class Logs(Database database, TimeProvider clock)
{
    public (int Version, ClassLog Log)? Find(Guid session)
    {
        using var connection = database.Connect();
        var head = connection.Query(
            "SELECT version, note FROM log WHERE session_id = @session",
            [("@session", session)],
            r => (Version: r.GetInt32(0), Note: r.GetString(1)));
        if (head.Count == 0)
        {
            return null;
        }

        var uses = connection.Query(
            "SELECT person_id, station, option FROM log_use WHERE session_id = @session ORDER BY rowid",
            [("@session", session)],
            r => (Person: new PersonId(r.GetString(0)), Use: UseOf(r, 1)))
            .ToLookup(u => u.Person, u => u.Use);
        var rows = connection.Query(
            "SELECT w.person_id, w.came, w.note FROM log_row w JOIN person p ON p.id = w.person_id WHERE w.session_id = @session ORDER "
            + "BY p.name COLLATE NOCASE, p.id",
            [("@session", session)],
            r => new LogRow(new PersonId(r.GetString(0)), r.GetBoolean(1), [.. uses[new PersonId(r.GetString(0))]], r.GetString(2)));
        return (head[0].Version, new ClassLog([.. rows], head[0].Note));
    }

    /// <summary>Saves a whole log if nobody saved it since, and fixes the version of the class that it speaks of.</summary>
    /// <param name="basis">0: there was none.</param>
    /// <param name="classVersion">The version whose stations and options the rows name.</param>
    public Saved Save(Guid session, Basis basis, int classVersion, ClassLog log)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var current = connection.Scalar("SELECT version FROM log WHERE session_id = @session", [("@session", session)]) is long version
            ? (int)version
            : 0;
        var document = $"log:{session}";
        if (Documents.Seen(connection, document, basis) is { } before)
        {
            return before;
        }

        if (current != basis.Revision)
        {
            return new Saved(current, false);
        }

        connection.Run("DELETE FROM log_row WHERE session_id = @session", [("@session", session)]);
        connection.Run(
            """
            INSERT INTO log (session_id, version, saved_at, note) VALUES (@session, @version, @now, @note)
            ON CONFLICT (session_id) DO UPDATE SET version = excluded.version, saved_at = excluded.saved_at, note = excluded.note
            """,
            [("@session", session), ("@version", current + 1), ("@now", clock.GetUtcNow()), ("@note", log.Note)]);
        foreach (var row in log.Rows)
        {
            AddRow(connection, session, row);
        }

        Sessions.Pin(connection, session, classVersion);
        Documents.Note(database, connection, document, current + 1, basis);
        transaction.Commit();
        return new Saved(current + 1, true);
    }

    /// <summary>Who came to the session that was logged last, other than this one.</summary>
    public ImmutableHashSet<PersonId> LastCame(Guid besides)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT person_id FROM log_row
                WHERE came = 1 AND session_id = (SELECT session_id FROM log WHERE session_id <> @session ORDER BY saved_at DESC LIMIT 1)
                """,
                [("@session", besides)],
                r => new PersonId(r.GetString(0))),
        ];
    }

    /// <summary>The classes that were logged on a day, by their start, with the version that was held.</summary>
    public ImmutableArray<(string StartsAt, Guid Class, int? Version)> Held(Guid besides)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT s.starts_at, s.class_id, s.class_version FROM session s JOIN log l ON l.session_id = s.id
                WHERE s.starts_at IS NOT NULL AND s.removed_at IS NULL AND s.id <> @session ORDER BY s.starts_at DESC LIMIT 100
                """,
                [("@session", besides)],
                r => (r.GetString(0), Guid.Parse(r.GetString(1)), r.Whole(2))),
        ];
    }

    /// <summary>When classes begin that have a date, other than this one.</summary>
    public ImmutableArray<string> Planned(Guid besides)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT s.starts_at FROM session s JOIN class c ON c.id = s.class_id
                WHERE s.starts_at IS NOT NULL AND s.removed_at IS NULL AND c.removed_at IS NULL AND s.id <> @session
                """,
                [("@session", besides)],
                r => r.GetString(0)),
        ];
    }

    /// <summary>Everyone who has come to a class that was logged.</summary>
    public ImmutableHashSet<PersonId> Known()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT DISTINCT person_id FROM log_row WHERE came = 1", [], r => new PersonId(r.GetString(0)))];
    }

    /// <summary>All that was logged of one person, by session, for their own copy.</summary>
    public ImmutableArray<LoggedOf> Of(PersonId person)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT r.title, s.starts_at, w.came, w.note, s.id, s.class_id, s.class_version
                FROM log_row w JOIN session s ON s.id = w.session_id
                JOIN revision r ON r.class_id = s.class_id
                  AND r.version = coalesce(s.class_version, (SELECT max(version) FROM revision WHERE class_id = s.class_id))
                WHERE w.person_id = @person ORDER BY s.starts_at
                """,
                [("@person", person.Value)],
                r => new LoggedOf(
                    r.GetString(0), r.Text(1), r.GetBoolean(2), r.GetString(3),
                    [.. connection.Query(
                        "SELECT station, option FROM log_use WHERE session_id = @session AND person_id = @person ORDER BY rowid",
                        [("@session", r.GetString(4)), ("@person", person.Value)],
                        u => UseOf(u, 0))],
                    Guid.Parse(r.GetString(5)), r.Whole(6))),
        ];
    }

    /// <summary>The sessions in which a person is expected, by start.</summary>
    public ImmutableArray<(string Title, string? StartsAt)> Expecting(PersonId person)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT (SELECT title FROM revision r WHERE r.class_id = s.class_id ORDER BY version DESC LIMIT 1), s.starts_at
                FROM session_person e JOIN session s ON s.id = e.session_id WHERE e.person_id = @person ORDER BY s.starts_at
                """,
                [("@person", person.Value)],
                r => (r.GetString(0), r.Text(1))),
        ];
    }

    private static StationUse UseOf(SqliteDataReader r, int at) =>
        new(new PlaceId(r.GetString(at)), r.Text(at + 1) is { } option ? new PlaceId(option) : null);

    private static void AddRow(SqliteConnection connection, Guid session, LogRow row)
    {
        connection.Run(
            "INSERT INTO log_row (session_id, person_id, came, note) VALUES (@session, @person, @came, @note)",
            [("@session", session), ("@person", row.PersonId.Value), ("@came", row.Came), ("@note", row.Note)]);
        foreach (var use in row.Uses)
        {
            connection.Run(
                "INSERT INTO log_use (session_id, person_id, station, option) VALUES (@session, @person, @station, @option)",
                [("@session", session), ("@person", row.PersonId.Value), ("@station", use.Station.Value), ("@option", use.Option?.Value)]);
        }
    }
}
