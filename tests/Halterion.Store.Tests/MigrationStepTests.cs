using System.Globalization;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;

namespace Halterion.Store.Tests;

/// <summary>
/// Every step of the schema, begun at each version that ever was, with a value in every column: what each becomes is said here by hand.
/// </summary>
public class MigrationStepTests
{
    /// <summary>What there was before sessions (steps 1–4): a class that was led and logged, by its places in the plan.</summary>
    private const string Before5 = """
        INSERT INTO class VALUES ('c1', '2026-01-01T10:00:00Z', NULL), ('c2', '2026-01-02T10:00:00Z', '2026-02-01T10:00:00Z');
        INSERT INTO revision VALUES ('c1', 1, '2026-01-01T10:00:00Z', '{"n":1}', 'Old title', '2026-01-20T18:00', 'Europe/Lisbon', 9),
                                    ('c1', 2, '2026-01-03T10:00:00Z', '{"n":2}', 'New title', '2026-01-21T18:30', 'Europe/Paris', 11);
        INSERT INTO lead VALUES ('l1', 'c1', 2, '{"s":1}', '2026-01-21T18:00:00Z');
        INSERT INTO lead_command VALUES ('l1', 0, 'k1', 'Start', 1769020200000), ('l1', 1, 'k2', 'Finish', 1769022000000);
        INSERT INTO log VALUES ('c1', 3, '2026-01-21T20:00:00Z', 'Nice and warm');
        INSERT INTO log_row VALUES ('c1', 'p1', 1, 'took the chair'), ('c1', 'p2', 0, 'away');
        INSERT INTO log_use VALUES ('c1', 'p1', 0, 1, 2), ('c1', 'p1', 1, 0, NULL);
        """;

    private const string People123 = """
        INSERT INTO person VALUES ('p1', 'Ida Fenn', 'Easier', '2026-01-01T09:00:00Z'), ('p2', 'Bo Marr', 'Harder', '2026-01-01T09:01:00Z'),
                                  ('p3', 'Cy Tull', 'Main', '2026-01-01T09:02:00Z');
        """;

    private const string People45 = """
        INSERT INTO person VALUES ('p1', 'Ida Fenn', 'Easier', '2026-01-01T09:00:00Z', 171), ('p2', 'Bo Marr', 'Harder', '2026-01-01T09:01:00Z', NULL),
                                  ('p3', 'Cy Tull', 'Main', '2026-01-01T09:02:00Z', 183);
        """;

    private const string People6 = """
        INSERT INTO person VALUES
          ('p1', 'Ida Fenn', '2026-01-01T09:00:00Z', 1, '{"level":{"squat":"easier","lunge":"easier","hinge":"easier","bridge":"easier"},"statureCm":171}'),
          ('p2', 'Bo Marr', '2026-01-01T09:01:00Z', 1, '{"level":{"squat":"harder","lunge":"harder","hinge":"harder","bridge":"harder"}}'),
          ('p3', 'Cy Tull', '2026-01-01T09:02:00Z', 1, '{"statureCm":183}');
        """;

    /// <summary>The same studio as the fifth step left it.</summary>
    private const string At5 = """
        INSERT INTO class VALUES ('c1', '2026-01-01T10:00:00Z', NULL, NULL), ('c2', '2026-01-02T10:00:00Z', '2026-02-01T10:00:00Z', NULL);
        INSERT INTO revision VALUES ('c1', 1, '2026-01-01T10:00:00Z', 'Old title', NULL, NULL, NULL, '{"n":1}'), ('c1', 2, '2026-01-03T10:00:00Z', 'New title', NULL, NULL, NULL, '{"n":2}');
        INSERT INTO session (id, class_id, class_version, revision, starts_at, zone, head_count, created_at, removed_at)
          VALUES ('c1', 'c1', 2, 1, '2026-01-21T18:30', 'Europe/Paris', 11, '2026-01-01T10:00:00Z', NULL);
        INSERT INTO lead VALUES ('l1', 'c1', 2, 1, '2026-01-21T18:00:00Z', NULL, '{"s":1}');
        INSERT INTO lead_command VALUES ('l1', 0, 'k1', 'Start', 1769020200000, '', NULL), ('l1', 1, 'k2', 'Finish', 1769022000000, '', NULL);
        INSERT INTO log (session_id, version, saved_at, note) VALUES ('c1', 3, '2026-01-21T20:00:00Z', 'Nice and warm');
        INSERT INTO log_row (session_id, person_id, came, note) VALUES ('c1', 'p1', 1, 'took the chair'), ('c1', 'p2', 0, 'away');
        INSERT INTO log_use (session_id, person_id, station, option) VALUES ('c1', 'p1', 'b1s2', 'b1s2o3'), ('c1', 'p1', 'b2s1', NULL);
        """;

    private const string From2 = "INSERT INTO setting VALUES ('preferences', '{\"sides\":\"round\"}'); INSERT INTO template VALUES "
        + "('t1', 'My circuit', '{\"b\":1}', '2026-01-05T10:00:00Z');";
    private const string From3 = "INSERT INTO own_move VALUES ('my-dip', '{\"id\":\"my-dip\"}');";
    private const string From6 = """
        INSERT INTO circle VALUES ('g1', 'Tuesdays', 1); INSERT INTO circle_person VALUES ('g1', 'p1');
        INSERT INTO room VALUES ('r1', 'The loft', 1, '{"widthM":8,"lengthM":12,"fixtures":[]}', '[]');
        UPDATE session SET room_id = 'r1';
        INSERT INTO session_pin VALUES ('c1', 'p1', 'b1s1', 'b1s1o2', 'asked for it');
        INSERT INTO session_group VALUES ('c1', 'p1', 'b1', 3);
        INSERT INTO session_layout VALUES ('c1', '{}', '["mat"]');
        """;
    private const string From7 = "INSERT INTO session_waiver VALUES ('c1', 'kit.short', 'b2', 'borrowed'); INSERT INTO session_tick "
        + "VALUES ('c1', 'From: shelf: mat');";
    private const string From8 = "INSERT INTO device (id, name, role, token_hash, paired_at, last_seen) "
        + "VALUES ('d1', 'Phone', 'Remote', 'hash', '2099-01-01T00:00:00Z', "
        + "'2099-01-02T00:00:00Z');";
    private const string From13 = """
        UPDATE log SET details = '{"carriedOver":"bridges"}', minutes = 41, effort = 5.5;
        UPDATE log_row SET details = '{"wishes":"slower"}' WHERE person_id = 'p1';
        INSERT INTO log_past VALUES ('c1', 2, '2026-01-21T19:00:00Z', '{"rows":[],"note":"before"}');
        INSERT INTO series VALUES ('w1', '{"name":"Winter"}', '2026-01-05T10:00:00Z', NULL);
        INSERT INTO series_class VALUES ('w1', 'A', 'c1');
        INSERT INTO series_session VALUES ('w1', 'c1', '2026-01-21T18:30', 2, 1);
        """;

    private const string From12 = "UPDATE device SET session_id = 'c1';";

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    [InlineData(7)]
    [InlineData(8)]
    [InlineData(9)]
    [InlineData(10)]
    [InlineData(11)]
    [InlineData(12)]
    [InlineData(13)]
    public void Everything_is_there_afterwards(int version)
    {
        using var folder = new Folder();
        using (var old = Opened(folder.Data))
        {
            foreach (var step in Steps().Take(version))
            {
                Run(old, step);
            }

            Run(old, "PRAGMA foreign_keys = OFF");
            Run(old, version < 4 ? People123 : version < 6 ? People45 : People6);
            Run(old, version < 5 ? Before5 : At5);
            Run(old,
                string.Concat(
                    new[] { (2, From2), (3, From3), (6, From6), (7, From7),
                        (8, From8), (12, From12), (13, From13) }.Where(f => version >= f.Item1).Select(f => f.Item2)));
            Run(old, string.Create(CultureInfo.InvariantCulture, $"PRAGMA user_version = {version}"));
        }

        using (var database = folder.Open())
        {
            Assert.True(database.Trouble is null, database.Trouble?.Words);
        }

        using var now = Opened(folder.Data);
        Assert.Equal("13", One(now, "PRAGMA user_version"));
        Assert.Equal("""p1 Ida Fenn 2026-01-01T09:00:00Z 1|p2 Bo Marr 2026-01-01T09:01:00Z 1|p3 Cy Tull 2026-01-01T09:02:00Z 1""",
            All(now, "SELECT id, name, created_at, format FROM person ORDER BY id"));
        Details(
            now, "p1", """{"level":{"squat":"easier","lunge":"easier","hinge":"easier","bridge":"easier"},"statureCm":171}""", version < 4);
        Details(now, "p2", """{"level":{"squat":"harder","lunge":"harder","hinge":"harder","bridge":"harder"}}""", false);
        Details(now, "p3", """{"statureCm":183}""", version < 4);
        Assert.Equal("c1 2026-01-01T10:00:00Z - -|c2 2026-01-02T10:00:00Z 2026-02-01T10:00:00Z -", All(now, "SELECT id, created_at, "
            + "removed_at, copy_of FROM class ORDER BY id"));
        Assert.Equal("""c1 1 2026-01-01T10:00:00Z Old title - - - {"n":1}|c1 2 2026-01-03T10:00:00Z New title - - - {"n":2}""",
            All(now, "SELECT class_id, version, saved_at, title, measured_with, seconds, over_seconds, plan FROM revision "
                + "ORDER BY version"));
        Assert.Equal($"c1 c1 2 1 2026-01-21T18:30 Europe/Paris 11 2026-01-01T10:00:00Z - {(version < 6 ? "-" : "r1")}",
            All(now, "SELECT id, class_id, class_version, revision, starts_at, zone, head_count, created_at, removed_at, room_id FROM "
                + "session WHERE id = 'c1'"));
        Assert.Equal("""l1 c1 2 1 2026-01-21T18:00:00Z - {"s":1}""",
            All(now, "SELECT id, session_id, class_version, format, created_at, superseded_at, script FROM lead"));
        Assert.Equal("l1 0 k1 Start 1769020200000  -|l1 1 k2 Finish 1769022000000  -", All(now, "SELECT lead_id, seq, id, kind, "
            + "tapped_at, device, payload FROM lead_command ORDER BY seq"));
        Assert.Equal("c1 3 2026-01-21T20:00:00Z Nice and warm 0", All(now, "SELECT session_id, version, saved_at, note, erased FROM log"));
        Assert.Equal("c1 p1 1 took the chair|c1 p2 0 away", All(now, "SELECT session_id, person_id, came, note FROM log_row ORDER "
            + "BY person_id"));
        Assert.Equal("c1 p1 b1s2 b1s2o3|c1 p1 b2s1 -", All(now, "SELECT session_id, person_id, station, option FROM log_use "
            + "ORDER BY station"));
        Assert.Equal(version < 2 ? "" : """preferences {"sides":"round"}""", All(now, "SELECT name, value FROM setting"));
        Assert.Equal(version < 2 ? "" : """t1 My circuit {"b":1} 2026-01-05T10:00:00Z""",
            All(now, "SELECT id, name, block, created_at FROM template"));
        Assert.Equal(version < 3 ? "" : """my-dip {"id":"my-dip"}""", All(now, "SELECT id, move FROM own_move"));
        Assert.Equal(version < 6 ? "" : "g1 Tuesdays 1 p1", All(now, "SELECT c.id, name, together, person_id FROM circle c JOIN "
            + "circle_person ON circle_id = c.id"));
        Assert.Equal(version < 6 ? "" : "c1 p1 b1s1 b1s1o2 asked for it", All(now, "SELECT * FROM session_pin"));
        Assert.Equal(version < 6 ? "" : "c1 p1 b1 3", All(now, "SELECT * FROM session_group"));
        Assert.Equal(version < 6 ? "" : """c1 {} ["mat"]""", All(now, "SELECT * FROM session_layout"));
        Assert.Equal(version < 7 ? "" : "c1 kit.short b2 borrowed", All(now, "SELECT * FROM session_waiver"));
        Assert.Equal(
            version < 8 ? "" : $"d1 Phone Remote hash 2099-01-01T00:00:00Z 2099-01-02T00:00:00Z {(version < 12 ? "-" : "c1")}",
            All(now, "SELECT * FROM device"));
        Assert.Equal(version < 13 ? "{} - -" : """{"carriedOver":"bridges"} 41 5.5""", All(now, "SELECT details, minutes, effort FROM log"));
        Assert.Equal(version < 13 ? "" : """c1 2 2026-01-21T19:00:00Z {"rows":[],"note":"before"}""", All(now, "SELECT * FROM log_past"));
        Assert.Equal(version < 13 ? "" : "w1 A c1 2026-01-21T18:30 2 1", All(now, "SELECT c.series_id, name, class_id, starts, version, "
            + "followed FROM series_class c JOIN series_session s ON s.series_id = c.series_id"));
        Assert.Equal("", All(now, "PRAGMA foreign_key_check"));
    }

    [Fact]
    public void An_update_that_cannot_be_made_changes_nothing_and_is_said()
    {
        using var folder = new Folder();
        using (var old = Opened(folder.Data))
        {
            foreach (var step in Steps().Take(4))
            {
                Run(old, step);
            }

            // A row of nobody: the parts do not match.
            Run(old, $"PRAGMA foreign_keys = OFF; {Before5} PRAGMA user_version = 4");
        }

        var before = File.ReadAllBytes(folder.Data);
        using (var database = folder.Open())
        {
            Assert.Contains("could not be updated to this version (parts of it "
                + "do not match)", database.Trouble!.Why, StringComparison.Ordinal);
        }

        Assert.Equal(before, File.ReadAllBytes(folder.Data));
    }

    private static void Details(SqliteConnection now, string person, string expected, bool withoutStature)
    {
        var wanted = JsonNode.Parse(expected)!.AsObject();
        if (withoutStature)
        {
            wanted.Remove("statureCm");
        }

        var found = JsonNode.Parse(One(now, $"SELECT details FROM person WHERE id = '{person}'"));
        Assert.True(JsonNode.DeepEquals(wanted, found), $"{person}: {found}");
    }

    private static string[] Steps()
    {
        var assembly = typeof(Database).Assembly;
        return [
            .. assembly.GetManifestResourceNames()
                .Where(n => n.StartsWith("schema/", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
                .Select(n =>
        {
            using var reader = new StreamReader(assembly.GetManifestResourceStream(n)!);
            return reader.ReadToEnd();
        })];
    }

    private static SqliteConnection Opened(string file)
    {
        var connection = new SqliteConnection($"Data Source={file};Pooling=False;Foreign Keys=False");
        connection.Open();
        return connection;
    }

    private static void Run(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private static string One(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        return Convert.ToString(command.ExecuteScalar(), CultureInfo.InvariantCulture)!;
    }

    private static string All(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        var rows = new List<string>();
        while (reader.Read())
        {
            rows.Add(
                string.Join(' ',
                    Enumerable.Range(0, reader.FieldCount).Select(
                        i => reader.IsDBNull(i) ? "-" : Convert.ToString(reader.GetValue(i), CultureInfo.InvariantCulture))));
        }

        return string.Join('|', rows);
    }
}
