using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Halterion.Core.Leading;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;

namespace Halterion.Core.Tests;

/// <summary>
/// Who moves on, rule by rule. The 2-for-2 rule is the NSCA's, steps of 2–10 % the ACSM's (2009), both from memory; all other bounds are
/// our own choice.
/// </summary>
public sealed class MovingOnTests
{
    private static readonly MoveLibrary Moves = MoveLibrary.Load();

    private const string Goblet =
        """{"tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":8,"position":"goblet"}}""";

    private const string Squat = """{"tier":"main","move":"squat"}""";

    private const string Bells =
        """[{"item":"kettlebell","kg":8,"count":4},{"item":"kettlebell","kg":12,"count":4},{"item":"kettlebell","kg":16,"count":1}]""";

    private static (MovingOnCase? Case, string[] Faults) Read(string json)
    {
        var faults = new Faults { NullIsAbsent = true };
        var fields = new Fields(JsonElement.Parse(Encoding.UTF8.GetBytes(json)), "", faults);
        var read = MovingOnReader.Read(fields, faults, Moves);
        fields.Close("this request");
        return (read, [.. faults.All.Select(f => f.Pointer)]);
    }

    private static Suggestion Of(string history, string option = Squat, string target = """{"reps":10}""", string more = "")
    {
        var (read, faults) = Read($$"""{"history":[{{history}}],"option":{{option}},"target":{{target}},"today":"2026-11-30"{{more}}}""");
        Assert.Empty(faults);
        return MovingOn.Of(read!, Moves);
    }

    /// <summary>One class of a history: its last set, with or without a weight.</summary>
    private static string Past(int done, string date = "2026-11-26", string option = Squat, int target = 10, string more = "",
        decimal? kg = null) =>
        $$"""{"date":"{{date}}","option":{{option}},"target":{"reps":{{target}}},"sets":[{"reps":20},{"reps":{{done}}{{(kg is { } w ? $",\"kg\":{w}" : "")}}}]{{more}}}""";

    private static string Two(int first, int second, string option = Squat, decimal? kg = null, string more = "") =>
        $"{Past(first, "2026-11-19", option, kg: kg, more: more)},{Past(second, option: option, kg: kg, more: more)}";

    [Theory]
    [InlineData("easier", 8)]
    [InlineData("main", 8)] // ⌈3/3⌉ = the first of three
    [InlineData("harder", 12)] // ⌈3/2⌉ = the second
    public void The_first_time_the_weight_goes_by_level(string level, decimal kg)
    {
        var first = Of("", Goblet, more: $$""","level":"{{level}}","stock":{{Bells}}""");
        Assert.Equal((NextStep.Start, "first", kg), (first.Action, first.Rule, first.Kg));
        Assert.Contains("Too light is right today", first.Reason, StringComparison.Ordinal);
    }

    [Fact]
    public void The_first_time_nothing_is_heavier_than_they_are_ready_for()
    {
        // 8 kg wants clean reps without weight first (handbook, common practice, no source): a lighter one, else none.
        var stock = """[{"item":"kettlebell","kg":6,"count":2},{"item":"kettlebell","kg":8,"count":2},{"item":"kettlebell","kg":12,"count":2}]""";
        Assert.Equal(6, Of("", Goblet, more: $$""","level":"harder","stock":{{stock}},"ready":[]""").Kg);
        Assert.Equal(8, Of("", Goblet, more: $$""","level":"harder","stock":{{stock}},"ready":["load"]""").Kg);
        var none = Of("", Goblet, more: $$""","stock":{{Bells}},"ready":[]""");
        Assert.Null(none.Kg);
        Assert.True(none.Of!.Manner.Load!.IsNone);
        Assert.Contains("without a weight", none.Reason, StringComparison.Ordinal);
        // A level above or below theirs is an option where no weight tells it.
        Assert.Equal("easier", (string)Of("", more: ""","level":{"squat":"easier"}""").Option!["tier"]!);
        Assert.Equal("main", (string)Of("", more: ""","level":{"lunge":"easier"}""").Option!["tier"]!);
    }

    [Fact]
    public void Pain_comes_before_all_else()
    {
        const string Hurt = ""","pain":{"where":"knee","side":"left"}""";
        var once = Of(Past(20, more: Hurt));
        Assert.Equal((NextStep.Easier, "pain", 10), (once.Action, once.Rule, once.Target.Amount));
        Assert.Equal("easier", (string)once.Option!["tier"]!);
        var twice = Of(Two(20, 20, more: Hurt));
        Assert.Equal((NextStep.Leave, "pain-twice"), (twice.Action, twice.Rule));
        Assert.Equal("instead", (string)twice.Option!["tier"]!);
        Assert.Contains("seen to", twice.Reason, StringComparison.Ordinal);
        // Earlier pain is over, whatever it was.
        Assert.Equal("hold", Of(Past(10, "2026-11-19", more: Hurt) + "," + Past(10)).Rule);
        // Also after a long time away.
        Assert.Equal("pain", Of(Past(10, "2026-06-01", more: Hurt)).Rule);
    }

    [Fact]
    public void What_is_offered_after_pain_is_allowed_for_them()
    {
        const string Hurt = ""","pain":{}""";
        var kneeling = Of(Past(10, more: Hurt, option: """{"tier":"main","move":"reverse-lunge"}"""),
            """{"tier":"main","move":"reverse-lunge"}""", more: ""","limits":[{"limit":"knee","strict":true}]""");
        Assert.Contains(kneeling.Action, new[] { NextStep.Easier, NextStep.Stay });
        if (kneeling.Of is { } easier && kneeling.Action == NextStep.Easier)
        {
            Assert.Null(Demands.LimitTable.WhyNot(Moves.Find(easier.Move)!, easier.Manner, Moves, Limit.Knee, strict: true));
        }

        // A limit that is over forbids nothing.
        var over = Of(Past(10, more: Hurt), more: ""","limits":[{"limit":"knee","strict":true,"until":"2026-11-29"}]""");
        Assert.Equal(Of(Past(10, more: Hurt)).Option!.ToJsonString(), over.Option!.ToJsonString());
    }

    [Theory]
    [InlineData("2026-11-02", "hold")] // 28 days
    [InlineData("2026-11-01", "away")] // 29
    public void Over_four_weeks_away_one_begins_with_less(string date, string rule)
    {
        var away = Of(Past(10, date));
        Assert.Equal((rule, rule == "away" ? 8 : 10), (away.Rule, away.Target.Amount));
    }

    [Fact]
    public void Less_is_a_lighter_weight_where_there_is_one()
    {
        // 16 kg: under 14.4 is 12; 12 kg: under 10.8 is 8; 8 kg: nothing, so eight tenths of ten.
        Suggestion Away(decimal kg) => Of(Past(10, "2026-10-01", Goblet, kg: kg), Goblet, more: $",\"stock\":{Bells}");
        Assert.Equal((12m, 10), (Away(16).Kg!.Value, Away(16).Target.Amount));
        Assert.Equal((8m, 10), (Away(12).Kg!.Value, Away(12).Target.Amount));
        Assert.Equal((8m, 8), (Away(8).Kg!.Value, Away(8).Target.Amount));
        // Nine tenths exactly are not under them.
        var tenths = """[{"item":"kettlebell","kg":9,"count":1},{"item":"kettlebell","kg":10,"count":1}]""";
        Assert.Equal((10m, 8),
            (Of(Past(10, "2026-10-01", Goblet, kg: 10), Goblet, more: $",\"stock\":{tenths}") is var at
                ? (at.Kg!.Value, at.Target.Amount) : default));
        Assert.Equal(NextStep.Restart, Away(16).Action);
        // Without a stock any half kilogram is there.
        Assert.Equal(14m, Of(Past(10, "2026-10-01", Goblet, kg: 16), Goblet).Kg);
        // Two are held and only one is there.
        const string Pair = """{"tier":"main","move":"squat","load":{"implement":"kettlebell","count":2,"kg":16,"position":"rack"}}""";
        var pairs = """[{"item":"kettlebell","kg":12,"count":1},{"item":"kettlebell","kg":8,"count":2}]""";
        Assert.Equal(8m, Of(Past(10, "2026-10-01", Pair, kg: 32), Pair, more: $",\"stock\":{pairs}").Kg);
    }

    [Fact]
    public void Far_under_the_target_is_too_much_asked()
    {
        Assert.Equal("hold", Of(Past(7)).Rule); // 70 % exactly
        var down = Of(Past(6));
        Assert.Equal((NextStep.Down, "short", 8), (down.Action, down.Rule, down.Target.Amount));
        // Eight tenths of six are five; of five, four: another option.
        Assert.Equal((5, "main"), (Of(Past(3, target: 6), target: """{"reps":6}""") is var six
            ? (six.Target.Amount, (string)six.Option!["tier"]!) : default));
        var few = Of(Past(3, target: 5), target: """{"reps":5}""");
        Assert.Equal((NextStep.Down, 5, "easier"), (few.Action, few.Target.Amount, (string)few.Option!["tier"]!));
    }

    [Theory]
    [InlineData(12, 12, "two-for-two")]
    [InlineData(11, 12, "hold")]
    [InlineData(12, 11, "hold")]
    public void Two_over_the_target_twice_running_is_the_rule(int first, int second, string rule) =>
        Assert.Equal(rule, Of(Two(first, second)).Rule);

    [Fact]
    public void The_two_classes_must_be_alike_clean_and_not_all_out()
    {
        Assert.Equal("two-for-two", Of(Two(12, 12, more: ""","effort":8.5""")).Rule);
        Assert.Equal("hold", Of(Two(12, 12, more: ""","effort":9""")).Rule);
        Assert.Equal("hold", Of(Two(12, 12, more: ""","clean":false""")).Rule);
        Assert.Equal("two-for-two", Of(Two(12, 12, more: ""","clean":true""")).Rule);
        var half = """{"tier":"main","move":"squat","depth":"half"}""";
        Assert.Equal("hold", Of(Past(12, "2026-11-19", half) + "," + Past(12)).Rule);
        // An id and a note do not make another option.
        var named = """{"tier":"main","move":"squat","id":"x","note":"mind the knee"}""";
        Assert.Equal("two-for-two", Of(Past(12, "2026-11-19", named) + "," + Past(12)).Rule);
        Assert.Equal("hold", Of(Past(12, "2026-11-19", Goblet, kg: 8) + "," + Past(12, option: Goblet, kg: 12), Goblet).Rule);
    }

    [Fact]
    public void With_a_weight_the_smallest_fine_step_comes_first()
    {
        var fine = """[{"item":"kettlebell","kg":10,"count":1},{"item":"kettlebell","kg":10.5,"count":1},{"item":"kettlebell","kg":11,"count":1}]""";
        var up = Of(Two(12, 12, Goblet, 10), Goblet, more: $",\"stock\":{fine}");
        Assert.Equal((NextStep.Up, 10.5m, 10), (up.Action, up.Kg!.Value, up.Target.Amount));
        Assert.Equal("12 and 12 the last two times, 10 asked: take the 10.5.", up.Reason);
        // Out of order is not in stock; 11 is 10 % and fine.
        var worn = fine.Replace("10.5,\"count\":1", "10.5,\"count\":1,\"condition\":\"out\"", StringComparison.Ordinal);
        Assert.Equal(11m, Of(Two(12, 12, Goblet, 10), Goblet, more: $",\"stock\":{worn}").Kg);
        // Without a stock: 2.5 % to the next half kilogram.
        Assert.Equal(16.5m, Of(Two(12, 12, Goblet, 16), Goblet).Kg);
    }

    [Fact]
    public void Where_the_next_weight_is_a_leap_the_reps_grow_first()
    {
        Suggestion At(int target, string history) =>
            Of(history, Goblet, $$"""{"reps":{{target}}}""", $",\"stock\":{Bells}");
        string Run(params int[] targets) => string.Join(",", targets.Select(
            (t, i) => Past(t + 2, $"2026-11-{10 + i:00}", Goblet, t, kg: 8)));
        Assert.Equal((8m, 12), (At(10, Run(10, 10)).Kg!.Value, At(10, Run(10, 10)).Target.Amount));
        Assert.Equal((8m, 14), (At(12, Run(10, 10, 12, 12)).Kg!.Value, At(12, Run(10, 10, 12, 12)).Target.Amount));
        // 14 is over 13 = 1.3 × 10: the next weight, and eight tenths of 14, rounded up.
        Assert.Equal((12m, 12), (At(14, Run(10, 12, 14, 14)).Kg!.Value, At(14, Run(10, 12, 14, 14)).Target.Amount));
        Assert.Equal((12m, 11), (At(13, Run(10, 13, 13)).Kg!.Value, At(13, Run(10, 13, 13)).Target.Amount));
    }

    [Fact]
    public void Nobody_is_sent_up_before_they_are_ready()
    {
        var six = """{"tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":7.5,"position":"goblet"}}""";
        var stock = """[{"item":"kettlebell","kg":8,"count":1}]""";
        var stay = Of(Two(12, 12, six, 7.5m), six, more: $$""","stock":{{stock}},"ready":[]""");
        Assert.Equal((NextStep.Stay, "two-for-two", Tick.Load), (stay.Action, stay.Rule, stay.Practise!.Value));
        Assert.Contains("8–12 clean reps", stay.Reason, StringComparison.Ordinal);
        Assert.Equal((NextStep.Up, 8m), (Of(Two(12, 12, six, 7.5m), six, more: $$""","stock":{{stock}},"ready":["load"]""") is var go
            ? (go.Action, go.Kg!.Value) : default));
    }

    [Fact]
    public void Without_a_weight_reps_grow_to_twelve_then_the_option_changes()
    {
        Assert.Equal(13, Of(Two(13, 13), target: """{"reps":11}""").Target.Amount);
        var up = Of(Past(14, "2026-11-19", target: 12) + "," + Past(14, target: 12), target: """{"reps":12}""");
        Assert.Equal((NextStep.Up, 10, "harder"), (up.Action, up.Target.Amount, (string)up.Option!["tier"]!));
        string Hold(string date, int done, int target) =>
            $$"""{"date":"{{date}}","option":{"tier":"main","move":"wall-sit"},"target":{"seconds":{{target}}},"sets":[{"seconds":{{done}}}]}""";
        var longer = Of(Hold("2026-11-20", 40, 35) + "," + Hold("2026-11-27", 40, 35), """{"tier":"main","move":"wall-sit"}""", """{"seconds":35}""");
        Assert.Equal(new Target(Seconds: 40), longer.Target);
        Assert.Equal("hold", Of(
            Hold("2026-11-20", 39, 35) + "," + Hold("2026-11-27", 40, 35), """{"tier":"main","move":"wall-sit"}""", """{"seconds":35}""").Rule);
    }

    [Fact]
    public void The_weaker_side_begins_where_it_stayed_behind_twice()
    {
        string Sides(string date, int left, int right) =>
            $$"""{"date":"{{date}}","option":{{Squat}},"target":{"reps":10},"sets":[{"reps":{{left}},"side":"left"},{"reps":{{right}},"side":"right"}]}""";
        var stay = Of(Sides("2026-11-19", 7, 9) + "," + Sides("2026-11-26", 7, 10));
        Assert.Equal((NextStep.Stay, "sides", People.BodySide.Left, 7), (stay.Action, stay.Rule, stay.First!.Value, stay.Target.Amount));
        Assert.Equal("hold", Of(Sides("2026-11-19", 8, 10) + "," + Sides("2026-11-26", 7, 10)).Rule); // 80 % exactly
        Assert.Equal("hold", Of(Sides("2026-11-26", 7, 10)).Rule);
        Assert.Equal("hold", Of(Sides("2026-11-19", 10, 7) + "," + Sides("2026-11-26", 7, 10)).Rule);
        // What is done is done by the weaker side.
        Assert.Equal("short", Of(Sides("2026-11-26", 6, 12)).Rule);
        Assert.Equal("two-for-two", Of(Sides("2026-11-19", 12, 13) + "," + Sides("2026-11-26", 12, 14)).Rule);
    }

    [Theory]
    [InlineData("""{"history":[],"option":{"tier":"main","move":"squat"},"today":"2026-11-30"}""", "")]
    [InlineData("""{"history":[],"option":{"tier":"main","move":"nonsense"},"target":{"reps":1},"today":"2026-11-30"}""", "/option/move")]
    [InlineData("""{"history":[],"option":{"tier":"main","move":"squat"},"target":{"reps":0},"today":"2026-11-30"}""", "/target/reps")]
    [InlineData("""{"history":[],"option":{"tier":"main","move":"squat"},"target":{"reps":1,"seconds":2},"today":"2026-11-30"}""", "/target")]
    [InlineData("""{"history":[{"date":"2026-11-01","option":{"tier":"main","move":"squat"},"target":{"reps":1},"sets":[]}],"option":{"tier":"main","move":"squat"},"target":{"reps":1},"today":"2026-11-30"}""", "/history/0/sets")]
    [InlineData("""{"history":[{"date":"2026-12-01","option":{"tier":"main","move":"squat"},"target":{"reps":1},"sets":[{"reps":1}]}],"option":{"tier":"main","move":"squat"},"target":{"reps":1},"today":"2026-11-30"}""", "/history/0/date")]
    [InlineData("""{"history":[{"date":"2026-11-01","option":{"tier":"main","move":"squat"},"target":{"reps":1},"sets":[{"seconds":1}],"effort":11}],"option":{"tier":"main","move":"squat"},"target":{"reps":1},"today":"2026-11-30"}""", "/history/0/sets/0/seconds")]
    public void What_is_wrong_is_said_with_its_place(string json, string pointer) => Assert.Contains(pointer, Read(json).Faults);

    /// <summary>The worked example of logbook.md: 300, 0, 400, 0, 350, 0, 0. Foster 1998, from memory.</summary>
    [Fact]
    public void A_week_is_weighed_as_in_the_worked_example()
    {
        var week = WeekLoad.Of([300, 0, 400, 0, 350, 0, 0]);
        Assert.Equal((1050m, 150m, 0.79m), (week.Sum, week.Mean, week.Monotony!.Value));
        Assert.Equal((189.3m, 832m), (Math.Round(week.Deviation, 1), Math.Round(week.Strain!.Value)));
        Assert.Equal((0m, null, null), (WeekLoad.Of([0, 0, 0, 0, 0, 0, 0]).Deviation, WeekLoad.Of([0, 0, 0, 0, 0, 0, 0]).Monotony,
            WeekLoad.Of([100, 100, 100, 100, 100, 100, 100]).Strain));
        Assert.Throws<ArgumentException>(() => WeekLoad.Of([1, 2, 3]));
    }

    /// <summary>Both week starts, also over a change of the clocks: days are days.</summary>
    [Theory]
    [InlineData("2026-10-25", DayOfWeek.Monday, "2026-10-19")]
    [InlineData("2026-10-25", DayOfWeek.Sunday, "2026-10-25")]
    [InlineData("2026-10-26", DayOfWeek.Monday, "2026-10-26")]
    [InlineData("2026-03-29", DayOfWeek.Monday, "2026-03-23")]
    [InlineData("2027-01-01", DayOfWeek.Sunday, "2026-12-27")]
    public void A_week_begins_where_the_settings_have_it(string day, DayOfWeek startsOn, string first) =>
        Assert.Equal(DateOnly.Parse(first, System.Globalization.CultureInfo.InvariantCulture),
            WeekLoad.StartOf(DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture), startsOn));

    /// <summary>Epley: 10 reps with 60 kg are 80; Brzycki: 36 × 60 / 27 = 80. From memory.</summary>
    [Fact]
    public void A_best_set_is_estimated_by_both_formulas()
    {
        Assert.Equal((80m, 80m), (BestSet.Of(10, 60)!.Epley, BestSet.Of(10, 60)!.Brzycki));
        Assert.Equal((116.7m, 112.5m), (BestSet.Of(5, 100)!.Epley, BestSet.Of(5, 100)!.Brzycki));
        Assert.Null(BestSet.Of(13, 60));
        Assert.Null(BestSet.Of(0, 60));
        Assert.Equal(20, BestSet.Of([new DoneSet(10, Kg: 16), new DoneSet(8, Kg: 20), new DoneSet(15, Kg: 60)])!.Kg);
    }

    [Fact]
    public void A_pace_is_learnt_from_the_last_five_classes_that_had_it()
    {
        Assert.Null(LearntPace.From("talk", [1, 2]));
        Assert.Equal((1.5m, 3), (LearntPace.From("talk", [1, 2, 1.5m])!.Factor, LearntPace.From("talk", [1, 2, 1.5m])!.Classes));
        // The oldest is no longer counted; an even number has its middle between two; to a twentieth.
        Assert.Equal(2, LearntPace.From("talk", [9, 1, 2, 2, 2, 3])!.Factor);
        Assert.Equal(1.65m, LearntPace.From("talk", [1, 1.6m, 1.66m, 3])!.Factor);
        Assert.Equal((4m, 0.5m), (LearntPace.From("talk", [8, 9, 10])!.Factor, LearntPace.From("talk", [0.1m, 0.2m, 0.1m])!.Factor));
    }

    [Fact]
    public void A_learnt_pace_stretches_each_kind_of_change_by_its_own_factor_and_leaves_the_rest_brisk()
    {
        var real = new Dictionary<string, decimal> { ["walk"] = 1.5m, ["switchFloor"] = 0.6m, ["talk"] = 2 }
            .ToImmutableSortedDictionary(StringComparer.Ordinal);
        var times = ChangeTimes.Of(Pace.Real, real);
        // Brisk: walk 8, the other side on the floor 4; seconds are rounded up.
        Assert.Equal(ChangeTimes.Brisk with { Walk = 12, SwitchFloor = 3 }, times);
        // Only the pace that is learnt listens to it.
        Assert.Equal(ChangeTimes.Brisk, ChangeTimes.Of(Pace.Brisk, real));
        Assert.Equal(ChangeTimes.Talking, ChangeTimes.Of(Pace.Talking, real));
        Assert.Equal(ChangeTimes.Brisk, ChangeTimes.Of(Pace.Real, ImmutableSortedDictionary<string, decimal>.Empty));
        Assert.Equal(12, ChangeTimes.Of(new Preferences { Pace = Pace.Real, Real = real }).Walk);
    }

    [Fact]
    public void A_walk_through_can_take_as_long_as_one_really_talks()
    {
        var known = WalkThroughPace.Of(new Dictionary<string, decimal> { ["talk"] = 1.35m }.ToImmutableSortedDictionary());
        // 45 s as usual, times 1.35 = 60.75, to the next five seconds.
        Assert.Equal(65, known[^1].Seconds.Value);
        Assert.Equal(WalkThroughPace.All, known[..^1]);
        Assert.Equal(WalkThroughPace.All, WalkThroughPace.Of(ImmutableSortedDictionary<string, decimal>.Empty));
    }

    [Theory]
    [InlineData(""" "sides":"each" """, "split-squat", "switchStanding")]
    [InlineData(""" "sides":"each" """, "clam", "switchFloor")]
    [InlineData(""" "sharing":"turns" """, "squat", "")]
    [InlineData(""" "sharing":"turns","sides":"each" """, "split-squat", "switchStanding")]
    public void What_a_switch_is_decides_which_pace_is_learnt_from_it(string station, string move, string kinds)
    {
        var text = Classes.With($$"""{"name":"B","phase":"main","stations":[{{{station}},"dose":[{"kind":"reps","amount":5}],"options":[{"tier":"main","move":"{{move}}"}]}]}""");
        var (plan, timeline) = (Classes.Plan(text), Classes.Timeline(text));
        var led = ClassAsLed.Of(
            plan, timeline, [new LeadCommand(Guid.Empty, LeadCommandKind.Start, 0)], 1000L * timeline.Length.Value + 1000);
        // A partner’s swap is no change of sides.
        Assert.Equal(kinds, string.Join(", ", RealPace.Of(plan, timeline, led).Keys));
    }
}
