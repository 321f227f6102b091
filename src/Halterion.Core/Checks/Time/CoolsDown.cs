using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>There is a cool-down after the last main work.</summary>
public sealed class CoolsDown() : Rule(
    "time.coolDown",
    "There is a cool-down of 4 min (never under 2)",
    "People leave out of breath, without the stretch they came for.",
    "5–10 min: ACSM's Guidelines for Exercise Testing and Prescription, 10th ed., ch. 6 (from memory); the rest is our own",
    "Some let people cool down on their own time: the class can say so.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var last = review.Plan.Blocks.ToList().FindLastIndex(b => ClassReview.IsMain(b) && b.Shape.HasStations);
        if (last < 0)
        {
            yield break;
        }

        var seconds = review.Timeline.Spans.Where(
            s => s.Block > last && review.Plan.Blocks[s.Block].Phase == Phase.Cooldown).Sum(s => s.Length().Value);
        var standing = review.Plan.Blocks.ToList().FindLastIndex(b => b is { Phase: Phase.Cooldown, Shape.HasStations: true });
        if (WarmsUp.Judged(review, seconds, Code, Thresholds.LeastCoolDown) is var (severity, least))
        {
            yield return Found(
                severity, PlaceId.Class,
                seconds == 0 ? "There is no cool-down after the main blocks."
                    : $"The cool-down is {new Seconds(least - seconds)} too short: {new Seconds(seconds)} of {new Seconds(least)}.",
                standing < 0
                    ? new Repair("Add stretches for what was "
                        + "worked", root => root.Blocks().Add(Block(review, WarmsUp.WellAbove(review, Code, least) - seconds)))
                    : WarmsUp.Longer(
                        review, standing, WarmsUp.WellAbove(review, Code, least) - seconds, "cool-down",
                        missing => Block(review, missing)));
        }
    }

    private static JsonObject Block(ClassReview review, int missing)
    {
        MoveId[] moves = [.. review.WorkedFamilies.Select(f => f.Stretch).Distinct().DefaultIfEmpty(MoveLibrary.Usual.Quiet)];
        return RepairKit.Filled("Cool-down", "cooldown", moves, missing, (move, seconds) => Station(move, seconds, review.Moves));
    }

    /// <summary>A one-sided stretch is shared between the sides.</summary>
    internal static JsonObject Station(MoveId move, int seconds, MoveLibrary moves)
    {
        var station = RepairKit.Timed(move, seconds, kind: "hold");
        if (moves.Find(move)!.Sided != Sided.TwoSided)
        {
            station["sides"] = "split";
        }

        return station;
    }
}
