using System.Collections.Immutable;
using Halterion.Core.Logbook;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>What was logged of each class.</summary>
public sealed class Logs(Database database, TimeProvider clock)
{
    public (int Version, ClassLog Log)? Find(Guid classId)
    {
        using var connection = database.Connect();
        var head = connection.Query("SELECT version, note FROM log WHERE class_id = @class", [("@class", classId)], r => (Version: r.GetInt32(0), Note: r.GetString(1)));
        if (head.Count == 0)
        {
            return null;
        }

        var uses = connection.Query(
            "SELECT person_id, block, station, option FROM log_use WHERE class_id = @class ORDER BY block, station",
            [("@class", classId)],
            r => (Person: Guid.Parse(r.GetString(0)), Use: new StationUse(r.GetInt32(1), r.GetInt32(2), r.IsDBNull(3) ? null : r.GetInt32(3))))
            .ToLookup(u => u.Person, u => u.Use);
        var rows = connection.Query(
            "SELECT w.person_id, w.came, w.note FROM log_row w JOIN person p ON p.id = w.person_id WHERE w.class_id = @class ORDER BY p.name COLLATE NOCASE, p.id",
            [("@class", classId)],
            r => new LogRow(Guid.Parse(r.GetString(0)), r.GetBoolean(1), [.. uses[Guid.Parse(r.GetString(0))]], r.GetString(2)));
        return (head[0].Version, new ClassLog([.. rows], head[0].Note));
    }

    /// <summary>Saves a whole log if nobody saved it since. Version 0: there was none.</summary>
    public (int Version, bool Saved) Save(Guid classId, int expected, ClassLog log)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var current = connection.Scalar("SELECT version FROM log WHERE class_id = @class", [("@class", classId)]) is long version ? (int)version : 0;
        if (current != expected)
        {
            return (current, false);
        }

        connection.Run("DELETE FROM log_row WHERE class_id = @class", [("@class", classId)]);
        connection.Run(
            """
            INSERT INTO log (class_id, version, saved_at, note) VALUES (@class, @version, @now, @note)
            ON CONFLICT (class_id) DO UPDATE SET version = excluded.version, saved_at = excluded.saved_at, note = excluded.note
            """,
            [("@class", classId), ("@version", current + 1), ("@now", clock.GetUtcNow()), ("@note", log.Note)]);
        foreach (var row in log.Rows)
        {
            AddRow(connection, classId, row);
        }

        transaction.Commit();
        return (current + 1, true);
    }

    /// <summary>Who came to the class that was logged last, other than this one.</summary>
    public ImmutableHashSet<Guid> LastCame(Guid besides)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT person_id FROM log_row
                WHERE came = 1 AND class_id = (SELECT class_id FROM log WHERE class_id <> @class ORDER BY saved_at DESC LIMIT 1)
                """,
                [("@class", besides)],
                r => Guid.Parse(r.GetString(0))),
        ];
    }

    /// <summary>All that was logged of one person, by class, for their own copy.</summary>
    public ImmutableArray<(string Title, string? StartsAt, bool Came, string Note)> Of(Guid person)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT r.title, r.starts_at, w.came, w.note
                FROM log_row w JOIN revision r ON r.class_id = w.class_id
                WHERE w.person_id = @person AND r.version = (SELECT max(version) FROM revision WHERE class_id = w.class_id)
                ORDER BY r.starts_at
                """,
                [("@person", person)],
                r => (r.GetString(0), r.Text(1), r.GetBoolean(2), r.GetString(3))),
        ];
    }

    private static void AddRow(SqliteConnection connection, Guid classId, LogRow row)
    {
        connection.Run(
            "INSERT INTO log_row (class_id, person_id, came, note) VALUES (@class, @person, @came, @note)",
            [("@class", classId), ("@person", row.PersonId), ("@came", row.Came), ("@note", row.Note)]);
        foreach (var use in row.Uses)
        {
            connection.Run(
                "INSERT INTO log_use (class_id, person_id, block, station, option) VALUES (@class, @person, @block, @station, @option)",
                [("@class", classId), ("@person", row.PersonId), ("@block", use.Block), ("@station", use.Station), ("@option", use.Option)]);
        }
    }
}
