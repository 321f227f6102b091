using System.Diagnostics;
using System.Text.Json.Nodes;
using Halterion.Web.Answers;
using Halterion.Web.Library;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>What the checks say of people, kit, room and weeks, with everything inline; and of files on the command line.</summary>
public class CheckApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Plan = """
        {"format":"halterion-class","version":1,"title":"Loft","slotMinutes":20,"blocks":[{"id":"b","name":"Main","phase":"main","order":"circuit","betweenStations":30,"stations":[
          {"id":"s1","dose":[{"kind":"time","amount":40}],"options":[{"id":"o1","tier":"main","move":"jump-squat"},{"id":"o2","tier":"easier","move":"squat","depth":"half"}]},
          {"id":"s2","dose":[{"kind":"time","amount":40}],"options":[{"id":"o3","tier":"main","move":"march-bridge"},{"id":"o4","tier":"harder","move":"inner-thigh-machine"}]}]}]}
        """;

    private const string Round = """
        {"format":"halterion-class","version":1,"title":"Loft","slotMinutes":20,"blocks":[{"id":"b","name":"Main","phase":"main","format":"rotation","windowSeconds":40,"stations":[
          {"id":"s1","dose":[{"kind":"time","amount":40,"side":"alternate"}],"options":[{"id":"o1","tier":"main","move":"walking-lunge"}]},
          {"id":"s2","dose":[{"kind":"time","amount":40}],"options":[{"id":"o3","tier":"main","move":"squat"}]}]}]}
        """;

    /// <summary>Who is past a limit is found where they stand; one word less, and nothing is.</summary>
    [Theory]
    [InlineData(
            "people.gap",
            "stop",
            "s1",
            Plan,
            """ "people":[{"id":"a","name":"Ada","limits":[{"limit":"knee","strict":true}]}] """,
            "true",
            "false")]
    [InlineData("people.limit", "fix", "s1", Plan, """ "people":[{"id":"a","name":"Ada","limits":[{"limit":"knee"}]}],"pins":[{"person":"a","station":"s1","option":"o1","reason":""}] """, "\"reason\":\"\"", "\"reason\":\"step only\"")]
    [InlineData("people.ready", "consider", "s1", Plan, """ "people":[{"id":"a","name":"Ada","ready":[],"level":{"squat":"main"}}],"pins":[{"person":"a","station":"s1","option":"o1"}] """, "\"ready\":[]", "\"ready\":[\"land\"]")]
    [InlineData("people.shift", "consider", "s1", Plan, """ "people":[{"id":"a","name":"Ada","level":{"squat":"easier"}},{"id":"c","name":"Cyd","ready":["land"]}],"headCount":1,"pins":[{"person":"c","station":"s1","option":"o2"}] """, "\"headCount\":1", "\"headCount\":4")]
    [InlineData(
            "people.expired",
            "note",
            "class",
            Plan,
            """ "date":"2026-11-26","people":[{"id":"a","name":"Ada","limits":[{"limit":"knee","until":"2026-11-25"}]}] """,
            "11-25",
            "11-26")]
    [InlineData("kit.short", "fix", "b", Plan, """ "headCount":5,"kit":[{"item":"mat","count":4}] """, "\"count\":4", "\"count\":5")]
    [InlineData(
            "kit.unknown", "consider", "b", Plan, """ "headCount":5,"kit":[] """, "\"kit\":[]", "\"kit\":[{\"item\":\"mat\",\"count\":5}]")]
    [InlineData("room.area", "fix", "b", Plan, """ "headCount":5,"room":{"widthM":5,"lengthM":5.9} """, "5.9", "6")]
    [InlineData("room.lane", "fix", "b", Round, """ "headCount":5,"room":{"widthM":4.4,"lengthM":11} """, "4.4", "4.5")]
    [InlineData("room.machine", "fix", "s2", Plan, """ "headCount":2,"people":[{"id":"a","name":"Ada"},{"id":"c","name":"Cyd"}],"pins":[{"person":"a","station":"s2","option":"o4"},{"person":"c","station":"s2","option":"o4"}] """, "\"station\":\"s2\",\"option\":\"o4\"}]", "\"station\":\"s2\",\"option\":\"o3\"}]")]
    [InlineData("room.empty", "note", "b", Round, """ "headCount":1 """, "1", "2")]
    [InlineData("room.empty", "note", "b", Round, """ "headCount":9 """, "9", "8")]
    [InlineData(
            "week.rest",
            "consider",
            "class",
            Plan,
            """ "date":"2026-11-26T18:00","history":[{"start":"2026-11-25T06:00","hardSets":{"squat":10}}] """,
            "06:00",
            "05:59")]
    [InlineData(
            "week.rest",
            "consider",
            "class",
            Plan,
            """ "date":"2026-11-26","history":[{"start":"2026-11-25","hardSets":{"squat":10}}] """,
            ":10",
            ":9")]
    // Lasting 120 s at an effort of 5 this class counts 10: 160 and 10 against four weeks of 100 and 120.
    [InlineData("week.load", "consider", "class", Plan, """ "date":"2026-11-26","history":[{"start":"2026-10-26","load":100},{"start":"2026-11-04","load":100},{"start":"2026-11-11","load":100},{"start":"2026-11-18","load":100},{"start":"2026-11-24","load":141}] """, ":141", ":139")]
    [InlineData(
            "week.load",
            "consider",
            "class",
            Plan,
            """ "date":"2026-11-26","history":[{"start":"2026-11-01","load":1},{"start":"2026-11-24","load":141}] """,
            "11-01",
            "11-02")]
    [InlineData("week.same", "note", "class", Plan, """ "date":"2026-11-26","history":[{"start":"2026-11-20","moves":["squat"]},{"start":"2026-11-22","moves":["jump-squat","march-bridge"]},{"start":"2026-11-24","moves":["march-bridge","jump-squat"]}] """, "11-20", "11-23")]
    public async Task A_review_judges_what_it_is_given(
        string code, string severity, string place, string plan, string given, string what, string by)
    {
        var body = $$"""{"plan":{{plan}},{{given}}}""";
        var found = Assert.Single((await studio.Post("/api/plans/review", body))["findings"]!.AsArray(), f => (string)f!["code"]! == code)!;
        Assert.Equal((severity, place), ((string)found["severity"]!, (string)found["place"]!));
        Assert.Contains(what, given, StringComparison.Ordinal);
        var just = $$"""{"plan":{{plan}},{{given.Replace(what, by, StringComparison.Ordinal)}}}""";
        Assert.DoesNotContain((await studio.Post("/api/plans/review", just))["findings"]!.AsArray(), f => (string)f!["code"]! == code);
    }

    [Fact]
    public async Task Strength_wants_ten_to_twenty_hard_sets_of_each_family_in_a_week()
    {
        async Task<string?> Said(int squats, string last = "")
        {
            var plan = Plan.Replace("\"slotMinutes\":20", "\"slotMinutes\":20,\"aim\":\"strength\"", StringComparison.Ordinal);
            var body = $$"""{"plan":{{plan}},"date":"2026-11-26","history":[{"start":"2026-11-24","hardSets":{"squat":{{squats}},"lunge":12,"hinge":12,"bridge":12} }{{last}}]}""";
            return (string?)(await studio.Post("/api/plans/review", body))["findings"]!.AsArray()
                .FirstOrDefault(f => (string)f!["code"]! == "week.sets")?["what"];
        }

        Assert.Contains("squat 9", await Said(8), StringComparison.Ordinal);
        Assert.Null(await Said(9));
        Assert.Null(await Said(19));
        Assert.Contains("squat 21", await Said(20), StringComparison.Ordinal);
        // Another class is planned in the week: too few is not said yet.
        Assert.Null(await Said(8, """,""" + """{"start":"2026-11-28"}"""));
    }

    [Fact]
    public async Task Settings_waivers_and_faults_of_a_review()
    {
        async Task<JsonNode> Review(string more) =>
            await studio.Post("/api/plans/review", $$"""{"plan":{{Plan}},"headCount":5,"kit":[{"item":"mat","count":4}]{{more}}}""");
        JsonNode? Of(JsonNode review, string code) => review["findings"]!.AsArray().FirstOrDefault(f => (string)f!["code"]! == code);
        Assert.Null(Of(await Review(""","settings":{"off":["kit.short"]}"""), "kit.short"));
        // Kit is waived for the occasion; what is of the class is not.
        const string Waivers = ""","waivers":[{"code":"kit.short","place":"b","reason":"two take turns"},{"code":"time.under","place":"class","reason":"no"}]""";
        var waived = await Review(Waivers);
        Assert.Equal("two take turns", (string)Of(waived, "kit.short")!["waived"]!);
        Assert.Null(Of(waived, "time.under")!["waived"]);
        Assert.NotNull(Of(await Review(""","settings":{"limits":{"leg.long":31}}"""), "time.under"));
        foreach (var (wrong, pointer) in new[]
        {
            (""","settings":{"off":["time.nothing"]}""", "/settings/off/0"), (
                ""","settings":{"limits":{"time.over":3}}""", "/settings/limits/time.over"),
            (""","settings":{"limits":{"time.drink":0}}""",
                "/settings/limits/time.drink"), (""","settings":{"speed":1}""", "/settings/speed"),
            (""","history":[{"start":"soon"}]""", "/history/0/start"), (
                ""","history":[{"start":"2026-11-20","hardSets":{"arms":3}}]""", "/history/0/hardSets/arms"),
        })
        {
            using var bad = await studio.CreateClient().PostAsync("/api/plans/review", Json($$"""{"plan":{{Plan}}{{wrong}}}"""));
            Assert.Equal(422, (int)bad.StatusCode);
            Assert.Equal(pointer, (string)(await Read(bad))["errors"]![0]!["pointer"]!);
        }
    }

    /// <summary>
    /// One page before the class, from what the store knows; what is left for the occasion is kept with it, and ticks are.
    /// </summary>
    [Fact]
    public async Task A_session_is_ready_only_when_it_is_so()
    {
        var ida = (string)(
            await studio.Post("/api/people", """{"name":"Ida","limits":[{"limit":"knee","strict":true,"note":"planted-care"}]}"""))["id"]!;
        await studio.Post("/api/rooms",
            """{"name":"Hall","floor":{"widthM":8,"lengthM":10,"fixtures":[]},"stock":[{"item":"mat","count":1,"place":"shelf"}]}""");
        var view = await studio.Post("/api/classes/file", Round);
        var session = (string)view["sessions"]![0]!["id"]!;
        using var booked = await studio.Put(
            $"/api/sessions/{session}",
            $$"""{"booking":{"zone":"Europe/Lisbon","startsAt":"2026-12-01T18:00","headCount":2,"expected":["{{ida}}"]} }""",
            "1");
        Assert.True(booked.IsSuccessStatusCode);
        var with = $$"""{"class":{{Round}}}""";
        async Task<JsonNode> Ready() => await studio.Post($"/api/sessions/{session}/ready", with);
        async Task<string[]> Open() =>
            [.. (await studio.Post($"/api/sessions/{session}/checks", with))["findings"]!.AsArray().Where(f => f!["waived"] is null)
                .Select(f => $"{f!["code"]}@{f["place"]}")];

        var before = await Ready();
        Assert.False((bool)before["ready"]!);
        Assert.Contains("people.gap@s1", await Open());
        Assert.Equal("toMend", (string)before["lines"]!.AsArray().Single(l => (string)l!["of"]! == "People")!["standing"]!);
        // Care in its short words, never the note.
        Assert.Equal("knee (strict)", (string)before["care"]![0]!["words"]!);
        Assert.DoesNotContain("planted-care", before.ToJsonString(), StringComparison.Ordinal);

        foreach (var place in new[] { "s1", "s2" })
        {
            using var left = await studio.PutNow(
                $"/api/sessions/{session}/waivers", $$"""{"code":"people.gap","place":"{{place}}","reason":"she sits it out"}""");
            Assert.True(left.IsSuccessStatusCode);
        }

        Assert.DoesNotContain("people.gap@s1", await Open());
        using var again = await studio.PutNow($"/api/sessions/{session}/waivers", """{"code":"people.gap","place":"s1"}""");
        Assert.Contains("people.gap@s1", await Open());
        foreach (var wrong in new[] { """{"code":"time.over","place":"class","reason":"no"}""",
                """{"code":"no.such","place":"class","reason":"no"}""" })
        {
            using var refused = await studio.PutNow($"/api/sessions/{session}/waivers", wrong);
            Assert.Equal("/code", (string)(await Read(refused))["errors"]![0]!["pointer"]!);
        }

        using var nobody = await studio.Put(
            $"/api/sessions/{Guid.NewGuid()}/waivers", """{"code":"people.gap","place":"s1","reason":"x"}""", "1");
        Assert.Equal(404, (int)nobody.StatusCode);

        using var tick = await studio.PutNow($"/api/sessions/{session}/ticks", """{"key":"From: shelf: mat","done":true}""");
        Assert.True(tick.IsSuccessStatusCode);
        Assert.False(string.IsNullOrEmpty((string)(await Ready())["inOneLine"]!));
    }

    /// <summary>The command ends with 0 where a class may be held so, 1 where not, 2 where a file cannot be read.</summary>
    [Fact]
    public async Task Files_are_checked_on_the_command_line()
    {
        var folder = Directory.CreateTempSubdirectory("halterion-check-");
        try
        {
            var (good, late, broken) = (Path.Combine(folder.FullName, "good.json"), Path.Combine(folder.FullName, "late.json"),
                Path.Combine(folder.FullName, "broken.json"));
            await File.WriteAllTextAsync(good, """{"format":"halterion-class","version":1,"title":"T","slotMinutes":5,"blocks":[{"name":"Talk","phase":"talk","format":"talk","seconds":300}]}""");
            await File.WriteAllTextAsync(late, """{"format":"halterion-class","version":1,"title":"T","slotMinutes":5,"blocks":[{"name":"Talk","phase":"talk","format":"talk","seconds":301}]}""");
            await File.WriteAllTextAsync(broken, "{");
            Assert.Equal((0, true), await Run(good, "nothing to fix"));
            Assert.Equal((1, true), await Run(late, "fix       time.over: The class is 1 s over its"));
            Assert.Equal((2, true), await Run(broken, "error"));
            Assert.Equal((2, true), await Run(Path.Combine(folder.FullName, "gone.json"), "could not be opened"));
            Assert.Equal((1, true), await Run(late, "\"code\": \"time.over\"", "--json"));
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    private static async Task<(int, bool)> Run(string file, string says, params string[] more)
    {
        var start = new ProcessStartInfo(
            "dotnet", [typeof(Contract).Assembly.Location, "check", .. more, file])
        { RedirectStandardOutput = true };
        using var process = Process.Start(start)!;
        var said = await process.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        return (process.ExitCode, said.Contains(says, StringComparison.Ordinal));
    }
}
