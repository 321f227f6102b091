using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>A pose that no body can take, and where.</summary>
public sealed class PoseRefusedException(string joint, string why) : Exception($"{joint}: {why}")
{
    /// <summary>The joint that would be out of its range.</summary>
    public string Joint { get; } = joint;
}

/// <summary>
/// From the words of a key pose to a posture: contacts stay where they are said to be, and what stands on its feet balances.
/// </summary>
public static class PoseSolver
{
    /// <summary>Neither knee is ever quite straight. [M]</summary>
    private const double StraightKnee = 4;

    internal const double MostLeg = (Thigh + Shank) * 0.9995;

    /// <summary>From the axis of a lying trunk or leg to the floor.</summary>
    public const double Lying = 0.062;

    private const double KneeOnFloor = 0.042;

    /// <summary>How far a heel comes up over the ball of the foot, degrees.</summary>
    private const double MostHeel = 80;

    /// <summary>From the axis of the trunk to the skin of the back. [M]</summary>
    public const double BackBehind = 0.07;

    /// <summary>From the hips to the seat below.</summary>
    public const double Seat = 0.058;

    /// <summary>How far shoulder blades lie below the shoulders, on a bench.</summary>
    public const double BladesBelow = 0.075;

    /// <summary>Mid-foot, ahead of the ankle.</summary>
    public const double MidFoot = Foot / 2 - Heel;

    /// <param name="ankle">The most that a shin leans over a flat foot, degrees; a stiff ankle has less.</param>
    public static Posture Solve(KeyPose pose, Carried? load = null, double ankle = JointLimits.AnkleBend)
    {
        var posture = pose.On switch
        {
            Carrier.Feet => Standing.Solve(pose, load, ankle),
            Carrier.Knees or Carrier.Hands or Carrier.Back or Carrier.Shoulders or Carrier.Bench or Carrier.Side
                or Carrier.Front or Carrier.Seat or Carrier.Wall => Resting(pose),
        };
        posture = posture with { On = pose.On };
        return pose.Air > 0
            ? posture with
            {
                Pelvis = posture.Pelvis + Vec.Up * pose.Air,
                LeftFoot = Lifted(posture.LeftFoot, pose.Air),
                RightFoot = Lifted(posture.RightFoot, pose.Air),
                Air = pose.Air
            } : posture;
    }

    /// <summary>A foot in the air stays where it is turned to; it stands on nothing.</summary>
    private static FootState Lifted(FootState foot, double air) => foot with { Hold = Hold.Free, Place = foot.Place + Vec.Up * air };

    private static Posture Resting(KeyPose p)
    {
        switch (p.On)
        {
            case Carrier.Knees:
                var thigh = Turn.Pitch(-p.Sit).Of(Vec.Up) * Thigh;
                var knees = new Vec(0, 0, KneeOnFloor);
                return Build(p, knees + thigh, Upright(p, p.Lean ?? 0)) with { Anchor = knees };
            case Carrier.Hands:
                return Plank(p);
            case Carrier.Back:
                return Still(p, new Vec(0, 0, Math.Max(Lying, 0.02 + HipBreadth / 2 * Math.Abs(Math.Sin(p.Twist * Math.PI / 180)))), -90);
            case Carrier.Front:
                return Still(p, new Vec(0, 0, Lying), 90);
            case Carrier.Shoulders:
                return Bridge(p, new Vec(-Trunk, 0, Lying), Trunk, BridgeTop(SpecOf(p, -1).Z));
            case Carrier.Bench:
                var blades = new Vec(-Trunk + BladesBelow, 0, p.Height + 0.05);
                return Bridge(p, blades, Trunk - BladesBelow, 0, -42);
            case Carrier.Side:
                return p.OnRight ? Mirrored(OnSide(p)) : OnSide(p);
            default:
                return Still(p, new Vec(0, 0, p.Height + Seat), p.Lean ?? 0);
        }
    }

    private static Posture Still(KeyPose p, Vec pelvis, double lean) => Build(p, pelvis, Upright(p, lean)) with { Anchor = pelvis };

    /// <summary>Hips and chest of a trunk that leans by so many degrees.</summary>
    internal static (Turn Hips, Turn Chest) Upright(KeyPose p, double lean)
    {
        var hips = Turn.Yaw(p.Face) * Turn.Pitch(lean - p.Round * 0.35) * Turn.Roll(p.Tilt) * Turn.Yaw(p.Twist);
        var chest = Turn.Yaw(p.Face) * Turn.Pitch(lean + p.Round * 0.65) * Turn.Roll(p.Tilt + p.Tip) * Turn.Yaw(p.Turn);
        return (hips, chest);
    }

    /// <summary>The trunk turns about the shoulders from lying to in line with the thighs.</summary>
    private static Posture Bridge(KeyPose p, Vec pivot, double length, double top, double low = 0)
    {
        // At the top shoulder, hip and knee are in line: asin((knee height - shoulder height) / (trunk + thigh)).
        var rise = low + (top - low) * p.Lift;
        var trunk = Turn.Pitch(-90 - rise);
        var pelvis = pivot - trunk.Of(Vec.Up) * length;
        var hips = trunk * Turn.Pitch(-p.Round) * Turn.Roll(p.Tilt);
        return Build(p, pelvis, (hips, trunk)) with { Anchor = pivot };
    }

    private static Posture OnSide(KeyPose p)
    {
        // On the left side, the head to the right of the picture, the front towards who looks.
        var side = Turn.To(new Vec(0, -1, 0), new Vec(1, 0, 0));
        if (p.Lift <= 0)
        {
            return Still(p, new Vec(0, 0, ShoulderBreadth / 2 + 0.03), side * Turn.Yaw(p.Face));
        }

        // Lifted: from feet (or knees) to hips to a shoulder over its elbow; the hips come down by themselves.
        var reach = p.OnKnees ? Thigh : Thigh + Shank;
        var foot = new Vec(-reach, 0, p.OnKnees ? KneeOnFloor : 0.06);
        var shoulder = UpperArm + 0.03 + ShoulderBreadth / 2 * 0.9;
        var straight = foot.Z + (shoulder - foot.Z) * reach / (reach + Trunk);
        var hip = straight - p.Down * (straight - 0.12);
        var low = Math.Asin((hip - foot.Z) / reach) * 180 / Math.PI;
        var high = Math.Asin((shoulder - hip) / Trunk) * 180 / Math.PI;
        var hips = Turn.Pitch(-low) * side * Turn.Yaw(p.Face);
        var chest = Turn.Pitch(-high) * side * Turn.Yaw(p.Face) * Turn.Yaw(p.Turn);
        return Build(p, foot + Turn.Pitch(-low).Of(Vec.Forward) * reach, (hips, chest)) with { Anchor = foot };
    }

    /// <summary>The same posture as a mirror across the way forward shows it: left is right, and it still faces who looks.</summary>
    private static Posture Mirrored(Posture p)
    {
        static Vec Across(Vec v) => v with { X = -v.X };
        static Turn World(Turn t) => Turn.To(Across(t.Of(Vec.Forward)), Across(t.Of(Vec.Up)));
        static Limb Local(Limb l) => l with { Frame = new Turn(l.Frame.W, -l.Frame.X, l.Frame.Y, -l.Frame.Z) };
        static FootState Foot(FootState f) => f with { Place = Across(f.Place), World = World(f.World) };
        static HandState Hand(HandState h) => h with { At = Across(h.At), Way = Across(h.Way) };
        return p with
        {
            Pelvis = Across(p.Pelvis),
            Hips = World(p.Hips),
            Chest = World(p.Chest),
            Head = World(p.Head),
            LeftLeg = Local(p.RightLeg),
            RightLeg = Local(p.LeftLeg),
            LeftFoot = Foot(p.RightFoot),
            RightFoot = Foot(p.LeftFoot),
            LeftArm = Local(p.RightArm),
            RightArm = Local(p.LeftArm),
            LeftHand = Hand(p.RightHand),
            RightHand = Hand(p.LeftHand),
            Anchor = p.Anchor is { } anchor ? Across(anchor) : null,
        };
    }

    private static Posture Still(KeyPose p, Vec pelvis, Turn trunk) =>
        Build(p, pelvis, (trunk, trunk * Turn.Pitch(p.Round) * Turn.Roll(p.Tip) * Turn.Yaw(p.Turn))) with { Anchor = pelvis };

    /// <summary>The sine of the steepest plank, 52°; hands on something higher are hands on a wall. [M]</summary>
    private const double MostRise = 0.79;

    /// <summary>The furthest that legs lean back over the feet under raised hips, 100°. [M]</summary>
    private const double MostTilt = 100 * Math.PI / 180;

    /// <summary>Hands (or forearms) stay, feet (or knees) stay; hips in line, or high.</summary>
    private static Posture Plank(KeyPose p)
    {
        var onForearms = (p.RightArm ?? p.Arms)?.Word == ArmWord.Forearm;
        var arm = onForearms ? UpperArm + 0.028 : ArmWords.StraightDown + ArmWords.Palm;
        var leg = p.OnKnees ? Thigh : Thigh + Shank * 0.999;
        var foot = p.OnKnees ? KneeOnFloor : Skeleton.AnkleOf(ToesTucked(new Vec(0, 0, 0))).Z;

        // Where the feet are follows from the straight plank; they stay there when the chest comes down or the hips go up.
        var along = leg + Trunk;
        p = p with { Height = Math.Min(p.Height, foot + along * MostRise - arm) };

        // On something higher the arms lean back as far as the body leans more than on the floor: the chest comes down to the hands.
        var level = Math.Asin(Math.Clamp((arm - foot) / along, -1, 1));
        var tilt = 0.0;
        for (var i = 0; i < 24; i++)
        {
            tilt = p.Height > 0 ? Math.Max(0, Math.Asin(Math.Clamp((p.Height + arm * Math.Cos(tilt) - foot) / along, -1, 1)) - level) : 0;
        }

        var shoulder = p.Height + arm * Math.Cos(tilt);
        var feet = -arm * Math.Sin(tilt) - Math.Sqrt(along * along - (shoulder - foot) * (shoulder - foot));
        var bend = p.Pike * Math.PI / 180;
        var straight = Math.Sqrt(leg * leg + Trunk * Trunk + 2 * leg * Trunk * Math.Cos(bend));
        Vec chest;
        if (p.Pike > 30)
        {
            // Arms in line with the trunk: feet and hands stay, the hips are where legs and trunk with arms meet.
            var arms = Trunk + ArmWords.Reach * 0.99 * Math.Min(1, p.Pike / 70);
            var from = new Vec(-0.05, 0, p.Height + 0.06);
            var gap = Math.Sqrt((from.X - feet) * (from.X - feet) + (from.Z - foot) * (from.Z - foot));
            var up = (leg * leg - arms * arms + gap * gap) / (2 * gap);
            var ratio = Math.Clamp(up / leg, -1, 1);
            // Where the hands are too near for straight arms, the thighs stop just past upright and the elbows bend.
            var back = Math.Min(Math.Atan2(from.Z - foot, from.X - feet) + Math.Acos(ratio), MostTilt);
            var hip = new Vec(feet + leg * Math.Cos(back), 0, foot + leg * Math.Sin(back));
            chest = hip + (from - hip).Unit * Trunk;
        }
        else
        {
            var low = shoulder - p.Down * (shoulder - p.Height - 0.095);
            chest = new Vec(feet + Math.Sqrt(Math.Max(0, straight * straight - (low - foot) * (low - foot))), 0, low);
        }

        var ankle = new Vec(feet, 0, foot);
        var span = chest - ankle;
        var reach = span.Length;
        var down = (Trunk * Trunk - leg * leg + reach * reach) / (2 * reach);
        var high = Math.Sqrt(Math.Max(0, Trunk * Trunk - down * down));
        var line = span.Unit;
        var pelvis = chest - line * down + Turn.Pitch(-90).Of(line) * high;
        var turn = Turn.To(new Vec(0, 0, -1), chest - pelvis);
        var hips = turn * Turn.Yaw(p.Face) * Turn.Roll(p.Tilt);
        return Build(p, pelvis, (hips, turn * Turn.Yaw(p.Face) * Turn.Pitch(p.Round) * Turn.Roll(p.Tip) * Turn.Yaw(p.Turn)),
            feet) with
        { Anchor = ankle };
    }

    internal static FootState ToesTucked(Vec place) => Stood(place, 0, 78);

    private static Posture Build(KeyPose p, Vec pelvis, (Turn Hips, Turn Chest) trunk, double feet = 0)
    {
        var (left, leftFoot) = Leg(p, pelvis, trunk.Hips, +1, feet);
        var (right, rightFoot) = Leg(p, pelvis, trunk.Hips, -1, feet);
        return Upper(p, pelvis, trunk.Hips, trunk.Chest, (left, leftFoot), (right, rightFoot));
    }

    /// <summary>Head and arms on a body whose trunk and legs are placed.</summary>
    internal static Posture Upper(
        KeyPose p, Vec pelvis, Turn hips, Turn chest, (Limb Leg, FootState Foot) left, (Limb Leg, FootState Foot) right)
    {
        Vec Ankle(int side, Limb leg) => Skeleton.HipOf(pelvis, hips, side) + (hips * leg.Frame).Of(Vec.Up) * -leg.Length;
        var (leftAnkle, rightAnkle) = (Ankle(1, left.Leg), Ankle(-1, right.Leg));
        var (leftArm, leftHand) = ArmWords.Of(p.LeftArm ?? p.Arms ?? new ArmSpec(),
            new ArmWords.Body(p, pelvis, hips, chest, left.Leg, right.Leg, leftAnkle, rightAnkle, 1));
        var (rightArm, rightHand) = ArmWords.Of(p.RightArm ?? p.Arms ?? new ArmSpec(),
            new ArmWords.Body(p, pelvis, hips, chest, right.Leg, left.Leg, rightAnkle, leftAnkle, -1));
        return new Posture(
            pelvis, hips, chest, Head(p, chest), left.Leg, right.Leg, left.Foot, right.Foot, leftArm, rightArm, leftHand, rightHand, 0);
    }

    /// <summary>The head follows the chest; of a trunk that leans it looks a little up, 1–3 m ahead. [M]</summary>
    private static Turn Head(KeyPose p, Turn chest)
    {
        var up = chest.Of(Vec.Up);
        var lean = Math.Acos(Math.Clamp(up.Z, -1, 1)) * 180 / Math.PI;
        var forward = up.X >= 0 && p.On is Carrier.Feet or Carrier.Knees or Carrier.Seat or Carrier.Hands;
        var back = forward ? Math.Min(0.38 * lean, 26) : p.On is Carrier.Bench or Carrier.Shoulders ? -Math.Clamp(lean - 90, -10, 30) : 0;
        return chest * Turn.Pitch(p.Head - back);
    }

    internal static FootSpec SpecOf(KeyPose p, int side) => (side > 0 ? p.Left : p.Right) ?? new FootSpec();

    /// <summary>Where a foot is said to stand.</summary>
    internal static FootState Planted(KeyPose p, FootSpec spec, int side)
    {
        var behind = p.Split * side > 0;
        var place = new Vec(spec.X - (behind ? Math.Abs(p.Split) : 0) + BridgeFeet(p, spec), side * (spec.Y ?? p.Width / 2), spec.Z);
        var knee = p.Knees + spec.Rotate;
        var yaw = side * (spec.Turn ?? p.Toes);
        if (spec.Laces)
        {
            return new FootState(Hold.Laces, place, yaw, 0, Turn.Yaw(yaw) * Turn.Pitch(172), knee);
        }

        if (spec.Edge)
        {
            return new FootState(Hold.Edge, place, yaw, 0, Turn.Yaw(yaw) * Turn.Roll(side * EdgeRoll), knee);
        }

        var pitch = spec.Heel ?? (behind ? 40 + 0.2 * p.Depth : 0) + p.Heels;

        // A rear foot is told by its ankle: on the toes that is ahead of where it would be flat.
        if (behind && spec.Heel is null)
        {
            place -= new Vec(RearAnkle, 0, 0);
        }

        return Stood(place, yaw, pitch, knee);
    }

    /// <summary>
    /// Where the feet of a bridge stand, so that the shins are upright at the top: trunk and thighs in line from the shoulders to there.
    /// </summary>
    private static double BridgeFeet(KeyPose p, FootSpec spec) => p.On switch
    {
        Carrier.Shoulders => -Trunk + (Trunk + Thigh) * Math.Cos(BridgeTop(spec.Z) * Math.PI / 180),
        Carrier.Bench => Thigh,
        Carrier.Feet or Carrier.Knees or Carrier.Hands or Carrier.Back or Carrier.Side or Carrier.Front
            or Carrier.Seat or Carrier.Wall => 0,
    };

    /// <summary>A trunk on its shoulders rises no steeper, degrees. [M] Past that the neck carries.</summary>
    private const double Steepest = 52;

    /// <summary>How far the trunk rises until shoulder, hip and knee are in line, degrees.</summary>
    private static double BridgeTop(double raised) =>
        Math.Min(Steepest, Math.Asin(Math.Min(1, (KneeHeight + raised - Lying) / (Trunk + Thigh))) * 180 / Math.PI);

    /// <summary>How far a foot is rolled on its outer edge, degrees. [M]</summary>
    private const double EdgeRoll = 68;

    internal static FootState Stood(Vec place, double yaw, double pitch, double knee = 0) =>
        new(Hold.Planted, place, yaw, pitch, Turn.Yaw(yaw) * Turn.Pitch(pitch), knee, pitch > 0 ? 1 : 0);

    private static readonly double RearAnkle = Skeleton.AnkleOf(Stood(new Vec(0, 0, 0), 0, 58)).X;

    /// <summary>A leg of a body whose pelvis is placed: to where its foot is, on its knee, or free by its angles.</summary>
    internal static (Limb Leg, FootState Foot) Leg(KeyPose p, Vec pelvis, Turn hips, int side, double feet)
    {
        var spec = SpecOf(p, side);
        if (spec.Free)
        {
            return Free(spec, pelvis, hips, side);
        }

        var hip = Skeleton.HipOf(pelvis, hips, side);
        var carried = p.On is Carrier.Knees || p.OnKnees && p.On is Carrier.Hands;
        if (spec.Kneel || carried && (side > 0 ? p.Left : p.Right) is null)
        {
            return Kneeling(p.On == Carrier.Hands ? spec with { X = feet } : spec, hip, hips, side);
        }

        if (p.On is Carrier.Hands && (side > 0 ? p.Left : p.Right) is null)
        {
            var width = side * p.Width / 2;
            var tucked = ToesTucked(new Vec(0, width, 0));
            var ankle = Skeleton.AnkleOf(tucked);
            tucked = tucked with { Place = new Vec(feet - ankle.X, width, 0) };
            return Reach(tucked, hip, hips, side);
        }

        return Reach(Planted(p, spec, side), hip, hips, side);
    }

    /// <summary>A leg to its planted foot; the heel comes up where it would not reach.</summary>
    internal static (Limb Leg, FootState Foot) Reach(FootState foot, Vec hip, Turn hips, int side)
    {
        if (foot.Hold == Hold.Planted && (Skeleton.AnkleOf(foot) - hip).Length > MostLeg)
        {
            var (low, high) = (foot.Pitch, MostHeel);
            for (var i = 0; i < 30; i++)
            {
                var middle = (low + high) / 2;
                (low, high) = (Skeleton.AnkleOf(Stood(foot.Place, foot.Yaw, middle)) - hip).Length > MostLeg
                    ? (middle, high)
                    : (low, middle);
            }

            foot = Stood(foot.Place, foot.Yaw, high, foot.KneeOut);
        }

        var leg = ArmWords.Reaching(hip, Skeleton.AnkleOf(foot), Pole(foot, side), hips, 0.13, MostLeg);
        return (leg, foot);
    }

    /// <summary>A knee goes where its foot points, or further out or in.</summary>
    internal static Vec Pole(FootState foot, int side)
    {
        if (foot.Hold == Hold.Edge)
        {
            return new Vec(0, side, 0.55).Unit;
        }

        var turn = foot.Hold == Hold.Laces ? Turn.Yaw(foot.Yaw) : foot.World;
        return Turn.Yaw(side * foot.KneeOut).Of(turn.Of(Vec.Forward) + turn.Of(Vec.Up) * (foot.Hold == Hold.Laces ? 0 : 1));
    }

    private static (Limb, FootState) Kneeling(FootSpec spec, Vec hip, Turn hips, int side)
    {
        var knee = new Vec(spec.X, side * (spec.Y ?? HipBreadth / 2), KneeOnFloor);
        var thigh = (knee - hip).Unit;
        knee = hip + thigh * Thigh;
        var shin = Turn.Yaw(side * -(spec.Turn ?? 0)).Of(new Vec(-1, 0, -0.01)).Unit;
        var ankle = knee + shin * Shank;
        var end = ankle - hip;
        var front = (knee - hip.Towards(ankle, 0.5)).Beside(end.Unit);
        var leg = new Limb(hips.Inverse * Turn.To(front, -end.Unit), end.Length);
        var yaw = side * -(spec.Turn ?? 0);
        return (leg, new FootState(Hold.Kneeling, ankle, yaw, 0, Turn.Yaw(yaw) * Turn.Pitch(176)));
    }

    internal static (Limb, FootState) Free(FootSpec spec, Vec pelvis, Turn hips, int side)
    {
        var thigh = Turn.Pitch(-(spec.Flex ?? 0)) * Turn.Roll(side * spec.Out) * Turn.Yaw(side * spec.Rotate);
        var shank = thigh * Turn.Pitch(Math.Max(spec.Knee, 1));
        var end = thigh.Of(-Vec.Up) * Thigh + shank.Of(-Vec.Up) * Shank;
        var leg = new Limb(Turn.To(thigh.Of(Vec.Forward), -end.Unit), end.Length);
        var hip = Skeleton.HipOf(pelvis, hips, side);
        return Clear(leg, new FootState(Hold.Free, default, 0, 0, hips * shank * Turn.Pitch(spec.Point)), hip, hips);
    }

    /// <summary>A swinging foot does not go through the floor: its leg bends as far as that takes.</summary>
    internal static (Limb, FootState) Clear(Limb leg, FootState foot, Vec hip, Turn hips)
    {
        var frame = hips * leg.Frame;
        var ankle = hip + frame.Of(Vec.Up) * -leg.Length;
        var ball = ankle + foot.World.Of(new Vec(Skeleton.BallAhead, 0, -AnkleHeight));
        var toes = foot.ToesFlat > 0 ? foot.World.Towards(Turn.Yaw(foot.Yaw), foot.ToesFlat) : foot.World;
        var low = Math.Min(ball.Z, (ball + toes.Of(new Vec(Anthropometry.Foot - Skeleton.BallLength, 0, 0))).Z);
        low = Math.Min(low, (ankle + foot.World.Of(new Vec(-Heel, 0, -AnkleHeight))).Z);
        leg = low >= 0 ? leg : ArmWords.Reaching(hip, ankle + Vec.Up * -low, frame.Of(Vec.Forward), hips, 0.13, MostLeg);
        return (Outward(leg, hip, hips), foot);
    }

    /// <summary>A knee of a free leg that would go through the floor goes out to its side, just as far as that takes.</summary>
    private static Limb Outward(Limb leg, Vec hip, Turn hips)
    {
        var frame = hips * leg.Frame;
        var (along, forward) = (-frame.Of(Vec.Up), frame.Of(Vec.Forward));
        var aside = frame.Of(Vec.Left);
        aside *= aside.Z < 0 ? -1 : 1;
        Vec Pole(double turn) => forward * Math.Cos(turn) + aside * Math.Sin(turn);
        double Height(double turn) => Skeleton.Middle(hip, along, Pole(turn), leg.Length, Thigh, Shank).Z;
        if (Height(0) >= KneeClears)
        {
            return leg;
        }

        var (low, high) = (0.0, Math.PI / 2);
        for (var i = 0; i < 20; i++)
        {
            var middle = (low + high) / 2;
            (low, high) = Height(middle) < KneeClears ? (middle, high) : (low, middle);
        }

        return leg with { Frame = hips.Inverse * Turn.To(Pole(high), -along) };
    }

    private const double KneeClears = 0.01;

    internal const double LeastKnee = StraightKnee;

    /// <summary>Hip to ankle of a knee bent by so many degrees.</summary>
    internal static double LegLength(double knee) =>
        Math.Sqrt(Thigh * Thigh + Shank * Shank + 2 * Thigh * Shank * Math.Cos(knee * Math.PI / 180));
}
