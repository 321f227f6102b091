using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.PlanFormat;
using Halterion.Store;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

internal static class OwnMoveEndpoints
{
    public static void MapOwnMoves(this IEndpointRouteBuilder routes)
    {
        var own = routes.MapGroup("/api/own-moves").WithTags("Moves");
        own.MapGet("/", (OwnMoves store) => TypedResults.Ok(new OwnMoveList([.. store.List().Select(text => JsonElement.Parse(text))]))).WithName("ownMoves");
        own.MapPut("/", Save).Takes<OwnMoveList>().WithName("saveOwnMoves");
        own.MapDelete("/{id}", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeOwnMove");
    }

    /// <summary>Adds or changes own moves, all or none: one from a form, or a file of many.</summary>
    private static Results<NoContent, ProblemHttpResult> Save(Body<OwnMoveList> body, OwnMoves store, ShippedMoves shipped, Current current)
    {
        if (body.Value is not { } list)
        {
            return body.Problem!;
        }

        var text = JsonElement.Parse($"[{string.Join(',', list.Moves.Select(m => m.GetRawText()))}]");
        var (moves, faults) = ClassReader.ReadMoves(text, shipped.Library);
        if (!faults.IsEmpty)
        {
            return Problems.Faults(faults, "list of moves");
        }

        store.Save(moves.Zip(list.Moves, (move, json) => (move.Id.Value, json.GetRawText())));
        current.Forget();
        return TypedResults.NoContent();
    }

    /// <summary>Takes an own move out of the library. Classes that use it carry it themselves.</summary>
    private static Results<NoContent, ProblemHttpResult> Remove(string id, OwnMoves store, Current current)
    {
        var removed = store.Remove(id);
        current.Forget();
        return removed ? TypedResults.NoContent() : Problems.NotFound("move of your own");
    }
}
