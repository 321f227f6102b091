using System.Collections.Immutable;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A series as it is kept.</summary>
/// <param name="Series">As a file of the open format.</param>
/// <param name="Classes">The classes that it begins from, by the names it gives them.</param>
public sealed record StoredSeries(Guid Id, int Revision, string Series, ImmutableDictionary<string, Guid> Classes);

/// <summary>An occasion that a series made.</summary>
/// <param name="Starts">As the series has it, such as 2026-11-30T18:00.</param>
/// <param name="Version">Of the class, as the series wrote it: a later one was made by hand.</param>
/// <param name="Followed">The weeks after it go on from what was changed by hand.</param>
/// <param name="IsHeld">It was led or logged.</param>
public sealed record SeriesSession(Guid Session, Guid Class, string Starts, int Version, bool Followed, int Latest, bool IsHeld,
    string Plan);

/// <summary>Series of classes.</summary>
public sealed class SeriesBook(Database database, TimeProvider clock)
{
    private static readonly string selected = $"SELECT id, series, {Documents.Revision("'series:' || id")} FROM series";

    public ImmutableArray<StoredSeries> List()
    {
        using var connection = database.Connect();
        return [.. connection.Query($"{selected} WHERE removed_at IS NULL ORDER BY created_at DESC, id", [], r => Read(connection, r))];
    }

    public StoredSeries? Find(Guid id)
    {
        using var connection = database.Connect();
        return connection.Query($"{selected} WHERE id = @id AND removed_at IS NULL", [("@id", id)], r =>
            Read(connection, r)).SingleOrDefault();
    }

    /// <summary>Keeps a series if nobody changed it since.</summary>
    public Saved Keep(Guid id, string series, ImmutableDictionary<string, Guid> classes, Basis basis) => database.Save(
        $"series:{id}",
        basis,
        connection => connection.Scalar("SELECT 1 FROM series WHERE id = @id", [("@id", id)]) is not null,
        connection =>
        {
            connection.Run(
                """
                INSERT INTO series (id, series, created_at) VALUES (@id, @series, @now)
                ON CONFLICT (id) DO UPDATE SET series = excluded.series, removed_at = NULL
                """,
                [("@id", id), ("@series", series), ("@now", clock.GetUtcNow())]);
            connection.Run("DELETE FROM series_class WHERE series_id = @id", [("@id", id)]);
            foreach (var (name, of) in classes)
            {
                connection.Run("INSERT INTO series_class (series_id, name, class_id) VALUES (@id, @name, @class)",
                    [("@id", id), ("@name", name), ("@class", of)]);
            }
        });

    /// <summary>A series goes; the classes and occasions that it made stay.</summary>
    public bool SetRemoved(Guid id, bool removed)
    {
        using var connection = database.Connect();
        return connection.Run("UPDATE series SET removed_at = @now WHERE id = @id AND (removed_at IS NULL) = @removed",
            [("@id", id), ("@now", removed ? clock.GetUtcNow() : null), ("@removed", removed)]) > 0;
    }

    /// <summary>What it made that still stands, by start.</summary>
    public ImmutableArray<SeriesSession> SessionsOf(Guid id)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                $"""
                SELECT m.session_id, s.class_id, m.starts, m.version, m.followed, r.version, {Sessions.IsHeld}, r.plan
                FROM series_session m JOIN session s ON s.id = m.session_id JOIN class c ON c.id = s.class_id
                JOIN revision r ON r.class_id = s.class_id AND r.version = (SELECT max(version) FROM revision v WHERE v.class_id = s.class_id)
                WHERE m.series_id = @id AND s.removed_at IS NULL AND c.removed_at IS NULL ORDER BY m.starts
                """,
                [("@id", id)],
                r => new SeriesSession(
                    Guid.Parse(r.GetString(0)), Guid.Parse(r.GetString(1)), r.GetString(2), r.GetInt32(3), r.GetBoolean(4), r.GetInt32(5),
                    r.GetBoolean(6), r.GetString(7))),
        ];
    }

    /// <summary>Notes what a series made, or wrote anew.</summary>
    public void Made(Guid id, Guid session, string starts, int version)
    {
        using var connection = database.Connect();
        connection.Run(
            """
            INSERT INTO series_session (series_id, session_id, starts, version) VALUES (@id, @session, @starts, @version)
            ON CONFLICT (series_id, session_id) DO UPDATE SET starts = excluded.starts, version = excluded.version
            """,
            [("@id", id), ("@session", session), ("@starts", starts), ("@version", version)]);
    }

    /// <summary>Whether the weeks after a class that was changed by hand go on from it.</summary>
    public bool Follow(Guid id, Guid session, bool followed)
    {
        using var connection = database.Connect();
        return connection.Run("UPDATE series_session SET followed = @followed WHERE series_id = @id AND session_id = @session",
            [("@id", id), ("@session", session), ("@followed", followed)]) > 0;
    }

    private static StoredSeries Read(SqliteConnection connection, SqliteDataReader r)
    {
        var id = Guid.Parse(r.GetString(0));
        return new StoredSeries(id, r.GetInt32(2), r.GetString(1), connection.Query(
            "SELECT name, class_id FROM series_class WHERE series_id = @id", [("@id", id)],
            c => KeyValuePair.Create(c.GetString(0), Guid.Parse(c.GetString(1)))).ToImmutableDictionary());
    }
}
