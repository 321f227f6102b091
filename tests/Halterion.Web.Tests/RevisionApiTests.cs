using System.Net;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>
/// Every document says its revision, is changed from one, and takes a change once (RFC 9110, 13.1.1 and 15.5.13; RFC 6585, 3).
/// </summary>
public sealed class RevisionApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Hall = """{"name":"Hall","floor":{"widthM":8,"lengthM":12},"stock":[{"item":"mat","count":12}]}""";
    private const string Block =
        """{"name":"Mine","phase":"main","stations":[{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"squat"}]}]}""";

    /// <summary>Each document, made anew: its address, one body and another, and the words in which the two differ.</summary>
    public static TheoryData<string> Kinds =>
        ["class", "session", "person", "room", "circle", "chosen", "own-moves", "template", "preferences", "fit", "log", "waivers",
            "ticks"];

    private async Task<(string Address, string One, string Other, string Differs)> Made(string kind)
    {
        var view = await studio.Post("/api/classes/file", Plan);
        var (of, session) = ((string)view["id"]!, (string)view["sessions"]![0]!["id"]!);
        async Task<string> Id(string address, string body) => (string)(await studio.Post(address, body))["id"]!;
        var person = await Id("/api/people", """{"name":"Ida Fenn"}""");
        string Row(string note) => $$"""{"log":{"rows":[{"personId":"{{person}}","came":true,"uses":[],"note":"{{note}}"}],"note":"n"} }""";
        return kind switch
        {
            "class" =>
                (
                    $"/api/classes/{of}",
                    $$"""{"plan":{{Plan.Replace("40", "50", StringComparison.Ordinal)}}}""",
                    $$"""{"plan":{{Plan.Replace("40", "35", StringComparison.Ordinal)}}}""",
                    "35"),
            "session" =>
                ($"/api/sessions/{session}", """{"booking":{"zone":"UTC","headCount":7}}""", """{"booking":{"zone":"UTC","headCount":8}}""",
                    "Head-count"),
            "person" =>
                ($"/api/people/{person}", """{"name":"Ida Fenn","note":"knee operated"}""", """{"name":"Ida Fenn","note":"knee fine"}""",
                    "knee operated"),
            "room" =>
                (
                    $"/api/rooms/{await Id("/api/rooms", Hall)}",
                    Hall.Replace("12}]", "14}]", StringComparison.Ordinal),
                    Hall.Replace("12}]", "10}]", StringComparison.Ordinal),
                    "14 mats"),
            "circle" =>
                (
                    $"/api/circles/{await Id("/api/circles", """{"name":"Tuesdays"}""")}",
                    $$"""{"name":"Tuesdays","people":["{{person}}"]}""",
                    """{"name":"Thursdays"}""",
                    "Ida Fenn"),
            "chosen" =>
                ($"/api/sessions/{session}/chosen", """{"spots":{},"looked":["mat"]}""", """{"spots":{},"looked":["mat","chair"]}""",
                    "Looks done"),
            "own-moves" =>
                (
                    "/api/own-moves",
                    """{"moves":[{"id":"my-a","name":"A dip","family":"squat"}]}""",
                    """{"moves":[{"id":"my-a","name":"A drop","family":"squat"}]}""",
                    "A dip"),
            "template" =>
                (
                    $"/api/templates/{await Id("/api/templates", $$"""{"name":"Mine","block":{{Block}}}""")}",
                    $$"""{"name":"Yours","block":{{Block}}}""",
                    $$"""{"name":"Ours","block":{{Block}}}""",
                    "Yours"),
            "preferences" => ("/api/settings/preferences", """{"sides":"alternate"}""", """{"sides":"chunks"}""", "alternate"),
            "fit" => ("/api/settings/fit", """{"restFloor":20}""", """{"restFloor":25}""", "20 s"),
            "log" => ($"/api/sessions/{session}/log", Row("strong"), Row("tired"), "strong"),
            "waivers" =>
                (
                    $"/api/sessions/{session}/waivers",
                    """{"code":"kit.short","place":"b1","reason":"borrowed"}""",
                    """{"code":"kit.short","place":"b1","reason":"bought"}""",
                    "borrowed"),
            _ => (
                $"/api/sessions/{session}/ticks",
                """{"key":"From: shelf: mat","done":true}""",
                """{"key":"From: shelf: mat","done":false}""",
                "done"),
        };
    }

    /// <summary>As it is fetched with its own address, or with the list it stands in.</summary>
    private async Task<int> RevisionOf(string address)
    {
        using var own = await studio.CreateClient().GetAsync(address);
        if (own.Headers.ETag is { } tag)
        {
            return int.Parse(tag.Tag.Trim('"'), System.Globalization.CultureInfo.InvariantCulture);
        }

        var at = address.LastIndexOf('/');
        return (int)(await studio.Get(address[..at])).AsArray().Single(d => (string)d!["id"]! == address[(at + 1)..])!["revision"]!;
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public async Task A_change_is_made_from_a_revision_and_taken_once(string kind)
    {
        var (address, one, other, differs) = await Made(kind);
        var first = await RevisionOf(address);
        using var blind = await studio.Put(address, one);
        Assert.Equal(428, (int)blind.StatusCode);
        Assert.Equal(first, await RevisionOf(address));

        // The answer is lost, and it is sent again: answered like the first time, also after somebody else's.
        var change = Guid.NewGuid();
        using var saved = await studio.Put(address, one, $"{first}", change);
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        using var again = await studio.Put(address, one, $"{first}", change);
        Assert.Equal(
            (await saved.Content.ReadAsStringAsync(), HttpStatusCode.OK), (await again.Content.ReadAsStringAsync(), again.StatusCode));
        var second = await RevisionOf(address);
        Assert.Equal(first + 1, second);

        // A second tab that saw the first revision: nothing is overwritten, and both are told apart in words.
        using var late = await studio.Put(address, other, $"{first}");
        Assert.Equal(HttpStatusCode.PreconditionFailed, late.StatusCode);
        var problem = await Read(late);
        Assert.NotNull(problem["current"]);
        Assert.Contains(differs, problem["differences"]!.ToJsonString(), StringComparison.Ordinal);
        Assert.EndsWith("was changed in another tab or on another device.", (string)problem["title"]!, StringComparison.Ordinal);
        Assert.Equal(second, await RevisionOf(address));

        using var mine = await studio.Put(address, other, $"{second}");
        Assert.Equal(HttpStatusCode.OK, mine.StatusCode);
        Assert.Equal(second + 1, await RevisionOf(address));
        using var longAfter = await studio.Put(address, one, $"{first}", change);
        Assert.Equal(HttpStatusCode.OK, longAfter.StatusCode);
        Assert.Equal(second + 1, await RevisionOf(address));
    }

    [Theory]
    [InlineData("/api/people", """{"name":"Sent Twice"}""")]
    [InlineData("/api/circles", """{"name":"Sent twice"}""")]
    [InlineData("/api/rooms", Hall)]
    [InlineData("/api/templates", $$"""{"name":"Sent twice","block":{{Block}}}""")]
    [InlineData("/api/classes/file", Plan)]
    [InlineData("/api/classes", """{"title":"Sent twice","slotMinutes":30,"aim":"strength","booking":{"zone":"UTC","headCount":3}}""")]
    public async Task What_is_added_and_sent_again_is_added_once(string address, string body)
    {
        var change = Guid.NewGuid();
        async Task<JsonNode> Send()
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, address) { Content = Json(body) };
            request.Headers.Add("Change-Id", change.ToString());
            using var response = await studio.CreateClient().SendAsync(request);
            Assert.Equal(HttpStatusCode.OK, response.StatusCode);
            return await Read(response);
        }

        var (first, second) = (await Send(), await Send());
        Assert.Equal((change.ToString(), first.ToJsonString()), ((string)first["id"]!, second.ToJsonString()));
    }

    [Fact]
    public async Task Another_tick_of_the_same_list_does_not_undo_one()
    {
        var (address, one, _, _) = await Made("ticks");
        using var first = await studio.PutNow(address, one);
        using var second = await studio.PutNow(address, """{"key":"look mat","done":true}""");
        Assert.Equal(["From: shelf: mat", "look mat"], (await studio.Get(address))["ticks"]!.AsArray().Select(t => (string)t!));
    }
}
