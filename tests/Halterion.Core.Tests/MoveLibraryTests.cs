using Halterion.Core.Moves;
using Halterion.Core.Plans;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Rules for the content of the library, not for its wording (handbook, section 5: common practice, no source).</summary>
public class MoveLibraryTests
{
    [Fact]
    public void There_are_six_moves_in_each_family_with_ids_of_their_own()
    {
        Assert.All(Library.Moves.CountBy(m => m.Family), family => Assert.Equal(6, family.Value));
        Assert.Equal(24, Library.Moves.Select(m => m.Id).Distinct().Count());
    }

    [Fact]
    public void Every_move_says_all_that_an_instructor_asks() => Assert.All(Library.Moves, move =>
    {
        string[] texts = [move.Name, move.Rep, move.SetUp, move.Path, move.End, move.Breath, move.Felt, move.Cautions];
        Assert.All(texts, text => Assert.False(string.IsNullOrWhiteSpace(text)));
        Assert.True(move.Faults.Length >= 2);
        Assert.Equal(move.Sided == Sided.TwoSided, move.SideMeans is null);
        Assert.True(move.Tempo is not null || move.Dose.Kind == "hold");
    });

    [Fact]
    public void Every_move_has_a_step_easier_and_a_step_harder_with_the_reason() => Assert.All(Library.Moves, move =>
    {
        var (easier, harder) = Library.Propose(move.Id);
        Assert.All([easier!, harder!], p => Assert.False(string.IsNullOrWhiteSpace(p.Why)));
        Assert.Equal(("easier", "harder"), ((string?)easier!.Option["tier"], (string?)harder!.Option["tier"]));
    });

    [Fact]
    public void Every_step_of_a_ladder_names_its_dimension_and_is_an_option_the_plan_language_knows() => Assert.All(Library.Ladders, ladder =>
    {
        string[] dimensions = ["depth", "support", "base", "load", "tempo", "impact", "complexity"];
        Assert.All(ladder.Rungs, rung =>
        {
            Assert.Contains(rung.Dimension, dimensions);
            var station = $$"""{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{{rung.AsOption("harder").ToJsonString()}}]}""";
            Assert.Empty(Evaluate(With(Block("", station))).Faults);
        });
        Assert.Equal(ladder.Rungs.Length, ladder.Rungs.Select(r => r.AsOption("main").ToJsonString()).Distinct().Count());
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
