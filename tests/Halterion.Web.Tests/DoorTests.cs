using System.Net;

namespace Halterion.Web.Tests;

/// <summary>Who gets in, and what opens the data.</summary>
public sealed class DoorTests(Studio studio) : IClassFixture<Studio>
{
    [Theory]
    [InlineData("Sec-Fetch-Site", "cross-site")]
    [InlineData("Sec-Fetch-Site", "same-site")]
    [InlineData("Origin", "http://elsewhere.example")]
    public async Task Requests_from_other_sites_are_refused(string header, string value)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/health");
        request.Headers.Add(header, value);
        using var response = await studio.CreateClient().SendAsync(request);
        Assert.Equal(HttpStatusCode.Forbidden, response.StatusCode);
    }

    [Fact]
    public async Task Other_host_names_are_refused()
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/health");
        request.Headers.Host = "elsewhere.example";
        using var response = await studio.CreateClient().SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
    }

    /// <summary>By a name of the network, or by none, nobody becomes the owner, though the request comes from this machine.</summary>
    [Theory]
    [InlineData("")]
    [InlineData("the-loft.local")]
    [InlineData("192.0.2.7")]
    public async Task Only_the_names_of_this_machine_itself_are_the_owners(string host)
    {
        var context = await studio.Server.SendAsync(c =>
        {
            c.Request.Method = "GET";
            c.Request.Path = "/api/people";
            c.Request.Host = host.Length == 0 ? default : new Microsoft.AspNetCore.Http.HostString(host);
            c.Connection.RemoteIpAddress = IPAddress.Loopback;
        });
        Assert.InRange(context.Response.StatusCode, 400, 401);
    }

    [Theory]
    [InlineData("/assets/none")]
    [InlineData("/assets/none.js")]
    [InlineData("/none.css")]
    public async Task A_file_that_is_not_there_is_not_the_page(string address)
    {
        using var response = await studio.CreateClient().GetAsync(address);
        Assert.Equal(HttpStatusCode.NotFound, response.StatusCode);
        Assert.True(response.Headers.CacheControl!.NoStore);
    }

    [Theory]
    [InlineData("/api/classes?take=many", "take", "a whole number")]
    [InlineData("/api/classes?skip=99999999999", "skip", "a whole number")]
    [InlineData("/api/sessions?held=perhaps", "held", "true or false")]
    [InlineData("/api/moves/squat/motion?statureCm=1.7", "statureCm", "a whole number")]
    [InlineData("/api/classes/01a228e4-2c88-7608-9c3d-4e289b5bdf98/timeline.csv?session=none", "session", "an id as the server gave it")]
    public async Task A_query_of_another_type_says_which_and_what_would_be_right(string address, string name, string right)
    {
        using var response = await studio.CreateClient().GetAsync(address);
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
        var problem = await Studio.Read(response);
        Assert.Equal($"The value of “{name}” does not work.", (string?)problem["title"]);
        Assert.EndsWith($"Should be: {right}.", (string?)problem["detail"], StringComparison.Ordinal);
    }

    [Fact]
    public async Task Health_answers_with_strict_headers()
    {
        using var response = await studio.CreateClient().GetAsync("/api/health");
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        Assert.Contains("default-src 'self'", response.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        Assert.Equal("nosniff", response.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.False(response.Headers.Contains("Server"));
        using var missing = await studio.CreateClient().GetAsync("/api/no/such");
        Assert.Equal(HttpStatusCode.NotFound, missing.StatusCode);
    }

    [Theory]
    [InlineData("PATCH", "/api/people", 405)]
    [InlineData("PUT", "/api/health", 405)]
    [InlineData("GET", "/api/plans/evaluate", 405)]
    [InlineData("POST", "/api/no/such", 404)]
    [InlineData("GET", "/api/classes/not-an-id", 404)]
    public async Task A_wrong_method_is_told_from_a_wrong_address(string method, string address, int status)
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), address);
        using var response = await studio.CreateClient().SendAsync(request);
        Assert.Equal((status, status == 405), ((int)response.StatusCode, response.Content.Headers.Allow.Count > 0));
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType?.MediaType);
    }

    [Theory]
    [InlineData("/api/people")]
    [InlineData("/api/plans/evaluate")]
    [InlineData("/api/classes/file")]
    public async Task Another_kind_of_body_is_415_and_too_large_a_one_413(string address)
    {
        using var text = await studio.CreateClient().PostAsync(address, new StringContent("{}", System.Text.Encoding.UTF8, "text/plain"));
        Assert.Equal(HttpStatusCode.UnsupportedMediaType, text.StatusCode);
        using var large = await studio.CreateClient().PostAsync(address, Studio.Json($"{{\"name\":\"{new string('x', 5 << 20)}\"}}"));
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, large.StatusCode);
    }

    [Theory]
    [InlineData("family", "squats")]
    [InlineData("limit", "Knee")]
    [InlineData("position", "7")]
    public async Task A_filter_that_is_no_word_of_the_contract_is_refused(string name, string value)
    {
        using var response = await studio.CreateClient().GetAsync($"/api/moves/search?{name}={value}");
        Assert.Equal(HttpStatusCode.BadRequest, response.StatusCode);
    }

    /// <summary>Every word that the contract publishes for a filter is taken.</summary>
    [Fact]
    public async Task Every_published_word_of_the_library_is_one_to_filter_by()
    {
        var moves = (await studio.Get("/api/moves"))["moves"]!.AsArray();
        foreach (var (field, all) in new[] { "family", "position", "plane" }.Select(f => (f, moves.Select(m => (string)m![f]!).Distinct())))
        {
            foreach (var word in all)
            {
                var found = (await studio.Get($"/api/moves/search?{field}={word}")).AsArray().Select(id => (string)id!).ToHashSet();
                Assert.Equal(moves.Where(m => (string)m![field]! == word).Select(m => (string)m!["id"]!).ToHashSet(), found);
            }
        }
    }
}
