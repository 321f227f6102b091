using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A block kept to begin from.</summary>
public sealed record Template(Guid Id, string Name, JsonElement Block);

public sealed record NewTemplate(string Name, JsonElement Block);

internal static class TemplateEndpoints
{
    public static void MapTemplates(this IEndpointRouteBuilder routes)
    {
        var templates = routes.MapGroup("/api/templates").WithTags("Templates");
        templates.MapGet("/", (Templates store) => TypedResults.Ok(store.List().Select(View).ToImmutableArray())).WithName("templates");
        templates.MapPost("/", Add).ProducesProblem(422).WithName("addTemplate");
        templates.MapDelete("/{id:guid}", Remove).ProducesProblem(404).WithName("removeTemplate");
    }

    private static Results<Ok<Template>, ProblemHttpResult> Add(NewTemplate wanted, Templates store, MoveLibrary moves)
    {
        if (string.IsNullOrWhiteSpace(wanted.Name) || wanted.Name.Length > 120)
        {
            return Problems.Bad("/name", "A template needs a name.", "1–120 characters");
        }

        if (JsonNode.Parse(wanted.Block.GetRawText()) is not JsonObject block)
        {
            return Problems.Bad("/block", "A block is an object.", "an object { … }");
        }

        var reading = ClassReader.ReadBlock(block, moves);
        return reading.IsValid ? TypedResults.Ok(View(store.Add(wanted.Name.Trim(), wanted.Block.GetRawText()))) : Problems.Faults(reading.Faults);
    }

    private static Results<NoContent, ProblemHttpResult> Remove(Guid id, Templates store) =>
        store.Remove(id) ? TypedResults.NoContent() : Problems.NotFound("template");

    private static Template View(StoredTemplate template) => new(template.Id, template.Name, JsonElement.Parse(template.Block));
}
