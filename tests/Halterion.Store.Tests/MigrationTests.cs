using Halterion.Core.Plans;
using Microsoft.Data.Sqlite;

namespace Halterion.Store.Tests;

/// <summary>A studio of the release before sessions (schema 4), as that release wrote it, opens with everything in its place.</summary>
public class MigrationTests
{
    private static Database Opened(Folder folder)
    {
        File.Copy(Path.Combine(AppContext.BaseDirectory, "data", "studio-schema-4.db"), folder.Data);
        return folder.Open();
    }

    [Fact]
    public void Every_class_has_its_booking_as_a_session()
    {
        using var folder = new Folder();
        using var database = Opened(folder);
        var sessions = new Sessions(database, TimeProvider.System);
        var (toCome, _) = sessions.List(held: false, 0, 100);
        var (held, _) = sessions.List(held: true, 0, 100);
        Assert.Equal(["Six around the loft", "Full moon circuit"], toCome.Select(s => s.Title));
        Assert.Equal(["Kept from before", "Six around the loft, first time"], held.Select(s => s.Title).Order());
        var kept = held.Single(s => s.Title == "Kept from before");
        Assert.Equal(("2026-11-20T18:00", "Europe/Lisbon", 9, true, 3), (kept.StartsAt, kept.Zone, kept.HeadCount, kept.Logged, kept.Came));
        Assert.Equal(4, new Classes(database, TimeProvider.System).List(null, 0, 100).All);
        Assert.Equal(14, new People(database, TimeProvider.System).List().Length);
        Assert.Single(new OwnMoves(database).List());
        Assert.Single(new Templates(database, TimeProvider.System).List());
    }

    /// <summary>It was led and logged, then its first station was deleted and it was opened to be led again.</summary>
    [Fact]
    public void What_was_led_and_logged_is_named_and_pinned()
    {
        using var folder = new Folder();
        using var database = Opened(folder);
        var sessions = new Sessions(database, TimeProvider.System);
        var line = sessions.List(held: true, 0, 100).Lines.Single(s => s.Title == "Kept from before");
        var session = sessions.Find(line.Id)!;
        Assert.Equal(2, session.ClassVersion);
        var log = new Logs(database, TimeProvider.System).Find(line.Id)!.Value.Log;
        Assert.Equal("kept note", log.Note);
        var row = log.Rows.Single(r => r.Note == "took the chair");
        Assert.Equal([("b1s1", "b1s1o2"), ("b1s2", null)], row.Uses.Select(u => (u.Station.Value, u.Option?.Value)));

        // The lead with commands is the one that is open; the one opened later without any is not.
        var lead = new Leads(database, TimeProvider.System).OpenOf(line.Id)!;
        Assert.Equal((2, 1, 2), (lead.ClassVersion, lead.Format, lead.Commands.Length));
        Assert.Contains("First", new Classes(database, TimeProvider.System).At(session.ClassId, 2)!.Plan, StringComparison.Ordinal);
        Assert.DoesNotContain("First", new Classes(database, TimeProvider.System).Find(session.ClassId)!.Plan, StringComparison.Ordinal);
    }

    [Fact]
    public void It_is_copied_before_and_opens_a_second_time()
    {
        using var folder = new Folder();
        using (Opened(folder))
        {
        }

        var copy = Assert.Single(Copies.In(folder.Path));
        Assert.StartsWith("before-schema-5", Path.GetFileName(copy), StringComparison.Ordinal);
        Assert.True(Copies.IsSound(copy));
        using var again = folder.Open();
        Assert.Equal(4, new Classes(again, TimeProvider.System).List(null, 0, 100).All);
    }

    [Fact]
    public void Data_of_a_newer_version_is_refused()
    {
        using var folder = new Folder();
        using (folder.Open())
        {
            Assert.Contains("Another Halterion is using", Assert.Throws<StoreException>(folder.Open).Message, StringComparison.Ordinal);
        }

        using (var connection = new SqliteConnection($"Data Source={folder.Data};Pooling=False"))
        {
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA user_version = 99";
            command.ExecuteNonQuery();
        }

        using (var newer = folder.Open())
        {
            Assert.Contains("newer", newer.Trouble!.Why, StringComparison.Ordinal);
            Assert.Contains("newer", Assert.Throws<StoreException>(() => newer.Connect()).Message, StringComparison.Ordinal);
        }

        Assert.Contains(
            "--data",
            Assert.Throws<StoreException>(() => Database.Open(Path.Combine(folder.Data, "below"), TimeProvider.System)).Message,
            StringComparison.Ordinal);
    }
}
