using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Halterion.Core;
using Halterion.Core.People;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>Which of their names are taken out of everything that others wrote.</summary>
/// <param name="Whole">First and last name.</param>
/// <param name="Also">A name alone that may be somebody else's, or a word: only where that was asked for.</param>
public sealed record NamesToErase(NameSearch? Whole, ImmutableArray<NameSearch> Also)
{
    public bool AreIn(string? text) => (Whole?.IsIn(text) ?? false) || Also.Any(n => n.IsIn(text));

    public string Without(string text) => Also.Aggregate(Whole?.Without(text) ?? text, (t, name) => name.Without(t));
}

/// <summary>
/// Takes a person, and their name, out of files of data of any version, and out of lists of the desk that were not read yet.
/// </summary>
internal static partial class Erasing
{
    /// <summary>What the program itself writes there is never a name; the names of others are theirs.</summary>
    private static readonly ImmutableHashSet<(string Table, string Column)> Kept = [("person", "name")];

    /// <summary>Texts of people: every column of text in every table, whatever the version.</summary>
    public static IEnumerable<(string Table, string Column)> Texts(SqliteConnection connection) => connection.Query(
        """
        SELECT m.name, c.name FROM sqlite_master m JOIN pragma_table_info(m.name) c
        WHERE m.type = 'table' AND m.name NOT LIKE 'sqlite\_%' ESCAPE '\' AND c.type = 'TEXT'
          AND c.name NOT LIKE '%id' AND c.name NOT LIKE '%\_at' ESCAPE '\'
        """,
        [],
        r => (r.GetString(0), r.GetString(1))).Where(t => !Kept.Contains(t));

    /// <summary>Takes somebody out of one file of data.</summary>
    /// <returns>False: they are not in it.</returns>
    public static bool From(SqliteConnection connection, PersonId id, NamesToErase names)
    {
        var there = connection.Scalar("SELECT 1 FROM person WHERE id = @id", [("@id", id.Value)]) is not null;
        if (there)
        {
            Person(connection, id);
        }

        connection.CreateFunction("named", (string? text) => names.AreIn(text), isDeterministic: true);
        connection.CreateFunction("unnamed", (string text) => names.Without(text), isDeterministic: true);
        foreach (var (table, column) in Texts(connection))
        {
            connection.Run($"UPDATE OR REPLACE \"{table}\" SET \"{column}\" = unnamed(\"{column}\") WHERE named(\"{column}\")", []);
        }

        return there;
    }

    /// <summary>
    /// Takes somebody off the lists of the desk that lie unread: their lines go, and where their name stands elsewhere it goes.
    /// </summary>
    public static void FromLists(string folder, NamesToErase names)
    {
        foreach (var file in Lists(folder))
        {
            var lines = Unfolded(file).Split('\n');
            if (Array.Exists(lines, names.AreIn))
            {
                var left = lines.Where(
                    l => !(l.StartsWith("ATTENDEE", StringComparison.OrdinalIgnoreCase) && names.AreIn(l))).Select(names.Without);
                File.WriteAllText(file, string.Join('\n', left), new UTF8Encoding(false));
            }
        }
    }

    /// <summary>Files of the desk's folder that are small enough to be its lists.</summary>
    public static IEnumerable<string> Lists(string folder) => !Directory.Exists(folder) ? []
        : Directory.EnumerateFiles(folder).Where(f => RegularFile.Is(f) && new FileInfo(f).Length <= DeskFolder.LargestFile);

    /// <summary>A file of the desk with its long lines whole again (RFC 5545, section 3.1).</summary>
    public static string Unfolded(string file) => Fold().Replace(File.ReadAllText(file, Encoding.UTF8), "");

    [GeneratedRegex("\r?\n[ \t]")]
    private static partial Regex Fold();

    /// <summary>What is theirs alone: rows that name them, and what was noted of them.</summary>
    private static void Person(SqliteConnection connection, PersonId id)
    {
        // A copy of an older schema has no such column; its rows go all the same.
        if (Has(connection, "log", "erased"))
        {
            connection.Run("UPDATE log SET erased = erased + 1 WHERE session_id IN (SELECT session_id FROM log_row WHERE person_id = @id "
                + "AND came = 1)", [("@id", id.Value)]);
        }

        // What was noted of them while leading goes; the tap itself stays in the row of taps.
        if (Has(connection, "lead_command", "payload"))
        {
            connection.Run("UPDATE lead_command SET payload = '{}' WHERE instr(payload, @id) > 0", [("@id", id.Value)]);
        }

        // Logs that were corrected late hold them too.
        if (Has(connection, "log_past", "log"))
        {
            foreach (var (row, text) in connection.Query(
                "SELECT rowid, log FROM log_past WHERE instr(log, @id) > 0", [("@id", id.Value)], r => (r.GetInt64(0), r.GetString(1))))
            {
                var log = JsonNode.Parse(text)!.AsObject();
                var left = log["rows"]!.AsArray().Where(r => (string?)r!["personId"] != id.Value).Select(r => r!.DeepClone()).ToArray();
                log["rows"] = new JsonArray(left);
                connection.Run("UPDATE log_past SET log = @log WHERE rowid = @row", [("@log", log.ToJsonString()), ("@row", row)]);
            }
        }

        if (Has(connection, "desk_guest", "person_id"))
        {
            connection.Run("DELETE FROM desk_guest WHERE person_id = @id", [("@id", id.Value)]);
        }

        if (Has(connection, "circle_person", "person_id"))
        {
            connection.Run(
                """
                DELETE FROM circle WHERE id IN (SELECT circle_id FROM circle_person WHERE person_id = @id)
                AND NOT EXISTS (SELECT 1 FROM circle_person o WHERE o.circle_id = circle.id AND o.person_id <> @id)
                """,
                [("@id", id.Value)]);
        }

        foreach (var table in ((string[])["document_revision", "document_change"]).Where(t => Has(connection, t, "document")))
        {
            connection.Run($"DELETE FROM {table} WHERE instr(document, @id) > 0", [("@id", id.Value)]);
        }

        if (Has(connection, "document_change", "id"))
        {
            connection.Run("DELETE FROM document_change WHERE id = @id", [("@id", id.Value)]);
        }

        connection.Run("DELETE FROM person WHERE id = @id", [("@id", id.Value)]);
    }

    private static bool Has(SqliteConnection connection, string table, string column) =>
        connection.Scalar(
            "SELECT 1 FROM pragma_table_info(@table) WHERE name = @column", [("@table", table), ("@column", column)]) is not null;
}
