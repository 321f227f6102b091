using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>There is a warm-up before the first main work.</summary>
public sealed class WarmsUp() : Rule(
    "time.warmUp",
    "There is a warm-up of 5 min (never under 3)",
    "Cold joints, and bodies that have not yet moved the way the main block asks.",
    "5–10 min: ACSM's Guidelines for Exercise Testing and Prescription, 10th ed., ch. 6 (from memory); the rest is our own",
    "Some let people warm up on their own time: the class can say so.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var first = review.Plan.Blocks.ToList().FindIndex(b => ClassReview.IsMain(b) && b.Shape.HasStations);
        if (first < 0)
        {
            yield break;
        }

        var seconds = review.Timeline.Spans
            .Where(s => s.Block < first
                && review.Plan.Blocks[s.Block] is { Shape.HasStations: true, Phase: Phase.Warmup or Phase.Activation or Phase.Skill })
            .Sum(s => s.Length().Value);
        if (Judged(review, seconds, Code, Thresholds.LeastWarmUp) is var (severity, least))
        {
            yield return Found(
                severity, PlaceId.Class,
                seconds == 0 ? "There is no warm-up before the main blocks."
                    : $"The warm-up is {new Seconds(least - seconds)} too short: {new Seconds(seconds)} of {new Seconds(least)}.",
                seconds == 0
                    ? new Repair("Add a warm-up for today’s moves", root => root.Blocks()
                        .Insert(First(review, first), Block(review, WellAbove(review, Code, least))))
                    : Longer(review, Standing(review, first), WellAbove(review, Code, least) - seconds, "warm-up",
                        missing => Block(review, missing)));
        }
    }

    /// <summary>The last block that warms up before the main work.</summary>
    private static int Standing(ClassReview review, int main) => review.Plan.Blocks.Take(main).ToList()
        .FindLastIndex(b => b is { Shape.HasStations: true, Phase: Phase.Warmup or Phase.Activation or Phase.Skill });

    /// <summary>What is there is made longer: its timed parts, else by stations at its end; a second one is not put beside it.</summary>
    /// <param name="block">What is there.</param>
    /// <param name="filled">A block that fills so many seconds; its stations are those that are added.</param>
    public static Repair Longer(
        ClassReview review, int block, int missing, string what, Func<int, JsonObject> filled) =>
        new($"Add {new Seconds(missing)} of {what}", () => (Action<JsonObject>[])
        [
            root => _ = root.Lengthen(block, review.Timeline.Spans.Where(s =>
                s.Block == block && s is { Kind: SpanKind.Work, Station: { } at }
                && review.Plan.Blocks[block].Stations[at].Dose.Any(p => p.Kind.IsTimed)).Sum(s => s.Length().Value), missing),
            root =>
            {
                var stations = root.BlockAt(block)["stations"]!.AsArray();
                foreach (var station in filled(missing)["stations"]!.AsArray().Take(BlockTable.MostStations - stations.Count))
                {
                    stations.Add(station!.DeepClone());
                }
            },
        ]);

    /// <summary>How much is missing, and how much there should be; null where it is enough.</summary>
    public static (Severity Severity, int Least)? Judged(ClassReview review, int seconds, string code, int never)
    {
        if (review.Plan.SlotMinutes < Thresholds.LongClass || review.Plan.WarmUp == WarmUp.OwnTime)
        {
            return seconds < Thresholds.LeastOfShort ? (Severity.Note, Thresholds.LeastOfShort) : null;
        }

        var should = (int)review.Settings.Limit(code);
        return seconds < Math.Min(never, should) ? (Severity.Fix, should) : seconds < should ? (Severity.Consider, should) : null;
    }

    /// <summary>A length that is well above the least one.</summary>
    public static int WellAbove(ClassReview review, string code, int least) =>
        least == Thresholds.LeastOfShort ? least : (int)review.Settings.Limit(code);

    /// <summary>After what is there already, so that people go on from it.</summary>
    private static int First(ClassReview review, int main)
    {
        var at = main;
        while (at > 0 && review.Plan.Blocks[at - 1].Phase is Phase.Talk)
        {
            at--;
        }

        return at;
    }

    private static JsonObject Block(ClassReview review, int missing)
    {
        MoveId[] moves = [MoveLibrary.Usual.KeepMoving, .. review.WorkedFamilies.Select(f => f.WarmUp).Distinct()];
        return RepairKit.Filled("Warm-up", "warmup", moves, missing, (move, seconds) => Station(move, seconds, review.Moves));
    }

    /// <summary>A move in a small range, with a way to do it for whoever may not: marching, or stepping from side to side.</summary>
    public static JsonObject Station(MoveId move, int seconds, MoveLibrary moves)
    {
        var station = RepairKit.Timed(move, seconds, moves.Find(move)!.Sided == Sided.TwoSided ? "both" : "alternate");
        var options = station["options"]!.AsArray();
        var usual = MoveLibrary.Usual;
        if (usual.WarmUpDepthOf(move) is { } range)
        {
            options[0]!["depth"] = range;
        }

        options.Add(new JsonObject
        {
            ["tier"] = "instead",
            ["move"] = (move == usual.KeepMoving ? usual.KeepMovingElse : usual.KeepMoving).Value,
        });
        return station;
    }
}
