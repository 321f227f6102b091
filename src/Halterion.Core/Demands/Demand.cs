using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>What an option asks of the body, each 0 (nothing) to 5 (as much as a class should ask).</summary>
/// <param name="Tempo">What slowness and a band add to the whole; may be below 0.</param>
public sealed record Demand(
    double Knee, double Hip, double Back, double Balance, double Impact, double Mobility, double Skill, double Grip, double Calf,
        double InnerThigh, double Tempo)
{
    /// <summary>What each counts in the order of options. [M] Our choice: joints and landings first, then the rest.</summary>
    public double Overall =>
        Knee + Hip + 0.6 * Back + Balance + 1.2 * Impact + 0.4 * Mobility + Skill + 0.4 * Grip + 0.4 * Calf + 0.4 * InnerThigh + Tempo;

    /// <summary>The dimensions that a person feels, by name.</summary>
    public ImmutableArray<(string Of, double Value)> Dimensions =>
    [
        ("knee", Knee), ("hip", Hip), ("back", Back), ("balance", Balance), ("impact", Impact), (
            "mobility", Mobility), ("skill", Skill), ("grip", Grip), ("calf", Calf), ("inner thigh", InnerThigh),
    ];

    /// <summary>As they are shown, in whole steps; calf and inner thigh only where a move lives by them.</summary>
    public ImmutableArray<DemandLine> Lines =>
        [
            .. Dimensions.Where(
                d => d.Of is not ("calf" or "inner thigh") || d.Value >= 1.5).Select(d => new DemandLine(d.Of, Step(d.Value)))];

    /// <summary>What changes from another option, such as "knee 4 → 2, balance 1 → 2"; empty if nothing does.</summary>
    public string From(Demand before) => string.Join(", ", before.Dimensions.Zip(Dimensions)
        .Select(pair => (pair.First.Of, Was: Step(pair.First.Value), Is: Step(pair.Second.Value)))
        .Where(d => d.Was != d.Is)
        .OrderByDescending(d => Math.Abs(d.Was - d.Is))
        .Select(d => string.Create(CultureInfo.InvariantCulture, $"{d.Of} {d.Was} → {d.Is}")));

    internal static int Step(double value) => (int)Math.Round(Math.Clamp(value, 0, 5), MidpointRounding.AwayFromZero);
}

/// <summary>0 (nothing) to 5.</summary>
public sealed record DemandLine(string Of, int Value);

/// <summary>
/// Demand from the body where it can be computed, over all key poses and both legs, the larger of them; from values stated with
/// the move where not. Every scale bends towards 5 and never passes it: 5·(1 − e^(−x)). How much makes x = 1 is [M] our choice.
/// </summary>
public static class DemandModel
{
    // N·m of a body of 70 kg and 1.70 m that make x = 1.
    private const double KneeMoment = 130;
    private const double HipMoment = 130;
    private const double BackMoment = 175;
    private const double CalfMoment = 75;

    /// <summary>Degrees of bend that make x = 1 for a knee that carries all.</summary>
    private const double KneeBend = 260;

    /// <summary>Degrees of way at the hip that make x = 1.</summary>
    private const double HipWay = 300;

    /// <summary>Kilograms in the hands that make x = 1.</summary>
    private const double GripKg = 14;

    /// <summary>From the centre of mass to the edge of the base at which balance is a third of the scale; fractions of stature.</summary>
    private const double Margin = 0.058;

    /// <summary>What needs learning where a move says nothing else.</summary>
    private const double UsualSkill = 1;

    /// <summary>What is left to do where a seat waits under the body, or arms take part of the weight.</summary>
    private const double Seat = 0.58;
    private const double Holding = 0.88;

    /// <summary>Null for a move without poses that states nothing. Worked out once for each manner of a move.</summary>
    public static Demand? Of(MoveId id, Manner manner, MoveLibrary moves) =>
        moves.Find(id) is { } move ? moves.Once(new Key(move, manner), () => Compute(move, manner)) : null;

    /// <summary>A move by identity: it has too many fields to be compared each time.</summary>
    private readonly record struct Key(Move Move, Manner Manner)
    {
        public bool Equals(Key other) => ReferenceEquals(Move, other.Move) && Manner.Equals(other.Manner);

        public override int GetHashCode() => HashCode.Combine(RuntimeHelpers.GetHashCode(Move), Manner);
    }

    /// <summary>What the model says, or what the user says and, from there on, what the manner changes by the model.</summary>
    private static Demand? Compute(Move move, Manner manner)
    {
        var modelled = Model(move, manner);
        if (move.Demand is not { } stated)
        {
            return modelled;
        }

        var plain = Model(move, new Manner());
        double Of(int? said, Func<Demand, double> of) =>
            modelled is null || plain is null
                ? said ?? 0
                : said is { } own ? Math.Clamp(own + (of(modelled) - of(plain)), 0, 5)
                : of(modelled);
        return new Demand(
            Of(stated.Knee, d => d.Knee),
            Of(stated.Hip, d => d.Hip),
            Of(stated.Back, d => d.Back),
            Of(stated.Balance, d => d.Balance),
            Of(stated.Impact, d => d.Impact),
            Of(stated.Mobility, d => d.Mobility),
            Of(stated.Skill, d => d.Skill),
            Of(stated.Grip, d => d.Grip),
            modelled?.Calf ?? 0,
            modelled?.InnerThigh ?? 0,
            modelled?.Tempo ?? 0);
    }

    /// <summary>
    /// A hand that holds on, knees put down and hands put higher never make a joint ask more, however the body is balanced then.
    /// </summary>
    private static Demand? Model(Move move, Manner manner)
    {
        var held = Worked(move, manner);
        var helped = HoldsOn(manner) || manner.Support is Support.Knees or Support.Forearms;
        var raised = move.Poses is { } own
            && own.Poses[0].On == Carrier.Hands
            && OptionPoses.Of(move, manner)!.Poses[0].Height > own.Poses[0].Height;
        return !helped && !raised
            || held is null
            || Worked(
                move, manner with { Support = helped ? null : manner.Support, Surface = raised ? null : manner.Surface }) is not { } free
            ? held
            : held with
            {
                Knee = Math.Min(held.Knee, free.Knee),
                Hip = Math.Min(held.Hip, free.Hip),
                Back = Math.Min(held.Back, free.Back),
                Mobility = Math.Min(held.Mobility, free.Mobility),
            };
    }

    private static bool HoldsOn(Manner manner) =>
        manner.Support is not (null or Support.None or Support.HandOnThigh or Support.Knees or Support.Forearms);

    private static Demand? Worked(Move move, Manner manner)
    {
        if (OptionPoses.Of(move, manner) is not { } poses)
        {
            return null;
        }

        var motion = OptionFigure.MotionOf(poses);
        var asks = move.Asks ?? new StatedAsks();
        var held = HoldsOn(manner);
        var thigh = manner.Support is Support.HandOnThigh
            || manner.Support is Support.Knees or Support.TwoHands && poses.Poses[0].On == Carrier.Feet;
        var seated = !poses.Props.IsDefault && poses.Props.Any(p => p.EndsWith(":under", StringComparison.Ordinal));
        var keys = Enumerable.Range(0, motion.Count)
            .Select(
                i => new Instant(motion.Pose(i), motion.Key(i), Skeleton.Of(motion.Key(i)),
                    Forces.Of(motion.Key(i), motion.Load, Stature.Usual, Anthropometry.UsualMass)))
            .ToArray();
        var (ease, lift) = (thigh || manner.Support is Support.TwoHands or Support.Chair ? Holding : 1, seated ? Seat : 1);
        var flights = keys.Count(k => k.Pose.Air > 0);
        var landsOnOne = flights > 0 && keys.Any(k => k.Pose is { On: Carrier.Feet, Air: 0 } && OneLeg(k));
        var tempo = (double)((manner.Tempo ?? move.Tempo)?.RepSeconds(RepStyle.Full) ?? (move.Dose.Kind == "hold" ? 5 : 2));
        var own = (double)(move.Tempo?.RepSeconds(RepStyle.Full) ?? (decimal)tempo);
        // A long band is between a light one and a medium one, where nothing is said of it. [M]
        var band = manner.Band is { } worn ? (int)worn : poses.Band switch
        {
            BandAt.None => 0,
            BandAt.Knees or BandAt.Ankles or BandAt.Feet => 1,
            BandAt.Shoulders or BandAt.AnchorBehind or BandAt.AnchorHigh or BandAt.AnchorAhead
                or BandAt.AnchorBack or BandAt.AnchorAnkle or BandAt.Hips => 1.5,
        };
        var kilograms = poses.Holds is { } h ? h.Kg * (h.By == CarriedBy.EachHand ? 2 : 1) : 0;
        return new Demand(
            Scale(Math.Max(0, keys.Max(Knee) * ease * lift + asks.Knee + (flights > 0 ? 0.15 : 0))),
            Scale(Math.Max(0, (keys.Max(Hip) + HipRange(keys) + 0.12 * band) * ease * lift + asks.Hip)),
            Scale(Math.Max(0, keys.Max(Back) * (held || thigh ? 0.7 : 1) * lift + asks.Back)),
            Math.Clamp(keys.Max(Balance) + Steps(keys) + asks.Balance - (held ? 1.3 : thigh ? 0.35 : 0) - (seated ? 0.4 : 0), 0, 5),
            Scale(
                (manner.Impact == Plans.Impact.None ? 0 : asks.Impact) + (
                    flights == 0
                        ? Steps(keys) > 0
                        ? 0.1
                        : 0
                        : 0.75 + 5 * keys.Max(k => k.Pose.Air) + (landsOnOne ? 0.25 : 0) + 0.1 * (flights - 1))),
            Scale(keys.Max(Mobility) * (seated ? 0.9 : 1)),
            Math.Clamp(
                (asks.Skill ?? UsualSkill) + Carrying(poses.Holds, motion.Pose(0), move, manner) + (held ? -0.3 : 0) + (
                    manner.Impact is Plans.Impact.Hop or Plans.Impact.Jump && flights > 0 ? 0.8 : 0),
                0,
                5),
            poses.Holds is { By: CarriedBy.Hips or CarriedBy.Shoulders } ? 0 : Scale(kilograms / GripKg),
            Scale(keys.Max(Calf)),
            Scale(keys.Max(InnerThigh) + asks.InnerThigh),
            (move.Quick ? Quick(manner.Tempo ?? move.Tempo, tempo, own) : Tempo(manner.Tempo ?? move.Tempo, tempo))
                + 0.2 * band
                + Amount(manner.Scale, tempo / Math.Max(0.1, own)));
    }

    private sealed record Instant(KeyPose Pose, Posture Posture, Skeleton Body, Body.Moments Moments);

    /// <summary>Slower is harder, and a stop at the far end more so.</summary>
    private static double Tempo(Tempo? tempo, double seconds) => 0.2 * Math.Clamp(seconds - 3, -2, 8) + 0.15 * (double)(tempo?.Pause ?? 0);

    /// <summary>Where quickness is the point, quicker is harder too. [M]</summary>
    private static double Quick(Tempo? tempo, double seconds, double own) =>
        seconds < own ? Tempo(null, own) + 0.3 * Math.Log2(own / Math.Max(0.1, seconds)) : Tempo(tempo, seconds);

    /// <summary>Half as much is felt: fewer reps, or less time. What is scaled to give slower reps their time is no less. [M]</summary>
    private static double Amount(decimal? scale, double slower) =>
        scale is not { } by ? 0 : 0.6 * Math.Log2(Math.Clamp((double)by * Math.Max(1, slower), 0.1, 2));

    private static double Scale(double x) => 5 * (1 - Math.Exp(-x));

    /// <summary>What a place to hold a weight asks for beside the weight. Stated.</summary>
    private static double Carrying(MoveLoad? load, KeyPose pose, Move move, Manner manner) =>
        load is null || manner.Load is null || manner.Load.Position is null && move.Poses?.Holds is not null
            ? 0
            : (pose.RightArm ?? pose.Arms)?.Word switch
            {
                ArmWord.Rack => 0.8,
                ArmWord.FrontRack => 1.1,
                ArmWord.Back => 1.1,
                ArmWord.Overhead => 2.9,
                _ => 0.1,
            };

    private static double Knee(Instant k)
    {
        double Leg(LegLoad leg, int side) =>
            Math.Max(0, leg.Knee) / KneeMoment + JointLimits.KneeFlexion(k.Body, side) / KneeBend * (0.25 + 1.05 * leg.Share) * (
                leg.Share > 0.04 ? 1 : 0.3);
        return Math.Max(Leg(k.Moments.Left, 1), Leg(k.Moments.Right, -1)) * (k.Pose.On is Carrier.Feet or Carrier.Wall ? 1 : 0.55);
    }

    /// <summary>What straightens the hip, or holds the pelvis level over one leg, or holds a leg up.</summary>
    private static double Hip(Instant k)
    {
        double Leg(LegLoad leg) => Math.Sqrt(leg.Hip * leg.Hip + 0.16 * leg.Side * leg.Side) / HipMoment;
        return Math.Max(Leg(k.Moments.Left), Leg(k.Moments.Right));
    }

    /// <summary>How far the hip goes under load.</summary>
    private static double HipRange(Instant[] keys)
    {
        double Range(int side)
        {
            var flexed = keys.Where(k => k.Pose.Air == 0).Select(k => JointLimits.HipFlexionOf(k.Body, side)).ToArray();
            return flexed.Length == 0 ? 0 : (flexed.Max() - flexed.Min()) / HipWay;
        }

        return Math.Max(Range(1), Range(-1));
    }

    private static double Back(Instant k) => Math.Abs(k.Moments.LowerBack) / BackMoment + k.Moments.BackTurn / (2 * BackMoment);

    /// <summary>From how near the centre of mass is to the edge of the base: sideways most, for the ankles hold fore and aft.</summary>
    private static double Balance(Instant k)
    {
        if (k.Pose.Air > 0)
        {
            return 2;
        }

        // A hand that holds on is counted by who holds: without it here.
        var contacts = Contacts.Of(k.Posture, k.Body);
        contacts = k.Pose.On == Carrier.Feet ? [.. contacts.Where(c => !c.IsArm)] : contacts;
        if (!Contacts.OnFeet(contacts))
        {
            var rests = k.Pose.On is Carrier.Back or Carrier.Front or Carrier.Seat or Carrier.Wall;
            return contacts.Length >= 4 || rests ? 0.2 : contacts.Length == 3 ? 0.6 : 1.1;
        }

        var centre = k.Body.CentreOfMass;
        var (aside, along) = (Edge(contacts, k, v => v.Y, centre.Y), Edge(contacts, k, v => v.X, centre.X));
        var loose = contacts.Count(c => !c.IsWholeFoot) * 0.25;
        return 5 * Math.Max(Math.Exp(-aside / Margin), 0.6 * Math.Exp(-along / Margin)) + loose;
    }

    private static double Edge(ImmutableArray<Contact> contacts, Instant k, Func<Vec, double> of, double centre)
    {
        var (low, high) = (double.MaxValue, double.MinValue);
        foreach (var contact in contacts)
        {
            var side = contact.IsOf(1) ? 1 : -1;
            var ends = new[] { contact.IsWholeFoot ? k.Body.Of(Joint.LeftHeel, side) : contact.At, k.Body.Of(Joint.LeftToe, side) };
            low = Math.Min(low, ends.Min(of) - 0.028);
            high = Math.Max(high, ends.Max(of) + 0.028);
        }

        return Math.Max(0.004, Math.Min(centre - low, high - centre));
    }

    /// <summary>A foot that goes from one place to another, or comes down from the air, has to be caught.</summary>
    private static double Steps(Instant[] keys)
    {
        double Foot(Func<Posture, FootState> of)
        {
            var planted = keys.Where(k => k.Pose.On == Carrier.Feet && k.Pose.Air == 0).Select(k => of(k.Posture)).ToArray();
            var far = planted.Where(f => f.Hold == Hold.Planted).Select(f => f.Place).ToArray();
            var way = far.Length < 2 ? 0 : far.Max(a => far.Max(b => (a - b).Length));
            return way > 0.15 ? 0.4 + 0.4 * Math.Min(1, way / 0.5) : 0;
        }

        return Math.Max(Foot(p => p.LeftFoot), Foot(p => p.RightFoot));
    }

    private static bool OneLeg(Instant k) => k.Posture.LeftFoot.Hold == Hold.Free || k.Posture.RightFoot.Hold == Hold.Free;

    /// <summary>The joint that goes nearest to the end of its range.</summary>
    private static double Mobility(Instant k)
    {
        // A knee that is bent as its owner lies asks for nothing.
        bool Lies(FootState foot) =>
            k.Pose.On is Carrier.Back or Carrier.Shoulders or Carrier.Bench || k.Pose.On == Carrier.Side && foot.Hold == Hold.Kneeling;
        double Leg(int side, FootState foot)
        {
            var hip = JointLimits.HipFlexionOf(k.Body, side);
            var ankle = foot is { Hold: Hold.Planted, Pitch: < 10 } ? JointLimits.AnkleBendOf(k.Body, side) : 0;
            double[] shares =
            [
                hip / 150, -hip / 55, (
                    Lies(foot) ? 0 : JointLimits.KneeFlexion(k.Body, side)) / 165, JointLimits.SpreadOf(k.Body, side) / 75, ankle / 46,
            ];
            return Math.Max(0, shares.Max());
        }

        var most = Math.Max(Leg(1, k.Posture.LeftFoot), Leg(-1, k.Posture.RightFoot));
        return 0.95 * most * most;
    }

    /// <summary>On the ball of a foot: what the calf holds.</summary>
    private static double Calf(Instant k)
    {
        double Leg(LegLoad leg, FootState foot) =>
            foot is { Hold: Hold.Planted, Pitch: > 15 } && k.Pose.On == Carrier.Feet
                ? Math.Max(0, leg.Ankle) / CalfMoment + 0.35 * leg.Share
                : 0;
        var flat = new[] { k.Posture.LeftFoot, k.Posture.RightFoot }.Any(f => f is { Hold: Hold.Planted, Pitch: <= 15 });
        return flat ? 0 : Math.Max(Leg(k.Moments.Left, k.Posture.LeftFoot), Leg(k.Moments.Right, k.Posture.RightFoot));
    }

    /// <summary>Legs far apart: what brings them together holds.</summary>
    private static double InnerThigh(Instant k)
    {
        if (k.Pose.On != Carrier.Feet || k.Pose.Air > 0)
        {
            return 0;
        }

        var gap = Math.Abs(k.Body[Joint.LeftAnkle].Y - k.Body[Joint.RightAnkle].Y);
        return Math.Max(0, gap - 0.22) * 2.2;
    }
}
