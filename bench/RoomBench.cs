using System.Collections.Immutable;
using System.Diagnostics;
using System.Globalization;
using System.Text;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Formats;

/// <summary>
/// Who does what, in rooms with little kit: a usual class and a very large one, by median and worst of many made-up rooms; a
/// table of 500 people.
/// </summary>
internal static class RoomBench
{
    /// <summary>So many rooms are made first, so that the program is as warm as in an evening's use.</summary>
    private const int WarmUp = 60;

    private const int Rooms = 60;

    private static readonly string[] Options =
    [
        """ "move":"goblet-squat","load":{"implement":"kettlebell","kg":12} """,
            """ "move":"goblet-squat","load":{"implement":"kettlebell","kg":8} """, """ "move":"squat" """,
        """ "move":"split-squat","load":{"implement":"dumbbell","count":2,"kg":6} """, """ "move":"split-squat","support":"chair" """,
            """ "move":"squat","support":"hand" """,
        """ "move":"step-up","surface":"box","heightCm":40 """, """ "move":"hip-thrust" """, """ "move":"march-bridge" """,
            """ "move":"wall-sit" """, """ "move":"squat","band":"medium" """,
        """ "move":"sumo-deadlift","load":{"implement":"dumbbell","kg":8} """, """ "move":"jump-squat" """,
    ];

    public static void Run(MoveLibrary moves)
    {
        One("review, 16 people × 12 stations", 16, 12, 20, moves);
        One("review, 40 people × 16 stations", 40, 16, 150, moves);
        var table = new StringBuilder("Name;Height;Weight;Born;Care;Level\n");
        for (var i = 0; i < 500; i++)
        {
            table.Append(CultureInfo.InvariantCulture,
                $"Person {i};5 ft "
                + $"{i % 12};{60 + i % 40},5;{1950 + i % 50};"
                + $"{(i % 7 == 0 ? "knee left strict until 2027-01-01: likes a pad" : "")};harder\n");
        }

        var text = table.ToString();
        Say("a table of 500 people", Times(20, () =>
        {
            var rows = CsvText.Read(text, RosterTable.MostRows);
            RosterTable.Read(rows, true, RosterTable.Guess(rows, true), []);
        }), 1000);
    }

    private static void One(string name, int people, int stations, double aim, MoveLibrary moves)
    {
        var dice = new Random(20261127);
        var times = new List<double>();
        var inexact = 0;
        for (var i = -WarmUp; i < Rooms; i++)
        {
            var room = Room(dice, people, stations, moves);
            var evaluation = new Evaluator(moves, new Preferences()).Evaluate(room.Plan);
            // The library's bodies are looked at once, whoever asks first.
            Assigning.Of(room with { Kit = null });
            var watch = Stopwatch.StartNew();
            var reviewed = ClassReviewed.Of(evaluation, room, CheckSettings.Usual, null, null, []);
            if (i >= 0)
            {
                times.Add(watch.Elapsed.TotalMilliseconds);
                inexact += reviewed.Assignment.Exact ? 0 : 1;
            }
        }

        Say(name, times, aim);
        Console.WriteLine($"{"  not known to be the cheapest",-40} {inexact,8} of {times.Count}");
    }

    private static RoomOf Room(Random dice, int people, int stations, MoveLibrary moves)
    {
        string Any() => Options[dice.Next(Options.Length)];
        var all = string.Join(",", Enumerable.Range(0, stations).Select(_ => $$"""{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main",{{Any()}}},{"tier":"easier",{{Any()}}},{"tier":"harder",{{Any()}}},{"tier":"instead",{{Any()}}}]}"""));
        var shape = dice.Next(2) == 0 ? """ "format":"rotation","windowSeconds":30 """ : """ "rounds":2 """;
        var text = $$"""{"format":"halterion-class","version":1,"title":"Bench","slotMinutes":60,"blocks":[{"name":"B","phase":"main",{{shape}},"stations":[{{all}}]}]}""";
        var who = Enumerable.Range(0, people).Select(i => new Person(
            new PersonId($"p{i}"), $"P{i}",
            Level: Person.Levelled.ToImmutableSortedDictionary(f => WordsOf<Family>.Of(f), _ => (Tier)dice.Next(3), StringComparer.Ordinal),
            Limits: dice.Next(4) == 0 ? [new PersonLimit((Limit)dice.Next(10), Strict: dice.Next(2) == 0)] : null,
            Ready: [.. Enum.GetValues<Tick>().Where(_ => dice.Next(2) == 0)]));
        int Few() => dice.Next(1, Math.Max(2, people / 3));
        return new RoomOf(
            ClassReader.Read(Encoding.UTF8.GetBytes(text), moves).Plan!, new DateOnly(2026, 11, 27), [.. who], people, [],
            [
                new(KitItem.Kettlebell, Few(), 12), new(KitItem.Kettlebell, Few(), 8), new(KitItem.Dumbbell, 2 * Few(), 6),
                    new(KitItem.Dumbbell, Few(), 8), new(KitItem.Chair, Few()),
                new(KitItem.Box, Few(), HeightCm: 42), new(KitItem.Step, Few(), HeightCm: 38), new(KitItem.Bench, Few()),
                    new(KitItem.Mat, Few()), new(KitItem.Wall, 1, Metres: Few()), new(KitItem.Band, Few(), Strength: BandStrength.Medium),
            ],
            ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);
    }

    private static List<double> Times(int many, Action action)
    {
        action();
        return [.. Enumerable.Range(0, many).Select(_ =>
        {
            var watch = Stopwatch.StartNew();
            action();
            return watch.Elapsed.TotalMilliseconds;
        })];
    }

    private static void Say(string name, List<double> times, double aim)
    {
        times.Sort();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{name,-40} {times[times.Count / 2],8:0.0} ms median, {times[^1]:0.0} ms worst, aim {aim:0} ms, "
            + $"{times[times.Count / 2] / aim:0.00} of it"));
    }
}
