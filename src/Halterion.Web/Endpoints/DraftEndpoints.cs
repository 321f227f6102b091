using System.Collections.Immutable;
using System.Diagnostics;
using System.Text.Json;
using Halterion.Core.Planning;
using Halterion.Core.Planning.Drafts;
using Halterion.Drafting;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A class that could be led as it is.</summary>
/// <param name="Cost">The terms in sum, in points.</param>
/// <param name="Bound">No class that keeps the hard rules of the brief costs less; the same in each draft.</param>
/// <param name="Proven">It costs no more than that.</param>
/// <param name="Why">The whole in words, then a line a station.</param>
public record DraftedClass(
    JsonElement Plan, DraftShape Shape, decimal Cost, decimal Bound, bool Proven, ImmutableSortedDictionary<string, decimal> Terms,
    ImmutableArray<string> Why);

/// <summary>Up to three classes for a brief, the best first; or none, with the reason and the way out.</summary>
/// <param name="Solved">The solver chose; false: its library is not on this machine, and the built-in search did.</param>
public sealed record DraftedClasses(
    ImmutableArray<DraftedClass> Drafts, long Milliseconds, bool Solved, string? Reason = null, string? WayOut = null);

/// <summary>A draft with all that is shown of it.</summary>
/// <param name="Changes">What it changes in the class that stands, in words; null where none does.</param>
/// <param name="Words">Its shape, as it is said.</param>
/// <param name="Stations">Names of its main stations, in order.</param>
public sealed record StudioDraft(
    JsonElement Plan, DraftShape Shape, string Words, ImmutableArray<string> Why, Evaluation Evaluation, ImmutableArray<string> Stations,
    ImmutableArray<string>? Changes);

/// <summary>Up to three classes for an evening of this studio, the best first; or none, with the reason and the way out.</summary>
public sealed record StudioDrafted(ImmutableArray<StudioDraft> Drafts, bool Solved, string? Reason = null, string? WayOut = null);

internal static class DraftEndpoints
{
    public static void MapDrafts(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/plans/draft", Draft).Takes<DraftRequest>().WithTags("Plans").WithName("draft");
        routes.MapPost("/api/drafts", Evening).Takes<StudioDraftRequest>().ProducesProblem(404).WithTags("Plans").WithName("draftEvening");
    }

    /// <summary>Proposes classes for a brief. The same brief and seed give the same drafts.</summary>
    private static Results<Ok<DraftedClasses>, ProblemHttpResult> Draft(Body<DraftRequest> body, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var faults = request.FaultsFor(evaluator);
        return faults.IsEmpty ? TypedResults.Ok(Drafted(request.ToBrief(), evaluator)) : Problems.Faults(faults, Problems.Request);
    }

    internal static DraftedClasses Drafted(DraftBrief brief, Evaluator evaluator)
    {
        var watch = Stopwatch.StartNew();
        var answer = new Drafter(evaluator.Moves, evaluator.Preferences).Of(brief);
        return new DraftedClasses(
            [.. answer.Drafts.Select(d => new DraftedClass(
                JsonElement.Parse(d.Plan.ToJsonString()), d.Shape, d.Cost, d.Bound, d.Proven, d.Terms, d.Why))],
            watch.ElapsedMilliseconds, answer.Solved, answer.Reason, answer.WayOut);
    }

    /// <summary>Proposes classes for an evening of this studio, or other versions of a class.</summary>
    private static Results<Ok<StudioDrafted>, ProblemHttpResult> Evening(
        Body<StudioDraftRequest> body, StudioDrafts drafts, Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var (brief, problem) = drafts.Of(request);
        if (brief is null)
        {
            return problem!;
        }

        var answer = new Drafter(evaluator.Moves, evaluator.Preferences).Of(brief);
        return TypedResults.Ok(new StudioDrafted(
            [
                .. answer.Drafts.Select(d =>
                {
                    var plan = JsonElement.Parse(d.Plan.ToJsonString());
                    var read = evaluator.Evaluate(plan.GetRawText());
                    return new StudioDraft(
                        plan, d.Shape, DraftShapes.Words(d.Shape), d.Why, read.Evaluation!,
                        [.. read.Plan!.Blocks.Where(b => b.Phase == Core.Plans.Phase.Main).SelectMany(b => b.Stations).Select(s => s.Name)],
                        request.Class is { } before ? drafts.Changes(before, d.Plan) : null);
                }),
            ],
            answer.Solved, answer.Reason, answer.WayOut));
    }
}
