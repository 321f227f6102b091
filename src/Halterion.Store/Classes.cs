using System.Collections.Immutable;
using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A class as it is kept: the class file to the byte, and its booking.</summary>
/// <param name="Title">As in the file, for lists.</param>
/// <param name="StartsAt">Booked start in the wall-clock time of <paramref name="Zone"/>, such as 2026-11-24T18:00; null: none yet.</param>
/// <param name="Zone">IANA time zone.</param>
public sealed record ClassRevision(string Plan, string Title, string? StartsAt, string Zone, int HeadCount);

public sealed record StoredClass(Guid Id, int Version, DateTimeOffset SavedAt, ClassRevision Revision);

/// <summary>A line of the list of classes.</summary>
public sealed record ClassLine(StoredClass Class, bool Led, bool Logged, int Came);

/// <summary>Classes and their append-only revisions.</summary>
public sealed class Classes(Database database, TimeProvider clock)
{
    private const string Latest = """
        SELECT c.id, r.version, r.saved_at, r.plan, r.title, r.starts_at, r.zone, r.head_count
        FROM class c JOIN revision r ON r.class_id = c.id
        WHERE c.removed_at IS NULL
          AND r.version = (SELECT max(version) FROM revision WHERE class_id = c.id)
        """;

    public Guid Add(ClassRevision revision)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var id = Guid.CreateVersion7();
        connection.Run("INSERT INTO class (id, created_at) VALUES (@id, @now)", [("@id", id), ("@now", clock.GetUtcNow())]);
        Append(connection, id, 1, revision);
        transaction.Commit();
        return id;
    }

    public StoredClass? Find(Guid id)
    {
        using var connection = database.Connect();
        return Find(connection, id);
    }

    /// <summary>A class as it was at a version.</summary>
    public ClassRevision? At(Guid id, int version)
    {
        using var connection = database.Connect();
        return connection.Query(
            "SELECT plan, title, starts_at, zone, head_count FROM revision WHERE class_id = @id AND version = @version",
            [("@id", id), ("@version", version)],
            r => new ClassRevision(r.GetString(0), r.GetString(1), r.Text(2), r.GetString(3), r.GetInt32(4))).SingleOrDefault();
    }

    /// <summary>All versions of a class, the latest first.</summary>
    public ImmutableArray<StoredClass> Versions(Guid id)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT class_id, version, saved_at, plan, title, starts_at, zone, head_count
                FROM revision WHERE class_id = @id ORDER BY version DESC
                """,
                [("@id", id)],
                Read),
        ];
    }

    public ImmutableArray<ClassLine> List()
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                $"""
                SELECT latest.*,
                       EXISTS (SELECT 1 FROM lead JOIN lead_command k ON k.lead_id = lead.id WHERE lead.class_id = latest.id),
                       EXISTS (SELECT 1 FROM log WHERE log.class_id = latest.id),
                       (SELECT count(*) FROM log_row WHERE log_row.class_id = latest.id AND came = 1)
                FROM ({Latest}) AS latest
                ORDER BY latest.starts_at IS NULL, latest.starts_at, latest.saved_at DESC
                """,
                [],
                r => new ClassLine(Read(r), r.GetBoolean(8), r.GetBoolean(9), r.GetInt32(10))),
        ];
    }

    /// <summary>Appends a revision if the class still is at the version the writer started from.</summary>
    /// <returns>The class as it now stands, and whether it was saved; null if there is no such class.</returns>
    public (StoredClass Class, bool Saved)? Save(Guid id, int expected, ClassRevision revision)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (Find(connection, id) is not { } current)
        {
            return null;
        }

        if (current.Version != expected)
        {
            return (current, false);
        }

        if (current.Revision == revision)
        {
            return (current, true);
        }

        Append(connection, id, expected + 1, revision);
        transaction.Commit();
        return (new StoredClass(id, expected + 1, clock.GetUtcNow(), revision), true);
    }

    /// <summary>Takes a class out of the list, or puts it back. Its revisions stay.</summary>
    public bool SetRemoved(Guid id, bool removed)
    {
        using var connection = database.Connect();
        return connection.Run(
            "UPDATE class SET removed_at = @at WHERE id = @id",
            [("@id", id), ("@at", removed ? clock.GetUtcNow() : null)]) == 1;
    }

    private static StoredClass? Find(SqliteConnection connection, Guid id) =>
        connection.Query($"{Latest} AND c.id = @id", [("@id", id)], Read).SingleOrDefault();

    private void Append(SqliteConnection connection, Guid id, int version, ClassRevision revision) =>
        connection.Run(
            """
            INSERT INTO revision (class_id, version, saved_at, plan, title, starts_at, zone, head_count)
            VALUES (@id, @version, @now, @plan, @title, @starts, @zone, @heads)
            """,
            [
                ("@id", id), ("@version", version), ("@now", clock.GetUtcNow()), ("@plan", revision.Plan), ("@title", revision.Title),
                ("@starts", revision.StartsAt), ("@zone", revision.Zone), ("@heads", revision.HeadCount),
            ]);

    private static StoredClass Read(SqliteDataReader r) => new(
        Guid.Parse(r.GetString(0)),
        r.GetInt32(1),
        DateTimeOffset.Parse(r.GetString(2), CultureInfo.InvariantCulture),
        new ClassRevision(r.GetString(3), r.GetString(4), r.Text(5), r.GetString(6), r.GetInt32(7)));
}
