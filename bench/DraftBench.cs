using System.Collections.Immutable;
using System.Diagnostics;
using System.Globalization;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Drafting;

/// <summary>Three drafts for briefs of very different kind: how long, how many, what they cost, how far that is from the bound.</summary>
internal static class DraftBench
{
    public static void Run(MoveLibrary moves, bool told, string? only)
    {
        var drafter = new Drafter(moves, new Preferences());
        var briefs = Briefs().Where(b => only is null || b.Name.Contains(only, StringComparison.Ordinal)).ToArray();
        drafter.Of(briefs[0].Brief);
        var times = new List<double>();
        var (drafts, proven, gap) = (0, 0, 0m);
        foreach (var (name, brief) in briefs)
        {
            var start = Stopwatch.GetTimestamp();
            var answer = drafter.Of(brief);
            times.Add(Stopwatch.GetElapsedTime(start).TotalMilliseconds);
            drafts += answer.Drafts.Length;
            proven += answer.Drafts.Count(d => d.Proven);
            gap += answer.Drafts.Sum(d => d.Cost - d.Bound);
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"{name,-28} {times[^1],6:0} ms  {answer.Drafts.Length} drafts  ")
                + $"{string.Join("  ", answer.Drafts.Select(d => $"{d.Shape} {d.Cost}"))} {answer.Reason}");
            foreach (var draft in told ? answer.Drafts : [])
            {
                Console.WriteLine($"    {string.Join(" ", draft.Terms.Where(t => t.Value != 0).Select(t => $"{t.Key} {t.Value}"))}"
                    + $" | {string.Join(", ", draft.Why.Skip(1).Select(w => w.Split(':')[0]))}");
            }
        }

        times.Sort();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"median {times[times.Count / 2]:0} ms (aim 1000), p95 {times[(int)(0.95 * times.Count)]:0} ms (aim 2000), "
            + $"{drafts} of {3 * briefs.Length} drafts, {proven} proven, mean gap {gap / Math.Max(1, drafts):0.0}"));
        GC.Collect();
        var before = GC.GetTotalMemory(true);
        for (var i = 0; i < 50; i++)
        {
            drafter.Of(briefs[i % briefs.Length].Brief with { Seed = i, Seconds = 0.2m });
        }

        Console.WriteLine($"50 in a row: {(GC.GetTotalMemory(true) - before) / 1024} kB more are held");
    }

    private static IEnumerable<(string Name, DraftBrief Brief)> Briefs()
    {
        var evening = new DraftBrief
        {
            SlotMinutes = 45,
            From = 5,
            To = 8,
            People = People(14),
            HeadCount = 14,
            Kit = Kit,
            Room = new RoomSize(9, 14),
            Drink = true,
            WarmUpMinutes = 6,
            CoolDownMinutes = 5,
        };
        foreach (var shape in Enum.GetValues<DraftShape>())
        {
            foreach (var aim in new[] { Aim.Conditioning, Aim.Strength })
            {
                yield return ($"{shape} {aim}", evening with { Shape = shape, Aim = aim });
            }
        }

        foreach (var slot in new[] { 5, 15, 20, 30, 60, 75, 90, 120, 180 })
        {
            yield return ($"{slot} min", evening with
            {
                SlotMinutes = slot,
                Drink = slot > 30,
                WarmUpMinutes = null,
                CoolDownMinutes = null,
                From = slot < 30 ? 3 : 5,
            });
        }

        var shares = new Dictionary<Family, decimal> { [Family.Squat] = 30, [Family.Lunge] = 25, [Family.Hinge] = 25, [Family.Bridge] = 20 }
            .ToImmutableSortedDictionary();
        yield return ("the example", evening with
        {
            Aim = Aim.Strength,
            Shares = shares,
            Include = [new MoveId("goblet-squat")],
            Avoid = [new MoveId("jump-lunge")],
            Recent = [[new MoveId("squat"), new MoveId("split-squat")], []],
        });
        yield return ("only the minutes", new DraftBrief { SlotMinutes = 45 });
        yield return ("ten minutes", new DraftBrief { SlotMinutes = 10 });
        yield return ("low impact, no kit", evening with { LowImpact = true, Kit = [], Shares = shares });
        yield return ("mats only", evening with { Kit = [new StockLine(KitItem.Mat, 14)], Aim = Aim.Endurance });
        yield return ("bridges and hinges", evening with
        {
            Shares = new Dictionary<Family, decimal> { [Family.Hinge] = 60, [Family.Bridge] = 40 }.ToImmutableSortedDictionary(),
        });
        yield return ("all knees", evening with
        {
            People = [.. People(8).Select(p => p with { Limits = [new PersonLimit(Limit.Knee, Strict: true)] })],
            HeadCount = 8,
        });
        yield return ("a full loft", evening with { People = People(24), HeadCount = 24, Room = new RoomSize(10, 16) });
        yield return ("a small room", evening with { Room = new RoomSize(6, 8), People = People(10), HeadCount = 10 });
        yield return ("technique", evening with { Aim = Aim.Technique });
        yield return ("endurance on the minute", evening with { Aim = Aim.Endurance, Shape = DraftShape.OnTheMinute, Shares = shares });
    }

    private static ImmutableArray<Person> People(int many) =>
    [
        .. Enumerable.Range(0, many).Select(i => new Person(
            new PersonId($"p{i}"), $"Person {i}",
            Level: (i % 7) switch { 2 or 6 => Level(Tier.Easier), 1 or 5 => Level(Tier.Harder), _ => null },
            Limits: (i % 14) switch
            {
                2 => [new PersonLimit(Limit.Balance)],
                3 => [new PersonLimit(Limit.LowerBack, Strict: true)],
                4 => [new PersonLimit(Limit.Pregnancy)],
                6 => [new PersonLimit(Limit.Knee, Strict: true)],
                8 => [new PersonLimit(Limit.Knee)],
                _ => null,
            },
            Ready: [Tick.Hinge, Tick.Load, Tick.Split, Tick.Step])),
    ];

    private static ImmutableSortedDictionary<string, Tier> Level(Tier tier) =>
        Person.Levelled.ToImmutableSortedDictionary(f => WordsOf<Family>.Of(f), _ => tier);

    private static readonly ImmutableArray<StockLine> Kit =
    [
        new(KitItem.Mat, 14), new(KitItem.Pad, 4), new(KitItem.Chair, 6), new(KitItem.Step, 4, HeightCm: 20),
        new(KitItem.Box, 2, HeightCm: 40),
        new(KitItem.Bench, 2, HeightCm: 42), new(KitItem.Dumbbell, 8, 4), new(KitItem.Dumbbell, 6, 6), new(KitItem.Dumbbell, 4, 8),
        new(KitItem.Kettlebell, 3, 8), new(KitItem.Kettlebell, 3, 12), new(KitItem.Kettlebell, 2, 16),
        new(KitItem.Band, 10, Strength: BandStrength.Light), new(KitItem.Wall, 1, Metres: 12),
    ];
}
