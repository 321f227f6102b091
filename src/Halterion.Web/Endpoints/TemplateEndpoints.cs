using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Store;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A block kept to begin from.</summary>
public sealed record Template(Guid Id, string Name, JsonElement Block);

internal static class TemplateEndpoints
{
    public static void MapTemplates(this IEndpointRouteBuilder routes)
    {
        var templates = routes.MapGroup("/api/templates").WithTags("Templates");
        templates.MapGet("/", (Templates store) => TypedResults.Ok(store.List().Select(View).ToImmutableArray())).WithName("templates");
        templates.MapPost("/", Add).Takes<NewTemplate>().WithName("addTemplate");
        templates.MapDelete("/{id:guid}", Remove).ProducesProblem(404).WithName("removeTemplate");
    }

    private static Results<Ok<Template>, ProblemHttpResult> Add(Body<NewTemplate> body, Templates store, MoveLibrary moves)
    {
        if (body.Value is not { } wanted)
        {
            return body.Problem!;
        }

        var reading = ClassReader.ReadBlock(JsonNode.Parse(wanted.Block.GetRawText())!.AsObject(), moves);
        return reading.IsValid
            ? TypedResults.Ok(View(store.Add(wanted.Name, wanted.Block.GetRawText())))
            : Problems.Faults(reading.Faults.At("/blocks/0", "/block"), "block");
    }

    private static Results<NoContent, ProblemHttpResult> Remove(Guid id, Templates store) =>
        store.Remove(id) ? TypedResults.NoContent() : Problems.NotFound("template");

    private static Template View(StoredTemplate template) => new(template.Id, template.Name, JsonElement.Parse(template.Block));
}
