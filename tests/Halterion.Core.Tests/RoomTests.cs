using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Views;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Kit, floor and what the instructor is told of the room.</summary>
public class RoomTests
{
    private static readonly DateOnly Day = new(2026, 11, 26);

    /// <summary>The page for people says what the table in the code says.</summary>
    [Fact]
    public void The_documented_limits_are_those_of_the_code()
    {
        var said = File.ReadAllText(Path.Combine(Path.GetDirectoryName(Here())!, "../../docs/room.md"));
        Assert.All(LimitTable.Rules.GroupBy(r => r.Limit), rules => Assert.Contains(
            $"| {LimitTable.Named(rules.Key)} | {string.Join("; ", rules.Where(r => !r.Strict).Select(r => r.What))} | "
            + $"{string.Join("; ", rules.Where(r => r.Strict).Select(r => r.What))} |",
            said, StringComparison.Ordinal));
    }

    private static string Here([System.Runtime.CompilerServices.CallerFilePath] string path = "") => path;

    private static RoomOf RoomWith(ClassPlan plan, int heads, ImmutableArray<StockLine>? kit, params Person[] people) =>
        new(plan, Day, [.. people], heads, [], kit, ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);

    private static string Move(string options, string fields = "") =>
        $$"""{{{fields}}"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main",{{options}}}]}""";

    /// <summary>What each way of doing a move needs, by hand from the plan language's words and room.md, "Items".</summary>
    [Theory]
    [InlineData(""" "move":"march-bridge" """, "mat")]
    [InlineData(""" "move":"march-bridge","surface":"floor" """, "")]
    [InlineData(""" "move":"goblet-squat","load":{"implement":"kettlebell","kg":12} """, "12 kg kettlebell")]
    [InlineData(""" "move":"goblet-squat" """, "dumbbell or kettlebell")]
    [InlineData(""" "move":"split-squat","load":{"implement":"dumbbell","count":2,"kg":6} """, "2 × 6 kg dumbbell")]
    [InlineData(""" "move":"squat","support":"chair","band":"medium" """, "medium band, chair")]
    [InlineData(""" "move":"squat","band":"none" """, "")]
    [InlineData(""" "move":"step-up","surface":"box","heightCm":40 """, "40 cm box")]
    [InlineData(""" "move":"squat","support":"wall" """, "0.8 m of free wall")]
    [InlineData(""" "move":"squat","load":{"implement":"barbell","kg":40,"position":"back"} """, "barbell, plates to 40 kg")]
    public void An_option_needs_its_load_band_surface_support_and_the_kit_of_its_move(string option, string needs)
    {
        var plan = Plan(With(Block("", Move(option))));
        Assert.Equal(
            needs, string.Join(", ", Needs.Of(plan.Blocks[0].Stations[0].Main, plan.Blocks[0].Stations[0], Library).Select(NeedWords.Of)));
    }

    /// <summary>
    /// room.md: a box or step serves any option that wants its height within 5 cm; a load without a weight any line of its implement.
    /// </summary>
    [Fact]
    public void A_line_of_the_stock_serves_what_it_can()
    {
        var box = new Need(KitItem.Box, HeightCm: 40);
        Assert.True(box.IsServedBy(new StockLine(KitItem.Box, 1, HeightCm: 35)));
        Assert.True(box.IsServedBy(new StockLine(KitItem.Step, 1, HeightCm: 45)));
        Assert.False(box.IsServedBy(new StockLine(KitItem.Box, 1, HeightCm: 34)));
        Assert.False(box.IsServedBy(new StockLine(KitItem.Box, 1, HeightCm: 46)));
        Assert.False(box.IsServedBy(new StockLine(KitItem.Box, 1, HeightCm: 40, Condition: Condition.Out)));
        Assert.True(new Need(KitItem.Dumbbell).IsServedBy(new StockLine(KitItem.Dumbbell, 1, 4)));
        Assert.False(new Need(KitItem.Dumbbell, Kg: 6).IsServedBy(new StockLine(KitItem.Dumbbell, 1, 4)));
        // 0.8 m of wall a person, 5 people, 3.1 m there: 0.9 m short, a begun metre.
        Assert.Equal([1], new Supply([new Need(KitItem.Wall, Metres: 0.8m)], [new StockLine(KitItem.Wall, 1, Metres: 3.1m)]).Short([5]));
        Assert.Equal([2], new Supply([new Need(KitItem.Wall, Metres: 0.8m)], [new StockLine(KitItem.Wall, 1, Metres: 2.9m)]).Short([5]));
    }

    /// <summary>room.md, "Said plainly": one shortage is a person not served, chairs go first; told in people.</summary>
    [Fact]
    public void An_either_or_need_is_told_in_people()
    {
        var plan = Plan(With(Block("", Move(""" "move":"squat","support":"hand" """))));
        // 4 chairs, and of 4.9 m of wall six places of 0.8 m: 10 of 18 are served.
        var found = Assigning.Of(RoomWith(plan, 18, [new StockLine(KitItem.Wall, 1, Metres: 4.9m), new StockLine(KitItem.Chair, 4)]));
        var shortage = Assert.Single(found.Shortages);
        Assert.Equal((KitItem.Chair, KitItem.Wall, 18m, 10m), (shortage.Item, shortage.Or, shortage.Need, shortage.Have));
        Assert.Equal(8 * 200, found.Total);
    }

    /// <summary>
    /// room.md, "Items": a bar weighs its line's kg, else 20; the rest comes from plates in equal pairs, exactly, else one pair is short.
    /// </summary>
    [Theory]
    [InlineData(40, 1, "10x2", 20, 0)]
    [InlineData(40, 1, "5x4", 20, 0)]
    [InlineData(40, 1, "5x2", 20, 1)]
    [InlineData(40, 1, "10x1,5x2", 20, 1)]
    [InlineData(30, 1, "5x2", 20, 0)]
    [InlineData(30, 1, "7.5x2", 15, 0)]
    [InlineData(42, 1, "10x2", 20, 1)]
    [InlineData(20, 3, "10x2", 20, 0)]
    [InlineData(40, 2, "10x2,5x4", 20, 0)]
    [InlineData(40, 3, "10x2,5x4", 20, 1)]
    [InlineData(50, 2, "10x4,5x4", 20, 0)]
    [InlineData(40, 2, "", 20, 0)]
    public void A_loaded_bar_wants_pairs_that_make_it_up(int kg, int people, string plates, int bar, int units)
    {
        var plan = Plan(With(Block("", Move($$""" "move":"deadlift","load":{"implement":"barbell","count":1,"kg":{{kg}}} """))));
        var lines = plates.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(p => p.Split('x'))
            .Select(
                p => new StockLine(KitItem.Plate, int.Parse(p[1], System.Globalization.CultureInfo.InvariantCulture),
                    decimal.Parse(p[0], System.Globalization.CultureInfo.InvariantCulture)));
        var found = Assigning.Of(RoomWith(plan, people, [new StockLine(KitItem.Barbell, 9, bar), .. lines]));
        Assert.Equal(units * 200, found.Total);
        Assert.Equal(units, found.Shortages.Sum(s => s.Item == KitItem.Plate ? (int)(s.Need - s.Have) : 0));
    }

    /// <summary>Handbook, section 8 ([M]): 4 m² a person on the spot, a lane of 1.5 × 6 m to travel, 6 m² to jump.</summary>
    [Fact]
    public void Stations_lie_inside_the_room_apart_from_each_other_and_where_they_need_to_be()
    {
        var plan = Plan(With(Block(
            """ "format":"rotation","windowSeconds":40 """,
            Move(""" "move":"squat" """), Move(""" "move":"jump-squat" """), Move(""" "move":"walking-lunge" """), Move(
                """ "move":"squat","support":"wall" """), Move(""" "move":"march-bridge" """))));
        var hall = new HallFloor(
            10, 14, [new Fixture(FixtureKind.Pillar, 4.8m, 6.8m, 0.4m, 0.4m), new Fixture(FixtureKind.Furniture, 0, 12, 3, 1)]);
        var floor = FloorLayout.Of(plan.Blocks[0], Library, hall, [2, 2, 2, 2, 2], ImmutableDictionary<string, FloorSpot>.Empty);
        Assert.Empty(floor.Troubles);
        Assert.Equal([8, 12, 18, 8, 8], floor.Stations.Select(s => s.WidthM * s.LengthM));
        Assert.True(floor.Stations[2].Lane);
        var wall = floor.Stations[3];
        Assert.True(wall.X - wall.WidthM / 2 < 0.31 || wall.Y - wall.LengthM / 2 < 0.31 || wall.X + wall.WidthM / 2 > 9.69
            || wall.Y + wall.LengthM / 2 > 13.69);

        // Put by hand into a corner over the edge, and onto another: said, and by how much.
        var put = FloorLayout.Of(plan.Blocks[0], Library, hall, [2, 2, 2, 2, 2],
            floor.Stations.ToDictionary(s => s.Station.Value, s => s.Number == 1 ? new FloorSpot(0.5m, 1)
                : new FloorSpot((decimal)s.X, (decimal)s.Y, s.Turned)));
        Assert.Contains(put.Troubles, t =>
            t.Words == $"Station 1 is "
                + $"{Math.Max(put.Stations[0].WidthM / 2 - 0.5, put.Stations[0].LengthM / 2 - 1):0.##} m over the edge of the room.");
        var small = FloorLayout.Of(
            plan.Blocks[0], Library, new HallFloor(5, 6, []), [3, 3, 3, 3, 3], ImmutableDictionary<string, FloorSpot>.Empty);
        Assert.Contains(small.Troubles, t => t.Words.StartsWith("The stations need", StringComparison.Ordinal));
        var narrow = FloorLayout.Together(plan.Blocks[0], Library, new HallFloor(2.5m, 6, []), 4);
        Assert.Contains(narrow.Troubles, t => t.Words == "Walking lunge: the rows of 4 people are 18 m too long for the room "
            + "(24 m of 6 m).");
    }

    [Fact]
    public void A_shortage_is_told_with_ways_out_that_were_tried()
    {
        var file = With("""{"id":"main","name":"Main","phase":"main","stations":[{"id":"one","dose":[{"kind":"time","amount":30}],"options":[{"id":"o","tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":8}}]},{"id":"two","dose":[{"kind":"time","amount":30}],"options":[{"id":"p","tier":"main","move":"squat"}]}]}""");
        var room = RoomWith(Plan(file), 6, [new StockLine(KitItem.Kettlebell, 3, 8)], new Person(new PersonId("a"), "Ada", StatureCm: 160),
            new Person(new PersonId("b"), "Bo", StatureCm: 190), new Person(new PersonId("c"), "Cy", StatureCm: 162));
        var shortage = Assert.Single(Assigning.Of(room).Shortages);
        Assert.Equal((KitItem.Kettlebell, 6m, 3m), (shortage.Item, shortage.Need, shortage.Have));
        var ways = WaysOut.Of(shortage, room, Desk, (JsonObject)JsonNode.Parse(file)!);
        Assert.Contains(ways, w => w.Title.StartsWith("Work in pairs", StringComparison.Ordinal)
            && w.Preview.StartsWith("then there is enough; the class gets", StringComparison.Ordinal));
        Assert.Contains(ways, w => w.Title.StartsWith("Make Main a rotation", StringComparison.Ordinal));
        var instead = Assert.Single(ways, w => w.Title.StartsWith("Offer", StringComparison.Ordinal));
        foreach (var way in ways)
        {
            var plan = way.Class is { } changed ? Plan(changed.ToJsonString()) : room.Plan;
            var after = Assigning.Of(room with { Plan = plan, Kit = [.. room.Kit!.Value, .. way.Lines] });
            Assert.Equal(way.Preview.StartsWith("then there is enough", StringComparison.Ordinal), after.Shortages.IsEmpty);
        }

        // Who shares takes turns with somebody who fits.
        var turns = Plan(ways.First(w => w.Title.StartsWith("Work in pairs", StringComparison.Ordinal)).Class!.ToJsonString());
        var evaluated = Desk.Evaluate(turns);
        var seen = RoomView.Of(room with { Plan = turns }, evaluated.Timeline!, new Preferences());
        Assert.Equal(["Ada with Cy", "Bo with whoever is free"], seen.Stations[0].Pairs);
        Assert.Equal(["3 × 8 kg kettlebell"], seen.Stations[0].Lies);
        Assert.NotNull(instead.Class);
    }

    [Fact]
    public void A_room_is_told_in_words_and_a_pin_says_whom_it_touches()
    {
        var plan = Plan(With("""{"id":"m","name":"Main","phase":"main","stations":[{"id":"s","dose":[{"kind":"time","amount":30}],"options":[{"id":"main","tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","kg":8}},{"id":"easy","tier":"easier","move":"squat"}]}]}"""));
        var (ada, bo) = (new Person(new PersonId("a"), "Ada", Ready: [Tick.Load]),
            new Person(
                new PersonId("b"), "Bo", Ready: [Tick.Load], Limits: [new PersonLimit(Limit.Knee, Until: new DateOnly(2026, 1, 1))]));
        var room = RoomWith(plan, 2, [new StockLine(KitItem.Kettlebell, 1, 8)], ada, bo);
        var timeline = Desk.Evaluate(plan).Timeline!;
        var before = RoomView.Of(room, timeline, new Preferences());
        Assert.Equal("2 people, 1 station: everyone has an option, and there is enough kit", before.Summary);
        Assert.Equal(["knee (expired 1 Jan 2026)"], before.People[1].ToRenew);
        Assert.Empty(before.People[1].Care);
        Assert.Equal((CellKind.Main, CellKind.Easier), (before.People[0].Cells[0].Kind, before.People[1].Cells[0].Kind));
        Assert.Equal("Not enough 8 kg kettlebells, so this one; easier than usual for them.", before.People[1].Cells[0].Why);
        var after = RoomView.Of(room with { Pins = [new Pin(bo.Id, new PlaceId("s"), new PlaceId("main"))] }, timeline, new Preferences());
        Assert.Equal("Ada: Bodyweight squat, without weight instead of Goblet squat, 8 kg "
            + "kettlebell.", RoomView.Told(before, after, bo.Id, new PlaceId("s")));
        Assert.Equal("Nobody else changes.", RoomView.Told(before, before, bo.Id, new PlaceId("s")));
    }

    [Fact]
    public void A_person_goes_out_and_comes_in_cell_by_cell()
    {
        var person = new Person(
            default, "Wyn Ash", "Wyn", 168, 61.5m, 1984,
            ImmutableSortedDictionary<string, Tier>.Empty.Add("squat", Tier.Easier).Add("hinge", Tier.Harder),
            [new PersonLimit(Limit.Knee, BodySide.Left, true, "likes a pad", new DateOnly(2027, 1, 31)),
                new PersonLimit(Limit.PelvicFloor)],
            [Tick.Hinge, Tick.Land], null, new PersonSetUp(40, 42, 30, BandStrength.Light), "n");
        var back = RosterTable.Written.Aggregate(
            new Person(default, ""), (p, column) => RosterCells.Set(p, column, RosterCells.Write(person, column)).Person);
        Assert.All(RosterTable.Written, column => Assert.Equal(RosterCells.Write(person, column), RosterCells.Write(back, column)));
        Assert.Equal(person.Limits!.Value, back.Limits!.Value);
        Assert.Equal(WordsOf<Tick>.Names.Length, Enum.GetValues<Tick>().Length);
    }

    /// <summary>
    /// Lengths and weights as people write them: 5 ft 7 in is 170.18 cm, 150 lb are 68.04 kg (international yard and pound agreement,
    /// 1959).
    /// </summary>
    [Theory]
    [InlineData(RosterColumn.Stature, "5'7\"", "170")]
    [InlineData(RosterColumn.Stature, "5 ft 7 in", "170")]
    [InlineData(RosterColumn.Stature, "1,68 m", "168")]
    [InlineData(RosterColumn.Stature, "1.68", "168")]
    [InlineData(RosterColumn.StatureInches, "67", "170")]
    [InlineData(RosterColumn.Stature, "168 cm", "168")]
    [InlineData(RosterColumn.Mass, "150 lb", "68")]
    [InlineData(RosterColumn.MassPounds, "150", "68")]
    [InlineData(RosterColumn.Mass, "64,5", "64.5")]
    [InlineData(RosterColumn.BirthYear, "12.3.1984", "1984")]
    [InlineData(RosterColumn.Stature, "6 ft 13", null)]
    [InlineData(RosterColumn.Stature, "tall", null)]
    [InlineData(RosterColumn.Mass, "20", null)]
    [InlineData(RosterColumn.BirthYear, "84", null)]
    [InlineData(RosterColumn.Limits, "knee sideways", null)]
    [InlineData(RosterColumn.Level, "expert", null)]
    public void A_cell_is_read_as_people_write_it(RosterColumn column, string cell, string? read)
    {
        var (person, fault) = RosterCells.Set(new Person(default, "P"), column, cell);
        Assert.Equal(read is null, fault is not null);
        if (read is not null)
        {
            var back = column switch
            {
                RosterColumn.StatureInches => RosterColumn.Stature,
                RosterColumn.MassPounds => RosterColumn.Mass,
                _ => column
            };
            Assert.Equal(read, RosterCells.Write(person, back));
        }
    }
}
