using System.Collections.Concurrent;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Views;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>What moves, against what falls, stands and is held; and the forces that go with it, by hand.</summary>
public class FlightTests
{
    private static MoveMotion Motion(string id, Manner? manner = null, int stature = 170) =>
        manner is null && stature == 170 ? Plain.GetOrAdd(id, _ => Of(id, new Manner(), 170)) : Of(id, manner ?? new Manner(), stature);

    private static readonly ConcurrentDictionary<string, MoveMotion> Plain = [];

    private static MoveMotion Of(string id, Manner manner, int stature) =>
        MoveMotion.Of(Option.Of(Tier.Main, new MoveId(id)) with { Manner = manner }, "main", Library, new Preferences(), stature);

    private static double[] Joint(MoveMotion motion, int frame, string joint) => [.. motion.Frames[frame].At[motion.Joints.IndexOf(joint)]];

    /// <summary>
    /// A body is in the air as long as a fall from that height takes, √(2h/g) each way (mechanics of a free fall), whoever it is and
    /// whatever the tempo.
    /// </summary>
    [Theory]
    [InlineData("jump-squat", 1, 170)]
    [InlineData("jump-squat", 1, 200)]
    [InlineData("jump-lunge", 2, 170)]
    [InlineData("side-bound", 2, 150)]
    [InlineData("skater-jump", 1, 170)]
    [InlineData("toe-tap-bound", 2, 170)]
    [InlineData("jump-out-squat", 1, 170)]
    public void A_flight_lasts_as_long_as_a_fall(string id, int flights, int stature)
    {
        var motion = Motion(id, stature: stature);
        var air = Enumerable.Range(0, motion.Frames.Length).Where(i => motion.Frames[i].Air).ToArray();
        var heights = air.Select(i => motion.Frames[i].CentreOfMass[2]).ToArray();
        var runs = air.Count(i => !motion.Frames[i - 1].Air);
        Assert.Equal(flights, runs);

        // The frames next to the ground are within one of it: the whole rise is a little more than the highest and the lowest frame show.
        var fall = 2 * Math.Sqrt(2 * (heights.Max() - heights.Min()) / 9.81);
        Assert.Equal(fall, air.Length / 25.0 / flights, 0.09);
        foreach (var i in air.Where(i => i > 1 && motion.Frames[i - 1].Air && i + 1 < motion.Frames.Length && motion.Frames[i + 1].Air))
        {
            // Its speed changes by g from frame to frame: Δ²z = g·Δt².
            var bend = motion.Frames[i + 1].CentreOfMass[2] - 2 * motion.Frames[i].CentreOfMass[2] + motion.Frames[i - 1].CentreOfMass[2];
            Assert.Equal(-9.81 / 625, bend, 0.006);
        }
    }

    [Fact]
    public void A_slower_tempo_makes_no_longer_flight()
    {
        Assert.True(Tempo.TryParse("4-0-4-2", out var slow));
        var (usual, slower) = (Motion("jump-squat"), Motion("jump-squat", new Manner { Tempo = slow }));
        Assert.Equal(usual.Frames.Count(f => f.Air), slower.Frames.Count(f => f.Air), 1.0);
        Assert.True(slower.Frames.Length > 1.5 * usual.Frames.Length);
    }

    /// <summary>Who walks, marches or steps has a foot down; only what jumps is ever in the air.</summary>
    [Fact]
    public void A_foot_is_always_down_in_what_does_not_jump() => Assert.All(
        Library.Moves.Where(m => m.Poses!.Poses.All(p => p.Air == 0)),
        move => Assert.All(Motion(move.Id.Value).Frames, frame => Assert.False(frame.Air, move.Id.Value)));

    /// <summary>
    /// A weight in a hinge hangs from the shoulders and stays at the legs (common practice, no source): never ahead of the toes, within
    /// 14 cm of the line of the leg.
    /// </summary>
    [Theory]
    [InlineData("deadlift")]
    [InlineData("romanian-deadlift")]
    [InlineData("stiff-leg-deadlift")]
    [InlineData("one-arm-romanian-deadlift")]
    [InlineData("sumo-deadlift")]
    [InlineData("wide-pulse-deadlift")]
    public void A_weight_slides_along_the_legs(string id)
    {
        var motion = Motion(id);
        for (var i = 0; i < motion.Frames.Length; i++)
        {
            var weight = motion.Items[0].Frames[i];
            double[][] leg = [Joint(motion, i, "rightHip"), Joint(motion, i, "rightKnee"), Joint(motion, i, "rightAnkle")];
            var piece = weight[2] > leg[1][2] ? 0 : 1;
            var share = Math.Clamp((leg[piece][2] - weight[2]) / Math.Max(1e-6, leg[piece][2] - leg[piece + 1][2]), 0, 1);
            var line = leg[piece][0] + share * (leg[piece + 1][0] - leg[piece][0]);
            Assert.InRange(weight[0] - line, -0.14, 0.14);
            Assert.True(weight[0] < Joint(motion, i, "rightToe")[0] + 0.04, $"{id}: ahead of the toes in frame {i}");

            // Arms as long as they are, from the shoulder down.
            var (shoulder, wrist) = (Joint(motion, i, "rightShoulder"), Joint(motion, i, "rightWrist"));
            Assert.True(shoulder[2] - wrist[2] > 0.75 * 0.332 * 1.7, $"{id}: the arm does not hang in frame {i}");
        }
    }

    [Fact]
    public void A_sumo_deadlift_begins_between_the_ankles()
    {
        var motion = Motion("sumo-deadlift");
        var low = Enumerable.Range(0, motion.Frames.Length).MinBy(i => motion.Items[0].Frames[i][2]);
        var weight = motion.Items[0].Frames[low];
        Assert.Equal(0.5 * (Joint(motion, low, "leftAnkle")[0] + Joint(motion, low, "rightAnkle")[0]), weight[0], 0.12);
        Assert.InRange(weight[1], Joint(motion, low, "rightAnkle")[1], Joint(motion, low, "leftAnkle")[1]);
        Assert.True(weight[2] < 0.26, $"{weight[2]}");
    }

    /// <summary>The hands of a bridge lie on the floor all the way, and carry nothing.</summary>
    [Fact]
    public void Arms_are_heavy_on_the_floor_in_a_bridge() => Assert.All(
        Library.Moves.Where(m => m.Poses!.Poses.All(p => p.On == Carrier.Shoulders && (p.Arms ?? p.RightArm) is null)),
        move =>
        {
            var motion = Motion(move.Id.Value);
            for (var i = 0; i < motion.Frames.Length; i++)
            {
                Assert.InRange(Joint(motion, i, "rightHand")[2], -0.001, 0.09);
                Assert.InRange(Joint(motion, i, "leftWrist")[2], -0.001, 0.09);
                Assert.DoesNotContain(motion.Frames[i].Contacts, c => c.EndsWith("Hand", StringComparison.Ordinal));
            }
        });

    /// <summary>
    /// By hand: feet carry all, W/2 each, at mid-foot; about them the wall's push N at the back's height balances the weight,
    /// N = W·(f − c) / h; at the knee the floor's push W/2 stands ahead of it and the floor's hold N/2 acts a shank's length below.
    /// </summary>
    [Fact]
    public void A_wall_pushes_and_does_not_carry()
    {
        var motion = OptionFigure.MotionOf(Library.Find(new MoveId("wall-sit"))!.Poses!);
        var posture = motion.Key(motion.Count - 1);
        var s = Skeleton.Of(posture);
        var contacts = Contacts.Of(posture, s);
        var foot = contacts.Single(c => c.Name == "rightFoot").At;
        var wall = contacts.Single(c => c.Name == "wall").At;
        var weight = 9.80665 * 70;
        var push = weight * (foot.X - s.CentreOfMass.X) / wall.Z;
        var knee = s[Body.Joint.RightKnee];
        var by = 1.7 * (push / 2 * (knee.Z - foot.Z) - weight / 2 * (foot.X - knee.X));
        var moments = Forces.Of(posture, null, Stature.Usual, 70);
        Assert.Equal(by, moments.Right.Knee, 6.0);
        Assert.InRange(moments.Right.Knee, 55, 75);
        Assert.Equal(0.5, moments.Right.Share, 6);
    }

    /// <summary>
    /// A leg that steps is not pulled at: no moment passes 190 N·m (about twice a squat's hip, from the model itself), and none leaps.
    /// </summary>
    [Fact]
    public void Moments_have_no_spikes() => Assert.All(Library.Moves.Where(m => m.Poses!.Poses.All(p => p.Air == 0)), move =>
    {
        var motion = Motion(move.Id.Value);
        for (var i = 1; i < motion.Frames.Length; i++)
        {
            Assert.All(motion.Frames[i].Moments, m =>
            {
                Assert.True(Math.Abs(m.Value) < 190, $"{move.Id}: {m.Key} {m.Value} in frame {i}");
                Assert.True(Math.Abs(m.Value - motion.Frames[i - 1].Moments[m.Key]) < 95, $"{move.Id}: {m.Key} leaps in frame {i}");
            });
        }
    });

    /// <summary>Hands that are higher carry less (statics: the feet take over as the body rises), and nothing asks more for it.</summary>
    [Fact]
    public void Higher_hands_ask_less()
    {
        Demand Of(string id, int? cm = null) =>
            DemandModel.Of(new MoveId(id), cm is { } at ? new Manner { Surface = Surface.Bench, HeightCm = at } : new Manner(), Library)!;
        foreach (var id in (string[])["push-up", "kneeling-push-up"])
        {
            Demand[] steps = [Of(id, null), Of(id, 30), Of(id, 50), Of(id, 70)];
            // No plank is steeper than 52°: from there on it stays as it is.
            Assert.True(steps[1].Overall < steps[0].Overall - 0.05, id);
            Assert.All(steps.Zip(steps.Skip(1)), pair => Assert.True(pair.Second.Overall <= pair.First.Overall, $"{id}: {pair}"));
            Assert.True(steps[3].Back < steps[0].Back + 0.05, $"{id}: the back {steps[0].Back:0.00} → {steps[3].Back:0.00}");
        }

        Assert.True(Of("walk-in-place").Balance < Of("step-touch").Balance, "walking in place is steadier than stepping aside");
        Assert.True(Of("hip-thrust").Hip > Of("glute-bridge").Hip, "a hip thrust asks more of the hips");
    }

    [Fact]
    public void What_is_held_over_the_head_is_overhead_and_who_walks_back_walks_backward()
    {
        OptionFacts Of(string id, Manner? manner = null) => OptionFacts.Of(Library.Find(new MoveId(id))!, manner ?? new Manner(), Library)!;
        Assert.True(Of("overhead-side-bend", new Manner { Load = new Load(Implement.Ball, 1, new Kilograms(3), null, null) }).LoadOverhead);
        Assert.False(Of("goblet-squat").LoadOverhead);
        Assert.Equal([true, true, false, false],
            new[] { "walk-forward-back", "back-walking-lunge", "forward-lunge", "march" }.Select(id => Of(id).WalksBackward));
        Assert.True(Of("hip-thrust").HeadOffTheFloor && !Of("glute-bridge").HeadOffTheFloor);
    }
}
