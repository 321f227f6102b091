using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.Moves;
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
        moves.MapGet("/{id}/proposals", Propose).ProducesProblem(404).WithName("proposals");
    }

    /// <summary>An easier and a harder option for a move, and why.</summary>
    private static Results<Ok<Proposals>, ProblemHttpResult> Propose(string id, MoveLibrary library) =>
        library.Has(new MoveId(id)) ? TypedResults.Ok(library.Propose(new MoveId(id))) : Problems.NotFound("move");
}
