using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>What an option asks of the body, each 0 (nothing) to 5 (as much as a class should ask).</summary>
public sealed record Demand(double Knee, double Hip, double Back, double Balance, double Impact, double Mobility, double Skill, double Grip, double Tempo)
{
    /// <summary>What each counts in the order of options. [M] Our choice: joints and landings first, then the rest.</summary>
    public double Overall => Knee + Hip + 0.6 * Back + Balance + 1.2 * Impact + 0.4 * Mobility + Skill + 0.4 * Grip + Tempo;

    /// <summary>The eight dimensions as they are shown, in whole steps.</summary>
    public ImmutableArray<DemandLine> Lines =>
    [
        new("knee", Step(Knee)), new("hip", Step(Hip)), new("back", Step(Back)), new("balance", Step(Balance)),
        new("impact", Step(Impact)), new("mobility", Step(Mobility)), new("skill", Step(Skill)), new("grip", Step(Grip)),
    ];

    /// <summary>What changes from another option, such as "knee 4 → 2, balance 1 → 2"; empty if nothing does.</summary>
    public string From(Demand before) => string.Join(", ", before.Lines.Zip(Lines)
        .Where(pair => pair.First.Value != pair.Second.Value)
        .OrderByDescending(pair => Math.Abs(pair.First.Value - pair.Second.Value))
        .Select(pair => string.Create(CultureInfo.InvariantCulture, $"{pair.First.Of} {pair.First.Value} → {pair.Second.Value}")));

    private static int Step(double value) => (int)Math.Round(Math.Clamp(value, 0, 5), MidpointRounding.AwayFromZero);
}

public sealed record DemandLine(string Of, int Value);

/// <summary>
/// Demand from the body model where it can be computed (moments, angles, balance), from stated values elsewhere.
/// The scales are [M] our choice: 5 is about what one leg bears in the hardest bodyweight move of the library.
/// </summary>
public static class DemandModel
{
    private const double KneeMomentOfFive = 110;
    private const double HipMomentOfFive = 170;
    private const double BackMomentOfFive = 230;

    /// <summary>What needs learning where a move says nothing else. [M]</summary>
    private const double UsualSkill = 1;

    /// <summary>What is left to do where a seat waits under the body. [M]</summary>
    private const double Seat = 0.5;

    /// <summary>Null for a move without a figure. Worked out once for each manner of a move, for it takes a good part of a millisecond.</summary>
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
            modelled is null || plain is null ? said ?? 0 : said is { } own ? own + (of(modelled) - of(plain)) : of(modelled);
        return new Demand(
            Of(stated.Knee, d => d.Knee),
            Of(stated.Hip, d => d.Hip),
            Of(stated.Back, d => d.Back),
            Of(stated.Balance, d => d.Balance),
            Of(stated.Impact, d => d.Impact),
            Of(stated.Mobility, d => d.Mobility),
            Of(stated.Skill, d => d.Skill),
            Of(stated.Grip, d => d.Grip),
            modelled?.Tempo ?? 0);
    }

    private static Demand? Model(Move move, Manner manner)
    {
        if (move.Figure is not { } figure)
        {
            return null;
        }

        var (start, end) = (OptionFigure.In(figure.Start, manner, false), OptionFigure.In(figure.End, manner, true));
        var held = manner.Support is not (null or Support.None or Support.HandOnThigh or Support.Knees);
        var thigh = manner.Support is Support.HandOnThigh or Support.Knees;
        var tempo = (double)((manner.Tempo ?? move.Tempo)?.RepSeconds(RepStyle.Full) ?? (move.Dose.Kind == "hold" ? 5 : 2));
        var kilograms = (double)(manner.Load?.Kg?.Value ?? 0) * (manner.Load?.Count ?? 1);

        // Whichever of its two ends asks for more: a jump is hardest before it leaves the floor.
        double Most(Func<Recipe, double> of) => Math.Max(of(start), of(end));
        return new Demand(
            Most(r => Knee(move, start, end, r, held)),
            Most(r => Hip(move, start, end, r, held)),
            Most(r => Back(r, held)) * (thigh ? 0.7 : 1),
            Math.Max(0, Most(r => Balance(move, start, end, r, held)) - (thigh ? 0.3 : 0)),
            Impact(move, start, end),
            Most(Mobility),
            (move.Asks?.Skill ?? UsualSkill) + Carrying(manner) + (held ? -0.3 : 0) + (manner.Impact is Plans.Impact.Hop or Plans.Impact.Jump ? 1 : 0),
            Grip(end, manner, kilograms),
            0.12 * Math.Clamp(tempo - 3, -2, 8) + (manner.Band is not (null or BandStrength.None) || move.Kit.Any(k => k.Contains("band", StringComparison.Ordinal)) ? 0.6 : 0));
    }

    /// <summary>What a place to hold a weight asks for beside the weight. Stated.</summary>
    private static double Carrying(Manner manner) => manner.Load?.Position switch
    {
        LoadPosition.Rack or LoadPosition.Shoulders => 0.9,
        LoadPosition.FrontRack => 1.1,
        LoadPosition.Back => 1.2,
        LoadPosition.Overhead => 3.4,
        _ => 0,
    };

    /// <summary>From the static moment and the bend of the knee, each half; a seat under the body takes a third of it.</summary>
    private static double Knee(Move move, Recipe start, Recipe end, Recipe at, bool held)
    {
        if (Floor(at) || at.Kind is PoseKind.Bridge or PoseKind.Thrust)
        {
            return at.Kind is PoseKind.Kneeling or PoseKind.HandsAndKnees or PoseKind.Thrust ? 1 : 0.5;
        }

        var (pose, over) = Sideways(at);
        var near = Moments.Of(pose, Stature.Usual, Anthropometry.UsualMass).Near;
        var share = Math.Max(near.Share, 0.5 + 0.4 * over);
        var knee = 5 * (0.5 * Math.Max(0, near.Knee) / KneeMomentOfFive + 0.5 * pose.Near.KneeFlexion / 130 * (0.6 + 0.8 * share));

        // Stepping forward has to be braked; a landing more so.
        knee += move.Asks?.Brakes ?? (Steps(start, end) ? 0.2 : 0);
        knee += start.Air > 0 || end.Air > 0 ? 1 : 0;
        return knee * (at.Prop is "chair" ? Seat : 1) * (held ? 0.85 : 1);
    }

    private static double Hip(Move move, Recipe start, Recipe end, Recipe at, bool held)
    {
        if (at.Kind is PoseKind.Bridge or PoseKind.Thrust)
        {
            // The hips are lifted against the weight of the trunk: more of it the higher, all of it on one leg.
            var alone = move.Asks?.OneLegShare ?? (at.OneLeg ? 1.9 : at.Stance > 0 ? 1.3 : 0);
            var still = move.Asks?.NeverRests ?? (move.Dose.Kind == "hold" ? 0.4 : 0);
            return 1.2 + 1.2 * at.Depth + alone + still + 3 * at.FrontRaise + (at.Holds is null ? 0 : 2 * at.Load) + (at.Kind == PoseKind.Thrust ? 0.4 : 0);
        }

        if (Floor(at))
        {
            return at.OneLeg ? 1.5 : 0.5;
        }

        // Staggered: about two thirds of the work is the front leg's ([M]; two feet so near are no lever to tell it from).
        var staggered = at.Kind == PoseKind.Hinge && at.Stance > 0;
        var (pose, over) = Sideways(staggered ? at with { Stance = 0 } : at);
        var near = Moments.Of(pose, Stature.Usual, Anthropometry.UsualMass).Near;
        return (5 * Math.Max(0, near.Hip) / HipMomentOfFive * (staggered ? 1.3 : 1 + 0.5 * over) + (Steps(start, end) ? 0.3 : 0) + (start.Air > 0 || end.Air > 0 ? 0.5 : 0) + (move.Asks?.Throws ?? 0))
            * (at.Prop is "chair" ? Seat : 1) * (held ? 0.85 : 1);
    }

    private static double Back(Recipe at, bool held)
    {
        if (Floor(at) || at.Kind is PoseKind.Bridge or PoseKind.Thrust)
        {
            return at.Kind == PoseKind.Plank ? 1.5 : 0.5 + (at.Holds is null ? 0 : 0.5);
        }

        var moment = Math.Max(0, Moments.Back(Sideways(at).Pose, Stature.Usual, Anthropometry.UsualMass));
        return 5 * moment / BackMomentOfFive * (at.Prop is "chair" ? Seat : 1) * (held ? 0.6 : 1);
    }

    private static double Balance(Move move, Recipe start, Recipe end, Recipe at, bool held)
    {
        var bare = at.Kind switch
        {
            _ when Floor(at) || at.Kind is PoseKind.Bridge or PoseKind.Thrust => at.OneLeg ? 0.8 : 0.2,
            PoseKind.Single => at.FreeThigh is > -20 and < 30 && at.FreeKnee < 50 ? 1.2 : 3.2,
            PoseKind.Split when at.RearRaise > 0 => 3,
            PoseKind.Split => 2,
            PoseKind.Wide when at.OneLeg => 2.6,
            PoseKind.Wide => 0.8 + Math.Abs(at.Shift),
            PoseKind.Hinge when at.Stance > 0 => 1.6,
            _ => 0.8 + at.HeelRaise / 40,
        };
        bare += Steps(start, end) ? 0.8 : 0;
        bare += move.Asks?.Unsteady ?? 0;
        bare -= at.Prop is "chair" or "pad" or "wall" && !held ? 0.3 : 0;
        return Math.Max(0, bare - (held ? 1.1 : 0));
    }

    private static double Impact(Move move, Recipe start, Recipe end)
    {
        var air = Math.Max(start.Air, end.Air);
        return air >= 0.07 ? 4 : air > 0 ? 3 : Steps(start, end) || move.Asks is { Travels: true } ? 0.5 : 0;
    }

    private static double Mobility(Recipe end)
    {
        if (Floor(end) || end.Kind is PoseKind.Bridge or PoseKind.Thrust)
        {
            return 0.5;
        }

        var pose = Sideways(end).Pose;
        var flexed = Math.Max(pose.HipFlexion / 140, pose.Near.KneeFlexion / 160);
        var most = Math.Max(flexed, Math.Max(0, pose.Near.ShinLean) / 50);
        return 5 * most * (end.Kind == PoseKind.Wide ? 1.1 : 1) * (end.Prop is "chair" ? Seat : 1);
    }

    private static double Grip(Recipe end, Manner manner, double kilograms)
    {
        var own = kilograms > 0 ? kilograms : end.Holds is null ? 0 : end.Load > 0 ? end.Load * Anthropometry.UsualMass : 7;
        return manner.Load?.Position is LoadPosition.Hips or LoadPosition.Back ? 0 : Math.Min(5, own / (manner.Load?.Position is LoadPosition.Goblet ? 12 : 6));
    }

    /// <summary>A front view is judged by the side view of the same depth; how much hangs over one leg is said beside it.</summary>
    private static (Pose Pose, double Over) Sideways(Recipe r) => r.Kind == PoseKind.Wide
        ? (Solver.Solve(r with { Kind = PoseKind.Squat, Stance = 0, Shift = 0, Trunk = null, OneLeg = false, Depth = r.Depth, Shin = 24, Arms = ArmStyle.Chest, HeelRaise = 0 }), r.OneLeg ? 1 : Math.Min(1, Math.Abs(r.Shift)))
        : (Solver.Solve(r), 0);

    private static bool Steps(Recipe start, Recipe end) =>
        (start.Kind == PoseKind.Single && end.Kind == PoseKind.Split) || (start.Kind == PoseKind.Split && end.Kind == PoseKind.Single);

    private static bool Floor(Recipe r) =>
        r.Kind is PoseKind.HandsAndKnees or PoseKind.Plank or PoseKind.SideLying or PoseKind.Supine or PoseKind.Kneeling or PoseKind.Seated;
}
