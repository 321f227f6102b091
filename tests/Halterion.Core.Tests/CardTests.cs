using Halterion.Core.Body;
using Halterion.Core.Leading;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>What is printed for the stations, the walk-through and the way home.</summary>
public class CardTests
{
    private const string Thrust = """{"dose":[{"kind":"reps","amount":12}],"options":[{"tier":"main","move":"hip-thrust"},{"tier":"easier","move":"glute-bridge"},{"tier":"harder","move":"hip-thrust","tempo":"3-2-1-1"}]}""";
    private const string Plain = """{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"squat"}]}""";

    [Fact]
    public void A_station_has_a_card_with_its_options_from_hard_to_easy_and_its_measures()
    {
        var cards = Of(With($"{Block("", Thrust, Plain)},{Block("", Plain)}"), new Preferences(), 1.6, 1.8);
        Assert.Equal(["Station 1 of 2", "Station 2 of 2", "Station 1 of 1"], cards.Stations.Select(s => s.Place));
        Assert.Equal([Tier.Harder, Tier.Main, Tier.Easier], cards.Stations[0].Options.Select(o => o.Tier));
        Assert.All(cards.Stations.SelectMany(s => s.Options), o => Assert.NotNull(o.Figure));

        // 0.235 of 1.60 m and of 1.80 m, as in BodyTests.
        Assert.StartsWith("Bench height: 38–42 cm", cards.Stations[0].SetUp[0], StringComparison.Ordinal);
        Assert.Equal("38–42 cm", cards.Stations[0].Measures[0].Words);
    }

    /// <summary>Two stations of one move, one for each side, hang two different cards; measures stand at the foot that is meant.</summary>
    [Fact]
    public void A_station_for_one_side_has_the_picture_of_that_side()
    {
        static string On(string side) =>
            $$"""{"dose":[{"kind":"time","amount":30,"side":"{{side}}"}],"options":[{"tier":"main","move":"split-squat"},{"tier":"easier","move":"split-squat","support":"hand"}]}""";
        var cards = Of(With(Block("", On("left"), On("right"))), new Preferences(), 1.7, 1.7).Stations;
        Assert.Equal(["left foot in front", "right foot in front"], cards.Select(c => Side(c.Options[0])));
        Assert.Equal(["left foot in front", "right foot in front"], cards.Select(c => Side(c.Options[1])));
        Assert.NotEqual(cards[0].Options[0].Figure!.Svg(), cards[1].Options[0].Figure!.Svg());
        var (left, right) = (cards[0].Measures.Single(), cards[1].Measures.Single());
        Assert.Equal((right.X1, right.X2), (-left.X1, -left.X2));

        static string Side(CardOption option) =>
            option.Figure!.Alt.Contains("left foot in front", StringComparison.Ordinal) ? "left foot in front" : "right foot in front";
    }

    [Fact]
    public void The_kit_there_is_comes_nearest_and_says_for_whom_it_is_wrong()
    {
        string SetUp(Preferences preferences, double from, double to) =>
            Of(With(Block("", Thrust)), preferences, from, to).Stations[0].SetUp[0];
        Assert.Contains("; yours: 40 cm", SetUp(new Preferences { Heights = [30, 40, 50] }, 1.7, 1.7), StringComparison.Ordinal);
        Assert.Contains("; yours: 45 cm (not for "
            + "the shortest)", SetUp(new Preferences { Heights = [45] }, 1.5, 1.9), StringComparison.Ordinal);
        Assert.Contains("15.7 in", SetUp(new Preferences { Length = LengthUnit.In }, 1.7, 1.7), StringComparison.Ordinal);
    }

    /// <summary>25 s a station with its options (handbook, section 3: common practice, no source).</summary>
    [Fact]
    public void Each_move_is_walked_through_once_with_a_fault_to_show()
    {
        var cards = Of(With($"{Block("", Thrust, Plain)},{Block("", Plain)}"), new Preferences(), 1.7, 1.7);
        Assert.Equal(2, cards.WalkThrough.Length);
        Assert.Equal("50 s", cards.WalkThroughTakes);
        Assert.Equal("from the side", cards.WalkThrough[0].View);
        Assert.StartsWith("stance, movement, finish; ", cards.WalkThrough[0].Show, StringComparison.Ordinal);
        Assert.All(cards.WalkThrough, line => Assert.NotEqual("", line.Fault));
    }

    [Fact]
    public void What_goes_home_has_each_move_once_four_stretches_and_the_cautions()
    {
        var recovery = Library.Moves.First(m => m.Family == Moves.Family.Recovery);
        var cards = Of(
            With(
                Block("", Plain.Replace("\"squat\"", $"\"{recovery.Id.Value}\"", StringComparison.Ordinal))
                + "," + Block("", Plain, Thrust, Plain)),
            new Preferences(),
            1.7,
            1.7);
        Assert.Equal(["Bodyweight squat", "Hip thrust"], cards.TakeAway.Select(m => m.Name));
        Assert.Equal(4, cards.Stretches.Length);
        Assert.All(cards.Stretches, s => Assert.Matches(@"^\d+ s( each side)?$", s.Target));
        Assert.Contains("doctor or midwife", cards.Cautions, StringComparison.Ordinal);
    }

    [Fact]
    public void A_move_without_a_figure_is_printed_in_words()
    {
        var own = Plain.Replace("\"squat\"", "\"mine\"", StringComparison.Ordinal);
        var cards = Of(
            With(Block("", own), """ "moves":[{"id":"mine","name":"Mine","family":"squat","path":"Down and up."}], """),
            new Preferences(),
            1.7,
            1.7);
        Assert.Equal(("Mine", "Down and up."), (cards.Stations[0].Name, cards.Stations[0].Cue));
        Assert.Null(cards.Stations[0].Options[0].Figure);
        Assert.Empty(cards.Stations[0].SetUp);
        Assert.Equal("", cards.WalkThrough[0].Fault);
    }

    /// <summary>The printed walk-through is the one that the class plans and times; without one every move is shown once.</summary>
    [Fact]
    public void The_walk_through_sheet_is_the_planned_one()
    {
        var stations = $"{Station("""{"kind":"time","amount":40}""", "\"id\":\"one\"")},{Plain}";
        var main = Block("",
            stations.Replace(
                "\"move\":\"squat\"}]", "\"move\":\"squat\"},{\"tier\":\"easier\",\"move\":\"chair-squat\"}]", StringComparison.Ordinal));
        var unplanned = Of(With(main), new Preferences(), 1.7, 1.7);
        Assert.Equal("25 s", unplanned.WalkThroughTakes);
        Assert.StartsWith("stance, movement, finish; easier: Sit-to-stand", unplanned.WalkThrough.Single().Show, StringComparison.Ordinal);

        const string Talk = """{"name":"Welcome","phase":"talk","format":"talk","show":[{"station":"one","seconds":45,"view":"back","first":"easier"},{"station":"one","seconds":30}]}""";
        var planned = Of(With($"{Talk},{main}"), new Preferences(), 1.7, 1.7);
        Assert.Equal("75 s", planned.WalkThroughTakes);
        Assert.Equal([("from the back", 45), ("from the side", 30)], planned.WalkThrough.Select(l => (l.View, l.Seconds.Value)));
        Assert.Equal("start with easier: Sit-to-stand, down to a chair; then main", planned.WalkThrough[0].Show);
    }

    private static ClassCards Of(string text, Preferences preferences, double shortest, double tallest) =>
        ClassCards.Of(Plan(text), Compiler.Compile(Plan(text)).Timeline!, preferences, new Stature(shortest), new Stature(tallest));
}
