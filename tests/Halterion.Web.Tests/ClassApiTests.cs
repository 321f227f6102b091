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

        // Neither saving it unchanged nor changing its booking touches the file.
        using var saved = await studio.Put($"/api/classes/{view["id"]}", $$"""{"booking":{{Booking}},"plan":{{view["plan"]!.ToJsonString()}}}""", "1");
        Assert.Equal(2, (int)(await Read(saved))["version"]!);
        Assert.Equal(sent, await studio.CreateClient().GetByteArrayAsync($"/api/classes/{view["id"]}/file"));
    }

    [Fact]
    public async Task A_broken_file_changes_nothing()
    {
        var before = (await studio.Get("/api/classes")).AsArray().Count;
        using var response = await studio.CreateClient().PostAsync("/api/classes/file", Json(Plan.Replace("squat", "moonwalk", StringComparison.Ordinal)));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
        Assert.Equal(2, (await Read(response))["errors"]!.AsArray().Count);
        Assert.Equal(before, (await studio.Get("/api/classes")).AsArray().Count);
    }

    [Fact]
    public async Task Two_writers_never_overwrite_each_other_silently()
    {
        var id = await studio.OpenFile();
        string Save(string title) => $$"""{"booking":{{Booking}},"plan":{{Plan.Replace("Test class", title, StringComparison.Ordinal)}}}""";
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
        using var lead = await studio.CreateClient().PostAsync($"/api/classes/{made["id"]}/lead", Json("""{"again":false}"""));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, lead.StatusCode);
    }

    [Fact]
    public async Task A_copy_has_a_brief_of_its_own()
    {
        var id = await studio.OpenFile();
        var copy = await studio.Post("/api/classes", $$"""{"title":"Copy","slotMinutes":20,"aim":"technique","booking":{{Booking}},"copyOf":"{{id}}"}""");
        Assert.Equal(("Copy", 20, "technique", 1), ((string)copy["plan"]!["title"]!, (int)copy["plan"]!["slotMinutes"]!, (string)copy["plan"]!["aim"]!, copy["plan"]!["blocks"]!.AsArray().Count));
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
    public async Task Commands_count_once_and_a_stranger_is_told_what_came_before()
    {
        var id = await studio.OpenFile();
        var lead = await studio.Post($"/api/classes/{id}/lead", """{"again":false}""");
        var address = $"/api/leads/{lead["id"]}/commands";
        var (start, pause) = (Guid.NewGuid(), Guid.NewGuid());
        string Sent(int expected, params (Guid Id, string Kind)[] commands) =>
            $$"""{"expected":{{expected}},"commands":[{{string.Join(",", commands.Select(c => $$"""{"id":"{{c.Id}}","kind":"{{c.Kind}}","at":1000}"""))}}]}""";

        await studio.Post(address, Sent(0, (start, "start")));
        var both = await studio.Post(address, Sent(0, (start, "start"), (pause, "pause")));
        Assert.Equal(["start", "pause"], both["commands"]!.AsArray().Select(c => (string)c!["kind"]!));
        using var stranger = await studio.CreateClient().PostAsync(address, Json(Sent(0, (Guid.NewGuid(), "resume"))));
        Assert.Equal(HttpStatusCode.Conflict, stranger.StatusCode);
        Assert.Equal(2, (await Read(stranger))["commands"]!.AsArray().Count);

        // Opened again it is the same lead, its script unchanged by what becomes of the plan.
        using var saved = await studio.Put($"/api/classes/{id}", $$"""{"booking":{{Booking}},"plan":{{Plan.Replace("40", "55", StringComparison.Ordinal)}}}""", "1");
        var again = await studio.Post($"/api/classes/{id}/lead", """{"again":false}""");
        Assert.Equal((lead["id"]!.ToString(), 50), (again["id"]!.ToString(), (int)again["script"]!["length"]!));
        Assert.Equal(65, (int)(await studio.Post($"/api/classes/{id}/lead", """{"again":true}"""))["script"]!["length"]!);
    }

    [Fact]
    public async Task A_log_is_filled_in_corrected_saved_and_forgets_who_is_erased()
    {
        var ada = await studio.Post("/api/people", """{"name":"Ada","usualTier":"easier"}""");
        var bo = await studio.Post("/api/people", """{"name":"Bo","usualTier":"harder"}""");
        var id = await studio.OpenFile();
        var log = await studio.Get($"/api/classes/{id}/log");
        Assert.Equal(0, (int)log["version"]!);
        Assert.Equal([1, 0], log["rows"]!.AsArray().Select(r => (int)r!["row"]!["uses"]![0]!["option"]!));

        var rows = new JsonArray([.. log["rows"]!.AsArray().Select(r => r!["row"]!.DeepClone())]);
        rows[1]!["came"] = false;
        rows[0]!["note"] = "knee fine";
        string Body(int version) => $$"""{"version":{{version}},"log":{"rows":{{rows.ToJsonString()}},"note":"good"} }""";
        using var saved = await studio.Put($"/api/classes/{id}/log", Body(0));
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        using var late = await studio.Put($"/api/classes/{id}/log", Body(0));
        Assert.Equal(HttpStatusCode.PreconditionFailed, late.StatusCode);
        Assert.Equal(("logged", 1), ((await studio.Get("/api/classes")).AsArray().Where(c => (string?)c!["id"] == id).Select(c => ((string)c!["status"]!, (int)c["came"]!)).Single()));
        Assert.Equal("knee fine", (string?)(await studio.Get($"/api/people/{ada["id"]}/export"))["classes"]![0]!["note"]);

        using var erased = await studio.CreateClient().DeleteAsync($"/api/people/{ada["id"]}");
        Assert.Equal(["Bo"], (await studio.Get($"/api/classes/{id}/log"))["rows"]!.AsArray().Select(r => (string)r!["name"]!));
        using var afterwards = await studio.Put($"/api/classes/{id}/log", Body(1));
        Assert.Equal(HttpStatusCode.OK, afterwards.StatusCode);
        Assert.NotNull(bo["id"]);
    }
}
