using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>In what tone a layer is drawn.</summary>
public enum Ink
{
    /// <summary>What stands in the room.</summary>
    Wall,
    /// <summary>Bench, box, wall.</summary>
    Fixture,
    /// <summary>The side away from the eye.</summary>
    Far,
    /// <summary>The side towards the eye.</summary>
    Near,
    /// <summary>Where it should be felt.</summary>
    Felt,
    /// <summary>What is held.</summary>
    Kit,
    /// <summary>A band.</summary>
    Band,
}

/// <summary>Outlines of one tone; from back to front.</summary>
public sealed record Layer(Ink Ink, string Path);

/// <summary>A band between places on the body, or from an anchor.</summary>
public enum BandAt
{
    /// <summary>No band.</summary>
    None,
    /// <summary>Above the knees.</summary>
    Knees,
    /// <summary>Round the ankles.</summary>
    Ankles,

    /// <summary>Around the feet.</summary>
    Feet,

    /// <summary>Under the feet and over the shoulders.</summary>
    Shoulders,

    /// <summary>From low behind to the hands.</summary>
    AnchorBehind,

    /// <summary>From high in front to the hands.</summary>
    AnchorHigh,

    /// <summary>From chest height in front, or behind, to the hands.</summary>
    AnchorAhead,
    /// <summary>To something behind the back.</summary>
    AnchorBack,

    /// <summary>From low at the side or in front to an ankle.</summary>
    AnchorAnkle,
    /// <summary>Round the hips.</summary>
    Hips,
}

/// <summary>What is drawn with a body: load, band, what stands by, where it is felt, whether its feet slide on something.</summary>
public sealed record Scene(Carried? Load, BandAt Band, ImmutableArray<Fixture> Fixtures, string Felt, bool Slides = false);

/// <summary>Draws a body: limbs that taper, a soft trunk, wedge feet, hands, a head that faces somewhere; ordered by depth.</summary>
public static class Drawing
{
    // Half thicknesses in fractions of stature. [M] What reads as a body from three metres.
    private const double ThighTop = 0.054;
    private const double KneeSize = 0.036;
    private const double Calf = 0.034;
    private const double AnkleSize = 0.021;
    private const double Sole = 0.013;
    private const double ShoulderSize = 0.031;
    private const double ElbowSize = 0.023;
    private const double WristSize = 0.017;
    private const double Palm = 0.021;
    private const double HipsSize = 0.058;
    private const double Waist = 0.056;
    private const double ChestSize = 0.052;
    private const double NeckSize = 0.026;

    private sealed record Part(double Depth, Ink Ink, Shapes Shapes);

    /// <summary>A figure of a body, from a view.</summary>
    public static ImmutableArray<Layer> Of(Skeleton s, Scene scene, View view, Camera camera)
    {
        var parts = new List<Part>();
        void Add(double depth, Ink ink, Shapes shapes) => parts.Add(new Part(depth, ink, shapes));

        foreach (var fixture in scene.Fixtures)
        {
            Add(-10 + 0.01 * camera.Near(fixture.From.Towards(fixture.To, 0.5)), fixture.Kind == "wall" ? Ink.Wall : Ink.Fixture,
                Block(fixture, camera));
        }

        var middle = camera.Near(s[Joint.Lumbar]);
        var paired = view is View.Front or View.Above;
        for (var side = 1; side >= -1; side -= 2)
        {
            var hip = camera.Near(s.Of(Joint.LeftHip, side));
            var other = camera.Near(s.Of(Joint.LeftHip, -side));
            var shoulder = camera.Near(s.Of(Joint.LeftShoulder, side));
            var far = !paired && hip < other - 0.03;
            var farArm = !paired && shoulder < camera.Near(s.Of(Joint.LeftShoulder, -side)) - 0.03;
            var reach = camera.Near(s.Of(Joint.LeftElbow, side)) + camera.Near(s.Of(Joint.LeftWrist, side));
            Add(paired ? camera.Near(s.Of(Joint.LeftKnee, side)) : hip + (hip - other) * 0.4, far ? Ink.Far : Ink.Near,
                Leg(s, side, camera));
            Add(paired ? reach / 2 + 0.02 : shoulder + (farArm ? -0.2 : 0.2), farArm ? Ink.Far : Ink.Near, Arm(s, side, camera));
            if (!far && Felt(s, side, camera, scene.Felt) is { } felt)
            {
                Add((paired ? camera.Near(s.Of(Joint.LeftKnee, side)) : hip + (hip - other) * 0.4) + 1e-4, Ink.Felt, felt);
            }
        }

        Add(paired ? camera.Near(s[Joint.Chest]) : middle, Ink.Near, Trunk(s, camera));
        if (FeltTrunk(s, camera, scene.Felt) is { } inTrunk)
        {
            Add((paired ? camera.Near(s[Joint.Chest]) : middle) + 1e-4, Ink.Felt, inTrunk);
        }

        if (scene.Slides)
        {
            foreach (var side in (int[])[1, -1])
            {
                // A cloth under each heel, just as thick as can be seen.
                var (heel, ball) = (s.Of(Joint.LeftHeel, side), side > 0 ? s.LeftBall : s.RightBall);
                var under = Vec.Up * 0.006;
                Add(-5, Ink.Kit, new Shapes().Capsule(camera.On(heel - Vec.Forward * 0.03 - under), 0.008, camera.On(ball - under), 0.008));
            }
        }

        if (scene.Fixtures.Any(f => f.Kind == "machine"))
        {
            foreach (var side in (int[])[1, -1])
            {
                // The pads that the knees press together.
                var inside = s.Of(Joint.LeftKnee, side) - s.Hips.Of(Vec.Left) * (side * 0.055);
                var (high, low) = (camera.On(inside + Vec.Up * 0.03), camera.On(inside - Vec.Up * 0.05));
                Add(camera.Near(inside) - 0.02, Ink.Kit, new Shapes().Capsule(high, 0.022, low, 0.022));
            }
        }

        if (scene.Load is { } load)
        {
            foreach (var (ink, depth, shapes) in Weights(s, load, camera))
            {
                Add(depth, ink, shapes);
            }
        }

        foreach (var (depth, shapes) in Band(s, scene.Band, camera))
        {
            Add(depth, Ink.Band, shapes);
        }

        return
        [
            .. parts.OrderBy(p => p.Depth).Select(p => new Layer(p.Ink, p.Shapes.ToString())).Where(l => l.Path.Length > 0),
        ];
    }

    /// <summary>The feet from above: where the stance is the point.</summary>
    public static string Feet(Skeleton s, Camera camera)
    {
        var shapes = new Shapes();
        for (var side = 1; side >= -1; side -= 2)
        {
            var (heel, ball, toe) = (camera.On(s.Of(Joint.LeftHeel, side)), camera.On(side > 0 ? s.LeftBall : s.RightBall),
                camera.On(s.Of(Joint.LeftToe, side)));
            shapes.Capsule(heel.Towards(ball, 0.1), 0.022, ball, 0.03).Capsule(ball, 0.03, toe.Towards(ball, 0.3), 0.022);
        }

        return shapes.ToString();
    }

    /// <summary>A stroke from point to point.</summary>
    public static string Line(params ReadOnlySpan<Point> points)
    {
        var path = new System.Text.StringBuilder();
        foreach (var point in points)
        {
            path.Append(System.Globalization.CultureInfo.InvariantCulture, $"{(path.Length == 0 ? 'M' : 'L')}{Shapes.X(point)} "
                + $"{Shapes.Y(point)}");
        }

        return path.ToString();
    }

    private static Shapes Leg(Skeleton s, int side, Camera camera)
    {
        Point At(Joint joint) => camera.On(s.Of(joint, side));
        var (hip, knee, ankle, heel, toe) = (
            At(Joint.LeftHip), At(Joint.LeftKnee), At(Joint.LeftAnkle), At(Joint.LeftHeel), At(Joint.LeftToe));
        var ball = camera.On(side > 0 ? s.LeftBall : s.RightBall);
        var calf = knee.Towards(ankle, 0.32);
        var sole = s.Of(Joint.LeftAnkle, side) - s.Of(Joint.LeftHeel, side);
        var up = camera.On(sole.Beside(((side > 0 ? s.LeftBall : s.RightBall) - s.Of(Joint.LeftHeel, side)).Unit).Unit * Sole);
        var (heelAt, ballAt) = (heel + up, ball + up);
        var toeAt = toe + up * 0.9;
        return new Shapes()
            .Capsule(hip, ThighTop, knee, KneeSize)
            .Capsule(knee, KneeSize, calf, Calf)
            .Capsule(calf, Calf, ankle, AnkleSize)
            .Hull([(ankle, AnkleSize), (heelAt, Sole + 0.004), (ballAt, Sole)])
            .Capsule(ballAt, Sole, Inward(toeAt, ballAt, Sole * 0.8), Sole * 0.8);
    }

    private static Shapes Arm(Skeleton s, int side, Camera camera)
    {
        Point At(Joint joint) => camera.On(s.Of(joint, side));
        return new Shapes()
            .Capsule(At(Joint.LeftShoulder), ShoulderSize, At(Joint.LeftElbow), ElbowSize)
            .Capsule(At(Joint.LeftElbow), ElbowSize, At(Joint.LeftWrist), WristSize)
            .Capsule(At(Joint.LeftWrist), WristSize, At(Joint.LeftHand), Palm);
    }

    private static Shapes Trunk(Skeleton s, Camera camera)
    {
        Point At(Vec place) => camera.On(place);
        var (pelvis, lumbar, chest, neck, head) = (s[Joint.Pelvis], s[Joint.Lumbar], s[Joint.Chest], s[Joint.Neck], s[Joint.Head]);
        Vec Hip(int side) => pelvis + s.Hips.Of(new Vec(-0.012, side * 0.052, -0.004));
        Vec Side(int side) => lumbar + s.Chest.Of(new Vec(0.0, side * 0.036, 0.02));
        Vec Breast(int side) => chest + s.Chest.Of(new Vec(0.016, side * 0.066, -0.055));
        Vec Top(int side) => chest + s.Chest.Of(new Vec(-0.006, side * 0.088, -0.012));
        var face = s.HeadTurn.Of(Vec.Forward);
        return new Shapes()
            .Hull([(At(Hip(1)), HipsSize), (At(Hip(-1)), HipsSize), (At(Side(1)), Waist * 0.95), (At(Side(-1)), Waist * 0.95)])
            .Hull(
                [
                    (At(Side(1)), Waist * 0.95),
                    (At(Side(-1)), Waist * 0.95),
                    (At(Breast(1)), ChestSize),
                    (At(Breast(-1)), ChestSize),
                    (At(Top(1)), 0.036),
                    (At(Top(-1)), 0.036)])
            .Capsule(At(chest), NeckSize + 0.012, At(neck.Towards(head, 0.5)), NeckSize)
            .Hull([
                (At(head + s.HeadTurn.Of(new Vec(-0.008, 0, 0.008))), HeadRadius - 0.010),
                (At(head + s.HeadTurn.Of(new Vec(0.006, 0, -0.022))), HeadRadius - 0.022)])
            .Capsule(At(head + face * 0.040), 0.014, At(head + face * 0.058 + s.HeadTurn.Of(new Vec(0, 0, -0.008))), 0.008);
    }

    /// <summary>Front or back of thigh and seat, calf, inner thigh: a streak on that side of the limb.</summary>
    private static Shapes? Felt(Skeleton s, int side, Camera camera, string felt)
    {
        var shapes = new Shapes();
        var any = false;
        var (hip, knee, ankle) = (s.Of(Joint.LeftHip, side), s.Of(Joint.LeftKnee, side), s.Of(Joint.LeftAnkle, side));
        var thigh = (knee - hip).Unit;
        var front = s.Hips.Of(Vec.Forward).Beside(thigh);
        var bend = (knee - hip.Towards(ankle, 0.5)).Beside((ankle - hip).Unit);
        front = bend.Length > 0.02 ? bend.Beside(thigh).Unit : front.Length < 0.2 ? s.Hips.Of(Vec.Up).Beside(thigh).Unit : front.Unit;
        var inner = s.Hips.Of(Vec.Left).Beside(thigh).Unit * -side;
        void Streak(Vec from, Vec to, double at, double by)
        {
            any = true;
            shapes.Capsule(camera.On(from), at, camera.On(to), by);
        }

        // "forearms" are not "arms".
        bool Has(string word) => $" {felt}".Contains(" " + word, StringComparison.Ordinal);
        if (Has("quadriceps") || Has("legs"))
        {
            Streak(hip.Towards(knee, 0.3) + front * 0.026, hip.Towards(knee, 0.85) + front * 0.016, 0.017, 0.013);
        }

        if (Has("hamstrings"))
        {
            Streak(hip.Towards(knee, 0.3) - front * 0.026, hip.Towards(knee, 0.85) - front * 0.014, 0.017, 0.012);
        }

        if (Has("adductors") || Has("inner thigh"))
        {
            Streak(hip.Towards(knee, 0.2) + inner * 0.024, hip.Towards(knee, 0.75) + inner * 0.012, 0.015, 0.011);
        }

        if (Has("seat") || Has("glute"))
        {
            var behind = s.Hips.Of(new Vec(-0.030, 0, -0.012));
            Streak(hip + behind, hip + behind * 0.9 + thigh * 0.02, 0.021, 0.019);
        }

        if (Has("outer hips") || Has("hip flexors"))
        {
            Streak(
                hip + s.Hips.Of(new Vec(Has("hip flexors") ? 0.03 : 0, -side * -0.02, 0.018)),
                hip + thigh * 0.025 + s.Hips.Of(new Vec(0.01, side * 0.02, 0)),
                0.016,
                0.015);
        }

        if (Has("calves") || Has("shins"))
        {
            var shank = (ankle - knee).Unit;
            var back = front.Beside(shank).Unit * (Has("shins") ? 0.010 : -0.014);
            Streak(knee.Towards(ankle, 0.18) + back, knee.Towards(ankle, 0.6) + back * 0.7, 0.015, 0.011);
        }

        if (Has("shoulders") || Has("arms") || Has("deltoids"))
        {
            Streak(s.Of(Joint.LeftShoulder, side), s.Of(Joint.LeftShoulder, side).Towards(s.Of(Joint.LeftElbow, side), 0.45), 0.017, 0.013);
        }

        if (Has("forearms") || Has("grip"))
        {
            var (elbow, wrist) = (s.Of(Joint.LeftElbow, side), s.Of(Joint.LeftWrist, side));
            Streak(elbow.Towards(wrist, 0.1), elbow.Towards(wrist, 0.55), 0.013, 0.010);
        }

        return any ? shapes : null;
    }

    private static Shapes? FeltTrunk(Skeleton s, Camera camera, string felt)
    {
        var shapes = new Shapes();
        var any = false;
        void Streak(double x, double low, double high)
        {
            any = true;
            Vec At(double up) => s[Joint.Pelvis].Towards(s[Joint.Chest], up) + s.Chest.Of(new Vec(x, 0, 0));
            shapes.Capsule(camera.On(At(low)), 0.015, camera.On(At(high)), 0.016);
        }

        if (felt.Contains("trunk", StringComparison.Ordinal) || felt.Contains("obliques", StringComparison.Ordinal))
        {
            Streak(0.028, 0.25, 0.55);
        }

        if (felt.Contains("back", StringComparison.Ordinal) && !felt.Contains("back of", StringComparison.Ordinal))
        {
            Streak(-0.03, 0.25, 0.75);
        }

        if (felt.Contains("chest", StringComparison.Ordinal))
        {
            Streak(0.035, 0.72, 0.88);
        }

        return any ? shapes : null;
    }

    /// <summary>Half the length of a bar or stick as it is drawn. [M]</summary>
    internal static double HalfBar(string kind) => kind == "stick" ? 0.34 : kind == "barbell" ? 0.42 : 0;

    private static IEnumerable<(Ink Ink, double Depth, Shapes Shapes)> Weights(Skeleton s, Carried load, Camera camera)
    {
        var across = s.Chest.Of(Vec.Left);
        var size = Math.Clamp(0.030 + 0.0006 * load.Kg, 0.028, 0.05);
        foreach (var (at, _) in load.At(s))
        {
            var depth = camera.Near(at) + 0.3;
            Shapes Dumbbell(Vec along) => new Shapes()
                .Capsule(camera.On(at - along * 0.05), size * 0.8, camera.On(at - along * 0.036), size * 0.8)
                .Capsule(camera.On(at - along * 0.036), 0.008, camera.On(at + along * 0.036), 0.008)
                .Capsule(camera.On(at + along * 0.036), size * 0.8, camera.On(at + along * 0.05), size * 0.8);
            switch (load.Kind)
            {
                case "barbell" or "stick":
                    var half = HalfBar(load.Kind);
                    var bar = new Shapes().Capsule(camera.On(at - across * half), 0.009, camera.On(at + across * half), 0.009);
                    if (load.Kind == "barbell")
                    {
                        bar.Capsule(camera.On(at - across * 0.40), 0.075, camera.On(at - across * 0.385),
                            0.075).Capsule(camera.On(at + across * 0.385), 0.075, camera.On(at + across * 0.40), 0.075);
                    }

                    yield return (Ink.Kit, depth, bar);
                    break;
                case "plate":
                    yield return (Ink.Kit, depth, new Shapes().Disc(camera.On(at), 0.07));
                    break;
                case "ball":
                    yield return (Ink.Kit, depth, new Shapes().Disc(camera.On(at), 0.062));
                    break;
                case "kettlebell":
                    var racked = load.By == CarriedBy.EachHand && Hanging(s, at).Z > 0.3;
                    var down = racked
                        ? s.Chest.Of(new Vec(0.035, 0, -0.035))
                        : load.By == CarriedBy.BothHands && s.Chest.Of(Vec.Up).Z > 0.5 && at.Z > s[Joint.Lumbar].Z ? Vec.Up * -0.045
                        : Hanging(s, at) * 0.055;
                    yield return (Ink.Kit, depth,
                        new Shapes()
                            .Disc(camera.On(at + down), size + 0.008)
                            .Capsule(camera.On(at), 0.012, camera.On(at + down * 0.6), 0.02));
                    break;
                default:
                    yield return (Ink.Kit, depth,
                        Dumbbell(
                            load.By == CarriedBy.BothHands
                                ? Vec.Up
                                : s.Chest.Of(Vec.Forward).Beside(Vec.Up) is { Length: > 0.3 } flat ? flat.Unit
                                : Vec.Forward));
                    break;
            }
        }
    }

    /// <summary>The way a bell hangs: on from the forearm that holds it.</summary>
    private static Vec Hanging(Skeleton s, Vec at)
    {
        var side = (s[Joint.LeftHand] - at).Length < (s[Joint.RightHand] - at).Length ? 1 : -1;
        return (s.Of(Joint.LeftHand, side) - s.Of(Joint.LeftElbow, side)).Unit;
    }

    /// <summary>Over everything, as a band is worn outside of it.</summary>
    private const double Outside = 5;

    private static IEnumerable<(double Depth, Shapes Shapes)> Band(Skeleton s, BandAt band, Camera camera)
    {
        Shapes Between(Vec a, Vec b) => new Shapes().Capsule(camera.On(a), 0.009, camera.On(b), 0.009);
        Shapes Around(Joint from, Joint to, double share)
        {
            var (left, right) = (s.Of(from, 1).Towards(s.Of(to, 1), share), s.Of(from, -1).Towards(s.Of(to, -1), share));
            var across = (left - right).Unit;
            return new Shapes().Capsule(camera.On(left + across * 0.03), 0.012, camera.On(right - across * 0.03), 0.012);
        }

        // A strand to each hand passes the body on that side, one between the legs is behind the near one.
        (double, Shapes) Strand(Vec end, Vec anchor, double more) => (camera.Near(end.Towards(anchor, 0.5)) + more, Between(end, anchor));
        var hands = s[Joint.LeftHand].Towards(s[Joint.RightHand], 0.5);
        var fixedAt = Fixtures.Anchor(band) ?? hands;
        double Nearness(int side) => camera.Near(s.Of(Joint.LeftShoulder, side));
        double Aside(int side) => Nearness(side) < Nearness(-side) - 0.03 ? -0.35 : 0.35;
        (double, Shapes) OverShoulder(int side) =>
            (Nearness(side) + Aside(side) - 0.16, Between(Over(s, side), side > 0 ? s.LeftBall : s.RightBall));
        return band switch
        {
            BandAt.Knees => [(Outside, Around(Joint.LeftHip, Joint.LeftKnee, 0.84))],
            BandAt.Ankles => [(Outside, Around(Joint.LeftKnee, Joint.LeftAnkle, 0.84))],
            BandAt.Feet => [(Outside, Between(s.LeftBall, s.RightBall))],
            BandAt.Shoulders => [OverShoulder(1), OverShoulder(-1)],
            BandAt.AnchorBehind => [Strand(hands, fixedAt, -0.001)],
            BandAt.AnchorAhead or BandAt.AnchorBack or BandAt.AnchorHigh =>
                [Strand(s[Joint.LeftHand], fixedAt, Aside(1)), Strand(s[Joint.RightHand], fixedAt, Aside(-1))],
            BandAt.AnchorAnkle => [Strand(s[Joint.RightAnkle], fixedAt, 0.2)],
            BandAt.Hips => [(Outside, Between(s[Joint.Pelvis] + s.Hips.Of(new Vec(0.05, 0, 0)), new Vec(s[Joint.Pelvis].X, 0, 0)))],
            BandAt.None => [],
        };
    }

    /// <summary>The front of a shoulder, over which a long band runs.</summary>
    private static Vec Over(Skeleton s, int side) => s.Of(Joint.LeftShoulder, side) + s.Chest.Of(new Vec(0.05, 0, 0.01));

    /// <summary>What stands in the room, as the outline of its corners.</summary>
    private static Shapes Block(Fixture fixture, Camera camera)
    {
        var (a, b) = (fixture.From, fixture.To);
        List<(Point, double)> corners = [];
        foreach (var x in (double[])[a.X, b.X])
        {
            foreach (var y in (double[])[a.Y, b.Y])
            {
                foreach (var z in (double[])[a.Z, b.Z])
                {
                    corners.Add((camera.On(new Vec(x, y, z)), 0));
                }
            }
        }

        var shapes = new Shapes();
        switch (fixture.Kind)
        {
            case "chair":
                shapes.Hull(Corners(a with { Z = b.Z - 0.03 }, b, camera));
                foreach (var x in (double[])[a.X + 0.01, b.X - 0.01])
                {
                    foreach (var y in (double[])[a.Y + 0.01, b.Y - 0.01])
                    {
                        shapes.Capsule(camera.On(new Vec(x, y, 0)), 0.009, camera.On(new Vec(x, y, b.Z)), 0.009);
                    }
                }

                shapes.Hull(Corners(new Vec(a.X - 0.012, a.Y, b.Z), new Vec(a.X + 0.012, b.Y, b.Z + 0.27), camera));
                return shapes;
            case "machine":
                // Seat, tall back, a column to the floor.
                shapes.Hull(Corners(a with { Z = b.Z - 0.035 }, b, camera));
                shapes.Hull(Corners(new Vec(a.X - 0.03, a.Y + 0.02, b.Z - 0.035), new Vec(a.X, b.Y - 0.02, b.Z + 0.38), camera));
                shapes.Hull(Corners(new Vec(a.X + 0.03, -0.05, 0), new Vec(b.X - 0.08, 0.05, b.Z - 0.03), camera));
                shapes.Hull(Corners(new Vec(a.X - 0.02, a.Y - 0.03, 0), new Vec(b.X, b.Y + 0.03, 0.02), camera));
                return shapes;
            case "chairBack":
                shapes.Hull(Corners(new Vec(a.X, a.Y, 0.27), new Vec(b.X, b.Y, 0.30), camera));
                shapes.Hull(Corners(new Vec(a.X - 0.012, a.Y, 0.27), new Vec(a.X + 0.012, b.Y, 0.52), camera));
                foreach (var x in (double[])[a.X + 0.01, b.X - 0.01])
                {
                    shapes.Capsule(camera.On(new Vec(x, a.Y, 0)), 0.009, camera.On(new Vec(x, a.Y, 0.28)), 0.009);
                }

                return shapes;
            default:
                return shapes.Hull(corners);
        }
    }

    private static List<(Point, double)> Corners(Vec a, Vec b, Camera camera)
    {
        List<(Point, double)> corners = [];
        foreach (var x in (double[])[a.X, b.X])
        {
            foreach (var y in (double[])[a.Y, b.Y])
            {
                corners.Add((camera.On(new Vec(x, y, a.Z)), 0));
                corners.Add((camera.On(new Vec(x, y, b.Z)), 0));
            }
        }

        return corners;
    }

    private static Point Inward(Point from, Point to, double by) => from + (to - from) * (by / Math.Max((to - from).Length, by));
}
