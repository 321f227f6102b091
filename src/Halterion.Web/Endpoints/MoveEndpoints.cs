using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Views;
using Halterion.Core.Words;
using Halterion.Store;
using Halterion.Web.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>The move library.</summary>
/// <param name="Own">Which of them are the user's own.</param>
public sealed record MoveList(string Version, ImmutableArray<Move> Moves, ImmutableArray<MoveId> Own);

/// <summary>A figure for a list.</summary>
/// <param name="Asks">What it asks most, such as "hip 4, balance 3".</param>
public sealed record Thumbnail(MoveId Id, Figure Figure, string Asks);

/// <summary>What a move asks instead of another one; nothing that is felt where it is empty.</summary>
public sealed record Trade(MoveId Move, string Words);

/// <summary>An option of a move with its figure.</summary>
/// <param name="Option">Of the plan language: what a station takes.</param>
/// <param name="Demand">What it asks, in its dimensions, 0 to 5: a static estimate.</param>
public sealed record FiguredOption(
    Tier Tier, JsonObject Option, string Words, string Why, Figure? Figure, ImmutableArray<DemandLine> Demand);

/// <summary>A class in which a move stands.</summary>
public sealed record MoveUse(Guid Class, string Title);

/// <summary>What to do where a fault stays.</summary>
/// <param name="Move">The move of that option.</param>
public sealed record Remedy(string Seen, string Fix, MoveId? Move, string Words, string? Say);

/// <summary>Another option that a coach gives beside a move, in words.</summary>
/// <param name="Differs">What is otherwise.</param>
/// <param name="For">Whom an alternative helps: knees, back, wrists, shoulder, hip, ankle, balance, pregnancy, jump, kit, floor or
/// variety.</param>
public sealed record OfferedWords(Tier Tier, JsonObject Option, string Name, string Differs, string? For);

/// <summary>A move that is allowed only in an option of it.</summary>
/// <param name="Words">Such as "Bodyweight squat, half the depth".</param>
public sealed record KindMove(MoveId Move, JsonObject Option, string Words);

/// <summary>All there is about a move.</summary>
/// <param name="Offers">All that a coach gives beside it, the best first.</param>
/// <param name="Nothing">Why there is nothing harder, where there is not.</param>
public sealed record MovePage(
    Move Move, ImmutableArray<FiguredOption> Options, ImmutableArray<OfferedWords> Offers, string? Nothing, ImmutableArray<Remedy> Faults,
        ImmutableArray<MoveUse> Uses);

internal static class MoveEndpoints
{
    public static void MapMoves(this IEndpointRouteBuilder routes)
    {
        var moves = routes.MapGroup("/api/moves").WithTags("Moves");
        moves.MapGet(
            "/",
            (MoveLibrary library) =>
                TypedResults.Ok(new MoveList(library.Version, library.Moves,
                    [.. library.Moves.Where(m => !library.IsShipped(m.Id)).Select(m => m.Id)]))).WithName("moves");
        moves.MapGet("/search", Search).WithName("searchMoves");
        moves.MapGet("/kind", KindTo).WithName("kindMoves");
        moves.MapGet("/figures", Figures).WithName("moveFigures");
        moves.MapGet("/{id}/motion", Motion).ProducesProblem(404).WithName("moveMotion");
        moves.MapGet("/{id}/film", Filmed).ProducesProblem(404).WithName("moveFilm");
        moves.MapGet("/{id}/figure", Seen).ProducesProblem(404).WithName("moveFigure");
        moves.MapGet("/{id}/figure.svg", Svg).ProducesProblem(404).WithName("moveSvg");
        moves.MapGet("/{id}/trades", Traded).ProducesProblem(404).WithName("moveTrades");
        moves.MapGet("/{id}/page", Page).ProducesProblem(404).WithName("movePage");
        moves.MapGet("/{id}/station", Station).ProducesProblem(404).WithName("stationStarter");
        routes.MapGet("/api/starters", (Starters starters) => TypedResults.Ok(starters.Blocks()))
            .WithTags("Plans")
            .WithName("blockStarters");
    }

    /// <summary>
    /// Ids of the moves that fit, the best first; typing mistakes are forgiven, words of the filters are those of the contract.
    /// </summary>
    private static Results<Ok<ImmutableArray<MoveId>>, ProblemHttpResult> Search(
        string? q,
        string? family,
        string? position,
        string? plane,
        string? kit,
        string? limit,
        bool? strict,
        string? near,
        string? than,
        MoveLibrary library)
    {
        var (ofFamily, badFamily) = Queries.Word<Family>("family", family);
        var (ofPosition, badPosition) = Queries.Word<Position>("position", position);
        var (ofPlane, badPlane) = Queries.Word<Plane>("plane", plane);
        var (ofLimit, badLimit) = Queries.Word<Limit>("limit", limit);
        var badThan = than is null or "easier" or "harder" ? null
            : Problems.Query("than", $"It is “{(than.Length > 40 ? than[..40] + "…" : than)}”.", "easier or harder, with near");
        return (badFamily ?? badPosition ?? badPlane ?? badLimit ?? badThan) is { } problem
            ? problem
            : TypedResults.Ok(Nearest(
                MoveSearch.Find(library.Moves,
                    new MoveQuery(
                        q, ofFamily, ofPosition, ofPlane, kit, Both(Kind(ofLimit, strict ?? false, library), Than(than, near, library)))),
                string.IsNullOrWhiteSpace(q) && near is not null ? library.Find(new MoveId(near)) : null,
                library));
    }

    /// <summary>Where nothing is typed, what is most like a move comes first.</summary>
    private static ImmutableArray<MoveId> Nearest(ImmutableArray<Move> found, Move? to, MoveLibrary library) =>
        [.. (to is null ? found : [.. found.OrderBy(m => Nearness.Between(to, m, library))]).Select(m => m.Id)];

    private static Func<Move, bool>? Both(Func<Move, bool>? one, Func<Move, bool>? other) =>
        one is null ? other : other is null ? one : move => one(move) && other(move);

    /// <summary>What asks less, or more, than a move on the whole, by a step that is felt.</summary>
    private static Func<Move, bool>? Than(string? than, string? near, MoveLibrary library)
    {
        if (than is null || near is null || DemandModel.Of(new MoveId(near), new Manner(), library) is not { } here)
        {
            return null;
        }

        return move => DemandModel.Of(move.Id, new Manner(), library) is { } there
            && (than == "easier" ? there.Overall <= here.Overall - Proposals.Least : there.Overall >= here.Overall + Proposals.Least);
    }

    /// <summary>What every other move asks instead of this one: "knee 4 → 2, balance 1 → 3".</summary>
    private static Results<Ok<ImmutableArray<Trade>>, ProblemHttpResult> Traded(string id, MoveLibrary library)
    {
        if (library.Find(new MoveId(id)) is not { } move)
        {
            return Problems.NotFound("move");
        }

        var here = DemandModel.Of(move.Id, new Manner(), library);
        return TypedResults.Ok(library.Moves
            .Where(m => m.Id != move.Id)
            .Select(
                m => new Trade(m.Id, here is not null && DemandModel.Of(m.Id, new Manner(), library) is { } there ? there.From(here) : ""))
            .ToImmutableArray());
    }

    private static Func<Move, bool>? Kind(Limit? limit, bool strict, MoveLibrary library) =>
        limit is { } asked ? move => KindOptions.Of(move, library, asked, strict) is not null : null;

    /// <summary>Moves of which only an option is allowed to somebody with a limit, each with that option in words.</summary>
    private static Results<Ok<ImmutableArray<KindMove>>, ProblemHttpResult> KindTo(
        string limit, bool? strict, MoveLibrary library, Evaluator evaluator)
    {
        var (asked, problem) = Queries.Word<Limit>("limit", limit);
        return problem is not null ? problem : TypedResults.Ok(library.Moves
            .Select(m => (Move: m, Option: KindOptions.Of(m, library, asked!.Value, strict ?? false)))
            .Where(m => m.Option is { Tier: not Tier.Main })
            .Select(m => new KindMove(m.Move.Id, PlanWriter.Of(m.Option!), PlanWords.Option(
                m.Option!,
                new Station { Id = default, Name = "", Dose = [], Options = [Option.Of(Tier.Main, m.Move.Id), m.Option!] },
                library, evaluator.Preferences)))
            .ToImmutableArray());
    }

    /// <summary>Every figure; drawn when it is first asked for, and then remembered with its move.</summary>
    private static Ok<ImmutableArray<Thumbnail>> Figures(MoveLibrary library) => TypedResults.Ok(library.Moves
        .Select(m => (m.Id, Figure: OptionFigure.Of(m, new Manner(), library, felt: false)))
        .Where(m => m.Figure is not null)
        .Select(m => new Thumbnail(m.Id, m.Figure!, Most(m.Id, library))).ToImmutableArray());

    /// <summary>The three dimensions that it asks most of.</summary>
    private static string Most(MoveId id, MoveLibrary library) => string.Join(
        ", ",
        (DemandModel.Of(id, new Manner(), library)?.Lines ?? []).Where(l => l.Value > 0).OrderByDescending(l => l.Value).Take(3)
            .Select(l => $"{l.Of} {l.Value}"));

    private static readonly ImmutableArray<string> Options = ["main", "easier", "harder", "instead"];

    /// <summary>An option by its name, as it is proposed.</summary>
    private static (Option? Option, ProblemHttpResult? Problem) Asked(string id, string? option, MoveLibrary library)
    {
        var name = option ?? "main";
        if (!Options.Contains(name))
        {
            return (null,
                Problems.Query(
                    "option", $"It is “{(name.Length > 40 ? name[..40] + "…" : name)}”.", $"one of: {string.Join(", ", Options)}"));
        }

        if (library.Find(new MoveId(id)) is not { } move)
        {
            return (null, Problems.NotFound("move"));
        }

        var proposals = name == "main" ? null : Proposals.For(move.Id, library);
        var found = name switch
        {
            "easier" => proposals!.Easier?.Of,
            "harder" => proposals!.Harder?.Of,
            "instead" => proposals!.Instead?.Of,
            _ => Option.Of(Tier.Main, move.Id),
        };
        return found is null || library.Find(found.Move)?.Poses is null ? (null, Problems.NotFound("option")) : (found, null);
    }

    /// <summary>One rep of an option as joints in metres, for checking and for other programs.</summary>
    private static Results<Ok<MoveMotion>, ProblemHttpResult> Motion(
        string id, string? option, int? statureCm, MoveLibrary library, Evaluator evaluator)
    {
        if (statureCm is < 120 or > 220)
        {
            return Problems.Query("statureCm", $"It is {statureCm}.", "120–220");
        }

        var (asked, problem) = Asked(id, option, library);
        return problem is not null
            ? problem
            : TypedResults.Ok(MoveMotion.Of(asked!, option ?? "main", library, evaluator.Preferences, statureCm ?? 170));
    }

    /// <summary>One rep of an option, drawn.</summary>
    private static Results<Ok<FigureFilm>, ProblemHttpResult> Filmed(
        string id, string? option, string? view, string? side, MoveLibrary library)
    {
        var (works, badSide) = Queries.Word<Side>("side", side);
        var (from, badView) = Queries.Word<View>("view", view);
        var (asked, problem) = Asked(id, option, library);
        return (badView ?? badSide ?? problem) is { } wrong
            ? wrong
            : TypedResults.Ok(OptionFigure.FilmOf(library.Find(asked!.Move)!, asked.Manner, library, from, works ?? Side.Right));
    }

    /// <summary>The figure of an option, from where it is asked for.</summary>
    private static Results<Ok<Figure>, ProblemHttpResult> Seen(string id, string? option, string? view, string? side, MoveLibrary library)
    {
        var (works, badSide) = Queries.Word<Side>("side", side);
        var (from, badView) = Queries.Word<View>("view", view);
        var (asked, problem) = Asked(id, option, library);
        return (badView ?? badSide ?? problem) is { } wrong
            ? wrong
            : TypedResults.Ok(OptionFigure.Of(library.Find(asked!.Move)!, asked.Manner, library, from, side: works ?? Side.Right));
    }

    /// <summary>The figure of an option as a picture of its own.</summary>
    private static Results<ContentHttpResult, ProblemHttpResult> Svg(
        string id, string? option, string? view, string? side, MoveLibrary library)
    {
        var (works, badSide) = Queries.Word<Side>("side", side);
        var (from, badView) = Queries.Word<View>("view", view);
        var (asked, problem) = Asked(id, option, library);
        return (badView ?? badSide ?? problem) is { } wrong
            ? wrong
            : TypedResults.Content(
                OptionFigure.Of(
                    library.Find(asked!.Move)!, asked.Manner, library, from, side: works ?? Side.Right)!.Svg(), "image/svg+xml");
    }

    private static Results<Ok<MovePage>, ProblemHttpResult> Page(string id, MoveLibrary library, Classes classes, Evaluator evaluator)
    {
        if (library.Find(new MoveId(id)) is not { } move)
        {
            return Problems.NotFound("move");
        }

        var proposals = Proposals.For(move.Id, library);
        var options = new[] { (proposals.Harder?.Of, proposals.Harder?.Why), (Option.Of(Tier.Main, move.Id), ""),
            (proposals.Easier?.Of, proposals.Easier?.Why), (proposals.Instead?.Of, proposals.Instead?.Why) }
            .Where(o => o.Item1 is not null).ToArray();
        var station = new Station { Id = default, Name = "", Dose = [], Options = [.. options.Select(o => o.Item1!)] };
        var figured = options.Select(o => Figured(o.Item1!, o.Item2!, station, evaluator)).ToImmutableArray();
        var offers = Offers.Of(move, library)
            .Select(o => new OfferedWords(o.Option.Tier, PlanWriter.Of(o.Option), library.Find(o.Option.Move)!.Name, o.Differs, o.For))
                .ToImmutableArray();
        var faults = move.Faults.Zip(
            FaultRemedies.Of(move, library),
            (fault, option) =>
                new Remedy(fault.Seen, fault.Fix, option?.Move, option is null ? ""
                    : PlanWords.Option(option, station, library, evaluator.Preferences), fault.Say)).ToImmutableArray();
        var uses = classes.With($"\"{id}\"").Select(c => new MoveUse(c.Id, c.Title)).ToImmutableArray();
        return TypedResults.Ok(new MovePage(move, figured, offers, move.Offers.Nothing, faults, uses));
    }

    private static FiguredOption Figured(Option option, string why, Station station, Evaluator evaluator)
    {
        var move = evaluator.Moves.Find(option.Move)!;
        return new FiguredOption(
            option.Tier,
            PlanWriter.Of(option),
            PlanWords.Option(option, station, evaluator.Moves, evaluator.Preferences),
            why,
            OptionFigure.Of(move, option.Manner, evaluator.Moves),
            DemandModel.Of(option.Move, option.Manner, evaluator.Moves)?.Lines ?? []);
    }

    /// <summary>
    /// A ready station for a move: usual dose, or one that fills a rotation's window; an easier and a harder option, and why those.
    /// </summary>
    /// <param name="like">The dose of the neighbours, in the short form; one that cannot be read is none.</param>
    private static Results<Ok<StationStarter>, ProblemHttpResult> Station(
        string id, int? window, bool? roundGivesSide, string? like, MoveLibrary library, Starters starters)
    {
        if (window is < 1 or > 3600)
        {
            return Problems.Query("window", $"It is {window} s.", "1–3600 s");
        }

        return library.Find(new MoveId(id)) is { } move
            ? TypedResults.Ok(starters.Station(move, window is { } seconds ? new Seconds(seconds)
                : null, roundGivesSide ?? false, like is null ? null : ShortDoseReader.Read(like).Dose))
            : Problems.NotFound("move");
    }
}
