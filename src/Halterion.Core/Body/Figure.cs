using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Halterion.Core.Body;

/// <summary>A body as strokes of an SVG, in hundredths of stature, y down.</summary>
/// <param name="Far">The limbs on the other side.</param>
/// <param name="Near">Trunk and the limbs on the viewer's side.</param>
/// <param name="Props">Kit and support: kind and stroke.</param>
public sealed record DrawnPose(string Far, string Near, double HeadX, double HeadY, double HeadRadius, ImmutableArray<DrawnProp> Props);

public sealed record DrawnProp(string Kind, string Stroke);

/// <summary>A joint angle at the end of a move, and where to write it.</summary>
public sealed record DrawnAngle(double X, double Y, string Words);

/// <summary>A computed figure: start and end pose, the way between, and what it shows in words.</summary>
/// <param name="ViewBox">Of the SVG.</param>
/// <param name="Frames">From start to end, both in it.</param>
/// <param name="Way">The stroke of the joint that moves most.</param>
/// <param name="Felt">Strokes of the segments in which it should be felt.</param>
/// <param name="Alt">The pose in words.</param>
public sealed record Figure(
    string ViewBox,
    ImmutableArray<DrawnPose> Frames,
    string Way,
    ImmutableArray<string> Felt,
    ImmutableArray<DrawnAngle> Angles,
    string Alt)
{
    private const int Steps = 8;
    private const double Margin = 7;

    /// <param name="muscles">What does the work, as in the library: seat, quadriceps, trunk …</param>
    public static Figure Of(Recipe start, Recipe end, string muscles)
    {
        var poses = Between(start, end);
        var last = poses[^1];
        return new Figure(
            Box([.. poses]),
            [.. poses.Select(Draw)],
            Path(poses),
            FeltIn(last, muscles),
            AnglesOf(last, end),
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

    private static DrawnPose Draw(Pose pose)
    {
        var near = new StringBuilder();
        var far = new StringBuilder();
        if (pose.FromFront)
        {
            Line(near, pose.Near.Hip, pose.Far.Hip);
            Line(near, pose.Hip, pose.Shoulder);
            Line(near, pose.NearArm.Shoulder, pose.FarArm.Shoulder);
            foreach (var leg in new[] { pose.Near, pose.Far })
            {
                Line(near, leg.Hip, leg.Knee, leg.Ankle, leg.Toe);
            }

            Line(near, pose.NearArm.Shoulder, pose.NearArm.Elbow, pose.NearArm.Hand);
            Line(near, pose.FarArm.Shoulder, pose.FarArm.Elbow, pose.FarArm.Hand);
        }
        else
        {
            if (pose.Far != pose.Near)
            {
                Leg(far, pose.Far);
            }

            if (pose.FarArm != pose.NearArm)
            {
                Line(far, pose.FarArm.Shoulder, pose.FarArm.Elbow, pose.FarArm.Hand);
            }

            Leg(near, pose.Near);
            Line(near, pose.Hip, pose.Shoulder);
            Line(near, pose.NearArm.Shoulder, pose.NearArm.Elbow, pose.NearArm.Hand);
        }

        return new DrawnPose(
            far.ToString(), near.ToString(), X(pose.Head), Y(pose.Head), Round(100 * Anthropometry.HeadRadius),
            [.. pose.Props.Select(p => new DrawnProp(p.Kind, Stroke(p)))]);
    }

    private static void Leg(StringBuilder path, Leg leg)
    {
        Line(path, leg.Hip, leg.Knee, leg.Ankle);
        Line(path, leg.Heel, leg.Ankle, leg.Toe);
        Line(path, leg.Heel, leg.Toe);
    }

    private static string Stroke(Prop prop)
    {
        var path = new StringBuilder();
        switch (prop.Kind)
        {
            case "band":
                Line(path, prop.From, prop.To);
                break;
            case "weight" or "ball" or "bar":
                var r = prop.Kind == "weight" ? 0.035 : prop.Kind == "ball" ? 0.06 : 0.07;
                path.Append(
                    CultureInfo.InvariantCulture,
                    $"M{Round(X(prop.From) - 100 * r)} {Y(prop.From)}a{100 * r} {100 * r} 0 1 0 {200 * r} 0a{100 * r} {100 * r} 0 1 0 {-200 * r} 0Z");
                break;
            case "chair":
                Line(path, prop.From with { Y = prop.To.Y + 0.28 }, prop.From);
                Line(path, prop.From with { Y = prop.To.Y }, prop.To, new Point(prop.To.X, 0));
                break;
            default:
                Line(path, prop.From, prop.From with { Y = prop.To.Y }, prop.To, prop.To with { Y = prop.From.Y });
                path.Append('Z');
                break;
        }

        return path.ToString();
    }

    /// <summary>The way of the joint that moves most.</summary>
    private static string Path(ImmutableArray<Pose> poses)
    {
        Func<Pose, Point>[] joints = [p => p.Hip, p => p.Shoulder, p => p.Near.Knee, p => p.Near.Ankle, p => p.Far.Ankle, p => p.NearArm.Hand, p => p.FarArm.Hand];
        var most = joints.MaxBy(j => (j(poses[^1]) - j(poses[0])).Length)!;
        var path = new StringBuilder();
        Line(path, [.. poses.Select(most)]);
        return path.ToString();
    }

    private static ImmutableArray<string> FeltIn(Pose pose, string muscles)
    {
        var felt = ImmutableArray.CreateBuilder<string>();
        void Add(params ReadOnlySpan<Point> points)
        {
            var path = new StringBuilder();
            Line(path, points);
            felt.Add(path.ToString());
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

    private static ImmutableArray<DrawnAngle> AnglesOf(Pose pose, Recipe recipe)
    {
        if (pose.FromFront || recipe.Kind is not (PoseKind.Squat or PoseKind.Hinge or PoseKind.Split or PoseKind.Single or PoseKind.Bridge or PoseKind.Thrust))
        {
            return [];
        }

        string Degrees(double flexion) => string.Create(CultureInfo.InvariantCulture, $"{180 - flexion:0}°");
        return
        [
            new DrawnAngle(Round(X(pose.Near.Knee) + 4), Round(Y(pose.Near.Knee) - 2), Degrees(pose.Near.KneeFlexion)),
            new DrawnAngle(Round(X(pose.Hip) - 5), Round(Y(pose.Hip) + 4), Degrees(pose.HipFlexion)),
        ];
    }

    private static string Box(ImmutableArray<Pose> poses)
    {
        var points = poses.SelectMany(p => new[]
        {
            p.Head + new Point(Anthropometry.HeadRadius, Anthropometry.HeadRadius), p.Head - new Point(Anthropometry.HeadRadius, Anthropometry.HeadRadius),
            p.Hip, p.Near.Knee, p.Near.Toe, p.Near.Heel, p.Far.Toe, p.Far.Knee, p.Far.Heel, p.NearArm.Hand, p.NearArm.Elbow, p.FarArm.Hand, p.FarArm.Elbow,
        }.Concat(p.Props.Where(prop => prop.Kind != "wall").SelectMany(prop => new[] { prop.From, prop.To }))).ToArray();
        var (left, right) = (100 * points.Min(p => p.X) - Margin, 100 * points.Max(p => p.X) + Margin);
        var (top, bottom) = (-100 * points.Max(p => p.Y) - Margin, Margin / 2);
        return string.Create(CultureInfo.InvariantCulture, $"{Round(left)} {Round(top)} {Round(right - left)} {Round(bottom - top)}");
    }

    private static void Line(StringBuilder path, params ReadOnlySpan<Point> points)
    {
        for (var i = 0; i < points.Length; i++)
        {
            path.Append(CultureInfo.InvariantCulture, $"{(i == 0 ? 'M' : 'L')}{X(points[i])} {Y(points[i])}");
        }
    }

    private static double X(Point p) => Round(100 * p.X);

    private static double Y(Point p) => Round(-100 * p.Y);

    private static double Round(double value) => Math.Round(value, 1);
}
