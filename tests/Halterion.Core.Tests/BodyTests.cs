using CsCheck;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using static Halterion.Core.Body.Anthropometry;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>The body model against outside facts.</summary>
public class BodyTests
{
    /// <summary>Winter, Biomechanics and Motor Control of Human Movement, 4th ed., fig. 4.1 and table 4.1 (from memory).</summary>
    [Fact]
    public void Segments_and_masses_are_those_of_the_published_tables()
    {
        Assert.Equal((0.246, 0.245, 0.288), (Math.Round(Shank, 3), Math.Round(Thigh, 3), Math.Round(Trunk, 3)));
        Assert.Equal(ShoulderHeight, AnkleHeight + Shank + Thigh + Trunk, 6);

        // Head, arms and trunk: 0.081 + 0.497 + 2·(0.028 + 0.022) = 0.678; with the legs the whole body.
        Assert.Equal(HeadArmsTrunkMass, HeadMass + TrunkMass + 2 * (UpperArmMass + ForearmHandMass), 6);
        Assert.Equal(1, HeadArmsTrunkMass + 2 * (ThighMass + ShankMass + FootMass), 6);
        Assert.Equal(1, Solve(new KeyPose()).Body.Masses().Sum(m => m.Share), 9);
    }

    /// <summary>
    /// Standing it is as tall as it should be, and its centre of mass lies at 55–57 % of stature (Winter, ch. 4; from memory), over
    /// mid-foot.
    /// </summary>
    [Fact]
    public void A_standing_body_is_as_tall_as_its_stature()
    {
        var (_, s) = Solve(new KeyPose());
        Assert.Equal(1, s[Joint.Head].Z + HeadRadius, 0.01);
        Assert.Equal(0.56, s.CentreOfMass.Z, 0.015);
        Assert.Equal(PoseSolver.MidFoot, s.CentreOfMass.X, 0.001);
        Assert.Equal(0, s.CentreOfMass.Y, 0.001);
    }

    /// <summary>A textbook static moment, by hand: a leg held level, its weight times the way to its centre.</summary>
    [Fact]
    public void A_static_moment_is_that_of_the_textbook()
    {
        // 70 kg, 1.70 m, one leg straight forward: about its hip g·70·1.7·(0.100·0.433·0.245 + 0.0465·(0.245 + 0.433·0.246) + 0.0145·(0.491
        // + …)).
        var posture = PoseSolver.Solve(new KeyPose { Right = new FootSpec(Flex: 90, Knee: 1, Point: 0) });
        var expected = Gravity * 70 * 1.7 * (
            0.1 * 0.433 * Thigh + 0.0465 * (Thigh + 0.433 * Shank) + 0.0145 * (Thigh + Shank + AnkleHeight / 2));
        Assert.Equal(expected, -Of(posture).Right.Hip, 1.5);
        Assert.Equal(0, Of(posture).Right.Share, 9);
        Assert.Equal(1, Of(posture).Left.Share, 9);
    }

    /// <summary>
    /// A bridge by hand: of the weight W the feet carry what balances it about the shoulders, W·(c − s) / (f − s); about the hip of
    /// one leg that is half of it times the way from hip to foot, less the leg's own weight.
    /// </summary>
    [Fact]
    public void A_bridge_is_that_worked_by_hand()
    {
        var (posture, s) = Solve(new KeyPose { On = Carrier.Shoulders, Lift = 1 });
        var (hip, foot) = (s[Joint.RightHip].X, s[Joint.RightAnkle].X + PoseSolver.MidFoot);
        var share = (s.CentreOfMass.X - s[Joint.Chest].X) / (foot - s[Joint.Chest].X) / 2;
        var leg = ThighMass * (s[Joint.RightHip].Towards(s[Joint.RightKnee], ThighCentre).X - hip)
            + ShankMass * (s[Joint.RightKnee].Towards(s[Joint.RightAnkle], ShankCentre).X - hip)
            + FootMass * (s[Joint.RightHeel].Towards(s[Joint.RightToe], FootCentre).X - hip);
        Assert.Equal(Gravity * 70 * 1.7 * (share * (foot - hip) - leg), Of(posture).Right.Hip, 1.0);
    }

    [Fact]
    public void Parallel_means_level_thighs_and_the_body_balances_over_mid_foot()
    {
        var (_, s) = Solve(new KeyPose { Depth = 90, Arms = new ArmSpec(ArmWord.Forward) });
        Assert.Equal(0, s[Joint.RightHip].Z - s[Joint.RightKnee].Z, 0.004);
        Assert.Equal(PoseSolver.MidFoot, s.CentreOfMass.X, 0.001);
        Assert.InRange(JointLimits.KneeFlexion(s, 1), 110, 130);
    }

    [Fact]
    public void Both_knees_square_and_the_front_shin_upright_give_the_stride_of_trigonometry()
    {
        // With the rear shank near level the stride is about thigh + shank.
        var (_, s) = Solve(new KeyPose { Split = Thigh + Shank, Width = 0.13, Depth = 90, Shin = 0, Lean = 8 });
        Assert.Equal(90, JointLimits.KneeFlexion(s, -1), 1.5);
        Assert.Equal(s[Joint.RightAnkle].X, s[Joint.RightKnee].X, 0.006);
        Assert.InRange(JointLimits.KneeFlexion(s, 1), 85, 105);
        Assert.InRange(s[Joint.LeftKnee].Z, 0.02, 0.06);
    }

    /// <summary>Handbook, section 7: weight or arms in front let the trunk stay upright, a stiff ankle asks for more lean.</summary>
    [Fact]
    public void A_front_load_is_more_upright_than_a_back_load_and_a_stiff_ankle_leans_more()
    {
        double Lean(ArmWord arms, CarriedBy? by, double ankle = JointLimits.AnkleBend)
        {
            var up = Solve(
                new KeyPose { Depth = 85, Arms = new ArmSpec(arms) },
                by is { } b ? new Carried("barbell", 20, 20.0 / 70, b) : null,
                ankle).Body.Chest.Of(Vec.Up);
            return Math.Atan2(up.X, up.Z) * 180 / Math.PI;
        }

        Assert.True(Lean(ArmWord.FrontRack, CarriedBy.BothHands) < Lean(ArmWord.Back, CarriedBy.Shoulders) - 8);
        Assert.True(Lean(ArmWord.Forward, null) < Lean(ArmWord.Hips, null) - 3);
        Assert.True(Lean(ArmWord.Forward, null, 25) > Lean(ArmWord.Forward, null) + 5);
    }

    /// <summary>
    /// Keeping the knees behind the toes lowers the knee moment and raises the hip moment (with a loaded bar 150 to 117 and 28 to
    /// 303 N·m, both legs: Fry, Smith &amp; Schilling, J Strength Cond Res 17(4), 2003; from memory). Ours, of both legs of 70 kg under
    /// 70 kg: 246 to about 110, 250 to about 390. Their free squat had the load nearly over the hips; ours leans as balance asks.
    /// </summary>
    [Fact]
    public void Strict_knees_lower_the_knee_moment_and_raise_the_hip_moment()
    {
        var bar = new Carried("barbell", 70, 1, CarriedBy.Shoulders);
        LegLoad At(double shin) =>
            Forces.Of(PoseSolver.Solve(new KeyPose { Depth = 90, Shin = shin, Arms = new ArmSpec(ArmWord.Back) }, bar), bar, Stature.Usual,
                70).Right;
        var (free, strict) = (At(38), At(20));
        Assert.InRange(strict.Knee / free.Knee, 0.4, 0.9);
        Assert.True(strict.Hip > 1.5 * free.Hip, $"{strict} {free}");
    }

    /// <summary>Directions that handbooks agree on (handbook, section 7; common practice, no source).</summary>
    [Fact]
    public void Moments_go_the_way_that_practice_knows()
    {
        Moments Move(string id) => Deepest(id);
        var (squat, one, hinge) = (Move("squat"), Move("single-leg-box-squat"), Move("romanian-deadlift"));
        Assert.InRange((one.Right.Knee + one.Right.Hip) / (squat.Right.Knee + squat.Right.Hip), 1.6, 2.4);
        Assert.True(hinge.Right.Hip > 2 * Math.Max(1, hinge.Right.Knee), "a hinge is hip-led");
        Assert.True(squat.Right.Knee > 0.8 * squat.Right.Hip, "a squat is as much the knee's");

        double Hip(double depth) => Of(PoseSolver.Solve(new KeyPose { Depth = depth, Arms = new ArmSpec(ArmWord.Forward) })).Right.Hip;
        Assert.True(Hip(30) < Hip(60) && Hip(60) < Hip(90), "deeper means more at the hip");

        LegLoad Split(double stride, double depth) =>
            Of(PoseSolver.Solve(new KeyPose { Split = stride, Width = 0.13, Depth = depth, Lean = 12, Weight = 0.6 })).Right;
        Assert.True(Split(0.55, 86).Knee < Split(0.40, 86).Knee, "a longer stride spares the front knee");
        Assert.True(Split(0.488, 86) is { Knee: > 15, Hip: > 40 } low && low.Hip > Split(0.488, 55).Hip, "front hip and knee both work, "
            + "and depth matters");
    }

    /// <summary>Contact forces carry the whole weight, whatever the pose.</summary>
    [Fact]
    public void Shares_sum_to_one_and_lie_where_the_weight_is() => Gen.Select(Gen.Double[-0.2, 0.2], Gen.Double[-0.1, 0.1]).Sample((x, y) =>
    {
        Contact[] at = [new("a", new Vec(-0.3, -0.1, 0)), new("b", new Vec(-0.3, 0.1, 0)), new("c", new Vec(0.3, 0.1, 0)),
            new("d", new Vec(0.3, -0.1, 0))];
        var shares = Contacts.Shares([.. at], new Vec(x, y, 1));
        Assert.Equal(1, shares.Sum(), 6);
        Assert.All(shares, s => Assert.True(s >= 0));
        Assert.Equal(x, at.Zip(shares, (c, s) => c.At.X * s).Sum(), 0.05);
    });

    [Fact]
    public void A_small_change_of_depth_never_makes_the_figure_jump() => Gen.Double[2, 96].Sample(depth =>
    {
        var (a, b) = (Solve(new KeyPose { Depth = depth, Arms = new ArmSpec(ArmWord.Chest) }).Body,
            Solve(new KeyPose { Depth = depth + 0.5, Arms = new ArmSpec(ArmWord.Chest) }).Body);
        Assert.All(a.All.Zip(b.All), pair => Assert.InRange((pair.First - pair.Second).Length, 0, 0.015));
    });

    [Fact]
    public void A_pose_past_a_joint_is_named()
    {
        Assert.Equal("right knee",
            JointLimits.Past(
                Solve(new KeyPose { On = Carrier.Back, Right = new FootSpec(Flex: 90, Knee: 170), Left = new FootSpec(Flex: 20) })
                    .Body)?.Joint);
        Assert.Null(JointLimits.Past(Solve(new KeyPose()).Body));
        var refused = Assert.Throws<PoseRefusedException>(
            () => new Motion([new KeyPose(), new KeyPose { On = Carrier.Back, Left = new FootSpec(Flex: 150) }]));
        Assert.Equal("left hip", refused.Joint);
    }

    /// <summary>The ladders, which practitioners climb in this order (common practice, no source), rise by at least 0.3 a step.</summary>
    [Fact]
    public void Demand_rises_along_every_ladder() => Assert.All(Library.Ladders, ladder =>
    {
        var demands = ladder.Rungs.Select(rung =>
        {
            var option = Proposals.OptionOf(rung, Tier.Harder, Library);
            return (rung.Move, DemandModel.Of(option.Move, option.Manner, Library)!.Overall);
        }).ToArray();
        Assert.All(demands.Zip(demands.Skip(1)),
            pair => Assert.True(pair.Second.Overall >= pair.First.Overall + Proposals.Least - 1e-9, $"{ladder.Name}: {pair}"));
    });

    [Fact]
    public void An_easier_option_that_is_not_is_found()
    {
        var text = With(Block("", """{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{"tier":"easier","move":"jump-squat"},{"tier":"harder","move":"goblet-squat"}]}"""));
        var finding = Assert.Single(Good(text).Findings, f => f.Code == "options.order");
        Assert.Contains("impact 0 → 4", finding.What, StringComparison.Ordinal);
        var half = Good(With(Block("", """{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{"tier":"easier","move":"squat","depth":"half"}]}""")));
        Assert.Contains("knee 3 → 2", half.Outline[0].Stations[0].Trades[1], StringComparison.Ordinal);
    }

    /// <summary>What is told is what is drawn, for 1.70 m by hand from the segment lengths; measures grow with the stature.</summary>
    [Fact]
    public void A_station_is_set_for_a_stature()
    {
        SetupMeasure[] Of(string move, double from = 1.7, double to = 1.7)
        {
            var poses = Library.Find(new MoveId(move))!.Poses!;
            return [.. StationSetup.Of(OptionFigure.MotionOf(poses), poses.Props, new Stature(from), new Stature(to))];
        }

        // Bench under the shoulder blades: knee height less half a trunk's thickness, (0.285 − 0.05) · 170 = 40 cm.
        Assert.Equal(40, Of("hip-thrust")[0].Least);

        // Stride thigh + shank, 0.491 · 170 = 83 cm; a raised foot 0.17 · 170 = 29 cm, as drawn.
        Assert.Equal(83, Of("split-squat")[0].Least, 3.0);
        Assert.Equal(29, Of("rear-raised-split-squat")[0].Least);
        Assert.Equal(
            0.17,
            Skeleton.Of(OptionFigure.MotionOf(Library.Find(new MoveId("rear-raised-split-squat"))!.Poses!).Key(1))[Joint.LeftAnkle].Z,
            0.04);
        Assert.InRange(Of("chair-squat")[0].Least, 42, 52);
        Assert.All(Library.Moves.SelectMany(m => Of(m.Id.Value, 1.5, 2.0)), m => Assert.Equal(2.0 / 1.5, m.Most / m.Least, 0.08));
        Assert.Equal((40, ""), StationSetup.Nearest(Of("hip-thrust")[0], [20, 30, 40, 45]));
        Assert.Equal((45, "the shortest"), StationSetup.Nearest(Of("hip-thrust", 1.5, 2.0)[0], [45]));
        Assert.Null(StationSetup.Nearest(Of("hip-thrust")[0], []));
    }

    private static Moments Deepest(string id)
    {
        var poses = Library.Find(new MoveId(id))!.Poses!;
        var motion = OptionFigure.MotionOf(poses);
        var low = Enumerable.Range(0, motion.Count).Select(motion.Key).MinBy(k => Skeleton.Of(k).CentreOfMass.Z)!;
        return Forces.Of(low, motion.Load, Stature.Usual, UsualMass);
    }

    private static Moments Of(Posture posture) => Forces.Of(posture, null, Stature.Usual, 70);

    private static (Posture Posture, Skeleton Body) Solve(KeyPose pose, Carried? load = null, double ankle = JointLimits.AnkleBend)
    {
        var posture = PoseSolver.Solve(pose, load, ankle);
        return (posture, Skeleton.Of(posture));
    }
}
