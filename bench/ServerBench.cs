using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;

/// <summary>
/// What a browser waits for: the evaluation of a class against the smallest request, the list of many classes, the start.
/// </summary>
internal static class ServerBench
{
    private const int Many = 1300;

    /// <summary>A web app that does nothing, to compare the start with.</summary>
    public static async Task Nothing()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        await using var app = builder.Build();
        app.Urls.Add("http://127.0.0.1:0");
        app.MapGet("/", () => "nothing");
        await app.StartAsync();
        Console.WriteLine($"Listening at {app.Urls.First()}");
        await app.WaitForShutdownAsync();
    }

    public static async Task Run(string app, string @class)
    {
        var folder = Directory.CreateTempSubdirectory("halterion-bench-").FullName;
        try
        {
            var (first, again) = (await Started(app, "--port", "0", "--data", folder), await Started(app, "--port", "0", "--data", folder));
            var nothing = await Started(typeof(ServerBench).Assembly.Location, "--nothing");
            Say("start, new data folder", first - nothing, 600, "ms more than an app that does nothing");
            Say("start again", again - nothing, 600, "ms more than an app that does nothing");
            await Serve(app, folder, @class);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task Serve(string app, string folder, string @class)
    {
        using var server = Begin(app, "--port", "0", "--data", folder);
        try
        {
            using var client = new HttpClient { BaseAddress = await Address(server) };
            var number = 0;
            string Fresh() => @class.Replace("\"title\":\"Bench\"", $"\"title\":\"Bench {number++}\"", StringComparison.Ordinal);
            var smallest = await Median(300, () => client.GetAsync("/api/settings"));
            var fresh = await Median(300, () => Post(client, "/api/plans/evaluate", Fresh()));
            var known = await Median(300, () => Post(client, "/api/plans/evaluate", @class));
            Say(
                "evaluate a new class",
                fresh / smallest,
                8,
                string.Create(CultureInfo.InvariantCulture, $"times the smallest request ({fresh:0.00} against {smallest:0.00} ms)"));
            Say("evaluate it once more", known / smallest, 2, "times the smallest request");

            for (var i = 0; i < Many; i++)
            {
                using var kept = await Post(client, "/api/classes/file", Fresh());
                kept.EnsureSuccessStatusCode();
            }

            Say($"list of {Many} classes", await Median(30, () => client.GetAsync("/api/classes")), 50, "ms");
            await LogBench.Run(client, Median, Say);
            Say($"list of {Many} sessions", await Median(30, () => client.GetAsync("/api/sessions")), 50, "ms");
        }
        finally
        {
            server.Kill();
            await server.WaitForExitAsync();
        }
    }

    private static async Task<double> Started(string app, params string[] arguments)
    {
        var start = Stopwatch.GetTimestamp();
        using var server = Begin(app, arguments);
        try
        {
            using var client = new HttpClient { BaseAddress = await Address(server) };
            using var answer = await client.GetAsync("/");
            return Stopwatch.GetElapsedTime(start).TotalMilliseconds;
        }
        finally
        {
            server.Kill();
            await server.WaitForExitAsync();
        }
    }

    private static Process Begin(string app, params string[] arguments) =>
        Process.Start(new ProcessStartInfo("dotnet", [app, .. arguments]) { RedirectStandardOutput = true })!;

    private static async Task<Uri> Address(Process server) => new((await server.StandardOutput.ReadLineAsync())!.Split(' ')[^1]);

    private static async Task<HttpResponseMessage> Post(HttpClient client, string path, string text)
    {
        using var body = new ByteArrayContent(
            Encoding.UTF8.GetBytes(text))
        { Headers = { ContentType = new MediaTypeHeaderValue("application/json") } };
        return await client.PostAsync(path, body);
    }

    private static async Task<double> Median(int times, Func<Task<HttpResponseMessage>> ask)
    {
        var measured = new double[times];
        for (var i = -times / 2; i < times; i++)
        {
            var start = Stopwatch.GetTimestamp();
            using var answer = await ask();
            await answer.EnsureSuccessStatusCode().Content.ReadAsByteArrayAsync();
            if (i >= 0)
            {
                measured[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
            }
        }

        Array.Sort(measured);
        return measured[times / 2];
    }

    private static void Say(string name, double value, double aim, string what) =>
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{name,-22} {value,8:0.0} {what}, aim {aim}, "
            + $"{value / aim:0.00} of it"));
}
