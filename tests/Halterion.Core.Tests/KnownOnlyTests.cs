using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;
using Halterion.Core.Views;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Green only when known: what is not known is said to be so, on every page the same; and fixes mend what is there.</summary>
public sealed class KnownOnlyTests
{
    private const string Squat = """{"id":"s","dose":[{"kind":"time","amount":40}],"options":[{"id":"m","tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":8}},{"id":"e","tier":"easier","move":"squat"}]}""";

    private static RoomOf Room(ClassPlan plan, Person[] people, StockLine[]? kit) => new(
        plan, new DateOnly(2026, 12, 1), [.. people], 2, [], kit is null ? null : [.. kit],
        ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);

    private static ReadyView Ready(string file, Func<ClassPlan, RoomOf>? room = null, RoomSize? size = null)
    {
        var plan = Plan(file);
        var occasion = room?.Invoke(plan) is { } of ? new Occasion(of, Assigning.Of(of), size) : null;
        var review = new ClassReview(plan, Compiler.Compile(plan).Timeline!, CheckSettings.Usual, occasion);
        return ReadyView.Of(review, [.. Rules.All.SelectMany(r => r.Check(review))], null, [], new Preferences());
    }

    private static string Slot(string text, int minutes) =>
        text.Replace("\"slotMinutes\":60", $"\"slotMinutes\":{minutes}", StringComparison.Ordinal);

    private static Standing Of(ReadyView view, string what) => view.Lines.Single(l => l.Of == what).Standing;

    [Fact]
    public void A_class_of_a_talk_alone_says_what_is_unplanned_and_that_there_are_no_stations()
    {
        var view = Ready(With("""{"name":"Talk","phase":"talk","format":"talk","seconds":1200}"""));
        Assert.True(view.Ready);
        Assert.False(view.Sure);
        Assert.Equal("No stations yet. 40 min unplanned.", view.Says[..34]);
        Assert.Equal(Standing.Unplanned, Of(view, "Time"));
        Assert.Equal("No stations yet.", view.Lines.Single(l => l.Of == "Class").Words);
        Assert.DoesNotContain(view.Lines, l => l.Standing == Standing.Well);
    }

    [Fact]
    public void Kit_and_room_are_well_short_or_not_known()
    {
        var file = Slot(With($$"""{"id":"blk","name":"Main","phase":"main","rounds":6,"stations":[{{Squat}}]}"""), 5);
        Person[] people = [new(new PersonId("a"), "Ada", Ready: [Tick.Load]), new(new PersonId("b"), "Bo", Ready: [Tick.Load])];
        Standing Kit(params StockLine[]? kit) => Of(Ready(file, plan => Room(plan, people, kit)), "Kit");
        Assert.Equal(Standing.NotKnown, Kit(null));
        Assert.Equal(Standing.NotKnown, Kit(new StockLine(KitItem.Mat, 12)));
        Assert.Equal(Standing.Well, Kit(new StockLine(KitItem.Kettlebell, 2, 8)));
        Assert.Equal(Standing.NotKnown, Of(Ready(file, plan => Room(plan, people, null)), "Room"));
        Assert.Equal(Standing.NotKnown, Of(Ready(file, plan => Room(plan, [], null)), "People"));
        Assert.Contains("Not known: ", Ready(file, plan => Room(plan, [], null)).Says, StringComparison.Ordinal);
        Assert.Equal(Standing.NotKnown, Of(Ready(file), "People"));

        // What the room says of itself is the same.
        string Summary(Person[] who, StockLine[]? kit) =>
            RoomView.Of(Room(Plan(file), who, kit), Compiler.Compile(Plan(file)).Timeline!, new Preferences()).Summary;
        Assert.EndsWith("everyone has an option; kit is not known", Summary(people, null), StringComparison.Ordinal);
        Assert.EndsWith("no names yet; kit is not known", Summary([], null), StringComparison.Ordinal);
        Assert.EndsWith("some kit is not on the list", Summary(people, [new StockLine(KitItem.Mat, 12)]), StringComparison.Ordinal);
        Assert.EndsWith("and there is enough kit", Summary(people, [new StockLine(KitItem.Kettlebell, 2, 8)]), StringComparison.Ordinal);
    }

    [Fact]
    public void A_shortage_says_where_how_many_and_what_there_is()
    {
        var file = With($$"""{"id":"blk","name":"Main","phase":"main","stations":[{{Squat}}]}""");
        Person[] people = [new(new PersonId("a"), "Ada", Ready: [Tick.Load]), new(new PersonId("b"), "Bo", Ready: [Tick.Load])];
        string[] Short(params StockLine[] kit) => [.. RoomView.Of(
            Room(Plan(file), people, kit) with { HeadCount = 5 }, Compiler.Compile(Plan(file)).Timeline!, new Preferences())
            .Shortages.Select(s => s.Words)];
        Assert.Equal(["Goblet squat needs 3 × 8 kg kettlebell; you have 1"], Short(new StockLine(KitItem.Kettlebell, 1, 8)));
        Assert.Equal("There is enough of everything.", RoomView.Of(
            Room(Plan(file), people, [new StockLine(KitItem.Kettlebell, 9, 8)]), Compiler.Compile(Plan(file)).Timeline!, new Preferences())
            .KitSays);
        Assert.Equal("2 × 6 kg dumbbell", NeedWords.Of(new Need(KitItem.Dumbbell, 2, 6)));
        Assert.Equal("40 cm boxes", NeedWords.Many(new Need(KitItem.Box, 3, HeightCm: 40)));
        Assert.Equal("plates to 40 kg", NeedWords.Many(new Need(KitItem.Plate, 2, BarKg: 40)));
        Assert.Equal("metres of free wall", NeedWords.Many(new Need(KitItem.Wall)));
    }

    private static string B(string name, string phase, string fields, params string[] stations) =>
        $$"""{"id":"{{name}}","name":"{{name}}","phase":"{{phase}}"{{fields}},"stations":[{{string.Join(',', stations)}}]}""";

    private static string S(string id, string move, int seconds, string fields = "") =>
        $$"""{"id":"{{id}}"{{fields}},"dose":[{"kind":"time","amount":{{seconds}}}],"options":[{"tier":"main","move":"{{move}}"}]}""";

    [Theory]
    [InlineData("time.warmUp", "Warm", "warm-up")]
    [InlineData("time.coolDown", "Down", "cool-down")]
    public void A_warm_up_or_cool_down_that_is_too_short_is_lengthened_and_not_doubled(string code, string name, string word)
    {
        var file = With(string.Join(',',
            B("Warm", "warmup", "", S("w1", "squat", code == "time.warmUp" ? 60 : 160),
                S("w2", "hip-hinge", code == "time.warmUp" ? 60 : 160)),
            B("Main", "main", ",\"rounds\":3,\"betweenRounds\":60", S("m1", "squat", 40), S("m2", "glute-bridge", 40)),
            B("Down", "cooldown", "", S("d1", "forward-fold", code == "time.coolDown" ? 60 : 260))));
        var finding = Desk.Evaluate(Utf8(file)).Evaluation!.Findings.Single(f => f.Code == code);
        Assert.Matches($"^Add .* of {word}$", finding.Repairs[0].Title);
        var mended = JsonNode.Parse(Mended(file, finding.Key, 0)!)!;
        Assert.Equal(3, mended["blocks"]!.AsArray().Count);
        var after = Desk.Evaluate(Utf8(mended.ToJsonString())).Evaluation!;
        Assert.DoesNotContain(after.Findings, f => f.Code == code);
        var (was, now) = (Length(file), Length(mended.ToJsonString()));
        Assert.True(now > was, $"{was} → {now}");

        int Length(string text) => Desk.Evaluate(Utf8(text)).Timeline!.Spans
            .Where(s => (string)JsonNode.Parse(text)!["blocks"]![s.Block]!["name"]! == name).Sum(s => s.Length().Value);
    }

    [Fact]
    public void Another_order_takes_the_walk_through_along()
    {
        var file = With(
            """{"id":"talk","name":"Talk","phase":"talk","format":"talk","seconds":120,"show":[{"station":"a","seconds":20},{"station":"b","seconds":20},{"station":"c","seconds":20}]},"""
            + B("Main", "main", ",\"rounds\":3,\"betweenRounds\":60", S("a", "split-squat", 40, ",\"sides\":\"split\""),
                S("b", "reverse-lunge", 40, ",\"sides\":\"split\""), S("c", "glute-bridge", 40)));
        var finding = Desk.Evaluate(Utf8(file)).Evaluation!.Findings.First(f => f.Repairs.Any(r => r.Title == "Change the order"));
        var at = finding.Repairs.Select((r, i) => (r, i)).First(r => r.r.Title == "Change the order").i;
        var mended = JsonNode.Parse(Mended(file, finding.Key, at)!)!;
        var order = mended["blocks"]![1]!["stations"]!.AsArray().Select(s => (string)s!["id"]!).ToArray();
        Assert.NotEqual(["a", "b", "c"], order);
        Assert.Equal(order, mended["blocks"]![0]!["show"]!.AsArray().Select(s => (string)s!["station"]!));
    }

    [Theory]
    [InlineData("", "The file")]
    [InlineData("/slotMinutes", "Booked time")]
    [InlineData("/blocks/2/stations/0/dose/1/amount", "Block 3, station 1, part of the target 2, amount")]
    [InlineData("/class/blocks/0/betweenRounds/1", "Block 1, rest between rounds 2")]
    [InlineData("/plan/blocks/0/goalReps", "Block 1, goal")]
    [InlineData("/moves/0/sideMeans", "Move 1, side means")]
    public void A_place_is_told_to_people(string pointer, string place) => Assert.Equal(place, PlaceInWords.Of(pointer));

    /// <summary>Words of the trade: up to 90 s as planned, from a minute on where it is late or over.</summary>
    [Theory]
    [InlineData(45, "45 s", "45 s")]
    [InlineData(60, "60 s", "1 min")]
    [InlineData(78, "78 s", "1 min 18 s")]
    [InlineData(90, "90 s", "1 min 30 s")]
    [InlineData(137, "2 min 17 s", "2 min 17 s")]
    public void Planned_and_late_are_told_apart(int seconds, string planned, string late) =>
        Assert.Equal((planned, late), (new Seconds(seconds).ToString(), new Seconds(seconds).Apart()));

    private static byte[] Utf8(string text) => System.Text.Encoding.UTF8.GetBytes(text);
}
