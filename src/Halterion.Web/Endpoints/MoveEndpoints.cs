using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Views;
using Halterion.Core.Words;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The move library.</summary>
/// <param name="Own">Which of them are the user's own.</param>
public sealed record MoveList(string Version, ImmutableArray<Move> Moves, ImmutableArray<MoveId> Own);

/// <summary>A figure small enough for a list: start and end pose only.</summary>
public sealed record Thumbnail(
    MoveId Id,
    string ViewBox,
    FigurePair? Pair,
    ImmutableArray<double> Floor,
    DrawnPose Start,
    DrawnPose End,
    string Way,
    string Alt);

/// <summary>An option of a move with its figure.</summary>
/// <param name="Pace">How the figure goes when it is asked to move.</param>
/// <param name="Demand">What it asks, in eight dimensions, 0 to 5: a static estimate.</param>
public sealed record FiguredOption(Tier Tier, string Words, string Why, Figure? Figure, FigurePace? Pace, ImmutableArray<DemandLine> Demand);

/// <summary>A class in which a move stands.</summary>
public sealed record MoveUse(Guid Class, string Title);

/// <summary>All there is about a move.</summary>
public sealed record MovePage(Move Move, ImmutableArray<FiguredOption> Options, ImmutableArray<MoveUse> Uses);

internal static class MoveEndpoints
{
    public static void MapMoves(this IEndpointRouteBuilder routes)
    {
        var moves = routes.MapGroup("/api/moves").WithTags("Moves");
        moves.MapGet(
            "/",
            (MoveLibrary library) => TypedResults.Ok(new MoveList(library.Version, library.Moves, [.. library.Moves.Where(m => !library.IsShipped(m.Id)).Select(m => m.Id)]))).WithName("moves");
        moves.MapGet("/search", Search).WithName("searchMoves");
        moves.MapGet("/figures", Figures).WithName("moveFigures");
        moves.MapGet("/{id}/page", Page).ProducesProblem(404).WithName("movePage");
        moves.MapGet("/{id}/station", Station).ProducesProblem(404).WithName("stationStarter");
        routes.MapGet("/api/starters", (Starters starters) => TypedResults.Ok(starters.Blocks())).WithTags("Plans").WithName("blockStarters");
    }

    /// <summary>Ids of the moves that fit, the best first; typing mistakes are forgiven, words of the filters are those of the contract.</summary>
    private static Results<Ok<ImmutableArray<MoveId>>, ProblemHttpResult> Search(
        string? q,
        string? family,
        string? position,
        string? plane,
        string? kit,
        string? limit,
        MoveLibrary library)
    {
        var (ofFamily, badFamily) = Queries.Word<Family>("family", family);
        var (ofPosition, badPosition) = Queries.Word<Position>("position", position);
        var (ofPlane, badPlane) = Queries.Word<Plane>("plane", plane);
        var (ofLimit, badLimit) = Queries.Word<Limit>("limit", limit);
        return (badFamily ?? badPosition ?? badPlane ?? badLimit) is { } problem
            ? problem
            : TypedResults.Ok(MoveSearch.Find(
                library.Moves,
                new MoveQuery(q, ofFamily, ofPosition, ofPlane, kit, ofLimit)).Select(m => m.Id).ToImmutableArray());
    }

    /// <summary>Every figure; drawn when it is first asked for, and then remembered with its move.</summary>
    private static Ok<ImmutableArray<Thumbnail>> Figures(MoveLibrary library) => TypedResults.Ok(library.Moves
        .Where(m => m.Figure is not null)
        .Select(m => library.Once(new ThumbnailOf(m), () => Draw(m))).ToImmutableArray());

    private static Thumbnail Draw(Move move)
    {
        var figure = Figure.Of(move.Figure!.Start, move.Figure.End, move.Muscles);
        return new Thumbnail(move.Id, figure.ViewBox, figure.Pair, figure.Floor, figure.Frames[0], figure.Frames[^1], figure.Way, figure.Alt);
    }

    /// <summary>A move by identity.</summary>
    private sealed record ThumbnailOf(Move Move)
    {
        public bool Equals(ThumbnailOf? other) => ReferenceEquals(Move, other?.Move);

        public override int GetHashCode() => RuntimeHelpers.GetHashCode(Move);
    }

    private static Results<Ok<MovePage>, ProblemHttpResult> Page(string id, MoveLibrary library, Classes classes, Evaluator evaluator)
    {
        if (library.Find(new MoveId(id)) is not { } move)
        {
            return Problems.NotFound("move");
        }

        var proposals = Proposals.For(move.Id, library);
        var options = new[] { (proposals.Easier?.Of, proposals.Easier?.Why), (Option.Of(Tier.Main, move.Id), ""), (proposals.Harder?.Of, proposals.Harder?.Why) }
            .Where(o => o.Item1 is not null)
            .Select(o => Figured(o.Item1!, o.Item2!, evaluator)).ToImmutableArray();
        var uses = classes.With($"\"{id}\"").Select(c => new MoveUse(c.Id, c.Title)).ToImmutableArray();
        return TypedResults.Ok(new MovePage(move, options, uses));
    }

    private static FiguredOption Figured(Option option, string why, Evaluator evaluator)
    {
        var move = evaluator.Moves.Find(option.Move)!;
        return new FiguredOption(
            option.Tier,
            PlanWords.Option(option, evaluator.Moves, evaluator.Preferences),
            why,
            OptionFigure.Of(move, option.Manner),
            OptionFigure.PaceOf(move, option.Manner),
            DemandModel.Of(option.Move, option.Manner, evaluator.Moves)?.Lines ?? []);
    }

    /// <summary>A ready station for a move: usual dose, or one that fills a rotation's window; an easier and a harder option, and why those.</summary>
    private static Results<Ok<StationStarter>, ProblemHttpResult> Station(string id, int? window, bool? roundGivesSide, MoveLibrary library, Starters starters)
    {
        if (window is < 1 or > 3600)
        {
            return Problems.Query("window", $"It is {window} s.", "1–3600 s");
        }

        return library.Find(new MoveId(id)) is { } move
            ? TypedResults.Ok(starters.Station(move, window is { } seconds ? new Seconds(seconds) : null, roundGivesSide ?? false))
            : Problems.NotFound("move");
    }
}
