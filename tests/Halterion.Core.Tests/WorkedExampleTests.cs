using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>The worked examples of docs/plan-language.md, to the second.</summary>
public class WorkedExampleTests
{
    private const string Time40 = """{"kind":"time","amount":40}""";

    [Fact]
    public void Example_1_rotation_of_six() =>
        Assert.Equal(1210, Total(Block(
            """ "format":"rotation","windowSeconds":40,"betweenStations":20,"rounds":3,"betweenRounds":90 """,
            [.. Enumerable.Repeat(Station(Time40), 6)])));

    [Fact]
    public void Example_2_circuit_with_one_station_each_side()
    {
        const string reps = """{"kind":"reps","amount":12,"tempo":"2-0-1-0"}""";
        Assert.Equal(661, Total(Block(
            """ "betweenStations":15,"rounds":3,"betweenRounds":60 """,
            Station(reps), Station(reps, """ "sides":"each" """), Station(reps))));
    }

    [Fact]
    public void Example_3_straight_sets()
    {
        const string reps = """{"kind":"reps","amount":10,"tempo":"3-1-1-0"}""";
        Assert.Equal(740, Total(Block(
            """ "order":"sets","rounds":4,"betweenSets":45,"betweenStations":60 """, Station(reps), Station(reps))));
    }

    [Fact]
    public void Example_4_one_side_a_pass() =>
        Assert.Equal(750, Total(Block(
            """ "sidePass":"round","betweenStations":5,"rounds":2,"betweenRounds":30 """,
            [.. Enumerable.Repeat(Station(Time40), 4)])));

    [Fact]
    public void Example_5_chunks()
    {
        var evaluation = Good(With(Block(
            """ "leadInSeconds":0 """,
            Station("""{"kind":"reps","amount":12,"tempo":"1-0-0.4-0"}""", """ "sides":"each","chunk":5 """))));
        Assert.Equal(49, evaluation.Totals.Seconds.Value);
        Assert.Equal([7, 3, 7, 3, 7, 3, 7, 3, 3, 3, 3], evaluation.Spans.Select(s => s.Length().Value));
        Assert.Equal((12, 12), (evaluation.Totals.LeftReps, evaluation.Totals.RightReps));
    }

    [Fact]
    public void Example_6_falling_targets_and_pulses_in_the_last_round() =>
        Assert.Equal(345, Total(Block(
            """ "rounds":3,"betweenRounds":45 """,
            Station(
                """{"kind":"reps","amount":[16,12,8],"tempo":"2-0-1-0"},{"kind":"pulses","amount":10,"rounds":"last"}""",
                """ "sides":"each" """))));

    [Fact]
    public void Example_7_drop_set()
    {
        static string Reps(string factor) => $$"""{"kind":"reps","amount":10,"tempo":"1-0-1-1","loadFactor":{{factor}}}""";
        const string rest = """{"kind":"rest","amount":12}""";
        Assert.Equal(388, Total(Block(
            """ "order":"sets","rounds":2,"betweenSets":150 """,
            Station(string.Join(",", Reps("1"), rest, Reps("0.7"), rest, Reps("0.4"))))));
    }

    [Fact]
    public void Example_8_window_from_the_doses()
    {
        var evaluation = Good(With(Block(
            """ "format":"rotation","betweenStations":15 """,
            Station("""{"kind":"time","amount":45}""", """ "sides":"split" """),
            Station("""{"kind":"reps","amount":8,"tempo":"3-0-1-0"}""", """ "sides":"each" """),
            Station("""{"kind":"time","amount":30}""", """ "sharing":"turns" """))));
        Assert.Equal(250, evaluation.Totals.Seconds.Value);
        Assert.Equal([25, 3, 7], evaluation.Stays.Select(s => s.SpareSeconds.Value));
    }

    private const string Time20 = """{"kind":"time","amount":20}""";

    private static string String(string extra = "") => Block(
        $""" "rounds":2,"betweenRounds":60,"betweenStations":10,"afterSeconds":30{extra} """,
        Station(Time20,
            """ "sides":"each","withNext":true """), Station(Time20, """ "sides":"each" """), Station(Time20, """ "sides":"each" """));

    [Fact]
    public void Example_9_a_string_of_two()
    {
        var evaluation = Good(With(String()));
        Assert.Equal(412, evaluation.Totals.Seconds.Value);
        Assert.Equal(
            [
                "leadIn 10",
                "work 20 left",
                "change 10",
                "work 20 left",
                "switch 3",
                "work 20 right",
                "change 10",
                "work 20 right",
                "change 10",
                "work 20 left",
                "switch 3",
                "work 20 right",
                "rest 60"],
            evaluation.Spans.Take(13).Select(s =>
                (System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(s.Kind.ToString())
                    + $" {s.Length().Value} {s.Side?.ToString().ToLowerInvariant()}").Trim()));
    }

    [Fact]
    public void Example_10_recovery_in_the_changes_is_rest()
    {
        var totals = Good(With(String(""","recoveryIn":"all","recovery":[{"tier":"main","move":"march"}]"""))).Totals;
        Assert.Equal((412, 150, 0), (totals.Seconds.Value, totals.RestSeconds.Value, totals.ChangeSeconds.Value));
    }

    [Fact]
    public void Example_11_a_walk_through_and_what_is_left_of_the_talk()
    {
        const string show = """{"name":"Show","phase":"talk","format":"talk","seconds":120,"show":[{"station":"b1s1","seconds":25},{"station":"b1s2","seconds":25},{"station":"b1s3","seconds":40}]}""";
        var spans = Good(With(String() + "," + show)).Spans.Where(s => s.Block == 1).ToArray();
        Assert.Equal([25, 25, 40, 30], spans.Select(s => s.Length().Value));
        Assert.Equal(["b1s1", "b1s2", "b1s3", null], spans.Select(s => s.Shows?.Value));
    }

    [Fact]
    public void Example_12_rests_and_demos_by_set()
    {
        const string reps = """{"kind":"reps","amount":12,"tempo":"2-0-1-0"}""";
        Assert.Equal(359, Total(Block(
            """ "order":"sets","rounds":3,"betweenSets":20,"betweenStations":15 """,
            Station(reps), Station(reps, """ "betweenSets":[10,40],"demoSeconds":[20,0,8] """))));
    }

    private static int Total(string block) => Good(With(block)).Totals.Seconds.Value;
}
