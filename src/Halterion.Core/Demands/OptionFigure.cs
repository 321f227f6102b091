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
            "wall" or "hand" or "doorway" or "helper" when r.Kind is not PoseKind.Wide => r with { Arms = ArmStyle.Wall, Prop = r.Prop ?? "wall", Held = true },
            "handOnThigh" or "knees" => r with { Arms = ArmStyle.Thigh },
            "chair" or "twoHands" => r with { Arms = ArmStyle.Forward, Held = r.Kind != PoseKind.Squat || r.Prop is null },
            _ => r,
        };
        r = manner.Arms switch
        {
            "forward" => r with { Arms = ArmStyle.Forward },
            "sides" => r with { Arms = ArmStyle.Sides },
            "hips" => r with { Arms = ArmStyle.Hips },
            "crossed" => r with { Arms = ArmStyle.Crossed },
            "overhead" => r with { Arms = ArmStyle.Overhead },
            _ => r,
        };
        r = manner.Base switch
        {
            "rearRaised" when r.Kind == PoseKind.Split => r with { RearRaise = 0.2, Prop = "bench", Stance = 0.62 },
            "frontRaised" when r.Kind == PoseKind.Split => r with { FrontRaise = 0.08, Prop = "step" },
            "staggered" when r.Kind == PoseKind.Hinge => r with { Stance = 0.18 },
            "wide" when r.Kind == PoseKind.Squat => r with { Kind = PoseKind.Wide, Stance = 0.22 },
            _ => r,
        };
        r = manner.Trunk switch
        {
            "upright" => r with { Trunk = r.Kind == PoseKind.Split ? 2 : r.Trunk },
            "leaning" when r.Kind == PoseKind.Split => r with { Trunk = 28 },
            _ => r,
        };
        r = manner.Step switch
        {
            "short" when r.Kind is PoseKind.Split or PoseKind.Wide => r with { Stance = 0.78 * (r.Stance > 0 ? r.Stance : Solver.RightAngleStride()) },
            "long" when r.Kind is PoseKind.Split or PoseKind.Wide => r with { Stance = 1.15 * (r.Stance > 0 ? r.Stance : Solver.RightAngleStride()) },
            _ => r,
        };
        if (manner.Surface is "step" or "bench" or "box" && r.Kind is PoseKind.Bridge or PoseKind.Thrust && manner.Surface is not null)
        {
            r = r with { FrontRaise = (manner.HeightCm ?? 20) / 100.0 / Stature.Usual.Metres, Prop = "step" };
        }

        if (manner.Band is not (null or "none"))
        {
            r = r with { Prop = "band" };
        }

        if (atEnd && manner.Impact is "hop" or "jump" && r.Kind is PoseKind.Wide or PoseKind.Split or PoseKind.Squat && manner.Impact is not null)
        {
            r = r with { Air = manner.Impact == "jump" ? 0.08 : 0.04 };
        }

        return manner.Load is { } load ? Loaded(r, load) : r;
    }

    private static Recipe Deep(Recipe r, string depth) => r.Kind switch
    {
        PoseKind.Squat or PoseKind.Wide => r with
        {
            Depth = depth switch { "small" => 20, "quarter" => 35, "half" => 60, "parallel" => 90, "full" => 105, _ => r.Depth },
            Trunk = depth is "half" or "quarter" or "small" ? null : r.Trunk,
        },
        PoseKind.Split => r with { Depth = depth switch { "small" => 0.2, "quarter" => 0.35, "half" => 0.6, "parallel" or "full" => 1, _ => r.Depth } },
        PoseKind.Hinge => r with { Trunk = depth switch { "knee" or "half" or "small" => 45, "midShin" => 72, "floor" or "full" => 84, _ => r.Trunk } },
        PoseKind.Single => r with
        {
            Trunk = depth switch { "knee" or "half" => 48, "midShin" => 74, "floor" => 84, _ => r.Trunk },
            FreeThigh = r.FreeThigh < -40 && depth is "knee" or "half" ? -48 : r.FreeThigh,
        },
        PoseKind.Bridge or PoseKind.Thrust => r with { Depth = depth switch { "small" => 0.45, "quarter" => 0.5, "half" => 0.65, "parallel" or "full" => 1, _ => r.Depth } },
        _ => r,
    };

    private static Recipe Loaded(Recipe r, Load load)
    {
        var share = (double)(load.Kg?.Value ?? 8) * (load.Count ?? 1) / Anthropometry.UsualMass;
        var bar = load.Implement is "barbell";
        return r with
        {
            Holds = bar ? "bar" : load.Implement == "ball" ? "ball" : "weight",
            Load = share,
            Arms = load.Position switch
            {
                "goblet" => ArmStyle.Chest,
                "shoulders" or "rack" or "frontRack" => ArmStyle.Shoulders,
                "back" => ArmStyle.Back,
                "overhead" => ArmStyle.Overhead,
                "hips" => r.Arms,
                _ => r.Kind == PoseKind.Hinge || r.Kind == PoseKind.Single ? ArmStyle.Hang : ArmStyle.Sides,
            },
        };
    }
}
