namespace Halterion.Core.Body;

/// <summary>Both feet go somewhere else on one way: one after the other, so that a foot is always down.</summary>
/// <param name="First">The side that goes first; +1 is left.</param>
internal readonly record struct Steps(int First)
{
    /// <summary>Null where at most one foot moves, or the body flies or rests on something else.</summary>
    public static Steps? Of(Posture a, Posture b)
    {
        if (a.Air > 0 || b.Air > 0 || a.Anchor is not null || b.Anchor is not null)
        {
            return null;
        }

        var (left, right) = (Rank(a.LeftFoot, b.LeftFoot), Rank(a.RightFoot, b.RightFoot));
        return left is null || right is null ? null : new Steps(left < right ? 1 : -1);
    }

    /// <summary>What comes down goes first, what is lifted last; null for a foot that stays.</summary>
    private static int? Rank(FootState from, FootState to) => (from.Hold, to.Hold) switch
    {
        (Hold.Free, Hold.Planted) => 0,
        (Hold.Planted, Hold.Planted) => (from.Place - to.Place).Length < 1e-6 ? null : 1,
        (Hold.Planted, Hold.Free) => 2,
        _ => null,
    };

    /// <summary>How far the foot of a side is on its own way.</summary>
    public double Of(int side, double t)
    {
        var own = Math.Clamp(side == First ? 2 * t : 2 * t - 1, 0, 1);
        return (3 - 2 * own) * own * own;
    }

    /// <summary>A leg whose foot leaves the floor, comes down on it, or goes over it, while the hips are anywhere.</summary>
    public static (Limb, FootState) Leg(Vec pelvis, Turn hips, int side, Limb a, Limb b, FootState from, FootState to, double t, double arc)
    {
        var hip = Skeleton.HipOf(pelvis, hips, side);
        if (t <= 0 && from.Hold == Hold.Planted || t >= 1 && to.Hold == Hold.Planted)
        {
            return PoseSolver.Reach(t <= 0 ? from : to, hip, hips, side);
        }

        double Mix(double x, double y) => x + (y - x) * t;
        if (from.Hold == Hold.Planted && to.Hold == Hold.Planted)
        {
            // A step, a slide or a tap: straight over the floor, lifted on the way.
            var place = from.Place.Towards(to.Place, t) + Vec.Up * (arc * Math.Sin(Math.PI * t));
            var foot = PoseSolver.Stood(place, Mix(from.Yaw, to.Yaw), Mix(from.Pitch, to.Pitch), Mix(from.KneeOut, to.KneeOut));
            var (leg, reached) = PoseSolver.Reach(foot, hip, hips, side);
            return (leg, reached with { Hold = Hold.Free });
        }

        Turn In(Limb limb) => hips * limb.Frame;
        Vec Ankle(FootState foot, Limb limb) =>
            foot.Hold == Hold.Planted ? Skeleton.AnkleOf(foot) : hip + In(limb).Of(Vec.Up) * -limb.Length;
        Vec Front(FootState foot, Limb limb) => foot.Hold == Hold.Planted ? PoseSolver.Pole(foot, side).Unit : In(limb).Of(Vec.Forward);
        var ankle = Ankle(from, a).Towards(Ankle(to, b), t);
        var swung = ArmWords.Reaching(hip, ankle, Front(from, a).Towards(Front(to, b), t), hips, 0.13, PoseSolver.MostLeg);
        var world = from.World.Towards(to.World, t);
        var free = new FootState(Hold.Free, default, Mix(from.Yaw, to.Yaw), 0, world, 0, Mix(from.ToesFlat, to.ToesFlat));
        return PoseSolver.Clear(swung, free, hip, hips);
    }
}
