using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Demands;

/// <summary>A rep as it is drawn, frame by frame.</summary>
/// <param name="FramesPerSecond">How fast the frames follow each other.</param>
/// <param name="Phases">What is done when, in seconds.</param>
/// <param name="Still">What stands in the room, behind every frame.</param>
public sealed record FigureFilm(
    string ViewBox,
    string Floor,
    double FramesPerSecond,
    double Seconds,
    ImmutableArray<FilmPhase> Phases,
    ImmutableArray<Layer> Still,
    ImmutableArray<ImmutableArray<Layer>> Frames);

/// <summary>The figure of an option: its move's key poses, done in the option's manner.</summary>
public static class OptionFigure
{
    /// <summary>As smooth as a screen shows it.</summary>
    private const int DrawnPerSecond = 50;

    /// <summary>How an option is looked at.</summary>
    private readonly record struct Look(View? View, bool Felt, Side Side);

    private readonly record struct Key(Move Move, Manner Manner, Look Look)
    {
        public bool Equals(Key other) => ReferenceEquals(Move, other.Move) && Manner.Equals(other.Manner) && Look == other.Look;

        public override int GetHashCode() => HashCode.Combine(RuntimeHelpers.GetHashCode(Move), Manner, Look);
    }

    /// <summary>The library's pictures have the right side working, also where both do.</summary>
    private static Side Drawn(Side side) => side == Side.Both ? Side.Right : side;

    /// <summary>Null for a move that has no poses. Drawn once for each manner of a move.</summary>
    /// <param name="view">From elsewhere than the move's own view.</param>
    /// <param name="side">The side that works; the figures of the library are drawn with the right one.</param>
    public static Figure? Of(Move move, Manner manner, MoveLibrary moves, View? view = null, bool felt = true, Side side = Side.Right) =>
        moves.Once(new Key(move, manner, new Look(view, felt, side == Side.Left ? side : Side.Right)), () =>
    {
        if (OptionPoses.Of(move, manner) is not { } poses)
        {
            return null;
        }

        var seen = new Shown(view ?? poses.View, side == Side.Left, poses.Map, poses.Arrow);
        return Figure.Of(MotionOf(poses), poses.Band, poses.Props, felt ? move.Muscles : "", seen);
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

    /// <summary>
    /// The poses solved. What no body can do together (such as full depth with a stiff trunk) is done as deep as it can be.
    /// </summary>
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

    private static KeyPose Less(KeyPose p) =>
        p with { Depth = p.Depth * Shallower, Lean = p.Lean * Shallower, Sit = p.Sit * Shallower, Split = p.Split * Shallower };

    /// <summary>
    /// A rep at the option's tempo; what is only held takes a second each way, what is done in time without a tempo goes at a walk's pace.
    /// </summary>
    public static Film Rep(Motion motion, Move move, Manner manner, Stature? stature = null) => (manner.Tempo ?? move.Tempo) is { } tempo
        ? new Film(motion, (double)tempo.Lower, (double)tempo.Pause, (double)tempo.Lift, (double)tempo.Top, stature)
        : move.Dose.Kind == "hold" ? new Film(motion, 1, 1, 1, 1, stature) : new Film(motion, Pace, 0, Pace, 0, stature);

    /// <summary>Seconds of a step of what has no tempo of its own. [M]</summary>
    private const double Pace = 0.7;

    /// <summary>An option of a move that has poses, in motion.</summary>
    /// <param name="side">The side that works; alternate: one rep on each.</param>
    public static FigureFilm FilmOf(Move move, Manner manner, MoveLibrary moves, View? from = null, Side side = Side.Right) =>
        moves.Once(new Key(move, manner, new Look(from, false, Drawn(side))), () => Filmed(move, manner, from, Drawn(side)), large: true);

    private static FigureFilm Filmed(Move move, Manner manner, View? from, Side side)
    {
        var poses = OptionPoses.Of(move, manner)!;
        var motion = MotionOf(poses);
        var rep = Rep(motion, move, manner);
        var keys = Enumerable.Range(0, motion.Count).Select(i => Skeleton.Of(motion.Key(i))).ToImmutableArray();
        var count = (int)Math.Round(rep.Seconds * DrawnPerSecond);
        var bodies = Enumerable.Range(0, count).Select(i => Skeleton.Of(rep.At(i / (double)DrawnPerSecond))).ToArray();
        var fixtures = Fixtures.Of(poses.Props, poses.Poses, keys, poses.Band)
            .Select(f => f.Beside([.. keys, .. bodies]))
            .ToImmutableArray();
        var scene = new Scene(motion.Load, poses.Band, fixtures, "", Fixtures.Slide(poses.Props));
        var one = new Shot(scene, from ?? poses.View, rep, keys, bodies);
        return side == Side.Alternate && OneSided(keys) ? Joined(Taken(one, false), Taken(one, true)) : Taken(one, side == Side.Left);
    }

    private sealed record Shot(Scene Scene, View View, Film Rep, ImmutableArray<Skeleton> Keys, Skeleton[] Bodies);

    private static FigureFilm Taken(Shot shot, bool mirrored)
    {
        var camera = Camera.Of(shot.View, mirrored);
        var scene = shot.Scene;
        var (box, floor) = Figure.Stage([.. shot.Keys, .. shot.Bodies], scene.Fixtures, camera, shot.View, scene.Load);
        var frames = shot.Bodies.Select(b => Drawing.Of(b, scene, shot.View, camera)).ToArray();

        // What stands in the room is drawn first, and stays.
        var still = frames[0].TakeWhile(l => l.Ink is Ink.Wall or Ink.Fixture).ToImmutableArray();
        return new FigureFilm(
            box, floor, DrawnPerSecond, shot.Rep.Seconds, shot.Rep.Phases, still, [.. frames.Select(f => f[still.Length..])]);
    }

    /// <summary>Whether one side does something else than the other at every key pose that says so: a march shows both by itself.</summary>
    private static bool OneSided(ImmutableArray<Skeleton> keys)
    {
        var left = Enum.GetValues<Joint>().Where(j => j is > Joint.Pelvis and < Joint.RightShoulder).ToArray();
        double Apart(Skeleton a, Skeleton b) => left.Max(j =>
        {
            var right = b[Skeleton.Sided(j, -1)];
            return (a[j] - right with { Y = -right.Y }).Length;
        });
        return Apart(keys[0], keys[^1]) > Same && keys.Any(k => Apart(k, k) > Same);
    }

    private const double Same = 0.03;

    /// <summary>One after the other, in a frame that holds both.</summary>
    private static FigureFilm Joined(FigureFilm one, FigureFilm other) => one with
    {
        ViewBox = Around(one.ViewBox, other.ViewBox),
        Seconds = one.Seconds + other.Seconds,
        Phases = [.. one.Phases, .. other.Phases.Select(p => p with { From = p.From + one.Seconds, To = p.To + one.Seconds })],
        Still = [],
        Frames = [.. one.Frames.Select(f => one.Still.AddRange(f)), .. other.Frames.Select(f => other.Still.AddRange(f))],
    };

    private static string Around(string a, string b)
    {
        double[] Of(string box) => [.. box.Split(' ').Select(n => double.Parse(n, CultureInfo.InvariantCulture))];
        var (x, y) = (Of(a), Of(b));
        var (left, top) = (Math.Min(x[0], y[0]), Math.Min(x[1], y[1]));
        var (right, low) = (Math.Max(x[0] + x[2], y[0] + y[2]), Math.Max(x[1] + x[3], y[1] + y[3]));
        return string.Create(CultureInfo.InvariantCulture, $"{left:0.#} {top:0.#} {right - left:0.#} {low - top:0.#}");
    }
}
