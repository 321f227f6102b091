using System.Net;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>Back on time, over HTTP: what is asked without a lead, and the ways of a class under way.</summary>
public sealed class LeadApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Late = """
        {"format":"halterion-class","version":1,"title":"Late","slotMinutes":10,"leadInSeconds":0,"blocks":[
          {"name":"Work","phase":"main","rounds":4,"betweenRounds":60,"stations":[{"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"squat"}]}]},
          {"name":"Down","phase":"cooldown","format":"talk","seconds":150}]}
        """;

    [Fact]
    public async Task A_refit_is_answered_without_anything_being_kept()
    {
        // 570 s; 30 s in, 540 are left. 45 s less: three rests of 60 s, 15 s less each: 25 % and 5 a change.
        var answer = await studio.Post("/api/plans/refit", $$"""{"plan":{{Late}},"position":30,"remainingSeconds":495}""");
        var way = answer["ways"]![0]!;
        Assert.Equal(("Shorter rests", 30, 495, "Work: rest 60 s → 45 s"),
            ((string?)way["title"], (int)way["cost"]!, (int)way["endsInSeconds"]!, (string?)way["changes"]![0]));
        Assert.Equal((0, 30, "work", 0),
            ((int)way["spans"]![0]!["start"]!, (int)way["spans"]![0]!["end"]!, (string?)way["spans"]![0]!["kind"],
                (int)way["spans"]![0]!["block"]!));
        Assert.Equal((0, 0), ((int)answer["shortBy"]!, answer["obstacles"]!.AsArray().Count));
        Assert.Equal(50,
            (int)(
                await studio.Post("/api/plans/refit",
                    $$"""{"plan":{{Late}},"position":30,"remainingSeconds":495,"terms":{"perChange":25} }"""))["ways"]![0]!["cost"]!);
    }

    [Theory]
    [InlineData(""" "position":571,"remainingSeconds":10 """, "/position")]
    [InlineData(""" "position":-1,"remainingSeconds":10 """, "/position")]
    [InlineData(""" "position":1.5,"remainingSeconds":10 """, "/position")]
    [InlineData(""" "position":0 """, "")]
    [InlineData(""" "position":0,"remainingSeconds":10,"terms":{"rest":1} """, "/terms/rest")]
    public async Task A_refit_that_cannot_be_read_says_where(string rest, string pointer)
    {
        using var response = await studio.CreateClient().PostAsync("/api/plans/refit", Json($$"""{"plan":{{Late}},{{rest}}}"""));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Equal(pointer, (string?)(await Read(response))["errors"]![0]!["pointer"]);
    }

    [Fact]
    public async Task A_class_that_starts_late_is_offered_ways_and_the_one_taken_brings_it_home()
    {
        // Booked for 10 min that began 2 min ago: up to 480 s are left for 570.
        var view = await studio.Post("/api/classes/file", Late);
        var starts = DateTimeOffset.UtcNow.AddMinutes(-2);
        var session = (string)(await studio.Post(
            $"/api/classes/{view["id"]}/sessions",
            $$"""{"booking":{"zone":"UTC","headCount":9,"startsAt":"{{starts:yyyy-MM-ddTHH:mm}}"} }"""))["id"]!;
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        var address = $"/api/leads/{lead["id"]}";
        var before = await studio.Get($"{address}/ways");
        Assert.InRange((int)before["lateSeconds"]!, 90, 152);
        var way = before["ways"]![0]!;
        Assert.True((long)way["endsAt"]! <= (long)lead["endsAt"]!);

        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        await studio.Post($"{address}/commands", $$"""
            {"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"start","at":{{now}}},
             {"id":"{{Guid.NewGuid()}}","kind":"adjust","at":{{now}},"payload":{"shifts":{{way["shifts"]!.ToJsonString()}} } }]}
            """);
        var after = await studio.Get($"{address}/ways");
        Assert.InRange((int)after["lateSeconds"]!, -20, 1);
        // The protected end is as long as planned: nothing of it is among the changes.
        Assert.DoesNotContain(way["shifts"]!.AsArray(), s => (int)s!["scene"]! == lead["script"]!["scenes"]!.AsArray().Count - 1);
    }

    [Fact]
    public async Task What_a_command_carries_is_read_strictly_and_a_note_goes_with_its_person()
    {
        var view = await studio.Post("/api/classes/file", Late);
        var session = (string)view["sessions"]![0]!["id"]!;
        var person = (string)(await studio.Post("/api/people", """{"name":"Ane Quill"}"""))["id"]!;
        var lead = await studio.Post($"/api/sessions/{session}/lead", "");
        var address = $"/api/leads/{lead["id"]}/commands";
        string Command(string kind, string payload) => $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"{{kind}}","at":{{DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()}}{{payload}}}]}""";
        foreach (var (kind, payload, pointer) in new[]
        {
            ("adjust", "", "/commands/0"), ("jump", ""","payload":{}""", "/commands/0/payload"),
            ("adjust", ""","payload":{"shifts":[{"scene":0,"by":1.5}]}""", "/commands/0/payload/shifts/0/by"),
            ("pause", ""","payload":{"scene":1}""",
                "/commands/0/payload/scene"), ("note", ""","payload":{"tap":"fell"}""", "/commands/0/payload/tap"),
        })
        {
            using var refused = await studio.CreateClient().PostAsync(address, Json(Command(kind, payload)));
            Assert.Equal((HttpStatusCode.UnprocessableEntity, pointer),
                (refused.StatusCode, (string?)(await Read(refused))["errors"]![0]!["pointer"]));
        }

        var note = (
            await studio.Post(address,
                Command("note",
                    $$""","payload":{"person":"{{person}}","tap":"pain","text":"Ane Quill, left knee","scene":2}""")))["commands"]![0]!;
        Assert.Equal(
            ("pain", person, 2), ((string?)note["payload"]!["tap"], (string?)note["payload"]!["person"], (int)note["payload"]!["scene"]!));
        Assert.Contains(
            "pain Ane Quill, left knee",
            (string)Assert.Single((await studio.Get($"/api/people/{person}/export"))["noted"]!.AsArray())!,
            StringComparison.Ordinal);
        using var erased = await studio.CreateClient().DeleteAsync($"/api/people/{person}");
        Assert.True(erased.IsSuccessStatusCode);
        var left = (await studio.Post($"/api/sessions/{session}/lead", ""))["commands"]!.ToJsonString();
        Assert.DoesNotContain("Quill", left, StringComparison.Ordinal);
        Assert.DoesNotContain("knee", left, StringComparison.Ordinal);
    }

    private const string Sided = """
        {"format":"halterion-class","version":1,"title":"Sided","slotMinutes":10,"blocks":[
          {"name":"Work","phase":"main","stations":[{"dose":[
            {"kind":"reps","amount":6,"side":"left","tempo":"3-0-1-0"},{"kind":"reps","amount":6,"side":"right","move":"reverse-lunge"}],
            "options":[{"tier":"main","move":"split-squat"},{"tier":"easier","move":"split-squat","support":"hand"}]}]}]}
        """;

    /// <summary>Any option, part, side and tempo of a class is filmed as it is done there, not one picture a station.</summary>
    [Fact]
    public async Task What_is_on_is_filmed()
    {
        var view = await studio.Post("/api/classes/file", Sided);
        var session = (string)view["sessions"]![0]!["id"]!;
        var options = view["plan"]!["blocks"]![0]!["stations"]![0]!["options"]!.AsArray().Select(o => (string)o!["id"]!).ToArray();
        Task<JsonNode> Film(int option, string rest = "") => studio.Get($"/api/wall/{session}/film?option={options[option]}{rest}");
        static string First(JsonNode film) => film["film"]!["frames"]![20]!.ToJsonString();
        static double Seconds(JsonNode film) => (double)film["film"]!["seconds"]!;
        var (whole, part, other) = (await Film(0), await Film(0, "&part=1&side=left"), await Film(0, "&part=2&side=right"));
        Assert.Equal(4, Seconds(part), 0.3);
        Assert.True(Seconds(whole) < Seconds(part), "the part has its own, slower tempo");
        Assert.Equal(3, new[] { whole, part, other }.Select(First).Distinct().Count());
        Assert.NotEqual(First(part), First(await Film(0, "&part=1&side=right")));
        Assert.Contains((await Film(1))["film"]!["still"]!.AsArray(), layer => (string?)layer!["ink"] == "wall");
        Assert.Equal(50, (double)whole["film"]!["framesPerSecond"]!);

        (string, HttpStatusCode)[] wrongs =
        [
            ("option=nobody", HttpStatusCode.NotFound),
            ($"option={options[0]}&part=3", HttpStatusCode.NotFound),
            ($"option={options[0]}&part=0", HttpStatusCode.NotFound),
            ($"option={options[0]}&side=up", HttpStatusCode.BadRequest),
        ];
        foreach (var (wrong, status) in wrongs)
        {
            using var response = await studio.CreateClient().GetAsync($"/api/wall/{session}/film?{wrong}");
            Assert.True(status == response.StatusCode, $"{wrong}: {response.StatusCode}");
        }
    }
}
