using System.Net;
using System.Text.Json.Nodes;
using Halterion.Web.Library;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>The room of a stored session: its own people, pins, groups, kit and floor.</summary>
public class RoomApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Rotation = """
        {"format":"halterion-class","version":1,"title":"Loft","slotMinutes":20,"blocks":[{"id":"b","name":"Main","phase":"main","format":"rotation","windowSeconds":40,"stations":[
          {"id":"s1","dose":[{"kind":"time","amount":40}],"options":[{"id":"o1","tier":"main","move":"jump-squat"},{"id":"o2","tier":"easier","move":"squat","depth":"half"}]},
          {"id":"s2","dose":[{"kind":"time","amount":40}],"options":[{"id":"o3","tier":"main","move":"march-bridge"}]}]}]}
        """;

    /// <summary>Adding or renaming rooms moves nothing, and a group that was shown is kept whichever way the head-count changes.</summary>
    [Fact]
    public async Task A_session_keeps_its_room_and_people_their_group()
    {
        using var own = new Studio();
        var people = new List<string>();
        foreach (var name in new[] { "Ada", "Bo", "Cy", "Di", "Ed" })
        {
            people.Add((string)(await own.Post("/api/people", $$"""{"name":"{{name}}","ready":["land"]}"""))["id"]!);
        }

        string Hall(string name) => $$"""{"name":"{{name}}","floor":{"widthM":8,"lengthM":10,"fixtures":[]},"stock":[]}""";
        var hall = (string)(await own.Post("/api/rooms", Hall("Loft")))["id"]!;
        var view = await own.Post("/api/classes/file", Rotation);
        var session = (string)view["sessions"]![0]!["id"]!;
        async Task<string> Room() => (string)(await own.Get($"/api/sessions/{session}/chosen"))["hall"]!;
        Assert.Equal(hall, await Room());
        await own.Post("/api/rooms", Hall("Attic"));
        Assert.Equal(hall, await Room());
        using var renamed = await own.Put($"/api/rooms/{hall}", Hall("Zeppelin shed"), "1");
        Assert.Equal(HttpStatusCode.OK, renamed.StatusCode);
        Assert.Equal(hall, await Room());

        var revision = 1;
        async Task<Dictionary<string, int>> With(int heads, params int[] who)
        {
            var expected = string.Join(",", who.Select(i => $"\"{people[i]}\""));
            using var booked = await own.Put(
                $"/api/sessions/{session}",
                $$"""{"booking":{"zone":"Europe/Lisbon","headCount":{{heads}},"expected":[{{expected}}]} }""",
                $"{revision++}");
            Assert.Equal(HttpStatusCode.OK, booked.StatusCode);
            var room = await own.Post($"/api/sessions/{session}/room", $$"""{"class":{{Rotation}}}""");
            return room["groups"]![0]!["groups"]!.AsArray()
                .SelectMany((g, i) => g!["people"]!.AsArray().Select(p => ((string)p!, i)))
                .ToDictionary(p => p.Item1, p => p.i);
        }

        var four = await With(4, 0, 1, 2, 3);
        var three = await With(3, 0, 1, 2);
        Assert.All(three, p => Assert.Equal(four[p.Key], p.Value));
        var five = await With(5, 0, 1, 2, 3, 4);
        Assert.All(three, p => Assert.Equal(p.Value, five[p.Key]));
        Assert.Equal(five, await With(6, 0, 1, 2, 3, 4));
    }

    /// <summary>Every fault of a request is said at once: of the class, of the people, of the pins.</summary>
    [Fact]
    public async Task Every_fault_of_a_review_is_said_at_once()
    {
        using var bad = await studio.CreateClient().PostAsync("/api/plans/review", Json("""
            {"plan":{"format":"halterion-class","version":1,"title":"","slotMinutes":20,"blocks":[]},
             "people":[{"id":"p1","name":"Ada","statureCm":9}],"pins":[{"person":"nobody","station":"s","option":"o"}]}
            """));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, bad.StatusCode);
        var at = (await Read(bad))["errors"]!.AsArray().Select(e => (string)e!["pointer"]!).ToArray();
        Assert.Contains("/people/0/statureCm", at);
        Assert.Contains("/pins/0/person", at);
        Assert.Contains("/plan/title", at);
        Assert.Contains("/plan/blocks", at);
    }

    [Fact]
    public async Task A_session_keeps_pins_groups_floor_and_looks_and_says_what_they_change()
    {
        var people = new List<string>();
        foreach (var body in new[] { """{"name":"Ida","limits":[{"limit":"knee","note":"planted-care"}]}""",
                """{"name":"Jon","ready":["land"]}""", """{"name":"Kit"}""" })
        {
            people.Add((string)(await studio.Post("/api/people", body))["id"]!);
        }

        await studio.Post("/api/rooms", """{"name":"Hall","floor":{"widthM":8,"lengthM":10,"fixtures":[{"kind":"door","x":7,"y":9,"widthM":1,"lengthM":1}]},"stock":[{"item":"mat","count":1}]}""");
        var view = await studio.Post("/api/classes/file", Rotation);
        var (id, session) = ((string)view["id"]!, (string)view["sessions"]![0]!["id"]!);
        var expected = string.Join(",", people.Select(p => $"\"{p}\""));
        using var booked = await studio.Put(
            $"/api/sessions/{session}", $$"""{"booking":{"zone":"Europe/Lisbon","headCount":4,"expected":[{{expected}}]} }""", "1");
        Assert.Equal(HttpStatusCode.OK, booked.StatusCode);
        var with = $$"""{"class":{{Rotation}}}""";
        var room = await studio.Post($"/api/sessions/{session}/room", with);
        Assert.Equal("4 people, 2 stations: not enough of 2 items", (string)room["summary"]!);
        JsonNode Cell(JsonNode of, int person, int station) => of["people"]![person]!["cells"]![station]!;
        Assert.Equal("easier", (string)Cell(room, 0, 0)["kind"]!);

        // A choice against a limit wants a reason; given back, the planner has it again.
        using var refused = await studio.CreateClient().PostAsync(
            $"/api/sessions/{session}/pins", Json(Pin(people[0], "s1", ""","option":"o1" """)));
        Assert.Equal("/reason", (string)(await Read(refused))["errors"]![0]!["pointer"]!);
        var pinned = await studio.Post(
            $"/api/sessions/{session}/pins", Pin(people[0], "s1", ""","option":"o1","reason":"step, no jump" """));
        Assert.True((bool)Cell(pinned["room"]!, 0, 0)["against"]!);
        Assert.True((bool)Cell(await studio.Post($"/api/sessions/{session}/room", with), 0, 0)["pinned"]!);
        Assert.Contains("step, no jump", (await studio.Get($"/api/people/{people[0]}/export")).ToJsonString(), StringComparison.Ordinal);
        var back = await studio.Post($"/api/sessions/{session}/pins", Pin(people[0], "s1", ""));
        Assert.Equal("easier", (string)Cell(back["room"]!, 0, 0)["kind"]!);
        foreach (var (wrong, pointer) in new[] { (Pin("nobody", "s1", ""), "/person"), (Pin(people[0], "s9", ""), "/station"),
                (Pin(people[0], "s1", ""","option":"o3" """), "/option") })
        {
            using var bad = await studio.CreateClient().PostAsync($"/api/sessions/{session}/pins", Json(wrong));
            Assert.Equal(pointer, (string)(await Read(bad))["errors"]![0]!["pointer"]!);
        }

        // Groups as they were chosen stay, also uneven; who should not hop begins elsewhere when they are made.
        Assert.DoesNotContain(people[0], room["groups"]![0]!["groups"]![0]!["people"]!.AsArray().Select(p => (string)p!));
        var chosen = await studio.Post($"/api/sessions/{session}/groups",
            $$"""{"class":{{Rotation}},"block":"b","groups":[["{{people[0]}}","{{people[1]}}","{{people[2]}}"],[]]}""");
        Assert.Equal([3, 0], chosen["groups"]![0]!["groups"]!.AsArray().Select(g => g!["people"]!.AsArray().Count));
        var even = await studio.Post($"/api/sessions/{session}/groups", $$"""{"class":{{Rotation}},"block":"b"}""");
        Assert.Equal([1, 2], even["groups"]![0]!["groups"]!.AsArray().Select(g => g!["people"]!.AsArray().Count).Order());

        // Where stations were put, and what was looked at.
        using var put = await studio.Put(
            $"/api/sessions/{session}/chosen",
            """{"spots":{"s1":{"x":1.5,"y":2,"turned":false},"s2":{"x":1.5,"y":2}},"looked":["mat"]}""",
            "1");
        Assert.Equal(HttpStatusCode.OK, put.StatusCode);
        Assert.Equal("""["mat"]""", (await studio.Get($"/api/sessions/{session}/chosen"))["looked"]!.ToJsonString());
        var floor = await studio.Post($"/api/sessions/{session}/floor", $$"""{"class":{{Rotation}},"block":"b"}""");
        Assert.Contains(floor["floor"]!["troubles"]!.AsArray(),
            t => ((string)t!["words"]!).StartsWith("Stations 1 and 2 overlap", StringComparison.Ordinal));
        Assert.Equal(
            """[[1,2],[2,1]]""", new JsonArray([.. floor["windows"]!.AsArray().Select(w => w!["groups"]!.DeepClone())]).ToJsonString());
        Assert.StartsWith("<svg", (string)floor["svg"]!, StringComparison.Ordinal);

        // Nothing private on what is meant for the room, and names on the run sheet only.
        Assert.Contains("Ida",
            (await studio.Get($"/api/classes/{id}/run-sheet?session={session}"))["blocks"]![0]!["stations"]!.ToJsonString(),
                StringComparison.Ordinal);
        foreach (var address in new[] { $"/api/classes/{id}/cards", $"/api/classes/{id}/file", $"/api/classes/{id}/cues.vtt",
            $"/api/classes/{id}/timeline.csv", $"/api/classes/{id}/tape.svg" })
        {
            using var sheet = await studio.CreateClient().GetAsync(address);
            var text = await sheet.Content.ReadAsStringAsync();
            Assert.DoesNotContain("planted-care", text, StringComparison.Ordinal);
            Assert.DoesNotContain("Ida", text, StringComparison.Ordinal);
        }

        Assert.DoesNotContain("planted-care", (await studio.Get($"/api/classes/{id}/run-sheet?session={session}"))
            .ToJsonString() + floor.ToJsonString() + await studio.CreateClient().GetStringAsync("/api/sessions"), StringComparison.Ordinal);
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        Assert.DoesNotContain("planted-care", lead.ToJsonString(), StringComparison.Ordinal);
        await studio.Post($"/api/leads/{lead["id"]}/commands",
            $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"start","at":{{DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()}},"device":"laptop"}]}""");
        var cancel = TestContext.Current.CancellationToken;
        using var stream = await studio.CreateClient().GetAsync(
            $"/api/sessions/{session}/events", HttpCompletionOption.ResponseHeadersRead, cancel);
        using var news = new StreamReader(await stream.Content.ReadAsStreamAsync(cancel));
        var told = await news.ReadLineAsync(cancel) + await news.ReadLineAsync(cancel);
        Assert.Contains("start", told, StringComparison.Ordinal);
        Assert.DoesNotContain("planted-care", told, StringComparison.Ordinal);
        Assert.DoesNotContain("Ida", told, StringComparison.Ordinal);

        string Pin(string person, string station, string more) =>
            $$"""{"class":{{Rotation}},"person":"{{person}}","station":"{{station}}"{{more}}}""";
    }
}
