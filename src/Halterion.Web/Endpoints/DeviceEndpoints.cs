using System.Collections.Immutable;
using System.Security.Claims;
using Halterion.Core.PlanFormat;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A code with which one device is let in.</summary>
/// <param name="Address">What the picture holds, and what is typed where no picture can be read.</param>
/// <param name="Picture">The address as a QR code: an SVG path in a square of so many units.</param>
/// <param name="GoodUntil">Milliseconds since 1970 UTC.</param>
public sealed record PairingCode(string Code, DeviceRole Role, string Address, string Picture, int Size, long GoodUntil);

/// <param name="Address">Where the door to the local network is; null: it is shut.</param>
/// <param name="WrongTries">Wrong codes that were typed since the last one was made.</param>
/// <param name="Void">So many that the last code is good no more: make a new one.</param>
public sealed record DeviceList(string? Address, ImmutableArray<StoredDevice> Devices, int WrongTries, bool Void);

/// <summary>What this screen may do.</summary>
/// <param name="Role">owner, remote, wall; null: nothing yet.</param>
public sealed record Me(string? Role);

internal static class DeviceEndpoints
{
    public static void MapDevices(this IEndpointRouteBuilder routes)
    {
        var devices = routes.MapGroup("/api/devices").WithTags("Devices");
        devices.MapGet("/", (LocalNetwork door, Devices all, Pairing pairing) =>
            TypedResults.Ok(new DeviceList(door.Address, all.List(), pairing.WrongTries, pairing.IsVoid))).WithName("devices");
        devices.MapPost("/codes", NewCode).Takes<NewCode>().ProducesProblem(409).WithName("newCode");
        devices.MapDelete("/{id:guid}", SendAway).ProducesProblem(404).WithName("sendAway");
    }

    /// <summary>What anybody may ask: who they are, and to be let in.</summary>
    public static void MapPairing(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/me", (ClaimsPrincipal who) => TypedResults.Ok(new Me(who.FindFirstValue(ClaimTypes.Role)?.ToLowerInvariant())))
            .WithTags("Devices").WithName("me");
        routes.MapPost("/api/pair", Pair)
            .Takes<PairRequest>()
            .ProducesProblem(403)
            .ProducesProblem(429)
            .WithTags("Devices")
            .WithName("pair");
    }

    private static Results<Ok<PairingCode>, ProblemHttpResult> NewCode(Body<NewCode> body, LocalNetwork door, Pairing pairing)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (door.Address is not { } address)
        {
            return TypedResults.Problem(
                title: "Other devices cannot connect.",
                detail: "Start Halterion with --lan.",
                statusCode: StatusCodes.Status409Conflict);
        }

        var (code, until) = pairing.NewCode(request.Role, request.Session);
        var whole = $"{address}/pair#{code}";
        var (picture, size) = QrPicture.Of(whole);
        return TypedResults.Ok(new PairingCode(code, request.Role, whole, picture, size, until.ToUnixTimeMilliseconds()));
    }

    private static Results<Ok<Me>, ProblemHttpResult> Pair(Body<PairRequest> body, Pairing pairing, Devices devices, HttpContext http)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (tried, role, session) = pairing.Try(request.Code, http.Connection.RemoteIpAddress?.ToString() ?? "");
        if (tried == Tried.Wait)
        {
            return TypedResults.Problem(title: "Too many wrong codes.", detail: "Wait a minute, then get a new one.",
                statusCode: StatusCodes.Status429TooManyRequests);
        }

        if (tried is Tried.Wrong or Tried.Expired)
        {
            const string again = "Get a new one from the instructor’s screen.";
            var (title, detail) = (tried, pairing.IsVoid) switch
            {
                (Tried.Expired, _) => ("This code has expired.", $"This code has expired: it was good for five minutes. {again}"),
                (_, true) => ("All codes are void.", $"Too many wrong codes were typed, so none is good any more. {again}"),
                _ => ("No such code.", "No code like this is open. Check the six digits; each works once."),
            };
            return TypedResults.Problem(title: title, detail: detail, statusCode: StatusCodes.Status403Forbidden);
        }

        var token = Roles.NewToken();
        devices.Add(request.Name, role, Roles.HashOf(token), session);
        http.Response.Cookies.Append(Roles.Cookie, token, new CookieOptions
        {
            HttpOnly = true,
            Secure = true,
            SameSite = SameSiteMode.Strict,
            Path = "/",
            MaxAge = TimeSpan.FromDays(365),
        });
        return TypedResults.Ok(new Me(role.ToString().ToLowerInvariant()));
    }

    private static Results<NoContent, ProblemHttpResult> SendAway(Guid id, Devices devices, Pairing pairing)
    {
        if (!devices.Remove(id))
        {
            return Problems.NotFound("device");
        }

        pairing.SendAway(id);
        return TypedResults.NoContent();
    }
}

/// <summary>Asks for a code with which a device gets a role.</summary>
/// <param name="Session">The one whose lead asks: the device follows it.</param>
public sealed record NewCode(DeviceRole Role, Guid? Session = null) : IRead<NewCode>
{
    public static NewCode? Read(Fields body, Faults faults)
    {
        var session = body.Id("session");
        return body.Choice<DeviceRole>("role", required: true) is { } role ? new NewCode(role, session) : null;
    }
}

/// <summary>A code as it was typed on a device, and what the device is called.</summary>
public sealed record PairRequest(string Code, string Name) : IRead<PairRequest>
{
    public static PairRequest? Read(Fields body, Faults faults)
    {
        var code = body.Text("code", 6, 6, required: true);
        var name = body.Text("name", 1, 60, required: true);
        return code is not null && name is not null ? new PairRequest(code, name) : null;
    }
}
