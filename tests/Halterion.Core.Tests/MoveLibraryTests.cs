using Halterion.Core.Body;
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
            [(Family.Squat, 26), (Family.Lunge, 24), (Family.Hinge, 18), (Family.Bridge, 17), (Family.Activation, 9), (Family.Recovery, 8), (Family.Core, 17), (Family.Stretch, 16)],
            Library.Moves.CountBy(m => m.Family).Select(f => (f.Key, f.Value)));
    }

    [Fact]
    public void Every_move_says_all_that_an_instructor_asks() => Assert.All(Library.Moves, move =>
    {
        string[] texts = [move.Name, move.Rep, move.SetUp, move.Path, move.End, move.Breath, move.Felt, move.Cautions, move.Muscles, move.Easier, move.Harder];
        Assert.All(texts, text => Assert.False(string.IsNullOrWhiteSpace(text), move.Id.Value));
        Assert.True(move.Faults.Length >= 2);
        Assert.NotNull(move.Figure);
        Assert.Equal(move.Sided == Sided.TwoSided, move.SideMeans is null);
        Assert.True(move.Tempo is not null || move.Dose.Kind is "hold" or "time");
    });

    /// <summary>Every hop has an option without one (handbook, section 5): its easier line says so, and so does the step below it.</summary>
    [Fact]
    public void Every_hop_has_a_way_without_one()
    {
        var hops = Library.Moves.Where(m => m.Figure is { } f && (f.Start.Air > 0 || f.End.Air > 0)).ToArray();
        Assert.True(hops.Length >= 4);
        Assert.All(hops, move =>
        {
            var easier = Proposals.For(move.Id, Library).Easier!;
            var without = Library.Find(new MoveId((string)easier.Option["move"]!))!;
            Assert.True(
                without.Figure!.End.Air == 0
                    || move.Easier.Contains("instead", StringComparison.Ordinal)
                    || move.Easier.Contains("Step", StringComparison.Ordinal),
                move.Id.Value);
        });
    }

    /// <summary>Every loaded option has one unloaded, every band option one without (handbook, section 5): going easier from it, step by step, comes to one.</summary>
    [Theory]
    [InlineData("bell", "no weight")]
    [InlineData("band", "no band")]
    public void Going_easier_comes_to_an_option_without_the_kit(string kit, string none)
    {
        var moves = Library.Moves.Where(m => m.Kit.Any(k => k.Contains(kit, StringComparison.Ordinal))).ToArray();
        Assert.True(moves.Length >= 6);
        Assert.All(moves, move =>
        {
            bool Without(MoveId id) => !Library.Find(id)!.Kit.Any(k => k.Contains(kit, StringComparison.Ordinal));
            var (at, said) = (move.Id, "");
            for (var step = 0; step < 8 && !Without(at) && !said.Contains(none, StringComparison.OrdinalIgnoreCase); step++)
            {
                var easier = Proposals.For(at, Library).Easier!;
                (at, said) = (new MoveId((string)easier.Option["move"]!), (string?)easier.Option["note"] ?? "");
            }

            Assert.True(Without(at) || said.Contains(none, StringComparison.OrdinalIgnoreCase), move.Id.Value);
        });
    }

    /// <summary>Every kneeling move is padded (handbook, section 5).</summary>
    [Fact]
    public void Every_kneeling_move_asks_for_something_under_the_knees() =>
        Assert.All(
            Library.Moves.Where(m => m.Position is Position.Kneeling or Position.HandsAndKnees),
            m => Assert.Contains(m.Kit, k => k is "mat" or "folded mat or pad"));

    [Fact]
    public void Every_move_is_made_easier_and_harder_with_the_reason() => Assert.All(Library.Moves, move =>
    {
        var (easier, harder, _) = Proposals.For(move.Id, Library);
        Assert.True(easier is not null && harder is not null, move.Id.Value);
        foreach (var (proposal, tier) in new[] { (easier, "easier"), (harder, "harder") })
        {
            Assert.True(proposal is null || (proposal.Why.Length > 0 && (string?)proposal.Option["tier"] == tier), move.Id.Value);
        }
    });

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
    [InlineData("monster walk", "band-side-walk")]
    [InlineData("high knees", "knee-lifts")]
    [InlineData("glute kickback", "kickback")]
    public void A_move_is_found_by_name_or_alias_with_a_typing_mistake(string typed, string id) =>
        Assert.Equal(id, MoveSearch.Find(Library.Moves, new MoveQuery(typed))[0].Id.Value);

    [Fact]
    public void Sieves_narrow_what_is_found()
    {
        Assert.All(
            MoveSearch.Find(Library.Moves, new MoveQuery(Family: Family.Bridge, Kit: "band")),
            m => Assert.Contains("band", m.Id.Value, StringComparison.Ordinal));
        Assert.DoesNotContain(
            MoveSearch.Find(Library.Moves, new MoveQuery(Limit: Limit.Pregnancy)),
            m => m.Position == Position.OnTheBack || m.Figure!.End.Air > 0);
        Assert.Contains(MoveSearch.Find(Library.Moves, new MoveQuery(Limit: Limit.Knee)), m => m.Id.Value == "hip-hinge");
        Assert.DoesNotContain(MoveSearch.Find(Library.Moves, new MoveQuery(Limit: Limit.Knee)), m => m.Id.Value is "squat" or "jump-lunge");
        Assert.Empty(MoveSearch.Find(Library.Moves, new MoveQuery("qqqqq")));
    }

    [Fact]
    public void Every_step_of_a_ladder_names_its_dimension_and_is_an_option_the_plan_language_knows() => Assert.All(Library.Ladders, ladder =>
    {
        string[] dimensions = ["depth", "support", "base", "load", "tempo", "impact", "complexity"];
        Assert.All(ladder.Rungs, rung =>
        {
            Assert.Contains(rung.Dimension, dimensions);
            var station = $$"""{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{{PlanWriter.Of(Proposals.OptionOf(rung, Tier.Harder, Library)).ToJsonString()}}]}""";
            Assert.Empty(Evaluate(With(Block("", station))).Faults);
        });
        Assert.Equal(ladder.Rungs.Length, ladder.Rungs.Select(r => PlanWriter.Of(Proposals.OptionOf(r, Tier.Main, Library)).ToJsonString()).Distinct().Count());
    });

    [Fact]
    public void Every_starter_is_a_valid_block_without_findings_of_its_own()
    {
        foreach (var starter in Ready.Blocks())
        {
            Assert.DoesNotContain(Good(With(starter.Block.ToJsonString())).Findings, f => f.Code != "time.under");
        }

        foreach (var move in Library.Moves)
        {
            Assert.DoesNotContain(Good(With(Block("", Ready.Station(move).Station.ToJsonString()))).Findings, f => f.Code != "time.under");
        }
    }
}
