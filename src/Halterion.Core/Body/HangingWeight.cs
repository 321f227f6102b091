using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>
/// Arms that hang in front with a weight: as long as they are, from the shoulders down to where the weight slides along the legs,
/// or hangs between legs that stand wide. A bar touches thighs and shins all the way (common practice, no source).
/// </summary>
internal static class HangingWeight
{
    // From the axis of a leg to the middle of what slides along it. [M] The limb's own thickness, and a hand.
    private const double BeforeHip = 0.057;
    private const double BeforeKnee = 0.048;
    private const double BeforeAnkle = 0.040;

    /// <summary>Legs from here on apart let a weight hang between them, if the hands are together.</summary>
    private const double Apart = 0.26;

    /// <summary>A weight in the hand does not go through the floor.</summary>
    private const double LowestHand = 0.085;

    private const double Arm = ArmWords.Reach * 0.985;
    private const double Whole = Arm + Skeleton.Grip;

    /// <summary>Both legs as they are, seen from one side.</summary>
    internal readonly record struct Legs(Vec Pelvis, Turn Hips, Limb Own, Limb Other, Vec Ankle, Vec OtherAnkle, int Side);

    /// <param name="outward">How far the hand is further out than its shoulder.</param>
    public static (Limb Arm, HandState Hand) Hang(Vec shoulder, Turn chest, Legs legs, double outward)
    {
        var aside = chest.Of(Vec.Left).Beside(Vec.Up) * (legs.Side * outward);
        var from = shoulder + aside;
        Span<Vec> line = stackalloc Vec[3];
        Along(legs, outward, line);

        // It hangs in the plane of its own shoulder.
        for (var i = 0; i < line.Length; i++)
        {
            line[i] = line[i] with { Y = from.Y };
        }

        var hand = Lowest(from, line);
        var low = Math.Max(0, LowestHand - hand.Z);
        hand += Vec.Up * low;
        var wrist = shoulder.Towards(hand, Arm / Whole);
        var pole = chest.Of(new Vec(-1, legs.Side * 0.3, 0));
        return (ArmWords.To(shoulder, wrist, pole, chest), new HandState(false, default, 0, default) { Slides = outward });
    }

    /// <summary>From the hip past the knee to the ankle along the front of a leg, or between both.</summary>
    private static void Along(Legs legs, double outward, Span<Vec> line)
    {
        if (Math.Abs(legs.Ankle.Y - legs.OtherAnkle.Y) > Apart && outward < -0.05)
        {
            var middle = legs.Ankle.Towards(legs.OtherAnkle, 0.5) + Vec.Forward * PoseSolver.MidFoot;
            var top = legs.Pelvis + legs.Hips.Of(Vec.Forward) * BeforeHip - legs.Hips.Of(Vec.Up) * 0.03;
            (line[0], line[1], line[2]) = (top, middle with { Z = 0.30 }, middle with { Z = 0 });
            return;
        }

        Span<Vec> other = stackalloc Vec[3];
        Before(legs, legs.Own, legs.Ankle, legs.Side, line);
        Before(legs, legs.Other, legs.OtherAnkle, -legs.Side, other);
        var share = Other(legs);
        for (var i = 0; i < line.Length; i++)
        {
            line[i] = line[i].Towards(other[i], share);
        }
    }

    /// <summary>How much it is the other leg that the hand goes along: the one that stands further ahead, and stands.</summary>
    private static double Other(Legs legs)
    {
        static double Grows(double from, double by, double x) => Math.Clamp((x - from) / by, 0, 1) is var s ? (3 - 2 * s) * s * s : 0;
        var (ahead, lifted) = (Grows(0.04, 0.16, legs.OtherAnkle.X - legs.Ankle.X), Grows(0.03, 0.14, legs.Ankle.Z - legs.OtherAnkle.Z));
        return Math.Max(ahead, lifted) * (1 - Grows(0.03, 0.14, legs.OtherAnkle.Z - legs.Ankle.Z));
    }

    private static void Before(Legs legs, Limb leg, Vec ankle, int side, Span<Vec> line)
    {
        var hip = Skeleton.HipOf(legs.Pelvis, legs.Hips, side);
        var frame = legs.Hips * leg.Frame;
        var knee = Skeleton.Middle(hip, -frame.Of(Vec.Up), frame.Of(Vec.Forward), leg.Length, Thigh, Shank);
        var (thigh, shank) = ((knee - hip).Unit, (ankle - knee).Unit);
        Vec Front(Vec along) => new Vec(-along.Z, 0, along.X) is { Length: > 1e-6 } way ? way.Unit : Vec.Forward;
        line[0] = hip + Front(thigh) * BeforeHip;
        line[1] = knee + (Front(thigh) + Front(shank)).Unit * BeforeKnee;
        line[2] = ankle + Front(shank) * BeforeAnkle;
    }

    /// <summary>Where straight arms come to on a bent line: the furthest point from its top that they reach.</summary>
    private static Vec Lowest(Vec shoulder, ReadOnlySpan<Vec> line)
    {
        for (var i = line.Length - 1; i > 0; i--)
        {
            var (a, b) = (line[i - 1], line[i]);
            if ((b - shoulder).Length <= Whole)
            {
                return b;
            }

            // |a + t (b - a) - shoulder| = arm with hand: the larger root, where it lies on this piece.
            var (way, off) = (b - a, a - shoulder);
            var (p, q) = (way.Dot(off) / way.Dot(way), (off.Dot(off) - Whole * Whole) / way.Dot(way));
            if (p * p - q is >= 0 and var inside && -p + Math.Sqrt(inside) is >= 0 and <= 1 and var t)
            {
                return a + way * t;
            }
        }

        return shoulder + (line[0] - shoulder).Unit * Whole;
    }
}
