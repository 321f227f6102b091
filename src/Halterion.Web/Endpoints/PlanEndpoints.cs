using System.Text;
using System.Text.Json;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>Asks for one repair of one finding.</summary>
/// <param name="Class">The class file that the finding was made for.</param>
/// <param name="Finding">The finding's key.</param>
/// <param name="Repair">Which of its repairs, from 0.</param>
public sealed record RepairRequest(JsonElement Class, string Finding, int Repair);

/// <summary>The class after a repair, and what it now adds up to.</summary>
public sealed record RepairResult(JsonElement Class, Evaluation Evaluation);

internal static class PlanEndpoints
{
    public static void MapPlans(this IEndpointRouteBuilder routes)
    {
        var plans = routes.MapGroup("/api/plans").WithTags("Plans");
        plans.MapPost("/evaluate", EvaluateAsync).Accepts<JsonElement>("application/json").ProducesProblem(422).WithName("evaluate");
        plans.MapPost("/repair", Repair).ProducesProblem(422).ProducesProblem(409).WithName("repair");
    }

    /// <summary>Says to the second what a class file adds up to, and what is to be said about it.</summary>
    private static async Task<Results<Ok<Evaluation>, ProblemHttpResult>> EvaluateAsync(HttpRequest request, MoveLibrary moves, CancellationToken cancel)
    {
        var result = Evaluator.Evaluate(await request.ReadBytesAsync(cancel), moves);
        return result.Evaluation is { } evaluation ? TypedResults.Ok(evaluation) : Problems.Faults(result.Faults);
    }

    private static Results<Ok<RepairResult>, ProblemHttpResult> Repair(RepairRequest request, MoveLibrary moves)
    {
        if (Evaluator.Mend(request.Class, request.Finding, request.Repair, moves) is not { } mended)
        {
            return Problems.Conflict("This class has no such finding any more.", "finding", request.Finding, StatusCodes.Status409Conflict);
        }

        var text = Encoding.UTF8.GetBytes(mended.ToJsonString());
        var result = Evaluator.Evaluate(text, moves);
        return result.Evaluation is { } evaluation
            ? TypedResults.Ok(new RepairResult(JsonElement.Parse(text), evaluation))
            : Problems.Faults(result.Faults);
    }
}
