using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Demands;

/// <summary>How long a figure takes to go to its end pose, stays there, comes back and stays, in seconds.</summary>
public sealed record FigurePace(double Out, double Hold, double Back, double Stay);

/// <summary>The figure of an option: its move's own, done in the option's manner.</summary>
public static class OptionFigure
{
    /// <summary>For what is only held: one second each way.</summary>
    private const double Unhurried = 1;

    /// <summary>What the eye can still follow.</summary>
    private const double Shortest = 0.3;

    /// <summary>So that one rep can be told from the next.</summary>
    private const double BetweenReps = 0.7;

    /// <summary>Null for a move that has no figure.</summary>
    public static Figure? Of(Move move, Manner manner) =>
        move.Figure is { } figure ? Figure.Of(In(figure.Start, manner, atEnd: false), In(figure.End, manner, atEnd: true), move.Muscles) : null;

    /// <summary>The option's tempo as its figure goes: what lowers is the way out in a squat, but the way back in a bridge. Null without a figure.</summary>
    public static FigurePace? PaceOf(Move move, Manner manner)
    {
        if (move.Figure is not { } figure)
        {
            return null;
        }

        if ((manner.Tempo ?? move.Tempo) is not { } tempo)
        {
            return new FigurePace(Unhurried, Unhurried, Unhurried, Unhurried);
        }

        var rises = Solver.Solve(figure.End).CentreOfMass.Y > Solver.Solve(figure.Start).CentreOfMass.Y;
        var (lower, lift) = (Math.Max((double)tempo.Lower, Shortest), Math.Max((double)tempo.Lift, Shortest));
        return rises
            ? new FigurePace(lift, (double)tempo.Top, lower, Math.Max((double)tempo.Pause, BetweenReps))
            : new FigurePace(lower, (double)tempo.Pause, lift, Math.Max((double)tempo.Top, BetweenReps));
    }

    /// <summary>A recipe done in a manner. Words that a side or front view cannot show, such as grip or toes, leave it as it is.</summary>
    public static Recipe In(Recipe recipe, Manner manner, bool atEnd)
    {
        var r = recipe;
        if (atEnd && manner.Depth is { } depth)
        {
            r = Deep(r, depth);
        }

        r = manner.Support switch
        {
            Support.Wall or Support.Hand or Support.Doorway or Support.Helper when r.Kind is not PoseKind.Wide => r with { Arms = ArmStyle.Wall, Prop = r.Prop ?? "wall", Held = true },
            Support.HandOnThigh or Support.Knees => r with { Arms = ArmStyle.Thigh },
            Support.Chair or Support.TwoHands => r with { Arms = ArmStyle.Forward, Held = r.Kind != PoseKind.Squat || r.Prop is null },
            _ => r,
        };
        r = manner.Arms switch
        {
            ArmPlace.Forward => r with { Arms = ArmStyle.Forward },
            ArmPlace.Sides => r with { Arms = ArmStyle.Sides },
            ArmPlace.Hips => r with { Arms = ArmStyle.Hips },
            ArmPlace.Crossed => r with { Arms = ArmStyle.Crossed },
            ArmPlace.Overhead => r with { Arms = ArmStyle.Overhead },
            _ => r,
        };
        r = manner.Base switch
        {
            Footing.RearRaised when r.Kind == PoseKind.Split => r with { RearRaise = 0.2, Prop = "bench", Stance = 0.62 },
            Footing.FrontRaised when r.Kind == PoseKind.Split => r with { FrontRaise = 0.08, Prop = "step" },
            Footing.Staggered when r.Kind == PoseKind.Hinge => r with { Stance = 0.18 },
            Footing.Wide when r.Kind == PoseKind.Squat => r with { Kind = PoseKind.Wide, Stance = 0.22 },
            _ => r,
        };
        r = manner.Trunk switch
        {
            TrunkLean.Upright => r with { Trunk = r.Kind == PoseKind.Split ? 2 : r.Trunk },
            TrunkLean.Leaning when r.Kind == PoseKind.Split => r with { Trunk = 28 },
            _ => r,
        };
        r = manner.Step switch
        {
            StepLength.Short when r.Kind is PoseKind.Split or PoseKind.Wide => r with { Stance = 0.78 * (r.Stance > 0 ? r.Stance : Solver.RightAngleStride()) },
            StepLength.Long when r.Kind is PoseKind.Split or PoseKind.Wide => r with { Stance = 1.15 * (r.Stance > 0 ? r.Stance : Solver.RightAngleStride()) },
            _ => r,
        };
        if (manner.Surface is Surface.Step or Surface.Bench or Surface.Box && r.Kind is PoseKind.Bridge or PoseKind.Thrust)
        {
            r = r with { FrontRaise = (manner.HeightCm ?? 20) / 100.0 / Stature.Usual.Metres, Prop = "step" };
        }

        if (manner.Band is not (null or BandStrength.None))
        {
            r = r with { Prop = "band" };
        }

        if (atEnd && manner.Impact is Impact.Hop or Impact.Jump && r.Kind is PoseKind.Wide or PoseKind.Split or PoseKind.Squat)
        {
            r = r with { Air = manner.Impact == Impact.Jump ? 0.08 : 0.04 };
        }

        return manner.Load is { } load ? Loaded(r, load) : r;
    }

    private static Recipe Deep(Recipe r, Depth depth) => r.Kind switch
    {
        PoseKind.Squat or PoseKind.Wide => r with
        {
            Depth = depth switch { Depth.Small => 20, Depth.Quarter => 35, Depth.Half => 60, Depth.Parallel => 90, Depth.Full => 105, _ => r.Depth },
            Trunk = depth is Depth.Half or Depth.Quarter or Depth.Small ? null : r.Trunk,
        },
        PoseKind.Split => r with { Depth = depth switch { Depth.Small => 0.2, Depth.Quarter => 0.35, Depth.Half => 0.6, Depth.Parallel or Depth.Full => 1, _ => r.Depth } },
        PoseKind.Hinge => r with { Trunk = depth switch { Depth.Knee or Depth.Half or Depth.Small => 45, Depth.MidShin => 72, Depth.Floor or Depth.Full => 84, _ => r.Trunk } },
        PoseKind.Single => r with
        {
            Trunk = depth switch { Depth.Knee or Depth.Half => 48, Depth.MidShin => 74, Depth.Floor => 84, _ => r.Trunk },
            FreeThigh = r.FreeThigh < -40 && depth is Depth.Knee or Depth.Half ? -48 : r.FreeThigh,
        },
        PoseKind.Bridge or PoseKind.Thrust => r with { Depth = depth switch { Depth.Small => 0.45, Depth.Quarter => 0.5, Depth.Half => 0.65, Depth.Parallel or Depth.Full => 1, _ => r.Depth } },
        _ => r,
    };

    private static Recipe Loaded(Recipe r, Load load)
    {
        var share = (double)(load.Kg?.Value ?? 8) * (load.Count ?? 1) / Anthropometry.UsualMass;
        var bar = load.Implement is Implement.Barbell;
        return r with
        {
            Holds = bar ? "bar" : load.Implement == Implement.Ball ? "ball" : "weight",
            Load = share,
            Arms = load.Position switch
            {
                LoadPosition.Goblet => ArmStyle.Chest,
                LoadPosition.Shoulders or LoadPosition.Rack or LoadPosition.FrontRack => ArmStyle.Shoulders,
                LoadPosition.Back => ArmStyle.Back,
                LoadPosition.Overhead => ArmStyle.Overhead,
                LoadPosition.Hips => r.Arms,
                _ => r.Kind == PoseKind.Hinge || r.Kind == PoseKind.Single ? ArmStyle.Hang : ArmStyle.Sides,
            },
        };
    }
}
