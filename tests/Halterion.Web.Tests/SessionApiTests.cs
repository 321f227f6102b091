using System.Net;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>Occasions: their leads and their logs.</summary>
public sealed class SessionApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Booking = """{"zone":"Europe/Lisbon","headCount":9,"startsAt":"2026-12-01T18:00"}""";

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    private static string Sent(int expected, params (Guid Id, string Kind)[] commands) =>
        $$"""{"expected":{{expected}},"commands":[{{string.Join(",", commands.Select(c => $$"""{"id":"{{c.Id}}","kind":"{{c.Kind}}","at":{{Now}},"device":"laptop"}"""))}}]}""";

    private async Task<(string Class, string Session)> Opened()
    {
        var view = await studio.Post("/api/classes/file", Plan);
        return ((string)view["id"]!, (string)view["sessions"]![0]!["id"]!);
    }

    private Task<HttpResponseMessage> SaveLonger(string id, string version) =>
        studio.Put($"/api/classes/{id}", $$"""{"plan":{{Plan.Replace("40", "55", StringComparison.Ordinal)}}}""", version);

    [Fact]
    public async Task Commands_count_once_and_a_stranger_is_told_what_came_before()
    {
        var (_, session) = await Opened();
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        var address = $"/api/leads/{lead["id"]}/commands";
        var (start, pause) = (Guid.NewGuid(), Guid.NewGuid());
        await studio.Post(address, Sent(0, (start, "start")));
        var both = await studio.Post(address, Sent(0, (start, "start"), (pause, "pause")));
        Assert.Equal(["start laptop", "pause laptop"], both["commands"]!.AsArray().Select(c => $"{c!["kind"]} {c["device"]}"));
        using var stranger = await studio.CreateClient().PostAsync(address, Json(Sent(0, (Guid.NewGuid(), "resume"))));
        Assert.Equal(HttpStatusCode.Conflict, stranger.StatusCode);
        Assert.Equal(2, (await Read(stranger))["commands"]!.AsArray().Count);
    }

    [Fact]
    public async Task What_was_never_reached_is_left_out_of_the_log()
    {
        var two = JsonNode.Parse(Plan)!;
        two["blocks"]!.AsArray().Add(two["blocks"]![0]!.DeepClone());
        var view = await studio.Post("/api/classes/file", two.ToJsonString());
        var session = (string)view["sessions"]![0]!["id"]!;
        var person = (string)(await studio.Post("/api/people", """{"name":"Ora Lind"}"""))["id"]!;
        async Task<int> Columns() => (await studio.Get($"/api/sessions/{session}/log"))["columns"]!.AsArray().Count;
        Assert.Equal(2, await Columns());

        // Started 20 s ago, 10 s into the first station: the second was not reached.
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        var start = Now - 20_000;
        await studio.Post($"/api/leads/{lead["id"]}/commands", $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"start","at":{{start}}},{"id":"{{Guid.NewGuid()}}","kind":"finish","at":{{Now}}}]}""");
        var log = await studio.Get($"/api/sessions/{session}/log");
        Assert.Equal("Bodyweight squat", (string?)Assert.Single(log["columns"]!.AsArray())!["name"]);
        Assert.Single(log["rows"]!.AsArray().Single(r => (string?)r!["name"] == "Ora Lind")!["row"]!["uses"]!.AsArray());
        using var erased = await studio.CreateClient().DeleteAsync($"/api/people/{person}");
        Assert.True(erased.IsSuccessStatusCode);
    }

    [Fact]
    public async Task The_lead_knows_when_the_booked_slot_is_over()
    {
        var (_, session) = await Opened();
        Assert.Null((await studio.Post($"/api/sessions/{session}/lead", ""))["endsAt"]);
        using (await studio.Put($"/api/sessions/{session}", $$"""{"booking":{{Booking}}}""", "1"))
        {
            // 18:00 in Lisbon in winter is 18:00 UTC; the slot is 10 min.
            var ends = (long)(await studio.Post($"/api/sessions/{session}/lead", ""))["endsAt"]!;
            Assert.Equal(new DateTimeOffset(2026, 12, 1, 18, 10, 0, TimeSpan.Zero), DateTimeOffset.FromUnixTimeMilliseconds(ends));
        }
    }

    [Fact]
    public async Task A_started_class_is_never_lost_to_another_tab()
    {
        var (id, session) = await Opened();
        var first = await studio.Post($"/api/sessions/{session}/lead", "");
        using (await SaveLonger(id, "1"))
        {
            // The second tab opens the lead of the newer version; nobody has started it when the first one starts.
            var second = await studio.Post($"/api/sessions/{session}/lead", "");
            Assert.Equal((50, 65), ((int)first["script"]!["length"]!, (int)second["script"]!["length"]!));
            await studio.Post($"/api/leads/{first["id"]}/commands", Sent(0, (Guid.NewGuid(), "start")));
            var again = await studio.Post($"/api/sessions/{session}/lead", "");
            Assert.Equal((first["id"]!.ToString(), 1), (again["id"]!.ToString(), again["commands"]!.AsArray().Count));

            // From now on the other tab is shown the way.
            using var late = await studio.CreateClient().PostAsync(
                $"/api/leads/{second["id"]}/commands", Json(Sent(0, (Guid.NewGuid(), "start"))));
            Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
            Assert.Equal(first["id"]!.ToString(), (string?)(await Read(late))["open"]!["lead"]);
        }

        Assert.Equal(1, (int)(await studio.Get($"/api/sessions/{session}"))["classVersion"]!);
    }

    /// <summary>
    /// What was led says what is logged: a version that came after it changes neither, however often something is pinned.
    /// </summary>
    [Fact]
    public async Task A_session_keeps_the_version_that_was_led_when_it_is_logged_later()
    {
        var (id, session) = await Opened();
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        await studio.Post($"/api/leads/{lead["id"]}/commands", Sent(0, (Guid.NewGuid(), "start")));
        using (await SaveLonger(id, "1"))
        {
            using var logged = await studio.PutNow($"/api/sessions/{session}/log", """{"log":{"rows":[],"note":"Warm"}}""");
            Assert.True(logged.IsSuccessStatusCode, await logged.Content.ReadAsStringAsync());
            await studio.Post($"/api/leads/{lead["id"]}/commands", Sent(1, (Guid.NewGuid(), "pause")));
            Assert.Equal(1, (int)(await studio.Get($"/api/sessions/{session}"))["classVersion"]!);
            Assert.Equal(50, (int)(await studio.Post($"/api/sessions/{session}/lead", ""))["script"]!["length"]!);
        }
    }

    /// <summary>
    /// What is remembered of people while leading stays with the instructor: neither a wall's answer nor its stream has it.
    /// </summary>
    [Fact]
    public async Task A_wall_hears_of_the_clock_and_of_nobody()
    {
        var (_, session) = await Opened();
        var person = Guid.NewGuid().ToString();
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        await studio.Post($"/api/leads/{lead["id"]}/commands", $$"""
            {"expected":0,"commands":[
              {"id":"{{Guid.NewGuid()}}","kind":"start","at":{{Now}},"device":"laptop"},
              {"id":"{{Guid.NewGuid()}}","kind":"note","at":{{Now}},"device":"laptop","payload":{"person":"{{person}}","text":"planted-note","scene":0} },
              {"id":"{{Guid.NewGuid()}}","kind":"note","at":{{Now}},"device":"laptop","payload":{"person":"{{person}}","tap":"pain","scene":0} },
              {"id":"{{Guid.NewGuid()}}","kind":"pause","at":{{Now}},"device":"laptop"}]}
            """);
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        async Task<JsonNode> Streamed(string address)
        {
            using var response = await studio.CreateClient().GetAsync(address, HttpCompletionOption.ResponseHeadersRead, stop.Token);
            using var news = new StreamReader(await response.Content.ReadAsStreamAsync(stop.Token));
            return await Next(news, "lead", stop.Token);
        }

        foreach (var told in new[] { await studio.Get($"/api/wall/{session}"), await Streamed($"/api/wall/{session}/events") })
        {
            Assert.Equal(["start", "pause"], told["commands"]!.AsArray().Select(c => (string?)c!["kind"]));
            Assert.DoesNotContain("planted", told.ToJsonString(), StringComparison.Ordinal);
            Assert.DoesNotContain("laptop", told.ToJsonString(), StringComparison.Ordinal);
            Assert.DoesNotContain(person, told.ToJsonString(), StringComparison.Ordinal);
        }

        Assert.Contains("planted-note", (await Streamed($"/api/sessions/{session}/events")).ToJsonString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_class_under_way_is_the_first_in_the_list_until_it_ends()
    {
        var (_, session) = await Opened();
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        var address = $"/api/leads/{lead["id"]}/commands";
        async Task<string?> StatusIn(string list) =>
            (await studio.Get(list))["sessions"]!.AsArray().FirstOrDefault(s => (string?)s!["id"] == session)?["status"]?.ToString();

        Assert.Equal("planned", await StatusIn("/api/sessions"));
        var start = Guid.NewGuid();
        await studio.Post(address, Sent(0, (start, "start")));
        var next = (await studio.Get("/api/sessions"))["sessions"]!.AsArray();
        Assert.All(next.TakeWhile(s => (string?)s!["id"] != session), s => Assert.Equal("running", (string?)s!["status"]));
        Assert.Equal("running", await StatusIn("/api/sessions"));
        Assert.Null(await StatusIn("/api/sessions?held=true"));

        await studio.Post(address, Sent(1, (Guid.NewGuid(), "finish")));
        Assert.Null(await StatusIn("/api/sessions"));
        Assert.Equal("led", await StatusIn("/api/sessions?held=true"));
    }

    [Fact]
    public async Task Eight_openings_at_once_are_one_lead()
    {
        var (_, session) = await Opened();
        var leads = await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => studio.Post($"/api/sessions/{session}/lead", "")));
        Assert.Single(leads.Select(l => (string)l["id"]!).Distinct());
    }

    [Fact]
    public async Task Led_again_is_another_session_of_the_class()
    {
        var (id, session) = await Opened();
        var first = await studio.Post($"/api/sessions/{session}/lead", "");
        await studio.Post($"/api/leads/{first["id"]}/commands", Sent(0, (Guid.NewGuid(), "start"), (Guid.NewGuid(), "finish")));
        using var saved = await SaveLonger(id, "1");
        var next = await studio.Post($"/api/classes/{id}/sessions", $$"""{"booking":{{Booking}}}""");
        Assert.Equal(65, (int)(await studio.Post($"/api/sessions/{next["id"]}/lead", ""))["script"]!["length"]!);
        Assert.Equal(50, (int)(await studio.Post($"/api/sessions/{session}/lead", ""))["script"]!["length"]!);
        var held = (await studio.Get("/api/sessions?held=true"))["sessions"]!.AsArray();
        Assert.Contains(held, s => (string?)s!["id"] == session && (string?)s["status"] == "led" && (string?)s["length"] == "50 s");
        Assert.Contains(
            (await studio.Get("/api/sessions"))["sessions"]!.AsArray(),
            s => (string?)s!["id"] == (string?)next["id"] && (string?)s["length"] == "65 s");
    }

    [Theory]
    [InlineData("1000")]
    [InlineData("-5")]
    [InlineData("9000000000000")]
    [InlineData("1.5")]
    [InlineData("\"now\"")]
    public async Task Absurd_times_are_refused(string at)
    {
        var (_, session) = await Opened();
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        using var response = await studio.CreateClient().PostAsync(
            $"/api/leads/{lead["id"]}/commands", Json(
                $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"start","at":{{at}}}]}"""));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Equal("/commands/0/at", (string?)(await Read(response))["errors"]![0]!["pointer"]);
    }

    [Fact]
    public async Task A_second_screen_hears_of_every_tap()
    {
        var (_, session) = await Opened();
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(30));
        using var response = await studio.CreateClient().GetAsync(
            $"/api/sessions/{session}/events", HttpCompletionOption.ResponseHeadersRead, stop.Token);
        Assert.Equal("text/event-stream", response.Content.Headers.ContentType!.MediaType);
        using var news = new StreamReader(await response.Content.ReadAsStreamAsync(stop.Token));
        Assert.Empty((await Next(news, "lead", stop.Token))["commands"]!.AsArray());
        await studio.Post($"/api/leads/{lead["id"]}/commands", Sent(0, (Guid.NewGuid(), "start")));
        Assert.Equal("start", (string?)(await Next(news, "lead", stop.Token))["commands"]![0]!["kind"]);
        Assert.InRange((long)(await Next(news, "beat", stop.Token))["now"]!, Now - 60_000, Now + 60_000);
    }

    private static async Task<JsonNode> Next(StreamReader news, string kind, CancellationToken cancel)
    {
        while (await news.ReadLineAsync(cancel) is { } line)
        {
            if (line == $"event: {kind}")
            {
                return JsonNode.Parse((await news.ReadLineAsync(cancel))!["data: ".Length..])!;
            }
        }

        throw new InvalidOperationException("The stream has ended.");
    }

    [Fact]
    public async Task A_log_says_the_same_whatever_becomes_of_the_class()
    {
        var ada = await studio.Post(
            "/api/people", """{"name":"Ada","level":{"squat":"easier","lunge":"easier","hinge":"easier","bridge":"easier"}}""");
        var bo = await studio.Post("/api/people", """{"name":"Bo","level":{"squat":"harder"}}""");
        var (id, session) = await Opened();
        var address = $"/api/sessions/{session}/log";
        var log = await studio.Get(address);
        Assert.Equal(["b1s1o2", "b1s1o1"], log["rows"]!.AsArray().Select(r => (string)r!["row"]!["uses"]![0]!["option"]!));
        var rows = new JsonArray([.. log["rows"]!.AsArray().Select(r => r!["row"]!.DeepClone())]);
        rows[1]!["came"] = false;
        rows[0]!["note"] = "knee fine";
        var body = $$"""{"log":{"rows":{{rows.ToJsonString()}},"note":"good"} }""";
        using var saved = await studio.Put(address, body, "0");
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        using var late = await studio.Put(address, body, "0");
        Assert.Equal(HttpStatusCode.PreconditionFailed, late.StatusCode);

        // The station is deleted afterwards; the log still tells what was done.
        var plan = (await studio.Get($"/api/classes/{id}"))["plan"]!;
        plan["blocks"]![0]!["stations"]![0] = JsonNode.Parse(
            """{"id":"new1","dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"hip-hinge"}]}""");
        using var changed = await studio.Put($"/api/classes/{id}", $$"""{"plan":{{plan.ToJsonString()}}}""", "1");
        Assert.Equal(HttpStatusCode.OK, changed.StatusCode);
        var after = await studio.Get(address);
        Assert.Equal(("b1s1", "Bodyweight squat"), ((string)after["columns"]![0]!["station"]!, (string)after["columns"]![0]!["name"]!));
        Assert.Equal("b1s1o2", (string?)after["rows"]![0]!["row"]!["uses"]![0]!["option"]);

        // What is no station of it is refused with its place.
        using var wrong = await studio.Put(address, body.Replace("b1s1\"", "b9\"", StringComparison.Ordinal), "1");
        Assert.Equal("/log/rows/0/uses/0/station", (string?)(await Read(wrong))["errors"]![0]!["pointer"]);
        using var unknown = await studio.Put(address, body.Replace("\"came\"", "\"game\":1,\"came\"", StringComparison.Ordinal), "1");
        Assert.Equal("/log/rows/0/game", (string?)(await Read(unknown))["errors"]![0]!["pointer"]);

        var export = await studio.Get($"/api/people/{ada["id"]}/export");
        Assert.Equal(
            ("knee fine", "Sit-to-stand"),
            ((string)export["classes"]![0]!["note"]!, ((string)export["classes"]![0]!["stations"]![0]!["did"]!).Split(',')[0]));
        using var erased = await studio.CreateClient().DeleteAsync($"/api/people/{ada["id"]}");
        Assert.Equal(["Bo"], (await studio.Get(address))["rows"]!.AsArray().Select(r => (string)r!["name"]!));
        Assert.NotNull(bo["id"]);
    }
}
