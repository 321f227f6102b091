using System.Collections.Immutable;
using Halterion.Core.Checks;
using Halterion.Core.Leading;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sessions;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;
using Halterion.Core.Words;
using Halterion.Formats;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Single numbers and borders on which something hangs that an instructor would notice.</summary>
public class SmallRulesTests
{
    /// <summary>Common practice: less than 0.3 is no difference that anybody feels.</summary>
    [Theory]
    [InlineData(0.29, false)]
    [InlineData(0.31, true)]
    public void An_easier_option_may_ask_a_little_more_but_not_much(double more, bool found)
    {
        // The same squat, slower: 0.2 for each second of the rep beyond three (Demand, "Tempo").
        var lower = FormattableString.Invariant($"{1 + more / 0.2:0.##}");
        var text = With(Block("", $$"""{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat","tempo":"1-1-1-0"},{"tier":"easier","move":"squat","tempo":"{{lower}}-1-1-0"}]}"""));
        var finding = Good(text).Findings.Where(f => f.Code == "options.order").ToArray();
        Assert.Equal(found ? ["b1s1o2"] : [], finding.Select(f => f.Place.Value));
        Assert.All(finding, f => Assert.Equal((Severity.Consider, "/blocks/0/stations/0/options/1"), (f.Severity, f.Pointer)));
    }

    /// <summary>A pound is 0.45359237 kg (international avoirdupois pound, 1959).</summary>
    [Theory]
    [InlineData(20, "44.1 lb")]
    [InlineData(6.25, "13.8 lb")]
    [InlineData(100, "220.5 lb")]
    public void Weights_are_shown_in_pounds(double kilograms, string words) =>
        Assert.Equal(words, PlanWords.Weight(new Kilograms((decimal)kilograms), WeightUnit.Lb));

    [Fact]
    public void Who_is_named_is_expected_else_who_came_last_else_a_roster_that_is_no_larger_than_the_class()
    {
        ImmutableArray<Person> Roster(int count) => [.. Enumerable.Range(0, count).Select(i => new Person(new PersonId($"p{i}"), $"P{i}"))];
        var roster = Roster(30);
        Assert.Equal([roster[4]], LogPrefill.Expected(roster, [roster[4].Id], [roster[7].Id], 12));
        Assert.Equal([roster[7]], LogPrefill.Expected(roster, [], [roster[7].Id], 12));
        Assert.Empty(LogPrefill.Expected(roster, [], [], 12));
        Assert.Equal(30, LogPrefill.Expected(roster, [], [], 30).Length);
        Assert.Equal(24, LogPrefill.Expected(Roster(24), [], [], 0).Length);
        var room = new RoomOf(Plan(With(Block("", Station("""{"kind":"time","amount":30}""")))), DateOnly.MinValue, roster, 30, [], null,
            ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);
        Assert.All(LogPrefill.For(Assigning.Of(room), roster).Rows, r => Assert.True(r.Came));

        // Once somebody was ticked, whoever was not did not come, but for one of whom something was noted; ticked away is away.
        var words = ImmutableDictionary<PersonId, ImmutableArray<string>>.Empty.Add(roster[1].Id, ["pain: knee"]).Add(roster[2].Id, ["x"]);
        var came = ImmutableDictionary<PersonId, bool>.Empty.Add(roster[0].Id, true).Add(roster[2].Id, false);
        var ticked = LogPrefill.For(Assigning.Of(room), roster, new LeadNotes(came, words, [])).Rows;
        Assert.Equal([true, true, false, false], ticked.Take(4).Select(r => r.Came));
        Assert.Equal("pain: knee", ticked[1].Note);
    }

    [Fact]
    public void A_drink_break_is_said_where_it_is()
    {
        var station = Station("""{"kind":"time","amount":20}""");
        string[] Headlines(string fields) =>
            [
                .. Script(With(Block(fields, station, station)))
                    .Scenes.Where(s => s.Kind is SpanKind.Rest or SpanKind.Change)
                    .Select(s => s.Headline)];
        Assert.Equal(["Changeover", "Rest and drink", "Changeover", "Rest"],
            Headlines(""" "rounds":2,"betweenRounds":30,"betweenStations":5,"afterSeconds":9,"water":true """));
        Assert.Equal(["Rest", "Drink, then changeover", "Rest"],
            Headlines(""" "order":"sets","rounds":2,"betweenSets":30,"betweenStations":45,"water":true """));
    }

    [Fact]
    public void From_a_bench_to_the_floor_one_gets_down()
    {
        static string Of(string move) => $$"""{"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"{{move}}"}]}""";
        var stations = Plan(With(Block("", Of("hip-thrust"), Of("dead-bug"), Of("squat")))).Blocks[0].Stations;
        Assert.Contains("get down to the floor 6 s", ChangeOver.Between(stations[0], stations[1], false, Library, ChangeTimes.Brisk).Words,
            StringComparison.Ordinal);
        Assert.Contains(
            "stand up 6 s", ChangeOver.Between(stations[0], stations[2], false, Library, ChangeTimes.Brisk).Words,
            StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(59_499, "59 s")]
    [InlineData(59_500, "60 s")]
    [InlineData(60_499, "60 s")]
    public void What_was_led_is_told_to_the_nearest_second(long after, string words)
    {
        LeadCommand At(LeadCommandKind kind, long at) => new(Guid.NewGuid(), kind, at);
        var record = LeadRecord.Of(
            [At(LeadCommandKind.Start, 1000), At(LeadCommandKind.Finish, 1000 + after)],
            [new SceneTime(new Seconds(90), false)],
            9_000_000);
        Assert.Equal($"Took {words}; planned 90 s", record.Words);
    }

    /// <summary>
    /// Two strikes of a switch are told apart: 0.28 s from one to the next, each louder at its onset than just before it.
    /// </summary>
    [Fact]
    public async Task Strikes_of_a_bell_are_a_little_apart()
    {
        using var file = new MemoryStream();
        await BellTrack.WriteAsync(
            file, new Seconds(3), [new Cue(new Seconds(1), CueKind.Switch, 0)], TestContext.Current.CancellationToken);
        var samples = file.ToArray()[44..];
        int Loud(double from, double to) => samples[(int)(from * BellTrack.Rate)..(int)(to * BellTrack.Rate)].Max(s => Math.Abs(s - 128));
        Assert.Equal(0, Loud(0.5, 1));
        Assert.True(Loud(1.29, 1.34) > 2 * Loud(1.22, 1.27));
        Assert.Equal(0, Loud(1.7, 2));
    }

    /// <summary>Lines as set: three and two a station for a block; 40, 60 and 95 of them are the borders.</summary>
    [Theory]
    [InlineData(2, 8, Density.Roomy)]
    [InlineData(2, 9, Density.Normal)]
    [InlineData(4, 6, Density.Normal)]
    [InlineData(4, 7, Density.Tight)]
    [InlineData(5, 8, Density.Tight)]
    [InlineData(5, 9, Density.Tightest)]
    public void A_long_class_is_set_more_tightly(int blocks, int stations, Density density)
    {
        // 2·(3 + 2·8) = 38, 2·(3 + 2·9) = 42; 4·15 = 60, 4·17 = 68; 5·19 = 95, 5·21 = 105.
        var block = Block("", [.. Enumerable.Repeat(Station("""{"kind":"time","amount":5}"""), stations)]);
        var plan = Plan(With(string.Join(",", Enumerable.Repeat(block, blocks))));
        Assert.Equal(density, RunSheet.Of(plan, Compiler.Compile(plan).Timeline!, null, new Preferences()).Density);
    }

    [Fact]
    public void Short_rests_are_of_thirty_seconds_at_most()
    {
        var starters = new Starters(Library, new Preferences { Rest = RestHabit.Short }).Blocks();
        var rests = starters.Select(s => s.Block["betweenRounds"] ?? s.Block["betweenSets"])
            .Where(r => r is not null).Select(r => (int)r!).Where(r => r > 0).ToArray();
        Assert.NotEmpty(rests);
        Assert.All(rests, r => Assert.Equal(30, r));
    }

    [Fact]
    public void What_is_said_what_is_shown_and_recovery_reach_the_lead_and_the_run_sheet()
    {
        var text = With(
            Block(""" "recovery":[{"tier":"main","move":"march"}],"recoveryIn":"all","betweenStations":12,"say":{"text":"Heels down.","seconds":5} """,
                Station("""{"kind":"time","amount":20}"""), Station(
                    """{"kind":"time","amount":20}""", """ "say":{"text":"Now slower.","seconds":4},"view":["front","side"] """))
            + """,{"name":"Show","phase":"talk","format":"talk","shownBy":"Mo","show":[{"station":"b1s2","seconds":25}],"seconds":60}""",
            """ "focus":"Long spine","bring":"A mat", """);
        var script = Script(text);
        Assert.Equal(("Long spine", "Heels down."), (script.Focus, script.Scenes[0].Say));
        Assert.Equal(("Recovery: March", "Now slower."), (script.Scenes[2].Headline, script.Scenes[2].Say));
        Assert.Equal(("March", "12 s"), (script.Cards[script.Scenes[2].Cards[0]].Name, script.Scenes[2].Target));
        Assert.Equal(("Demo: Bodyweight squat", "from the front"), (script.Scenes[4].Headline, script.Scenes[4].Target));
        var shown = script.Cards[script.Scenes[4].Cards[0]];
        Assert.Equal((new PlaceId("b1s2"), Viewpoint.Front), (shown.Id, shown.View));
        var plan = Plan(text);
        var sheet = RunSheet.Of(plan, Compiler.Compile(plan).Timeline!, null, new Preferences());
        Assert.Equal(("Long spine", "A mat"), (sheet.Focus, sheet.Bring));
        Assert.Equal(["Say: Heels down.", "Say before Bodyweight squat: Now slower."], sheet.Blocks[0].Lines);
        Assert.Equal(["Show Bodyweight squat, 25 s, from the front"], sheet.Blocks[1].Lines);
        Assert.Contains("led by Mo", sheet.Blocks[1].Words, StringComparison.Ordinal);
    }

    private static LeadScript Script(string text) => LeadScript.Of(Plan(text), Classes.Timeline(text), new Preferences());
}
