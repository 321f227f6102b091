using System.Net;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

public sealed class PlanApiTests(Studio studio) : IClassFixture<Studio>
{
    [Fact]
    public async Task Evaluate_answers_under_the_names_of_the_plan_language()
    {
        var evaluation = await studio.Post("/api/plans/evaluate", Plan);
        Assert.Equal(50, (int)evaluation["totals"]!["seconds"]!);
        Assert.Equal(-550, (int)evaluation["totals"]!["overSeconds"]!);
        Assert.Equal("""{"start":0,"end":10,"kind":"leadIn","block":0}""", evaluation["spans"]![0]!.ToJsonString());
        Assert.Equal("""{"start":10,"end":50,"kind":"work","block":0,"round":0,"station":0,"part":0,"side":"both"}""",
            evaluation["spans"]![1]!.ToJsonString());
        Assert.Contains(evaluation["findings"]!.AsArray(), f => (string?)f!["code"] == "options.missing");
    }

    /// <summary>What is proposed beside a main option is tried against it as it is done, and can stand there.</summary>
    [Fact]
    public async Task Options_are_proposed_beside_a_main_one_as_it_is_done()
    {
        async Task<JsonArray> For(string main, string fields = "") => (await studio.Post("/api/plans/proposals", $$"""
            {"block":{"id":"b","name":"Main","phase":"main","stations":[{"id":"s",{{fields}}"dose":[{"kind":"reps","amount":10}],"options":[{"id":"o","tier":"main",{{main}}}]}]},"station":"s"}
            """)).AsArray();
        string[] Words(JsonArray of, string tier) => [.. of.Where(p => (string)p!["tier"]! == tier).Select(p => (string)p!["words"]!)];
        Assert.Equal(["Bodyweight squat, half the depth", "Bodyweight squat, two hands on a chair", "Sit-to-stand, down to a chair"],
            Words(await For(""" "move":"squat" """), "easier"));
        Assert.DoesNotContain("Bodyweight squat, half the depth", Words(await For(""" "move":"squat","depth":"half" """), "easier"));
        var slower = (await For(""" "move":"squat" """)).First(
            p => ((string)p!["words"]!).Contains("four counts down", StringComparison.Ordinal))!["option"]!;
        Assert.InRange((decimal)slower["scale"]!, 0.4m, 0.9m);
        using var missing = await studio.CreateClient().PostAsync("/api/plans/proposals", Json("""{"block":{"name":"M","phase":"main","stations":[{"id":"s","dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"}]}]},"station":"x"}"""));
        Assert.Equal(HttpStatusCode.NotFound, missing.StatusCode);
        using var broken = await studio.CreateClient().PostAsync("/api/plans/proposals",
            Json("""{"block":{"name":"M","phase":"main","stations":[{"id":"s","dose":[],"options":[]}]},"station":"s"}"""));
        Assert.StartsWith("/block/stations/0", (string)(await Read(broken))["errors"]![0]!["pointer"]!, StringComparison.Ordinal);
    }

    /// <summary>The library finds what is allowed only in an option, and names it; "nothing in the hands" is a load of its own.</summary>
    [Fact]
    public async Task The_library_names_the_option_that_is_allowed()
    {
        var kind = (await studio.Get("/api/moves/kind?limit=knee"))
            .AsArray()
            .ToDictionary(k => (string)k!["move"]!, k => (string)k!["words"]!);
        Assert.Equal("Bodyweight squat, half the depth", kind["squat"]);
        Assert.False(kind.ContainsKey("glute-bridge") || kind.ContainsKey("seated-figure-four"));
        var found = (await studio.Get("/api/moves/search?limit=knee")).AsArray().Select(m => (string)m!).ToArray();
        Assert.Contains("squat", found);
        Assert.DoesNotContain("seated-figure-four", found);
        using var wrong = await studio.CreateClient().GetAsync("/api/moves/kind?limit=elbow");
        Assert.Equal(HttpStatusCode.BadRequest, wrong.StatusCode);

        const string Empty = """{"format":"halterion-class","version":1,"title":"T","slotMinutes":10,"blocks":[{"name":"M","phase":"core","stations":[{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"high-low-twist"},{"tier":"easier","move":"high-low-twist","load":"none"}]}]}]}""";
        var view = await studio.Post("/api/classes/file", Empty);
        Assert.Equal("none", (string)view["plan"]!["blocks"]![0]!["stations"]![0]!["options"]![1]!["load"]!);
        using var half = await studio.CreateClient().PostAsync(
            "/api/plans/evaluate", Json(Empty.Replace("\"none\"", "\"some\"", StringComparison.Ordinal)));
        Assert.Equal("/blocks/0/stations/0/options/1/load", (string)(await Read(half))["errors"]![0]!["pointer"]!);
    }

    /// <summary>
    /// A picture of an own move is kept without what a camera wrote, goes out with the moves, and stays out of classes; limits are ticked.
    /// </summary>
    [Fact]
    public async Task An_own_move_has_a_picture_and_limits()
    {
        using var own = new Studio();
        byte[] plain = [0xFF, 0xD8, 0xFF, 0xDB, 0, 3, 1, 0xFF, 0xDA, 0, 3, 1, 7, 0xFF, 0xD9];
        byte[] taken = [0xFF, 0xD8, 0xFF, 0xE1, 0, 9, .. "planted"u8, .. plain[2..]];
        async Task<string> Revision() => $"{(int)(await own.Get("/api/own-moves"))["revision"]!}";
        string Picture(byte[] bytes) => $"data:image/jpeg;base64,{Convert.ToBase64String(bytes)}";
        string Move(string picture) => $$"""{"moves":[{"id":"my-squat","name":"My squat","family":"squat","like":"squat","picture":"{{picture}}","limits":[{"limit":"wrist","when":"strict"}],"cues":["Sit"]}]}""";
        using var kept = await own.Put("/api/own-moves", Move(Picture(taken)), await Revision());
        Assert.Equal(HttpStatusCode.OK, kept.StatusCode);
        Assert.Equal(Picture(plain), (string)(await own.Get("/api/own-moves"))["moves"]![0]!["picture"]!);
        var shown = (await own.Get("/api/moves/my-squat/page"))["move"]!;
        Assert.Equal((Picture(plain), "Sit"), ((string)shown["picture"]!, (string)shown["cues"]![0]!));
        Assert.DoesNotContain("my-squat", (await own.Get("/api/moves/search?limit=wrist&strict=true")).AsArray().Select(m => (string)m!));
        Assert.Contains("my-squat", (await own.Get("/api/moves/search?limit=wrist")).AsArray().Select(m => (string)m!));
        var view = await own.Post("/api/classes/file", """{"format":"halterion-class","version":1,"title":"T","slotMinutes":10,"blocks":[{"name":"M","phase":"main","stations":[{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"my-squat"}]}]}]}""");
        using var saved = await own.Put($"/api/classes/{(string)view["id"]!}", $$"""{"plan":{{view["plan"]!.ToJsonString()}}}""", "1");
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        using var file = await own.CreateClient().GetAsync($"/api/classes/{(string)view["id"]!}/file");
        var text = await file.Content.ReadAsStringAsync();
        Assert.Contains("My squat", text, StringComparison.Ordinal);
        Assert.DoesNotContain("data:image", text, StringComparison.Ordinal);
        using var bad = await own.Put("/api/own-moves", Move("data:image/jpeg;base64,AAAA"), await Revision());
        Assert.Equal("/moves/0/picture", (string)(await Read(bad))["errors"]![0]!["pointer"]!);
    }

    [Theory]
    [InlineData("")]
    [InlineData("nonsense")]
    [InlineData("[1]")]
    [InlineData("""{"format":"halterion-class","version":1,"title":"x","slotMinutes":45,"blocks":[{"name":"b"}]}""")]
    public async Task What_is_no_class_gets_422_with_every_fault_and_its_pointer(string body)
    {
        using var response = await studio.CreateClient().PostAsync("/api/plans/evaluate", Json(body));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType!.MediaType);
        Assert.All((await Read(response))["errors"]!.AsArray(), e => Assert.NotNull(e!["pointer"]));
    }

    [Fact]
    public async Task A_repair_returns_the_class_and_its_evaluation()
    {
        var evaluation = await studio.Post("/api/plans/evaluate", Plan);
        var key = evaluation["findings"]!.AsArray().First(f => (string?)f!["code"] == "options.missing")!["key"]!.ToJsonString();
        var mended = await studio.Post("/api/plans/repair", $$"""{"class":{{Plan}},"finding":{{key}},"repair":0}""");
        Assert.Equal(3, mended["class"]!["blocks"]![0]!["stations"]![0]!["options"]!.AsArray().Count);
        Assert.DoesNotContain(mended["evaluation"]!["findings"]!.AsArray(), f => (string?)f!["code"] == "options.missing");
        using var gone = await studio.CreateClient().PostAsync(
            "/api/plans/repair", Json($$"""{"class":{{Plan}},"finding":"no.such@","repair":0}"""));
        Assert.Equal(HttpStatusCode.Conflict, gone.StatusCode);
    }

    [Fact]
    public async Task Moves_and_their_ready_stations_are_served()
    {
        var moves = (await studio.Get("/api/moves"))["moves"]!.AsArray();
        Assert.Equal(172, moves.Count);
        Assert.All(moves, m => Assert.IsType<JsonObject>(m));
        var starter = await studio.Get("/api/moves/split-squat/station?window=30");
        Assert.Equal(("split", 30), ((string)starter["station"]!["sides"]!, (int)starter["station"]!["dose"]![0]!["amount"]!));
        Assert.NotEmpty((string)starter["proposals"]!["easier"]!["why"]!);
    }

    /// <summary>What other programs check the body with, and what every wrong question is answered.</summary>
    [Fact]
    public async Task The_motion_of_a_move_is_served_in_metres()
    {
        var motion = await studio.Get("/api/moves/split-squat/motion?option=easier&statureCm=200");
        Assert.Equal(("split-squat", "easier", 200), ((string)motion["move"]!, (string)motion["option"]!, (int)motion["statureCm"]!));
        Assert.Equal(23, motion["joints"]!.AsArray().Count);
        Assert.All(motion["frames"]!.AsArray(), f => Assert.Equal(23, f!["at"]!.AsArray().Count));
        Assert.Contains("overall", motion["demand"]!.AsObject().Select(d => d.Key));
        var client = studio.CreateClient();
        foreach (var (path, status) in new[]
        {
            ("no-such/motion", HttpStatusCode.NotFound), ("jump-squat/motion?option=instead", HttpStatusCode.OK),
                ("wide-squat/motion?option=instead", HttpStatusCode.OK), ("pigeon-turn/motion?option=harder", HttpStatusCode.NotFound),
            ("squat/motion?statureCm=119", HttpStatusCode.BadRequest), ("squat/motion?option=best", HttpStatusCode.BadRequest),
            ("squat/figure?view=below",
                HttpStatusCode.BadRequest), ("squat/film?view=front", HttpStatusCode.OK), ("squat/figure.svg", HttpStatusCode.OK),
        })
        {
            using var response = await client.GetAsync($"/api/moves/{path}");
            Assert.True(response.StatusCode == status, $"{path}: {response.StatusCode}");
        }
    }

    [Fact]
    public async Task Every_option_of_a_class_has_its_figure()
    {
        using var response = await studio.CreateClient().PostAsync("/api/plans/figures", Json(Plan));
        var pictures = JsonNode.Parse(await response.Content.ReadAsStringAsync())!.AsArray();
        Assert.NotEmpty(pictures);
        Assert.All(pictures, p => Assert.NotEmpty(p!["figure"]!["stills"]!.AsArray()));
        Assert.Equal(pictures.Count, pictures.Select(p => (string)p!["option"]!).Distinct().Count());
    }

    [Fact]
    public async Task The_published_schema_accepts_what_the_program_accepts()
    {
        var schema = await studio.Get("/api/schema/class");
        Assert.Equal("#/$defs/ClassPlan", (string?)schema["$ref"]);
        var document = await studio.Get("/api/openapi.json");
        Assert.NotNull(document["components"]!["schemas"]!["ClassPlan"]);
    }
}
