using System.Globalization;
using System.Text.RegularExpressions;

namespace Halterion.Core.Body;

/// <summary>Poses in words, for who cannot see the figure. Read off the solved body, not off what was asked.</summary>
internal static partial class PoseWords
{
    public static string Of(Motion motion, int[] shown, BandAt band)
    {
        var keys = shown.Select(i => (Pose: motion.Pose(i), Posture: motion.Key(i), Body: Skeleton.Of(motion.Key(i)))).ToArray();
        var names = keys.Select(k => Sentence(k.Pose, k.Posture, k.Body)).ToArray();
        var first = names.Length == 1 ? names[0].Capital() : $"From {string.Join("; to ", names)}";
        var with = motion.Load is { } load ? $" {Holding(load)}" : "";
        return $"{first}.{with}{(band == BandAt.None ? "" : " A band is used.")}";
    }

    /// <summary>The same with the other side working.</summary>
    public static string Mirrored(string words) => SideWord().Replace(words, side => side.Value == "left" ? "right" : "left");

    /// <summary>A side, not the end of "upright".</summary>
    [GeneratedRegex(@"\b(left|right)\b")]
    private static partial Regex SideWord();

    private static string Sentence(KeyPose p, Posture posture, Skeleton s) =>
        string.Join(", ", Parts(p, posture, s).Where(x => x.Length > 0));

    private static IEnumerable<string> Parts(KeyPose p, Posture posture, Skeleton s)
    {
        var bend = Math.Max(JointLimits.KneeFlexion(s, 1), JointLimits.KneeFlexion(s, -1));
        var lean = Lean(s);
        yield return p.On switch
        {
            Carrier.Feet when p.Air > 0 => "in the air",
            Carrier.Feet => Standing(posture, s, bend, lean),
            Carrier.Knees when posture.LeftHand.Fixed || posture.RightHand.Fixed => "on hands and knees",
            Carrier.Knees =>
                posture.RightFoot.Hold == Hold.Planted
                    ? "half kneeling, right foot in front"
                    : p.Sit > 20 ? "kneeling, hips back"
                    : "kneeling upright",
            Carrier.Hands when p.Pike > 30 => "hips high, hands and feet on the floor",
            Carrier.Hands =>
                p.OnKnees
                    ? "a plank on the knees"
                    : s[Joint.LeftElbow].Z < 0.06 ? "a plank on the forearms"
                    : p.Down > 0.4 ? "chest low over the hands"
                    : "a plank on the hands",
            Carrier.Back => "lying on the back",
            Carrier.Shoulders when posture.RightFoot.Hold == Hold.Edge =>
                $"{(p.Lift > 0.5 ? "hips lifted" : "lying on the back")}, soles together, knees wide",
            Carrier.Shoulders => p.Lift > 0.5 ? "hips lifted, shoulders on the floor" : "lying on the back, hips down",
            Carrier.Bench => p.Lift > 0.5 ? "hips level, shoulder blades on the bench" : "hips low, shoulder blades on the bench",
            Carrier.Side => $"{(p.Lift > 0 ? p.Down > 0.3 ? "a side plank, hips low" : "a side plank" : "lying on one side")}, the "
                + $"{(p.OnRight ? "right" : "left")} side down",
            Carrier.Front => "lying face down",
            Carrier.Wall => p.Height < 0.3 ? "back against the wall, thighs level" : "back against the wall, higher up",
            Carrier.Seat => "sitting",
        };
        if (p.On is Carrier.Feet && p.Air == 0)
        {
            yield return lean > 14 ? Degrees(lean, "leaning forward")
                : lean < -10 ? "trunk leaning back" : bend > 30 ? "trunk upright" : "";
            yield return posture.LeftFoot.Pitch > 15 && posture.RightFoot.Pitch > 15 ? "heels lifted" : "";
        }

        foreach (var (side, foot, leg) in new[] { (-1, posture.RightFoot, "right"), (1, posture.LeftFoot, "left") })
        {
            if (foot.Hold == Hold.Free && p.Air == 0)
            {
                var flexed = JointLimits.HipFlexionOf(s, side);
                var spread = JointLimits.SpreadOf(s, side);
                var where = Math.Abs(spread) > 20 && Math.Abs(spread) > Math.Abs(flexed) - 45 ? "out to the side"
                    : flexed > 25 ? "lifted in front"
                    : flexed < -6 ? "lifted behind"
                    : lean > 40 && p.On == Carrier.Feet ? "in line with the trunk"
                    : "lifted";
                yield return $"{leg} leg {where}{(JointLimits.KneeFlexion(s, side) > 45 ? ", knee bent" : "")}";
            }
        }

        yield return Math.Abs(p.Turn) > 15 ? $"chest turned to the {(p.Turn > 0 ? "left" : "right")}" : "";
        yield return Math.Abs(p.Tip) > 10 ? $"trunk bent to the {(p.Tip > 0 ? "right" : "left")}" : "";
        yield return Arms(p);
    }

    private static string Standing(Posture posture, Skeleton s, double bend, double lean)
    {
        if (posture.LeftFoot.Hold == Hold.Free || posture.RightFoot.Hold == Hold.Free)
        {
            return $"on the {(posture.LeftFoot.Hold == Hold.Free ? "right" : "left")} "
                + $"leg{(bend > 45 && Carry(posture, s) > 35 ? ", knee bent" : "")}";
        }

        var (left, right) = (s[Joint.LeftAnkle], s[Joint.RightAnkle]);
        var (ahead, aside) = (right.X - left.X, Math.Abs(right.Y - left.Y));
        var stance = posture.LeftFoot.Hold == Hold.Laces ? "left foot raised behind"
            : Math.Abs(ahead) > 0.25 ? $"{(ahead > 0 ? "right" : "left")} foot in front"
            : Math.Abs(ahead) > 0.08 ? $"{(ahead > 0 ? "left" : "right")} foot a little behind"
            : aside > 0.3 ? "feet wide" : aside < 0.1 ? "feet together" : "feet hip-wide";
        bool Flat(int side) => (side > 0 ? posture.LeftFoot : posture.RightFoot) is { Hold: Hold.Planted, Pitch: < 15 };
        var carries = new[] { 1, -1 }.MaxBy(side => (Flat(side), JointLimits.KneeFlexion(s, side)));
        var rise = s.Of(Joint.LeftHip, carries).Z - s.Of(Joint.LeftKnee, carries).Z;
        var depth = bend < 20
            ? "standing"
            : lean > 35 && bend < 45 ? "bent forward from the hips"
            : rise < 0.03 ? "low, thighs level"
            : bend < 60 ? "knees a little bent"
            : "half-way down";
        return $"{depth}, {stance}";
    }

    private static double Carry(Posture posture, Skeleton s) => JointLimits.KneeFlexion(s, posture.LeftFoot.Hold == Hold.Free ? -1 : 1);

    /// <summary>Of the chest from upright, forward positive, degrees.</summary>
    internal static double Lean(Skeleton s)
    {
        var up = s.Chest.Of(Vec.Up);
        var front = s.Chest.Of(Vec.Forward);
        var lean = Math.Acos(Math.Clamp(up.Z, -1, 1)) * 180 / Math.PI;
        return front.Z < 0 ? lean : -lean;
    }

    private static string Arms(KeyPose p)
    {
        var (right, left) = (Word(p.RightArm ?? p.Arms), Word(p.LeftArm ?? p.Arms));
        return right == left
            ? right
            : string.Join(
                ", ", new[] { right.Length > 0 ? $"right: {right}" : "", left.Length > 0 ? $"left: {left}" : "" }.Where(x => x.Length > 0));
    }

    private static string Word(ArmSpec? arm) => arm?.Word switch
    {
        ArmWord.Forward => "arms forward",
        ArmWord.Hips => "hands on the hips",
        ArmWord.Crossed => "arms crossed",
        ArmWord.Overhead => "arms overhead",
        ArmWord.Chest or ArmWord.Goblet => "hands at the chest",
        ArmWord.Rack or ArmWord.FrontRack => "hands at the shoulders",
        ArmWord.Back or ArmWord.Head => "hands behind the head",
        ArmWord.Thigh or ArmWord.Knee => "hands on the thighs",
        ArmWord.BehindThigh => "hands behind the thighs",
        ArmWord.Wall or ArmWord.WallAhead => "hand on the wall",
        ArmWord.ChairAhead => "hands on a chair",
        ArmWord.Out or ArmWord.OutBent => "arms out to the sides",
        ArmWord.Foot => "hand on the foot",
        ArmWord.Low => "arms hanging in front",
        _ => "",
    };

    private static string Holding(Carried load)
    {
        var two = load.By == CarriedBy.EachHand;
        var what = two ? $"{load.Kind}s" : load.Kind;
        return load.By switch
        {
            CarriedBy.EachHand => $"A {load.Kind} in each hand.",
            CarriedBy.BothHands => $"A {what} in both hands.",
            CarriedBy.RightHand => $"A {what} in the right hand.",
            CarriedBy.LeftHand => $"A {what} in the left hand.",
            CarriedBy.Shoulders => $"A {what} across the back of the shoulders.",
            CarriedBy.Hips => $"A {what} across the hips.",
        };
    }

    private static string Degrees(double value, string what) => string.Create(CultureInfo.InvariantCulture, $"{what} {Math.Abs(value):0}°");
}
