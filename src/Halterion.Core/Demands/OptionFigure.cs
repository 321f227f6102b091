using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Demands;

/// <summary>A rep as it is drawn, frame by frame.</summary>
/// <param name="FramesPerSecond">How fast the frames follow each other.</param>
/// <param name="Phases">What is done when, in seconds.</param>
public sealed record FigureFilm(string ViewBox, string Floor, double FramesPerSecond, double Seconds, ImmutableArray<FilmPhase> Phases, ImmutableArray<ImmutableArray<Layer>> Frames);

/// <summary>The figure of an option: its move's key poses, done in the option's manner.</summary>
public static class OptionFigure
{
    /// <summary>What the eye can follow on a screen, and half of what is solved.</summary>
    private const double DrawnPerSecond = 12.5;

    private readonly record struct Key(Move Move, Manner Manner, View? View, bool Felt)
    {
        public bool Equals(Key other) => ReferenceEquals(Move, other.Move) && Manner.Equals(other.Manner) && View == other.View && Felt == other.Felt;

        public override int GetHashCode() => HashCode.Combine(RuntimeHelpers.GetHashCode(Move), Manner, View, Felt);
    }

    /// <summary>Null for a move that has no poses. Drawn once for each manner of a move.</summary>
    /// <param name="view">From elsewhere than the move's own view.</param>
    public static Figure? Of(Move move, Manner manner, MoveLibrary moves, View? view = null, bool felt = true) => moves.Once(new Key(move, manner, view, felt), () =>
    {
        if (OptionPoses.Of(move, manner) is not { } poses)
        {
            return null;
        }

        return Figure.Of(MotionOf(poses), poses.Band, poses.Props, felt ? move.Muscles : "", view ?? poses.View, poses.Map);
    });

    /// <summary>Every move as it is first asked for, with what it asks.</summary>
    public static void DrawAll(MoveLibrary moves)
    {
        foreach (var move in moves.Moves)
        {
            Of(move, new Manner(), moves, felt: false);
            DemandModel.Of(move.Id, new Manner(), moves);
        }
    }

    /// <summary>How much less deep is tried where a body cannot do what was asked together.</summary>
    private const double Shallower = 0.9;

    private const int Tries = 6;

    /// <summary>The poses solved. What no body can do together (such as full depth with a stiff trunk) is done as deep as it can be.</summary>
    public static Motion MotionOf(MovePoses poses)
    {
        for (var i = 0; i < Tries; i++)
        {
            try
            {
                return new Motion(poses.Poses, poses.Load, poses.Way);
            }
            catch (PoseRefusedException)
            {
                poses = poses with { Poses = [.. poses.Poses.Select(Less)] };
            }
        }

        return new Motion(poses.Poses, poses.Load, poses.Way, checkJoints: false);
    }

    private static KeyPose Less(KeyPose p) => p with { Depth = p.Depth * Shallower, Lean = p.Lean * Shallower, Sit = p.Sit * Shallower, Split = p.Split * Shallower };

    /// <summary>Seconds of lowering, pause, lifting and top of an option; a second each way for what is only held.</summary>
    public static ImmutableArray<FilmPhase> PhasesOf(Motion motion, Move move, Manner manner) => (manner.Tempo ?? move.Tempo) is { } tempo
        ? Film.Phases(motion, (double)tempo.Lower, (double)tempo.Pause, (double)tempo.Lift, (double)tempo.Top)
        : Film.Phases(motion, 1, 1, 1, 1);

    /// <summary>An option of a move that has poses, in motion.</summary>
    public static FigureFilm FilmOf(Move move, Manner manner, View? from = null)
    {
        var poses = OptionPoses.Of(move, manner)!;
        var motion = MotionOf(poses);
        var phases = PhasesOf(motion, move, manner);
        var view = from ?? poses.View;
        var camera = Camera.Of(view);
        var keys = Enumerable.Range(0, motion.Count).Select(i => Skeleton.Of(motion.Key(i))).ToImmutableArray();
        var fixtures = Fixtures.Of(poses.Props, poses.Poses, keys);
        var seconds = phases[^1].To;
        var count = (int)Math.Ceiling(seconds * DrawnPerSecond);
        var scene = new Scene(motion.Load, poses.Band, fixtures, "");
        var bodies = Enumerable.Range(0, count).Select(i => Skeleton.Of(Film.At(motion, phases, i / DrawnPerSecond))).ToArray();
        var (box, floor) = Figure.Stage([.. keys, .. bodies], fixtures, camera, view, motion.Load);
        return new FigureFilm(box, floor, DrawnPerSecond, seconds, phases, [.. bodies.Select(b => Drawing.Of(b, scene, view))]);
    }
}
