using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.Plans;

namespace Halterion.Store.Tests;

/// <summary>Copies, damage, and what is left of a person who was erased.</summary>
public class SafekeepingTests
{
    private static readonly ClassRevision Revision = new("""{"title":"Kept"}""", "Kept", new Measure("1", null, null));
    private static readonly SessionBooking Booking = new(null, "Europe/Lisbon", 5, []);

    [Fact]
    public void An_erased_person_leaves_no_trace_in_any_file()
    {
        using var folder = new Folder();
        using var database = folder.Open();
        var people = new People(database, TimeProvider.System);
        var logs = new Logs(database, TimeProvider.System);
        var (_, session) = new Classes(database, TimeProvider.System).Add(Revision, Booking);
        var person = people.Add(new Person(default, "Zenobia Quartermain", StatureCm: 171));
        Assert.Equal(new Saved(2, true), people.Change(person with { Name = "Zenobia Halfpenny" }, new Basis(1)));
        for (var version = 0; version < 3; version++)
        {
            var row = new LogRow(
                person.Id,
                true,
                [new StationUse(new PlaceId("b1s1"), new PlaceId("b1s1o1"))],
                $"left-knee-remark-{version} {new string('x', 900)}");
            Assert.True(logs.Save(session!.Value, new Basis(version), 1, new ClassLog([row], ""), _ => null).Done);
        }

        database.Copies.OfToday(TimeProvider.System);
        Assert.NotEmpty(folder.Holding("left-knee-remark"));
        Assert.True(people.Erase(person.Id, new Traces(database, people).NamesOf(people.Find(person.Id)!, null)));
        Assert.All(new[] { "left-knee-remark", "Zenobia", "Halfpenny", "Quartermain", person.Id.ToString() },
            text => Assert.Empty(folder.Holding(text)));
        Assert.True(Copies.IsSound(Assert.Single(Copies.In(folder.Path))));
    }

    [Fact]
    public void A_copy_made_while_in_use_comes_back_and_what_was_there_is_kept_aside()
    {
        using var folder = new Folder();
        var copy = Path.Combine(folder.Path, "mine.copy");
        using (var database = folder.Open())
        {
            var classes = new Classes(database, TimeProvider.System);
            classes.Add(Revision, Booking);
            Copies.Backup(folder.Path, copy);
            Assert.Contains(
                "already exists", Assert.Throws<StoreException>(() => Copies.Backup(folder.Path, copy)).Message, StringComparison.Ordinal);
            classes.Add(Revision with { Title = "Later" }, Booking);
            Assert.Contains(
                "in use",
                Assert.Throws<StoreException>(() => Copies.Restore(folder.Path, copy, TimeProvider.System)).Message,
                StringComparison.Ordinal);
        }

        var aside = Copies.Restore(folder.Path, copy, TimeProvider.System);
        using (var database = folder.Open())
        {
            Assert.Equal(["Kept"], new Classes(database, TimeProvider.System).List(null, 0, 9).Lines.Select(c => c.Title));
        }

        Copies.Restore(folder.Path, aside!, TimeProvider.System);
        using (var database = folder.Open())
        {
            Assert.Equal(2, new Classes(database, TimeProvider.System).List(null, 0, 9).All);
        }
    }

    [Fact]
    public void Fourteen_days_are_kept()
    {
        using var folder = new Folder();
        using var database = folder.Open();
        Directory.CreateDirectory(Copies.FolderOf(folder.Path));
        for (var day = 1; day <= 20; day++)
        {
            File.WriteAllText(Path.Combine(Copies.FolderOf(folder.Path), $"day-2026-01-{day:00}.db"), "");
        }

        database.Copies.OfToday(TimeProvider.System);
        var days = Directory.GetFiles(Copies.FolderOf(folder.Path), "day-*.db").Select(Path.GetFileName).Order().ToArray();
        Assert.Equal((14, "day-2026-01-08.db"), (days.Length, days[0]));
    }

    [Fact]
    public void Nobody_else_may_read_what_is_kept()
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        using var folder = new Folder();
        File.SetUnixFileMode(folder.Path, (UnixFileMode)Convert.ToInt32("755", 8));
        using (var database = folder.Open())
        {
            database.Copies.OfToday(TimeProvider.System);
        }

        File.SetUnixFileMode(folder.Data, (UnixFileMode)Convert.ToInt32("644", 8));
        using (folder.Open())
        {
            Assert.Equal("700", Convert.ToString((int)File.GetUnixFileMode(folder.Path), 8));
            foreach (var file in Directory.GetFiles(folder.Path, "*", SearchOption.AllDirectories))
            {
                Assert.Equal("600", Convert.ToString((int)File.GetUnixFileMode(file), 8));
            }
        }
    }
}
