using System.IO.Compression;
using System.Net;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>The logbook from outside: what is logged is what is suggested from, told in weeks, and taken along.</summary>
public sealed class LogbookApiTests : IDisposable
{
    private readonly Studio studio = new();

    private const string Class = """
        {"format":"halterion-class","version":1,"title":"Steady","slotMinutes":20,"blocks":[
          {"id":"b","name":"Work","phase":"main","order":"sets","rounds":2,"betweenSets":60,"stations":[
            {"id":"s","dose":[{"kind":"reps","amount":10}],"options":[
              {"id":"m","tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":8,"position":"goblet"}},
              {"id":"e","tier":"easier","move":"squat"}]},
            {"id":"t","sides":"each","dose":[{"kind":"reps","amount":8}],"options":[{"id":"tm","tier":"main","move":"split-squat"}]}]}]}
        """;

    public void Dispose() => studio.Dispose();

    /// <summary>A person, a class and a session of it on each day.</summary>
    private async Task<(string Person, string Class, string[] Sessions)> Begun(params string[] days)
    {
        var person = (string)(await studio.Post("/api/people", """{"name":"Una Steady","ready":["load"]}"""))["id"]!;
        await studio.Post("/api/rooms", """{"name":"Loft","floor":{"widthM":9,"lengthM":12,"fixtures":[]},"stock":[{"item":"kettlebell","kg":8,"count":4},{"item":"kettlebell","kg":8.5,"count":4}]}""");
        var id = await studio.OpenFile(Class);
        var sessions = new List<string>();
        foreach (var day in days)
        {
            sessions.Add((string)(await studio.Post($"/api/classes/{id}/sessions",
                $$"""{"booking":{"startsAt":"{{day}}T18:00","zone":"UTC","headCount":1,"expected":["{{person}}"]} }"""))["id"]!);
        }

        return (person, id, [.. sessions]);
    }

    private async Task<JsonNode> Put(string address, string body, int revision, HttpStatusCode wanted = HttpStatusCode.OK)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, address) { Content = Json(body) };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{revision}\"");
        using var response = await studio.CreateClient().SendAsync(request);
        Assert.Equal(wanted, response.StatusCode);
        return await Read(response);
    }

    private Task<JsonNode> Log(
        string session, string person, string sets, string more = "", HttpStatusCode wanted = HttpStatusCode.OK) => Put(
        $"/api/sessions/{session}/log",
        $$"""{"log":{"note":"","minutes":30,"rows":[{"personId":"{{person}}","came":true,"note":"","effort":7,"uses":[{"station":"s","option":"m","sets":[{{sets}}]}]}]{{more}} } }""",
        0, wanted);

    [Fact]
    public async Task A_log_is_filled_in_with_sets_loads_and_sides()
    {
        var (person, @class, sessions) = await Begun("2030-01-07");
        var log = await studio.Get($"/api/sessions/{sessions[0]}/log");
        Assert.Empty((await studio.Get($"/api/classes/{@class}/dates")).AsArray());
        var uses = log["rows"]!.AsArray().Single(r => (string)r!["row"]!["personId"]! == person)!["row"]!["uses"]!;
        Assert.Equal("""[{"reps":10,"kg":8},{"reps":10,"kg":8}]""", uses[0]!["sets"]!.ToJsonString());
        Assert.Equal(["left", "right", "left", "right"], uses[1]!["sets"]!.AsArray().Select(s => (string)s!["side"]!));
        Assert.Equal([false, true], log["columns"]!.AsArray().Select(c => (bool)c!["sided"]!));
        Assert.All(log["columns"]!.AsArray(), c => Assert.True((bool)c!["main"]!));
    }

    [Fact]
    public async Task What_is_logged_is_what_is_read_and_bad_values_are_told_with_their_place()
    {
        var (person, @class, sessions) = await Begun("2030-01-07");
        await Log(sessions[0], person, """{"reps":12,"kg":8},{"reps":11,"kg":8,"side":"left"}""",
            ""","hardest":"t","leastLiked":"s","carriedOver":"bridges" """);
        var log = await studio.Get($"/api/sessions/{sessions[0]}/log");
        var row = log["rows"]![0]!["row"]!;
        Assert.Equal("""[{"reps":12,"kg":8},{"reps":11,"kg":8,"side":"left"}]""", row["uses"]![0]!["sets"]!.ToJsonString());
        Assert.Equal((7, 30, "t", "bridges"), ((int)row["effort"]!, (int)log["about"]!["minutes"]!, (string)log["about"]!["hardest"]!,
            (string)log["about"]!["carriedOver"]!));
        Assert.Equal(
            "1 came, 30 min, effort 7, load 210", (string)(await studio.Get($"/api/classes/{@class}/dates"))[0]!["words"]!);
        // It is theirs to take along, set by set.
        var theirs = (await studio.Get($"/api/people/{person}/export"))["classes"]![0]!;
        Assert.Equal(7, (int)theirs["log"]!["effort"]!);
        Assert.Equal(12, (int)theirs["stations"]![0]!["log"]!["sets"]![0]!["reps"]!);
        var read = await studio.CreateClient().GetStringAsync($"/api/people/{person}/export.txt");
        Assert.Contains("effort 7", read, StringComparison.Ordinal);
        Assert.Contains("12 11 left with 8 kg", read, StringComparison.Ordinal);
        foreach (var (sets, more, pointer) in new[]
        {
            ("""{"reps":-1}""", "", "/log/rows/0/uses/0/sets/0/reps"), ("""{"reps":1,"seconds":2}""", "", "/log/rows/0/uses/0/sets/0"),
            ("""{"reps":1,"kg":601}""", "", "/log/rows/0/uses/0/sets/0/kg"), ("""{"reps":1}""", ""","hardest":"x" """, "/log/hardest"),
        })
        {
            var refused = await Log(sessions[0], person, sets, more, HttpStatusCode.UnprocessableEntity);
            Assert.Equal(pointer, (string)refused["errors"]![0]!["pointer"]!);
        }

        Assert.Equal("bridges", (string)(await studio.Get($"/api/sessions/{await Next(sessions[0])}/carried-over"))["text"]!);
    }

    private async Task<string> Next(string session)
    {
        var held = (await studio.Get("/api/sessions?held=true"))["sessions"]!.AsArray();
        var of = (string)held.First(s => (string)s!["id"]! == session)!["classId"]!;
        return (string)(await studio.Post($"/api/classes/{of}/sessions",
            """{"booking":{"startsAt":"2030-01-09T18:00","zone":"UTC","headCount":1,"expected":[]} }"""))["id"]!;
    }

    [Fact]
    public async Task Who_did_two_more_twice_is_sent_up_and_it_can_be_taken_and_undone()
    {
        var (person, _, sessions) = await Begun("2030-01-07", "2030-01-09", "2030-01-14");
        await Log(sessions[0], person, """{"reps":12,"kg":8}""");
        await Log(sessions[1], person, """{"reps":12,"kg":8}""");
        async Task<JsonNode> Suggested() => (await studio.Get($"/api/sessions/{sessions[2]}/suggestions"))["suggestions"]!
            .AsArray().Single(s => (string)s!["of"]!["station"]! == "s")!;
        var next = (await Suggested())["of"]!["next"]!;
        // 8 to 8.5 kg is 6.25 %: a fine step (ACSM 2009, from memory).
        Assert.Equal(("up", "two-for-two", 8.5m), ((string)next["action"]!, (string)next["rule"]!, (decimal)next["kg"]!));
        Assert.False((bool)(await Suggested())["taken"]!);
        var taken = await studio.Post($"/api/sessions/{sessions[2]}/suggestions",
            $$"""{"take":[{"person":"{{person}}","station":"s"}]}""");
        Assert.Equal(1, (int)taken["taken"]!);
        Assert.True((bool)(await Suggested())["taken"]!);
        Assert.Equal(8.5m, (decimal)(await studio.Get($"/api/people/{person}"))["loads"]!["goblet-squat"]!["kg"]!);
        using var back = await studio.CreateClient().PostAsync(
            $"/api/sessions/{sessions[2]}/suggestions/back", Json($$"""{"before":{{taken["before"]!.ToJsonString()}}}"""));
        Assert.Equal(HttpStatusCode.NoContent, back.StatusCode);
        Assert.False((bool)(await Suggested())["taken"]!);
        Assert.Null((await studio.Get($"/api/people/{person}"))["loads"]?["goblet-squat"]);

        // Before the first of them there is nothing to go by.
        Assert.Empty((await studio.Get($"/api/sessions/{sessions[0]}/suggestions"))["suggestions"]!.AsArray());
    }

    [Fact]
    public async Task A_person_and_a_week_add_up()
    {
        var (person, _, sessions) = await Begun("2030-01-07", "2030-01-09");
        await Log(sessions[0], person, """{"reps":12,"kg":8},{"reps":10,"kg":8}""");
        await Log(sessions[1], person, """{"reps":12,"kg":8}""");
        var progress = await studio.Get($"/api/people/{person}/progress");
        Assert.Equal([210m, 210m], progress["classes"]!.AsArray().Select(c => (decimal)c!["load"]!)); // 7 × 30
        var move = progress["moves"]!.AsArray().Single()!;
        Assert.Equal(176, (decimal)move["points"]![0]!["volume"]!); // 22 × 8
        Assert.Equal(11.2m, (decimal)move["best"]!["epley"]!); // 8 × (1 + 12/30)
        var week = (await studio.Get("/api/calendar?from=2030-01-07&weeks=1"))["weeks"]![0]!;
        Assert.Equal(420, (decimal)week["load"]!["sum"]!);
        Assert.Equal(2, week["classes"]!.AsArray().Count);
        using var wrong = await studio.CreateClient().GetAsync("/api/calendar?weeks=0");
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);
        var table = await studio.CreateClient().GetStringAsync("/api/log.csv");
        Assert.Contains("Una Steady,s,Goblet squat,main,10,reps,12 10,8 8,", table, StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_weights_of_a_week_are_a_function()
    {
        // Worked example of docs/logbook.md (Foster 1998, from memory).
        var week = await studio.Post("/api/progress/week", """{"days":[300,0,400,0,350,0,0]}""");
        Assert.Equal("""{"sum":1050,"mean":150,"deviation":189.30,"monotony":0.79,"strain":832.03}""", week.ToJsonString());
        var even = await studio.Post("/api/progress/week", """{"days":[1,1,1,1,1,1,1]}""");
        Assert.Contains("\"monotony\":null,\"strain\":null", even.ToJsonString(), StringComparison.Ordinal);
        using var six = await studio.CreateClient().PostAsync("/api/progress/week", Json("""{"days":[1,2,3,4,5,6]}"""));
        Assert.Equal("/days", (string)(await Read(six))["errors"]![0]!["pointer"]!);
    }

    [Fact]
    public async Task A_series_is_made_brought_up_to_date_and_leaves_what_was_changed_by_hand()
    {
        var (_, id, _) = await Begun();
        var series = Guid.NewGuid();
        string Body(string harder) => $$"""
            {"series":{"format":"halterion-series","version":1,"name":"Winter","firstDay":"2030-01-07","weeks":3,
             "days":[{"weekday":"monday","time":"18:00","class":"A"}],"harder":["{{harder}}"]},"classes":{"A":"{{id}}"} }
            """;
        await Put($"/api/series/{series}", Body("reps"), 0);
        var view = await studio.Get($"/api/series/{series}");
        Assert.All(view["lines"]!.AsArray(), l => Assert.False((bool)l!["upToDate"]!));
        Assert.Equal("""{"made":3,"renewed":0,"kept":0}""", (await studio.Post($"/api/series/{series}/make", "")).ToJsonString());
        Assert.Equal("""{"made":0,"renewed":0,"kept":0}""", (await studio.Post($"/api/series/{series}/make", "")).ToJsonString());
        var lines = (await studio.Get($"/api/series/{series}"))["lines"]!.AsArray();
        async Task<int> Reps(int week)
        {
            var of = (string)(await studio.Get($"/api/series/{series}"))["lines"]![week]!["classId"]!;
            return (int)(await studio.Get($"/api/classes/{of}"))["plan"]!["blocks"]![0]!["stations"]![0]!["dose"]![0]!["amount"]!;
        }

        Assert.Equal((10, 11, 12), (await Reps(0), await Reps(1), await Reps(2)));

        // The second week by hand: it stays, and the third goes on from it only where that is asked for.
        var second = (string)lines[1]!["classId"]!;
        var plan = (await studio.Get($"/api/classes/{second}"))["plan"]!;
        plan["blocks"]![0]!["stations"]![0]!["dose"]![0]!["amount"] = 15;
        await Put($"/api/classes/{second}", $$"""{"plan":{{plan.ToJsonString()}}}""", 1);
        Assert.Equal(1, (int)(await studio.Post($"/api/series/{series}/make", ""))["kept"]!);
        Assert.Equal((15, 12), (await Reps(1), await Reps(2)));
        using var follow = await studio.CreateClient().PostAsync(
            $"/api/series/{series}/sessions/{lines[1]!["session"]}/follow", Json("""{"followed":true}"""));
        Assert.Equal(HttpStatusCode.NoContent, follow.StatusCode);
        Assert.Equal(1, (int)(await studio.Post($"/api/series/{series}/make", ""))["renewed"]!);
        Assert.Equal((15, 16), (await Reps(1), await Reps(2)));

        // Two files of the calendar name the same events, so that a second import updates them.
        string[] Events(string text) => [.. text.Split("\r\n").Where(l => l.StartsWith("UID:", StringComparison.Ordinal)).Order()];
        var first = await studio.CreateClient().GetStringAsync($"/api/series/{series}/calendar.ics");
        await Put($"/api/series/{series}", Body("rest"), 1);
        await studio.Post($"/api/series/{series}/make", "");
        Assert.Equal(Events(first), Events(await studio.CreateClient().GetStringAsync($"/api/series/{series}/calendar.ics")));
        Assert.Equal(3, Events(first).Distinct().Count());
        await Put($"/api/series/{series}", Body("rounds"), 1, HttpStatusCode.PreconditionFailed);
    }

    [Fact]
    public async Task Everything_goes_out_and_comes_in_to_an_empty_studio_as_it_was()
    {
        var (person, _, sessions) = await Begun("2030-01-07");
        await Log(sessions[0], person, """{"reps":12,"kg":8}""");
        await studio.Post($"/api/sessions/{sessions[0]}/lead", "");
        var zip = await studio.CreateClient().GetByteArrayAsync("/api/everything");
        using (var archive = new ZipArchive(new MemoryStream(zip)))
        {
            var names = archive.Entries.Select(e => e.FullName).ToArray();
            Assert.Contains("studio.json", names);
            Assert.Contains("people.csv", names);
            Assert.Contains("logs.csv", names);
            Assert.Contains(names, n => n.StartsWith("classes/", StringComparison.Ordinal));
        }

        using var other = new Studio();
        async Task<HttpResponseMessage> Bring(byte[] file, string type = "application/zip")
        {
            var content = new ByteArrayContent(file);
            content.Headers.ContentType = new(type);
            return await other.CreateClient().PostAsync("/api/everything", content);
        }

        using var wrong = await Bring([1, 2, 3]);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, wrong.StatusCode);
        Assert.Contains("Nothing here was changed", (string)(await Read(wrong))["detail"]!, StringComparison.Ordinal);
        using var type = await Bring(zip, "text/plain");
        Assert.Equal(HttpStatusCode.UnsupportedMediaType, type.StatusCode);
        using var brought = await Bring(zip);
        Assert.Equal(HttpStatusCode.OK, brought.StatusCode);
        foreach (var address in new[] { "/api/people", "/api/rooms", "/api/sessions?held=true", $"/api/sessions/{sessions[0]}/log",
            $"/api/people/{person}/progress", "/api/classes" })
        {
            Assert.Equal((await studio.Get(address)).ToJsonString(), (await other.Get(address)).ToJsonString());
        }

        // Out again it says the same, table by table.
        string Whole(byte[] file)
        {
            using var archive = new ZipArchive(new MemoryStream(file));
            using var reader = new StreamReader(archive.GetEntry("studio.json")!.Open());
            return reader.ReadToEnd();
        }

        Assert.Equal(Whole(zip), Whole(await other.CreateClient().GetByteArrayAsync("/api/everything")));
    }

    [Fact]
    public async Task What_a_class_was_is_told_span_by_span()
    {
        var (_, _, sessions) = await Begun("2030-01-07");
        var lead = await studio.Post($"/api/sessions/{sessions[0]}/lead", "");
        var at = (long)lead["now"]! - 3_600_000;
        string Command(string kind, long when) => $$"""{"id":"{{Guid.NewGuid()}}","kind":"{{kind}}","at":{{when}}}""";
        await studio.Post($"/api/leads/{lead["id"]}/commands", $$"""
            {"expected":0,"commands":[{{Command("start", at)}},{{Command("pause", at + 4_000)}},{{Command("resume", at + 24_000)}},{{Command("finish", at + 34_000)}}]}
            """);
        var led = await studio.Get($"/api/sessions/{sessions[0]}/as-led");
        var spans = led["spans"]!.AsArray();
        // Ten seconds of lead-in, in which one stood for twenty more.
        Assert.Equal((10, 30, "20 s longer"), ((int)spans[0]!["planned"]!, (int)spans[0]!["real"]!, (string)spans[0]!["note"]!));
        Assert.Equal("skipped", (string)spans[^1]!["note"]!);
        using var none = await studio.CreateClient().GetAsync($"/api/sessions/{Guid.NewGuid()}/as-led");
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
        Assert.Equal(1, (int)(await studio.Get($"/api/sessions/{sessions[0]}/log"))["about"]!["minutes"]!);
    }

    [Fact]
    public async Task Three_classes_led_slowly_are_the_pace_one_really_has_and_the_checks_ask_for_it()
    {
        var (_, _, sessions) = await Begun("2030-01-07", "2030-01-08", "2030-01-09");
        async Task<string[]> Asked() =>
        [
            .. (await studio.Post($"/api/sessions/{sessions[0]}/checks", $$"""{"class":{{Class}} }"""))["findings"]!.AsArray()
                .Where(f => (string)f!["code"]! == "time.switch").Select(f => (string)f!["what"]!),
        ];
        using (await studio.PutNow("/api/settings/preferences", """{"pace":"real"}"""))
        {
            Assert.Empty((await studio.Get("/api/pace")).AsArray());
            Assert.Empty(await Asked());
        }

        foreach (var session in sessions)
        {
            var lead = await studio.Post($"/api/sessions/{session}/lead", "");
            var at = (long)lead["now"]! - 7_200_000;
            string Command(string kind, long when) => $$"""{"id":"{{Guid.NewGuid()}}","kind":"{{kind}}","at":{{when}}}""";
            await studio.Post($"/api/leads/{lead["id"]}/commands", $$"""{"expected":0,"commands":[{{Command("start", at)}}]}""");
            var spans = (await studio.Get($"/api/sessions/{session}/as-led"))["spans"]!.AsArray();
            var first = spans.TakeWhile(s => (string)s!["kind"]! != "switch").Sum(s => (int)s!["planned"]!);
            var pause = at + 1000 * (first + 1);
            // Two switches of 3 s, 7 s longer together: 13 s where 6 s are brisk.
            await studio.Post($"/api/leads/{lead["id"]}/commands", $$"""
                {"expected":1,"commands":[{{Command("pause", pause)}},{{Command("resume", pause + 7000)}}]}
                """);
        }

        var learnt = Assert.Single((await studio.Get("/api/pace")).AsArray(), p => (string)p!["of"]! == "switchStanding")!;
        Assert.Equal((2.15m, 3, "Changing sides, standing"),
            ((decimal)learnt["factor"]!, (int)learnt["classes"]!, (string)learnt["words"]!));
        // 3 s × 2.15 = 6.45.
        Assert.Contains("takes about 7 s, but there is only 3 s", Assert.Single(await Asked()), StringComparison.Ordinal);
        using (await studio.PutNow("/api/settings/preferences", """{"pace":"brisk"}"""))
        {
            Assert.Empty(await Asked());
        }
    }
}
