using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading;

/// <summary>An option in motion.</summary>
/// <param name="Beat">Beats a minute that go with its reps: whole ones to each.</param>
/// <param name="Reps">How many reps it shows: two where the sides take turns.</param>
public sealed record StationFilm(PlaceId Station, FigureFilm Film, double Beat, int Reps);

/// <summary>Where a station of a rotation stands in the room, in metres from its left and front edge.</summary>
public sealed record WallSpot(PlaceId Station, double X, double Y);

/// <summary>The floor of a rotation as the wall draws it.</summary>
public sealed record WallFloor(PlaceId Block, double WidthM, double LengthM, ImmutableArray<WallSpot> Spots);

/// <summary>What may be seen by everybody in the room: no names, no notes, nothing that is said to the instructor.</summary>
public static class ForEveryone
{
    /// <summary>The script without what is the instructor's own; what that one shows, the room watches.</summary>
    public static LeadScript Script(LeadScript script, ClassPlan plan) => TakenAlong(script, plan) with
    {
        Calls = [],
        Scenes =
        [
            .. TakenAlong(script, plan).Scenes
                .Select(s => Watched(script, s) is { } watch ? s with { Headline = watch, Title = watch } : s),
        ],
        Cards = [.. script.Cards.Select(c => c with { Watch = "" })],
    };

    /// <summary>The script as it may lie about: without names, and without what the plan has to be said.</summary>
    public static LeadScript TakenAlong(LeadScript script, ClassPlan plan) => script with
    {
        Scenes =
        [
            .. script.Scenes.Select(s => s with
            {
                Say = "",
                MirrorSide = "",
                Target = s.Kind == SpanKind.Talk && plan.Blocks[s.Block].ShownBy is not null ? "" : s.Target,
            }),
        ],
    };

    private static string? Watched(LeadScript script, Scene scene) =>
        scene is { Kind: SpanKind.Talk, Cards: [var card] } ? $"Watch: {script.Cards[card].Name}" : null;

    /// <summary>The taps that move the clock; notes stay with the instructor.</summary>
    public static ImmutableArray<LeadCommand> Commands(ImmutableArray<LeadCommand> commands) =>
    [
        .. commands.Where(c => c.Kind is not (LeadCommandKind.Note or LeadCommandKind.Lead))
            .Select(c => c with { Device = null, Payload = c.Payload is { } p ? new LeadPayload(p.Shifts, p.Scene) : null }),
    ];

    /// <summary>What is on, in motion: an option as it is done in a part, on a side, at its tempo there.</summary>
    /// <param name="option">Of the class: of a station, what waits its turn there, or what is done in the rests of a block.</param>
    /// <param name="part">Its place in the dose, from 1; null: the option as a whole.</param>
    /// <param name="from">From where it is looked at; null: as the move is best seen.</param>
    /// <returns>Null where there is no such option or part, or its move has no poses.</returns>
    public static StationFilm? FilmOf(ClassPlan plan, PlaceId option, int? part, Side side, Viewpoint? from = null) =>
        Done(plan, option, part) is { } at && Film(plan, at.Doing, side, from) is { } film
            ? new StationFilm(at.Station, film, BeatFor(film.Seconds), side == Side.Alternate
                ? Times(film, Film(plan, at.Doing, Side.Right, from)!) : 1)
            : null;

    private static int Times(FigureFilm film, FigureFilm one) => (int)Math.Round(film.Seconds / one.Seconds);

    /// <summary>What is done where; a rest of the block has its first station's place.</summary>
    private static (PlaceId Station, Doing Doing)? Done(ClassPlan plan, PlaceId id, int? part)
    {
        static Doing Whole(Option option) => new(option.Move, option.Manner);
        foreach (var station in plan.Blocks.SelectMany(b => b.Stations))
        {
            if (station.Options.FirstOrDefault(o => o.Id == id) is { } option)
            {
                return part is not { } at ? (station.Id, Whole(option))
                    : at < 1 || at > station.Dose.Length ? null
                    : (station.Id, At(station.Dose[at - 1], option.In(station, at - 1)));
            }
        }

        var other = plan.Blocks.SelectMany(b => b.Stations, (b, s) => (Station: s, Options: s.Waiting.AddRange(b.Recovery)))
            .SelectMany(x => x.Options, (x, o) => (x.Station, Option: o))
            .FirstOrDefault(x => x.Option.Id == id);
        return other.Option is null || part is not null ? null : (other.Station.Id, Whole(other.Option));
    }

    /// <summary>A part's own tempo counts before the option's.</summary>
    private static Doing At(Part part, Doing doing) =>
        part.Tempo is { } tempo ? doing with { Manner = doing.Manner with { Tempo = tempo } } : doing;

    private static FigureFilm? Film(ClassPlan plan, Doing doing, Side side, Viewpoint? from) =>
        plan.Moves.Find(doing.Move) is { Poses: not null } move
            ? OptionFigure.FilmOf(move, doing.Manner, plan.Moves, ViewOf(from), side)
            : null;

    /// <summary>What is seen of an instructor who stands so.</summary>
    private static View? ViewOf(Viewpoint? from) => from switch
    {
        Viewpoint.Side => View.Side,
        Viewpoint.Front => View.Front,
        Viewpoint.Back => View.Behind,
        Viewpoint.Turn => View.Quarter,
        null => null,
        _ => throw new ArgumentOutOfRangeException(nameof(from), from, null),
    };

    /// <summary>Of the speeds from 60 to 180 beats a minute that have whole beats to a rep, the one nearest to 100. [M]</summary>
    /// <param name="rep">Seconds of a rep.</param>
    public static double BeatFor(double rep)
    {
        const double usual = 100;
        return Enumerable.Range(1, 64).Select(beats => 60 * beats / rep).Where(speed => speed is >= 60 and <= 180)
            .OrderBy(speed => Math.Abs(speed - usual)).Select(speed => Math.Round(speed, 3)).FirstOrDefault(usual);
    }
}
