using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>Head, arms and what they hold, once hips, shoulders and legs are placed.</summary>
internal static class Arms
{
    private const double Reach = UpperArm + Forearm;

    public static Pose From(Recipe r, Point hip, Point shoulder, Leg near, Leg far, ImmutableArray<double> support, Point? head = null, bool front = false)
    {
        var lean = Angles.FromUp(shoulder - hip);
        var (nearArm, farArm) = r.Kind is PoseKind.Bridge or PoseKind.Thrust ? Resting(r, hip, shoulder)
            : front ? FrontArms(r, hip, shoulder)
            : SideArms(r, hip, shoulder, near, lean);
        var weight = r.Holds is null ? null : new HeldWeight(Grip(r, hip, shoulder, nearArm, lean), r.Load > 0 ? r.Load : 0.1);
        var props = Props(r, hip, near, far, nearArm, weight);
        return new Pose(hip, shoulder, head ?? shoulder + Point.Up(lean * 0.7, Neck), near, far, nearArm, farArm, support, props, weight, front);
    }

    private static (Arm Near, Arm Far) SideArms(Recipe r, Point hip, Point shoulder, Leg near, double lean)
    {
        Arm By(double upper, double fore) => Free(shoulder, upper, fore);
        Arm To(Point hand, int side) => new(shoulder, Angles.Joint(shoulder, hand, UpperArm, Forearm, side), hand);
        return r.Arms switch
        {
            ArmStyle.Forward => Both(By(90 - lean * 0.15, 90 - lean * 0.15)),
            ArmStyle.Hips => Both(To(hip + new Point(0.02, 0.03), -1)),
            ArmStyle.Crossed => Both(By(38 - lean * 0.5, 128 - lean)),
            ArmStyle.Chest => Both(To(shoulder + Point.Up(lean, -0.07) + Point.Up(lean + 90, 0.10), -1)),
            ArmStyle.Shoulders => Both(By(28 - lean * 0.4, 158 - lean * 0.8)),
            ArmStyle.Back => Both(By(-18 - lean * 0.4, 150 - lean)),
            ArmStyle.Overhead => Both(By(178 - lean, 178 - lean)),
            ArmStyle.Thigh => Both(To(near.Hip.Towards(near.Knee, 0.8) + new Point(0.01, 0.045), -1)),
            ArmStyle.Wall => (To(shoulder + new Point(0.26, -0.06), -1), By(0, 8)),
            ArmStyle.Swing => (By(35, 120), By(-35, 40)),
            ArmStyle.Out => Both(By(60, 62)),
            ArmStyle.OneUp => (By(0, 5), By(178 - lean, 178 - lean)),
            _ => Both(By(0, 4)),
        };
    }

    /// <summary>On the floor beside the trunk, or over the hips.</summary>
    private static (Arm Near, Arm Far) Resting(Recipe r, Point hip, Point shoulder) => r.Kind == PoseKind.Bridge
        ? Both(new Arm(shoulder, new Point(shoulder.X + UpperArm, 0.018), new Point(shoulder.X + Reach, 0.015)))
        : Both(new Arm(shoulder, Angles.Joint(shoulder, hip + new Point(-0.03, 0.03), UpperArm, Forearm, 1), hip + new Point(-0.03, 0.03)));

    private static (Arm Near, Arm Far) FrontArms(Recipe r, Point hip, Point shoulder)
    {
        Arm One(int sign)
        {
            var at = shoulder + new Point(sign * ShoulderBreadth / 2, 0);
            return r.Arms switch
            {
                ArmStyle.Hips => new Arm(at, at + new Point(sign * 0.10, -0.15), new Point(hip.X + sign * 0.09, hip.Y + 0.04)),
                ArmStyle.Chest or ArmStyle.Crossed or ArmStyle.Shoulders or ArmStyle.Forward => new Arm(
                    at,
                    at + new Point(sign * 0.035, -0.16),
                    new Point(shoulder.X + sign * 0.02, shoulder.Y - 0.08)),
                ArmStyle.Out => new Arm(at, at + new Point(sign * UpperArm, 0), at + new Point(sign * Reach, 0.005)),
                ArmStyle.Overhead => new Arm(at, at + new Point(sign * 0.02, UpperArm), at + new Point(sign * 0.02, Reach)),
                ArmStyle.Hang => new Arm(at, at + new Point(-sign * 0.03, -UpperArm), new Point(shoulder.X + sign * 0.03, shoulder.Y - Reach)),
                ArmStyle.Thigh => new Arm(at, at + new Point(sign * 0.06, -0.15), new Point(hip.X + sign * 0.13, hip.Y + 0.02)),
                _ => new Arm(at, at + new Point(sign * 0.03, -UpperArm), at + new Point(sign * 0.04, -Reach)),
            };
        }

        return (One(1), One(-1));
    }

    /// <summary>Where a held weight hangs or lies.</summary>
    private static Point Grip(Recipe r, Point hip, Point shoulder, Arm arm, double lean) => r.Arms switch
    {
        ArmStyle.Back => shoulder + Point.Up(lean, 0.02) + Point.Up(lean - 90, 0.04),
        ArmStyle.Shoulders => shoulder + Point.Up(lean + 90, 0.07),
        _ when r.Holds == "bar" && r.Kind is PoseKind.Bridge or PoseKind.Thrust => hip + new Point(0, 0.07),
        _ => arm.Hand + (arm.Hand - arm.Elbow) * (0.05 / Math.Max(0.01, (arm.Hand - arm.Elbow).Length)),
    };

    private static ImmutableArray<Prop> Props(Recipe r, Point hip, Leg near, Leg far, Arm arm, HeldWeight? weight)
    {
        var props = ImmutableArray.CreateBuilder<Prop>();
        switch (r.Prop)
        {
            case "chair" or "box":
                var seat = r.PropHeight > 0 ? r.PropHeight : KneeHeight - Thickness;
                props.Add(new Prop(r.Prop, new Point(-0.42, 0), new Point(-0.16, seat)));
                break;
            case "wall" when r.Kind == PoseKind.Hinge:
                props.Add(new Prop("wall", new Point(-0.345, 0), new Point(-0.33, 0.9)));
                break;
            case "wall":
                props.Add(new Prop(
                    "wall",
                    new Point(arm.Hand.X > 0.1 ? arm.Hand.X + 0.015 : -0.36, 0),
                    new Point(arm.Hand.X > 0.1 ? arm.Hand.X + 0.03 : -0.345, 1.0)));
                break;
            case "pad":
                props.Add(new Prop("pad", new Point(far.Knee.X - 0.07, 0), new Point(far.Knee.X + 0.07, 0.025)));
                break;
            case "band":
                props.Add(new Prop("band", near.Knee.Towards(near.Hip, 0.2), far.Knee.Towards(far.Hip, 0.2)));
                break;
            case "step" or "bench" when r.FrontRaise > 0:
                props.Add(new Prop(r.Prop, new Point(near.Heel.X - 0.05, 0), new Point(near.Toe.X + 0.05, r.FrontRaise)));
                break;
            case "bench" when r.RearRaise > 0:
                props.Add(new Prop("bench", new Point(far.Toe.X - 0.08, 0), new Point(far.Toe.X + 0.14, r.RearRaise)));
                break;
            case "anchor":
                props.Add(new Prop("band", arm.Hand, new Point(-0.5, 0.06)));
                break;
        }

        if (weight is not null)
        {
            props.Add(new Prop(r.Holds!, weight.At, weight.At));
        }

        return props.ToImmutable();
    }

    private static (Arm, Arm) Both(Arm arm) => (arm, arm);

    private static Arm Free(Point shoulder, double upper, double fore)
    {
        var elbow = shoulder + Point.Down(upper, UpperArm);
        return new Arm(shoulder, elbow, elbow + Point.Down(fore, Forearm));
    }
}
