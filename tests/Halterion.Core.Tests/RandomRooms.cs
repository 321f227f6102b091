using System.Collections.Immutable;
using CsCheck;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Tests;

/// <summary>Rooms made up at random: few people, few things, many ways in which they clash.</summary>
internal static class RandomRooms
{
    private static readonly string[] Options =
    [
        """ "move":"squat" """, """ "move":"squat","support":"chair" """, """ "move":"squat","support":"hand" """,
            """ "move":"jump-squat" """,
        """ "move":"goblet-squat","load":{"implement":"kettlebell","kg":8} """,
            """ "move":"goblet-squat","load":{"implement":"kettlebell","kg":12} """,
        """ "move":"goblet-squat","load":{"implement":"dumbbell","kg":6} """,
            """ "move":"split-squat","load":{"implement":"dumbbell","count":2,"kg":6} """,
        """ "move":"goblet-squat","load":{"implement":"dumbbell"} """, """ "move":"goblet-squat" """,
            """ "move":"step-up","heightCm":20 """,
        """ "move":"step-up","surface":"box","heightCm":24 """, """ "move":"march-bridge" """, """ "move":"wall-sit" """,
            """ "move":"split-squat","surface":"pad" """,
        """ "move":"squat","band":"light" """, """ "move":"walking-lunge" """, """ "move":"rear-raised-split-squat" """,
            """ "move":"sumo-deadlift","load":{"implement":"barbell","kg":20} """,
    ];

    private static readonly StockLine[] Stock =
    [
        new(KitItem.Kettlebell, 1, 8), new(KitItem.Kettlebell, 1, 12), new(KitItem.Dumbbell, 1, 6), new(KitItem.Dumbbell, 2, 4),
            new(KitItem.Chair, 1), new(KitItem.Mat, 1), new(KitItem.Pad, 1),
        new(KitItem.Step, 1, HeightCm: 22), new(KitItem.Box, 1, HeightCm: 40), new(KitItem.Wall, 1, Metres: 1.7m),
            new(KitItem.Band, 1, Strength: BandStrength.Light), new(KitItem.Bench, 1),
        new(KitItem.Barbell, 1, Condition: Condition.Out),
    ];

    public static Gen<RoomOf> All(int mostPeople, int mostStations, int mostOptions) =>
        from plan in Plans(mostStations, mostOptions)
        from people in People().Array[0, mostPeople]
        from heads in Gen.Int[0, mostPeople]
        from stock in Gen.Shuffle(Stock, 0, Stock.Length)
        from counts in Gen.Int[0, 2].Array[stock.Length]
        from judged in Gen.Bool
        from pinned in Gen.Int[0, 3].Array[people.Length]
        select new RoomOf(
            plan, new DateOnly(2026, 11, 26),
            [.. people.Select((p, i) => p with { Id = new PersonId($"p{i}"), Name = $"P{i}" })], heads,
            [.. people.SelectMany((_, i) => pinned[i] == 0 ? [PinOf(plan, i)] : Array.Empty<Pin>())],
            judged ? [.. stock.Select((line, i) => line with { Count = line.Count + counts[i] })] : null,
            ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);

    private static Gen<T> OneOf<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);

    private static Pin PinOf(ClassPlan plan, int person)
    {
        var station = plan.Blocks[0].Stations[person % plan.Blocks[0].Stations.Length];
        return new Pin(new PersonId($"p{person}"), station.Id, station.Options[^1].Id);
    }

    private static Gen<ClassPlan> Plans(int stations, int options) =>
        from blocks in Block(stations, options).Array[1, 2]
        select Good(Classes.With(string.Join(",", blocks)));

    private static ClassPlan Good(string text)
    {
        var result = Classes.Evaluate(text);
        Assert.True(result.Faults.IsEmpty, string.Join("\n", result.Faults));
        return result.Plan!;
    }

    private static Gen<string> Block(int stations, int options) =>
        from shape in OneOf(""" "rounds":1 """, """ "format":"rotation","windowSeconds":60 """, """ "order":"ownPace","seconds":300 """)
        from phase in OneOf("main", "cooldown")
        from all in Station(options, shape.Contains("ownPace", StringComparison.Ordinal)).Array[1, stations]
        select $$"""{"name":"B","phase":"{{phase}}",{{shape}},"stations":[{{string.Join(",", all)}}]}""";

    private static Gen<string> Station(int options, bool ownPace) =>
        from main in OneOf(Options)
        from others in Gen.Select(OneOf("easier", "harder", "instead"), OneOf(Options)).Array[0, options - 1]
        from turns in Gen.Frequency((3, Gen.Const(false)), (1, Gen.Const(!ownPace)))
        select $$"""{{{(turns ? "\"sharing\":\"turns\"," : "")}}"dose":[{"kind":"time","amount":20}],"options":[{"tier":"main",{{main}}}{{string.Concat(others.Select(o => $$""",{"tier":"{{o.Item1}}",{{o.Item2}}}"""))}}]}""";

    private static Gen<Person> People() =>
        from level in OneOf(Tier.Easier, Tier.Main, Tier.Harder)
        from limits in Gen.Select(Gen.Enum<Limit>(), Gen.Bool).Array[0, 2]
        from ready in Gen.Enum<Tick>().Array[0, 5]
        from load in OneOf(0m, 6m, 14m)
        select new Person(
            default, "",
            Level: Person.Levelled.ToImmutableSortedDictionary(f => PlanFormat.WordsOf<Family>.Of(f), _ => level, StringComparer.Ordinal),
            Limits: [.. limits.Select(l => new PersonLimit(l.Item1, Strict: l.Item2))],
            Ready: [.. ready.Distinct()],
            Loads: load == 0 ? null
                : ImmutableSortedDictionary<string, RememberedLoad>.Empty.Add(
                    "goblet-squat", new RememberedLoad(Implement.Kettlebell, load)));
}
