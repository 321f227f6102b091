using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;

/// <summary>Ten years of logs: 1,000 classes of ten stations, fourteen people each.</summary>
internal static class LogBench
{
    private const int Classes = 1000;
    private const int People = 14;
    private const int Stations = 10;

    /// <param name="median">Milliseconds of a request, over so many.</param>
    /// <param name="say">What is measured, against its aim.</param>
    public static async Task Run(
        HttpClient client, Func<int, Func<Task<HttpResponseMessage>>, Task<double>> median, Action<string, double, double, string> say)
    {
        var people = new List<string>();
        for (var i = 0; i < People; i++)
        {
            people.Add((string)(await Sent(client, HttpMethod.Post, "/api/people", $$"""{"name":"Bench {{i}}"}"""))["id"]!);
        }

        var stations = string.Join(',', Enumerable.Range(0, Stations).Select(i =>
            $$"""{"id":"s{{i}}","dose":[{"kind":"reps","amount":10}],"options":[{"id":"o{{i}}","tier":"main","move":"{{Moves[i]}}"}]}"""));
        var opened = await Sent(client, HttpMethod.Post, "/api/classes/file", $$"""
            {"format":"halterion-class","version":1,"title":"Ten years","slotMinutes":90,"blocks":[{"id":"b","name":"Work","phase":"main","rounds":3,"stations":[{{stations}}]}]}
            """);
        var id = (string)opened["id"]!;
        var first = new DateTime(2016, 1, 4, 18, 0, 0);
        var expected = string.Join(',', people.Select(p => $"\"{p}\""));
        string? last = null;
        for (var i = 0; i < Classes; i++)
        {
            var starts = first.AddDays(i * 3.5).Date.AddHours(18).ToString("yyyy-MM-ddTHH:mm", CultureInfo.InvariantCulture);
            last = (string)(await Sent(client, HttpMethod.Post, $"/api/classes/{id}/sessions",
                $$"""{"booking":{"startsAt":"{{starts}}","zone":"UTC","headCount":14,"expected":[{{expected}}]} }"""))["id"]!;
            if (i < Classes - 1)
            {
                await Sent(client, HttpMethod.Put, $"/api/sessions/{last}/log", Log(people, i), "\"0\"");
            }
        }

        say("person page, ten years", await median(20, () => client.GetAsync($"/api/people/{people[0]}/progress")), 50, "ms");
        say("week view, ten years", await median(20, () => client.GetAsync("/api/calendar?from=2020-06-01&weeks=6")), 50, "ms");
        say("list of sessions, ten years", await median(20, () => client.GetAsync("/api/sessions?held=true")), 50, "ms");
        say("suggestions, 14 people × 10", await median(10, () => client.GetAsync($"/api/sessions/{last}/suggestions")), 20, "ms");
    }

    private static readonly string[] Moves =
    [
        "squat", "split-squat", "hip-hinge", "glute-bridge", "wide-squat", "reverse-lunge", "side-lunge", "skater", "march-bridge",
        "chair-squat",
    ];

    private static string Log(List<string> people, int number)
    {
        var uses = string.Join(',', Enumerable.Range(0, Stations).Select(i =>
            $$"""{"station":"s{{i}}","option":"o{{i}}","sets":[{"reps":{{8 + ((number + i) % 5)}} },{"reps":{{9 + (number % 4)}} }]}"""));
        var rows = string.Join(',', people.Select((p, i) =>
            $$"""{"personId":"{{p}}","came":true,"note":"","effort":{{4 + ((number + i) % 4)}},"uses":[{{uses}}]}"""));
        return $$"""{"log":{"note":"","minutes":45,"rows":[{{rows}}]} }""";
    }

    private static async Task<JsonNode> Sent(HttpClient client, HttpMethod method, string address, string body, string? match = null)
    {
        using var content = new StringContent(body, Encoding.UTF8, "application/json");
        using var request = new HttpRequestMessage(method, address) { Content = content };
        if (match is not null)
        {
            request.Headers.IfMatch.Add(EntityTagHeaderValue.Parse(match));
        }

        using var response = await client.SendAsync(request);
        response.EnsureSuccessStatusCode();
        return JsonNode.Parse(await response.Content.ReadAsStringAsync())!;
    }
}
