using System.Collections.Immutable;
using System.Globalization;
using System.Reflection;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>The numbered steps that make the tables, and what tables a file of each step has.</summary>
internal static class Schema
{
    private static readonly string[] Steps = Read();

    /// <summary>The step that this program writes; it is the file's <c>user_version</c>.</summary>
    public static int Version => Steps.Length;

    public static int VersionOf(SqliteConnection connection) =>
        Convert.ToInt32(connection.Scalar("PRAGMA user_version", []), CultureInfo.InvariantCulture);

    /// <summary>Makes the tables of a step in an empty file.</summary>
    public static void Make(SqliteConnection connection, int version)
    {
        foreach (var step in Steps[..version])
        {
            connection.Run(step, []);
        }

        connection.Run(string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {version}"), []);
    }

    /// <summary>Brings a file to this program's step, in one transaction.</summary>
    /// <exception cref="StoreException">Its parts do not fit together then.</exception>
    public static void Upgrade(SqliteConnection connection)
    {
        // Tables that are rebuilt must not take with them what refers to them; the check before the end sees that all still fits.
        connection.Run("PRAGMA foreign_keys = OFF", []);
        using (var transaction = connection.BeginTransaction())
        {
            foreach (var step in Steps[VersionOf(connection)..])
            {
                connection.Run(step, []);
            }

            if (connection.Scalar("PRAGMA foreign_key_check", []) is not null)
            {
                throw new StoreException("parts of it do not match");
            }

            connection.Run(string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {Version}"), []);
            transaction.Commit();
        }

        connection.Run("PRAGMA foreign_keys = ON", []);
    }

    /// <summary>What of its tables a file lacks, or has too much, for the step that it names; null: it is as we write it.</summary>
    public static string? Fault(SqliteConnection connection)
    {
        using var wanted = new SqliteConnection("Data Source=:memory:;Pooling=False;Foreign Keys=False");
        wanted.Open();
        foreach (var step in Steps[..VersionOf(connection)])
        {
            wanted.Run(step, []);
        }

        var (right, found) = (PartsOf(wanted), PartsOf(connection));
        return right.Except(found).FirstOrDefault() is { } missing ? $"it lacks {missing}"
            : found.Except(right).FirstOrDefault() is { } strange ? $"it holds {strange}, which Halterion never wrote"
            : null;
    }

    /// <summary>Tables with their columns, indexes, and whatever else may act on them; SQLite's own left out.</summary>
    private static ImmutableHashSet<string> PartsOf(SqliteConnection connection)
    {
        var columns = connection.Query(
            """
            SELECT 'the table ' || m.name || ' with the column ' || c.name
                || ' (' || c.type || iif(c."notnull", ', not null', '') || iif(c.pk > 0, ', key', '') || ')'
            FROM sqlite_master m JOIN pragma_table_info(m.name) c WHERE m.type = 'table' AND m.name NOT LIKE 'sqlite\_%' ESCAPE '\'
            """,
            [],
            r => r.GetString(0));
        var others = connection.Query(
            "SELECT 'the ' || type || ' ' || name FROM sqlite_master WHERE type <> 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\'",
            [],
            r => r.GetString(0));
        return [.. columns, .. others];
    }

    private static string[] Read()
    {
        var assembly = Assembly.GetExecutingAssembly();
        return [
            .. assembly.GetManifestResourceNames()
                .Where(n => n.StartsWith("schema/", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
                .Select(name =>
        {
            using var reader = new StreamReader(assembly.GetManifestResourceStream(name)!);
            return reader.ReadToEnd();
        })];
    }
}
