using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>
/// Damage of every kind, at every place, to every address that takes a body: never a 500, always a pointer into what was sent.
/// </summary>
public sealed class MutationTests(Studio studio) : IClassFixture<Studio>
{
    private const int Bodies = 2000;

    private static readonly string[] Values =
    [
        "null", "-1", "0", "99999999999", "1.234", "1e9", "1e999", "\"\"", "\"x\"", "[]", "[[]]", "[null]", "{}", "true", "[1,2,3]",
            "{\"from\":5,\"to\":1}",
        "\"\\ud800\"", "\"\\u0000\"", "{\"id\":1}", "[{\"id\":1}]", "{\"a\":1,\"a\":2}", "\"0001-01-01T00:00\"", "\"9999-12-31T23:59\"",
    ];

    [Fact]
    public async Task Damaged_bodies_never_break_the_server_and_every_pointer_resolves()
    {
        var whole = File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "demo", "six-around-the-loft.halterion.json"));
        var view = await studio.Post("/api/classes/file", whole);
        var (id, session) = ((string)view["id"]!, (string)view["sessions"]![0]!["id"]!);
        var person = (string)(await studio.Post("/api/people", """{"name":"Ada","statureCm":170}"""))["id"]!;
        var lead = (string)(await studio.Post($"/api/sessions/{session}/lead", ""))["id"]!;
        var log = (await studio.Get($"/api/sessions/{session}/log"))["rows"]!.AsArray().Select(r => r!["row"]!.DeepClone()).ToArray();
        var booking = $$"""{"zone":"Europe/Lisbon","headCount":9,"startsAt":"2026-12-01T18:00","expected":["{{person}}"]}""";
        var block = JsonNode.Parse(whole)!["blocks"]![1]!.ToJsonString();
        const string full = """
            {"name":"Bo","nick":"B","statureCm":180,"massKg":71.5,"birthYear":1980,"level":{"squat":"harder"},"ready":["hinge","load"],"note":"n",
             "limits":[{"limit":"knee","side":"left","strict":true,"note":"n","until":"2026-12-01"}],
             "loads":{"goblet-squat":{"implement":"kettlebell","kg":12}},"setUp":{"boxCm":40,"benchCm":42,"rearFootCm":30,"band":"light"}}
            """;
        var review = $$"""
            {"plan":{{whole}},"date":"2026-11-26","headCount":5,"people":[{{full.Replace("{\"name\"", "{\"id\":\"p1\",\"name\"", StringComparison.Ordinal)}}],
             "pins":[{"person":"p1","station":"b2s1","option":"b2s1o1","reason":"r"}],"waivers":[{"code":"time.over","place":"class","reason":"r"}],"settings":{"pace":"talking","limits":{"time.drink":15},"off":["mix.plane"]},
             "kit":[{"item":"dumbbell","kg":6,"count":4,"standIn":true,"condition":"good"}],"room":{"widthM":8,"lengthM":12},"groups":{"b3":[["p1"],[],[],[],[],[]]},
             "history":[{"start":"2026-11-24T18:00","minutes":30,"effort":6,"hardSets":{"squat":6},"moves":["squat"],"load":180}]}
            """;
        (HttpMethod Method, string Address, string Body)[] requests =
        [
            (HttpMethod.Post, "/api/plans/evaluate", whole),
            (HttpMethod.Post, "/api/classes/file", whole),
            (HttpMethod.Put, $"/api/classes/{id}", $$"""{"plan":{{whole}} }"""),
            (HttpMethod.Post, "/api/plans/fit", $$"""{"class":{{whole}},"terms":{"restWeight":1,"pace":"brisk"} }"""),
            (HttpMethod.Post, "/api/plans/refit",
                $$"""{"plan":{{whole}},"position":30,"remainingSeconds":100,"terms":{"restWeight":1} }"""),
            (HttpMethod.Post, $"/api/leads/{lead}/commands", $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"adjust","at":1795600000000,"payload":{"shifts":[{"scene":1,"by":-5}] } }] }"""),
            (HttpMethod.Post, $"/api/leads/{lead}/commands", $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"note","at":1795600000000,"payload":{"text":"n","tap":"pain","scene":1} }] }"""),
            (HttpMethod.Post, "/api/plans/repair", $$"""{"class":{{whole}},"finding":"time.over@class","repair":0}"""),
            (HttpMethod.Post, "/api/plans/dose", $$"""{"text":"12 each side","block":{{block}},"station":0}"""),
            (HttpMethod.Post, "/api/templates", $$"""{"name":"Mine","block":{{block}}}"""),
            (HttpMethod.Post, "/api/classes",
                $$"""{"title":"New","slotMinutes":30,"aim":"strength","booking":{{booking}},"copyOf":"{{id}}"}"""),
            (HttpMethod.Post, $"/api/classes/{id}/sessions", $$"""{"booking":{{booking}}}"""),
            (HttpMethod.Put, $"/api/sessions/{session}", $$"""{"booking":{{booking}}}"""),
            (HttpMethod.Put, $"/api/sessions/{session}/log",
                $$"""{"version":0,"log":{"rows":{{new JsonArray(log).ToJsonString()}},"note":"n"} }"""),
            (HttpMethod.Post, $"/api/leads/{lead}/commands",
                $$"""{"expected":0,"commands":[{"id":"{{Guid.NewGuid()}}","kind":"start","at":1795600000000,"device":"d"}]}"""),
            (HttpMethod.Post, "/api/people", full),
            (HttpMethod.Put, $"/api/people/{person}", full),
            (HttpMethod.Post, "/api/circles", $$"""{"name":"Tuesday","together":true,"people":["{{person}}"]}"""),
            (HttpMethod.Post, "/api/people/csv", """{"text":"name;height\nCy;170","heading":true,"columns":["name","stature"]}"""),
            (HttpMethod.Post, "/api/plans/review", review),
            (HttpMethod.Post, "/api/plans/repairs", $$"""{"class":{{whole}} }"""),
            (HttpMethod.Post, $"/api/sessions/{session}/checks", $$"""{"class":{{whole}} }"""),
            (HttpMethod.Post, $"/api/sessions/{session}/ready", $$"""{"class":{{whole}} }"""),
            (HttpMethod.Put, $"/api/sessions/{session}/waivers", """{"code":"kit.short","place":"b2","reason":"r"}"""),
            (HttpMethod.Put, $"/api/sessions/{session}/ticks", """{"key":"From: rack: mat","done":true}"""),
            (HttpMethod.Put, "/api/settings/preferences",
                """{"count":"up","startSide":"left","heights":[20,30],"limits":{"leg.long":120},"off":{"mix.plane":"r"} }"""),
            (HttpMethod.Put, "/api/settings/fit", """{"restWeight":1,"perChange":5}"""),
            (HttpMethod.Put, "/api/own-moves", """{"moves":[{"id":"mine","name":"Mine","family":"squat","faults":[{"seen":"a","fix":"b"}],"dose":{"kind":"reps","amount":10}}]}"""),
        ];
        var dice = new Random(20261125);
        var client = studio.CreateClient();
        for (var i = 0; i < Bodies; i++)
        {
            var (method, address, body) = requests[i % requests.Length];
            var sent = Damaged(body, dice);
            using var request = new HttpRequestMessage(method,
                address)
            { Content = new ByteArrayContent(sent) { Headers = { ContentType = new("application/json") } } };
            request.Headers.TryAddWithoutValidation("If-Match", "\"1\"");
            using var response = await client.SendAsync(request);
            var said = await response.Content.ReadAsStringAsync();
            Assert.True(
                (int)response.StatusCode is 200 or 204 or 404 or 409 or 412 or 413 or 422,
                $"{(int)response.StatusCode} {address} {Encoding.UTF8.GetString(sent)} {said}");
            if (response.StatusCode == HttpStatusCode.UnprocessableEntity)
            {
                var errors = JsonNode.Parse(said)!["errors"]!.AsArray();
                Assert.NotEmpty(errors);
                Assert.All(
                    errors,
                    e => Assert.True(Resolves((string)e!["pointer"]!, sent), $"{e} does not point into {address} "
                        + $"{Encoding.UTF8.GetString(sent)}"));
            }
        }

        // All that was damaged left the studio as it was to read.
        foreach (var address in new[] { "/api/classes", "/api/sessions", "/api/people", "/api/settings", "/api/templates", "/api/own-moves",
            "/api/moves", $"/api/classes/{id}", $"/api/classes/{id}/versions", $"/api/sessions/{session}/log" })
        {
            using var response = await client.GetAsync(address);
            Assert.True(response.StatusCode is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity, $"{response.StatusCode} {address}");
        }
    }

    private static byte[] Damaged(string body, Random dice)
    {
        var places = Enumerable.Range(0, body.Length).Where(at => body[at] == ':').ToArray();
        var at = places[dice.Next(places.Length)] + 1;
        var end = body.IndexOfAny([',', '\n', '}'], at);
        switch (dice.Next(12))
        {
            case 0:
                return Encoding.UTF8.GetBytes(body.Remove(at, Math.Min(dice.Next(1, 40), body.Length - at)));
            case 1:
                // A field a second time.
                var open = body.IndexOf('{', dice.Next(body.Length / 2));
                return Encoding.UTF8.GetBytes(body.Insert(open + 1, "\"name\":\"twice\",\"name\":\"twice\","));
            case 2:
                // Invalid UTF-8 in the middle of a text.
                var bytes = Encoding.UTF8.GetBytes(body);
                bytes[dice.Next(bytes.Length)] = 0xFF;
                return bytes;
            case 3:
                return Encoding.UTF8.GetBytes(new string('[', dice.Next(1, 70)));
            default:
                return Encoding.UTF8.GetBytes(string.Concat(body.AsSpan(0, at), Values[dice.Next(Values.Length)], body.AsSpan(end)));
        }
    }

    private static bool Resolves(string pointer, byte[] sent)
    {
        if (pointer.Length == 0)
        {
            return true;
        }

        using var document = JsonDocument.Parse(sent);
        var here = document.RootElement;
        foreach (var token in pointer.Split('/')[1..].Select(
                t => t.Replace("~1", "/", StringComparison.Ordinal).Replace("~0", "~", StringComparison.Ordinal)))
        {
            if (here.ValueKind == JsonValueKind.Object && here.TryGetProperty(token, out var field))
            {
                here = field;
            }
            else if (here.ValueKind == JsonValueKind.Array && int.TryParse(token, out var index) && index < here.GetArrayLength())
            {
                here = here[index];
            }
            else
            {
                return false;
            }
        }

        return true;
    }
}
