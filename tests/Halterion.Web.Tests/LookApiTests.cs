using System.Text.Json.Nodes;
using Halterion.Web.Library;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>One look at a class: read once, told part by part, what is on the screen first.</summary>
public sealed class LookApiTests(Studio studio) : IClassFixture<Studio>
{
    private static string Demo(string name) => File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "demo", $"{name}.halterion.json"));

    private async Task<JsonNode[]> Look(string body, string? encoding = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/plans/look") { Content = Json(body) };
        if (encoding is not null)
        {
            request.Headers.AcceptEncoding.ParseAdd(encoding);
        }

        using var response = await studio.CreateClient().SendAsync(request);
        Assert.Equal("application/x-ndjson", response.Content.Headers.ContentType!.MediaType);
        return [
            .. (await response.Content.ReadAsStringAsync())
                .Split('\n', StringSplitOptions.RemoveEmptyEntries)
                .Select(l => JsonNode.Parse(l)!)];
    }

    private static string PartOf(JsonNode line) => line.AsObject().Select(p => p.Key).Single(k => k is not ("version" or "edit"));

    [Fact]
    public async Task Each_part_is_what_its_own_address_says_and_names_the_version_it_is_of()
    {
        var plan = Demo("full-moon-circuit");
        var view = await studio.Post("/api/classes/file", plan);
        var session = (string)view["sessions"]![0]!["id"]!;
        var file = view["plan"]!.ToJsonString();
        var parts = await Look($$"""{"class":{{file}},"version":7,"edit":3,"session":"{{session}}","figures":true,"fit":true}""");
        Assert.Equal(["evaluation", "checks", "figures", "fit", "offers"], parts.Select(PartOf));
        Assert.All(parts, p => Assert.Equal((7, 3), ((int)p["version"]!, (int)p["edit"]!)));
        void Same(JsonNode expected, JsonNode? found) => Assert.True(JsonNode.DeepEquals(expected, found), $"{found}");
        Same(await studio.Post("/api/plans/evaluate", file), parts[0]["evaluation"]);
        var checks = await studio.Post($"/api/sessions/{session}/checks", $$"""{"class":{{file}} }""");
        Same(checks["findings"]!, parts[1]["checks"]!["findings"]);
        Same(await studio.Post("/api/plans/figures", file), parts[2]["figures"]);
        Same(await studio.Post("/api/plans/fit", $$"""{"class":{{file}},"terms":{} }"""), parts[3]["fit"]);
        // Repairs are tried for a bounded time: on a machine where others run some are left out, and that is said.
        var offered = parts[4]["offers"]!;
        Assert.True((int)checks["untried"]! > 0 || (int)offered["untried"]! > 0 || JsonNode.DeepEquals(checks["offers"], offered["offers"]),
            $"{offered}");
        Assert.NotEmpty(offered["offers"]!.AsArray());
    }

    [Fact]
    public async Task Who_is_expected_on_the_screen_counts_before_it_is_saved()
    {
        var view = await studio.Post("/api/classes/file", Demo("six-around-the-loft"));
        var session = (string)view["sessions"]![0]!["id"]!;
        var ida = await studio.Post("/api/people", """{"name":"Ida Fenn","limits":[{"limit":"knee","strict":true}]}""");
        var booking = $$"""{"zone":"UTC","headCount":30,"expected":["{{ida["id"]}}"]}""";
        var file = view["plan"]!.ToJsonString();
        async Task<string> Looked(string held) =>
            (await Look($$"""{"class":{{file}},"session":"{{session}}"{{held}} }"""))[1]["checks"]!["findings"]!.ToJsonString();
        var (before, onScreen) = (await Looked(""), await Looked($",\"booking\":{booking}"));
        Assert.NotEqual(before, onScreen);
        using var saved = await studio.PutNow($"/api/sessions/{session}", $$"""{"booking":{{booking}} }""");
        Assert.Equal(
            onScreen, (await studio.Post($"/api/sessions/{session}/checks", $$"""{"class":{{file}} }"""))["findings"]!.ToJsonString());
    }

    [Fact]
    public async Task Faults_are_the_only_part_of_a_class_that_has_some()
    {
        var parts = await Look($$"""{"class":{{Plan.Replace("\"squat\"", "\"no-such-move\"", StringComparison.Ordinal)}} }""");
        Assert.Equal("faults", PartOf(Assert.Single(parts)));
        Assert.Equal("/blocks/0/stations/0/options/0/move", (string?)parts[0]["faults"]![0]!["pointer"]);
    }

    /// <summary>The first part is there before the last is even begun, compressed or not.</summary>
    [Theory]
    [InlineData("identity")]
    [InlineData("br")]
    [InlineData("gzip")]
    public async Task What_is_known_is_sent_at_once(string encoding)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/plans/look") { Content = Json($$"""{"class":{{Plan}} }""") };
        request.Headers.AcceptEncoding.ParseAdd(encoding);
        using var response = await studio.CreateClient().SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        Assert.Equal(encoding == "identity" ? [] : [encoding], response.Content.Headers.ContentEncoding);
        await using var stream = await response.Content.ReadAsStreamAsync();
        await using Stream plain = encoding switch
        {
            "br" => new System.IO.Compression.BrotliStream(stream, System.IO.Compression.CompressionMode.Decompress),
            "gzip" => new System.IO.Compression.GZipStream(stream, System.IO.Compression.CompressionMode.Decompress),
            _ => stream,
        };
        using var reader = new StreamReader(plain);
        var first = await reader.ReadLineAsync(TestContext.Current.CancellationToken);
        Assert.Equal("evaluation", PartOf(JsonNode.Parse(first!)!));
        // The class alone has two parts; the second waits until the screen is quiet.
        var second = reader.ReadLineAsync(TestContext.Current.CancellationToken);
        Assert.False(second.IsCompleted, "Both came together.");
        Assert.Equal("offers", PartOf(JsonNode.Parse((await second)!)!));
    }

    [Theory]
    [InlineData("/api/moves", "br")]
    [InlineData("/api/moves", "gzip")]
    public async Task Large_answers_are_compressed(string address, string encoding)
    {
        async Task<int> Size(string accept)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, address);
            request.Headers.AcceptEncoding.ParseAdd(accept);
            using var response = await studio.CreateClient().SendAsync(request);
            return (await response.Content.ReadAsByteArrayAsync()).Length;
        }

        Assert.InRange(await Size(encoding), 1000, await Size("identity") / 2);
    }
}
