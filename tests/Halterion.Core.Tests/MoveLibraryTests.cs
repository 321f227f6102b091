using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Rules for the content of the library, not for its wording (handbook, section 5: common practice, no source).</summary>
public class MoveLibraryTests
{
    [Fact]
    public void Every_move_stands_once_and_each_family_is_whole()
    {
        Assert.Equal(Library.Moves.Length, Library.Moves.Select(m => m.Id).Distinct().Count());
        Assert.Equal(
            [(Family.Squat, 29), (Family.Lunge, 28), (Family.Hinge, 21), (Family.Bridge, 23), (Family.Activation, 18), (Family.Recovery, 8),
                (Family.Core, 26), (Family.Stretch, 19)],
            Library.Moves.CountBy(m => m.Family).Select(f => (f.Key, f.Value)));
    }

    [Fact]
    public void Every_move_says_all_that_an_instructor_asks() => Assert.All(Library.Moves, move =>
    {
        string[] texts = [move.Name, move.Rep, move.SetUp, move.Path, move.End, move.Breath, move.Felt, move.Cautions, move.Muscles,
            move.Easier, move.Harder, move.SelfCheck!, move.NotFelt!];
        Assert.True(move.Felt.Length >= 14, move.Id.Value);
        Assert.All(texts, text => Assert.False(string.IsNullOrWhiteSpace(text), move.Id.Value));
        Assert.True(move.Faults.Length >= 2);
        Assert.NotNull(move.Poses);
        Assert.Equal(move.Sided == Sided.TwoSided, move.SideMeans is null);
        Assert.True(move.Tempo is not null || move.Dose.Kind is "hold" or "time");
    });

    /// <summary>Every kneeling move is padded (handbook, section 5).</summary>
    [Fact]
    public void Every_kneeling_move_asks_for_something_under_the_knees() =>
        Assert.All(
            Library.Moves.Where(m => m.Position is Position.Kneeling or Position.HandsAndKnees),
            m => Assert.Contains(m.Kit, k => k is "mat" or "folded mat or pad" or "bench"));

    [Theory]
    [InlineData("bulgarain", "rear-raised-split-squat")]
    [InlineData("good morning", "hip-hinge")]
    [InlineData("RDL", "romanian-deadlift")]
    [InlineData("plie", "wide-squat")]
    [InlineData("splitt squat", "split-squat")]
    [InlineData("donky kick", "kickback")]
    [InlineData("static lunge", "split-squat")]
    [InlineData("crab", "band-side-walk")]
    [InlineData("march", "march")]
    [InlineData("plank", "plank")]
    [InlineData("russian twist", "high-low-twist")]
    [InlineData("thread the needle", "pigeon-turn")]
    [InlineData("hip raise", "glute-bridge")]
    [InlineData("clamshell", "clam")]
    [InlineData("single leg rdl", "single-leg-deadlift")]
    [InlineData("kb swing", "kettlebell-swing")]
    [InlineData("cat cow", "cat-camel")]
    [InlineData("downward dog", "down-dog")]
    [InlineData("hip flexor stretch", "half-kneeling-hip-stretch")]
    [InlineData("glute stretch", "seated-figure-four")]
    [InlineData("monster walk", "monster-walk")]
    [InlineData("pistol", "single-leg-box-squat")]
    [InlineData("briefcase", "suitcase-deadlift")]
    [InlineData("high knees", "knee-lifts")]
    [InlineData("glute kickback", "kickback")]
    [InlineData("dead lift", "deadlift")]
    [InlineData("squat jump", "jump-squat")]
    [InlineData("knee lift", "knee-lifts")]
    [InlineData("step ups", "step-up")]
    [InlineData("stepup", "step-up")]
    [InlineData("pushups", "push-up")]
    [InlineData("push ups", "push-up")]
    [InlineData("single arm rdl", "one-arm-romanian-deadlift")]
    [InlineData("1 arm RDL", "one-arm-romanian-deadlift")]
    [InlineData("kettlebell sumo deadlift", "sumo-deadlift")]
    [InlineData("dumbbell goblet squat", "goblet-squat")]
    [InlineData("reverse lunges with dumbbells", "reverse-lunge")]
    [InlineData("glute bridges", "glute-bridge")]
    [InlineData("hip-thrusts", "hip-thrust")]
    [InlineData("the wall sit", "wall-sit")]
    [InlineData("bulgarian split squats", "rear-raised-split-squat")]
    [InlineData("child's pose", "childs-pose")]
    [InlineData("plank with leg march", "plank-march")]
    [InlineData("squat zorble", "squat")]
    public void A_move_is_found_by_name_or_alias_with_a_typing_mistake(string typed, string id) =>
        Assert.Equal(id, MoveSearch.Find(Library.Moves, new MoveQuery(typed))[0].Id.Value);

    /// <summary>Every other name of every move, and every name in the plural, with hyphens and as one word, finds it first.</summary>
    [Fact]
    public void Every_name_finds_its_move()
    {
        var missed = Library.Moves.SelectMany(
            m => m.Aliases.Concat(
                [m.Name, m.Name.EndsWith('s') ? m.Name : m.Name + "s", m.Name.Replace(' ', '-'), m.Name.ToUpperInvariant()])
            .Where(typed => MoveSearch.Find(Library.Moves, new MoveQuery(typed))[0].Id != m.Id).Select(
                typed => $"{typed}: {MoveSearch.Find(Library.Moves, new MoveQuery(typed))[0].Id} for {m.Id}"));
        Assert.Equal([], missed);
    }

    [Fact]
    public void Each_word_narrows_and_one_that_nothing_has_empties_nothing()
    {
        string[] Found(string typed) => [.. MoveSearch.Find(Library.Moves, new MoveQuery(typed)).Select(m => m.Id.Value)];
        Assert.All(Found("bridge band"),
            id => Assert.Contains("band", string.Join(' ', Library.Find(new MoveId(id))!.Kit.Append(id)), StringComparison.Ordinal));
        Assert.True(Found("lunge").Length > Found("lunge wall").Length || Found("lunge wall").Length > 0);
        Assert.Equal(Found("squat"), Found("squat wxyzq"));
        Assert.Equal([], Found("wxyzq"));
    }

    [Theory]
    [InlineData("chair", "chair-squat")]
    [InlineData("wall", "wall-sit")]
    [InlineData("box", "box-squat")]
    [InlineData("barbell", "bar-bridge")]
    [InlineData("stick", "overhead-side-bend")]
    [InlineData("machine", "inner-thigh-machine")]
    [InlineData("dumbbell", "press-out-squat")]
    [InlineData("dumbbell", "reach-side-lunge")]
    public void What_a_move_is_done_with_is_known(string kit, string id)
    {
        var found = MoveSearch.Find(Library.Moves, new MoveQuery(Kit: kit));
        Assert.Contains(found, m => m.Id.Value == id);
        Assert.DoesNotContain(found, m => m.Id.Value == "squat");
    }

    [Fact]
    public void Sieves_narrow_what_is_found()
    {
        Assert.All(
            MoveSearch.Find(Library.Moves, new MoveQuery(Family: Family.Bridge, Kit: "band")),
            m => Assert.Contains(m.Kit, k => k.Contains("band", StringComparison.Ordinal)));
        Assert.Equal(["squat"], MoveSearch.Find(Library.Moves, new MoveQuery(Kind: m => m.Id.Value == "squat")).Select(m => m.Id.Value));
        Assert.Empty(MoveSearch.Find(Library.Moves, new MoveQuery("qqqqq")));
    }

    [Fact]
    public void Every_step_of_a_ladder_names_its_dimension_and_is_an_option_the_plan_language_knows() =>
        Assert.All(Library.Ladders, ladder =>
    {
        string[] dimensions = ["depth", "support", "base", "load", "tempo", "impact", "complexity"];
        Assert.All(ladder.Rungs, rung =>
        {
            Assert.Contains(rung.Dimension, dimensions);
            var station = $$"""{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{{PlanWriter.Of(Proposals.OptionOf(rung, Tier.Harder, Library)).ToJsonString()}}]}""";
            Assert.Empty(Evaluate(With(Block("", station))).Faults);
        });
        Assert.Equal(ladder.Rungs.Length,
            ladder.Rungs.Select(r => PlanWriter.Of(Proposals.OptionOf(r, Tier.Main, Library)).ToJsonString()).Distinct().Count());
    });

    /// <summary>What each ready block says that it makes is what it makes.</summary>
    [Fact]
    public void Ready_blocks_make_what_they_say()
    {
        var ready = Ready.Blocks();
        Assert.Equal(ready.Length, ready.Select(r => r.Name).Distinct().Count());
        Assert.InRange(ready.Select(r => r.Group).Distinct().Count(), 4, 6);
        Assert.All(ready.Where(r => r.Name != "Talk"), r => Assert.NotEmpty(r.Moves));
        Block Of(string name) => ClassReader.ReadBlock(ready.Single(r => r.Name == name).Block, Library).Plan!.Blocks[0];

        // A; A and B; A, B and C.
        var layers = Of("Build-up");
        Assert.Equal([1, 2, 3], Enumerable.Range(0, 3).Select(round => layers.Stations.Count(s => s.Dose[0].Rounds.Has(round, 3))));
        Assert.Equal([12, 10, 8, 6], Enumerable.Range(0, 4).Select(round => Of("Ramp sets").Stations[0].Dose[0].Amount.At(round).To));
        var taught = Of("Teach a move");
        Assert.Equal((Phase.Skill, 3), (taught.Phase, taught.Stations.Count(s => s.Demo.Values is [{ Value: > 0 }])));
        Assert.Equal(BandStrength.Light, taught.Stations[2].Main.Manner.Band);
        Assert.Contains("Watch for ", taught.Stations[1].Say!.Text, StringComparison.Ordinal);
        Assert.Equal(
            (SidePass.Round, SidePass.Alternate), (Of("All left, then all right").SidePass, Of("Left round, right round").SidePass));
    }

    [Fact]
    public void Every_starter_is_a_valid_block_without_findings_of_its_own()
    {
        foreach (var starter in Ready.Blocks())
        {
            var own = Good(With(starter.Block.ToJsonString())).Findings.Where(IsOwn);
            Assert.True(!own.Any(), $"{starter.Name}: {string.Join(' ', own.Select(f => f.What))}");
        }

        foreach (var move in Library.Moves)
        {
            var own = Good(With(Block("", Ready.Station(move).Station.ToJsonString()))).Findings.Where(IsOwn);
            Assert.True(!own.Any(), $"{move.Id}: {string.Join(' ', own.Select(f => f.What))}");
        }

        // What has nothing easier or harder in the library lacks nothing; what should come before a weight is another block's.
        static bool IsOwn(Checks.Finding f) => f.Place != PlaceId.Class && f.Code is not ("options.missing" or "order.practise");
    }
}
