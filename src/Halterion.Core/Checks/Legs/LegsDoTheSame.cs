using System.Text.Json.Nodes;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>Both legs do the same.</summary>
public sealed class LegsDoTheSame() : Rule(
    "leg.uneven",
    "Both legs get the same work",
    "One side does more every week, and people notice.",
    Common,
    "A weaker side may get more on purpose. If so, accept this as is.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var counts = Counts.Of(review.Plan);
        var times = Breakdown.Of(review.Plan, review.Timeline);
        var (reps, seconds) = (counts.Left - counts.Right, times.LeftSeconds.Value - times.RightSeconds.Value);
        var longer = Math.Max(times.LeftSeconds.Value, times.RightSeconds.Value);
        var uneven = Math.Abs(seconds) > Thresholds.UnevenSeconds && Math.Abs(seconds) > Thresholds.UnevenShare * longer;
        if (reps == 0 && !uneven)
        {
            yield break;
        }

        var written = Counts.Of(review.Plan, p => p.Side != Side.Alternate);
        var onlyOdd = !uneven && written.Left == written.Right;
        var more = (reps != 0 ? reps : seconds) > 0 ? "left" : "right";
        yield return Found(
            onlyOdd ? Severity.Note : Severity.Fix, PlaceId.Class,
            reps == 0 ? $"The {more} leg works {new Seconds(Math.Abs(seconds))} longer than the other."
                : $"The {more} leg gets {Counted.Of((int)Math.Abs(reps), "more rep", "more reps")}"
                    + (uneven ? $" and {new Seconds(Math.Abs(seconds))} more work than the other." : " than the other."),
            [.. Repairs(review, onlyOdd)]) with
        {
            Behind = $"{Behind(review)}.",
        };
    }

    /// <summary>Station by station, what the left does more than the right in the whole class.</summary>
    private static string Behind(ClassReview review)
    {
        var by = review.Stations.Where(s => s.Block.Shape.IsInRounds)
            .Select(s => (At: s, More: More(s)))
            .Where(s => s.More != 0)
            .ToArray();
        return by.Length == 0 ? "In time, not in reps" : Told.And(by.Select(b => $"{b.At.Name} {Math.Abs(b.More)} more "
            + $"{(b.More > 0 ? "left" : "right")}"));
    }

    private static long More(StationAt at)
    {
        var alone = Counts.Of(at.Block with { Stations = [at.Station with { WithNext = false }] });
        return alone.Left - alone.Right;
    }

    private static IEnumerable<Repair> Repairs(ClassReview review, bool onlyOdd)
    {
        if (onlyOdd)
        {
            yield return new Repair("One rep more, so that it is even", root =>
            {
                foreach (var at in review.Stations.Where(s => More(s) != 0))
                {
                    foreach (var part in at.Station.Dose.Select((part, i) => (part, i)).Where(
                            p => p.part is { Kind: PartKind.Reps, Side: Side.Alternate }))
                    {
                        RepairKit.Change(root.PartOf(at, part.i), reps => reps + reps % 2);
                    }
                }
            });
            yield break;
        }

        var passes = review.Plan.Blocks.Select((block, b) => (block, b))
            .Where(x => x.block.SidePass == SidePass.Alternate && x.block.Rounds % 2 == 1).ToArray();
        if (passes.Length > 0)
        {
            yield return new Repair("One round more, so that both sides have as many", root =>
            {
                foreach (var (block, b) in passes)
                {
                    root.BlockAt(b)["rounds"] = block.Rounds + 1;
                }
            });
        }

        var lopsided = review.Stations.Where(s => s.Station.Sides == SideRule.AsWritten && !s.Station.WithNext
            && s.Station.Dose.Any(p => p.Kind.IsWork && p.Side is Side.Left or Side.Right)).ToArray();
        if (lopsided.Length > 0)
        {
            yield return new Repair("The other side the same", root =>
            {
                foreach (var at in lopsided)
                {
                    Match(root.StationOf(at)["dose"]!.AsArray());
                }
            });
        }
    }

    /// <summary>What one side does more, the other does too: part by part in their order.</summary>
    private static void Match(JsonArray dose)
    {
        JsonObject[] Of(string side) =>
            [.. dose.OfType<JsonObject>().Where(p => p["side"]?.GetValue<string>() == side && p["kind"]!.GetValue<string>() != "rest")];
        var (left, right) = (Of("left"), Of("right"));
        for (var i = 0; i < Math.Max(left.Length, right.Length); i++)
        {
            if (i < left.Length && i < right.Length)
            {
                var more = RepairKit.Most(left[i]["amount"]!) >= RepairKit.Most(right[i]["amount"]!) ? left[i] : right[i];
                var less = more == left[i] ? right[i] : left[i];
                less["amount"] = more["amount"]!.DeepClone();
                continue;
            }

            var only = i < left.Length ? left[i] : right[i];
            var other = only.DeepClone().AsObject();
            other["side"] = i < left.Length ? "right" : "left";
            dose.Add(other);
        }
    }
}
