using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Totals that others have published. References are quoted from memory.</summary>
public class PublishedTotalTests
{
    [Fact]
    public void Twelve_stations_of_30_s_with_10_s_between_take_7_min_50_s()
    {
        // Klika & Jordan, ACSM's Health & Fitness Journal 17(3), 2013 (from memory).
        var stations = Enumerable.Repeat(Station("""{"kind":"time","amount":30}"""), 12).ToArray();
        Assert.Equal(470, Good(With(Block(""" "leadInSeconds":0,"betweenStations":10 """, stations))).Totals.Seconds.Value);
    }

    [Fact]
    public void Eight_goes_of_20_s_with_10_s_rest_take_3_min_50_s_and_4_min_with_the_last_rest()
    {
        // Tabata et al., Med Sci Sports Exerc 28, 1996 (from memory).
        const string go = """{"kind":"time","amount":20}""";
        var without = Block(""" "leadInSeconds":0,"order":"sets","rounds":8,"betweenSets":10 """, Station(go));
        var with = Block(""" "leadInSeconds":0,"order":"sets","rounds":8 """, Station(go + """,{"kind":"rest","amount":10}"""));
        Assert.Equal(230, Good(With(without)).Totals.Seconds.Value);
        Assert.Equal(240, Good(With(with)).Totals.Seconds.Value);
    }

    [Fact]
    public void Five_one_sided_moves_of_30_s_both_sides_three_rounds_take_15_min()
    {
        // Common practice.
        var stations = Enumerable.Repeat(Station("""{"kind":"time","amount":30}""", """ "sides":"each","switchSeconds":0 """), 5).ToArray();
        Assert.Equal(900, Good(With(Block(""" "leadInSeconds":0,"rounds":3 """, stations))).Totals.Seconds.Value);
    }

    [Fact]
    public void Falling_targets_of_20_15_12_are_47_reps_a_leg_and_a_drop_set_of_three_tens_is_30()
    {
        // Common practice.
        var falling = Good(
            With(Block(""" "rounds":3 """, Station("""{"kind":"reps","amount":[20,15,12]}""", """ "sides":"each" """)))).Totals;
        Assert.Equal((47, 47), (falling.LeftReps, falling.RightReps));
        const string ten = """{"kind":"reps","amount":10}""";
        var drop = Good(With(Block("", Station($"{ten},{ten},{ten}")))).Totals;
        Assert.Equal((30, 30), (drop.LeftReps, drop.RightReps));
    }
}
