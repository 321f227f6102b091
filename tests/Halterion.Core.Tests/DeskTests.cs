using System.Collections.Immutable;
using System.Text;
using CsCheck;
using Halterion.Core.People;
using Halterion.Formats;

namespace Halterion.Core.Tests;

/// <summary>The booking desk's files by RFC 5545 and RFC 5546, and who is expected by them.</summary>
public class DeskTests
{
    private static readonly TimeZoneInfo lisbon = TimeZoneInfo.FindSystemTimeZoneById("Europe/Lisbon");

    private static string File(string lines, string method = "REQUEST") =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//A "
        + $"desk//EN\r\nMETHOD:{method}\r\nBEGIN:VEVENT\r\n{lines.ReplaceLineEndings("\r\n")}\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";

    /// <summary>
    /// The forms of ATTENDEE, PARTSTAT, CUTYPE and of folded lines are those of RFC 5545, 3.1, 3.2 and 3.8.4.1; METHOD:CANCEL is
    /// RFC 5546, 3.2.5.
    /// </summary>
    [Fact]
    public void A_list_is_read_as_the_standard_writes_it()
    {
        var text = File("""
            UID:calsrv.example.com-873970198738777
            SEQUENCE:3
            DTSTAMP:20261120T120000Z
            DTSTART;TZID=Europe/Berlin:20261202T190000
            SUMMARY:Full moon circuit
            ATTENDEE;PARTSTAT=ACCEPTED;CN=Ada Wren:mailto:ada@desk.example
            ATTENDEE;CN="Stout,  Mira":MAILTO:mira@desk.example
            ATTENDEE;PARTSTAT=tentative;CN=Bo
             b Lark:mailto:bob@desk.example
            ATTENDEE;PARTSTAT=DECLINED;CN=Cy:mailto:cy@desk.example
            ATTENDEE:mailto:dora.finch@desk.example
            ATTENDEE;CUTYPE=ROOM;CN=Sail loft:mailto:loft@desk.example
            """);
        var (events, fault) = DeskCalendar.Read(text, lisbon);
        Assert.Null(fault);
        var one = Assert.Single(events);
        Assert.Equal(("calsrv.example.com-873970198738777", 3, "Full moon circuit", false, 3),
            (one.Uid, one.Sequence, one.Title, one.Cancelled, one.Coming));
        Assert.Equal(new DateTimeOffset(2026, 12, 2, 18, 0, 0, TimeSpan.Zero), one.Starts);
        Assert.Equal(
            ["Ada Wren Coming", "Stout, Mira Coming", "Bob Lark Waiting", "Cy Gone", "dora.finch Coming"],
            one.Guests.Select(g => $"{g.Name} {g.Standing}"));
        // The address is not kept, and is the same however it is written.
        Assert.DoesNotContain(one.Guests, g => g.Key.Contains("desk", StringComparison.OrdinalIgnoreCase));
        Assert.Equal(DeskGuest.KeyOf("MIRA@desk.example", ""), one.Guests[1].Key);

        var off = Assert.Single(DeskCalendar.Read(File("UID:a\nSEQUENCE:4\nDTSTART:20261202T180000\nATTENDEE;CN=Ada:mailto:a@desk.example",
            "CANCEL"), lisbon).Events);
        Assert.Equal((true, 0), (off.Cancelled, off.Coming));
        // A time of no zone is that of the studio: Lisbon is at UTC in December.
        Assert.Equal(new DateTimeOffset(2026, 12, 2, 18, 0, 0, TimeSpan.Zero), off.Starts);
    }

    [Theory]
    [InlineData("")]
    [InlineData("BEGIN:VCALENDAR\r\nEND:VCALENDAR\r\n")]
    [InlineData("{\"format\":\"halterion-class\"}")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTART;VALUE=DATE:20261202\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTART:tomorrow\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nUID:a\r\nDTSTART:20261202T180000Z\r\n")]
    public void What_is_no_list_is_said_to_be_none(string text)
    {
        var (events, fault) = DeskCalendar.Read(text, lisbon);
        Assert.Empty(events);
        Assert.NotEmpty(fault!);
    }

    [Fact]
    public void What_is_damaged_on_the_way_never_throws()
    {
        var whole = Encoding.UTF8.GetBytes(
            File("UID:a\nDTSTART;TZID=Europe/Berlin:20261202T180000\nRRULE:FREQ=DAILY\nATTENDEE;CN=Ada:mailto:a@desk.example"));
        Gen.Select(Gen.Int[0, whole.Length - 1], Gen.Byte, Gen.Int[0, whole.Length]).Array[1, 6].Sample(damage =>
        {
            var bytes = whole.ToArray();
            foreach (var (at, with, end) in damage)
            {
                bytes[at] = with;
                bytes = end > at && bytes.Length == whole.Length && end % 7 == 0
                    ? [.. bytes[..at], .. bytes[end..], .. new byte[whole.Length - (bytes.Length - end + at)]] : bytes;
            }

            var (events, fault) = DeskCalendar.Read(Encoding.UTF8.GetString(bytes), lisbon);
            Assert.True(events.IsEmpty == fault is not null);
        }, iter: 500);
    }

    private static DeskEvent List(params (string Name, DeskStanding Standing)[] guests) => new(
        "a", 0, "Class", DateTimeOffset.UnixEpoch, false, [
            .. guests.Select(g => new DeskGuest(DeskGuest.KeyOf(null, g.Name), g.Name, g.Standing))]);

    [Fact]
    public void Nobody_is_guessed_or_invented()
    {
        var roster = new[] { ("1", "Ada Wren"), ("2", "Bob Lark"), ("3", "bob  lark"), ("4", "Cy") }.Select(p =>
            new Person(new PersonId(p.Item1), p.Item2)).ToArray();
        var list = List(("ADA  wren", DeskStanding.Coming), ("Bob Lark", DeskStanding.Coming), ("Dora", DeskStanding.Waiting),
            ("Cyrus", DeskStanding.Gone));
        list = list with { Guests = [.. list.Guests.Select(g => g with { Name = DeskGuest.NameOf(g.Name) })] };
        var names = new DeskNames(roster, ImmutableDictionary<string, PersonId?>.Empty);
        Assert.Equal(["1", null, null, null], list.Guests.Select(g => names.Of(g)?.Value));
        // Two are called so, one nobody is; who has cancelled need not be known.
        Assert.Equal([false, true, true, false], list.Guests.Select(names.Asks));
        var told = new DeskNames(
            roster, new Dictionary<string, PersonId?> { [list.Guests[1].Key] = new PersonId("3"), [list.Guests[2].Key] = null });
        Assert.Equal(["1", "3", null, null], list.Guests.Select(g => told.Of(g)?.Value));
        Assert.DoesNotContain(list.Guests, told.Asks);
        Assert.Equal(["1 Coming", "3 Coming"], told.Said(list).Known.Select(s => $"{s.Key.Value} {s.Value}").Order());
        Assert.All(told.Said(list with { Cancelled = true }).Known.Values, s => Assert.Equal(DeskStanding.Gone, s));
    }

    /// <summary>
    /// However lists follow each other: those of the desk are expected exactly as its last list says, those put in by hand stay,
    /// and nobody is lost from the count.
    /// </summary>
    [Fact]
    public void The_last_list_counts_and_what_was_done_by_hand_stays()
    {
        var people = Enumerable.Range(0, 6).Select(i => new PersonId($"{i}")).ToArray();
        var roster = people.Select(p => new Person(p, $"P{p.Value}")).ToArray();
        var names = new DeskNames(roster, ImmutableDictionary<string, PersonId?>.Empty);
        var guests = Gen.Int[0, 3].Array[6]
            .Select(s => List([.. s.Select((standing, i) => (Name: $"P{(i < 5 ? i : 99)}", standing)).Where(g => g.standing < 3)
                .Select(g => (g.Name, (DeskStanding)g.standing))]));
        Gen.Select(guests.Array[1, 6], Gen.Int[0, 9]).Sample((lists, heads) =>
        {
            // One whom the desk never names, and one who may be on its list already, with a standing of their own.
            var now = new Expectations([people[5], people[0]], Math.Max(2, heads));
            DeskSaid? before = null;
            foreach (var list in lists.Append(lists[^1] with { Cancelled = true }))
            {
                var says = names.Said(list);
                now = now.Follow(before, says);
                before = says;
                Assert.All(says.Known, s => Assert.Equal(s.Value == DeskStanding.Coming, now.People.Contains(s.Key)));
                Assert.Contains(people[5], now.People);
                Assert.Equal(now.People.Length, now.People.Distinct().Count());
                Assert.Equal(now.People.Length + (list.Cancelled ? 0
                    : list.Guests.Count(g => g.Name == "P99" && g.Standing == DeskStanding.Coming)), now.HeadCount);
            }
        });
    }

    [Fact]
    public void What_was_done_by_hand_stays_until_the_desk_says_something_else()
    {
        var roster = new[] { "Ada", "Bo", "Cy" }.Select(n => new Person(new PersonId(n), n)).ToArray();
        var names = new DeskNames(roster, ImmutableDictionary<string, PersonId?>.Empty);
        var first = List(("Ada", DeskStanding.Coming), ("Bo", DeskStanding.Waiting));
        var now = new Expectations([new PersonId("Bo"), new PersonId("Cy")], 12).Follow(null, names.Said(first));
        Assert.Equal("Cy Ada 2", $"{string.Join(' ', now.People.Select(p => p.Value))} {now.HeadCount}");
        // Bo is put in, Ada taken out by hand; the list says the same as before of both, and of somebody new.
        var second = List(("Ada", DeskStanding.Coming), ("Bo", DeskStanding.Waiting), ("Dora", DeskStanding.Coming));
        now = new Expectations([new PersonId("Bo"), new PersonId("Cy")], 2).Follow(names.Said(first), names.Said(second));
        Assert.Equal("Bo Cy 3", $"{string.Join(' ', now.People.Select(p => p.Value))} {now.HeadCount}");
        var third = List(("Bo", DeskStanding.Gone));
        now = now.Follow(names.Said(second), names.Said(third));
        Assert.Equal(["Cy"], now.People.Select(p => p.Value));
    }

    [Fact]
    public void What_is_written_is_read_back()
    {
        var list = List(("Ada; Wren, \"the\" first", DeskStanding.Coming), ("Bo", DeskStanding.Waiting),
            ("Cy", DeskStanding.Gone)) with
        { Sequence = 7, Title = "Sails, ropes; and a title that is longer than the seventy-five octets of one line" };
        foreach (var cancelled in new[] { false, true })
        {
            var text = DeskCalendar.Write(
                list with { Cancelled = cancelled }, g => $"{g.Key}@desk.example", TimeSpan.FromHours(1), DateTimeOffset.UnixEpoch);
            var back = Assert.Single(DeskCalendar.Read(text, lisbon).Events);
            Assert.Equal((list.Title, 7, cancelled, list.Starts), (back.Title, back.Sequence, back.Cancelled, back.Starts));
            // A quotation mark cannot stand in a parameter (RFC 5545, 3.2).
            Assert.Equal(list.Guests.Select(g => (g.Name.Replace("\"", "", StringComparison.Ordinal), g.Standing)),
                back.Guests.Select(g => (g.Name, g.Standing)));
        }
    }
}
