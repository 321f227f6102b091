using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Halterion.Web.Tests;

/// <summary>The real program on a fresh data folder.</summary>
public sealed class Studio : WebApplicationFactory<Program>
{
    public const string Plan = """
        {"format":"halterion-class","version":1,"title":"Test class","slotMinutes":10,"blocks":[
          {"name":"Main","phase":"main","stations":[{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"squat"},{"tier":"easier","move":"chair-squat"}]}]}]}
        """;

    public string Folder { get; } = Directory.CreateTempSubdirectory("halterion-test-").FullName;

    public static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    public static async Task<JsonNode> Read(HttpResponseMessage response) => JsonNode.Parse(await response.Content.ReadAsStringAsync())!;

    public async Task<JsonNode> Post(string address, string body)
    {
        using var response = await CreateClient().PostAsync(address, Json(body));
        Assert.True(response.IsSuccessStatusCode, await response.Content.ReadAsStringAsync());
        return await Read(response);
    }

    public async Task<JsonNode> Get(string address)
    {
        using var response = await CreateClient().GetAsync(address);
        Assert.True(response.IsSuccessStatusCode, await response.Content.ReadAsStringAsync());
        return await Read(response);
    }

    /// <summary>Puts against what stands there now.</summary>
    public async Task<HttpResponseMessage> PutNow(string address, string body)
    {
        using var now = await CreateClient().GetAsync(address);
        return await Put(address, body, now.Headers.ETag!.Tag.Trim('"'));
    }

    /// <param name="change">The id of the change, the same when it is sent again.</param>
    public async Task<HttpResponseMessage> Put(string address, string body, string? version = null, Guid? change = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, address) { Content = Json(body) };
        if (change is { } id)
        {
            request.Headers.Add("Change-Id", id.ToString());
        }

        if (version is not null)
        {
            request.Headers.IfMatch.Add(new EntityTagHeaderValue($"\"{version}\""));
        }

        return await CreateClient().SendAsync(request);
    }

    /// <summary>Takes a class file in and returns its id.</summary>
    public async Task<string> OpenFile(string text = Plan) => (string)(await Post("/api/classes/file", text))["id"]!;

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseEnvironment("Production");
        builder.UseSetting("data", Folder);
        builder.ConfigureServices(services => services.AddSingleton<IStartupFilter, FromWhere>());
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (disposing && Directory.Exists(Folder))
        {
            Directory.Delete(Folder, recursive: true);
        }
    }
}

/// <summary>Requests of the test server come from this machine, unless they say from where.</summary>
internal sealed class FromWhere : IStartupFilter
{
    public const string Header = "X-Test-From";

    public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) => app =>
    {
        app.Use((context, go) =>
        {
            context.Connection.RemoteIpAddress = context.Request.Headers.TryGetValue(Header, out var from)
                ? IPAddress.Parse(from.ToString())
                : IPAddress.Loopback;
            return go(context);
        });
        next(app);
    };
}
