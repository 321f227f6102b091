using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>How long a version of a class is, so that lists need not read it.</summary>
/// <param name="With">The version of the move library it was measured with.</param>
/// <param name="Seconds">Null: a draft with faults.</param>
/// <param name="OverSeconds">Past its slot; negative: to spare.</param>
public sealed record Measure(string With, int? Seconds, int? OverSeconds);

/// <summary>A class as it is kept: the class file to the byte.</summary>
/// <param name="Title">As in the file, for lists.</param>
public sealed record ClassRevision(string Plan, string Title, Measure Measure);

public sealed record StoredClass(Guid Id, int Version, DateTimeOffset SavedAt, string Plan, string Title);

/// <summary>A class in a list.</summary>
/// <param name="CopyOf">The title of the class it was copied from, as that is now.</param>
/// <param name="Held">How many of its sessions were led or logged.</param>
/// <param name="ToCome">How many are still to come.</param>
public sealed record ClassLine(
    Guid Id,
    int Version,
    DateTimeOffset SavedAt,
    string Title,
    int? Seconds,
    int? OverSeconds,
    string? CopyOf,
    int Held,
    int ToCome);

/// <summary>Classes and their append-only revisions.</summary>
public sealed class Classes(Database database, TimeProvider clock)
{
    private const string Latest = """
        SELECT c.id, r.version, r.saved_at, r.plan, r.title
        FROM class c JOIN revision r ON r.class_id = c.id
        WHERE c.removed_at IS NULL
          AND r.version = (SELECT max(version) FROM revision WHERE class_id = c.id)
        """;

    /// <summary>Adds a class together with its first session, if one is given.</summary>
    /// <param name="change">The id that it gets, so that one that is sent twice is added once.</param>
    public (Guid Class, Guid? Session) Add(ClassRevision revision, SessionBooking? booking, Guid? copyOf = null, Guid? change = null)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var id = change ?? Guid.CreateVersion7();
        if (connection.Scalar("SELECT 1 FROM class WHERE id = @id", [("@id", id)]) is not null)
        {
            return (id,
                connection.Scalar("SELECT id FROM session WHERE class_id = @id ORDER BY created_at LIMIT 1", [("@id", id)]) is string first
                    ? Guid.Parse(first)
                    : null);
        }

        connection.Run("INSERT INTO class (id, created_at, copy_of) VALUES (@id, @now, @copy)",
            [("@id", id), ("@now", clock.GetUtcNow()), ("@copy", copyOf)]);
        Append(connection, id, 1, revision);
        Guid? session = booking is null ? null : Sessions.Insert(connection, Guid.CreateVersion7(), id, booking, clock.GetUtcNow());
        transaction.Commit();
        return (id, session);
    }

    public StoredClass? Find(Guid id)
    {
        using var connection = database.Connect();
        return Find(connection, id);
    }

    /// <summary>A class as it was at a version.</summary>
    public StoredClass? At(Guid id, int version)
    {
        using var connection = database.Connect();
        return At(connection, id, version);
    }

    private static StoredClass? At(SqliteConnection connection, Guid id, int version) => connection.Query(
        "SELECT class_id, version, saved_at, plan, title FROM revision WHERE class_id = @id AND version = @version",
        [("@id", id), ("@version", version)],
        Read).SingleOrDefault();

    /// <summary>All versions of a class, the latest first.</summary>
    public ImmutableArray<StoredClass> Versions(Guid id)
    {
        using var connection = database.Connect();
        return [.. connection.Query(
            "SELECT class_id, version, saved_at, plan, title FROM revision WHERE class_id = @id ORDER BY version DESC",
            [("@id", id)],
            Read)];
    }

    /// <summary>
    /// A window of the classes: the one under way, those with a date to come by that date, the others by when they were saved.
    /// </summary>
    /// <param name="search">Words or parts of words of a title; null: all.</param>
    public (ImmutableArray<ClassLine> Lines, int All) List(string? search, int skip, int take)
    {
        using var connection = database.Connect();
        static string Literally(string text) =>
            new[] { "\\", "%", "_" }.Aggregate(text, (t, sign) => t.Replace(sign, "\\" + sign, StringComparison.Ordinal));
        var words = (search ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        var matches = string.Concat(words.Select((_, i) => $" AND r.title LIKE @word{i} ESCAPE '\\'"));
        (string, object?)[] looked = [.. words.Select((word, i) => ($"@word{i}", (object?)$"%{Literally(word)}%"))];
        var lines = connection.Query(
            $"""
            SELECT c.id, r.version, r.saved_at, r.title, r.seconds, r.over_seconds,
                   (SELECT o.title FROM revision o WHERE o.class_id = c.copy_of ORDER BY o.version DESC LIMIT 1),
                   (SELECT count(*) FROM session s WHERE s.class_id = c.id AND s.removed_at IS NULL AND {Sessions.IsHeld}),
                   (SELECT count(*) FROM session s WHERE s.class_id = c.id AND s.removed_at IS NULL AND NOT {Sessions.IsHeld}),
                   (SELECT min(s.starts_at) FROM session s
                    WHERE s.class_id = c.id AND s.removed_at IS NULL AND NOT {Sessions.IsHeld}) AS next
            FROM class c JOIN revision r ON r.class_id = c.id
            WHERE c.removed_at IS NULL{matches}
              AND r.version = (SELECT max(version) FROM revision WHERE class_id = c.id)
            ORDER BY EXISTS (SELECT 1 FROM session s WHERE s.class_id = c.id AND s.removed_at IS NULL AND {Sessions.IsUnderWay}) DESC,
                     next IS NULL, next, r.saved_at DESC, c.id
            LIMIT @take OFFSET @skip
            """,
            [.. looked, ("@take", take), ("@skip", skip), ("@now", clock.GetUtcNow().ToUnixTimeMilliseconds())],
            r => new ClassLine(
                Guid.Parse(r.GetString(0)), r.GetInt32(1), Moment(r.GetString(2)), r.GetString(3),
                r.Whole(4), r.Whole(5), r.Text(6), r.GetInt32(7), r.GetInt32(8)));
        var all = connection.Scalar(
            $"""
            SELECT count(*) FROM class c JOIN revision r ON r.class_id = c.id
            WHERE c.removed_at IS NULL{matches} AND r.version = (SELECT max(version) FROM revision WHERE class_id = c.id)
            """,
            looked);
        return ([.. lines], Convert.ToInt32(all, CultureInfo.InvariantCulture));
    }

    /// <summary>Classes in whose latest version a text stands, such as the id of a move.</summary>
    public ImmutableArray<(Guid Id, string Title)> With(string text)
    {
        using var connection = database.Connect();
        return [.. connection.Query(
            $"SELECT id, title FROM ({Latest} AND instr(r.plan, @text) > 0) ORDER BY saved_at DESC LIMIT 50",
            [("@text", text)],
            r => (Guid.Parse(r.GetString(0)), r.GetString(1)))];
    }

    /// <summary>Latest versions whose length is not known as this library measures it.</summary>
    public ImmutableArray<StoredClass> Unmeasured(string with)
    {
        using var connection = database.Connect();
        return [.. connection.Query($"{Latest} AND r.measured_with IS NOT @with", [("@with", with)], Read)];
    }

    public void SetMeasure(Guid id, int version, Measure measure)
    {
        using var connection = database.Connect();
        connection.Run(
            "UPDATE revision SET measured_with = @with, seconds = @seconds, over_seconds = @over WHERE class_id = @id AND "
            + "version = @version",
            [("@with", measure.With), ("@seconds", measure.Seconds), ("@over", measure.OverSeconds), ("@id", id), ("@version", version)]);
    }

    /// <summary>Appends a revision if the class still is at the version the writer started from.</summary>
    /// <returns>The class as it now stands, and whether it was saved; null if there is no such class.</returns>
    public (StoredClass Class, bool Saved)? Save(Guid id, Basis basis, ClassRevision revision)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        if (Find(connection, id) is not { } current)
        {
            return null;
        }

        var document = $"class:{id}";
        if (Documents.Seen(connection, document, basis) is { } before)
        {
            return (At(connection, id, before.Revision) ?? current, true);
        }

        if (current.Version != basis.Revision)
        {
            return (current, false);
        }

        if (current.Plan == revision.Plan)
        {
            return (current, true);
        }

        var next = current.Version + 1;
        Append(connection, id, next, revision);
        Documents.Note(database, connection, document, next, basis);
        transaction.Commit();
        return (new StoredClass(id, next, clock.GetUtcNow(), revision.Plan, revision.Title), true);
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
            INSERT INTO revision (class_id, version, saved_at, title, measured_with, seconds, over_seconds, plan)
            VALUES (@id, @version, @now, @title, @with, @seconds, @over, @plan)
            """,
            [
                ("@id", id), ("@version", version), ("@now", clock.GetUtcNow()), ("@title", revision.Title), (
                    "@with", revision.Measure.With),
                ("@seconds", revision.Measure.Seconds), ("@over", revision.Measure.OverSeconds), ("@plan", revision.Plan),
            ]);

    private static DateTimeOffset Moment(string text) => DateTimeOffset.Parse(text, CultureInfo.InvariantCulture);

    private static StoredClass Read(SqliteDataReader r) =>
        new(Guid.Parse(r.GetString(0)), r.GetInt32(1), Moment(r.GetString(2)), r.GetString(3), r.GetString(4));
}
