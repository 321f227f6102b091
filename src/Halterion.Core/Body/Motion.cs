using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>How a rep ends.</summary>
public enum Way
{
    /// <summary>Back the way it came.</summary>
    Back,

    /// <summary>On from the last pose to the first.</summary>
    Round,

    /// <summary>Somewhere else, from where the next rep begins: a move that travels.</summary>
    On,
}

/// <summary>
/// A move from key pose to key pose. Between two of them contacts stay, limbs swing about their roots and lengths are kept:
/// every frame follows from both postures in closed form, without a seam.
/// </summary>
public sealed class Motion
{
    private readonly ImmutableArray<KeyPose> poses;
    private readonly ImmutableArray<Posture> postures;
    private readonly ImmutableArray<Vec> centres;
    private readonly Carried? load;

    /// <param name="poses">In order; the way back is the same, unless it goes round.</param>
    public Motion(ImmutableArray<KeyPose> poses, Carried? load = null, Way way = Way.Back, bool checkJoints = true)
    {
        (this.poses, this.load, Way) = (poses, load, way);
        postures = [.. poses.Select(p => checkJoints ? Possible(PoseSolver.Solve(p, load)) : PoseSolver.Solve(p, load))];
        centres = [.. postures.Select(p => Carried.Centre(Skeleton.Of(p), load))];
    }

    /// <exception cref="PoseRefusedException">A key pose that no body can take.</exception>
    private static Posture Possible(Posture posture) =>
        JointLimits.Past(Skeleton.Of(posture)) is { } past ? throw new PoseRefusedException(past.Joint, past.Why) : posture;

    public Way Way { get; }

    public int Count => poses.Length;

    public Posture Key(int index) => postures[index];

    public KeyPose Pose(int index) => poses[index];

    public Carried? Load => load;

    public bool Flies => poses.Any(p => p.Air > 0);

    /// <summary>A foot goes further than a stance is wide from one key pose to the next.</summary>
    public bool Strides => Enumerable.Range(1, Count - 1).Any(i =>
        Math.Max(Gone(postures[i - 1], postures[i], +1), Gone(postures[i - 1], postures[i], -1)) > 0.4);

    private static double Gone(Posture from, Posture to, int side) => (Skeleton.Of(to).Of(Joint.LeftAnkle, side) - Skeleton.Of(from).Of(Joint.LeftAnkle, side)).Length;

    /// <summary>Whether the way out ends lower than it begins.</summary>
    public bool Lowers => centres[^1].Z < centres[0].Z;

    /// <summary>The posture on the way from one key pose to a neighbour; eased already.</summary>
    public Posture Between(int from, int to, double share) =>
        share <= 0 ? postures[from] : share >= 1 ? postures[to] : Between(postures[from], postures[to], share, poses[to > from || to == 0 ? to : from].Arc, centres[from], centres[to]);

    /// <summary>Way out (or once round), as the share of its time.</summary>
    public Posture Out(double time) => Run([.. Enumerable.Range(0, Count)], time);

    public Posture Back(double time) => Run([.. Enumerable.Range(0, Count).Reverse()], time);

    /// <summary>Once through all poses and on to the first.</summary>
    public Posture Once(double time) => Run([.. Enumerable.Range(0, Count), 0], time);

    /// <summary>The way through some key poses: a body stops at each but those that it goes through, where it only slows down.</summary>
    private Posture Run(int[] order, double time)
    {
        if (order.Length == 1)
        {
            return postures[order[0]];
        }

        // The time of a way belongs to the pose it leads to, in the order of the data.
        double Share(int i) => poses[order[i + 1] == 0 && order[i] == Count - 1 || order[i + 1] > order[i] ? order[i + 1] : order[i]].Share;
        var last = order.Length - 2;
        var gone = Math.Clamp(time, 0, 1) * Enumerable.Range(0, last + 1).Sum(Share);
        var at = 0;
        while (at < last && gone > Share(at))
        {
            gone -= Share(at++);
        }

        var share = Share(at) <= 0 ? 1 : Math.Min(1, gone / Share(at));
        return Between(order[at], order[at + 1], Ease(share, at > 0 && poses[order[at]].Through, at < last && poses[order[at + 1]].Through));
    }

    /// <summary>Speed at which a pose is gone through, of the mean on the way. [M] Slow enough that nothing jerks.</summary>
    private const double ThroughSpeed = 0.25;

    /// <summary>From rest to rest, or in and out at a speed (a cubic of Hermite).</summary>
    private static double Ease(double t, bool comesFast, bool goesFast)
    {
        var (a, b) = (comesFast ? ThroughSpeed : 0, goesFast ? ThroughSpeed : 0);
        return a * (t * t * t - 2 * t * t + t) + (3 - 2 * t) * t * t + b * (t * t * t - t * t);
    }

    private Posture Between(Posture a, Posture b, double t, double arc, Vec centreA, Vec centreB)
    {
        var pelvis = a.Anchor is { } pivot && b.Anchor is { } other && (pivot - other).Length < 1e-6 ? About(pivot, a.Pelvis, b.Pelvis, t) : a.Pelvis.Towards(b.Pelvis, t);
        var hips = a.Hips.Towards(b.Hips, t);
        var chest = a.Chest.Towards(b.Chest, t);
        var head = a.Head.Towards(b.Head, t);
        var air = a.Air + (b.Air - a.Air) * t;

        Posture With(Vec at)
        {
            var (left, leftFoot) = Leg(at, hips, +1, a.LeftLeg, b.LeftLeg, a.LeftFoot, b.LeftFoot, t, arc);
            var (right, rightFoot) = Leg(at, hips, -1, a.RightLeg, b.RightLeg, a.RightFoot, b.RightFoot, t, arc);
            var (leftArm, leftHand) = Arm(at, hips, chest, +1, a.LeftArm, b.LeftArm, a.LeftHand, b.LeftHand, t);
            var (rightArm, rightHand) = Arm(at, hips, chest, -1, a.RightArm, b.RightArm, a.RightHand, b.RightHand, t);
            return new Posture(at, hips, chest, head, left, right, leftFoot, rightFoot, leftArm, rightArm, leftHand, rightHand, air) { Anchor = a.Anchor, On = t < 0.5 ? a.On : b.On };
        }

        var between = With(pelvis);
        if (a.Anchor is not null || b.Anchor is not null)
        {
            return between;
        }

        // What stands balances on the way too: its centre of mass goes straight from one to the other.
        var wanted = centreA.Towards(centreB, t);
        for (var i = 0; i < 2; i++)
        {
            var off = wanted - Carried.Centre(Skeleton.Of(between), load);
            pelvis += new Vec(off.X, off.Y, 0);
            between = With(pelvis);
        }

        return between;
    }

    private static Vec About(Vec pivot, Vec a, Vec b, double t)
    {
        var (from, to) = (a - pivot, b - pivot);
        var angle = Math.Acos(Math.Clamp(from.Unit.Dot(to.Unit), -1, 1));
        var length = from.Length + (to.Length - from.Length) * t;
        var way = angle < 1e-6 ? from.Unit : from.Unit * (Math.Sin((1 - t) * angle) / Math.Sin(angle)) + to.Unit * (Math.Sin(t * angle) / Math.Sin(angle));
        return pivot + way.Unit * length;
    }

    private static (Limb, FootState) Leg(Vec pelvis, Turn hips, int side, Limb a, Limb b, FootState from, FootState to, double t, double arc)
    {
        var hip = Skeleton.HipOf(pelvis, hips, side);
        var swung = a.Towards(b, t);
        var forward = (hips * swung.Frame).Of(Vec.Forward);
        var stays = from.Hold == to.Hold && (from.Place - to.Place).Length < 1e-6;
        if (stays && from.Hold is Hold.Planted)
        {
            var foot = PoseSolver.Stood(from.Place, Mix(from.Yaw, to.Yaw, t), Mix(from.Pitch, to.Pitch, t), Mix(from.KneeOut, to.KneeOut, t));
            return PoseSolver.Reach(foot, hip, hips, side);
        }

        if (stays && from.Hold is Hold.Laces or Hold.Kneeling)
        {
            var ankle = from.Hold == Hold.Laces ? Skeleton.AnkleOf(from) : from.Place;
            return (ArmWords.Reaching(hip, ankle, forward, hips, 0.13, PoseSolver.MostLeg), from);
        }

        var turned = from.World.Towards(to.World, t);
        if (from.Hold == Hold.Planted && to.Hold == Hold.Planted)
        {
            // A step, a slide or a tap: straight over the floor, lifted on the way.
            var place = from.Place.Towards(to.Place, t) + Vec.Up * (arc * Math.Sin(Math.PI * t));
            var foot = PoseSolver.Stood(place, Mix(from.Yaw, to.Yaw, t), Mix(from.Pitch, to.Pitch, t), Mix(from.KneeOut, to.KneeOut, t));
            var (leg, reached) = PoseSolver.Reach(foot, hip, hips, side);
            return (leg, reached with { Hold = Hold.Free });
        }

        var toes = Mix(from.ToesFlat, to.ToesFlat, t);
        return PoseSolver.Clear(swung, new FootState(Hold.Free, default, Mix(from.Yaw, to.Yaw, t), 0, turned, 0, toes), hip, hips);
    }

    private static (Limb, HandState) Arm(Vec pelvis, Turn hips, Turn chest, int side, Limb a, Limb b, HandState from, HandState to, double t)
    {
        var swung = a.Towards(b, t);
        var flat = Mix(from.Flat, to.Flat, t);
        var way = from.Way == default ? to.Way : to.Way == default ? from.Way : from.Way.Towards(to.Way, t);
        if (from.Fixed && to.Fixed && (from.At - to.At).Length < 1e-3)
        {
            var shoulder = Skeleton.ShoulderOf(pelvis, hips, chest, side);
            var forward = (chest * swung.Frame).Of(Vec.Forward);
            return (ArmWords.Reaching(shoulder, from.At, forward, chest, 0.088, ArmWords.Reach * 0.9995), new HandState(true, from.At, flat, way));
        }

        return (swung, new HandState(false, default, flat, way));
    }

    private static double Mix(double a, double b, double t) => a + (b - a) * t;
}
