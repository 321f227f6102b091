using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;

namespace Halterion.Core.Views;

/// <summary>A station's main option in motion.</summary>
/// <param name="Beat">Beats a minute that go with its reps: whole ones to each.</param>
public sealed record StationFilm(PlaceId Station, FigureFilm Film, double Beat);

/// <summary>Where a station of a rotation stands in the room, in metres from its left and front edge.</summary>
public sealed record WallSpot(PlaceId Station, double X, double Y);

/// <summary>The floor of a rotation as the wall draws it.</summary>
public sealed record WallFloor(PlaceId Block, double WidthM, double LengthM, ImmutableArray<WallSpot> Spots);

/// <summary>What may be seen by everybody in the room: no names, no notes, nothing that is said to the instructor.</summary>
public static class ForEveryone
{
    /// <summary>The script without what is the instructor's own.</summary>
    public static LeadScript Script(LeadScript script, ClassPlan plan) => script with
    {
        Calls = [],
        Scenes =
        [
            .. script.Scenes.Select(s => s with
            {
                Say = "",
                MirrorSide = "",
                Target = s.Kind == SpanKind.Talk && plan.Blocks[s.Block].ShownBy is not null ? "" : s.Target,
            }),
        ],
        Cards = [.. script.Cards.Select(c => c with { Watch = "" })],
    };

    /// <summary>The taps that move the clock; notes stay with the instructor.</summary>
    public static ImmutableArray<LeadCommand> Commands(ImmutableArray<LeadCommand> commands) =>
    [
        .. commands.Where(c => c.Kind is not (LeadCommandKind.Note or LeadCommandKind.Lead))
            .Select(c => c with { Device = null, Payload = c.Payload is { } p ? new LeadPayload(p.Shifts, p.Scene) : null }),
    ];

    /// <summary>The main option of every station that has poses, in motion.</summary>
    public static ImmutableArray<StationFilm> Films(ClassPlan plan) =>
    [
        .. from block in plan.Blocks
           from station in block.Stations
           let move = plan.Moves.Find(station.Main.Move)
           where move?.Poses is not null
           let film = plan.Moves.Once(new FilmKey(station.Main.Move, station.Main.Manner), () => OptionFigure.FilmOf(move, station.Main.Manner))
           select new StationFilm(station.Id, film, BeatFor(film.Seconds)),
    ];

    /// <summary>Of the speeds from 60 to 180 beats a minute that have whole beats to a rep, the one nearest to 100. [M]</summary>
    /// <param name="rep">Seconds of a rep.</param>
    public static double BeatFor(double rep)
    {
        const double usual = 100;
        return Enumerable.Range(1, 64).Select(beats => 60 * beats / rep).Where(speed => speed is >= 60 and <= 180)
            .OrderBy(speed => Math.Abs(speed - usual)).Select(speed => Math.Round(speed, 3)).FirstOrDefault(usual);
    }

    private sealed record FilmKey(MoveId Move, Manner Manner);
}
