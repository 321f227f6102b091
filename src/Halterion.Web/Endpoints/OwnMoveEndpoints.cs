using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>All moves of one's own; they are one document.</summary>
/// <param name="Revision">Counts the changes of any of them; If-Match carries it.</param>
public sealed record OwnMovesView(ImmutableArray<JsonElement> Moves, int Revision);

internal static class OwnMoveEndpoints
{
    public static void MapOwnMoves(this IEndpointRouteBuilder routes)
    {
        var own = routes.MapGroup("/api/own-moves").WithTags("Moves");
        own.MapGet("/", (OwnMoves store, HttpContext http) =>
        {
            http.Tagged(store.Revision());
            return TypedResults.Ok(View(store));
        }).WithName("ownMoves");
        own.MapPut("/", Save).Takes<OwnMoveList>().Revised().WithName("saveOwnMoves");
        own.MapDelete("/{id}", Remove).ProducesProblem(404).ProducesProblem(409).WithName("removeOwnMove");
    }

    /// <summary>Adds or changes own moves, all or none: one from a form, or a file of many.</summary>
    private static Results<Ok<Kept>, ProblemHttpResult> Save(
        Body<OwnMoveList> body, OwnMoves store, ShippedMoves shipped, Current current, HttpContext http)
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

        var answer = Saving.Answer(
            http,
            "list of moves",
            basis => store.Save(moves.Zip(list.Moves, (move, json) => (move.Id.Value, Kept(move, json))), basis),
            () =>
            {
                var ids = moves.Select(m => m.Id.Value).ToHashSet();
                var theirs = View(store);
                return (theirs, Difference.Between(
                    Lines(list.Moves), Lines([.. theirs.Moves.Where(m => ids.Contains(m.GetProperty("id").GetString()!))])));
            });
        current.Forget();
        return answer;
    }

    /// <summary>As it was sent, but for what a camera wrote into its picture.</summary>
    private static string Kept(Move move, JsonElement json)
    {
        if (move.Picture is not { } picture)
        {
            return json.GetRawText();
        }

        var kept = JsonNode.Parse(json.GetRawText())!.AsObject();
        kept["picture"] = picture;
        return kept.ToJsonString();
    }

    private static OwnMovesView View(OwnMoves store) => new([.. store.List().Select(text => JsonElement.Parse(text))], store.Revision());

    private static IEnumerable<string> Lines(ImmutableArray<JsonElement> moves) =>
        moves.SelectMany(m => OwnMoveWords.Lines(m, moves.Length > 1));

    /// <summary>Takes an own move out of the library. Classes that use it carry it themselves.</summary>
    private static Results<NoContent, ProblemHttpResult> Remove(string id, OwnMoves store, Current current)
    {
        var removed = store.Remove(id);
        current.Forget();
        return removed ? TypedResults.NoContent() : Problems.NotFound("move of your own");
    }
}
