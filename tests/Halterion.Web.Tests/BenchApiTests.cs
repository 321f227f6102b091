using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>
/// What the bench asks of the server: fitting, typed doses, versions, templates, settings, own moves, files to take along.
/// </summary>
public sealed class BenchApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Booking = """{"zone":"Europe/Lisbon","headCount":9,"startsAt":"2026-12-01T18:00"}""";

    /// <summary>10 + 3·(60 + 60) + 2·60 = 490 s for a slot of 5 min: 190 s over.</summary>
    private const string TooLong = """
        {"format":"halterion-class","version":1,"title":"Too long","slotMinutes":5,"blocks":[{"name":"C","phase":"main","rounds":3,"betweenRounds":60,
        "stations":[{"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"squat"}]},{"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"hip-hinge"}]}]}]}
        """;

    [Fact]
    public async Task Fit_offers_classes_that_end_in_time()
    {
        var answer = await studio.Post("/api/plans/fit", $$$"""{"class":{{{TooLong}}},"terms":{}}""");
        var offers = answer["offers"]!.AsArray();
        Assert.InRange(offers.Count, 1, 3);
        foreach (var offer in offers)
        {
            var evaluation = await studio.Post("/api/plans/evaluate", offer!["class"]!.ToJsonString());
            Assert.Equal(-(int)offer["way"]!["spareSeconds"]!, (int)evaluation["totals"]!["overSeconds"]!);
            Assert.Equal((int)offer["way"]!["cost"]!, offer["way"]!["changes"]!.AsArray().Sum(c => (int)c!["cost"]!));
        }
    }

    [Theory]
    [InlineData("""{"restFloor":-1}""", "/terms/restFloor")]
    [InlineData("""{"workPercent":91}""", "/terms/workPercent")]
    public async Task Fit_refuses_limits_out_of_bounds(string terms, string pointer)
    {
        using var response = await studio.CreateClient().PostAsync(
            "/api/plans/fit", Json($$$"""{"class":{{{TooLong}}},"terms":{{{terms}}}}"""));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Equal(pointer, (string?)(await Read(response))["errors"]![0]!["pointer"]);
    }

    [Theory]
    [InlineData("3 × 12 each side @ 3-1-1-0, rest 45", "", null)]
    [InlineData("12 @ 3-1", "is not a tempo", 5)]
    [InlineData("12 each side left", "side", null)]
    [InlineData("40 s by 5", "Switch every", null)]
    public async Task A_typed_dose_is_put_into_its_block_or_says_what_is_wrong(string typed, string wrong, int? at)
    {
        var plan = JsonNode.Parse(TooLong)!;
        var block = plan["blocks"]![0]!;
        block["stations"]![1]!["id"] = "here";
        var body = new JsonObject { ["text"] = typed, ["class"] = plan.DeepClone(), ["station"] = "here" }.ToJsonString();
        using var response = await studio.CreateClient().PostAsync("/api/plans/dose", Json(body));
        var answer = await Read(response);
        if (wrong.Length > 0)
        {
            Assert.Null(answer["read"]);
            Assert.Equal(at, (int?)answer["problem"]!["at"]);
            Assert.Contains(wrong, (string?)answer["problem"]!["detail"], StringComparison.OrdinalIgnoreCase);
            return;
        }

        Assert.Null(answer["problem"]);
        var read = answer["read"]!;

        Assert.Equal(
            ("12 reps at tempo 3-1-1-0; all of one side, then the other", "2 min 3 s", "This also changes the block: 45 s between rounds."),
            ((string)read["words"]!, (string)read["takes"]!, (string)read["also"]!));
        Assert.NotNull(read["evaluation"]);
        Assert.Equal(
            (3, 45, "each"),
            ((int)read["block"]!["rounds"]!, (int)read["block"]!["betweenRounds"]!, (string)read["block"]!["stations"]![1]!["sides"]!));
        Assert.True(JsonNode.DeepEquals(block["stations"]![0], read["block"]!["stations"]![0]));
    }

    [Fact]
    public async Task A_list_is_read_rounds_go_on_and_what_is_wrong_is_said()
    {
        var lines = (await studio.Post("/api/plans/paste", """{"text":"squat 12\nwobble","roundGivesSide":false}"""))["lines"]!.AsArray();
        Assert.Equal(
            ("reps", 12), ((string?)lines[0]!["station"]!["dose"]![0]!["kind"], (int)lines[0]!["station"]!["dose"]![0]!["amount"]!));
        Assert.Null(lines[1]!["station"]);
        Assert.Contains("wobble", (string)lines[1]!["trouble"]!, StringComparison.Ordinal);

        var plan = JsonNode.Parse(TooLong)!;
        var block = plan["blocks"]![0]!;
        block["id"] = "c";
        block["stations"]![0]!["dose"]![0]!["amount"] = new JsonArray(60, 50, 40);
        string Body(string id, int rounds) =>
            new JsonObject { ["class"] = plan.DeepClone(), ["block"] = id, ["rounds"] = rounds }.ToJsonString();
        var more = await studio.Post("/api/plans/rounds", Body("c", 4));
        Assert.Equal("[60,50,40,30]", more["block"]!["stations"]![0]!["dose"]![0]!["amount"]!.ToJsonString());

        // 10 + 60 + 50 + 40 + 30 + 4·60 + 3·60 s.
        Assert.Equal(610, (int)more["evaluation"]!["totals"]!["seconds"]!);
        foreach (var (address, body, pointer) in new[]
        {
            ("rounds", Body("d", 4), "/block"),
            ("rounds", Body("c", 21), "/rounds"),
            ("paste", """{"text":""}""", "/text"),
            ("dose", new JsonObject { ["text"] = "12", ["class"] = plan.DeepClone(), ["station"] = "gone" }.ToJsonString(), "/station"),
        })
        {
            using var wrong = await studio.CreateClient().PostAsync($"/api/plans/{address}", Json(body));
            Assert.True(
                wrong.StatusCode is HttpStatusCode.BadRequest or HttpStatusCode.UnprocessableEntity, $"{address}: {wrong.StatusCode}");
            Assert.Equal(pointer, (string?)(await Read(wrong))["errors"]![0]!["pointer"]);
        }
    }

    [Fact]
    public async Task The_library_answers_what_is_easier_than_a_move_and_what_each_asks_instead()
    {
        async Task<string[]> Found(string query) => [.. (await studio.Get($"/api/moves/search?{query}")).AsArray().Select(m => (string)m!)];
        var (easier, harder) = (await Found("near=split-squat&than=easier"), await Found("near=split-squat&than=harder"));
        Assert.Contains("chair-squat", easier);
        Assert.Contains("rear-raised-split-squat", harder);
        Assert.DoesNotContain("split-squat", easier.Concat(harder));
        Assert.Empty(easier.Intersect(harder));
        using var wrong = await studio.CreateClient().GetAsync("/api/moves/search?near=split-squat&than=nicer");
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);

        var trades = (await studio.Get("/api/moves/split-squat/trades"))
            .AsArray()
            .ToDictionary(t => (string)t!["move"]!, t => (string)t!["words"]!);
        Assert.DoesNotContain("split-squat", trades.Keys);
        Assert.Matches(@"knee \d → \d", trades["chair-squat"]);
        using var gone = await studio.CreateClient().GetAsync("/api/moves/no-such/trades");
        Assert.Equal(HttpStatusCode.NotFound, gone.StatusCode);
    }

    [Fact]
    public async Task Versions_say_what_changed_and_come_back_as_new_ones()
    {
        var id = await studio.OpenFile(TooLong);
        using (
            await studio.Put(
                $"/api/classes/{id}",
                $$$"""{"plan":{{{TooLong.Replace("\"rounds\":3", "\"rounds\":2", StringComparison.Ordinal)}}}}""",
                "1"))
        {
            var changes = await studio.Get($"/api/classes/{id}/versions/1/changes/2");
            Assert.Contains("C: 3 → 2 rounds", changes.AsArray().Select(c => (string)c!));
        }

        var restored = await studio.Post($"/api/classes/{id}/versions/1/restore", "{}");
        Assert.Equal((3, 3), ((int)restored["version"]!, (int)restored["plan"]!["blocks"]![0]!["rounds"]!));
        using var missing = await studio.CreateClient().GetAsync($"/api/classes/{id}/versions/1/changes/9");
        Assert.Equal(HttpStatusCode.NotFound, missing.StatusCode);
    }

    [Fact]
    public async Task A_template_must_be_a_valid_block()
    {
        var block = JsonNode.Parse(TooLong)!["blocks"]![0]!;
        var kept = await studio.Post("/api/templates", new JsonObject { ["name"] = "Mine", ["block"] = block.DeepClone() }.ToJsonString());
        Assert.Contains((await studio.Get("/api/templates")).AsArray(), t => JsonNode.DeepEquals(t!["block"], block));
        using var gone = await studio.CreateClient().DeleteAsync($"/api/templates/{kept["id"]}");
        Assert.Equal(HttpStatusCode.NoContent, gone.StatusCode);
        using var bad = await studio.CreateClient().PostAsync(
            "/api/templates", Json("""{"name":"Bad","block":{"name":"B","phase":"main"}}"""));
        Assert.Equal("/block", (string?)(await Read(bad))["errors"]![0]!["pointer"]);
    }

    [Fact]
    public async Task Settings_shape_what_is_new_and_bad_ones_change_nothing()
    {
        using (await studio.PutNow("/api/settings/preferences", """{"sides":"alternate","startSide":"right","weight":"lb"}"""))
        {
            var station = await studio.Get("/api/moves/split-squat/station");
            Assert.Equal("alternate", (string?)station["station"]!["dose"]![0]!["side"]);
            var made = await studio.Post("/api/classes", $$"""{"title":"New","slotMinutes":30,"aim":"strength","booking":{{Booking}}}""");
            Assert.Equal("right", (string?)made["plan"]!["startSide"]);
        }

        foreach (var bad in new[] { """{"startSide":"both"}""", """{"heights":[0]}""", """{"sides":"never"}""" })
        {
            using var refused = await studio.PutNow("/api/settings/preferences", bad);
            Assert.InRange((int)refused.StatusCode, 400, 422);
        }

        Assert.Equal("alternate", (string?)(await studio.Get("/api/settings"))["preferences"]!["sides"]);
        using var back = await studio.PutNow("/api/settings/preferences", "{}");
        Assert.Equal(HttpStatusCode.OK, back.StatusCode);
    }

    [Fact]
    public async Task Own_moves_keep_to_their_own_ids_and_travel_in_the_classes_that_use_them()
    {
        using var taken = await studio.PutNow("/api/own-moves", """{"moves":[{"id":"squat","name":"Mine","family":"squat"}]}""");
        Assert.Equal("/moves/0/id", (string?)(await Read(taken))["errors"]![0]!["pointer"]);
        using var kept = await studio.PutNow(
            "/api/own-moves", """{"moves":[{"id":"my-dip","name":"Mast dip","family":"lunge","tempo":"2-0-2-0","like":"split-squat"}]}""");
        Assert.Equal(HttpStatusCode.OK, kept.StatusCode);
        var page = await studio.Get("/api/moves/my-dip/page");
        Assert.StartsWith(
            "From standing, right foot in front",
            (string)page["options"]!.AsArray().Single(o => (string?)o!["tier"] == "main")!["figure"]!["alt"]!,
            StringComparison.Ordinal);

        var id = await studio.OpenFile(TooLong);
        using var saved = await studio.Put(
            $"/api/classes/{id}", $$"""{"plan":{{TooLong.Replace("hip-hinge", "my-dip", StringComparison.Ordinal)}}}""", "1");
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        using var removed = await studio.CreateClient().DeleteAsync("/api/own-moves/my-dip");
        var again = await studio.Get($"/api/classes/{id}");
        Assert.Empty(again["faults"]!.AsArray());
        Assert.Equal("my-dip", (string?)again["plan"]!["moves"]![0]!["id"]);
    }

    [Fact]
    public async Task Everything_to_take_along_is_served_and_a_class_without_a_date_has_no_calendar_entry()
    {
        var id = await studio.OpenFile(TooLong);
        var client = studio.CreateClient();
        foreach (var (file, type) in new[] { ("timeline.csv", "text/csv"), ("cues.vtt", "text/vtt"), ("bells.wav", "audio/wav"),
            ("tape.svg", "image/svg+xml"), ("run-sheet", "application/json"), ("cards", "application/json") })
        {
            using var response = await client.GetAsync($"/api/classes/{id}/{file}");
            Assert.Equal((HttpStatusCode.OK, type), (response.StatusCode, response.Content.Headers.ContentType!.MediaType));
        }

        var session = (string)(await studio.Get($"/api/classes/{id}"))["sessions"]![0]!["id"]!;
        using var undated = await client.GetAsync($"/api/sessions/{session}/calendar.ics");
        Assert.Equal(HttpStatusCode.Conflict, undated.StatusCode);
        using (await studio.Put($"/api/sessions/{session}", $$"""{"booking":{{Booking}}}""", "1"))
        {
            // 18:00 in Lisbon in winter is 18:00 UTC.
            Assert.Contains(
                "DTSTART:20261201T180000Z", await client.GetStringAsync($"/api/sessions/{session}/calendar.ics"), StringComparison.Ordinal);
        }

        using var range = await client.GetAsync($"/api/classes/{id}/cards?shortest=190&tallest=150");
        Assert.Equal(HttpStatusCode.BadRequest, range.StatusCode);
    }
}
