using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Plans;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The user's own moves, as they stand in a class file.</summary>
public sealed record OwnMoveList(ImmutableArray<JsonElement> Moves);

internal static class OwnMoveEndpoints
{
    public static void MapOwnMoves(this IEndpointRouteBuilder routes)
    {
        var own = routes.MapGroup("/api/own-moves").WithTags("Moves");
        own.MapGet("/", (OwnMoves store) => TypedResults.Ok(new OwnMoveList([.. store.List().Select(text => JsonElement.Parse(text))]))).WithName("ownMoves");
        own.MapPut("/", Save).ProducesProblem(422).WithName("saveOwnMoves");
        own.MapDelete("/{id}", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeOwnMove");
    }

    /// <summary>Adds or changes own moves, all or none: one from a form, or a file of many.</summary>
    private static Results<NoContent, ProblemHttpResult> Save(OwnMoveList list, OwnMoves store, ShippedMoves shipped)
    {
        if (list.Moves.IsDefaultOrEmpty || list.Moves.Length > 200)
        {
            return Problems.Bad("/moves", "There are no moves here, or too many at once.", "1–200 moves");
        }

        var text = JsonElement.Parse($"[{string.Join(',', list.Moves.Select(m => m.GetRawText()))}]");
        var (moves, faults) = ClassReader.ReadMoves(text, shipped.Library);
        if (!faults.IsEmpty)
        {
            return Problems.Faults(faults);
        }

        store.Save(moves.Zip(list.Moves, (move, json) => (move.Id.Value, json.GetRawText())));
        return TypedResults.NoContent();
    }

    /// <summary>Takes an own move out of the library. Classes that use it carry it themselves.</summary>
    private static Results<NoContent, ProblemHttpResult> Remove(string id, OwnMoves store) =>
        store.Remove(id) ? TypedResults.NoContent() : Problems.NotFound("move of your own");
}
