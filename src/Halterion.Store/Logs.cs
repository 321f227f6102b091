using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>What one session says of one person, for their own copy.</summary>
public sealed record LoggedOf(string Title, string? StartsAt, LogRow Row, Guid ClassId, int? ClassVersion)
{
    public bool Came => Row.Came;

    public string Note => Row.Note;

    public ImmutableArray<StationUse> Uses => Row.Uses;
}

/// <summary>What was logged of each session.</summary>
public sealed class Logs(Database database, TimeProvider clock)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    /// <summary>Corrected so long after it was saved, the log before it stays as a version of its own. [M]</summary>
    private static readonly TimeSpan Late = TimeSpan.FromHours(6);

    public (int Version, ClassLog Log)? Find(Guid session)
    {
        using var connection = database.Connect();
        return Find(connection, session);
    }

    /// <summary>The versions of a log that were corrected late, the newest first.</summary>
    public ImmutableArray<(int Version, DateTimeOffset SavedAt)> Past(Guid session)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                "SELECT version, saved_at FROM log_past WHERE session_id = @session ORDER BY version DESC",
                [("@session", session)],
                r => (r.GetInt32(0), DateTimeOffset.Parse(r.GetString(1), CultureInfo.InvariantCulture))),
        ];
    }

    /// <summary>A log as it was before a late correction; null: there is no such version.</summary>
    public ClassLog? At(Guid session, int version)
    {
        using var connection = database.Connect();
        return connection.Scalar(
            "SELECT log FROM log_past WHERE session_id = @session AND version = @version", [("@session", session), ("@version", version)])
            is string text ? JsonSerializer.Deserialize<ClassLog>(text, Json) : null;
    }

    private static (int Version, ClassLog Log)? Find(SqliteConnection connection, Guid session)
    {
        var head = connection.Query(
            "SELECT version, note, minutes, details FROM log WHERE session_id = @session",
            [("@session", session)],
            r => (Version: r.GetInt32(0), Log: Read<ClassLog>(
                r.GetString(3), new() { ["rows"] = new JsonArray(), ["note"] = r.GetString(1), ["minutes"] = r.Whole(2) })));
        if (head.Count == 0)
        {
            return null;
        }

        var uses = connection.Query(
            "SELECT person_id, station, option, details FROM log_use WHERE session_id = @session ORDER BY rowid",
            [("@session", session)],
            r => (Person: new PersonId(r.GetString(0)), Use: UseOf(r, 1)))
            .ToLookup(u => u.Person, u => u.Use);
        var rows = connection.Query(
            """
            SELECT w.person_id, w.came, w.note, w.details FROM log_row w JOIN person p ON p.id = w.person_id
            WHERE w.session_id = @session ORDER BY p.name COLLATE NOCASE, p.id
            """,
            [("@session", session)],
            r => RowOf(r) with { Uses = [.. uses[new PersonId(r.GetString(0))]] });
        return (head[0].Version, head[0].Log with { Rows = [.. rows] });
    }

    /// <summary>Saves a whole log if nobody saved it since, and fixes the version of the class that it speaks of.</summary>
    /// <param name="basis">0: there was none.</param>
    /// <param name="classVersion">The version whose stations and options the rows name.</param>
    /// <param name="work">What a use was, by the class; null: it was left out.</param>
    public Saved Save(Guid session, Basis basis, int classVersion, ClassLog log, Func<StationUse, LoggedWork?> work)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var document = $"log:{session}";
        if (Documents.Seen(connection, document, basis) is { } before)
        {
            return before;
        }

        var stands = connection.Query(
            "SELECT version, saved_at FROM log WHERE session_id = @session",
            [("@session", session)],
            r => (Version: r.GetInt32(0), SavedAt: DateTimeOffset.Parse(r.GetString(1), CultureInfo.InvariantCulture)));
        var current = stands.Count == 0 ? 0 : stands[0].Version;
        if (current != basis.Revision)
        {
            return new Saved(current, false);
        }

        var now = clock.GetUtcNow();
        if (current > 0 && now - stands[0].SavedAt >= Late)
        {
            connection.Run(
                "INSERT OR REPLACE INTO log_past (session_id, version, saved_at, log) VALUES (@session, @version, @saved, @log)",
                [("@session", session), ("@version", current), ("@saved", stands[0].SavedAt),
                    ("@log", JsonSerializer.Serialize(Find(connection, session)!.Value.Log, Json))]);
        }

        connection.Run("DELETE FROM log_row WHERE session_id = @session", [("@session", session)]);
        connection.Run(
            """
            INSERT INTO log (session_id, version, saved_at, note, minutes, effort, details)
            VALUES (@session, @version, @now, @note, @minutes, @effort, @details)
            ON CONFLICT (session_id) DO UPDATE SET version = excluded.version, saved_at = excluded.saved_at, note = excluded.note,
                minutes = excluded.minutes, effort = excluded.effort, details = excluded.details
            """,
            [("@session", session), ("@version", current + 1), ("@now", now), ("@note", log.Note), ("@minutes", log.Minutes),
                ("@effort", (double?)log.Effort), ("@details", Written(log, "rows", "note", "minutes"))]);
        foreach (var row in log.Rows)
        {
            AddRow(connection, session, row, work);
        }

        Sessions.Pin(connection, session, classVersion);
        Documents.Note(database, connection, document, current + 1, basis);
        transaction.Commit();
        return new Saved(current + 1, true);
    }

    /// <summary>The sessions whose logs were written before what a use was was kept with it.</summary>
    public ImmutableArray<Guid> WithoutWork()
    {
        using var connection = database.Connect();
        return [.. connection.Query("SELECT DISTINCT session_id FROM log_use WHERE option IS NOT NULL AND move IS NULL", [],
            r => Guid.Parse(r.GetString(0)))];
    }

    /// <summary>Fills in what the uses of a log were.</summary>
    public void FillIn(Guid session, Func<StationUse, LoggedWork?> work)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        foreach (var (row, use) in connection.Query(
            "SELECT rowid, station, option, details FROM log_use WHERE session_id = @session AND option IS NOT NULL AND move IS NULL",
            [("@session", session)],
            r => (r.GetInt64(0), UseOf(r, 1))))
        {
            var of = work(use);
            connection.Run("UPDATE log_use SET move = @move, work = @work WHERE rowid = @row",
                [("@row", row), ("@move", of?.Move.Value ?? ""), ("@work", of is null ? null : JsonSerializer.Serialize(of, Json))]);
        }

        transaction.Commit();
    }

    /// <summary>All that somebody did in classes with a day, the oldest first.</summary>
    public ImmutableArray<PastUse> WorkOf(PersonId person)
    {
        using var connection = database.Connect();
        return Uses(connection, "WHERE u.person_id = @person", [("@person", person.Value)]);
    }

    /// <summary>What some people did last of some moves, the oldest first.</summary>
    /// <param name="moves">Null: of all that they did.</param>
    /// <param name="most">Of each person and move so many of the logs written last.</param>
    /// <param name="before">Only of days before this one; null: of all.</param>
    public ImmutableArray<PastUse> LastOf(IEnumerable<PersonId> people, IEnumerable<MoveId>? moves, int most, string? before = null)
    {
        using var connection = database.Connect();
        var who = JsonSerializer.Serialize(people.Select(p => p.Value));
        var which = moves?.Select(m => m.Value) ?? connection.Query(
            "SELECT DISTINCT move FROM log_use WHERE person_id IN (SELECT value FROM json_each(@people)) AND work IS NOT NULL",
            [("@people", who)],
            r => r.GetString(0));
        // The index gives them in the order in which they were written, so that ten years are not looked through.
        return Uses(
            connection,
            """
            WHERE u.rowid IN (
                SELECT x.rowid FROM log_use x WHERE x.person_id = p.value AND x.move = m.value ORDER BY x.rowid DESC LIMIT @most)
              AND (@before IS NULL OR s.starts_at < @before)
            """,
            [("@people", who), ("@moves", JsonSerializer.Serialize(which)), ("@most", most), ("@before", before)],
            "json_each(@people) p CROSS JOIN json_each(@moves) m CROSS JOIN ");
    }

    private ImmutableArray<PastUse> Uses(
        SqliteConnection connection, string where, (string, object?)[] parameters, string from = "") =>
    [
        .. connection.Query(
            $"""
            SELECT u.person_id, u.session_id, s.starts_at, w.effort, u.station, u.option, u.details, u.work
            FROM {from}log_use u JOIN log_row w ON w.session_id = u.session_id AND w.person_id = u.person_id
            JOIN session s ON s.id = u.session_id
            {where} AND u.work IS NOT NULL AND w.came = 1 AND s.removed_at IS NULL AND s.starts_at IS NOT NULL
            ORDER BY s.starts_at, u.rowid
            """,
            parameters,
            r => new PastUse(
                new PersonId(r.GetString(0)), Guid.Parse(r.GetString(1)), r.GetString(2), r.IsDBNull(3) ? null : (decimal)r.GetDouble(3),
                JsonSerializer.Deserialize<StationUse>(r.GetString(6), Json)! with
                {
                    Station = new PlaceId(r.GetString(4)),
                    Option = r.Text(5) is { } option ? new PlaceId(option) : null,
                },
                WorkOf(r.GetString(7)))),
    ];

    /// <summary>Classes that are held often say the same of their stations each time.</summary>
    private readonly ConcurrentDictionary<string, LoggedWork> known = new();

    private const int MostKnown = 5000;

    private LoggedWork WorkOf(string text)
    {
        if (known.Count > MostKnown)
        {
            known.Clear();
        }

        return known.GetOrAdd(text, t => JsonSerializer.Deserialize<LoggedWork>(t, Json)!);
    }

    /// <summary>The classes that somebody came to, by start, with how hard it was for them.</summary>
    /// <param name="most">The last so many; null: all.</param>
    public ImmutableArray<CameTo> ClassesOf(PersonId person, int? most = null)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT * FROM (SELECT s.id, s.class_id, s.starts_at, r.title, coalesce(l.minutes, r.seconds / 60), w.came, w.note, w.details
                FROM log_row w JOIN log l ON l.session_id = w.session_id JOIN session s ON s.id = w.session_id
                JOIN revision r ON r.class_id = s.class_id AND r.version = s.class_version
                WHERE w.person_id = @person AND s.removed_at IS NULL ORDER BY s.starts_at DESC LIMIT @most) ORDER BY starts_at
                """,
                [("@person", person.Value), ("@most", most ?? -1)],
                r => new CameTo(Guid.Parse(r.GetString(0)), Guid.Parse(r.GetString(1)), r.Text(2), r.GetString(3), r.Whole(4),
                    Read<LogRow>(r.GetString(7), new()
                    {
                        ["personId"] = person.Value, ["came"] = r.GetBoolean(5), ["uses"] = new JsonArray(), ["note"] = r.GetString(6),
                    }))),
        ];
    }

    /// <summary>Logged classes between two days, by start: minutes and mean effort as told.</summary>
    /// <param name="until">Not itself.</param>
    public ImmutableArray<LoggedClass> Between(string from, string until)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT s.id, s.class_id, s.class_version, s.starts_at, l.minutes, l.effort
                FROM session s JOIN log l ON l.session_id = s.id
                WHERE s.removed_at IS NULL AND s.starts_at >= @from AND s.starts_at < @until ORDER BY s.starts_at
                """,
                [("@from", from), ("@until", until)],
                ClassOf),
        ];
    }

    /// <summary>How each date of a class went, by start.</summary>
    public ImmutableArray<LoggedDate> DatesOf(Guid classId)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT s.id, l.minutes, l.effort, (SELECT count(*) FROM log_row r WHERE r.session_id = s.id AND r.came)
                FROM session s JOIN log l ON l.session_id = s.id WHERE s.class_id = @class AND s.removed_at IS NULL ORDER BY s.starts_at
                """,
                [("@class", classId)],
                r => new LoggedDate(
                    Guid.Parse(r.GetString(0)), r.GetInt32(3), r.Whole(1), r.IsDBNull(2) ? null : (decimal)r.GetDouble(2))),
        ];
    }

    /// <summary>The note of what is carried over from the class that was held last before a day.</summary>
    public (Guid Session, string Title, string StartsAt, string Text)? CarriedOver(string before, Guid besides)
    {
        using var connection = database.Connect();
        return connection.Query(
            """
            SELECT s.id, r.title, s.starts_at, l.details FROM session s JOIN log l ON l.session_id = s.id
            JOIN revision r ON r.class_id = s.class_id AND r.version = s.class_version
            WHERE s.removed_at IS NULL AND s.starts_at < @before AND s.id <> @session ORDER BY s.starts_at DESC LIMIT 1
            """,
            [("@before", before), ("@session", besides)],
            r => (Guid.Parse(r.GetString(0)), r.GetString(1), r.GetString(2),
                JsonNode.Parse(r.GetString(3))!["carriedOver"]?.GetValue<string>() ?? ""))
            .Where(c => c.Item4.Length > 0).Select(c => ((Guid, string, string, string)?)c).FirstOrDefault();
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
    public ImmutableArray<LoggedClass> Held(Guid besides)
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Query(
                """
                SELECT s.id, s.class_id, s.class_version, s.starts_at, l.minutes, l.effort FROM session s JOIN log l ON l.session_id = s.id
                WHERE s.starts_at IS NOT NULL AND s.removed_at IS NULL AND s.id <> @session ORDER BY s.starts_at DESC LIMIT 100
                """,
                [("@session", besides)],
                ClassOf),
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
                SELECT w.person_id, w.came, w.note, w.details, r.title, s.starts_at, s.id, s.class_id, s.class_version
                FROM log_row w JOIN session s ON s.id = w.session_id
                JOIN revision r ON r.class_id = s.class_id
                  AND r.version = coalesce(s.class_version, (SELECT max(version) FROM revision WHERE class_id = s.class_id))
                WHERE w.person_id = @person ORDER BY s.starts_at
                """,
                [("@person", person.Value)],
                r => new LoggedOf(
                    r.GetString(4), r.Text(5),
                    RowOf(r) with
                    {
                        Uses =
                        [
                            .. connection.Query(
                                """
                                SELECT station, option, details FROM log_use WHERE session_id = @session AND person_id = @person
                                ORDER BY rowid
                                """,
                                [("@session", r.GetString(6)), ("@person", person.Value)],
                                u => UseOf(u, 0)),
                        ],
                    },
                    Guid.Parse(r.GetString(7)), r.Whole(8))),
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

    private static StationUse UseOf(SqliteDataReader r, int at) => Read<StationUse>(
        r.GetString(at + 2), r.Text(at + 1) is { } option
            ? new() { ["station"] = r.GetString(at), ["option"] = option }
            : new() { ["station"] = r.GetString(at) });

    private static LoggedClass ClassOf(SqliteDataReader r) => new(
        Guid.Parse(r.GetString(0)), Guid.Parse(r.GetString(1)), r.Whole(2), r.GetString(3), r.Whole(4),
        r.IsDBNull(5) ? null : (decimal)r.GetDouble(5));

    private static LogRow RowOf(SqliteDataReader r) => Read<LogRow>(r.GetString(3), new()
    {
        ["personId"] = r.GetString(0),
        ["came"] = r.GetBoolean(1),
        ["uses"] = new JsonArray(),
        ["note"] = r.GetString(2),
    });

    /// <summary>What is kept in columns of their own, and the rest.</summary>
    private static T Read<T>(string details, JsonObject columns)
    {
        foreach (var (name, value) in JsonNode.Parse(details)!.AsObject())
        {
            columns[name] = value?.DeepClone();
        }

        return columns.Deserialize<T>(Json)!;
    }

    /// <summary>All but what has a column of its own, and what says nothing.</summary>
    private static string Written<T>(T value, params string[] columns)
    {
        var written = JsonSerializer.SerializeToNode(value, Json)!.AsObject();
        foreach (var name in written.Where(f => columns.Contains(f.Key) || f.Value is JsonArray { Count: 0 }
            || f.Value is JsonValue text && text.TryGetValue<string>(out var words) && words.Length == 0).Select(f => f.Key).ToArray())
        {
            written.Remove(name);
        }

        return written.ToJsonString();
    }

    private static void AddRow(SqliteConnection connection, Guid session, LogRow row, Func<StationUse, LoggedWork?> work)
    {
        connection.Run(
            """
            INSERT INTO log_row (session_id, person_id, came, note, effort, details)
            VALUES (@session, @person, @came, @note, @effort, @more)
            """,
            [("@session", session), ("@person", row.PersonId.Value), ("@came", row.Came), ("@note", row.Note),
                ("@effort", (double?)row.Effort), ("@more", Written(row, "personId", "came", "uses", "note"))]);
        foreach (var use in row.Uses)
        {
            var of = work(use);
            connection.Run(
                """
                INSERT INTO log_use (session_id, person_id, station, option, details, move, work)
                VALUES (@session, @person, @station, @option, @more, @move, @work)
                """,
                [("@session", session), ("@person", row.PersonId.Value), ("@station", use.Station.Value), ("@option", use.Option?.Value),
                    ("@more", Written(use, "station", "option")), ("@move", use.Option is null ? null : of?.Move.Value ?? ""),
                    ("@work", of is null ? null : JsonSerializer.Serialize(of, Json))]);
        }
    }
}

/// <summary>A date of a class as it was logged.</summary>
/// <param name="Came">How many people.</param>
/// <param name="Minutes">As led, where it is known.</param>
/// <param name="Effort">The mean of what people told, 0 to 10.</param>
public sealed record LoggedDate(Guid Session, int Came, int? Minutes, decimal? Effort);

/// <summary>A class that was logged.</summary>
public sealed record LoggedClass(Guid Session, Guid Class, int? Version, string StartsAt, int? Minutes, decimal? Effort);
