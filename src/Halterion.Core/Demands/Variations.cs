using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>
/// A move done otherwise: the fields of the plan language that make it easier or harder, in the order in which they are tried.
/// </summary>
internal static class Variations
{
    /// <param name="main">How it is done now: what a variation leaves out stays so.</param>
    public static IEnumerable<Variation> Of(Move move, Tier tier, Manner? main = null, WeightsAtHand? weights = null)
    {
        var now = main ?? new Manner();
        if (OptionPoses.Of(move, now) is not { } poses)
        {
            return [];
        }

        return (tier == Tier.Easier ? Easier(move, poses, now, weights) : Harder(move, poses, now, weights))
            .Select((v, i) => new Variation(Option.Of(tier, move.Id, v.Manner.Over(now)), v.Dimension, v.Why, 10 + i));
    }

    private static IEnumerable<(Manner Manner, string Dimension, string Why)> Easier(
        Move move, MovePoses poses, Manner main, WeightsAtHand? weights)
    {
        var first = poses.Poses[0];
        var stands = poses.Poses.All(p => p.On == Carrier.Feet);
        var depth = poses.Poses.Max(p => p.Knee is null && p.On == Carrier.Feet ? p.Depth : 0);
        var hinges = poses.Poses.Any(p => p.Knee is not null && p.Lean > 50);
        var splits = poses.Poses.Any(p => p.Split != 0 || p.Left is { Laces: true });
        var oneLeg = poses.Poses.Any(p => !p.Through && (p.Right is { Free: true } || p.Left is { Free: true }));
        var flies = poses.Poses.Any(p => p.Air > 0) || move.Asks is { Impact: > 0 };
        if (flies)
        {
            yield return (new Manner { Impact = Impact.None }, "impact", "The same, feet stay on the floor");
            yield return (new Manner { Impact = Impact.None, Depth = Depth.Half }, "impact", "Feet stay down, not as deep");
            yield return (new Manner { Impact = Impact.None, Support = Support.Wall }, "impact", "On the floor, a hand on the wall");
        }

        if (poses.Holds is { Kg: >= 2 } held && Weighed(held, main, 0.6, weights, below: true) is { } lighter)
        {
            yield return (new Manner { Load = lighter }, "load", "A lighter weight");
        }

        if (stands && (oneLeg || splits) && !flies)
        {
            yield return (new Manner { Support = Support.Wall }, "support", "A hand on the wall for balance");
            yield return (new Manner { Support = Support.Chair }, "support", "Two hands on a chair for balance");
        }

        if (depth > 70)
        {
            yield return (new Manner { Depth = Depth.Half }, "depth", "Half the depth");
            yield return (new Manner { Depth = Depth.Quarter }, "depth", "A quarter of the depth");
        }
        else if (depth > 40)
        {
            yield return (new Manner { Depth = Depth.Quarter }, "depth", "A quarter of the depth");
        }

        if (hinges)
        {
            yield return (new Manner { Depth = Depth.Knee }, "depth", "Only until your hands reach knee height");
        }

        if (first.On == Carrier.Hands)
        {
            if (poses.Poses.All(p => p.Right is null && p.Left is null))
            {
                yield return (new Manner { Support = Support.Knees }, "support", "On the knees: less to lift");
            }

            yield return (new Manner { Surface = Surface.Bench }, "surface", "Hands on a bench: less of you to carry");
        }

        if (first is { On: Carrier.Side, Lift: > 0 })
        {
            yield return (new Manner { Support = Support.Knees }, "support", "On the lower knee: less to lift");
        }

        if (poses.Band is BandAt.Knees or BandAt.Ankles or BandAt.Feet)
        {
            yield return (new Manner { Band = BandStrength.None }, "band", "Without the band: lower and slower");
        }

        if (first.On is Carrier.Shoulders or Carrier.Bench && oneLeg)
        {
            yield return (new Manner { Base = Footing.Staggered }, "base", "The other foot stays down to help");
        }

        if (stands && splits)
        {
            yield return (new Manner { Step = StepLength.Short, Support = Support.HandOnThigh }, "support", "A shorter step, a hand "
                + "on the thigh");
        }

        if (stands && !flies && (move.Family != Family.Stretch || oneLeg))
        {
            yield return (new Manner { Support = Support.Wall }, "support", "A hand on the wall for balance");
            yield return (new Manner { Support = Support.Chair }, "support", "Two hands on a chair for balance");
        }

        yield return (new Manner { Depth = Depth.Half }, "depth", "A smaller range");
        yield return (new Manner { Depth = Depth.Small }, "depth", "A small range");
        yield return (new Manner { Scale = 0.5m }, "amount", "Half as much");
    }

    private static IEnumerable<(Manner Manner, string Dimension, string Why)> Harder(
        Move move, MovePoses poses, Manner main, WeightsAtHand? weights)
    {
        var first = poses.Poses[0];
        var stands = poses.Poses.All(p => p.On == Carrier.Feet);
        var depth = poses.Poses.Max(p => p.Knee is null && p.On == Carrier.Feet ? p.Depth : 0);
        var hinges = poses.Poses.Any(p => p.Knee is not null && p.Lean > 50);
        var quick = move.Quick;
        if (poses.Holds is { Kg: >= 2 } held && Weighed(held, main, 1.4, weights, below: false) is { } heavier)
        {
            yield return (new Manner { Load = heavier }, "load", "A heavier weight");
        }

        if (move.Tempo is not null && !quick && move.Family is not (Family.Recovery or Family.Stretch) && poses.Poses.All(p => p.Air == 0))
        {
            // A stop belongs where the work is hard: at the bottom of what lowers, at the top of what lifts.
            var lifts = Raises(poses);
            yield return (new Manner { Tempo = Paced(lifts ? "4-0-1-1" : "4-0-1-0") }, "tempo",
                lifts ? "Four counts on the way back" : "Four counts on the way down");
            yield return (new Manner { Tempo = Paced(lifts ? "2-0-1-2" : "2-2-1-0") }, "tempo",
                lifts ? "A two-count pause at the top" : "A two-count pause at the bottom");
            yield return (new Manner { Tempo = Paced(lifts ? "4-0-2-2" : "4-2-2-0") }, "tempo", "Slower, with a pause");
            yield return (new Manner { Tempo = Paced(lifts ? "5-0-3-3" : "5-3-3-0") }, "tempo", "Very slow, with a pause");
        }

        if (poses.Holds is null && stands && move.Family is Family.Squat or Family.Lunge && poses.Poses.All(p => p.Air == 0))
        {
            yield return (new Manner { Load = new Load(Implement.Dumbbell, 1, new Kilograms(6), LoadPosition.Goblet, null) }, "load",
                "A weight at the chest");
        }

        if (poses.Holds is null && stands && move.Family is Family.Hinge && poses.Props.IsDefaultOrEmpty)
        {
            yield return (new Manner { Load = new Load(Implement.Dumbbell, 2, new Kilograms(5), LoadPosition.Sides, null) }, "load",
                "A weight in each hand");
        }

        if (first.On is Carrier.Shoulders or Carrier.Bench && poses.Holds is null)
        {
            yield return (new Manner { Load = new Load(Implement.Dumbbell, 1, new Kilograms(8), LoadPosition.Hips, null) }, "load",
                "A weight across the hips");
        }

        var band = main.Band ?? (move.Poses!.Band == BandAt.None ? BandStrength.None : BandStrength.Light);
        if (poses.Band == BandAt.None
            && poses.Poses.All(p => p.Air == 0 && p.On == first.On)
            && (move.Family is Family.Squat or Family.Bridge || move.Family == Family.Activation && first.On != Carrier.Front))
        {
            yield return (new Manner { Band = BandStrength.Light }, "band", "A light band");
            yield return (new Manner { Band = BandStrength.Medium }, "band", "A medium band");
        }
        else if (poses.Band != BandAt.None && band < BandStrength.Strong)
        {
            yield return (new Manner { Band = band + 1 }, "band", "A stronger band");
        }

        if (depth is > 20 and < 100 && stands && poses.Poses.All(p => p.Air == 0))
        {
            yield return (new Manner { Depth = depth < 62 ? Depth.Half : depth < 88 ? Depth.Parallel : Depth.Full }, "depth", "Deeper");
            yield return (new Manner { Depth = Depth.Parallel }, "depth", "Down until the thighs are level");
        }

        if (hinges)
        {
            yield return (new Manner { Depth = Depth.Floor }, "depth", "Deeper, as far as the back stays long");
        }

        if (first.On == Carrier.Hands)
        {
            yield return (new Manner { Base = Footing.Narrow }, "base", "Feet together");
        }
    }

    private static Load? Weighed(MoveLoad held, Manner main, double by, WeightsAtHand? weights, bool below)
    {
        var implement = main.Load?.Implement ?? WordsOfKind(held.Kind);
        return WeightsAtHand.Nearest(weights, implement, (decimal)Math.Round(held.Kg * by, 1), (decimal)held.Kg, below) is { } kg
            ? new Load(implement, held.By == CarriedBy.EachHand ? 2 : 1, new Kilograms(kg), main.Load?.Position, main.Load?.Side)
            : null;
    }

    /// <summary>Whether the body's own weight goes up from the first pose to the last.</summary>
    private static bool Raises(MovePoses poses)
    {
        var motion = OptionFigure.MotionOf(poses);
        return Skeleton.Of(motion.Key(motion.Count - 1)).CentreOfMass.Z > Skeleton.Of(motion.Key(0)).CentreOfMass.Z + 0.01;
    }

    private static Tempo Paced(string text) => Tempo.TryParse(text, out var tempo) ? tempo : throw new ArgumentException(text);

    private static Implement WordsOfKind(string kind) => kind switch
    {
        "dumbbell" => Implement.Dumbbell,
        "kettlebell" => Implement.Kettlebell,
        "barbell" => Implement.Barbell,
        "plate" => Implement.Plate,
        "ball" => Implement.Ball,
        _ => Implement.Bottle,
    };
}
