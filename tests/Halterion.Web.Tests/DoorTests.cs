using System.Net;
using Halterion.Store;
using Microsoft.Data.Sqlite;

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

    [Fact]
    public void A_folder_has_one_server_and_a_newer_schema_is_refused()
    {
        var folder = Directory.CreateTempSubdirectory("halterion-test-").FullName;
        try
        {
            using (Database.Open(folder))
            {
                Assert.Contains("in use", Assert.Throws<StoreException>(() => Database.Open(folder)).Message, StringComparison.Ordinal);
            }

            using (var connection = new SqliteConnection($"Data Source={Path.Combine(folder, "halterion.db")};Pooling=False"))
            {
                connection.Open();
                using var command = connection.CreateCommand();
                command.CommandText = "PRAGMA user_version = 99";
                command.ExecuteNonQuery();
            }

            Assert.Contains("newer", Assert.Throws<StoreException>(() => Database.Open(folder)).Message, StringComparison.Ordinal);
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }

    [Fact]
    public void A_folder_that_cannot_be_made_is_said_so()
    {
        var file = Path.GetTempFileName();
        try
        {
            Assert.Contains("--data", Assert.Throws<StoreException>(() => Database.Open(Path.Combine(file, "below"))).Message, StringComparison.Ordinal);
        }
        finally
        {
            File.Delete(file);
        }
    }
}
