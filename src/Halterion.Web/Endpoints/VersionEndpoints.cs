using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Words;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A version of a class at which its writer stopped for a while.</summary>
/// <param name="Changes">What changed since the version listed before it, in words.</param>
public sealed record ClassVersion(int Version, DateTimeOffset SavedAt, string Title, ImmutableArray<string> Changes);

internal static class VersionEndpoints
{
    /// <summary>Saves closer together than this are one sitting: autosave keeps each, the list shows the last.</summary>
    private static readonly TimeSpan Sitting = TimeSpan.FromMinutes(2);

    public static void MapVersions(this IEndpointRouteBuilder routes)
    {
        var versions = routes.MapGroup("/api/classes/{id:guid}/versions").WithTags("Classes");
        versions.MapGet("/", List).ProducesProblem(404).WithName("versions");
        versions.MapGet("/{from:int}/changes/{to:int}", Changes).ProducesProblem(404).WithName("versionChanges");
        versions.MapPost("/{version:int}/restore", Restore).ProducesProblem(404).ProducesProblem(412).WithName("restoreVersion");
    }

    private static Results<Ok<ImmutableArray<ClassVersion>>, ProblemHttpResult> List(Guid id, Classes classes, Evaluator evaluator)
    {
        var all = classes.Versions(id);
        if (all.IsEmpty)
        {
            return Problems.NotFound("class");
        }

        var shown = all.Where((version, i) => i == 0 || i == all.Length - 1 || all[i - 1].SavedAt - version.SavedAt > Sitting).ToArray();
        return TypedResults.Ok(shown.Select((version, i) => new ClassVersion(
            version.Version,
            version.SavedAt,
            version.Title,
            i + 1 < shown.Length ? Words(shown[i + 1], version, evaluator) : [])).ToImmutableArray());
    }

    private static Results<Ok<ImmutableArray<string>>, ProblemHttpResult> Changes(
        Guid id, int from, int to, Classes classes, Evaluator evaluator) =>
        classes.At(id, from) is { } before && classes.At(id, to) is { } after
            ? TypedResults.Ok(Words(before, after, evaluator))
            : Problems.NotFound("version");

    /// <summary>Saves what was as a new version, so that nothing in between is lost.</summary>
    private static Results<Ok<ClassView>, ProblemHttpResult> Restore(
        Guid id, int version, Classes classes, Sessions sessions, Evaluator evaluator, HttpRequest http)
    {
        if (classes.Find(id) is not { } current || classes.At(id, version) is not { } old)
        {
            return Problems.NotFound("version");
        }

        return classes.Save(id, new Basis(current.Version, http.Change()), ClassText.Revision(old.Plan, evaluator)) switch
        {
            { Saved: true } saved => TypedResults.Ok(ClassEndpoints.View(saved.Class, sessions, evaluator)),
            _ => Problems.Changed("class", null, []),
        };
    }

    private static ImmutableArray<string> Words(StoredClass before, StoredClass after, Evaluator evaluator) =>
        PlanChanges.Between(Parse(before.Plan), Parse(after.Plan), evaluator.Moves);

    /// <summary>What one class has that another has not, as it would be said of a change from theirs to mine.</summary>
    internal static ImmutableArray<Difference> Differences(string mine, string theirs, Evaluator evaluator) =>
        [.. PlanChanges.Between(Parse(theirs), Parse(mine), evaluator.Moves).Select(words => new Difference(words, "", ""))];

    private static JsonNode Parse(string plan) => JsonNode.Parse(plan.TrimStart('\uFEFF'))!;
}
