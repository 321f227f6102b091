using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

public sealed class ClassApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Booking = """{"zone":"Europe/Lisbon","headCount":9,"startsAt":"2026-12-01T18:00"}""";

    [Theory]
    [InlineData("")]
    [InlineData("\n  \t")]
    [InlineData("\uFEFF")]
    public async Task A_class_file_comes_back_to_the_byte(string before)
    {
        var sent = Encoding.UTF8.GetBytes(before + Plan + "\n\n");
        using var content = new ByteArrayContent(sent);
        content.Headers.ContentType = new("application/json");
        using var opened = await studio.CreateClient().PostAsync("/api/classes/file", content);
        var view = await Read(opened);

        // Neither saving it unchanged, ids and all, nor changing its booking touches the file.
        using var saved = await studio.Put($"/api/classes/{view["id"]}", $$"""{"plan":{{view["plan"]!.ToJsonString()}}}""", "1");
        Assert.Equal(1, (int)(await Read(saved))["version"]!);
        using var booked = await studio.Put($"/api/sessions/{view["sessions"]![0]!["id"]}", $$"""{"booking":{{Booking}}}""", "1");
        Assert.Equal(HttpStatusCode.OK, booked.StatusCode);
        Assert.Equal(sent, await studio.CreateClient().GetByteArrayAsync($"/api/classes/{view["id"]}/file"));
    }

    [Fact]
    public async Task A_broken_file_changes_nothing()
    {
        var before = (int)(await studio.Get("/api/classes"))["all"]!;
        using var response = await studio.CreateClient().PostAsync(
            "/api/classes/file", Json(Plan.Replace("squat", "moonwalk", StringComparison.Ordinal)));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Equal(2, (await Read(response))["errors"]!.AsArray().Count);
        Assert.Equal(before, (int)(await studio.Get("/api/classes"))["all"]!);
    }

    [Fact]
    public async Task Two_writers_never_overwrite_each_other_silently()
    {
        var id = await studio.OpenFile();
        string Save(string title) => $$"""{"plan":{{Plan.Replace("Test class", title, StringComparison.Ordinal)}}}""";
        using var first = await studio.Put($"/api/classes/{id}", Save("Mine"), "1");
        Assert.Equal(HttpStatusCode.OK, first.StatusCode);
        using var second = await studio.Put($"/api/classes/{id}", Save("Theirs"), "1");
        Assert.Equal(HttpStatusCode.PreconditionFailed, second.StatusCode);
        var current = (await Read(second))["current"]!;
        Assert.Equal(("Mine", 2), ((string)current["plan"]!["title"]!, (int)current["version"]!));
        using var blind = await studio.Put($"/api/classes/{id}", Save("Blind"));
        Assert.Equal(HttpStatusCode.PreconditionRequired, blind.StatusCode);
    }

    [Fact]
    public async Task A_draft_with_faults_is_saved_but_not_led()
    {
        var made = await studio.Post("/api/classes", $$"""{"title":"Draft","slotMinutes":45,"aim":"strength","booking":{{Booking}}}""");
        Assert.Equal("/blocks", (string?)made["faults"]![0]!["pointer"]);
        using var lead = await studio.CreateClient().PostAsync($"/api/sessions/{made["sessions"]![0]!["id"]}/lead", null);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, lead.StatusCode);
    }

    [Fact]
    public async Task The_list_has_each_class_once_what_comes_next_first_with_its_dates()
    {
        string Made(string title, string booking) =>
            $$"""{"title":"{{title}}","slotMinutes":45,"aim":"strength","booking":{"zone":"UTC","headCount":9{{booking}}} }""";
        var later = await studio.Post("/api/classes", Made("Oar later", ""","startsAt":"2031-05-07T18:00" """));
        var sooner = await studio.Post("/api/classes", Made("Sooner oar", ""","startsAt":"2030-05-07T18:00" """));
        await studio.Post("/api/classes", Made("Oar without a date", ""));
        var again = await studio.Post(
            $"/api/classes/{later["id"]}/sessions", """{"booking":{"zone":"UTC","headCount":4,"startsAt":"2031-06-07T18:00"}}""");

        // Words of a title in any order; a class with two dates stands there once.
        var found = await studio.Get("/api/classes?search=oar&dates=true");
        Assert.Equal(3, (int)found["all"]!);
        Assert.Equal(["Sooner oar", "Oar later", "Oar without a date"], found["classes"]!.AsArray().Select(c => (string)c!["title"]!));
        Assert.Equal("Sooner oar", (string?)(await studio.Get("/api/classes?search=oar%20soon"))["classes"]![0]!["title"]);
        Assert.Equal(0, (int)(await studio.Get("/api/classes?search=oar%20_"))["all"]!);
        var dates = found["classes"]![1]!["next"]!.AsArray();
        Assert.Equal(["2031-05-07T18:00", "2031-06-07T18:00"], dates.Select(d => (string)d!["booking"]!["startsAt"]!));
        Assert.Empty((await studio.Get("/api/classes?search=sooner"))["classes"]![0]!["next"]!.AsArray());

        // All dates of one class and of no other; a removed one is gone from both.
        var own = await studio.Get($"/api/sessions?of={later["id"]}");
        Assert.Equal(2, (int)own["all"]!);
        using var removed = await studio.CreateClient().DeleteAsync($"/api/sessions/{again["id"]}");
        Assert.Equal(1, (int)(await studio.Get($"/api/sessions?of={later["id"]}"))["all"]!);

        // What the line says of its readiness is what Ready says.
        var session = sooner["sessions"]![0]!["id"];
        var standing = await studio.Get($"/api/sessions/{session}/standing");
        Assert.Equal((false, false), ((bool)standing["ready"]!, (bool)standing["sure"]!));
        var opened = await studio.OpenFile();
        var whole = await studio.Get($"/api/classes/{opened}");
        var first = whole["sessions"]![0]!["id"];
        var page = await studio.Post($"/api/sessions/{first}/ready", $$"""{"class":{{whole["plan"]!.ToJsonString()}}}""");
        var line = await studio.Get($"/api/sessions/{first}/standing");
        Assert.Equal(
            ((string)page["says"]!, (bool)page["ready"]!, (bool)page["sure"]!),
            ((string)line["says"]!, (bool)line["ready"]!, (bool)line["sure"]!));
    }

    [Fact]
    public async Task A_copy_has_a_brief_of_its_own()
    {
        var id = await studio.OpenFile();
        var copy = await studio.Post(
            "/api/classes", $$"""{"title":"Copy","slotMinutes":20,"aim":"technique","booking":{{Booking}},"copyOf":"{{id}}"}""");
        Assert.Equal(
            ("Copy", 20, "technique", 1),
            ((string)copy["plan"]!["title"]!, (int)copy["plan"]!["slotMinutes"]!, (string)copy["plan"]!["aim"]!,
                copy["plan"]!["blocks"]!.AsArray().Count));
        var listed = (await studio.Get("/api/classes"))["classes"]!.AsArray().Single(c => (string?)c!["id"] == (string?)copy["id"])!;
        Assert.Equal(
            ("Test class", "50 s", "19 min 10 s to spare", 1),
            ((string)listed["copyOf"]!, (string)listed["length"]!, (string)listed["verdict"]!, (int)listed["toCome"]!));
    }

    [Fact]
    public async Task Removing_can_be_undone()
    {
        var id = await studio.OpenFile();
        using var removed = await studio.CreateClient().DeleteAsync($"/api/classes/{id}");
        using var gone = await studio.CreateClient().GetAsync($"/api/classes/{id}");
        Assert.Equal(HttpStatusCode.NotFound, gone.StatusCode);
        using var back = await studio.CreateClient().PostAsync($"/api/classes/{id}/restore", null);
        Assert.Equal("Test class", (string?)(await studio.Get($"/api/classes/{id}"))["plan"]!["title"]);
    }

    [Fact]
    public async Task What_is_saved_has_ids_and_a_move_keeps_them()
    {
        var id = await studio.OpenFile();
        var plan = (await studio.Get($"/api/classes/{id}"))["plan"]!;
        Assert.Equal(
            ("b1", "b1s1", "b1s1o2"),
            ((string)plan["blocks"]![0]!["id"]!, (string)plan["blocks"]![0]!["stations"]![0]!["id"]!,
                (string)plan["blocks"]![0]!["stations"]![0]!["options"]![1]!["id"]!));

        // A block without an id before it gets one that is not taken.
        var blocks = plan["blocks"]!.AsArray();
        var before = blocks[0]!.DeepClone().AsObject();
        before.Remove("id");
        before["stations"]!.AsArray()[0] = JsonNode.Parse(
            """{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"}]}""");
        blocks.Insert(0, before);
        using var saved = await studio.Put($"/api/classes/{id}", $$"""{"plan":{{plan.ToJsonString()}}}""", "1");
        var written = (await Read(saved))["plan"]!["blocks"]!.AsArray();
        Assert.Equal(["b1-2", "b1"], written.Select(b => (string)b!["id"]!));
        Assert.Equal(["b1s1-2", "b1s1"], written.Select(b => (string)b!["stations"]![0]!["id"]!));
    }

    /// <summary>
    /// The clocks in Lisbon: forward over 01:00–02:00 on 29 March 2026, back from 02:00 on 25 October 2026 (EU directive 2000/84/EC).
    /// </summary>
    [Theory]
    [InlineData("2026-03-29T01:30", 422)]
    [InlineData("2026-03-29T02:00", 200)]
    [InlineData("2026-10-25T01:30", 422)]
    [InlineData("2026-10-25T01:30+01:00", 200)]
    [InlineData("2026-10-25T01:30+00:00", 200)]
    [InlineData("2026-10-25T01:30+05:00", 422)]
    [InlineData("0001-01-01T00:00", 422)]
    [InlineData("9999-12-31T23:59", 422)]
    [InlineData("2026-12-01 18:00", 422)]
    public async Task A_start_that_is_not_or_comes_twice_is_asked_about(string starts, int status)
    {
        using var response = await studio.CreateClient().PostAsync(
            "/api/classes", Json($$"""{"title":"Night","slotMinutes":30,"aim":"strength","booking":{"zone":"Europe/Lisbon","headCount":3,"startsAt":"{{starts}}"} }"""));
        Assert.Equal(status, (int)response.StatusCode);
        if (status == 422)
        {
            Assert.Equal("/booking/startsAt", (string?)(await Read(response))["errors"]![0]!["pointer"]);
        }
    }
}
