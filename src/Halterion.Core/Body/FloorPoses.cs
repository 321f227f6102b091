using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>Poses on hands, knees, side, back and seat: what touches the floor is placed first, the rest follows.</summary>
internal static class FloorPoses
{
    public static Pose Solve(Recipe r) => r.Kind switch
    {
        PoseKind.HandsAndKnees => HandsAndKnees(r),
        PoseKind.Plank => Plank(r),
        PoseKind.SideLying => SideLying(r),
        PoseKind.Supine => Supine(r),
        PoseKind.Kneeling => Kneeling(r),
        _ => Seated(r),
    };

    private static Pose HandsAndKnees(Recipe r)
    {
        // Knees under hips, hands under shoulders; the free leg goes by its angles, the back sags or rounds by Depth.
        var knee = new Point(0, 0.03);
        var hip = knee + Point.Up(-r.Shift, Thigh);
        var shoulder = hip + new Point(Trunk, UpperArm + Forearm - Thigh + 0.01);
        var stand = new Leg(hip, knee, knee + new Point(-Shank, 0), knee + new Point(-Shank, 0.03), knee + new Point(-Shank - 0.08, -0.02));
        var freeKnee = hip + Point.Down(r.FreeThigh, Thigh);
        var freeAnkle = freeKnee + Point.Down(r.FreeThigh - r.FreeKnee, Shank);
        var free = r.OneLeg
            ? new Leg(
                hip,
                freeKnee,
                freeAnkle,
                freeAnkle + Point.Down(r.FreeThigh - r.FreeKnee - 90, 0.02),
                freeAnkle + Point.Down(r.FreeThigh - r.FreeKnee + 70, 0.1))
            : stand;
        var hand = new Point(shoulder.X, 0.01);
        var arm = new Arm(shoulder, shoulder.Towards(hand, UpperArm / (UpperArm + Forearm)) + new Point(-0.008, 0), hand);
        var far = r.Arms == ArmStyle.Forward ? new Arm(shoulder, shoulder + new Point(UpperArm, 0.03), shoulder + new Point(UpperArm + Forearm, 0.05)) : arm;
        var head = shoulder + new Point(0.095, 0.03 - 0.11 * Math.Max(0, r.Depth));
        return Lie(r, hip, shoulder, head, free, stand, arm, far, -Shank, shoulder.X);
    }

    private static Pose Plank(Recipe r)
    {
        // A straight line from the toes (or knees) to the shoulders; hips lifted by Depth, shoulders lowered by Shift.
        var onKnees = r.Knee > 60;
        var armLength = r.Arms == ArmStyle.Sides ? Forearm * 0.2 + UpperArm : (UpperArm + Forearm) * (1 - r.Shift);
        var shoulder = new Point(0, armLength);
        var foot = onKnees ? new Point(-(Trunk + Thigh) * 0.97, 0.03) : new Point(-(Trunk + Thigh + Shank) * 0.985, 0.09);
        var line = foot - shoulder;
        var hip = shoulder + line * (Trunk / line.Length);
        if (r.Depth > 0)
        {
            // Hips high: the feet come nearer, trunk and legs keep their lengths.
            foot = foot with { X = foot.X * (1 - r.Depth) };
            hip = Angles.Joint(shoulder, foot, Trunk, Thigh + Shank, -1) is var over && over.Y > shoulder.Y
                ? over
                : Angles.Joint(shoulder, foot, Trunk, Thigh + Shank, 1);
        }

        var knee = onKnees ? foot : hip.Towards(foot, Thigh / (Thigh + Shank));
        var ankle = onKnees ? foot + Point.Down(-150, Shank) : foot;
        var stand = new Leg(hip, knee, ankle, ankle + new Point(-0.02, 0.03), onKnees ? ankle + new Point(0.02, 0.09) : new Point(ankle.X + 0.02, 0));
        var freeKnee = hip + Point.Down(r.FreeThigh, Thigh);
        var freeAnkle = freeKnee + Point.Down(r.FreeThigh - r.FreeKnee, Shank);
        var free = r.OneLeg ? new Leg(hip, freeKnee, freeAnkle, freeAnkle + new Point(-0.03, 0.02), freeAnkle + new Point(-0.02, -0.08)) : stand;
        var elbow = r.Arms == ArmStyle.Sides ? new Point(0, 0.02)
            : Angles.Joint(shoulder, new Point(0.02, 0.01), UpperArm, Forearm, -1) is var bent
                && bent.X > 0.02 ? Angles.Joint(shoulder, new Point(0.02, 0.01), UpperArm, Forearm, 1)
            : bent;
        var hand = r.Arms == ArmStyle.Sides ? new Point(Forearm, 0.02) : new Point(0.02, 0.01);
        var arm = new Arm(shoulder, elbow, hand);
        var far = r.Arms switch
        {
            ArmStyle.Forward => new Arm(shoulder, shoulder + new Point(UpperArm, 0.02), shoulder + new Point(UpperArm + Forearm, 0.04)),
            ArmStyle.OneUp => new Arm(shoulder, shoulder + new Point(0.01, UpperArm), shoulder + new Point(0.02, UpperArm + Forearm)),
            _ => arm,
        };
        return Lie(r, hip, shoulder, shoulder + new Point(0.1, 0.03), free, stand, arm, far, foot.X, 0.1);
    }

    private static Pose SideLying(Recipe r)
    {
        // Seen from the front of the person, who lies with the head to the left and the upper leg free.
        var shoulder = new Point(0, 0.06);
        var hip = new Point(Trunk, 0.05);
        Leg Of(Point joint, double thigh, double bend)
        {
            var knee = joint + new Point(Thigh * Solver.Cos(thigh), Thigh * Solver.Sin(thigh));
            var ankle = knee + new Point(Shank * Solver.Cos(thigh - bend), Shank * Solver.Sin(thigh - bend));
            return new Leg(joint, knee, ankle, ankle + new Point(-0.01, -0.02), ankle + new Point(0.04, 0.06));
        }

        var lower = Of(hip, -1, 0);
        var upper = Of(hip + new Point(0, 0.035), r.FreeThigh, r.FreeKnee);
        if (r.Shift > 0)
        {
            // Knees bent towards the viewer: shins are seen short, heels together.
            var heels = hip + new Point(0.10, -0.005);
            lower = new Leg(hip, hip + new Point(0.2, -0.015), heels, heels + new Point(-0.02, -0.01), heels + new Point(0.06, 0.01));
            upper = upper with { Ankle = heels + new Point(0, 0.03), Heel = heels + new Point(-0.02, 0.02), Toe = heels + new Point(0.06, 0.035) };
        }
        var lift = r.Depth;
        if (lift > 0)
        {
            // Side plank: hips off the floor, shoulder over elbow.
            shoulder = new Point(0, 0.19);
            hip = new Point(Trunk * 0.97, 0.05 + 0.1 * lift);
            lower = new Leg(hip, hip.Towards(new Point(0.74, 0.04), 0.5), new Point(0.74, 0.04), new Point(0.75, 0.02), new Point(0.79, 0.1));
            upper = lower;
        }

        var arm = lift > 0
            ? new Arm(shoulder, new Point(0.0, 0.02), new Point(-0.14, 0.02))
            : new Arm(shoulder, shoulder + new Point(-0.13, 0.0), shoulder + new Point(-0.25, 0.02));
        var far = r.Arms == ArmStyle.OneUp
            ? new Arm(shoulder, shoulder + new Point(0.0, UpperArm), shoulder + new Point(0.0, UpperArm + Forearm))
            : new Arm(shoulder, shoulder + new Point(0.1, 0.1), new Point(0.13, 0.03));
        return Lie(r, hip, shoulder, shoulder + new Point(-0.1, 0.03), upper, lower, arm, far, -0.2, 0.8);
    }

    private static Pose Supine(Recipe r)
    {
        var shoulder = new Point(0, Thickness);
        var hip = new Point(Trunk, Thickness);
        Leg Of(double thigh, double bend)
        {
            // Degrees from straight along the floor upward.
            var knee = hip + new Point(Thigh * Solver.Cos(thigh), Thigh * Solver.Sin(thigh));
            var ankle = knee + new Point(Shank * Solver.Cos(thigh - bend), Shank * Solver.Sin(thigh - bend));
            return new Leg(hip, knee, ankle with { Y = Math.Max(0.03, ankle.Y) }, ankle + new Point(0.0, -0.02), ankle + new Point(0.02, 0.09));
        }

        var near = Of(r.FreeThigh, r.FreeKnee);
        var far = r.OneLeg ? Of(r.Stance, r.Knee) : near;
        var arm = r.Arms switch
        {
            ArmStyle.Overhead => new Arm(shoulder, shoulder + new Point(-UpperArm, 0.02), shoulder + new Point(-UpperArm - Forearm, 0.03)),
            ArmStyle.Forward => new Arm(shoulder, shoulder + new Point(0.01, UpperArm), shoulder + new Point(0.02, UpperArm + Forearm)),
            ArmStyle.Thigh => new Arm(
                shoulder,
                Angles.Joint(shoulder, near.Hip.Towards(near.Knee, 0.8), UpperArm, Forearm, -1),
                near.Hip.Towards(near.Knee, 0.8)),
            _ => new Arm(shoulder, new Point(UpperArm, 0.02), new Point(UpperArm + Forearm, 0.015)),
        };
        var farArm = r.OneLeg && r.Arms == ArmStyle.Forward
            ? new Arm(shoulder, shoulder + new Point(-UpperArm, 0.04), shoulder + new Point(-UpperArm - Forearm, 0.05))
            : arm;
        return Lie(r, hip, shoulder, new Point(-0.11, 0.065), near, far, arm, farArm, -0.2, hip.X + 0.1);
    }

    private static Pose Kneeling(Recipe r)
    {
        var knee = new Point(0, 0.03);
        var hip = knee + Point.Up(r.Shift - r.Depth, Thigh);
        var back = new Leg(hip, knee, knee + new Point(-Shank, 0.0), knee + new Point(-Shank - 0.01, 0.03), knee + new Point(-Shank - 0.09, -0.015));
        var foot = new Point(0.3, AnkleHeight);
        var front = r.OneLeg
            ? new Leg(
                hip,
                Angles.Joint(hip, foot, Thigh, Shank, 1),
                foot,
                foot + new Point(-Heel, -AnkleHeight),
                foot + new Point(Foot - Heel, -AnkleHeight))
            : back;
        var shoulder = hip + Point.Up(r.Trunk ?? 0, Trunk);
        var pose = Arms.From(r, hip, shoulder, front, back, [-Shank, r.OneLeg ? 0.35 : 0.08]);
        return Mat(pose, -Shank - 0.12, 0.4);
    }

    private static Pose Seated(Recipe r)
    {
        var seat = r.PropHeight;
        var hip = new Point(0, seat + Thickness);
        var knee = hip + Point.Up(90 - r.FreeThigh, Thigh);
        var ankle = knee + Point.Down(90 - r.FreeKnee - (90 - 90) + r.FreeThigh, Shank);
        if (ankle.Y < AnkleHeight)
        {
            ankle = ankle with { Y = AnkleHeight };
        }

        var near = new Leg(hip, knee, ankle, ankle + new Point(-0.02, -0.03), ankle + new Point(0.03, r.FreeKnee < 40 ? 0.09 : -0.03));
        var far = near;
        if (r.OneLeg)
        {
            // One ankle over the other knee.
            var crossed = hip + new Point(0.13, 0.1);
            far = near;
            near = new Leg(hip, crossed, knee + new Point(-0.02, 0.02), knee + new Point(-0.02, 0.05), knee + new Point(0.03, 0.08));
        }

        var shoulder = hip + Point.Up(r.Trunk ?? 0, Trunk);
        var pose = Arms.From(r, hip, shoulder, near, far, [-0.1, 0.5]);
        return seat > 0 ? pose with { Props = pose.Props.Add(new Prop("chair", new Point(-0.13, 0), new Point(0.14, seat))) } : Mat(pose, -0.2, 0.6);
    }

    private static Pose Lie(Recipe r, Point hip, Point shoulder, Point head, Leg near, Leg far, Arm arm, Arm farArm, double from, double to)
    {
        var props = ImmutableArray.CreateBuilder<Prop>();
        if (r.Prop == "band")
        {
            props.Add(new Prop("band", near.Knee, far.Knee));
        }
        else if (r.Prop == "wall")
        {
            props.Add(new Prop("wall", new Point(to + 0.35, 0), new Point(to + 0.365, 0.8)));
        }

        var pose = new Pose(hip, shoulder, head, near, far, arm, farArm, [from, to], props.ToImmutable());
        return Mat(
            pose,
            Math.Min(head.X, Math.Min(far.Toe.X, near.Toe.X)) - 0.05,
            Math.Max(Math.Max(near.Toe.X, far.Toe.X), Math.Max(arm.Hand.X, shoulder.X)) + 0.05);
    }

    private static Pose Mat(Pose pose, double from, double to) =>
        pose with { Props = pose.Props.Add(new Prop("mat", new Point(from, -0.012), new Point(to, 0))) };
}
