using System.Buffers.Binary;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>What the addresses answer that no other test asks: belts, clips, the wall, files to take along, figures, devices.</summary>
public sealed class AnswerApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Split = """
        {"format":"halterion-class","version":1,"title":"Split & <room>","slotMinutes":10,"leadInSeconds":10,"blocks":[
          {"id":"b","name":"Work","phase":"main","rounds":2,"betweenRounds":30,"stations":[
            {"id":"s","sides":"each","dose":[{"kind":"reps","amount":4}],
             "options":[{"id":"m","tier":"main","move":"split-squat"},{"id":"e","tier":"easier","move":"split-squat","support":"hand"}]}]}]}
        """;

    private async Task<HttpStatusCode> StatusOf(HttpMethod method, string address, HttpContent? content = null)
    {
        using var request = new HttpRequestMessage(method, address) { Content = content };
        using var response = await studio.CreateClient().SendAsync(request);
        return response.StatusCode;
    }

    private static ByteArrayContent Bytes(byte[] bytes, string type)
    {
        var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        return content;
    }

    private async Task<(byte[] Bytes, string Type)> File(string address)
    {
        using var response = await studio.CreateClient().GetAsync(address);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        return (await response.Content.ReadAsByteArrayAsync(), response.Content.Headers.ContentType!.MediaType!);
    }

    private async Task<(string Class, string Session)> Held(string file, DateTimeOffset? starts = null)
    {
        var id = await studio.OpenFile(file);
        var booking = starts is { } at ? $$""" ,"startsAt":"{{at:yyyy-MM-ddTHH:mm}}" """ : "";
        var session = await studio.Post($"/api/classes/{id}/sessions", $$"""{"booking":{"zone":"UTC","headCount":4{{booking}} } }""");
        return (id, (string)session["id"]!);
    }

    /// <summary>
    /// Tanaka et al., J Am Coll Cardiol 37, 2001 (from memory): 208 − 0.7 × age; at 40 that is 180. Bluetooth SIG, Heart Rate Service
    /// 1.0 (from memory): flags, then the rate; flag 1: 16 bits wide, flags 2 and 4: there is contact.
    /// </summary>
    [Fact]
    public async Task A_belt_is_told_as_a_share_of_what_is_estimated_for_its_wearer()
    {
        var born = DateTime.UtcNow.Year - 40;
        var person = (string)(await studio.Post("/api/people", $$"""{"name":"Runa Heart","birthYear":{{born}}}"""))["id"]!;
        using (var given = await studio.Put("/api/belts/b-1", $$"""{"person":"{{person}}"}"""))
        {
            Assert.Equal(HttpStatusCode.NoContent, given.StatusCode);
        }

        async Task<JsonNode> After(params byte[] frame)
        {
            var sent = Bytes(frame, "application/octet-stream");
            Assert.Equal(HttpStatusCode.NoContent, await StatusOf(HttpMethod.Post, "/api/belts/b-1/frames", sent));
            return (await studio.Get("/api/hearts"))["hearts"]!.AsArray().Single(h => (string?)h!["person"] == person)!;
        }

        Assert.Equal(0.5, (double)(await After(6, 90))["share"]!, 3);
        Assert.Equal(0.55, (double)(await After(7, 99, 0))["share"]!, 3);
        var off = await After(4, 99);
        Assert.True(off["share"] is null && (string)off["trouble"]! != "");

        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            await StatusOf(HttpMethod.Post, "/api/belts/b-1/frames", Bytes([6], "application/octet-stream")));
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            await StatusOf(HttpMethod.Post, "/api/belts/b-1/frames", Bytes(new byte[65], "application/octet-stream")));
        using var nobody = await studio.Put("/api/belts/b-2", $$"""{"person":"{{Guid.NewGuid()}}"}""");
        Assert.Equal(HttpStatusCode.NotFound, nobody.StatusCode);
    }

    [Fact]
    public async Task Stand_ins_for_belts_are_switched_on_and_off()
    {
        var (_, session) = await Held(Plan);
        using (var on = await studio.Put($"/api/sessions/{session}/belts", """{"on":true}"""))
        {
            Assert.Equal(HttpStatusCode.NoContent, on.StatusCode);
        }

        Assert.True((bool)(await studio.Get("/api/hearts"))["simulated"]!);
        using (await studio.Put($"/api/sessions/{session}/belts", """{"on":false}"""))
        {
            Assert.False((bool)(await studio.Get("/api/hearts"))["simulated"]!);
        }
    }

    [Fact]
    public async Task A_recorded_word_comes_back_as_it_was_said()
    {
        var sound = Enumerable.Range(0, 300).Select(i => (byte)i).ToArray();
        Assert.Equal(HttpStatusCode.NoContent, await StatusOf(HttpMethod.Put, "/api/clips/left", Bytes(sound, "audio/webm; codecs=opus")));
        Assert.Contains("left", (await studio.Get("/api/clips")).AsArray().Select(w => (string?)w));
        var (bytes, type) = await File("/api/clips/left");
        Assert.Equal(sound, bytes);
        Assert.Equal("audio/webm", type);
        Assert.Equal(HttpStatusCode.NoContent, await StatusOf(HttpMethod.Delete, "/api/clips/left"));
        Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Get, "/api/clips/left"));
        Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Delete, "/api/clips/left"));
    }

    /// <summary>What is given back is played by a browser as what it was said to be: nothing but sound is kept.</summary>
    [Theory]
    [InlineData("text/html", 10)]
    [InlineData("audio/webm", 0)]
    [InlineData("audio/webm", 400_001)]
    public async Task What_is_no_sound_of_a_word_is_not_kept(string type, int length)
    {
        Assert.Equal(HttpStatusCode.UnprocessableEntity, await StatusOf(HttpMethod.Put, "/api/clips/right", Bytes(new byte[length], type)));
        Assert.DoesNotContain("right", (await studio.Get("/api/clips")).AsArray().Select(w => (string?)w));
    }

    /// <summary>ISO 9241-303 (from memory): 20 to 22 minutes of arc are read with ease. 8 m × tan(22′) = 51.2 mm.</summary>
    [Fact]
    public async Task The_wall_is_told_how_high_its_digits_must_be()
    {
        var heights = (await studio.Get("/api/wall/digits")).AsArray();
        double At(double metres) => heights.Where(h => (double)h!["metres"]! == metres).Select(h => (double)h!["millimetres"]!).Single();
        Assert.InRange(At(8), 51.2, 52.2);
        Assert.InRange(At(4), 25.6, 26.6);
    }

    [Fact]
    public async Task The_wall_shows_a_class_to_everybody_in_figures_and_films()
    {
        var (_, session) = await Held(Split, DateTimeOffset.UtcNow.AddMinutes(5));
        Assert.NotNull((await studio.Get("/api/wall"))["session"]);
        Assert.InRange(
            (long)(await studio.Get("/api/wall/time"))["now"]! - DateTimeOffset.UtcNow.ToUnixTimeMilliseconds(), -5000, 5000);
        var figures = (await studio.Get($"/api/wall/{session}/figures")).AsArray();
        Assert.Equal(["m", "e"], figures.Select(f => (string)f!["option"]!).Distinct().OrderDescending());
        Assert.Contains(figures, f => (string)f!["option"]! == "m" && (string)f["side"]! == "left");
        Assert.All(figures, f => Assert.NotEmpty(f!["figure"]!.AsObject()));
        var film = await studio.Get($"/api/wall/{session}/film?option=m&part=1&side=left");
        Assert.Equal("s", (string?)film["station"]);
        var front = await studio.Get($"/api/wall/{session}/film?option=m&view=front");
        Assert.NotEqual(film["film"]!["viewBox"]!.ToString(), front["film"]!["viewBox"]!.ToString());
        Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Get, $"/api/wall/{session}/film?option=none"));
        Assert.Equal(HttpStatusCode.BadRequest, await StatusOf(HttpMethod.Get, $"/api/wall/{session}/film?option=m&view=above"));
        Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Get, $"/api/wall/{Guid.NewGuid()}/figures"));
    }

    [Fact]
    public async Task Calls_are_said_as_the_school_has_them()
    {
        var all = (await studio.Post("/api/plans/calls", $$"""{"plan":{{Split}},"silent":[]}"""))["calls"]!.AsArray();
        var kinds = all.Select(c => (string)c!["kind"]!).ToArray();
        Assert.Contains("count", kinds);
        Assert.Equal(all.Select(c => (decimal)c!["at"]!).Order(), all.Select(c => (decimal)c!["at"]!));
        var quiet = (await studio.Post("/api/plans/calls", $$"""{"plan":{{Split}},"silent":["count","side"]}"""))["calls"]!.AsArray();
        Assert.DoesNotContain(quiet, c => (string)c!["kind"]! is "count" or "side");
        Assert.NotEmpty(quiet);
        var usual = (await studio.Post("/api/plans/calls", $$"""{"plan":{{Split}}}"""))["calls"]!.ToJsonString();
        var asSettingsHaveIt = await studio.Post("/api/plans/calls", $$"""{"plan":{{Split}},"silent":null}""");
        Assert.Equal(usual, asSettingsHaveIt["calls"]!.ToJsonString());
        var bells = asSettingsHaveIt["bells"]!.AsArray().Select(b => (decimal)b!).ToArray();
        Assert.NotEmpty(bells);
        Assert.DoesNotContain(all, c => bells.Any(b => b - (decimal)c!["at"]! is > 0 and < 0.4m)
            && (string)c!["kind"]! is not ("count" or "countIn" or "time"));
    }

    /// <summary>A tap whose answer was lost is sent again: the same id counts once.</summary>
    [Fact]
    public async Task A_tap_that_is_sent_twice_counts_once()
    {
        var (_, session) = await Held(Split);
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        var (address, at) = ($"/api/leads/{lead["id"]}/commands", (long)lead["now"]!);
        var start = $$"""{"id":"{{Guid.NewGuid()}}","kind":"start","at":{{at}}}""";
        var once = await studio.Post(address, $$"""{"expected":0,"commands":[{{start}}]}""");
        var again = await studio.Post(address, $$"""{"expected":0,"commands":[{{start}}]}""");
        Assert.Equal((1, 1), (once["commands"]!.AsArray().Count, again["commands"]!.AsArray().Count));
        Assert.Equal(
            "Split & <room>", (string?)(await studio.Get($"/api/sessions/{session}/script"))["title"]);
        // Without a date there is nothing to be late for.
        Assert.Equal(HttpStatusCode.NoContent, await StatusOf(HttpMethod.Get, $"/api/leads/{lead["id"]}/ways"));
        Assert.Equal(
            HttpStatusCode.NotFound, await StatusOf(HttpMethod.Post, $"/api/leads/{Guid.NewGuid()}/commands", Json("""{"expected":0,"commands":[]}""")));
    }

    private async Task Tap(JsonNode lead, int known, params string[] commands) =>
        await studio.Post($"/api/leads/{lead["id"]}/commands", $$"""{"expected":{{known}},"commands":[{{string.Join(",", commands)}}]}""");

    private static string Command(string kind, long at, string payload = "") =>
        $$"""{"id":"{{Guid.NewGuid()}}","kind":"{{kind}}","at":{{at}}{{(payload.Length > 0 ? $",\"payload\":{payload}" : "")}}}""";

    /// <summary>What is shown is the class that was started last; where two are in progress a screen is told of both.</summary>
    [Fact]
    public async Task A_screen_shows_what_was_started_last_and_is_told_of_all()
    {
        var ((_, first), (_, last)) = (await Held(Split), await Held(Split));
        foreach (var session in new[] { first, last })
        {
            var lead = await studio.Post($"/api/sessions/{session}/lead", "");
            await Tap(lead, 0, Command("start", (long)lead["now"]! + (session == last ? 5 : 0)));
        }

        var on = await studio.Get("/api/wall");
        Assert.Equal(last, (string?)on["session"]);
        Assert.Equal([last, first], on["inProgress"]!.AsArray().Select(c => (string)c!["session"]!).Where(s => s == first || s == last));
        // One that stands paused since long past its end is nobody's.
        var open = await studio.Post($"/api/sessions/{last}/lead", "");
        var now = (long)open["now"]!;
        await Tap(open, 1, Command("finish", now));
        Assert.DoesNotContain((await studio.Get("/api/wall"))["inProgress"]!.AsArray(), c => (string)c!["session"]! == last);
    }

    /// <summary>Half of the work counts, less is cut short; who took the easier is proposed with it; the note says how it went.</summary>
    [Fact]
    public async Task The_log_is_filled_in_with_what_ran()
    {
        var person = (string)(await studio.Post("/api/people", """{"name":"Eve Easier"}"""))["id"]!;
        var id = await studio.OpenFile(Split);
        var session = (string)(await studio.Post(
            $"/api/classes/{id}/sessions", $$"""{"booking":{"zone":"UTC","headCount":1,"expected":["{{person}}"] } }"""))["id"]!;
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        var at = (long)lead["now"]! - 3_600_000;
        // Ten seconds of lead-in, then five of the first side; the easier is seen there.
        await Tap(
            lead, 0, Command("start", at), Command("note", at + 12_000, $$"""{"person":"{{person}}","tap":"easier","scene":1}"""),
            Command("finish", at + 15_000));
        var log = await studio.Get($"/api/sessions/{session}/log");
        Assert.StartsWith("cut short, 5 of ", (string)log["columns"]![0]!["cut"]!, StringComparison.Ordinal);
        var row = log["rows"]!.AsArray().First(r => (string)r!["row"]!["personId"]! == person)!["row"]!;
        Assert.Equal("e", (string?)row["uses"]![0]!["option"]);
        Assert.Contains("Left out: round 2 of 2, Work", (string)log["about"]!["note"]!, StringComparison.Ordinal);
        // What ran of its five reps is what is proposed; the second round is no set.
        Assert.Single(row["uses"]![0]!["sets"]!.AsArray());
        Assert.Contains("took the easier option", (string)row["note"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Who_needs_what_is_told_to_who_leads()
    {
        var person = (string)(await studio.Post("/api/people", """{"name":"Bo Balance","limits":[{"limit":"balance"}]}"""))["id"]!;
        var id = await studio.OpenFile(Split);
        var session = (string)(await studio.Post(
            $"/api/classes/{id}/sessions", $$"""{"booking":{"zone":"UTC","headCount":1,"expected":["{{person}}"] } }"""))["id"]!;
        var one = Assert.Single((await studio.Get($"/api/sessions/{session}/who")).AsArray())!;
        Assert.Equal((person, "BB"), ((string?)one["id"], (string?)one["initials"]));
    }

    /// <summary>The page leads the class with no server: nothing in it asks another address, and its title is text, not markup.</summary>
    [Fact]
    public async Task The_page_to_take_along_needs_nobody()
    {
        var id = await studio.OpenFile(Split);
        var (bytes, type) = await File($"/api/classes/{id}/lead.html");
        var page = Encoding.UTF8.GetString(bytes);
        Assert.Equal("text/html", type);
        Assert.Contains("<title>Split &amp; &lt;room&gt;", page, StringComparison.Ordinal);
        Assert.DoesNotContain("src=", page, StringComparison.Ordinal);
        // Words that were recorded go with it.
        using (var sound = new ByteArrayContent([1, 2, 3]) { Headers = { ContentType = new("audio/webm") } })
        {
            Assert.True(((int)await StatusOf(HttpMethod.Put, "/api/clips/left", sound)) < 300);
        }

        Assert.Contains(
            "\"left\":\"data:audio/webm;base64,AQID\"", Encoding.UTF8.GetString((await File($"/api/classes/{id}/lead.html")).Item1),
            StringComparison.Ordinal);
        await StatusOf(HttpMethod.Delete, "/api/clips/left");
        Assert.DoesNotContain("https://", page, StringComparison.Ordinal);
        Assert.DoesNotContain("http://", page.Replace("http://www.w3.org/", "", StringComparison.Ordinal), StringComparison.Ordinal);
    }

    /// <summary>RIFF WAVE (from memory): "RIFF", size, "WAVE", "fmt " with bytes a second at 28, "data" with its size behind it.</summary>
    [Fact]
    public async Task The_bells_are_as_long_as_the_class()
    {
        var id = await studio.OpenFile(Split);
        var (bytes, type) = await File($"/api/classes/{id}/bells.wav");
        Assert.Equal("audio/wav", type);
        Assert.Equal("RIFF", Encoding.ASCII.GetString(bytes, 0, 4));
        Assert.Equal("WAVEfmt ", Encoding.ASCII.GetString(bytes, 8, 8));
        var rate = BinaryPrimitives.ReadInt32LittleEndian(bytes.AsSpan(28));
        var data = Encoding.ASCII.GetString(bytes).IndexOf("data", StringComparison.Ordinal);
        var seconds = BinaryPrimitives.ReadInt32LittleEndian(bytes.AsSpan(data + 4)) / (double)rate;
        var length = (int)(await studio.Post("/api/plans/evaluate", Split))["totals"]!["seconds"]!;
        Assert.InRange(seconds, length, length + 4);
    }

    [Fact]
    public async Task Ready_blocks_doses_and_paces_can_be_used_as_they_are()
    {
        var starters = (await studio.Get("/api/starters")).AsArray();
        Assert.True(starters.Count >= 18);
        foreach (var starter in starters)
        {
            var file = $$"""{"format":"halterion-class","version":1,"title":"t","slotMinutes":60,"blocks":[{{starter!["block"]!.ToJsonString()}}] }""";
            Assert.NotNull((await studio.Post("/api/plans/evaluate", file))["totals"]);
        }

        Assert.NotEmpty((await studio.Get("/api/plans/walk-through-paces")).AsArray());
        foreach (var form in (await studio.Get("/api/plans/dose-forms")).AsArray())
        {
            var typed = new JsonObject { ["class"] = JsonNode.Parse(Split), ["station"] = "s", ["text"] = (string?)form!["form"] };
            var answer = await studio.Post("/api/plans/dose", typed.ToJsonString());
            Assert.True(answer["read"] is not null, $"“{form["form"]}”: {answer["problem"]?["detail"]}");
        }
    }

    /// <summary>Every rule says what is right, why, whose it is and where others differ; no two have one code.</summary>
    [Fact]
    public async Task Every_check_says_whose_it_is()
    {
        var checks = (await studio.Get("/api/checks")).AsArray();
        Assert.True(checks.Count > 50);
        Assert.Equal(checks.Count, checks.Select(c => (string?)c!["code"]).Distinct().Count());
        Assert.All(checks, c => Assert.All(["says", "why", "source"], field => Assert.NotEqual("", (string?)c![field])));
    }

    [Fact]
    public async Task Ways_to_mend_are_offered_beside_the_findings()
    {
        var answer = await studio.Post("/api/plans/repairs", $$"""{"class":{{Split.Replace("\"slotMinutes\":10", "\"slotMinutes\":30", StringComparison.Ordinal)}}}""");
        Assert.All(answer["offers"]!.AsArray(), o => Assert.NotEqual("", (string?)o!["title"]));
        Assert.NotEmpty(answer["offers"]!.AsArray());
        Assert.Equal(0, (int)answer["untried"]!);
    }

    [Fact]
    public async Task A_move_is_drawn_as_it_is_done()
    {
        Assert.True((await studio.Get("/api/moves/figures")).AsArray().Count > 160);
        Assert.NotEmpty((await studio.Get("/api/moves/squat/figure")).AsObject());
        Assert.NotEmpty((await studio.Get("/api/moves/squat/film")).AsObject());
        var (svg, type) = await File("/api/moves/squat/figure.svg");
        Assert.Equal("image/svg+xml", type);
        Assert.StartsWith("<svg", Encoding.UTF8.GetString(svg), StringComparison.Ordinal);
        foreach (var what in (string[])["figure", "film", "figure.svg"])
        {
            Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Get, $"/api/moves/no-such-move/{what}"));
        }
    }

    [Fact]
    public async Task A_date_that_was_taken_away_is_put_back_as_it_was()
    {
        var (id, session) = await Held(Plan, DateTimeOffset.UtcNow.AddDays(3));
        var before = await studio.Get($"/api/sessions/{session}");
        Assert.True((int)await StatusOf(HttpMethod.Delete, $"/api/sessions/{session}") < 300);
        Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Get, $"/api/sessions/{session}"));
        Assert.True((int)await StatusOf(HttpMethod.Post, $"/api/sessions/{session}/restore") < 300);
        Assert.True(JsonNode.DeepEquals(before["booking"], (await studio.Get($"/api/sessions/{session}"))["booking"]));
        Assert.NotEmpty((await studio.Get($"/api/classes/{id}/versions")).AsArray());
    }

    [Fact]
    public async Task Somebody_reads_what_is_known_of_them_and_where_their_name_stands()
    {
        var person = (string)(await studio.Post("/api/people", """{"name":"Nela Nametrace"}"""))["id"]!;
        await studio.OpenFile(Plan.Replace("Test class", "With Nela Nametrace", StringComparison.Ordinal));
        var (text, _) = await File($"/api/people/{person}/export.txt");
        Assert.Contains("Nela Nametrace", Encoding.UTF8.GetString(text), StringComparison.Ordinal);
        Assert.NotEmpty((await studio.Get($"/api/people/{person}/traces"))["traces"]!.AsArray());
        Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Get, $"/api/people/{Guid.NewGuid()}/export.txt"));
    }

    /// <summary>Without the door to the network nobody is let in, and a wrong code is one.</summary>
    [Fact]
    public async Task Devices_are_let_in_by_a_code_alone()
    {
        Assert.Equal("owner", (string?)(await studio.Get("/api/me"))["role"]);
        Assert.Empty((await studio.Get("/api/devices"))["devices"]!.AsArray());
        Assert.Equal(HttpStatusCode.Conflict, await StatusOf(HttpMethod.Post, "/api/devices/codes", Json("""{"role":"wall"}""")));
        Assert.Equal(
            HttpStatusCode.Forbidden, await StatusOf(HttpMethod.Post, "/api/pair", Json("""{"code":"000000","name":"Tablet"}""")));
        Assert.Equal(HttpStatusCode.NotFound, await StatusOf(HttpMethod.Delete, $"/api/devices/{Guid.NewGuid()}"));
    }

    [Fact]
    public async Task The_state_of_the_data_is_told()
    {
        Assert.Equal(HttpStatusCode.OK, await StatusOf(HttpMethod.Get, "/api/health"));
        var data = await studio.Get("/api/data");
        Assert.Null(data["trouble"]);
        Assert.NotNull(data["copies"]);
    }

    /// <summary>Two weights for four people: a way out is offered, and it says what changes.</summary>
    [Fact]
    public async Task A_shortage_has_ways_out()
    {
        await studio.Post(
            "/api/rooms",
            """{"name":"Small","floor":{"widthM":8,"lengthM":10,"fixtures":[]},"stock":[{"item":"kettlebell","count":1,"kg":8}]}""");
        const string file = """
            {"format":"halterion-class","version":1,"title":"Short","slotMinutes":10,"blocks":[{"id":"b","name":"Work","phase":"main","stations":[
              {"id":"s","dose":[{"kind":"time","amount":40}],"options":[{"id":"m","tier":"main","move":"goblet-squat",
               "load":{"implement":"kettlebell","count":1,"kg":8,"position":"goblet"}}]}]}]}
            """;
        var id = await studio.OpenFile(file);
        var people = new List<string>();
        foreach (var name in (string[])["Ada One", "Ben Two", "Cleo Three"])
        {
            people.Add($"\"{(string)(await studio.Post("/api/people", $$"""{"name":"{{name}}"}"""))["id"]!}\"");
        }

        var session = (string)(await studio.Post(
            $"/api/classes/{id}/sessions",
            $$"""{"booking":{"zone":"UTC","headCount":3,"expected":[{{string.Join(",", people)}}] } }"""))["id"]!;
        var room = await studio.Post($"/api/sessions/{session}/room", $$"""{"class":{{file}}}""");
        Assert.NotEmpty(room["shortages"]!.AsArray());
        var ways = new List<JsonNode?>();
        for (var i = 0; i < room["shortages"]!.AsArray().Count; i++)
        {
            var asked = await studio.Post($"/api/sessions/{session}/ways-out", $$"""{"class":{{file}},"shortage":{{i}}}""");
            ways.AddRange(asked as JsonArray ?? asked["ways"]!.AsArray());
        }

        Assert.NotEmpty(ways);
        Assert.All(ways, w => Assert.NotEqual("", (string?)w!["title"]));
        Assert.Contains(ways, w => w!["class"] is not null);
    }
}
