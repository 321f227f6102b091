using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>
/// What can be said of an option by looking at its body from the first key pose to the last and in between. Degrees, kilograms.
/// </summary>
public sealed record OptionFacts
{
    /// <summary>Leaves the floor.</summary>
    public bool Flight { get; init; }

    /// <summary>Most bend of a knee whose leg carries.</summary>
    public double StandingKnee { get; init; }

    /// <summary>Most lean of a standing trunk, and of a shin over a flat foot.</summary>
    public double StandingLean { get; init; }

    /// <summary>How far the shin leans forward, in degrees.</summary>
    public double ShinLean { get; init; }

    /// <summary>Most bend of either hip.</summary>
    public double HipBend { get; init; }

    /// <summary>A knee is on the floor.</summary>
    public bool KneesOnFloor { get; init; }

    /// <summary>Knee or back lie on something soft.</summary>
    public bool Padded { get; init; }

    /// <summary>On one leg for longer than a step.</summary>
    public bool OneLeg { get; init; }

    /// <summary>The rear foot is on something.</summary>
    public bool RearRaised { get; init; }

    /// <summary>One foot before the other.</summary>
    public bool SplitStance { get; init; }

    /// <summary>A foot goes aside or back.</summary>
    public bool StepsAsideOrBack { get; init; }

    /// <summary>It goes backward.</summary>
    public bool WalksBackward { get; init; }

    /// <summary>Steps forward into a lunge, or travels in one.</summary>
    public bool ForwardLunge { get; init; }

    /// <summary>A hand holds on to something.</summary>
    public bool HandHold { get; init; }

    /// <summary>Lying on the back.</summary>
    public bool OnTheBack { get; init; }

    /// <summary>Lying on the front.</summary>
    public bool OnTheFront { get; init; }

    /// <summary>Feet wide with a knee bent by 100° or more.</summary>
    public bool DeepWide { get; init; }

    /// <summary>One leg deep to its side, the other long.</summary>
    public bool Cossack { get; init; }

    /// <summary>Up on the toes of both feet.</summary>
    public bool HeelRaise { get; init; }

    /// <summary>Up on the toes of one foot.</summary>
    public bool OneLegHeelRaise { get; init; }

    /// <summary>Weight on the hands, wrists bent.</summary>
    public bool OnBentWrists { get; init; }

    /// <summary>Hands or forearms below 40 cm carry the trunk, the knees are off the floor; also on one side.</summary>
    public bool Plank { get; init; }

    /// <summary>A plank on the hands.</summary>
    public bool PlankOnHands { get; init; }

    /// <summary>A plank on one side.</summary>
    public bool SidePlank { get; init; }

    /// <summary>On the back, both legs off the floor with the knees bent by less than 60°.</summary>
    public bool BothLegs { get; init; }

    /// <summary>Hips up over straight knees, on hands and feet.</summary>
    public bool HipsUp { get; init; }

    /// <summary>The head is off the floor.</summary>
    public bool HeadOffTheFloor { get; init; }

    /// <summary>Of all that is held, and of what one hand holds.</summary>
    public double Kilograms { get; init; }

    /// <summary>What one hand holds.</summary>
    public double HandKilograms { get; init; }

    /// <summary>A weight lies on the hips.</summary>
    public bool LoadOnHips { get; init; }

    /// <summary>A weight lies on the back.</summary>
    public bool LoadOnBack { get; init; }

    /// <summary>A weight is overhead.</summary>
    public bool LoadOverhead { get; init; }

    /// <summary>At the shoulders, the wrists bent.</summary>
    public bool Racked { get; init; }

    /// <summary>A weight is held at the chest or at the sides.</summary>
    public bool GobletOrSides { get; init; }

    /// <summary>A weight is above the elbows.</summary>
    public bool LoadAboveElbow { get; init; }

    /// <summary>Arms held forward or out with a weight.</summary>
    public bool LoadHeldOut { get; init; }

    /// <summary>Turns with a weight, or leaning back.</summary>
    public bool Twist { get; init; }

    /// <summary>A weight that is swung or thrown.</summary>
    public bool Ballistic { get; init; }

    /// <summary>Sits down, with both feet and nothing in the hands, to a seat of knee height, and stands up again.</summary>
    public bool ToASeat { get; init; }

    /// <summary>What it asks, 0 to 5.</summary>
    public required Demand Demand { get; init; }

    /// <summary>Sitting down to a seat of knee height and standing up is judged by no bend of knee or hip, and by no knee demand.</summary>
    public OptionFacts Judged => ToASeat ? this with { StandingKnee = 0, HipBend = 0, Demand = Demand with { Knee = 0 } } : this;

    private readonly record struct Key(Move Move, Manner Manner)
    {
        public bool Equals(Key other) => ReferenceEquals(Move, other.Move) && Manner.Equals(other.Manner);

        public override int GetHashCode() => HashCode.Combine(RuntimeHelpers.GetHashCode(Move), Manner);
    }

    /// <summary>Null for a move without poses. Looked at once for each manner of a move.</summary>
    public static OptionFacts? Of(Move move, Manner manner, MoveLibrary moves) =>
        moves.Once(new Key(move, manner), () => Look(move, manner, moves));

    private const int Between = 4;

    /// <summary>Thighs so far back, and the seat is on the heels: the hands only lie there. Degrees.</summary>
    private const double SeatOnHeels = 50;

    private static OptionFacts? Look(Move move, Manner manner, MoveLibrary moves)
    {
        if (OptionPoses.Of(move, manner) is not { } poses || DemandModel.Of(move.Id, manner, moves) is not { } demand)
        {
            return null;
        }

        var motion = OptionFigure.MotionOf(poses);
        var keys = Enumerable.Range(0, motion.Count).Select(motion.Key).ToArray();
        var frames = new List<Posture>(keys);
        for (var i = 0; i + 1 < motion.Count; i++)
        {
            frames.AddRange(Enumerable.Range(1, Between).Select(n => motion.Between(i, i + 1, n / (Between + 1.0))));
        }

        var bodies = frames.Select(f => (Posture: f, Body: Skeleton.Of(f))).ToArray();
        // Who sits against a wall sits on nothing: the legs carry.
        bool Stands(Posture p) => p.On is Carrier.Feet or Carrier.Wall && p.Air == 0;
        var standing = bodies.Where(b => Stands(b.Posture)).ToArray();
        double Most(IEnumerable<double> of) => of.DefaultIfEmpty(0).Max();
        bool Carries(Posture p, int side) => (side > 0 ? p.LeftFoot : p.RightFoot).Hold is Hold.Planted or Hold.Laces;
        // A move without a written weight is without one, but for those that always carry one.
        var kg = poses.Holds is { } h && (manner.Load is not null || move.Usual is not null)
            ? h.Kg * (h.By == CarriedBy.EachHand ? 2 : 1)
            : 0;
        var arm = poses.Poses[^1].RightArm ?? poses.Poses[^1].Arms;
        var by = poses.Holds?.By;
        var held = manner.Support is Support.Hand or Support.TwoHands or Support.Wall or Support.Chair or Support.Doorway or Support.Helper
            || poses.Poses.All(
                p => (p.Arms ?? p.LeftArm)?.Word is ArmWord.WallAhead or ArmWord.ChairAhead || p.LeftArm?.Word == ArmWord.Wall);
        var on = poses.Poses.Select(p => p.On).ToHashSet();
        var walks = motion.Way == Way.On ? keys[^1].Pelvis.X - keys[0].Pelvis.X : 0;
        var planted = poses.Poses.Select((p, i) => (Pose: p, Key: keys[i])).Where(k => k.Pose is { On: Carrier.Feet, Air: 0 }).ToArray();
        var steps = Stepping(planted.Select(k => k.Key).ToArray());
        var oneLegKeys = planted.Where(
            k => !k.Pose.Through && (k.Key.LeftFoot.Hold == Hold.Free || k.Key.RightFoot.Hold == Hold.Free)).ToArray();
        var wide = standing.Where(b => Math.Abs(b.Body[Joint.LeftAnkle].Y - b.Body[Joint.RightAnkle].Y) > 0.3).ToArray();
        var seated = Lifts.SeatCm(manner, poses) is > 0 and var seat
            ? seat
            : !poses.Props.IsDefault && poses.Props.Contains("wall:behind") ? (int?)Lifts.KneeHeight
            : null;
        var lean = Most(standing.SelectMany(b => new[] { (1, b.Posture.LeftFoot), (-1, b.Posture.RightFoot) }
            .Where(f => f.Item2 is { Hold: Hold.Planted, Pitch: < 10 }).Select(f => JointLimits.AnkleBendOf(b.Body, f.Item1))));
        var rackWord = poses.Poses.Any(p => (p.Arms ?? p.RightArm ?? p.LeftArm)?.Word is ArmWord.Rack or ArmWord.FrontRack);
        var leansBack = poses.Poses.Any(p => p.On == Carrier.Seat && (p.Lean ?? 0) < -10);
        var low = !Lifts.HandsAreHigh(manner) && poses.Poses.All(p => p.Height * Stature.Usual.Metres < Lifts.HighHands / 100.0);
        bool OffTheFloor(KeyPose p) => !p.OnKnees;
        static bool Upright(Posture p) => p.On is Carrier.Feet or Carrier.Seat or Carrier.Wall or Carrier.Knees;
        var inHand = by is CarriedBy.BothHands or CarriedBy.EachHand or CarriedBy.RightHand or CarriedBy.LeftHand;
        var twist = poses.Poses.Max(p => p.Turn + p.Face) - poses.Poses.Min(p => p.Turn + p.Face);
        return new OptionFacts
        {
            Flight = poses.Poses.Any(p => p.Air > 0) || move.Asks is { Impact: > 0 } && manner.Impact != Impact.None,
            StandingKnee = Most(
                standing.SelectMany(
                    b => new[] { 1, -1 }.Where(s => Carries(b.Posture, s)).Select(s => JointLimits.KneeFlexion(b.Body, s)))),
            StandingLean = Most(standing.Select(b => PoseWords.Lean(b.Body))),
            // Who sits back to a seat or a wall has upright shins, however the figure is drawn. [M]
            ShinLean = seated is { } at ? Math.Min(lean, Math.Clamp(15 - 5 * (at - Lifts.KneeHeight) / 8.0, 10, 15)) : lean,
            HipBend = Most(bodies.SelectMany(b => new[] { 1, -1 }.Select(s => JointLimits.HipFlexionOf(b.Body, s)))),
            KneesOnFloor = bodies.Any(b => b.Posture.LeftFoot.Hold == Hold.Kneeling || b.Posture.RightFoot.Hold == Hold.Kneeling)
                || poses.Poses.Any(p => p is { On: Carrier.Side, OnKnees: true }),
            Padded = manner.Surface is Surface.Pad or Surface.Mat or Surface.Soft || !poses.Props.IsDefault
                && poses.Props.Any(p => p.StartsWith("mat", StringComparison.Ordinal) || p.StartsWith("pad", StringComparison.Ordinal)),
            OneLeg = move.Family != Family.Recovery && oneLegKeys.Length > 0,
            RearRaised = keys.Any(k => k.LeftFoot.Hold == Hold.Laces || k.RightFoot.Hold == Hold.Laces),
            SplitStance = standing.Any(b => Carries(b.Posture, 1) && Carries(b.Posture, -1)
                && Math.Abs(b.Body[Joint.LeftAnkle].X - b.Body[Joint.RightAnkle].X) > 0.25),
            StepsAsideOrBack = steps.Aside > 0.15 || steps.Back > 0.15,
            WalksBackward = walks < -0.2 || motion.Way == Way.Back && WalksBack(planted.Select(k => k.Key).ToArray()),
            ForwardLunge = move.Family == Family.Lunge
                && (steps.Forward > 0.3 || walks > 0.3)
                && Most(standing.Select(b => JointLimits.KneeFlexion(b.Body, -1))) > 60,
            HandHold = held,
            OnTheBack = on.Overlaps([Carrier.Back, Carrier.Shoulders]),
            OnTheFront = on.Contains(Carrier.Front),
            DeepWide = wide.Any(b => Math.Max(JointLimits.KneeFlexion(b.Body, 1), JointLimits.KneeFlexion(b.Body, -1)) >= 100),
            Cossack = wide.Any(b => Math.Max(JointLimits.KneeFlexion(b.Body, 1), JointLimits.KneeFlexion(b.Body, -1)) >= 100
                && Math.Min(JointLimits.KneeFlexion(b.Body, 1), JointLimits.KneeFlexion(b.Body, -1)) < 25),
            HeelRaise = poses.Poses.Any(p => p is { On: Carrier.Feet, Heels: > 10, Air: 0 }),
            OneLegHeelRaise = planted.Any(
                k => k.Pose.Heels > 10 && (k.Key.LeftFoot.Hold == Hold.Free || k.Key.RightFoot.Hold == Hold.Free)),
            // The way down into a stretch is no load on the wrists.
            OnBentWrists = (move.Family == Family.Stretch ? poses.Poses[^1..] : poses.Poses).Any(
                p => p is { On: Carrier.Hands } or { On: Carrier.Knees, Sit: < SeatOnHeels }
                    && (p.Arms ?? p.RightArm)?.Word == ArmWord.Floor)
                && manner.Support != Support.Forearms,
            Plank = low && poses.Poses.Any(p => OffTheFloor(p) && p is { On: Carrier.Hands } or { On: Carrier.Side, Lift: > 0 }),
            PlankOnHands = low
                && poses.Poses.Any(p => OffTheFloor(p) && p.On == Carrier.Hands && (p.Arms ?? p.RightArm)?.Word == ArmWord.Floor),
            SidePlank = poses.Poses.Any(p => OffTheFloor(p) && p is { On: Carrier.Side, Lift: > 0 }),
            BothLegs = bodies.Any(
                b => b.Posture.On == Carrier.Back && b.Posture.LeftFoot.Hold == Hold.Free && b.Posture.RightFoot.Hold == Hold.Free
                && Math.Max(JointLimits.KneeFlexion(b.Body, 1), JointLimits.KneeFlexion(b.Body, -1)) < 60),
            HipsUp = bodies.Any(
                b => b.Posture.On == Carrier.Hands && JointLimits.HipFlexionOf(b.Body, 1) > 60 && JointLimits.HipFlexionOf(b.Body, -1) > 60
                && Math.Max(JointLimits.KneeFlexion(b.Body, 1), JointLimits.KneeFlexion(b.Body, -1)) < 30),
            HeadOffTheFloor = move.Family is Family.Bridge or Family.Core
                && poses.Poses.Any(
                    p => p.On == Carrier.Bench || p.On is Carrier.Back or Carrier.Shoulders && (p.Round > 15 || p.Head > 15)),
            Kilograms = kg,
            HandKilograms = kg == 0
                ? 0
                : by is CarriedBy.EachHand or CarriedBy.RightHand or CarriedBy.LeftHand ? poses.Holds!.Kg
                : by is CarriedBy.BothHands ? kg / 2
                : 0,
            LoadOnHips = by == CarriedBy.Hips || manner.Load?.Position == LoadPosition.Hips,
            LoadOnBack = by == CarriedBy.Shoulders || manner.Load?.Position == LoadPosition.Back,
            LoadOverhead = kg > 0
                && inHand
                && bodies.Any(b => Upright(b.Posture) && motion.Load!.At(b.Body).Any(w => w.At.Z > b.Body[Joint.Head].Z)),
            Racked = kg > 0 && (manner.Load?.Position is LoadPosition.FrontRack or LoadPosition.Rack or LoadPosition.Shoulders || rackWord),
            GobletOrSides = arm?.Word is ArmWord.Goblet or ArmWord.Sides or ArmWord.Low,
            LoadAboveElbow = kg > 0 && bodies.Any(b => Upright(b.Posture) && by is not (CarriedBy.Hips or null)
                && Math.Max(
                    b.Body[Joint.LeftWrist].Z - b.Body[Joint.LeftElbow].Z, b.Body[Joint.RightWrist].Z - b.Body[Joint.RightElbow].Z) > 0.02
                && Math.Max(b.Body[Joint.LeftWrist].Z - b.Body[Joint.LeftShoulder].Z,
                    b.Body[Joint.RightWrist].Z - b.Body[Joint.RightShoulder].Z) > -0.06),
            LoadHeldOut = kg > 0 && poses.Poses.All(p => (p.Arms ?? p.RightArm)?.Word is ArmWord.Forward or ArmWord.Out or ArmWord.OutBent),
            Twist = twist > 20 && (kg > 0 || leansBack),
            Ballistic = move.Ballistic,
            ToASeat = kg == 0 && oneLegKeys.Length == 0 && Lifts.SeatCm(manner, poses) >= Lifts.KneeHeight,
            Demand = demand,
        };
    }

    /// <summary>Both feet go somewhere else, and back the way they came.</summary>
    private static bool WalksBack(Posture[] keys)
    {
        double Way(Func<Posture, FootState> foot)
        {
            var places = keys.Select(foot).Where(f => f.Hold == Hold.Planted).Select(f => f.Place.X).DefaultIfEmpty(0).ToArray();
            return places.Max() - places.Min();
        }

        return Math.Min(Way(p => p.LeftFoot), Way(p => p.RightFoot)) > 0.2;
    }

    /// <summary>How far a foot that comes down somewhere else has gone since it last stood.</summary>
    private static (double Forward, double Back, double Aside) Stepping(Posture[] keys)
    {
        var (forward, back, aside) = (0.0, 0.0, 0.0);
        foreach (var foot in (Func<Posture, FootState>[])[p => p.LeftFoot, p => p.RightFoot])
        {
            var places = keys.Select(foot).Where(f => f.Hold == Hold.Planted).Select(f => f.Place).ToArray();
            for (var i = 1; i < places.Length; i++)
            {
                var way = places[i] - places[i - 1];
                (forward, back, aside) = (Math.Max(forward, way.X), Math.Max(back, -way.X), Math.Max(aside, Math.Abs(way.Y)));
            }
        }

        return (forward, back, aside);
    }
}
