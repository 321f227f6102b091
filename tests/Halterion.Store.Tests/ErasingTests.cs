using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Microsoft.Data.Sqlite;

namespace Halterion.Store.Tests;

/// <summary>
/// Before somebody is erased it is said where their name stands; afterwards only what was left on purpose is found in any file.
/// </summary>
public class ErasingTests
{
    private const string Name = "Zenobia Quartermain";

    [Fact]
    public void Their_name_is_listed_wherever_it_stands_and_goes_from_every_file()
    {
        using var folder = new Folder();
        using var database = folder.Open();
        var (people, person) = Filled(database, folder);
        var traces = new Traces(database, people);
        var found = traces.Of(person);
        string[] places =
        [
            "the title of a class", "a class", "what is kept of somebody else", "the name of a group", "the name of a room",
                "the floor of a room", "a kit list",
            "the name of a template", "a template", "a move of your own", "the settings", "the notes of a log", "a note about somebody "
                + "else in a log",
            "the reason of a choice", "the reason of what is accepted", "what is ticked off", "the name of a device", "a class of the "
                + "booking desk",
            "a list of the booking desk", "a class as it was led", "a note made while leading", "a recorded word", "a calendar file that "
                + "was not read, later.ics",
        ];
        Assert.Equal(places.Order(), found.Where(t => t.Whole).Select(t => t.Where).Distinct().Order());
        Assert.All(found.Where(t => t.Whole && t.Where is not ("a class as it was led" or "a note made while leading")),
            t => Assert.StartsWith("/", t.Link, StringComparison.Ordinal));
        Assert.Contains(found, t => t is { Whole: false, Where: "the name of a device" });

        database.Copies.OfToday(TimeProvider.System);
        Assert.True(people.Erase(person.Id, traces.NamesOf(person, null)));
        foreach (var written in new[] { Name, "ZENOBIA QUARTERMAIN", "zenobia quartermain", @"\u005AENOBIA", "Quartermain",
                person.Id.ToString() })
        {
            Assert.Empty(folder.Holding(written));
        }

        // A first name alone may be anybody's: it was listed, and left.
        Assert.NotEmpty(folder.Holding("Zenobia's phone"));
        Assert.Equal("someone's birthday", new Classes(database, TimeProvider.System).List(null, 0, 9).Lines.Single().Title);
        Assert.Empty(people.Circles());
        Assert.Equal("comes with someone", people.List().Single().Note);
        var list = File.ReadAllText(Path.Combine(folder.Path, "desk", "later.ics"));
        Assert.Contains("Cy Tull", list, StringComparison.Ordinal);
        Assert.DoesNotContain("zq@", list, StringComparison.Ordinal);
        Assert.True(Copies.IsSound(Assert.Single(Copies.In(folder.Path))));
    }

    [Fact]
    public void A_name_alone_goes_too_where_that_is_wanted()
    {
        using var folder = new Folder();
        using var database = folder.Open();
        var (people, person) = Filled(database, folder);
        people.Erase(person.Id, new Traces(database, people).NamesOf(person, alone: true));
        Assert.Empty(folder.Holding("Zenobia"));
        Assert.Empty(folder.Holding("Quartermain"));
    }

    [Fact]
    public void A_namesake_keeps_theirs()
    {
        using var folder = new Folder();
        using var database = folder.Open();
        var (people, person) = Filled(database, folder);
        var other = people.Add(new Person(default, Name));
        var traces = new Traces(database, people);
        Assert.DoesNotContain(traces.Of(person), t => t.Whole);
        people.Erase(person.Id, traces.NamesOf(person, null));
        Assert.Equal(Name, people.Find(other.Id)!.Name);
        Assert.Contains(
            Name, new Classes(database, TimeProvider.System).List(null, 0, 9).Lines.Single().Title, StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>Their name in every column of text that people write in, in several ways of writing.</summary>
    private static (People People, Person Person) Filled(Database database, Folder folder)
    {
        var clock = TimeProvider.System;
        var people = new People(database, clock);
        var person = people.Add(new Person(default, Name, Nick: "Zen"));
        var other = people.Add(new Person(default, "Cy Tull", Note: $"comes with {Name}"));
        people.Keep(new Circle(Guid.NewGuid(), $"{Name} alone", false, [person.Id]), Basis.None);
        var plan = """{"title":"ZENOBIA QUARTERMAIN's birthday","notes":"for \u005aenobia\u0020Quartermain"}""";
        var (_, session) = new Classes(database, clock).Add(
            new ClassRevision(plan, "ZENOBIA QUARTERMAIN's birthday",
                new Measure("1", null, null)), new SessionBooking(null, "Europe/Lisbon", 2, [person.Id]));
        new Logs(database, clock).Save(session!.Value, Basis.None, 1, new ClassLog(
            [new LogRow(person.Id, true, [], "strong"), new LogRow(other.Id, true, [], $"paired with {Name}")], $"thank {Name}"), _ =>
                null);
        var rooms = new Rooms(database);
        rooms.Keep(
            new StoredHall(
                Guid.NewGuid(), $"{Name} hall", new HallFloor(8, 12, [new Fixture(FixtureKind.Furniture, 1, 1, 1, 1, $"{Name}’s chair")]),
                [new StockLine(KitItem.Machine, 1, Name: $"{Name}’s machine")]),
            Basis.None);
        rooms.Pin(session.Value, other.Id, new PlaceId("s"), new PlaceId("o"), $"{Name} asked");
        rooms.Waive(session.Value, "kit.short", new PlaceId("b"), $"{Name} brings one", new Basis(1));
        rooms.Tick(session.Value, $"From: {Name}: mat", true, new Basis(1));
        new Templates(database, clock).Keep(Guid.NewGuid(), $"{Name} special", $$"""{"name":"{{Name}}"}""", Basis.None);
        new OwnMoves(database).Save([("my-dip", $$"""{"id":"my-dip","name":"Dip of {{Name}}"}""")], new Basis(1));
        new Clips(database).Keep(Name, "audio/webm", [1, 2, 3]);
        new Devices(database, clock).Add($"{Name} phone", DeviceRole.Remote, "h1");
        new Devices(database, clock).Add("Zenobia's phone", DeviceRole.Remote, "h2");
        using var connection = new SqliteConnection($"Data Source={folder.Data};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = $$$"""
            INSERT INTO setting VALUES ('preferences', '{"off":{"mix.plane":"as {{{Name}}} says"} }');
            INSERT INTO lead VALUES ('l', '{{{session}}}', 1, 1, '2026-01-01', NULL, '{"title":"{{{Name}}}"}');
            INSERT INTO lead_command VALUES ('l', 0, 'k', 'Note', 1, 'd', '{"text":"{{{Name}}} left early"}');
            INSERT INTO desk_event VALUES ('u', '{{{session}}}', 0, 'With {{{Name}}}', '2099-01-01', 0, '2099-01-01');
            INSERT INTO desk_guest VALUES ('u', 'g', 'zenobia  quartermain', 'Coming', NULL);
            """;
        command.ExecuteNonQuery();
        var desk = Directory.CreateDirectory(Path.Combine(folder.Path, "desk")).FullName;
        File.WriteAllText(
            Path.Combine(desk, "later.ics"),
            "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nATTENDEE;CN=Zenobia Quar\r\n termain:mailto:zq@desk.example\r\nATTENDEE;CN=Cy "
            + "Tull:mailto:cy@desk.example\r\nEND:VEVENT\r\n");
        return (people, person);
    }
}
