using System.Threading.RateLimiting;
using Halterion.Core.Plans;
using Microsoft.Extensions.Primitives;

namespace Halterion.Web.Security;

/// <summary>Who may knock: this machine's own pages, and where its door is open the local network's.</summary>
internal static class Doors
{
    public const string AllowedHosts = "localhost;127.0.0.1;[::1]";

    private static readonly HashSet<string> OwnNames = new(AllowedHosts.Split(';'), StringComparer.OrdinalIgnoreCase);

    /// <summary>
    /// Whether a request comes from this machine itself, which makes it the owner's. By a name of the network nobody does: a page of
    /// another site could make a browser ask by it.
    /// </summary>
    public static bool IsHere(HttpContext context) =>
        context.Connection.RemoteIpAddress is { } from && System.Net.IPAddress.IsLoopback(from)
        && OwnNames.Contains(context.Request.Host.Host);

    /// <summary>So many requests a second a device may go on asking, and so many at once. [M]</summary>
    private const int ASecond = 20;
    private const int AtOnce = 120;

    /// <summary>No device of the network can keep the server from the others; this machine itself is not counted.</summary>
    public static void AddLimits(this IServiceCollection services) => services.AddRateLimiter(limits =>
    {
        limits.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
        limits.GlobalLimiter = PartitionedRateLimiter.Create<HttpContext, string>(context =>
            context.Connection.RemoteIpAddress is not { } from || IsHere(context)
                ? RateLimitPartition.GetNoLimiter("here")
                : RateLimitPartition.GetTokenBucketLimiter(from.ToString(), _ => new TokenBucketRateLimiterOptions
                {
                    TokenLimit = AtOnce,
                    TokensPerPeriod = ASecond,
                    ReplenishmentPeriod = TimeSpan.FromSeconds(1),
                    QueueLimit = 0,
                }));
    });

    private static readonly Dictionary<string, StringValues> Headers = new()
    {
        // Mantine sets style attributes from script; everything else is our own files.
        ["Content-Security-Policy"] = "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; media-src 'self' "
            + "blob:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'self'",
        ["X-Content-Type-Options"] = "nosniff",
        ["X-Frame-Options"] = "SAMEORIGIN",
        ["Referrer-Policy"] = "no-referrer",
        ["Cross-Origin-Opener-Policy"] = "same-origin",
        ["Cross-Origin-Resource-Policy"] = "same-origin",
        ["Permissions-Policy"] = "camera=(), microphone=(self), geolocation=(), payment=(), usb=()",
    };

    public static void UseDoors(this WebApplication app) => app.Use(async (context, next) =>
    {
        foreach (var (name, value) in Headers)
        {
            context.Response.Headers[name] = value;
        }

        if (context.Request.Path.StartsWithSegments("/api"))
        {
            context.Response.Headers.CacheControl = "no-store";
            if (IsCrossSite(context.Request))
            {
                await TypedResults.Problem(title: "Requests from other websites are "
                    + "not accepted.", statusCode: StatusCodes.Status403Forbidden).ExecuteAsync(context);
                return;
            }
        }

        await next(context);
    });

    /// <summary>A browser says where a request comes from; a program without a browser says nothing.</summary>
    private static bool IsCrossSite(HttpRequest request)
    {
        if (request.Headers.TryGetValue("Sec-Fetch-Site", out var site) && site != "same-origin" && site != "none")
        {
            return true;
        }

        return request.Headers.TryGetValue("Origin", out var origin) && origin != $"{request.Scheme}://{request.Host}";
    }
}
