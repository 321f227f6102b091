using System.Diagnostics;
using Halterion.Core.Plans;
using Microsoft.Data.Sqlite;

namespace Halterion.Store.Tests;

/// <summary>
/// Data that is damaged or gone is said, goes on being said, and comes back from the newest good copy while the folder is held.
/// </summary>
public class DamageTests
{
    private static readonly ClassRevision Revision = new("""{"title":"Kept"}""", "Kept", new Measure("1", null, null));

    private static readonly Dictionary<string, Func<byte[], byte[]>> Harms = new()
    {
        ["zeros at the head"] = bytes => [.. new byte[100], .. bytes[100..]],
        ["zeros in the middle"] = bytes => [.. bytes[..4096], .. new byte[bytes.Length - 8192], .. bytes[^4096..]],
        ["cut"] = bytes => bytes[..(bytes.Length / 2)],
        ["cut inside a page"] = bytes => bytes[..^1000],
        ["text"] = _ => "This is no database, it is a letter."u8.ToArray(),
        ["nothing"] = _ => [],
        ["a table dropped"] = bytes => Changed(bytes, "DROP TABLE log_use"),
        ["a trigger planted"] = bytes => Changed(bytes, "CREATE TRIGGER t AFTER INSERT ON person BEGIN DELETE FROM class; END"),
    };

    public static TheoryData<string> Kinds => [.. Harms.Keys, "gone"];

    [Theory]
    [MemberData(nameof(Kinds))]
    public void What_is_damaged_is_said_until_the_newest_good_copy_is_put_back(string kind)
    {
        using var folder = WithCopy();
        var good = Assert.Single(Copies.In(folder.Path));
        var worse = Path.Combine(Copies.FolderOf(folder.Path), "day-2099-01-01.db");
        File.WriteAllText(worse, "newer, and no copy at all");
        byte[]? harmed = null;
        if (kind == "gone")
        {
            File.Delete(folder.Data);
        }
        else
        {
            harmed = Harms[kind](File.ReadAllBytes(folder.Data));
            File.WriteAllBytes(folder.Data, harmed);
        }

        using var database = folder.Open();
        var trouble = database.Trouble!;
        Assert.Equal(good, trouble.Copy);
        Assert.Equal($"./halterion restore {good}", trouble.Command);
        for (var i = 0; i < 3; i++)
        {
            Assert.Equal(trouble.Words, Assert.Throws<StoreException>(() => database.Connect()).Message);
        }

        // Nothing was changed, and no new studio was begun beside the copies.
        Assert.Equal(harmed, kind == "gone" ? null : File.ReadAllBytes(folder.Data));
        Assert.False(kind == "gone" && File.Exists(folder.Data));
        Assert.Throws<StoreException>(() => database.Restore(worse, TimeProvider.System));
        Assert.NotNull(database.Trouble);

        var aside = database.Restore(good, TimeProvider.System);
        Assert.Equal((null, kind != "gone"), (database.Trouble, aside is not null));
        Assert.Equal(["Kept"], new Classes(database, TimeProvider.System).List(null, 0, 9).Lines.Select(c => c.Title));
        Assert.True(database.Works(TimeProvider.System));
        Assert.Throws<StoreException>(() => database.Restore(good, TimeProvider.System));
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_file_that_vanishes_while_it_is_in_use_is_said(bool emptied)
    {
        using var folder = WithCopy();
        using var database = folder.Open();
        var classes = new Classes(database, TimeProvider.System);
        classes.Add(Revision, null);
        if (emptied)
        {
            File.WriteAllBytes(folder.Data, []);
        }
        else
        {
            File.Delete(folder.Data);
        }

        Assert.Contains(
            emptied ? "empty" : "gone", Assert.Throws<StoreException>(() => classes.Add(Revision, null)).Message, StringComparison.Ordinal);
        database.Restore(database.Trouble!.Copy!, TimeProvider.System);
        Assert.Equal(1, classes.List(null, 0, 9).All);
    }

    [Fact]
    public void Damage_that_is_met_while_it_is_in_use_is_said_from_then_on()
    {
        using var folder = WithCopy();
        using var database = folder.Open();
        Assert.Null(database.Examine());
        using (var stream = new FileStream(folder.Data, FileMode.Open, FileAccess.Write, FileShare.ReadWrite))
        {
            stream.Write(new byte[100]);
        }

        Assert.NotNull(database.Examine());
        Assert.Throws<StoreException>(() => database.Connect());
    }

    [Fact]
    public void A_restore_trusts_nothing_and_touches_nothing_before_it_does()
    {
        using var folder = WithCopy();
        var good = File.ReadAllBytes(Assert.Single(Copies.In(folder.Path)));
        (string Name, Func<string> Make, string Says)[] wrong =
        [
            ("foreign", () => Foreign(folder), "it lacks the table"),
            ("lacking", () => Made(folder, "lacking", Changed(good, "DROP TABLE own_move")), "it lacks the table own_move"),
            ("column", () => Made(folder, "column", Changed(good, "ALTER TABLE person DROP COLUMN details")), "it lacks the table person "
                + "with the column details"),
            ("newer", () => Made(folder, "newer", Changed(good, "PRAGMA user_version = 99")), "newer"),
            ("nobody's", () => Made(folder, "unversioned", Changed(good, "PRAGMA user_version = 0")), "not Halterion data"),
            ("broken text", () => Made(folder, "broken", Changed(good, "INSERT INTO setting VALUES ('preferences', 'no json')")),
                "a text in setting.value"),
            ("unfit", () => Made(folder, "unfit", Changed(good, "PRAGMA foreign_keys = OFF; INSERT INTO circle_person "
                + "VALUES ('a', 'b')")), "do not match"),
            ("cut", () => Made(folder, "cut", good[..^5000]), "damaged"),
            ("folder", () => folder.Path, "no such file"),
            ("missing", () => Path.Combine(folder.Path, "missing"), "no such file"),
        ];
        var before = File.ReadAllBytes(folder.Data);
        foreach (var (name, make, says) in wrong)
        {
            var refused = Assert.Throws<StoreException>(() => Copies.Restore(folder.Path, make(), TimeProvider.System)).Message;
            Assert.True(
                refused.Contains(says, StringComparison.Ordinal) && refused.EndsWith("Nothing was changed.", StringComparison.Ordinal),
                $"{name}: {refused}");
            Assert.Equal(before, File.ReadAllBytes(folder.Data));
            Assert.Single(Copies.In(folder.Path));
        }
    }

    [Fact]
    public void A_pipe_is_not_waited_for_and_links_are_left_alone()
    {
        if (!OperatingSystem.IsLinux())
        {
            return;
        }

        using var folder = WithCopy();
        using var outside = new Folder();
        var target = Path.Combine(outside.Path, "theirs.txt");
        File.WriteAllText(target, "x");
        File.SetUnixFileMode(target, (UnixFileMode)Convert.ToInt32("644", 8));
        File.CreateSymbolicLink(Path.Combine(folder.Path, "a-link"), target);
        File.CreateSymbolicLink(Path.Combine(folder.Path, "dangling"), Path.Combine(outside.Path, "nowhere"));
        Directory.CreateSymbolicLink(Path.Combine(folder.Path, "a-folder"), outside.Path);
        var pipe = Path.Combine(folder.Path, "copies", "day-2098-01-01.db");
        Process.Start("mkfifo", pipe).WaitForExit();
        using (var database = folder.Open())
        {
            Assert.Null(database.Trouble);
        }

        Assert.Equal("644", Convert.ToString((int)File.GetUnixFileMode(target), 8));
        Assert.Contains("not a file", Assert.Throws<StoreException>(() => Copies.Restore(folder.Path, pipe, TimeProvider.System)).Message,
            StringComparison.Ordinal);
        Assert.DoesNotContain(pipe, Copies.In(folder.Path));
    }

    [Fact]
    public void What_was_begun_and_not_finished_is_cleared_away()
    {
        using var folder = WithCopy();
        string[] halves = [
            folder.Data + ".part", folder.Data + ".part-journal", Path.Combine(Copies.FolderOf(folder.Path), "day-2026-01-01.db.part")];
        Array.ForEach(halves, f => File.WriteAllText(f, "half of somebody's name"));
        using var database = folder.Open();
        Assert.Null(database.Trouble);
        Assert.All(halves, f => Assert.False(File.Exists(f)));
    }

    private static Folder WithCopy()
    {
        var folder = new Folder();
        using var database = folder.Open();
        new Classes(database, TimeProvider.System).Add(Revision, null);
        database.Copies.OfToday(TimeProvider.System);
        return folder;
    }

    private static string Made(Folder folder, string name, byte[] bytes)
    {
        var file = Path.Combine(folder.Path, name);
        File.WriteAllBytes(file, bytes);
        return file;
    }

    private static string Foreign(Folder folder)
    {
        var file = Path.Combine(folder.Path, "foreign");
        using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        connection.Open();
        Run(connection, "CREATE TABLE class (id INTEGER PRIMARY KEY, subject TEXT); PRAGMA user_version = 4");
        return file;
    }

    private static byte[] Changed(byte[] bytes, string sql)
    {
        var file = Path.GetTempFileName();
        File.WriteAllBytes(file, bytes);
        using (var connection = new SqliteConnection($"Data Source={file};Pooling=False"))
        {
            connection.Open();
            Run(connection, "PRAGMA journal_mode = DELETE; " + sql);
        }

        var changed = File.ReadAllBytes(file);
        File.Delete(file);
        return changed;
    }

    private static void Run(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }
}
