using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;
using Halterion.Core.Views;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The class after a repair, and what it now adds up to.</summary>
public sealed record RepairResult(JsonElement Class, Evaluation Evaluation);

/// <summary>A way out, with the class as it would be.</summary>
public sealed record FitOffer(FitWay Way, JsonElement Class);

public sealed record FitAnswer(ImmutableArray<FitOffer> Offers, string ShortBy, ImmutableArray<FitObstacle> Obstacles);

/// <summary>The block with the dose in it, and the dose in words.</summary>
/// <param name="Words">What was understood, such as "12 reps each side".</param>
/// <param name="Takes">What it takes in the first round.</param>
public sealed record TypedDoseResult(JsonElement Block, string Words, string Takes);

internal static class PlanEndpoints
{
    public static void MapPlans(this IEndpointRouteBuilder routes)
    {
        var plans = routes.MapGroup("/api/plans").WithTags("Plans");
        plans.MapPost("/evaluate", EvaluateAsync).Accepts<JsonElement>("application/json")
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("evaluate");
        plans.MapPost("/figures", FiguresAsync).Accepts<JsonElement>("application/json")
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("planFigures");
        plans.MapPost("/repair", Repair).Takes<RepairRequest>().ProducesProblem(409).WithName("repair");
        plans.MapPost("/fit", FitTo).Takes<FitRequest>().WithName("fit");
        plans.MapPost("/dose", Dose).Takes<TypedDoseRequest>().WithName("typeDose");
        plans.MapGet("/dose-forms", () => TypedResults.Ok(ShortDose.Forms)).WithName("doseForms");
    }

    /// <summary>Says to the second what a class file adds up to, and what is to be said about it.</summary>
    private static async Task<Results<Ok<Evaluation>, ProblemHttpResult>> EvaluateAsync(HttpRequest request, Evaluator evaluator)
    {
        var (file, problem) = await Raw.ReadAsync(request, ClassReader.MaxBytes);
        if (problem is not null)
        {
            return problem;
        }

        var result = evaluator.Evaluate(file);
        return result.Evaluation is { } evaluation ? TypedResults.Ok(evaluation) : Problems.Faults(result.Faults);
    }

    /// <summary>The figures of a class file's options.</summary>
    private static async Task<Results<Ok<ImmutableArray<OptionPicture>>, ProblemHttpResult>> FiguresAsync(HttpRequest request, Evaluator evaluator)
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

        if (evaluator.Mend(request.Class, request.Finding, request.Repair) is not { } mended)
        {
            return Problems.Conflict("This class has no such finding any more.", "finding", request.Finding, StatusCodes.Status409Conflict);
        }

        var text = mended.ToJsonString();
        return evaluator.Evaluate(text).Evaluation is { } evaluation
            ? TypedResults.Ok(new RepairResult(JsonElement.Parse(text), evaluation))
            : Problems.Conflict("This way out does not fit the class as it is.", "finding", request.Finding, StatusCodes.Status409Conflict);
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

        var found = Fit.Of(result.Plan!, request.Terms with { Pace = evaluator.Preferences.Pace });
        return TypedResults.Ok(new FitAnswer([.. found.Ways.Select(way => new FitOffer(way, Edited(text, way)))], found.ShortBy.ToString(), found.Obstacles));
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

    /// <summary>Reads a dose as it is typed, puts it into its station and says what was understood.</summary>
    private static Results<Ok<TypedDoseResult>, ProblemHttpResult> Dose(Body<TypedDoseRequest> body, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (typed, fault) = ShortDoseReader.Read(request.Text);
        if (typed is null)
        {
            return Problems.Conflict(
                "This is no dose.",
                "at",
                fault!.At,
                StatusCodes.Status422UnprocessableEntity,
                new PlanFault("/text", fault.Detail, fault.Right));
        }

        if (JsonNode.Parse(request.Block.GetRawText()) is not JsonObject block || block["stations"] is not JsonArray stations
            || request.Station >= stations.Count || stations[request.Station] is not JsonObject station)
        {
            return Problems.Bad("/block", "The block has no such station.", "a block and the place of one of its stations, from 0");
        }

        typed.PutInto(block, station);
        var reading = ClassReader.ReadBlock(block, evaluator.Moves, request.Moves is { } own ? JsonNode.Parse(own.GetRawText()) : null);
        if (!reading.IsValid || evaluator.Evaluate(reading.Plan) is not { Evaluation: { } evaluation })
        {
            // What was typed is what is wrong, if the fault is the station's: then it has no place in what was sent.
            var place = $"/blocks/0/stations/{request.Station}/";
            return Problems.Faults(
                [.. reading.Faults.OrderByDescending(f => f.Pointer.StartsWith(place, StringComparison.Ordinal))
                    .Select(f => Array.Exists(
                        TypedDose.StationFields,
                        field => f.Pointer.StartsWith(place + field, StringComparison.Ordinal)) ? f with { Pointer = "/text" } : f)
                    .ToImmutableArray().At("/blocks/0", "/block")],
                "dose");
        }

        var outline = evaluation.Outline[0].Stations[request.Station];
        return TypedResults.Ok(new TypedDoseResult(JsonElement.Parse(block.ToJsonString()), outline.Target, outline.Words));
    }
}
