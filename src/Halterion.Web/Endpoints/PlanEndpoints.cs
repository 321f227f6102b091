using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;
using Halterion.Core.Timing.Refitting;
using Halterion.Core.Words;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The class after a repair, and what it now adds up to.</summary>
/// <param name="Words">What changed, line by line.</param>
public sealed record RepairResult(JsonElement Class, Evaluation Evaluation, ImmutableArray<string> Words);

/// <summary>A way out, with the class as it would be.</summary>
public sealed record FitOffer(FitWay Way, JsonElement Class);

public sealed record FitAnswer(ImmutableArray<FitOffer> Offers, string ShortBy, ImmutableArray<FitObstacle> Obstacles);

/// <summary>An option proposed beside a station's main one, ready to stand there.</summary>
/// <param name="Words">The move and what is otherwise: "Bodyweight squat, half the depth".</param>
/// <param name="Why">With what it trades for what.</param>
public sealed record ProposedOption(Tier Tier, JsonObject Option, string Words, string Why);

/// <summary>What is said while leading, in order.</summary>
/// <param name="Bells">Where a bell stands, in seconds from the start of the class.</param>
public sealed record CallList(ImmutableArray<Call> Calls, ImmutableArray<decimal> Bells);

internal static class PlanEndpoints
{
    public static void MapPlans(this IEndpointRouteBuilder routes)
    {
        var plans = routes.MapGroup("/api/plans").WithTags("Plans");
        plans.MapPost("/evaluate", EvaluateAsync).Accepts<JsonElement>("application/json").Produces<Evaluation>()
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("evaluate");
        plans.MapPost("/review", Review).Takes<ReviewRequest>().WithName("review");
        plans.MapPost("/figures", FiguresAsync).Accepts<JsonElement>("application/json")
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("planFigures");
        plans.MapPost("/repair", Repair).Takes<RepairRequest>().ProducesProblem(409).WithName("repair");
        plans.MapPost("/repairs", Repairs).Takes<ClassRequest>().WithName("repairs");
        plans.MapPost("/fit", FitTo).Takes<FitRequest>().WithName("fit");
        plans.MapPost("/refit", RefitTo).Takes<RefitRequest>().WithName("refit");
        plans.MapPost("/calls", Calls).Takes<CallsRequest>().WithName("calls");
        plans.MapPost("/dose", Dose).Takes<TypedDoseRequest>().WithName("typeDose");
        plans.MapPost("/rounds", Rounds).Takes<RoundsRequest>().WithName("setRounds");
        plans.MapPost("/proposals", Proposed).Takes<ProposalsRequest>().ProducesProblem(404).WithName("proposeOptions");
        plans.MapPost("/paste", Paste).Takes<PasteRequest>().WithName("pasteMoves");
        plans.MapGet("/walk-through-paces", (LearntPaces paces) => TypedResults.Ok(WalkThroughPace.Of(paces.Factors())))
            .WithName("walkThroughPaces");
        plans.MapGet("/dose-forms", () => TypedResults.Ok(ShortDose.Forms)).WithName("doseForms");
    }

    /// <summary>Says to the second what a class file adds up to, and what is to be said about it.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> EvaluateAsync(
        HttpRequest request, Evaluator evaluator, WrittenAnswers written)
    {
        var (file, problem) = await Raw.ReadAsync(request, ClassReader.MaxBytes);
        if (problem is not null)
        {
            return problem;
        }

        var result = evaluator.Evaluate(file);
        return result.Evaluation is { } evaluation ? TypedResults.File(written.Of(evaluation), "application/json; "
            + "charset=utf-8") : Problems.Faults(result.Faults);
    }

    /// <summary>So many of each tier are looked through at a glance.</summary>
    private const int MostProposed = 3;

    /// <summary>
    /// What could stand beside a station's main option as it is done: a few of each tier, the best first, none that stands there already.
    /// </summary>
    private static Results<Ok<ImmutableArray<ProposedOption>>, ProblemHttpResult> Proposed(
        Body<ProposalsRequest> body, Evaluator evaluator, Sessions sessions, Rooms rooms, SessionRooms halls)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var own = request.Moves is { ValueKind: JsonValueKind.Array } list ? JsonNode.Parse(list.GetRawText()) : null;
        var read = ClassReader.ReadBlock(JsonNode.Parse(request.Block.GetRawText())!.AsObject(), evaluator.Moves, own);
        if (read.Plan is not { } plan)
        {
            return Problems.Faults(read.Faults.At("/blocks/0", "/block"), Problems.Request);
        }

        if (plan.Blocks[0].Stations.FirstOrDefault(s => s.Id.Value == request.Station) is not { } station)
        {
            return Problems.NotFound("station");
        }

        var weights = request.Session is { } id && sessions.Find(id) is not null
            ? StockWeights.Of(halls.HallOf(rooms.Of(id))?.Stock)
            : null;
        var main = new Doing(station.Main.Move, station.Main.Manner);
        return TypedResults.Ok(new[] { Tier.Harder, Tier.Easier, Tier.Instead }
            .SelectMany(tier => Proposals.All(main, tier, plan.Moves, weights: weights)
                .Select(p => (p.Why, Option: OptionEntry.Into(p.Of, station, plan.Moves)))
                .Where(p => station.Options.All(o => o.Move != p.Option.Move || !o.Manner.Equals(p.Option.Manner)))
                .Take(MostProposed)
                .Select(
                    p => new ProposedOption(
                        tier, PlanWriter.Of(p.Option), PlanWords.Option(p.Option, station, plan.Moves, evaluator.Preferences), p.Why)))
            .ToImmutableArray());
    }

    /// <summary>A class with people, kit and room, everything inline: who does what, and what runs short.</summary>
    private static Results<Ok<ClassReviewed>, ProblemHttpResult> Review(Body<ReviewRequest> body, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var own = request.Settings is { } settings ? new Evaluator(evaluator.Moves, settings) : evaluator;
        var read = own.Evaluate(request.Plan.GetRawText());
        if (read.Plan is not { } plan || read.Evaluation is null)
        {
            return Problems.Faults([.. read.Faults.At("", "/plan"), .. request.FaultsFor(null)], Problems.Request);
        }

        if (request.FaultsFor(plan) is { IsEmpty: false } faults)
        {
            return Problems.Faults(faults, Problems.Request);
        }

        var room = new RoomOf(
            plan, request.Day, [.. request.People ?? []], request.HeadCount ?? 0, [.. request.Pins ?? []],
            request.Kit is { } kit ? [.. kit] : null,
            request.Groups!.ToDictionary(g => new PlaceId(g.Key), g => g.Value));
        return TypedResults.Ok(ClassReviewed.Of(read, room, own.Settings, request.Room, request.HistoryBefore, [.. request.Waivers ?? []]));
    }

    /// <summary>The figures of a class file's options.</summary>
    private static async Task<Results<Ok<ImmutableArray<OptionPicture>>, ProblemHttpResult>> FiguresAsync(
        HttpRequest request, Evaluator evaluator)
    {
        var (file, problem) = await Raw.ReadAsync(request, ClassReader.MaxBytes);
        if (problem is not null)
        {
            return problem;
        }

        var result = evaluator.Evaluate(file);
        return result.Plan is { } plan ? TypedResults.Ok(ClassFigures.Of(plan)) : Problems.Faults(result.Faults);
    }

    private static Results<Ok<RepairResult>, ProblemHttpResult> Repair(Body<RepairRequest> body, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var before = evaluator.Evaluate(request.Class.GetRawText());
        if (before.Evaluation is null)
        {
            return Problems.Faults(before.Faults.At("", "/class"));
        }

        return Mender.Of(request.Class, evaluator)?.Mend(request.Finding, request.Repair) is { } mended
            ? TypedResults.Ok(new RepairResult(JsonElement.Parse(mended.Class.ToJsonString()), mended.Evaluation, mended.Words))
            : Problems.Conflict(
                "This way out does not fit the class as it is now.", "finding", request.Finding, StatusCodes.Status409Conflict);
    }

    /// <summary>The repairs of a class that were tried and keep their word.</summary>
    private static Results<Ok<RepairOffers>, ProblemHttpResult> Repairs(
        Body<ClassRequest> body, Evaluator evaluator, TimeProvider clock, CancellationToken stop)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        return Mender.Of(request.Class, evaluator) is { } mender
            ? TypedResults.Ok(mender.Offers(clock.Late(), stop))
            : Problems.Faults(evaluator.Evaluate(request.Class.GetRawText()).Faults.At("", "/class"));
    }

    /// <summary>Up to three ways to bring a class to its slot, the cheapest first; or what stands in the way.</summary>
    private static Results<Ok<FitAnswer>, ProblemHttpResult> FitTo(Body<FitRequest> body, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var text = request.Class.GetRawText();
        var result = evaluator.Evaluate(text);
        if (result.Timeline is null)
        {
            return Problems.Faults(result.Faults.At("", "/class"));
        }

        return TypedResults.Ok(FitOf(text, result.Plan!, request.Terms, evaluator));
    }

    internal static FitAnswer FitOf(string text, ClassPlan plan, FitTerms terms, Evaluator evaluator)
    {
        var found = Fit.Of(plan, terms with { Changes = ChangeTimes.Of(evaluator.Preferences) });
        return new FitAnswer(
            [.. found.Ways.Select(way => new FitOffer(way, Edited(text, way)))], found.ShortBy.ToString(), found.Obstacles);
    }

    /// <summary>
    /// Up to three ways in which a class under way still ends on time, the cheapest first; else the one that ends soonest.
    /// </summary>
    private static Results<Ok<RefitResult>, ProblemHttpResult> RefitTo(Body<RefitRequest> body, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var result = evaluator.Evaluate(request.Plan.GetRawText());
        if (result is not { Plan: { } plan, Timeline: { } timeline })
        {
            return Problems.Faults(result.Faults.At("", "/plan"));
        }

        return request.Position > timeline.Length.Value
            ? Problems.Bad("/position", $"The class is over after {timeline.Length.Value} s.", $"a whole number from 0 to "
                + $"{timeline.Length.Value}")
            : TypedResults.Ok(Refit.Of(plan, timeline, ClassUnderWay.At(timeline, new Seconds(request.Position)),
                new Seconds(request.RemainingSeconds), request.Terms));
    }

    /// <summary>What is said while a class is led, and when.</summary>
    private static Results<Ok<CallList>, ProblemHttpResult> Calls(Body<CallsRequest> body, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var result = evaluator.Evaluate(request.Plan.GetRawText());
        return result is { Plan: { } plan, Timeline: { } timeline }
            ? TypedResults.Ok(new CallList(
                Call.ListFor(plan, timeline, evaluator.Preferences with { Silent = request.Silent ?? evaluator.Preferences.Silent }),
                Call.BellsOf(timeline)))
            : Problems.Faults(result.Faults.At("", "/plan"));
    }

    private static JsonElement Edited(string text, FitWay way)
    {
        var root = JsonNode.Parse(text)!;
        foreach (var edit in way.Edits)
        {
            edit.ApplyTo(root);
        }

        return JsonElement.Parse(root.ToJsonString());
    }

    private static Results<Ok<TypedDoseResult>, ProblemHttpResult> Dose(Body<TypedDoseRequest> body, Evaluator evaluator) =>
        body.Value is not { } request ? body.Problem!
        : DoseTyping.Dose(request.Text, request.Class, request.Station, evaluator) is { } read ? TypedResults.Ok(read)
        : Problems.Bad("/station", "The class has no such station.", "the id of one of its stations");

    private static Results<Ok<RoundsResult>, ProblemHttpResult> Rounds(Body<RoundsRequest> body, Evaluator evaluator) =>
        body.Value is not { } request ? body.Problem!
        : DoseTyping.Rounds(request.Rounds, request.Class, request.Block, evaluator) is { } changed ? TypedResults.Ok(changed)
        : Problems.Bad("/block", "The class has no such block.", "the id of one of its blocks");

    /// <summary>Reads a list of moves into stations, line by line; what is not understood is said there.</summary>
    private static Results<Ok<PastedList>, ProblemHttpResult> Paste(
        Body<PasteRequest> body, MoveLibrary library, Starters starters, TimeProvider clock) =>
        body.Value is { } request
            ? TypedResults.Ok(PastedMoves.Read(request.Text, library, starters, request.RoundGivesSide, request.Like is null ? null
                : ShortDoseReader.Read(request.Like).Dose, clock.Late()))
            : body.Problem!;
}
