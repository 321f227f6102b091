using System.Collections.Immutable;
using System.Globalization;

namespace Halterion.Core.Body;

/// <summary>Start and end beside each other, or above each other where a body lies.</summary>
/// <param name="ViewBox">Of the SVG that shows both.</param>
/// <param name="X">By how much the end is moved from where it is drawn.</param>
public sealed record FigurePair(string ViewBox, double X, double Y);

/// <summary>A computed figure: start and end pose, the way between, and what it shows in words.</summary>
/// <param name="ViewBox">Of an SVG that shows one pose.</param>
/// <param name="Pair">Null where nothing moves.</param>
/// <param name="Floor">Where the floor is drawn in either pose: from, to.</param>
/// <param name="Frames">From start to end, both in it.</param>
/// <param name="Way">The stroke of the joint that moves most.</param>
/// <param name="Felt">Strokes of the segments in which it should be felt.</param>
/// <param name="Alt">The pose in words.</param>
public sealed record Figure(
    string ViewBox,
    FigurePair? Pair,
    ImmutableArray<double> Floor,
    ImmutableArray<DrawnPose> Frames,
    string Way,
    ImmutableArray<string> Felt,
    string Alt)
{
    private const int Steps = 8;
    private const double Margin = 7;

    /// <param name="muscles">What does the work, as in the library: seat, quadriceps, trunk …</param>
    public static Figure Of(Recipe start, Recipe end, string muscles)
    {
        var poses = Between(start, end);
        var last = poses[^1];
        var box = Box(poses);
        return new Figure(
            Text(box.Left, box.Top, box.Width, box.Height),
            Moves(poses) ? PairOf(box) : null,
            [Shapes.Round(box.Left + 2), Shapes.Round(box.Left + box.Width - 2)],
            [.. poses.Select(Drawing.Of)],
            Path(poses),
            FeltIn(last, muscles),
            PoseWords.Of(poses[0], last, start, end));
    }

    /// <summary>The poses on the way: solved one by one where the kind stays the same, so that feet and hands stay where they are.</summary>
    public static ImmutableArray<Pose> Between(Recipe start, Recipe end)
    {
        var (first, last) = (Solver.Solve(start), Solver.Solve(end));
        return
        [
            .. Enumerable.Range(0, Steps + 1).Select(i => i == 0 ? first : i == Steps ? last
                : start.Kind == end.Kind ? Solver.Solve(Mix(start, end, (double)i / Steps)) : Mix(first, last, (double)i / Steps)),
        ];
    }

    private static Recipe Mix(Recipe a, Recipe b, double share)
    {
        double At(double x, double y) => x + (y - x) * share;
        return b with
        {
            Depth = At(a.Depth, b.Depth),
            Trunk = a.Trunk is { } x && b.Trunk is { } y ? At(x, y) : b.Trunk is null ? null : At(a.Trunk ?? 0, b.Trunk.Value),
            Shin = At(a.Shin, b.Shin),
            Knee = At(a.Knee, b.Knee),
            Stance = a.Stance == 0 || b.Stance == 0 ? b.Stance : At(a.Stance, b.Stance),
            FrontRaise = At(a.FrontRaise, b.FrontRaise),
            RearRaise = At(a.RearRaise, b.RearRaise),
            HeelRaise = At(a.HeelRaise, b.HeelRaise),
            FreeThigh = At(a.FreeThigh, b.FreeThigh),
            FreeKnee = At(a.FreeKnee, b.FreeKnee),
            Shift = At(a.Shift, b.Shift),
            Air = At(a.Air, b.Air),
            Arms = share < 0.5 ? a.Arms : b.Arms,
            OneLeg = a.OneLeg || b.OneLeg,
        };
    }

    private static Pose Mix(Pose a, Pose b, double share)
    {
        Leg Legs(Leg x, Leg y) => new(
            x.Hip.Towards(y.Hip, share),
            x.Knee.Towards(y.Knee, share),
            x.Ankle.Towards(y.Ankle, share),
            x.Heel.Towards(y.Heel, share),
            x.Toe.Towards(y.Toe, share));
        Arm ArmsOf(Arm x, Arm y) => new(x.Shoulder.Towards(y.Shoulder, share), x.Elbow.Towards(y.Elbow, share), x.Hand.Towards(y.Hand, share));
        return b with
        {
            Hip = a.Hip.Towards(b.Hip, share),
            Shoulder = a.Shoulder.Towards(b.Shoulder, share),
            Head = a.Head.Towards(b.Head, share),
            Near = Legs(a.Near, b.Near),
            Far = Legs(a.Far, b.Far),
            NearArm = ArmsOf(a.NearArm, b.NearArm),
            FarArm = ArmsOf(a.FarArm, b.FarArm),
        };
    }

    private static readonly ImmutableArray<Func<Pose, Point>> Joints =
    [
        p => p.Hip, p => p.Shoulder, p => p.Near.Knee, p => p.Near.Ankle, p => p.Far.Ankle, p => p.NearArm.Hand, p => p.FarArm.Hand,
    ];

    /// <summary>The way of the joint that moves most.</summary>
    private static string Path(ImmutableArray<Pose> poses)
    {
        var most = Joints.MaxBy(j => (j(poses[^1]) - j(poses[0])).Length)!;
        return Drawing.Line([.. poses.Select(most)]);
    }

    /// <summary>Whether start and end can be told apart.</summary>
    private static bool Moves(ImmutableArray<Pose> poses) => Joints.Any(j => (j(poses[^1]) - j(poses[0])).Length > 0.02);

    private static ImmutableArray<string> FeltIn(Pose pose, string muscles)
    {
        var felt = ImmutableArray.CreateBuilder<string>();
        void Add(params ReadOnlySpan<Point> points)
        {
            felt.Add(Drawing.Line(points));
        }

        bool Has(params ReadOnlySpan<string> words)
        {
            foreach (var word in words)
            {
                if (muscles.Contains(word, StringComparison.Ordinal))
                {
                    return true;
                }
            }

            return false;
        }

        if (Has("quadriceps", "hamstrings", "adductors", "legs"))
        {
            Add(pose.Near.Hip.Towards(pose.Near.Knee, 0.15), pose.Near.Hip.Towards(pose.Near.Knee, 0.9));
        }

        if (Has("seat", "hips", "hip flexors"))
        {
            Add(pose.Near.Hip, pose.Near.Hip.Towards(pose.Near.Knee, 0.12));
        }

        if (Has("calves", "shins"))
        {
            Add(pose.Near.Knee.Towards(pose.Near.Ankle, 0.15), pose.Near.Knee.Towards(pose.Near.Ankle, 0.7));
        }

        if (Has("trunk", "obliques", "back"))
        {
            Add(pose.Hip.Towards(pose.Shoulder, 0.15), pose.Hip.Towards(pose.Shoulder, 0.6));
        }

        if (Has("shoulders", "deltoids", "chest", "arms"))
        {
            Add(pose.NearArm.Shoulder, pose.NearArm.Elbow);
        }

        return felt.ToImmutable();
    }

    private static (double Left, double Top, double Width, double Height) Box(ImmutableArray<Pose> poses)
    {
        var points = poses.SelectMany(p => new[]
        {
            p.Head + new Point(Anthropometry.HeadRadius, Anthropometry.HeadRadius), p.Head - new Point(Anthropometry.HeadRadius, Anthropometry.HeadRadius),
            p.Hip, p.Near.Knee, p.Near.Toe, p.Near.Heel, p.Far.Toe, p.Far.Knee, p.Far.Heel, p.NearArm.Hand, p.NearArm.Elbow, p.FarArm.Hand, p.FarArm.Elbow,
        }.Concat(p.Props.Where(prop => prop.Kind != "wall").SelectMany(prop => new[] { prop.From, prop.To }))).ToArray();
        var (left, right) = (100 * points.Min(p => p.X) - Margin, 100 * points.Max(p => p.X) + Margin);
        var (top, bottom) = (-100 * points.Max(p => p.Y) - Margin, Margin / 2);
        return (left, top, right - left, bottom - top);
    }

    /// <summary>Beside each other as long as that is no wider than twice the height; else above each other.</summary>
    private static FigurePair PairOf((double Left, double Top, double Width, double Height) box) => box.Width <= 1.1 * box.Height
        ? new FigurePair(Text(box.Left, box.Top, 2 * box.Width, box.Height), Shapes.Round(box.Width), 0)
        : new FigurePair(Text(box.Left, box.Top, box.Width, 2 * box.Height), 0, Shapes.Round(box.Height));

    private static string Text(double left, double top, double width, double height) => string.Create(
        CultureInfo.InvariantCulture,
        $"{Shapes.Round(left)} {Shapes.Round(top)} {Shapes.Round(width)} {Shapes.Round(height)}");
}
