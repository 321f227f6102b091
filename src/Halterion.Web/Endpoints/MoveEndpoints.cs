using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The move library.</summary>
public sealed record MoveList(string Version, ImmutableArray<Move> Moves);

internal static class MoveEndpoints
{
    public static void MapMoves(this IEndpointRouteBuilder routes)
    {
        var moves = routes.MapGroup("/api/moves").WithTags("Moves");
        moves.MapGet("/", (MoveLibrary library) => TypedResults.Ok(new MoveList(library.Version, library.Moves))).WithName("moves");
        moves.MapGet("/{id}/station", Station).ProducesProblem(404).WithName("stationStarter");
        routes.MapGet("/api/starters", (Starters starters) => TypedResults.Ok(starters.Blocks())).WithTags("Plans").WithName("blockStarters");
    }

    /// <summary>A ready station for a move: usual dose, or one that fills a rotation's window; an easier and a harder option, and why those.</summary>
    private static Results<Ok<StationStarter>, ProblemHttpResult> Station(string id, int? window, bool? roundGivesSide, MoveLibrary library, Starters starters)
    {
        if (window is < 1 or > 3600)
        {
            return Problems.Bad("/window", $"The window is {window} s.", "1–3600 s");
        }

        return library.Find(new MoveId(id)) is { } move
            ? TypedResults.Ok(starters.Station(move, window is { } seconds ? new Seconds(seconds) : null, roundGivesSide ?? false))
            : Problems.NotFound("move");
    }
}
