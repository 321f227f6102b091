using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>How much of the main blocks is work suits the aim.</summary>
public sealed class DensitySuitsTheAim() : Rule(
    "effort.density",
    "Work and rest suit the aim",
    "With more work than rest, a circuit trains stamina whatever its moves; with very little work it trains "
    + "neither.",
    "Work to rest 1:3 to 1:5 for 15–30 s: Haff & Triplett, NSCA 2016, bioenergetics chapter (from memory); the limits are our own",
    "Some call any circuit with weights strength: say what it is for, and it is judged by that.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var spans = review.Timeline.Spans.Where(s => ClassReview.IsMain(review.Plan.Blocks[s.Block])).ToArray();
        var (all, work) = (spans.Sum(s => s.Length().Value), spans.Where(s => s.Kind == SpanKind.Work).Sum(s => s.Length().Value));
        if (all == 0)
        {
            yield break;
        }

        var share = (double)work / all;
        if (review.Plan.Aim == Aim.Strength && share > Thresholds.DenseForStrength)
        {
            yield return Found(Severity.Consider, PlaceId.Class,
                $"Working time is {Told.Percent(share)} of the main blocks; for strength keep it under 60%.") with
            { Behind = Numbers() };
        }
        else if (review.Plan.Aim is Aim.Endurance or Aim.Conditioning && share < Thresholds.LooseForConditioning)
        {
            yield return Found(Severity.Consider, PlaceId.Class,
                $"Working time is {Told.Percent(share)} of the main blocks; for {review.Plan.Aim.ToString().ToLowerInvariant()} "
                + "aim for at least 35%.") with
            { Behind = Numbers() };
        }

        string Numbers() => $"{new Seconds(work)} of {new Seconds(all)}.";
    }
}
