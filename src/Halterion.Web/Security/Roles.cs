using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using System.Text.Encodings.Web;
using Halterion.Store;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authorization;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Security;

/// <summary>
/// Who may do what. This machine itself is the instructor's and needs no pairing; a device of the local network has the role it was
/// paired with; everybody else has none. What names no role is refused.
/// </summary>
internal static class Roles
{
    /// <summary>The instructor, on this machine.</summary>
    public const string Owner = "owner";

    /// <summary>Whoever leads: the instructor, or a phone.</summary>
    public const string Lead = "lead";

    /// <summary>Whoever may see the wall.</summary>
    public const string Wall = "wall";

    public const string Scheme = "device";

    /// <summary>The prefix makes a browser take it over HTTPS only, for this host alone.</summary>
    public const string Cookie = "__Host-halterion";

    public static void AddRoles(this IServiceCollection services)
    {
        services.AddAuthentication(Scheme).AddScheme<AuthenticationSchemeOptions, DeviceAuthentication>(Scheme, null);
        services.AddAuthorizationBuilder()
            .AddPolicy(Owner, policy => policy.RequireRole(Owner))
            .AddPolicy(Lead, policy => policy.RequireRole(Owner, nameof(DeviceRole.Remote)))
            .AddPolicy(Wall, policy => policy.RequireRole(Owner, nameof(DeviceRole.Remote), nameof(DeviceRole.Wall)))
            .SetFallbackPolicy(new AuthorizationPolicyBuilder(Scheme).RequireAssertion(_ => false).Build());
    }

    public static string HashOf(string token) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(token)));

    /// <summary>256 random bits.</summary>
    public static string NewToken() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));

    /// <summary>The device that asks; null: this machine itself, or nobody known.</summary>
    public static Guid? DeviceOf(ClaimsPrincipal who) =>
        Guid.TryParse(who.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : null;
}

internal sealed class DeviceAuthentication(
    IOptionsMonitor<AuthenticationSchemeOptions> options,
    ILoggerFactory logger,
    UrlEncoder encoder,
    IServiceProvider services) : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    protected override Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        if (Doors.IsHere(Context))
        {
            return Task.FromResult(As(new Claim(ClaimTypes.Role, Roles.Owner)));
        }

        var device = Request.Cookies[Roles.Cookie] is { Length: > 0 } token
            ? services.GetRequiredService<Devices>().Seen(Roles.HashOf(token))
            : null;
        return Task.FromResult(device is null
            ? AuthenticateResult.NoResult()
            : As(new Claim(ClaimTypes.Role, device.Role.ToString()), new Claim(ClaimTypes.NameIdentifier, device.Id.ToString())));
    }

    private AuthenticateResult As(params Claim[] claims) =>
        AuthenticateResult.Success(new AuthenticationTicket(new ClaimsPrincipal(new ClaimsIdentity(claims, Scheme.Name)), Scheme.Name));

    protected override Task HandleChallengeAsync(AuthenticationProperties properties) =>
        TypedResults.Problem(title: "This device is not paired.", detail: "Get a code from the instructor’s screen.",
            statusCode: StatusCodes.Status401Unauthorized).ExecuteAsync(Context);

    protected override Task HandleForbiddenAsync(AuthenticationProperties properties) =>
        TypedResults.Problem(title: "This device is not allowed to do "
            + "that.", statusCode: StatusCodes.Status403Forbidden).ExecuteAsync(Context);
}
