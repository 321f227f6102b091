using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Logbook;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The loads of a week, day by day.</summary>
public sealed record WeekRequest(ImmutableArray<decimal> Days) : IRead<WeekRequest>
{
    private const decimal Most = 100_000;

    public static WeekRequest? Read(Fields body, Faults faults)
    {
        var items = body.Items("days", WeekLoad.Days, WeekLoad.Days, "days", required: true);
        var days = items.Select((item, i) => body.Decimal(item, "days", i, 0, Most)).OfType<decimal>().ToImmutableArray();
        return days.Length == WeekLoad.Days ? new WeekRequest(days) : null;
    }
}

/// <summary>Moving on and the weights of weeks, as functions: nothing is kept of what is sent.</summary>
internal static class ProgressEndpoints
{
    public static void MapProgress(this IEndpointRouteBuilder routes)
    {
        var progress = routes.MapGroup("/api/progress").WithTags("Progress");
        progress.MapPost("/suggest", SuggestAsync).Accepts<JsonElement>("application/json")
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("suggest");
        progress.MapPost("/week", Week).Takes<WeekRequest>().WithName("weekLoad");
    }

    /// <summary>What somebody had better do with a move next.</summary>
    private static async Task<Results<Ok<Suggestion>, ProblemHttpResult>> SuggestAsync(HttpRequest request, Evaluator evaluator)
    {
        var (bytes, problem) = await Raw.ReadAsync(request, Raw.MaxBytes);
        if (problem is not null)
        {
            return problem;
        }

        var (root, unsound) = Soundness.Read(bytes);
        if (root is not { } element)
        {
            return Problems.Faults(unsound, Problems.Request);
        }

        var faults = new Faults { NullIsAbsent = true };
        var fields = new Fields(element, "", faults);
        var asked = fields.IsObject ? MovingOnReader.Read(fields, faults, evaluator.Moves) : null;
        if (fields.IsObject)
        {
            fields.Close("this request");
        }

        return faults.None && asked is not null
            ? TypedResults.Ok(MovingOn.Of(asked, evaluator.Moves))
            : Problems.Faults(faults.All, Problems.Request);
    }

    private static Results<Ok<WeekLoad>, ProblemHttpResult> Week(Body<WeekRequest> body) =>
        body.Value is { } request ? TypedResults.Ok(WeekLoad.Of(request.Days)) : body.Problem!;
}
