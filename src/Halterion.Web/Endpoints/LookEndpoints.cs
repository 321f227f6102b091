using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Sheets;
using Halterion.Core.Timing.Fitting;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Endpoints;

/// <summary>Asks what there is to know of a class as it stands on the screen.</summary>
/// <param name="Version">The class's version that it was made from, and what the screen counts its edits by: said again with every
/// part.</param>
/// <param name="Session">The occasion it is held on; left out: of the class alone.</param>
/// <param name="Booking">When and for whom, as it stands on the screen; left out: as it is kept.</param>
/// <param name="Figures">The figures are wanted too.</param>
/// <param name="Fit">Ways to bring it to its slot are wanted too.</param>
public sealed record LookRequest(
    JsonElement Class, int Version =
        0, int Edit = 0, Guid? Session = null, Booking? Booking = null, bool Figures = false, bool Fit = false) : IRead<LookRequest>
{
    public static LookRequest? Read(Fields body, Faults faults)
    {
        var file = body.Json("class", faults);
        var version = body.Whole("version", 0, int.MaxValue) ?? 0;
        var edit = body.Whole("edit", 0, int.MaxValue) ?? 0;
        var session = body.Id("session");
        var booking = body.Has("booking") ? BookingReader.Read(body, faults) : null;
        var (figures, fit) = (body.Flag("figures") ?? false, body.Flag("fit") ?? false);
        return file is { } of ? new LookRequest(of, version, edit, session, booking, figures, fit) : null;
    }
}

/// <summary>
/// One thing that is known of a class. They come as they are known, a line of JSON each: what is on the screen first, what takes long last.
/// </summary>
/// <param name="Faults">Why it adds up to nothing; then nothing else comes.</param>
/// <param name="Checks">What was found, of the class and of its session; of the class alone it stands in the evaluation.</param>
/// <param name="Offers">The ways to fix it that keep their word.</param>
public sealed record LookPart(
    int Version,
    int Edit,
    Evaluation? Evaluation = null,
    ImmutableArray<PlanFault>? Faults = null,
    LookChecks? Checks = null,
    ImmutableArray<OptionPicture>? Figures = null,
    FitAnswer? Fit = null,
    RepairOffers? Offers = null);

/// <param name="Ready">Nothing is left that must not stay so.</param>
/// <param name="Sure">It is ready, all of it is known, and the booked time is used.</param>
public sealed record LookChecks(ImmutableArray<Finding> Findings, bool Ready, bool Sure, HardestMoment? Hardest);

internal static class LookEndpoints
{
    public const string Lines = "application/x-ndjson";

    /// <summary>Before what takes long is begun: whoever goes on typing asks anew and ends this one.</summary>
    private static readonly TimeSpan Settles = TimeSpan.FromMilliseconds(150);

    public static void MapLook(this IEndpointRouteBuilder routes) =>
        routes.MapPost("/api/plans/look", LookAsync)
            .Takes<LookRequest>()
            .ProducesProblem(404)
            .Produces<LookPart>(200, Lines)
            .WithTags("Plans")
            .WithName("look");

    /// <summary>Reads a class once, and says what is known of it as it is known.</summary>
    private static async Task LookAsync(
        Body<LookRequest> body, HttpContext http, Evaluator evaluator, SessionRooms rooms, SessionChecks checks, Sessions sessions,
            Settings settings,
        TimeProvider clock, IOptions<JsonOptions> json, WrittenAnswers written)
    {
        if (body.Value is not { } request)
        {
            await body.Problem!.ExecuteAsync(http);
            return;
        }

        var session = request.Session is { } id ? sessions.Find(id) : null;
        if (request.Session is not null && session is null)
        {
            await Problems.NotFound("session").ExecuteAsync(http);
            return;
        }

        var stop = http.RequestAborted;
        http.Response.ContentType = Lines;
        async Task Say(LookPart part)
        {
            await JsonSerializer.SerializeAsync(http.Response.Body, part, json.Value.SerializerOptions, stop);
            await http.Response.Body.WriteAsync("\n"u8.ToArray(), stop);
            await http.Response.Body.FlushAsync(stop);
        }

        var known = new LookPart(request.Version, request.Edit);
        var result = evaluator.Evaluate(request.Class.GetRawText());
        if (result is not { Evaluation: { } evaluation, Plan: { } plan, Timeline: { } timeline })
        {
            await Say(known with { Faults = result.Faults });
            return;
        }

        await SayWritten(http, known, written.Of(evaluation));
        if (session is not null)
        {
            var held = request.Booking is { } booking ? session with { Booking = SessionEndpoints.Stored(booking) } : session;
            var found = checks.Of(rooms.ReadyOf(plan, timeline, held));
            var hardest = ClassMeasure.Of(found.Review).Hardest;
            var (ready, sure) = (CheckEndpoints.IsReady(found.Findings), ReadyView.IsSure(found.Review, found.Findings));
            await Say(known with { Checks = new LookChecks(found.Findings, ready, sure, hardest) });
        }

        if (request.Figures)
        {
            await Say(known with { Figures = ClassFigures.Of(plan) });
        }

        await Task.Delay(Settles, clock, stop);
        if (request.Fit)
        {
            await Say(known with { Fit = PlanEndpoints.FitOf(request.Class.GetRawText(), plan, settings.FitTerms(), evaluator) });
        }

        if (Mender.Of(request.Class, result, evaluator) is { } mender)
        {
            await Say(known with { Offers = mender.Offers(clock.Late(), stop) });
        }
    }

    /// <summary>The evaluation as it was written once already.</summary>
    private static async Task SayWritten(HttpContext http, LookPart known, byte[] evaluation)
    {
        var head = string.Create(CultureInfo.InvariantCulture, $$"""{"version":{{known.Version}},"edit":{{known.Edit}},"evaluation":""");
        await http.Response.Body.WriteAsync(Encoding.UTF8.GetBytes(head), http.RequestAborted);
        await http.Response.Body.WriteAsync(evaluation, http.RequestAborted);
        await http.Response.Body.WriteAsync("}\n"u8.ToArray(), http.RequestAborted);
        await http.Response.Body.FlushAsync(http.RequestAborted);
    }
}
