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
        Assert.Equal("""{"start":10,"end":50,"kind":"work","block":0,"round":0,"station":0,"part":0,"side":"both"}""", evaluation["spans"]![1]!.ToJsonString());
        Assert.Contains(evaluation["findings"]!.AsArray(), f => (string?)f!["code"] == "options.missing");
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
        using var gone = await studio.CreateClient().PostAsync("/api/plans/repair", Json($$"""{"class":{{Plan}},"finding":"no.such@","repair":0}"""));
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
            ("no-such/motion", HttpStatusCode.NotFound), ("jump-squat/motion?option=instead", HttpStatusCode.OK), ("wide-squat/motion?option=instead", HttpStatusCode.OK), ("pigeon-turn/motion?option=harder", HttpStatusCode.NotFound),
            ("squat/motion?statureCm=119", HttpStatusCode.BadRequest), ("squat/motion?option=best", HttpStatusCode.BadRequest),
            ("squat/figure?view=below", HttpStatusCode.BadRequest), ("squat/film?view=front", HttpStatusCode.OK), ("squat/figure.svg", HttpStatusCode.OK),
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
