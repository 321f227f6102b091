using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>From a word for an arm to where its wrist is and to which side its elbow bends.</summary>
internal static class ArmWords
{
    public const double Reach = UpperArm + Forearm;

    /// <summary>Where a hand hold stands: a wall at the side, in front, the back of a chair. [M] Elbow height.</summary>
    public const double WallAside = 0.30;

    public const double WallAhead = 0.36;
    public const double ChairAhead = 0.36;
    private const double HoldHeight = 0.58;
    private const double ChairBack = 0.50;

    /// <summary>A hand that hangs does not hang through the floor.</summary>
    private const double LowestWrist = 0.068;

    private const double LowestElbow = 0.01;

    /// <summary>How flat a palm lies above what it leans on.</summary>
    public const double Palm = 0.022;

    /// <summary>Where the hands of a plank are, from under the middle of the shoulders: a little behind, wider than they.</summary>
    private const double PlankBehind = 0.05;

    private const double PlankWide = 0.165;

    /// <summary>How high the shoulders of a plank are over the wrists.</summary>
    public static readonly double StraightDown = Math.Sqrt(
        0.99 * 0.99 * Reach * Reach - PlankBehind * PlankBehind - (PlankWide - ShoulderBreadth / 2) * (PlankWide - ShoulderBreadth / 2));

    /// <summary>Neither arm is ever quite straight.</summary>
    private const double Soft = 0.998;

    /// <param name="Hips">Where the hips are, with their turn.</param>
    internal readonly record struct Body(
        KeyPose Pose, Vec Pelvis, Turn Hips, Turn Chest, Limb Leg, Limb OtherLeg, Vec Ankle, Vec OtherAnkle, int Side);

    public static (Limb Arm, HandState Hand) Of(ArmSpec spec, Body b)
    {
        var (arm, hand) = Placed(spec, b);
        var shoulder = Skeleton.ShoulderOf(b.Pelvis, b.Hips, b.Chest, b.Side);
        for (var again = 0; again < 3; again++)
        {
            var frame = b.Chest * arm.Frame;
            var along = -frame.Of(Vec.Up);
            var wrist = shoulder + along * arm.Length;
            var elbow = Skeleton.Middle(shoulder, along, -frame.Of(Vec.Forward), arm.Length, UpperArm, Forearm);
            var under = hand.Fixed ? 0 : Math.Max(0, -(wrist + (wrist - elbow).Unit * Skeleton.Grip).Z);
            if (elbow.Z >= LowestElbow && under <= 0)
            {
                break;
            }

            // What would go through the floor goes out to its side, and up.
            var pole = elbow.Z < LowestElbow ? Pole(b, 0, 1, 0) + Vec.Up : -frame.Of(Vec.Forward);
            arm = Reaching(shoulder, wrist + Vec.Up * (under * 1.5), -pole, b.Chest, 0.088, Reach * Soft);
        }

        return (arm, hand);
    }

    private static (Limb Arm, HandState Hand) Placed(ArmSpec spec, Body b)
    {
        var shoulder = Skeleton.ShoulderOf(b.Pelvis, b.Hips, b.Chest, b.Side);
        if (spec.Flex is { } flex)
        {
            return (Angles(flex, spec.Out, spec.Elbow, spec.Turn, b.Side), default);
        }

        if (!spec.At.IsDefaultOrEmpty)
        {
            var place = new Vec(spec.At[0], b.Side * spec.At[1], spec.At[2]);
            var (arm, hand) = Fixed(shoulder, place, Pole(b, -0.8, 0.4, -0.4), b, spec.Palm ? 1 : 0);
            return (arm, hand with { Rests = spec.Rests });
        }

        if (!spec.By.IsDefaultOrEmpty)
        {
            return (
                To(shoulder, Middle(b) + b.Chest.Of(new Vec(spec.By[0], b.Side * spec.By[1], spec.By[2])), Pole(b, -0.4, 0.5, -0.8),
                    b.Chest),
                default);
        }

        return Word(spec.Word ?? ArmWord.Sides, shoulder, b);
    }

    private static (Limb, HandState) Word(ArmWord word, Vec shoulder, Body b)
    {
        (Limb, HandState) Chest(double x, double y, double z, Vec pole) =>
            (To(shoulder, Middle(b) + b.Chest.Of(new Vec(x, b.Side * y, z)), pole, b.Chest), default);
        (Limb, HandState) Room(Vec place, Vec pole) =>
            (To(shoulder, place with { Z = Math.Max(place.Z, LowestWrist) }, pole, b.Chest), default);
        (Limb, HandState) Stay(Vec place, Vec pole, double flat = 0, Vec way = default) => Fixed(shoulder, place, pole, b, flat, way);
        var lies = b.Pose.On is Carrier.Back or Carrier.Shoulders or Carrier.Side or Carrier.Front;
        switch (word)
        {
            case ArmWord.Sides when b.Pose.On is Carrier.Shoulders or Carrier.Back:
                // Heavy on the floor, whatever the hips do.
                var (resting, there) = Stay(new Vec(shoulder.X + Reach * 0.97, shoulder.Y + b.Side * 0.055, 0.028), Pole(b, -0.2, 1, 0));
                return (resting, there with { Rests = true });
            case ArmWord.Sides when lies:
                return Room(shoulder + b.Chest.Of(new Vec(-0.012, b.Side * 0.045, -Reach * 0.985)), Pole(b, -0.2, 1, 0));
            case ArmWord.Sides:
                return Room(
                    shoulder + b.Chest.Of(Vec.Left).Beside(Vec.Up) * (b.Side * 0.025) + Vec.Up * -(Reach * 0.99), Pole(b, -1, 0.3, 0));
            case ArmWord.Low:
                var legs = new HangingWeight.Legs(b.Pelvis, b.Hips, b.Leg, b.OtherLeg, b.Ankle, b.OtherAnkle, b.Side);
                return HangingWeight.Hang(shoulder, b.Chest, legs, b.Pose.Hands);
            case ArmWord.Forward:
                var ahead = b.Chest.Of(Vec.Forward).Beside(Vec.Up);
                return lies
                    ? Chest(Reach * 0.98, 0.12, 0, Pole(b, 0, 0.4, -1))
                    : Room(shoulder + (ahead.Unit * 0.985 + Vec.Up * -0.05 + b.Chest.Of(Vec.Left) * (b.Side * -0.10)) * Reach,
                        Pole(b, 0, 0.6, -1));
            case ArmWord.Hips:
                return Room(b.Pelvis + b.Hips.Of(new Vec(0.035, b.Side * 0.105, 0.035)), Pole(b, -0.35, 1, 0));
            case ArmWord.Crossed:
                return Chest(0.085, -0.075, -0.055, Pole(b, 0.1, 0.5, -1));
            case ArmWord.Chest:
                return Chest(0.135, 0.03, -0.07, Pole(b, -0.1, 0.8, -1));
            case ArmWord.Goblet:
                return Chest(0.105, 0.035, -0.075, Pole(b, 0.1, 0.55, -1));
            case ArmWord.Rack:
                return Chest(0.105, 0.115, 0.0, Pole(b, 0.35, 0.35, -1));
            case ArmWord.FrontRack:
                return Chest(0.105, 0.15, 0.02, Pole(b, 1, 0.3, -0.25));
            case ArmWord.Back:
                return Chest(-0.015, 0.215, 0.035, Pole(b, -0.5, 0.4, -1));
            case ArmWord.Head:
                return Chest(-0.005, 0.075, 0.13, Pole(b, 0.1, 1, 0.15));
            case ArmWord.UnderHead:
                return Chest(-0.035, 0.06, 0.12, Pole(b, 0, 1, 0.2));
            case ArmWord.Overhead:
                return Chest(0.0, 0.105, Reach * 0.985, Pole(b, 0.5, 1, 0));
            case ArmWord.Out:
                return Chest(0.01, ShoulderBreadth / 2 + Reach * 0.985, 0, Pole(b, -0.6, 0, -1));
            case ArmWord.OutBent:
                return (Angles(4, 88, 90, 86, b.Side), default);
            case ArmWord.Thigh:
                return Room(Along(b, 0.68, 0.055), Pole(b, -0.5, 1, 0));
            case ArmWord.BehindThigh:
                return Room(Along(b, 0.62, -0.062), Pole(b, -0.3, 1, 0));
            case ArmWord.Knee:
                return Room(Along(b, 0.95, 0.05), Pole(b, -0.4, 1, 0));
            case ArmWord.Foot:
                return Room(b.Ankle + (Middle(b) - b.Ankle).Unit * 0.03, Pole(b, -1, 0.5, 0));
            case ArmWord.TowardFoot:
                return Room(
                    shoulder.Towards(b.OtherAnkle, Math.Min(1, Reach * 0.98 / (b.OtherAnkle - shoulder).Length)), Pole(b, -0.3, 1, 0));
            case ArmWord.Swing:
                return (Angles(38, 4, 82, 0, b.Side), default);
            case ArmWord.SwingBack:
                return (Angles(-38, 6, 62, 0, b.Side), default);
            case ArmWord.Wall:
                return Stay(new Vec(0.10, b.Side * (WallAside - 0.01), HoldHeight), Pole(b, -0.4, 0.3, -1));
            case ArmWord.WallAhead:
                return Stay(new Vec(WallAhead - 0.02, b.Side * 0.11, HoldHeight + 0.15), Pole(b, -0.2, 0.6, -1), 1, Vec.Up);
            case ArmWord.ChairAhead:
                return Stay(new Vec(ChairAhead - 0.05, b.Side * 0.10, ChairBack + 0.03), Pole(b, -0.5, 0.5, -1), 1, Vec.Forward);
            case ArmWord.Floor:
                var hands = b.Pose.On == Carrier.Knees ? new Vec(0.245, 0.13, 0) : new Vec(-PlankBehind, PlankWide, 0);
                return Stay(
                    new Vec(hands.X, b.Side * hands.Y, b.Pose.On == Carrier.Hands ? b.Pose.Height + Palm : Palm),
                    Pole(b, -0.4, 0.5, -0.9),
                    1,
                    Vec.Forward);
            case ArmWord.Forearm:
                return Stay(Elbow(b) + Vec.Forward * Forearm, -Vec.Up + Vec.Forward * -0.5, 1, Vec.Forward);
            case ArmWord.Seat:
                return Stay(b.Pelvis + new Vec(-0.09, b.Side * 0.13, -0.055 + Palm), Pole(b, -1, 0.4, 0), 1, Vec.Forward);
            case ArmWord.Brow:
                return Room(Middle(b) + b.Chest.Of(new Vec(0.035, b.Side * 0.02, 0.13)), Pole(b, 0, 1, 0.1));
            case ArmWord.Tailbone:
                return Room(b.Pelvis + b.Hips.Of(new Vec(-0.045, b.Side * 0.055, 0.02)), Pole(b, -0.1, 1, 0));
            case ArmWord.OnHips:
                return Room(b.Pelvis + b.Hips.Of(new Vec(0.085, b.Side * 0.13, 0.035)), Pole(b, -0.3, 1, -0.1));
            default:
                throw new InvalidOperationException($"No arm is held “{word}”.");
        }
    }

    /// <summary>Elbow of a forearm on the floor, under the shoulder.</summary>
    public static Vec Elbow(Body b) => b.Pose.On == Carrier.Side
        ? new Vec(0.26, 0.02, 0.028)
        : new Vec(-0.02, b.Side * 0.12, b.Pose.Height + 0.028);

    private static Vec Middle(Body b) => b.Pelvis + b.Hips.Of(Vec.Up) * Skeleton.LumbarLength + b.Chest.Of(Vec.Up) * Skeleton.ChestLength;

    /// <summary>A place on the front of the thigh.</summary>
    private static Vec Along(Body b, double share, double above)
    {
        var hip = Skeleton.HipOf(b.Pelvis, b.Hips, b.Side);
        var frame = b.Hips * b.Leg.Frame;
        var knee = Skeleton.Middle(hip, -frame.Of(Vec.Up), frame.Of(Vec.Forward), b.Leg.Length, Thigh, Shank);
        var thigh = (knee - hip).Unit;
        return hip.Towards(knee, share) + frame.Of(Vec.Forward).Beside(thigh).Unit * above;
    }

    private static Vec Pole(Body b, double x, double y, double z) => b.Chest.Of(new Vec(x, b.Side * y, z));

    private static (Limb, HandState) Fixed(Vec shoulder, Vec place, Vec pole, Body b, double flat = 0, Vec way = default)
    {
        var limb = To(shoulder, place, pole, b.Chest);
        var wrist = shoulder + (b.Chest * limb.Frame).Of(Vec.Up) * -limb.Length;
        return (limb, new HandState(true, wrist, flat, way == default ? Vec.Forward : way));
    }

    /// <summary>A limb of two bones to a target; as far as it reaches where that is too far.</summary>
    public static Limb To(Vec root, Vec end, Vec pole, Turn parent) => Reaching(root, end, -pole, parent, 0.088, Reach * Soft);

    public static Limb Reaching(Vec root, Vec end, Vec forward, Turn parent, double least, double most)
    {
        var way = end - root;
        var length = Math.Clamp(way.Length, least, most);
        return new Limb(parent.Inverse * Turn.To(forward, -way.Unit), length);
    }

    /// <summary>An arm by its angles; degrees.</summary>
    private static Limb Angles(double flex, double outward, double elbow, double turn, int side)
    {
        var upper = Turn.Pitch(-flex) * Turn.Roll(side * outward) * Turn.Yaw(side * turn);
        var lower = upper * Turn.Pitch(-Math.Max(5, elbow));
        var end = upper.Of(-Vec.Up) * UpperArm + lower.Of(-Vec.Up) * Forearm;
        return new Limb(Turn.To(upper.Of(Vec.Forward), -end.Unit), end.Length);
    }
}
