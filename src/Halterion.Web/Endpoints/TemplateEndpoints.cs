using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A block kept to begin from.</summary>
public sealed record Template(Guid Id, string Name, JsonElement Block, int Revision);

internal static class TemplateEndpoints
{
    public static void MapTemplates(this IEndpointRouteBuilder routes)
    {
        var templates = routes.MapGroup("/api/templates").WithTags("Templates");
        templates.MapGet("/", (Templates store) => TypedResults.Ok(store.List().Select(View).ToImmutableArray())).WithName("templates");
        templates.MapPost("/", Add).Takes<NewTemplate>().WithName("addTemplate");
        templates.MapPut("/{id:guid}", Change).Takes<NewTemplate>().Revised().WithName("changeTemplate");
        templates.MapDelete("/{id:guid}", Remove).ProducesProblem(404).WithName("removeTemplate");
    }

    private static Results<Ok<Template>, ProblemHttpResult> Add(
        Body<NewTemplate> body, Templates store, MoveLibrary moves, HttpRequest http)
    {
        if (body.Value is not { } wanted)
        {
            return body.Problem!;
        }

        if (FaultsOf(wanted, moves) is { } problem)
        {
            return problem;
        }

        var id = http.Change() ?? Guid.CreateVersion7();
        store.Keep(id, wanted.Name, wanted.Block.GetRawText(), new Basis(0, id));
        return TypedResults.Ok(View(store.Find(id)!));
    }

    /// <summary>Another block, or another name, in a template's place.</summary>
    private static Results<Ok<Kept>, ProblemHttpResult> Change(
        Guid id, Body<NewTemplate> body, Templates store, MoveLibrary moves, HttpContext http)
    {
        if (body.Value is not { } wanted)
        {
            return body.Problem!;
        }

        return FaultsOf(wanted, moves) is { } problem ? problem
            : Saving.Answer(http, "template", basis => store.Keep(id, wanted.Name, wanted.Block.GetRawText(), basis), () =>
            {
                var theirs = View(store.Find(id)!);
                return (theirs, Difference.Between([$"Name: {wanted.Name}"], [$"Name: {theirs.Name}"]));
            });
    }

    private static ProblemHttpResult? FaultsOf(NewTemplate wanted, MoveLibrary moves) =>
        ClassReader.ReadBlock(JsonNode.Parse(wanted.Block.GetRawText())!.AsObject(), moves) is { IsValid: false } reading
            ? Problems.Faults(reading.Faults.At("/blocks/0", "/block"), "block")
            : null;

    private static Results<NoContent, ProblemHttpResult> Remove(Guid id, Templates store) =>
        store.Remove(id) ? TypedResults.NoContent() : Problems.NotFound("template");

    private static Template View(StoredTemplate template) =>
        new(template.Id, template.Name, JsonElement.Parse(template.Block), template.Revision);
}
