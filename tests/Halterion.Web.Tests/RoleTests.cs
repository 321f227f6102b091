using System.Net;
using System.Security.Cryptography.X509Certificates;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;
using static Halterion.Web.Tests.Studio;

namespace Halterion.Web.Tests;

/// <summary>Every door with every role and with none.</summary>
public sealed partial class RoleTests(Studio studio) : IClassFixture<Studio>
{
    private const string Elsewhere = "192.168.7.20";

    private HttpClient Device(string from, string? cookie = null)
    {
        var client = studio.CreateClient(
            new WebApplicationFactoryClientOptions { HandleCookies = false, BaseAddress = new Uri("https://localhost") });
        client.DefaultRequestHeaders.Add(FromWhere.Header, from);
        if (cookie is not null)
        {
            client.DefaultRequestHeaders.Add("Cookie", cookie);
        }

        return client;
    }

    /// <summary>The pairing itself, as the door makes it where it is open.</summary>
    private async Task<string> Paired(string role, string from = Elsewhere)
    {
        var pairing = studio.Services.GetRequiredService<Security.Pairing>();
        var (code, _) = pairing.NewCode(Enum.Parse<Store.DeviceRole>(role, ignoreCase: true));
        using var response = await Device(from).PostAsync("/api/pair", Json($$"""{"code":"{{code}}","name":"{{role}} in the loft"}"""));
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        var set = response.Headers.GetValues("Set-Cookie").Single();
        foreach (var wanted in new[] { "__Host-", "httponly", "secure", "samesite=strict", "path=/" })
        {
            Assert.Contains(wanted, set, StringComparison.OrdinalIgnoreCase);
        }

        return set.Split(';')[0];
    }

    private IEnumerable<(string Method, string Address, string Policy)> All() =>
        from endpoint in studio.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>()
        let pattern = "/" + endpoint.RoutePattern.RawText!.TrimStart('/')
        where pattern.StartsWith("/api/", StringComparison.Ordinal) && !pattern.Contains("**", StringComparison.Ordinal)
        let policy = endpoint.Metadata.GetMetadata<IAllowAnonymous>() is not null
            ? "open"
            : endpoint.Metadata.GetMetadata<IAuthorizeData>()?.Policy ?? "none named"
        from method in endpoint.Metadata.GetMetadata<IHttpMethodMetadata>()!.HttpMethods
        select (
            method,
            Hole().Replace(pattern.Replace(":int}", "}", StringComparison.Ordinal),
                hole => pattern.Contains(hole.Value[..^1] + ":int", StringComparison.Ordinal) ? "1" : Guid.Empty.ToString()),
            policy);

    [GeneratedRegex(@"\{[^}]*\}")]
    private static partial Regex Hole();

    [Fact]
    public async Task Every_door_opens_to_its_roles_alone()
    {
        var all = All().ToArray();
        Assert.True(all.Length > 100, $"Only {all.Length} doors were found.");
        Assert.Equal(["lead", "open", "owner", "wall"], all.Select(d => d.Policy).Distinct().Order());
        Assert.Equal(["/api/me", "/api/pair"], all.Where(d => d.Policy == "open").Select(d => d.Address).Order());
        var (wall, remote) = (await Paired("wall", "10.0.0.1"), await Paired("remote", "10.0.0.2"));
        var rooms = new Dictionary<string, string[]>
        {
            ["lead"] = ["remote"],
            ["wall"] = ["remote", "wall"],
            ["owner"] = [],
            ["open"] = ["remote", "wall", ""]
        };
        var next = 0;
        foreach (var (method, address, policy) in all)
        {
            foreach (var (role, cookie) in new[] { ("wall", wall), ("remote", remote), ("", null) })
            {
                var client = Device($"10.1.{next / 250}.{next++ % 250}", cookie);
                using var request = new HttpRequestMessage(
                    new HttpMethod(method), address)
                { Content = method == "GET" ? null : Json("{}") };
                using var response = await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
                var shut = response.StatusCode is HttpStatusCode.Unauthorized or HttpStatusCode.Forbidden;
                Assert.True(shut == !rooms[policy].Contains(role) || address == "/api/pair", $"{method} {address} answered "
                    + $"{(int)response.StatusCode} to {(role.Length == 0 ? "nobody" : role)}.");
            }
        }
    }

    [Fact]
    public async Task A_code_lets_in_one_device_and_five_wrong_ones_shut_the_door_for_who_typed_them()
    {
        using var own = new Studio();
        var pairing = own.Services.GetRequiredService<Security.Pairing>();
        var (code, _) = pairing.NewCode(Store.DeviceRole.Wall);
        async Task<HttpStatusCode> Try(string typed, string from = Elsewhere)
        {
            var client = own.CreateClient(
                new WebApplicationFactoryClientOptions { HandleCookies = false, BaseAddress = new Uri("https://localhost") });
            client.DefaultRequestHeaders.Add(FromWhere.Header, from);
            using var response = await client.PostAsync("/api/pair", Json($$"""{"code":"{{typed}}","name":"Screen"}"""));
            return response.StatusCode;
        }

        Assert.Equal(HttpStatusCode.OK, await Try(code));
        var (other, _) = pairing.NewCode(Store.DeviceRole.Wall);
        Assert.Equal(HttpStatusCode.Forbidden, await Try(code));
        for (var wrong = 1; wrong < 5; wrong++)
        {
            Assert.Equal(HttpStatusCode.Forbidden, await Try("00000x"));
        }

        Assert.Equal(HttpStatusCode.TooManyRequests, await Try(other));
        Assert.Equal(HttpStatusCode.OK, await Try(other, "10.0.0.9"));

        // Guessing from many addresses makes every code void; the owner is told, and makes a new one that works.
        var (guessed, _) = pairing.NewCode(Store.DeviceRole.Wall);
        for (var wrong = 0; wrong < 20; wrong++)
        {
            Assert.Equal(HttpStatusCode.Forbidden, await Try("00000x", $"10.0.1.{wrong}"));
        }

        Assert.Equal(HttpStatusCode.Forbidden, await Try(guessed, "10.0.2.1"));
        var told = await own.Get("/api/devices");
        Assert.Equal((21, true), ((int)told["wrongTries"]!, (bool)told["void"]!));
        Assert.Equal(HttpStatusCode.OK, await Try(pairing.NewCode(Store.DeviceRole.Wall).Code, "10.0.2.1"));
        Assert.False((bool)(await own.Get("/api/devices"))["void"]!);
    }

    [Fact]
    public void A_code_is_good_for_five_minutes()
    {
        var clock = new FakeTimeProvider();
        var pairing = new Security.Pairing(clock);
        var (code, _) = pairing.NewCode(Store.DeviceRole.Remote);
        clock.Advance(TimeSpan.FromMinutes(5) + TimeSpan.FromSeconds(1));
        Assert.Equal(Security.Tried.Expired, pairing.Try(code, "a").Tried);
        var session = Guid.NewGuid();
        var (fresh, _) = pairing.NewCode(Store.DeviceRole.Remote, session);
        clock.Advance(TimeSpan.FromMinutes(4.9));
        Assert.Equal((Security.Tried.LetIn, Store.DeviceRole.Remote, session), pairing.Try(fresh, "a"));
        Assert.Equal(Security.Tried.Wrong, pairing.Try(fresh, "a").Tried);
    }

    [Fact]
    public void A_device_that_nobody_uses_for_ninety_days_is_let_in_no_more()
    {
        var folder = Directory.CreateTempSubdirectory("halterion-test-").FullName;
        var clock = new FakeTimeProvider(DateTimeOffset.UnixEpoch.AddYears(60));
        using (var database = Store.Database.Open(folder, clock))
        {
            var devices = new Store.Devices(database, clock);
            devices.Add("Used", Store.DeviceRole.Wall, "used");
            devices.Add("Forgotten", Store.DeviceRole.Wall, "forgotten");
            for (var day = 0; day < 91; day += 30)
            {
                clock.Advance(TimeSpan.FromDays(30));
                Assert.NotNull(devices.Seen("used"));
            }

            Assert.Null(devices.Seen("forgotten"));
            Assert.Equal(["Used"], devices.List().Select(d => d.Name));
        }

        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task A_device_is_listed_and_sent_away_at_once_also_from_a_stream_it_hears()
    {
        var cookie = await Paired("remote", "10.0.0.3");
        var client = Device("10.0.0.3", cookie);
        var session = (string)(await studio.Post("/api/classes/file", Plan))["sessions"]![0]!["id"]!;
        using var stream = await client.GetAsync($"/api/sessions/{session}/events", HttpCompletionOption.ResponseHeadersRead);
        await using var heard = await stream.Content.ReadAsStreamAsync();
        Assert.True(await heard.ReadAsync(new byte[10]) > 0);
        // A twin of one paired by another test has a number after its name; the last one let in is ours.
        var device = (await studio.Get("/api/devices"))["devices"]!.AsArray()
            .Last(d => ((string)d!["name"]!).StartsWith("remote in the loft", StringComparison.Ordinal))!;
        using var away = await studio.CreateClient().DeleteAsync($"/api/devices/{device["id"]}");
        Assert.Equal(HttpStatusCode.NoContent, away.StatusCode);
        using var soon = new CancellationTokenSource(TimeSpan.FromSeconds(5));
        while (await heard.ReadAsync(new byte[4096], soon.Token) > 0)
        {
            // What was on its way.
        }

        using var after = await client.GetAsync($"/api/sessions/{session}/events", HttpCompletionOption.ResponseHeadersRead);
        Assert.Equal(HttpStatusCode.Unauthorized, after.StatusCode);
    }

    [Fact]
    public async Task A_device_that_asks_too_much_is_refused_and_this_machine_is_not()
    {
        async Task<int> Refused(HttpClient client)
        {
            var refused = 0;
            for (var i = 0; i < 200; i++)
            {
                using var response = await client.GetAsync("/api/me");
                refused += response.StatusCode == HttpStatusCode.TooManyRequests ? 1 : 0;
            }

            return refused;
        }

        Assert.InRange(await Refused(Device("10.9.9.9")), 20, 199);
        Assert.Equal(0, await Refused(Device("127.0.0.1")));
    }

    [Fact]
    public void The_certificate_is_kept_private_and_made_anew_for_another_address()
    {
        var folder = Directory.CreateTempSubdirectory("halterion-lan-").FullName;
        try
        {
            X509Certificate2 Of(params string[] names) => new Security.LocalNetwork(5081, names).Certificate(folder, TimeProvider.System);
            using var first = Of("192.168.1.4", "loft");
            using var again = Of("192.168.1.4", "loft");
            using var moved = Of("192.168.1.9", "loft");
            Assert.Equal(first.Thumbprint, again.Thumbprint);
            Assert.NotEqual(first.Thumbprint, moved.Thumbprint);
            Assert.True(moved.MatchesHostname("192.168.1.9") && moved.MatchesHostname("loft") && !moved.MatchesHostname("192.168.1.4"));
            Assert.True(
                OperatingSystem.IsWindows()
                    || File.GetUnixFileMode(Security.LocalNetwork.CertificateFile(folder)) == (
                        UnixFileMode.UserRead | UnixFileMode.UserWrite));
            //.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(Security.LocalNetwork.CertificateFile(folder)));
        }
        finally
        {
            Directory.Delete(folder, recursive: true);
        }
    }
}
