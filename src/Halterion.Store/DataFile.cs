using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>A file of data, looked at before anybody relies on it.</summary>
internal static class DataFile
{
    /// <summary>
    /// Texts that are read as JSON whenever the program starts or a list is shown: a broken one must not come in by a copy.
    /// </summary>
    private static readonly (string Table, string Column)[] Json =
    [
        ("revision", "plan"), ("setting", "value"), ("template", "block"), ("own_move", "move"), ("person", "details"), ("room", "floor"),
        ("room", "stock"), ("session_layout", "layout"), ("session_layout", "looked"), ("lead", "script"), ("lead_command", "payload"),
        ("log", "details"), ("log_row", "details"), ("log_use", "details"), ("log_use", "work"), ("log_past", "log"), ("series", "series"),
    ];

    /// <summary>Why a file cannot be used as data, as the end of a sentence; null: it can.</summary>
    /// <param name="deep">Every text in it is looked at too, as for a file from elsewhere.</param>
    public static string? WhyNot(string file, bool deep)
    {
        if (!File.Exists(file))
        {
            return "there is no such file";
        }

        if (!RegularFile.Is(File.ResolveLinkTarget(file, returnFinalTarget: true)?.FullName ?? file))
        {
            return "it is not a file";
        }

        try
        {
            using var connection = Open(file, SqliteOpenMode.ReadOnly);
            return IsCut(connection, file) ? "it is damaged (its end is missing)" : WhyNot(connection, deep);
        }
        catch (SqliteException e)
        {
            return e.SqliteErrorCode is 11 or 26 ? $"it is damaged ({Plain(e.Message)})" : $"it cannot be read ({Plain(e.Message)})";
        }
    }

    /// <summary>The same of a file that is open.</summary>
    public static string? WhyNot(SqliteConnection connection, bool deep)
    {
        connection.Run("PRAGMA trusted_schema = OFF", []);
        if (connection.Scalar(deep ? "PRAGMA integrity_check(1)" : "PRAGMA quick_check(1)", []) is string and not "ok" and var wrong)
        {
            return $"it is damaged ({Plain(wrong)})";
        }

        var version = Schema.VersionOf(connection);
        if (version > Schema.Version)
        {
            return $"it comes from a newer Halterion (schema {version}; this version reads up to {Schema.Version})";
        }

        if (version < 1)
        {
            return "it is not Halterion data";
        }

        return Schema.Fault(connection) is { } fault ? $"it is not Halterion data as version {version} of it is: {fault}"
            : !deep ? null
            : connection.Scalar("PRAGMA foreign_key_check", []) is not null ? "parts of it do not match"
            : Json.FirstOrDefault(j => IsBroken(connection, j.Table, j.Column)) is { Table: { } table } broken
                ? $"a text in {table}.{broken.Column} is damaged"
            : null;
    }

    /// <summary>Opens without making a file where there is none, and without a pool that outlives it.</summary>
    public static string ConnectionString(string file, SqliteOpenMode mode = SqliteOpenMode.ReadWrite, bool pooled = false) =>
        new SqliteConnectionStringBuilder
        {
            DataSource = file,
            Mode = mode,
            ForeignKeys = true,
            DefaultTimeout = 10,
            Pooling = pooled
        }.ToString();

    public static SqliteConnection Open(string file, SqliteOpenMode mode = SqliteOpenMode.ReadWrite)
    {
        var connection = new SqliteConnection(ConnectionString(file, mode));
        connection.Open();
        return connection;
    }

    /// <summary>Puts a finished file in another's place: what was written is on the disk before the name changes.</summary>
    public static void PutInPlace(string finished, string place)
    {
        using (var stream = new FileStream(finished, FileMode.Open, FileAccess.ReadWrite))
        {
            stream.Flush(flushToDisk: true);
        }

        foreach (var beside in Beside(place))
        {
            File.Delete(beside);
        }

        File.Move(finished, place, overwrite: true);
    }

    /// <summary>What SQLite keeps beside a file: it belongs to that file alone.</summary>
    public static string[] Beside(string file) => [file + "-wal", file + "-shm", file + "-journal"];

    public static string Plain(string message) => message.TrimEnd('.').ReplaceLineEndings(" ");

    /// <summary>Pages are whole where nothing waits in a log beside the file; SQLite itself takes a missing end for zeros.</summary>
    private static bool IsCut(SqliteConnection connection, string file) =>
        new FileInfo(file + "-wal") is not { Exists: true, Length: > 0 }
            && connection.Scalar("PRAGMA page_size", []) is long size
            && new FileInfo(file).Length % size != 0;

    private static bool IsBroken(SqliteConnection connection, string table, string column) =>
        connection.Scalar(
            "SELECT 1 FROM pragma_table_info(@table) WHERE name = @column", [("@table", table), ("@column", column)]) is not null
        && connection.Scalar($"SELECT 1 FROM {table} WHERE {column} IS NOT NULL AND NOT json_valid(ltrim({column}, "
            + $"char(65279))) LIMIT 1", []) is not null;
}
