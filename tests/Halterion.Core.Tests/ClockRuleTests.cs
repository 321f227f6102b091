using Halterion.Core.Body;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Rules of docs/plan-language.md that the worked examples do not reach.</summary>
public class ClockRuleTests
{
    private const string Left10 = """{"kind":"reps","amount":10,"tempo":"1-0-1-0","side":"left"}""";
    private const string Right10 = """{"kind":"reps","amount":10,"tempo":"1-0-1-0","side":"right"}""";

    [Theory]
    [InlineData("full", "3")]
    [InlineData("oneAndAHalf", "4.5")]
    [InlineData("deadStop", "4")]
    [InlineData("constantTension", "3")]
    public void Ten_reps_in_each_style(string style, string each)
    {
        // 2-0-1-0: 1.5·(2+1) = 4.5; a dead stop waits at least 1 s.
        var seconds = WorkOf(Station($$"""{"kind":"reps","amount":10,"tempo":"2-0-1-0","style":"{{style}}"}"""));
        Assert.Equal([(int)(10 * decimal.Parse(each, System.Globalization.CultureInfo.InvariantCulture))], seconds);
    }

    [Fact]
    public void Written_sides_get_a_switch_between_them_unless_a_rest_is_long_enough()
    {
        Assert.Equal(["work 20", "switch 3", "work 20"], Line($"{Left10},{Right10}"));
        Assert.Equal(["work 20", "rest 2", "switch 3", "work 20"], Line($$"""{{Left10}},{"kind":"rest","amount":2},{{Right10}}"""));
        Assert.Equal(["work 20", "rest 3", "work 20"], Line($$"""{{Left10}},{"kind":"rest","amount":3},{{Right10}}"""));
    }

    [Fact]
    public void A_part_left_out_of_a_round_joins_its_neighbours()
    {
        var middle = """{"kind":"hold","amount":5,"rounds":[2]}""";
        var spans = Good(With(Block(""" "leadInSeconds":0,"rounds":2 """, Station($"{Left10},{middle},{Right10}")))).Spans;
        Assert.Equal(["work 20", "switch 3", "work 20", "work 20", "work 5", "work 20"], spans.Select(Words));
    }

    [Fact]
    public void A_station_with_nothing_to_do_keeps_its_change()
    {
        var once = Station("""{"kind":"time","amount":30,"rounds":"first"}""", """ "sides":"each" """);
        var spans = Good(
            With(Block(""" "leadInSeconds":0,"rounds":2,"betweenStations":7 """, once, Station("""{"kind":"time","amount":20}""")))).Spans;
        Assert.Equal(["work 30", "switch 3", "work 30", "change 7", "work 20", "change 7", "work 20"], spans.Select(Words));
    }

    [Fact]
    public void Starting_every_minute_waits_or_is_cut_and_reported()
    {
        var result = Evaluate(With(Block(
            """ "leadInSeconds":0,"startEverySeconds":30 """,
            Station("""{"kind":"time","amount":20}"""), Station("""{"kind":"time","amount":45}"""))));
        Assert.Equal(["work 20", "wait 10", "work 30"], result.Evaluation!.Spans.Select(Words));
        Assert.Equal(45, Assert.Single(result.Timeline!.Cuts).Needed.Value);
        Assert.Contains(result.Evaluation.Findings, f => f.Code == "time.target");
    }

    [Fact]
    public void The_second_pass_waits_at_least_for_the_switch()
    {
        var spans = Good(
            With(
                Block(""" "leadInSeconds":0,"sidePass":"round","betweenStations":1 """, Station("""{"kind":"time","amount":20}""")))).Spans;
        Assert.Equal(["work 20 left", "change 3", "work 20 right"],
            spans.Select(s => Words(s) + (s.Side is { } side ? $" {side}".ToLowerInvariant() : "")));
        Assert.Equal((0, 0, 1), (spans[1].Round, spans[1].Station, spans[1].Pass));
    }

    [Fact]
    public void Changes_and_rests_belong_to_what_follows_them_and_a_rotation_names_only_legs()
    {
        var station = Station("""{"kind":"time","amount":20},{"kind":"rest","amount":5}""");
        var spans = Good(With(Block(""" "betweenStations":4,"rounds":2,"betweenRounds":9 """, station, station))).Spans;
        Assert.Equal([(0, 0), (0, 0), (0, 1), (0, 1), (0, 1), (1, 0)], spans[1..7].Select(s => (s.Round!.Value, s.Station!.Value)));

        // A rest inside the dose stays with its station, also as the last of the block.
        Assert.Equal(
            (SpanKind.Rest, 1, 1, null, null), (spans[^1].Kind, spans[^1].Round, spans[^1].Station, spans[^1].Part, spans[^1].Side));

        var legs = Good(
            With(Block(""" "format":"rotation","windowSeconds":20,"rounds":2,"betweenRounds":9,"betweenStations":4 """, station, station)))
            .Spans;
        Assert.Equal([null, 0, 1, 1, 0, 0, 1, 1], legs.Select(s => s.Leg));
        Assert.All(legs, s => Assert.Null(s.Station));
    }

    [Fact]
    public void Reps_a_leg_follow_the_sides()
    {
        string Counted(string dose, string station = "", string block = "") =>
            Good(With(Block(block, Station(dose, station)))).Totals is var t
                ? $"{t.LeftReps}/{t.RightReps} about {t.LeftEstimatedReps}/{t.RightEstimatedReps}, {t.Pulses} pulses, "
                    + $"{t.HoldSeconds} held" : "";
        const string none = " about 0/0, 0 pulses, 0 held";
        Assert.Equal("4/3" + none, Counted("""{"kind":"reps","amount":7,"side":"alternate"}"""));
        Assert.Equal("3/4" + none, Counted("""{"kind":"reps","amount":7,"side":"alternate"}""", block: """ "startSide":"right" """));
        Assert.Equal("9/9" + none, Counted("""{"kind":"reps","amount":9}""", """ "sides":"each" """));
        Assert.Equal("16/8" + none, Counted("""{"kind":"reps","amount":8}""", block: """ "sidePass":"alternate","rounds":3 """));
        Assert.Equal("0/0 about 7/7, 0 pulses, 0 held", Counted("""{"kind":"time","amount":45}""", """ "sides":"split" """));
        Assert.Equal(
            "5/5 about 0/0, 20 pulses, 0 held", Counted("""{"kind":"reps","amount":5,"pulsesPerRep":2}""", """ "sides":"each" """));
        Assert.Equal("0/0 about 0/0, 0 pulses, 60 held", Counted("""{"kind":"hold","amount":30}""", """ "sides":"each" """));
        Assert.Equal("6/6" + none, Counted("""{"kind":"reps","amount":{"from":4,"to":6}}""", """ "sharing":"turns" """));
    }

    private static int[] WorkOf(string station) =>
        [.. Good(With(Block("", station))).Spans.Where(s => s.Kind == SpanKind.Work).Select(s => s.Length().Value)];

    private static IEnumerable<string> Line(string dose) => Good(With(Block(""" "leadInSeconds":0 """, Station(dose)))).Spans.Select(Words);

    private static string Words(Span span) => $"{span.Kind.ToString().ToLowerInvariant()} {span.Length().Value}";
}
