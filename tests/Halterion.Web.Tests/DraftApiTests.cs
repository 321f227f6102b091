using System.Diagnostics;
using System.Text.Json.Nodes;
using Halterion.Web.Answers;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>Drafts over HTTP: with everything inline, for an evening of the studio, and from a file on the command line.</summary>
public class DraftApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Brief = """
        { "title": "Thursday loft", "slotMinutes": 30, "aim": "conditioning", "shape": "circuit", "stations": {"from": 4, "to": 4}, "headCount": 6,
          "include": ["goblet-squat"], "avoid": ["jump-lunge"], "recent": [["squat"], []], "people": [], "history": [], "date": "2026-11-26",
          "kit": [{"item": "mat", "count": 6}, {"item": "kettlebell", "kg": 8, "count": 6}, {"item": "dumbbell", "kg": 8, "count": 6}],
          "room": {"widthM": 8, "lengthM": 12}, "seconds": 0.3, "seed": 7 }
        """;

    [Fact]
    public async Task A_brief_is_answered_with_classes_that_review_finds_nothing_grave_in()
    {
        var answer = await studio.Post("/api/plans/draft", Brief);
        var drafts = answer["drafts"]!.AsArray();
        Assert.NotEmpty(drafts);
        foreach (var draft in drafts)
        {
            var sum = draft!["terms"]!.AsObject().Sum(t => (decimal)t.Value!);
            Assert.Equal((decimal)draft["cost"]!, sum);
            Assert.True((decimal)draft["bound"]! <= sum);
            Assert.Equal(11, draft["terms"]!.AsObject().Count);
            Assert.NotEmpty(draft["why"]!.AsArray());
            var brief = JsonNode.Parse(Brief)!.AsObject();
            var review = await studio.Post("/api/plans/review", new JsonObject
            {
                ["plan"] = draft["plan"]!.DeepClone(),
                ["headCount"] = 6,
                ["date"] = "2026-11-26",
                ["kit"] = brief["kit"]!.DeepClone(),
                ["room"] = brief["room"]!.DeepClone(),
            }.ToJsonString());
            Assert.DoesNotContain(review["findings"]!.AsArray(), f => (string?)f!["severity"] is "stop" or "fix");
            Assert.Empty(review["assignment"]!["gaps"]!.AsArray());
        }

        // The same brief and seed give the same answer, to the letter.
        var again = await studio.Post("/api/plans/draft", Brief);
        Assert.Equal(drafts.ToJsonString(), again["drafts"]!.ToJsonString());
    }

    [Fact]
    public async Task Everything_that_is_wrong_is_told_at_once()
    {
        using var response = await studio.CreateClient().PostAsync("/api/plans/draft", Json("""
            { "slotMinutes": 45, "warmUpMinutes": 2, "shares": {"arm": 3}, "stations": {"from": 6, "to": 5}, "include": ["nope", 4],
              "keep": {"plan": {}, "pinned": ["b1"]}, "wishes": {"shares": 9, "luck": 1}, "shape": "star", "what": 1 }
            """));
        Assert.Equal(422, (int)response.StatusCode);
        var pointers = (await Read(response))["errors"]!.AsArray().Select(e => (string)e!["pointer"]!).ToHashSet();
        Assert.Subset(pointers, new HashSet<string>
        {
            "/warmUpMinutes", "/shares/arm", "/stations/to", "/include/0", "/include/1", "/wishes/shares", "/wishes/luck", "/shape",
            "/what",
        });
        Assert.Contains(pointers, p => p.StartsWith("/keep/plan", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_cannot_be_is_no_error()
    {
        var answer = await studio.Post("/api/plans/draft", """{"slotMinutes":45,"include":["squat"],"avoid":["squat"]}""");
        Assert.Empty(answer["drafts"]!.AsArray());
        Assert.Contains("both wanted and to be avoided", (string)answer["reason"]!, StringComparison.Ordinal);
        Assert.NotEmpty((string)answer["wayOut"]!);
    }

    /// <summary>A draft is taken as a new class; a version of it is told in words of what it changes.</summary>
    [Fact]
    public async Task An_evening_of_the_studio_is_drafted_taken_and_varied()
    {
        const string Booking = """{"zone":"Europe/Lisbon","headCount":6,"startsAt":"2026-12-03T18:00"}""";
        var found = await studio.Post("/api/drafts", $$"""
            {"brief":{"title":"Loft","slotMinutes":30,"shape":"circuit","seconds":0.3},"booking":{{Booking}},"notLastTime":true}
            """);
        var draft = found["drafts"]![0]!;
        Assert.Equal("Circuit", (string)draft["words"]!);
        Assert.NotEmpty(draft["evaluation"]!["spans"]!.AsArray());
        var made = await studio.Post("/api/classes", new JsonObject
        {
            ["title"] = "Loft",
            ["slotMinutes"] = 30,
            ["aim"] = "conditioning",
            ["booking"] = JsonNode.Parse(Booking),
            ["plan"] = draft["plan"]!.DeepClone(),
        }.ToJsonString());
        Assert.Empty(made["faults"]!.AsArray());
        var blocks = (JsonNode n) => n["blocks"]!.AsArray().Select(b => (string)b!["name"]!);
        Assert.Equal(blocks(draft["plan"]!), blocks(made["plan"]!));

        var shorter = await studio.Post("/api/drafts", new JsonObject
        {
            ["brief"] = new JsonObject { ["slotMinutes"] = 30, ["seconds"] = 0.3 },
            ["vary"] = "shorter",
            ["class"] = made["plan"]!.DeepClone(),
            ["session"] = made["sessions"]![0]!["id"]!.DeepClone(),
        }.ToJsonString());
        Assert.Equal(20, (int)shorter["drafts"]![0]!["plan"]!["slotMinutes"]!);
        Assert.NotEmpty(shorter["drafts"]![0]!["changes"]!.AsArray());

        using var nothing = await studio.CreateClient().PostAsync("/api/drafts", Json("""{"brief":{"slotMinutes":30},"vary":"harder"}"""));
        Assert.Equal(422, (int)nothing.StatusCode);
        using var nobody = await studio.CreateClient().PostAsync(
            "/api/drafts", Json($$"""{"brief":{"slotMinutes":30},"session":"{{Guid.NewGuid()}}"}"""));
        Assert.Equal(404, (int)nobody.StatusCode);
    }

    [Theory]
    [InlineData("""{"slotMinutes":20,"title":"Full moon","seconds":0.2}""", 0)]
    [InlineData("""{"slotMinutes":20,"include":["squat"],"avoid":["squat"]}""", 1)]
    [InlineData("""{"slotMinutes":"long"}""", 2)]
    [InlineData("not json", 2)]
    public async Task A_brief_in_a_folder_becomes_class_files_beside_it(string brief, int code)
    {
        var folder = Directory.CreateTempSubdirectory("halterion-draft-");
        try
        {
            var file = Path.Combine(folder.FullName, "brief.json");
            await File.WriteAllTextAsync(file, brief, TestContext.Current.CancellationToken);
            await File.WriteAllTextAsync(
                Path.Combine(folder.FullName, "full-moon-1.halterion.json"), "mine", TestContext.Current.CancellationToken);
            using var program = Process.Start(new ProcessStartInfo("dotnet", [typeof(Contract).Assembly.Location, "draft", file])
            {
                RedirectStandardOutput = true,
            })!;
            var said = await program.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
            await program.WaitForExitAsync(TestContext.Current.CancellationToken);
            Assert.Equal(code, program.ExitCode);
            Assert.NotEmpty(said);
            var made = folder.GetFiles("*.halterion.json").Length - 1;
            Assert.Equal(code == 0, made > 0);
            // What lay there is not written over.
            Assert.Equal("mine", await File.ReadAllTextAsync(
                Path.Combine(folder.FullName, "full-moon-1.halterion.json"), TestContext.Current.CancellationToken));
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }
}
