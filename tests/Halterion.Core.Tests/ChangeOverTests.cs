using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Change-overs from position and kit, by the times of the handbook, section 3 ([M] brisk, [C] talking).</summary>
public class ChangeOverTests
{
    [Theory]
    [InlineData("squat", "hip-hinge", 0, 0, "")]
    [InlineData("squat", "glute-bridge", 6, 20, "down to the floor 6 s")]
    [InlineData("glute-bridge", "squat", 6, 20, "up to standing 6 s")]
    [InlineData("squat", "goblet-squat", 5, 20, "weights up 5 s")]
    [InlineData("goblet-squat", "glute-bridge", 8, 22, "down to the floor 6 s, weights down 5 s")]
    [InlineData("squat", "hip-thrust", 12, 20, "onto the bench or machine 12 s")]
    public void Things_done_on_the_way_do_not_add_up(string from, string to, int brisk, int talking, string words)
    {
        var block = Plan(With(Block("", Of(from), Of(to)))).Blocks[0];
        var need = ChangeOver.Between(block.Stations[0], block.Stations[1], false, Library, ChangeTimes.Brisk);
        Assert.Equal((brisk, words), (need.Seconds.Value, need.Words));
        Assert.Equal(talking, ChangeOver.Between(block.Stations[0], block.Stations[1], false, Library, ChangeTimes.Talking).Seconds.Value);
    }

    [Fact]
    public void In_a_rotation_people_walk_and_the_last_station_also_comes_before_the_first()
    {
        var text = With(
            Block(""" "format":"rotation","windowSeconds":40,"betweenStations":8 """, Of("squat"), Of("hip-hinge"), Of("glute-bridge")));
        var finding = Assert.Single(Good(text).Findings, f => f.Code == "time.change");
        Assert.Contains("needs about 10 s (walk 8 s, ", finding.What, StringComparison.Ordinal);
        Assert.DoesNotContain(Good(Mended(text, finding.Key)!).Findings, f => f.Code == "time.change");
    }

    [Fact]
    public void Switching_sides_takes_longer_on_the_floor_and_on_a_bench()
    {
        int Switch(string move) =>
            ChangeOver.Switch(Plan(With(Block("", Of(move)))).Blocks[0].Stations[0], Library, ChangeTimes.Brisk).Value;
        Assert.Equal((3, 4, 8), (Switch("split-squat"), Switch("single-leg-bridge"), Switch("hip-thrust")));
    }

    private static string Of(string move) => $$"""{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"{{move}}"}]}""";
}
