using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>Asks for one repair of one finding.</summary>
/// <param name="Class">The class file that the finding was made for.</param>
/// <param name="Finding">The finding's key.</param>
/// <param name="Repair">Which of its repairs, from 0.</param>
public sealed record RepairRequest(JsonElement Class, string Finding, int Repair);

/// <summary>The class after a repair, and what it now adds up to.</summary>
public sealed record RepairResult(JsonElement Class, Evaluation Evaluation);

/// <summary>Asks for ways to bring a class to its slot.</summary>
public sealed record FitRequest(JsonElement Class, FitTerms Terms);

/// <summary>A way out, with the class as it would be.</summary>
public sealed record FitOffer(FitWay Way, JsonElement Class);

public sealed record FitAnswer(ImmutableArray<FitOffer> Offers, string ShortBy, ImmutableArray<FitObstacle> Obstacles);

/// <summary>A dose typed in its short form, for one station of a block.</summary>
/// <param name="Block">The block as it is.</param>
/// <param name="Moves">The class's own moves, if it has any.</param>
public sealed record TypedDoseRequest(string Text, JsonElement Block, int Station, JsonElement? Moves = null);

/// <summary>The block with the dose in it, and the dose in words.</summary>
/// <param name="Words">What was understood, such as "12 reps each side".</param>
/// <param name="Takes">What it takes in the first round.</param>
public sealed record TypedDoseResult(JsonElement Block, string Words, string Takes);

internal static class PlanEndpoints
{
    public static void MapPlans(this IEndpointRouteBuilder routes)
    {
        var plans = routes.MapGroup("/api/plans").WithTags("Plans");
        plans.MapPost("/evaluate", EvaluateAsync).Accepts<JsonElement>("application/json").ProducesProblem(422).WithName("evaluate");
        plans.MapPost("/repair", Repair).ProducesProblem(422).ProducesProblem(409).WithName("repair");
        plans.MapPost("/fit", FitTo).ProducesProblem(422).WithName("fit");
        plans.MapPost("/dose", Dose).ProducesProblem(422).WithName("typeDose");
        plans.MapGet("/dose-forms", () => TypedResults.Ok(ShortDose.Forms)).WithName("doseForms");
    }

    /// <summary>Says to the second what a class file adds up to, and what is to be said about it.</summary>
    private static async Task<Results<Ok<Evaluation>, ProblemHttpResult>> EvaluateAsync(HttpRequest request, Evaluator evaluator, CancellationToken cancel)
    {
        var result = evaluator.Evaluate(await request.ReadBytesAsync(cancel));
        return result.Evaluation is { } evaluation ? TypedResults.Ok(evaluation) : Problems.Faults(result.Faults);
    }

    private static Results<Ok<RepairResult>, ProblemHttpResult> Repair(RepairRequest request, Evaluator evaluator)
    {
        if (evaluator.Mend(request.Class, request.Finding, request.Repair) is not { } mended)
        {
            return Problems.Conflict("This class has no such finding any more.", "finding", request.Finding, StatusCodes.Status409Conflict);
        }

        var text = mended.ToJsonString();
        var result = evaluator.Evaluate(text);
        return result.Evaluation is { } evaluation
            ? TypedResults.Ok(new RepairResult(JsonElement.Parse(text), evaluation))
            : Problems.Faults(result.Faults);
    }

    /// <summary>Up to three ways to bring a class to its slot, the cheapest first; or what stands in the way.</summary>
    private static Results<Ok<FitAnswer>, ProblemHttpResult> FitTo(FitRequest request, Evaluator evaluator)
    {
        if (request.Terms.Fault() is { } fault)
        {
            return Problems.Bad($"/terms/{fault.Name}", "This limit or weight is out of bounds.", fault.Right);
        }

        var text = request.Class.GetRawText();
        var reading = ClassReader.Read(Encoding.UTF8.GetBytes(text), evaluator.Moves);
        if (!reading.IsValid)
        {
            return Problems.Faults(reading.Faults);
        }

        var found = Fit.Of(reading.Plan, request.Terms with { Pace = evaluator.Preferences.Pace });
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
    private static Results<Ok<TypedDoseResult>, ProblemHttpResult> Dose(TypedDoseRequest request, Evaluator evaluator)
    {
        var (typed, fault) = ShortDoseReader.Read(request.Text);
        if (typed is null)
        {
            return Problems.Bad($"/text/{fault!.At}", fault.Detail, fault.Right);
        }

        if (JsonNode.Parse(request.Block.GetRawText()) is not JsonObject block || block["stations"] is not JsonArray stations
            || request.Station < 0 || request.Station >= stations.Count || stations[request.Station] is not JsonObject station)
        {
            return Problems.Bad("/block", "The block has no such station.", "a block and the place of one of its stations, from 0");
        }

        typed.PutInto(block, station);
        var reading = ClassReader.ReadBlock(block, evaluator.Moves, request.Moves is { } own ? JsonNode.Parse(own.GetRawText()) : null);
        if (!reading.IsValid || evaluator.Evaluate(reading.Plan) is not { Evaluation: { } evaluation })
        {
            // The station's own faults first: they are about what was typed.
            var place = $"/blocks/0/stations/{request.Station}/";
            return Problems.Faults([.. reading.Faults.OrderByDescending(f => f.Pointer.StartsWith(place, StringComparison.Ordinal))]);
        }

        var outline = evaluation.Outline[0].Stations[request.Station];
        return TypedResults.Ok(new TypedDoseResult(JsonElement.Parse(block.ToJsonString()), outline.Target, outline.Words));
    }
}
