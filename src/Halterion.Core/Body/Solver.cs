using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>
/// Solves poses from named parameters: feet, hands or back stay where they are, and the body balances. The places of the
/// joints follow from segment lengths alone; the lean that balances is found by halving.
/// </summary>
public static class Solver
{
    /// <summary>Where the weight should lie between heel and toe, from the ankle. [M] Mid-foot.</summary>
    public const double MidFoot = Foot / 2 - Heel;

    /// <summary>The most a trunk leans over level hips.</summary>
    private const double MostLean = 88;

    /// <summary>The ankle's height when the toes of the rear foot are tucked under. [M]</summary>
    private const double TuckedAnkle = 0.10;

    public static Pose Solve(Recipe recipe)
    {
        var pose = recipe.Kind switch
        {
            PoseKind.Squat => Squat(recipe),
            PoseKind.Hinge => Hinge(recipe),
            PoseKind.Split => Split(recipe),
            PoseKind.Single => Single(recipe),
            PoseKind.Wide => Wide(recipe),
            PoseKind.Bridge or PoseKind.Thrust => Raised(recipe),
            _ => FloorPoses.Solve(recipe),
        };
        return recipe.Air > 0 ? Lifted(pose, recipe.Air) : pose;
    }

    /// <summary>
    /// Ankle to ankle in a split squat with both knees at 90° and the front shin upright. With the rear shank tilted by φ
    /// (for its ankle is higher than the knee) the stride is thigh + thigh·sin φ + shank·cos φ.
    /// </summary>
    public static double RightAngleStride(double rearAnkle = TuckedAnkle)
    {
        // hip height is ankle + shank; knee = hip - thigh·(sin φ, cos φ); rear ankle = knee + shank·(-cos φ, sin φ).
        var tilt = Halve(0, 60, t => KneeHeight - Thigh * Cos(t) + Shank * Sin(t) - rearAnkle);
        return Thigh + Thigh * Sin(tilt) + Shank * Cos(tilt);
    }

    private static Pose Squat(Recipe r)
    {
        // The shin leans with the depth up to what the ankle gives; hips go down and back.
        var shin = Math.Min(r.Shin, 0.36 * r.Depth);
        Pose With(double lean, double shinLean)
        {
            var ankle = new Point(0, AnkleHeight + r.FrontRaise + Foot * 0.7 * Sin(r.HeelRaise));
            var knee = ankle + Point.Up(shinLean, Shank);
            var hip = knee + Point.Up(-r.Depth, Thigh);
            var leg = new Leg(hip, knee, ankle, ankle + FootPoint(-Heel, r.HeelRaise), ankle + FootPoint(Foot - Heel, r.HeelRaise));
            return Upper(r, hip, lean, leg, leg, StandingSupport(r, [-Heel, Foot - Heel]));
        }

        if (r.Trunk is { } fixedLean)
        {
            return With(fixedLean, shin);
        }

        var aim = r.HeelRaise > 0 ? Foot - Heel - 0.03 : MidFoot;
        double Off(double lean) => With(lean, shin).CentreOfMass.X - aim;
        if (Off(0) > 0)
        {
            // Upright and still too far forward: less shin.
            return With(0, Halve(-5, shin, s => With(0, s).CentreOfMass.X - aim));
        }

        return With(Off(MostLean) < 0 ? MostLean : Halve(0, MostLean, Off), shin);
    }

    private static Pose Hinge(Recipe r)
    {
        var lean = r.Trunk ?? 60;
        Pose With(double shin)
        {
            var ankle = new Point(0, AnkleHeight + r.FrontRaise);
            var knee = ankle + Point.Up(shin, Shank);
            var hip = knee + Point.Up(-(r.Knee - shin), Thigh);
            var leg = Flat(hip, knee, ankle);
            return Upper(r, hip, lean, leg, r.Stance > 0 ? Staggered(hip, r.Stance) : leg, StandingSupport(r, [-Heel, Foot - Heel]));
        }

        return With(r.Held ? 0 : Halve(-25, 25, s => With(s).CentreOfMass.X - MidFoot));
    }

    private static Pose Split(Recipe r)
    {
        var stride = r.Stance > 0 ? r.Stance : RightAngleStride();
        var rear = new Point(-stride, r.RearRaise > 0 ? r.RearRaise + 0.04 : TuckedAnkle);
        var front = new Point(0, AnkleHeight + r.FrontRaise);

        // The hips travel straight down, over a place that leaves the front shin upright at the bottom.
        var x = -Thigh * Math.Min(1, stride / RightAngleStride());
        var reach = (Thigh + Shank) * 0.985;
        var high = Math.Min(
            front.Y + Math.Sqrt(reach * reach - x * x),
            rear.Y + Math.Sqrt(Math.Max(0.01, reach * reach - (rear.X - x) * (rear.X - x))));
        var low = front.Y + Shank;
        var hip = new Point(x, high + (low - high) * r.Depth);
        var near = Flat(hip, Angles.Joint(hip, front, Thigh, Shank, 1), front);
        var knee = Angles.Joint(hip, rear, Thigh, Shank, 1);
        if (knee.Y < 0.03)
        {
            knee = knee with { Y = 0.03 };
        }

        var far = r.RearRaise > 0
            ? new Leg(hip, knee, rear, rear + new Point(-0.02, 0.03), rear + new Point(-Foot * 0.8, -0.02))
            : new Leg(hip, knee, rear, rear + new Point(-0.035, 0.025), new Point(rear.X + 0.045, 0.005));
        var lean = r.Trunk ?? 6 + 8 * r.Depth;
        var floor = Math.Min(far.Toe.X, rear.X);
        return Upper(r, hip, lean, near, far, [floor, Foot - Heel]);
    }

    private static Pose Single(Recipe r)
    {
        var lean = r.Trunk ?? 5;
        Pose With(double shin)
        {
            var ankle = new Point(0, AnkleHeight + r.FrontRaise);
            var knee = ankle + Point.Up(shin, Shank);
            var hip = knee + Point.Up(-(r.Knee - shin), Thigh);
            var freeKnee = hip + Point.Down(r.FreeThigh, Thigh);
            var freeAnkle = freeKnee + Point.Down(r.FreeThigh - r.FreeKnee, Shank);
            var toe = freeAnkle + Point.Down(r.FreeThigh - r.FreeKnee + 80, Foot - Heel);
            return Upper(
                r,
                hip,
                lean,
                Flat(hip, knee, ankle),
                new Leg(hip, freeKnee, freeAnkle, freeAnkle + (freeAnkle - toe) * (Heel / (Foot - Heel)), toe),
                StandingSupport(r, [-Heel, Foot - Heel]));
        }

        return With(r.Held ? 4 : Halve(-30, 30, s => With(s).CentreOfMass.X - MidFoot)) with { OnOneFoot = true };
    }

    /// <summary>Seen from the front: knees over the feet as the hips come down.</summary>
    private static Pose Wide(Recipe r)
    {
        var half = r.Stance > 0 ? r.Stance : 0.2;
        var side = HipBreadth / 2;
        var sunk = Math.Min(1, r.Depth / 90);
        var straight = Math.Sqrt(Math.Max(0.01, Math.Pow(Thigh + Shank, 2) - Math.Pow(half - side, 2)));
        var over = r.Shift * (half - side * 0.4);
        var height = AnkleHeight + straight - (straight - Shank * 1.02) * sunk;
        if (Math.Abs(r.Shift) > 0.1)
        {
            // Over one foot the other leg stays straight: it sets how low the hips can be.
            height = Math.Max(AnkleHeight + 0.16, height);
        }

        var hip = new Point(over, height);
        Leg One(int sign, double lift)
        {
            var joint = hip + new Point(sign * side, 0);
            var ankle = new Point(sign * half, AnkleHeight + lift);
            var bent = Math.Abs(r.Shift) < 0.1 || Math.Sign(r.Shift) == sign;
            var knee = bent
                ? joint.Towards(ankle, Thigh / (Thigh + Shank)).Towards(new Point(sign * (half + 0.012), AnkleHeight + Shank), sunk)
                : joint.Towards(ankle, Thigh / (Thigh + Shank));
            return new Leg(joint, knee, ankle, ankle + new Point(-sign * 0.01, -AnkleHeight), ankle + new Point(sign * 0.06, -AnkleHeight));
        }

        var near = One(1, r.FrontRaise);
        var far = One(-1, r.RearRaise);
        if (r.OneLeg)
        {
            // The far leg is lifted out to its side.
            var joint = hip + new Point(-side, 0);
            var knee = joint + Point.Down(-Math.Max(25, r.FreeThigh), Thigh);
            var ankle = knee + Point.Down(-Math.Max(25, r.FreeThigh), Shank);
            far = new Leg(joint, knee, ankle, ankle + new Point(0.01, -0.03), ankle + new Point(-0.06, -0.01));
        }

        var shoulder = hip + Point.Up(r.Trunk ?? 0, Trunk * (1 - 0.16 * sunk));
        return Arms.From(r, hip, shoulder, near, far, [-half, half], front: true);
    }

    private static Pose Raised(Recipe r)
    {
        var bench = r.Kind == PoseKind.Thrust;
        var shoulder = new Point(0, bench ? BenchHeight + Thickness : Thickness);

        // At the top shoulder, hip and knee are in line and the shin is upright: that sets where the feet stand.
        var rise = Math.Asin(Math.Clamp((KneeHeight + r.FrontRaise - shoulder.Y) / (Trunk + Thigh), -1, 1)) * 180 / Math.PI;
        var feet = new Point((Trunk + Thigh) * Cos(rise) + r.Shift, AnkleHeight + r.FrontRaise + Foot * 0.7 * Sin(Math.Max(0, r.HeelRaise)));
        var down = bench ? -52 : Math.Asin(Math.Clamp((Thickness + 0.01 - shoulder.Y) / Trunk, -1, 1)) * 180 / Math.PI;
        var tilt = down + (rise - down) * r.Depth;
        var hip = shoulder + new Point(Trunk * Cos(tilt), Trunk * Sin(tilt));
        var knee = Angles.Joint(hip, feet, Thigh, Shank, 1);
        var near = new Leg(hip, knee, feet, feet + FootPoint(-Heel, r.HeelRaise), feet + FootPoint(Foot - Heel, r.HeelRaise));
        var far = near;
        if (r.OneLeg)
        {
            var freeKnee = hip + new Point(Thigh * Cos(tilt + r.FreeThigh), Thigh * Sin(tilt + r.FreeThigh));
            var freeAnkle = freeKnee + new Point(Shank * Cos(tilt + r.FreeThigh - r.FreeKnee), Shank * Sin(tilt + r.FreeThigh - r.FreeKnee));
            far = new Leg(hip, freeKnee, freeAnkle, freeAnkle + new Point(0.01, -0.02), freeAnkle + new Point(0.05, 0.09));
        }
        else if (r.RearRaise > 0 || r.Stance > 0)
        {
            // Staggered: the far foot stands further out, on its heel.
            var out1 = feet + new Point(r.Stance, 0);
            far = new Leg(hip, Angles.Joint(hip, out1, Thigh, Shank, 1), out1, out1 + new Point(-Heel * 0.4, -AnkleHeight), out1 + new Point(0.07, 0.07));
        }

        var headTilt = bench ? tilt + 25 : 0;
        var head = shoulder + new Point(-Neck * Cos(bench ? headTilt * 0.2 : 0), bench ? Neck * 0.35 : 0.015);
        var pose = Arms.From(r, hip, shoulder, near, far, [bench ? -0.1 : -0.2, feet.X + Foot], head: head);
        return bench
            ? pose with { Props = pose.Props.Add(new Prop("bench", new Point(-0.12, 0), new Point(0.03, BenchHeight))) }
            : pose with { Props = pose.Props.Add(new Prop("mat", new Point(-0.24, -0.012), new Point(feet.X + 0.16, 0))) };
    }

    /// <summary>Bench under the shoulder blades that leaves trunk and thighs level and shins upright at the top.</summary>
    public const double BenchHeight = KneeHeight - Thickness;

    private static Pose Upper(Recipe r, Point hip, double lean, Leg near, Leg far, ImmutableArray<double> support) =>
        Arms.From(r, hip, hip + Point.Up(lean, Trunk), near, far, support);

    private static ImmutableArray<double> StandingSupport(Recipe r, ImmutableArray<double> feet) =>
        r.Held ? feet.Add(0.45).Add(-0.45) : r.Prop is "chair" or "box" && r.Depth > 80 ? feet.Add(-0.35) : feet;

    private static Leg Flat(Point hip, Point knee, Point ankle) =>
        new(hip, knee, ankle, ankle + new Point(-Heel, -AnkleHeight), ankle + new Point(Foot - Heel, -AnkleHeight));

    /// <summary>The far foot a little behind, on its toes.</summary>
    private static Leg Staggered(Point hip, double back)
    {
        var ankle = new Point(-back, AnkleHeight + 0.03);
        return new Leg(hip, Angles.Joint(hip, ankle, Thigh, Shank, 1), ankle, ankle + new Point(-Heel, 0), ankle + new Point(0.09, -AnkleHeight - 0.03));
    }

    private static Point FootPoint(double along, double heelRaise) =>
        new Point(along * Cos(heelRaise), -AnkleHeight - along * Sin(heelRaise));

    private static Pose Lifted(Pose pose, double air)
    {
        var up = new Point(0, air);
        Leg Up(Leg l) => new(l.Hip + up, l.Knee + up, l.Ankle + up, l.Heel + up, l.Toe + up);
        Arm Rise(Arm a) => new(a.Shoulder + up, a.Elbow + up, a.Hand + up);
        return pose with
        {
            Hip = pose.Hip + up,
            Shoulder = pose.Shoulder + up,
            Head = pose.Head + up,
            Near = Up(pose.Near),
            Far = Up(pose.Far),
            NearArm = Rise(pose.NearArm),
            FarArm = Rise(pose.FarArm),
            Weight = pose.Weight is { } w ? w with { At = w.At + up } : null,
        };
    }

    /// <summary>A zero of a rising function between two bounds; the nearer bound where there is none.</summary>
    internal static double Halve(double low, double high, Func<double, double> rising)
    {
        for (var i = 0; i < 40; i++)
        {
            var middle = (low + high) / 2;
            (low, high) = rising(middle) > 0 ? (low, middle) : (middle, high);
        }

        return (low + high) / 2;
    }

    internal static double Sin(double degrees) => Math.Sin(degrees * Math.PI / 180);

    internal static double Cos(double degrees) => Math.Cos(degrees * Math.PI / 180);
}
