using CsCheck;
using System.Globalization;
using System.Text.RegularExpressions;
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
    }

    /// <summary>
    /// Head, arms and trunk together have their centre 0.626 of the way from hip to shoulder in the same table; put together
    /// from the parts, with the arms hanging, ours lies near it.
    /// </summary>
    [Fact]
    public void The_trunk_put_together_has_the_published_centre()
    {
        var pose = Solver.Solve(new Recipe { Kind = PoseKind.Squat, Depth = 0, Trunk = 0 });
        var above = pose.Masses().Take(6).ToArray();
        var height = above.Sum(m => m.At.Y * m.Share) / above.Sum(m => m.Share);
        Assert.Equal(HeadArmsTrunkCentre, (height - pose.Hip.Y) / Trunk, 0.08);
    }

    /// <summary>A textbook static moment, by hand: a leg of 70 kg · 0.161 held level, its weight times the way to its centre.</summary>
    [Fact]
    public void A_static_moment_is_that_of_the_textbook()
    {
        // 70 kg, 1.70 m, one leg straight forward at hip height, nothing under it: about the hip
        // g·70·1.7·(0.100·0.433·0.245 + 0.0465·(0.245 + 0.433·0.246) + 0.0145·(0.491 + foot)).
        var hip = new Point(0, 0.5);
        var (knee, ankle) = (new Point(Thigh, 0.5), new Point(Thigh + Shank, 0.5));
        var leg = new Leg(hip, knee, ankle, ankle, ankle + new Point(0.1, 0));
        var stand = new Leg(hip, new Point(0, 0.3), new Point(0, AnkleHeight), new Point(-0.04, 0), new Point(0.11, 0));
        var arm = new Arm(hip, hip, hip);
        var pose = new Pose(hip, hip, hip, stand, leg, arm, arm, [0], []) { OnOneFoot = true };
        var expected = 9.80665 * 70 * 1.7 * (0.1 * 0.433 * Thigh + 0.0465 * (Thigh + 0.433 * Shank) + 0.0145 * (Thigh + Shank + 0.05));
        Assert.Equal(expected, Math.Abs(Moments.Of(pose, Stature.Usual, 70).Far.Hip), 6);
    }

    [Fact]
    public void Both_knees_square_and_the_front_shin_upright_give_the_stride_of_trigonometry()
    {
        // With the rear ankle at knee height less a thigh the rear shank lies level: the stride is thigh + shank.
        Assert.Equal(Thigh + Shank, Solver.RightAngleStride(KneeHeight - Thigh), 6);
        var pose = Solver.Solve(new Recipe { Kind = PoseKind.Split, Depth = 1 });
        Assert.Equal(90, pose.Near.KneeFlexion, 1.0);
        Assert.Equal(0, pose.Near.ShinLean, 1.0);
        Assert.Equal(90, pose.Far.KneeFlexion, 3.0);
    }

    [Fact]
    public void Parallel_means_level_thighs_and_the_body_balances_over_mid_foot()
    {
        var pose = Squat(90);
        Assert.Equal(0, pose.Near.ThighRise, 0.5);
        Assert.Equal(Solver.MidFoot, pose.CentreOfMass.X, 0.002);
        Assert.Equal(Balance.Stands, pose.Balance);
    }

    [Fact]
    public void Forward_arms_or_a_front_load_allow_a_more_upright_trunk()
    {
        var free = Squat(90, ArmStyle.Sides).TrunkLean;
        Assert.True(Squat(90, ArmStyle.Forward).TrunkLean < free - 5);
        Assert.True(Solver.Solve(new Recipe { Kind = PoseKind.Squat, Depth = 90, Arms = ArmStyle.Chest, Holds = "weight", Load = 0.2 }).TrunkLean < free - 10);
    }

    /// <summary>
    /// Keeping the knees from passing the toes lowers the knee moment and raises the hip moment many times over
    /// (150 to 117 and 28 to 303 N·m with a loaded bar: Fry, Smith &amp; Schilling, J Strength Cond Res 17(4), 2003; from memory).
    /// </summary>
    [Fact]
    public void Strict_knees_lower_the_knee_moment_and_raise_the_hip_moment()
    {
        LegMoments At(double shin) => Moments.Of(
            Solver.Solve(new Recipe { Kind = PoseKind.Squat, Depth = 85, Shin = shin, Arms = ArmStyle.Back, Holds = "bar", Load = 1 }),
            Stature.Usual,
            70).Near;
        var (free, strict) = (At(38), At(22));
        Assert.True(strict.Knee < free.Knee * 0.95, $"{strict} {free}");
        Assert.True(strict.Hip > free.Hip * 1.2, $"{strict} {free}");
    }

    [Fact]
    public void A_pose_outside_its_base_says_to_which_side_it_falls()
    {
        Assert.Equal(Balance.FallsBack, Solver.Solve(new Recipe { Kind = PoseKind.Squat, Depth = 90, Shin = 0, Trunk = 0 }).Balance);
        Assert.Equal(Balance.FallsForward, Solver.Solve(new Recipe { Kind = PoseKind.Squat, Depth = 0, Trunk = 85, Arms = ArmStyle.Forward }).Balance);
    }

    [Fact]
    public void A_small_change_of_depth_never_makes_the_figure_jump() =>
        Gen.Select(Gen.Double[0, 104], Gen.Int[0, 3], Gen.Double[0, 0.98]).Sample((depth, arms, low) =>
        {
            Near(Squat(depth, (ArmStyle)arms), Squat(depth + 0.5, (ArmStyle)arms), 0.02);
            Near(Solver.Solve(new Recipe { Kind = PoseKind.Split, Depth = low }), Solver.Solve(new Recipe { Kind = PoseKind.Split, Depth = low + 0.01 }), 0.02);
            Near(
                Solver.Solve(new Recipe { Kind = PoseKind.Bridge, Depth = low }),
                Solver.Solve(new Recipe { Kind = PoseKind.Bridge, Depth = low + 0.01 }),
                0.02);
            Near(
                Solver.Solve(new Recipe { Kind = PoseKind.Hinge, Trunk = depth * 0.8 }),
                Solver.Solve(new Recipe { Kind = PoseKind.Hinge, Trunk = depth * 0.8 + 0.4 }),
                0.02);
        });

    /// <summary>Segments keep their lengths, whatever is asked, for every move in every frame seen from the side.</summary>
    [Fact]
    public void Every_figure_of_the_library_is_a_body() => Assert.All(Library.Moves, move =>
    {
        foreach (var pose in new[] { Solver.Solve(move.Figure!.Start), Solver.Solve(move.Figure.End) })
        {
            Assert.All(
                [pose.Hip, pose.Shoulder, pose.Head, pose.Near.Knee, pose.Near.Ankle, pose.Far.Ankle, pose.NearArm.Hand],
                p => Assert.True(double.IsFinite(p.X + p.Y) && p.Y > -0.06 && Math.Abs(p.X) < 1.3, move.Id.Value));
            if (!pose.FromFront)
            {
                Assert.Equal(Trunk, (pose.Shoulder - pose.Hip).Length, 0.02);
            }
        }

        var figure = Figure.Of(move.Figure.Start, move.Figure.End, move.Muscles);
        Assert.Equal(9, figure.Frames.Length);
        Assert.NotEqual("", figure.Alt);
        Assert.DoesNotContain("NaN", figure.ViewBox + figure.Way + string.Concat(figure.Frames[4].Layers.Select(l => l.Path)), StringComparison.Ordinal);
    });

    [Fact]
    public void Standing_poses_of_the_library_stand() => Assert.All(
        Library.Moves.Where(m => m.Figure!.End.Air == 0 && m.Figure.End.Kind is PoseKind.Squat or PoseKind.Hinge or PoseKind.Split or PoseKind.Single),
        move => Assert.True(Solver.Solve(move.Figure!.End).Balance == Balance.Stands, move.Id.Value));

    /// <summary>Side by side where a body stands, above each other where it lies; what is only held is shown once.</summary>
    [Fact]
    public void Start_and_end_are_shown_apart()
    {
        Figure Of(string id) => OptionFigure.Of(Library.Find(new MoveId(id))!, new Manner())!;
        double[] Box(string box) => [.. box.Split(' ').Select(v => double.Parse(v, CultureInfo.InvariantCulture))];
        var (squat, bridge) = (Of("squat"), Of("glute-bridge"));
        Assert.True(squat.Pair is { X: > 40, Y: 0 } && bridge.Pair is { X: 0, Y: > 20 });
        Assert.Equal(2 * Box(squat.ViewBox)[2], Box(squat.Pair.ViewBox)[2], 0.2);
        Assert.Equal(2 * Box(bridge.ViewBox)[3], Box(bridge.Pair.ViewBox)[3], 0.2);
        Assert.Null(Of("inner-thigh-machine").Pair);

        // From the side the far leg lies behind and is paler; of a squat only one leg is seen.
        Assert.Equal([Tone.Far, Tone.Near, Tone.Near, Tone.Near], Of("split-squat").Frames[^1].Layers.Select(l => l.Tone).Order());
        Assert.DoesNotContain(Tone.Far, squat.Frames[^1].Layers.Select(l => l.Tone));
    }

    /// <summary>Every outline turns the same way round, so that overlapping limbs never cut holes into each other.</summary>
    [Fact]
    public void No_limb_cuts_a_hole_into_another() => Assert.All(Library.Moves, move =>
        Assert.All(OptionFigure.Of(move, new Manner())!.Frames[^1].Layers.SelectMany(l => l.Path.Split('Z', StringSplitOptions.RemoveEmptyEntries)), outline =>
        {
            // The corners alone tell the way round; of two only, the arcs between them do.
            var numbers = Regex.Matches(outline, @"[MLA]([^MLA]*)").Select(m => m.Groups[1].Value.Split(' ')).ToArray();
            var corners = numbers.Select(n => (X: double.Parse(n[^2], CultureInfo.InvariantCulture), Y: double.Parse(n[^1], CultureInfo.InvariantCulture))).ToArray();
            var area = corners.Zip([.. corners[1..], corners[0]], (a, b) => a.X * b.Y - b.X * a.Y).Sum();
            Assert.True(area <= 0.5, $"{move.Id}: {outline}");
            Assert.All(Regex.Matches(outline, @"A\S+ \S+ 0 [01] ([01]) "), arc => Assert.Equal("0", arc.Groups[1].Value));
        }));

    [Fact]
    public void An_option_is_drawn_in_its_manner()
    {
        var squat = Library.Find(new MoveId("squat"))!.Figure!.End;
        Assert.True(Solver.Solve(OptionFigure.In(squat, new Manner { Depth = Depth.Half }, true)).Near.ThighRise > 20);
        Assert.Equal(
            "weight",
            OptionFigure.In(squat, new Manner { Load = new Load(Implement.Kettlebell, 1, new Kilograms(8), LoadPosition.Goblet, null) }, true).Holds);
        var lunge = Library.Find(new MoveId("split-squat"))!.Figure!.End;
        Assert.Equal(Balance.Stands, Solver.Solve(OptionFigure.In(lunge, new Manner { Base = Footing.RearRaised }, true)).Balance);
        Assert.Contains("thighs level", OptionFigure.Of(Library.Find(new MoveId("squat"))!, new Manner())!.Alt, StringComparison.Ordinal);
    }

    /// <summary>The ladders, which practitioners climb in this order (common practice, no source), come out in their order.</summary>
    [Fact]
    public void Demand_rises_along_every_ladder() => Assert.All(Library.Ladders, ladder =>
    {
        var demands = ladder.Rungs.Select(rung =>
        {
            var option = Proposals.OptionOf(rung, Tier.Harder, Library);
            return (rung.Move, DemandModel.Of(option.Move, option.Manner, Library)!.Overall);
        }).ToArray();
        Assert.All(demands.Zip(demands.Skip(1)), pair => Assert.True(pair.Second.Overall >= pair.First.Overall - 1e-9, $"{ladder.Name}: {pair}"));
    });

    [Fact]
    public void An_easier_option_that_is_not_is_found()
    {
        var text = With(Block("", """{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{"tier":"easier","move":"jump-squat"},{"tier":"harder","move":"goblet-squat"}]}"""));
        var finding = Assert.Single(Good(text).Findings, f => f.Code == "options.order");
        Assert.Contains("impact 0 → 4", finding.What, StringComparison.Ordinal);
        var half = Good(With(Block("", """{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{"tier":"easier","move":"squat","depth":"half"}]}""")));
        Assert.Contains("knee 4 → 2", half.Outline[0].Stations[0].Trades[1], StringComparison.Ordinal);
    }

    /// <summary>Set-up for 1.70 m, worked by hand from the segment lengths; measures grow with the stature.</summary>
    [Fact]
    public void A_station_is_set_for_a_stature()
    {
        SetupMeasure[] Of(string move, double from = 1.7, double to = 1.7)
        {
            var figure = Library.Find(new MoveId(move))!.Figure!;
            return [.. StationSetup.Of(figure.Start, figure.End, new Stature(from), new Stature(to))];
        }

        // Bench under the shoulder blades: knee height less half a trunk, (0.285 − 0.05) · 170 = 40 cm. Seat the same.
        Assert.Equal(40, Of("hip-thrust")[0].Least);
        Assert.Equal(40, Of("chair-squat")[0].Least, 1.0);

        // Stride with the rear ankle tucked (0.10): tilt φ = 13.6°, thigh·(1 + sin φ) + shank·cos φ = 0.542 · 170 = 92 cm.
        Assert.Equal(92, Of("split-squat")[0].Least, 1.0);
        Assert.All(Library.Moves.SelectMany(m => Of(m.Id.Value, 1.5, 2.0)), m => Assert.Equal(2.0 / 1.5, m.Most / m.Least, 0.08));
        Assert.Equal((40, ""), StationSetup.Nearest(Of("hip-thrust")[0], [20, 30, 40, 45]));
        Assert.Equal((45, "the shortest"), StationSetup.Nearest(Of("hip-thrust", 1.5, 2.0)[0], [45]));
        Assert.Null(StationSetup.Nearest(Of("hip-thrust")[0], []));
    }

    private static Pose Squat(double depth, ArmStyle arms = ArmStyle.Forward) => Solver.Solve(new Recipe { Kind = PoseKind.Squat, Depth = depth, Arms = arms });

    private static void Near(Pose a, Pose b, double most)
    {
        foreach (var (x, y) in new[] { (a.Hip, b.Hip), (a.Shoulder, b.Shoulder), (a.Near.Knee, b.Near.Knee), (a.Far.Knee, b.Far.Knee), (a.NearArm.Elbow, b.NearArm.Elbow) })
        {
            Assert.InRange((x - y).Length, 0, most);
        }
    }
}
