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

    /// <summary>How the rep goes from pose to pose.</summary>
    public Way Way { get; }

    /// <summary>How many key poses it has.</summary>
    public int Count => poses.Length;

    /// <summary>A key pose, solved.</summary>
    public Posture Key(int index) => postures[index];

    /// <summary>A key pose as it is stated.</summary>
    public KeyPose Pose(int index) => poses[index];

    /// <summary>What is held; null: nothing.</summary>
    public Carried? Load => load;

    /// <summary>It leaves the floor.</summary>
    public bool Flies => poses.Any(p => p.Air > 0);

    /// <summary>Whether the way out ends lower than it begins.</summary>
    public bool Lowers => centres[^1].Z < centres[0].Z;

    /// <summary>The posture on the way from one key pose to a neighbour; eased already.</summary>
    public Posture Between(int from, int to, double share) =>
        share <= 0
            ? postures[from]
            : share >= 1 ? postures[to]
            : Between(postures[from], postures[to], share, poses[to > from || to == 0 ? to : from].Arc, centres[from], centres[to]);

    /// <summary>Way out (or once round), as the share of its time, at the speed of a body in no hurry.</summary>
    public Posture Out(double time)
    {
        outwards ??= new Course(this, [.. Enumerable.Range(0, Count)], 2, Stature.Usual);
        return outwards.At(Math.Clamp(time, 0, 1) * outwards.Seconds);
    }

    private Course? outwards;

    internal Vec Centre(int index) => centres[index];

    /// <summary>
    /// The share of the time that the way between two neighbours takes: that of the pose it leads to, in the order of the data.
    /// </summary>
    internal double ShareOf(int from, int to) => poses[to == 0 && from == Count - 1 || to > from ? to : from].Share;

    /// <summary>
    /// As the body leaves the floor from a key pose for the top of a flight, or lands in it: on its toes, legs all but straight.
    /// </summary>
    internal Touch TouchOf(int ground, int apex)
    {
        if (!touches.TryGetValue((ground, apex), out var touch))
        {
            touch = Touch.Of(poses[ground], poses[apex], load);
            touches[(ground, apex)] = touch;
        }

        return touch;
    }

    private readonly Dictionary<(int, int), Touch> touches = [];

    /// <summary>Where the body is highest in a flight: over the middle of the way between take-off and landing.</summary>
    internal Vec Top(int apex)
    {
        var next = apex + 1 == Count && Way == Way.Round ? 0 : apex + 1;
        var touching = new[] { apex - 1, next }
            .Where(i => i >= 0 && i < Count && poses[i].Air == 0)
            .Select(ground => TouchOf(ground, apex).Centre)
            .ToArray();
        var middle = touching.Aggregate(new Vec(0, 0, 0), (sum, c) => sum + c) * (1.0 / touching.Length);
        return middle with { Z = touching.Max(c => c.Z) + poses[apex].Air };
    }

    /// <summary>In the air on the way from the floor to the top, its centre of mass where a throw puts it.</summary>
    /// <param name="share">0 as it leaves the floor, 1 at the top.</param>
    internal Posture Flying(int ground, int apex, double share)
    {
        var (touch, top) = (TouchOf(ground, apex), Top(apex));
        if (share <= 0)
        {
            return touch.Posture;
        }

        var eased = (3 - 2 * share) * share * share;
        var fallen = (1 - share) * (1 - share);
        var wanted = touch.Centre.Towards(top, share) with { Z = top.Z - (top.Z - touch.Centre.Z) * fallen };
        var off = touch.Posture with
        {
            Air = 1e-3,
            LeftFoot = touch.Posture.LeftFoot with { Hold = Hold.Free },
            RightFoot = touch.Posture.RightFoot with { Hold = Hold.Free },
        };
        return Blend(off, postures[apex], eased, 0, wanted, upright: true);
    }

    /// <summary>On the floor between a key pose and the moment of leaving or reaching it.</summary>
    /// <param name="limbs">How far arms and a leg in the air are: they come to rest where the rest of the body is fastest.</param>
    internal Posture Pushing(int ground, int apex, double share, double limbs)
    {
        var touch = TouchOf(ground, apex);
        var wanted = centres[ground].Towards(touch.Centre, share);
        return share <= 0 ? postures[ground]
            : share >= 1 ? touch.Posture
            : Blend(postures[ground], touch.Posture, share, 0, wanted, upright: false, limbs);
    }

    private Posture Between(Posture a, Posture b, double t, double arc, Vec centreA, Vec centreB) =>
        Blend(a, b, t, arc, centreA.Towards(centreB, t), upright: false);

    /// <param name="wanted">Where the centre of mass is, for a body that stands or flies.</param>
    /// <param name="upright">Its height too, not only its place on the floor.</param>
    /// <param name="limbs">How far arms and a leg in the air are, where that is not the same.</param>
    private Posture Blend(Posture a, Posture b, double t, double arc, Vec wanted, bool upright, double? limbs = null)
    {
        var pelvis = a.Anchor is { } pivot && b.Anchor is { } other && (pivot - other).Length < 1e-6
            ? About(pivot, a.Pelvis, b.Pelvis, t)
            : a.Pelvis.Towards(b.Pelvis, t);
        var hips = a.Hips.Towards(b.Hips, t);
        var chest = a.Chest.Towards(b.Chest, t);
        var head = a.Head.Towards(b.Head, t);
        var air = a.Air + (b.Air - a.Air) * t;
        var steps = Steps.Of(a, b);

        Posture With(Vec at)
        {
            (Limb, FootState) Foot(int side, Limb from, Limb to, FootState foot, FootState end) => steps is { } turns
                ? Steps.Leg(at, hips, side, from, to, foot, end, turns.Of(side, t), arc)
                : Leg(at, hips, side, from, to, foot, end, foot.Hold == Hold.Free && end.Hold == Hold.Free ? limbs ?? t : t, arc);
            var (left, leftFoot) = Foot(+1, a.LeftLeg, b.LeftLeg, a.LeftFoot, b.LeftFoot);
            var (right, rightFoot) = Foot(-1, a.RightLeg, b.RightLeg, a.RightFoot, b.RightFoot);
            Vec Ankle(int side, Limb leg) => Skeleton.HipOf(at, hips, side) + (hips * leg.Frame).Of(Vec.Up) * -leg.Length;
            var (leftAnkle, rightAnkle) = (Ankle(1, left), Ankle(-1, right));
            var leftLegs = new HangingWeight.Legs(at, hips, left, right, leftAnkle, rightAnkle, 1);
            var rightLegs = new HangingWeight.Legs(at, hips, right, left, rightAnkle, leftAnkle, -1);
            var (leftArm, leftHand) = Arm(chest, leftLegs, a.LeftArm, b.LeftArm, a.LeftHand, b.LeftHand, limbs ?? t);
            var (rightArm, rightHand) = Arm(chest, rightLegs, a.RightArm, b.RightArm, a.RightHand, b.RightHand, limbs ?? t);
            return new Posture(at, hips, chest, head, left, right, leftFoot, rightFoot, leftArm, rightArm, leftHand, rightHand,
                air)
            { Anchor = a.Anchor, On = t < 0.5 ? a.On : b.On };
        }

        var between = With(pelvis);
        if (a.Anchor is not null || b.Anchor is not null)
        {
            return between;
        }

        // What stands balances on the way too, and what flies falls: its centre of mass is where it should be.
        for (var i = 0; i < 2; i++)
        {
            var off = wanted - Carried.Centre(Skeleton.Of(between), load);
            pelvis += upright ? off : off with { Z = 0 };
            between = With(pelvis);
        }

        return between;
    }

    private static Vec About(Vec pivot, Vec a, Vec b, double t)
    {
        var (from, to) = (a - pivot, b - pivot);
        var angle = Math.Acos(Math.Clamp(from.Unit.Dot(to.Unit), -1, 1));
        var length = from.Length + (to.Length - from.Length) * t;
        var way = angle < 1e-6
            ? from.Unit
            : from.Unit * (Math.Sin((1 - t) * angle) / Math.Sin(angle)) + to.Unit * (Math.Sin(t * angle) / Math.Sin(angle));
        return pivot + way.Unit * length;
    }

    private static (Limb, FootState) Leg(
        Vec pelvis, Turn hips, int side, Limb a, Limb b, FootState from, FootState to, double t, double arc)
    {
        var hip = Skeleton.HipOf(pelvis, hips, side);
        var swung = a.Towards(b, t);
        var forward = (hips * swung.Frame).Of(Vec.Forward);
        var stays = from.Hold == to.Hold && (from.Place - to.Place).Length < 1e-6;
        if (stays && from.Hold is Hold.Planted)
        {
            var foot = PoseSolver.Stood(
                from.Place, Mix(from.Yaw, to.Yaw, t), Mix(from.Pitch, to.Pitch, t), Mix(from.KneeOut, to.KneeOut, t));
            return PoseSolver.Reach(foot, hip, hips, side);
        }

        if (stays && from.Hold is Hold.Laces or Hold.Kneeling or Hold.Edge)
        {
            var ankle = from.Hold is Hold.Laces or Hold.Edge ? Skeleton.AnkleOf(from) : from.Place;
            return (ArmWords.Reaching(hip, ankle, forward, hips, 0.13, PoseSolver.MostLeg), from);
        }

        var turned = from.World.Towards(to.World, t);
        if (from.Hold == Hold.Planted && to.Hold == Hold.Planted)
        {
            return Steps.Leg(pelvis, hips, side, a, b, from, to, t, arc);
        }

        var toes = Mix(from.ToesFlat, to.ToesFlat, t);
        return PoseSolver.Clear(swung, new FootState(Hold.Free, default, Mix(from.Yaw, to.Yaw, t), 0, turned, 0, toes), hip, hips);
    }

    private static (Limb, HandState) Arm(Turn chest, HangingWeight.Legs legs, Limb a, Limb b, HandState from, HandState to, double t)
    {
        var shoulder = Skeleton.ShoulderOf(legs.Pelvis, legs.Hips, chest, legs.Side);
        if (from.Slides is { } one && to.Slides is { } other)
        {
            return HangingWeight.Hang(shoulder, chest, legs, Mix(one, other, t));
        }

        var swung = a.Towards(b, t);
        var flat = Mix(from.Flat, to.Flat, t);
        var way = from.Way == default ? to.Way : to.Way == default ? from.Way : from.Way.Towards(to.Way, t);
        if (from.Fixed && to.Fixed && (from.At - to.At).Length < SameHold)
        {
            var forward = (chest * swung.Frame).Of(Vec.Forward);
            var place = from.At.Towards(to.At, t);
            var limb = ArmWords.Reaching(shoulder, place, forward, chest, 0.088, ArmWords.Reach * 0.9995);
            return (limb, new HandState(true, place, flat, way) { Rests = from.Rests });
        }

        return (swung, new HandState(false, default, flat, way));
    }

    /// <summary>Hands so near to where they were hold on to the same place.</summary>
    private const double SameHold = 0.03;

    private static double Mix(double a, double b, double t) => a + (b - a) * t;
}
