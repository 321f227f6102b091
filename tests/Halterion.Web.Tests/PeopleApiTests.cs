using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>People as data: tables in and out, one person whole and gone, and the review with everything inline.</summary>
public class PeopleApiTests(Studio studio) : IClassFixture<Studio>
{
    private const string Good = "Name;Height;Weight;Born;Care;Level\r\nWyn Ash;5 ft 7;150 lb;12.3.1984;knee left strict until "
        + "2027-01-31: likes a pad;harder\r\nOda Birk;1,68 m;64,5;1990;;easier\r\n";

    /// <summary>5 ft 7 in is 170.18 cm, 150 lb are 68.04 kg (international yard and pound agreement, 1959).</summary>
    /// <summary>Digits of other scripts are no numbers here: they are said like any other text that is none, and break nothing.</summary>
    [Theory]
    [InlineData("Name,Height\nIda Fenn,١٧١", 1)]
    [InlineData("Name,Height\nIda Fenn,１７１ cm", 1)]
    [InlineData("Name,Born\nIda Fenn,१९८४", 1)]
    [InlineData("Name,Weight\nIda Fenn,६४.५", 1)]
    [InlineData("Name,Height\nIda Fenn,5 ft ١٠", 1)]
    public async Task Digits_of_another_script_are_said(string table, int faulty) =>
        Assert.Equal(faulty,
            (int)(
                await studio.Post(
                    "/api/people/csv/look", new System.Text.Json.Nodes.JsonObject { ["text"] = table }.ToJsonString()))["faulty"]!);

    [Fact]
    public async Task A_table_is_taken_in_whole_or_not_at_all_and_twice_changes_nothing()
    {
        var text = Json(Text(Good));
        var look = await studio.Post("/api/people/csv/look", Text(Good));
        Assert.Equal(
            ["name", "stature", "mass", "birthYear", "limits", "level"], look["columns"]!.AsArray().Select(c => (string)c!["is"]!));
        Assert.Equal((2, 0, ""), ((int)look["fresh"]!, (int)look["faulty"]!, (string)look["trouble"]!));
        Assert.Empty(await Named("Wyn Ash"));

        // One faulty row keeps everything out, and is named by row and column.
        var bad = Good + "Cato Elm;9 ft;70;1990;;main\r\nWyn Ash;170;70;1990;;main\r\n;170;70;1990;spleen;main\r\n";
        var seen = await studio.Post("/api/people/csv/look", Text(bad));
        Assert.Equal(3, (int)seen["faulty"]!);
        using var refused = await studio.CreateClient().PostAsync("/api/people/csv", Json(Text(bad)));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        var errors = (await Read(refused))["errors"]!.AsArray();
        Assert.All(errors, e => Assert.Equal("/text", (string?)e!["pointer"]));
        Assert.Equal(
            ["Row 4, column 2", "Row 5", "Row 6, column 1", "Row 6, column 5"], errors.Select(e => ((string)e!["detail"]!).Split(':')[0]));
        Assert.Empty(await Named("Wyn Ash"));

        Assert.Equal(2, (int)(await studio.Post("/api/people/csv", Text(Good)))["fresh"]!);
        var wyn = Assert.Single(await Named("Wyn Ash"))!;
        Assert.Equal((170, 68.0m, 1984), ((int)wyn["statureCm"]!, (decimal)wyn["massKg"]!, (int)wyn["birthYear"]!));
        Assert.Equal(
            """[{"limit":"knee","side":"left","strict":true,"note":"likes a pad","until":"2027-01-31"}]""", wyn["limits"]!.ToJsonString());
        Assert.Equal((168, 64.5m), await Of("Oda Birk"));
        var again = await studio.Post("/api/people/csv", Text(Good));
        Assert.Equal((0, 0, 2), ((int)again["fresh"]!, (int)again["changed"]!, (int)again["same"]!));

        // What goes out comes in again and changes nothing either.
        var file = await studio.CreateClient().GetStringAsync("/api/people/csv");
        var round = await studio.Post("/api/people/csv/look", Text(file));
        Assert.Equal((0, 0, 0), ((int)round["fresh"]!, (int)round["changed"]!, (int)round["faulty"]!));
        await Erase("Wyn Ash");
        await Erase("Oda Birk");

        async Task<(int, decimal)> Of(string name) =>
            (await Named(name))[0] is { } p ? ((int)p["statureCm"]!, (decimal)p["massKg"]!) : default;
    }

    [Fact]
    public async Task A_thousand_mangled_tables_leave_everyone_as_they_were()
    {
        var before = (await studio.Get("/api/people")).ToJsonString();
        var dice = new Random(20261127);
        var client = studio.CreateClient();
        for (var i = 0; i < 1000; i++)
        {
            // A last row without a name keeps the whole table out, whatever else the damage has made of it.
            var text = new StringBuilder(Good + "nobody\0here");
            for (var n = dice.Next(1, 12); n > 0; n--)
            {
                var at = dice.Next(text.Length - 11);
                _ = dice.Next(4) switch
                {
                    0 => text.Remove(at, Math.Min(dice.Next(1, 9), text.Length - 11 - at)),
                    1 => text.Insert(at, "\";,\t\r\n\0'=é😀9"[dice.Next(10)]),
                    2 => text.Insert(at, text.ToString(at, Math.Min(20, text.Length - 11 - at))),
                    _ => text.Replace(text[at], (char)dice.Next(32, 300), at, 1),
                };
            }

            using var look = await client.PostAsync("/api/people/csv/look", Json(Text(text.ToString())));
            using var take = await client.PostAsync("/api/people/csv", Json(Text(text.ToString())));
            Assert.True(look.StatusCode is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity, $"{look.StatusCode} {text}");
            Assert.Equal(HttpStatusCode.UnprocessableEntity, take.StatusCode);
            Assert.All((await Read(take))["errors"]!.AsArray(), e => Assert.NotEmpty((string)e!["right"]!));
        }

        Assert.Equal(before, (await studio.Get("/api/people")).ToJsonString());
    }

    [Fact]
    public async Task One_person_is_given_whole_and_erased_whole_also_from_old_versions()
    {
        await studio.Post("/api/people/csv", Text("Name;Care;Note\nTamsin Orrery;pelvic floor: planted-limit-words;planted-note-words"));
        var person = (await Named("Tamsin Orrery"))[0]!;
        var other = (string)(await studio.Post("/api/people", """{"name":"Pim Rook"}"""))["id"]!;
        var (id, session) = await Opened(Plan.Replace("\"title\"", "\"notes\":\"Tamsin Orrery leads the "
            + "stretch\",\"title\"", StringComparison.Ordinal));
        await studio.Post("/api/circles", $$"""{"name":"Two","together":true,"people":["{{person["id"]}}","{{other}}"]}""");
        var log = await studio.Get($"/api/sessions/{session}/log");
        var rows = new JsonArray([.. log["rows"]!.AsArray().Select(r => r!["row"]!.DeepClone())]);
        using var saved = await studio.Put(
            $"/api/sessions/{session}/log", $$"""{"version":0,"log":{"rows":{{rows.ToJsonString()}},"note":"With Tamsin Orrery"} }""", "0");
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        var export = (await studio.Get($"/api/people/{person["id"]}/export")).ToJsonString();
        Assert.All(["planted-limit-words", "planted-note-words", "Two", "Test class"],
            words => Assert.Contains(words, export, StringComparison.Ordinal));
        Assert.Contains("Care: pelvic floor – planted-limit-words", await studio.CreateClient()
            .GetStringAsync($"/api/people/{person["id"]}/export.txt"), StringComparison.Ordinal);

        // Nothing private on anything that is meant for the room.
        foreach (var file in new[] { "cards", "run-sheet", "tape.svg", "cues.vtt", "timeline.csv", "file" })
        {
            using var sheet = await studio.CreateClient().GetAsync($"/api/classes/{id}/{file}");
            Assert.DoesNotContain("planted", await sheet.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }

        var came = await Came(session);
        await Erase("Tamsin Orrery");
        Assert.Equal(came, await Came(session));
        foreach (var address in new[] { "/api/people", "/api/circles", $"/api/classes/{id}", $"/api/sessions/{session}/log",
                $"/api/classes/{id}/file" })
        {
            Assert.DoesNotContain("Orrery", await studio.CreateClient().GetStringAsync(address), StringComparison.Ordinal);
        }

        foreach (var file in Directory.EnumerateFiles(studio.Folder, "*", SearchOption.AllDirectories)
            .Where(f => !f.EndsWith("lock", StringComparison.Ordinal)))
        {
            await using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            using var bytes = new MemoryStream();
            await stream.CopyToAsync(bytes);
            Assert.DoesNotContain("planted-", Encoding.Latin1.GetString(bytes.ToArray()), StringComparison.Ordinal);
        }

        async Task<int> Came(string of) => (int)(await studio.Get("/api/sessions?held=true"))["sessions"]!.AsArray()
            .First(s => (string)s!["id"]! == of)!["came"]!;
    }

    [Fact]
    public async Task A_review_takes_everything_inline_and_names_each_fault_by_its_place()
    {
        const string People = """[{"id":"p1","name":"Knee","limits":[{"limit":"knee","strict":true}]},{"id":"p2","name":"Strong","level":{"squat":"harder"},"ready":["load"]},{"id":"p3","name":"Plain"}]""";
        const string Class = """
            {"format":"halterion-class","version":1,"title":"T","slotMinutes":10,"blocks":[{"name":"M","phase":"main","format":"rotation","windowSeconds":30,"stations":[
              {"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"jump-squat"},{"tier":"easier","move":"wall-sit"}]},
              {"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":8}},{"tier":"easier","move":"squat","depth":"half"}]}]}]}
            """;
        var answer = await studio.Post("/api/plans/review", $$"""{"plan":{{Class}},"date":"2026-11-26T18:00","people":{{People}},"headCount":4,"kit":[{"item":"kettlebell","kg":8,"count":1}]}""");
        Assert.Equal((int)(await studio.Post("/api/plans/evaluate", Class))["totals"]!["seconds"]!, (int)answer["totals"]!["seconds"]!);
        Assert.Equal("""[["p1","p2"],["p3"]]""", answer["groups"]![0]!["groups"]!.ToJsonString());
        Assert.Equal([2, 2], answer["groups"]![0]!["sizes"]!.AsArray().Select(s => (int)s!));
        var knee = answer["assignment"]!["people"]![0]!["stations"]!.AsArray();
        Assert.DoesNotContain("b1s1o1", knee.Select(s => (string?)s!["option"]));
        Assert.Contains("nee", (string)knee[0]!["why"]!, StringComparison.Ordinal);
        // One bell for two people at a station: in the first window somebody without a name takes it, in the second Strong does.
        Assert.All(answer["assignment"]!["shortages"]!.AsArray(),
            s => Assert.Equal(("kettlebell", "b1"), ((string)s!["item"]!, (string)s["block"]!)));
        Assert.Equal("kettlebell", (string)answer["kit"]!.AsArray().First(k => (string)k!["item"]! == "kettlebell")!["item"]!);

        var bad = $$"""
            {"plan":{{Class}},"people":[{"id":"p1","name":"A","limits":[{"limit":"knee","side":"up"}]},{"id":"p1","name":"B"}],"pins":[{"person":"p9","station":"b1s1","option":"b1s1o9"}],
             "kit":[{"item":"mat","kg":4,"count":2}],"groups":{"b1":[["p1"]] } }
            """;
        using var refused = await studio.CreateClient().PostAsync("/api/plans/review", Json(bad));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Equal(["/groups/b1", "/kit/0/kg", "/people/0/limits/0/side", "/people/1/id", "/pins/0/option", "/pins/0/person"],
            (await Read(refused))["errors"]!.AsArray()
            .Select(e => (string)e!["pointer"]!).Order(StringComparer.Ordinal));
        using var dangling = await studio.CreateClient().PostAsync("/api/plans/review", Json($$"""{"plan":{{Class}},"people":[{"id":"p1","name":"A"}],"pins":[{"person":"p9","station":"b1s1","option":"b1s1o9"}],"groups":{"b1":[["p1"]] } }"""));
        Assert.Equal(["/pins/0/person", "/pins/0/option", "/groups/b1"],
            (await Read(dangling))["errors"]!.AsArray().Select(e => (string)e!["pointer"]!));
        using var planned = await studio.CreateClient().PostAsync(
            "/api/plans/review", Json($$"""{"plan":{{Class.Replace("jump-squat", "no-such", StringComparison.Ordinal)}}}"""));
        Assert.StartsWith("/plan/blocks/0/stations/0", (string)(await Read(planned))["errors"]![0]!["pointer"]!, StringComparison.Ordinal);
    }

    private static string Text(string table) => new JsonObject { ["text"] = table }.ToJsonString();

    private async Task<(string Class, string Session)> Opened(string plan)
    {
        var view = await studio.Post("/api/classes/file", plan);
        return ((string)view["id"]!, (string)view["sessions"]![0]!["id"]!);
    }

    private async Task<JsonNode?[]> Named(string name) =>
        [.. (await studio.Get("/api/people")).AsArray().Where(p => (string)p!["name"]! == name)];

    private async Task Erase(string name)
    {
        using var erased = await studio.CreateClient().DeleteAsync($"/api/people/{(await Named(name))[0]!["id"]}");
        Assert.Equal(HttpStatusCode.NoContent, erased.StatusCode);
    }
}
