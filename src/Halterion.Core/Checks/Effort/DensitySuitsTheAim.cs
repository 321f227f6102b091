using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>How much of the main blocks is work suits the aim.</summary>
public sealed class DensitySuitsTheAim() : Rule(
    "effort.density",
    "For strength at most 60 % of the main blocks is work; for endurance and conditioning at least 35 %.",
    "A circuit with more work than rest is aerobic in effect whatever its moves; one with little work is neither.",
    "Work to rest 1:3 to 1:5 for 15–30 s: Haff & Triplett, NSCA 2016, bioenergetics chapter (from memory); the limits are [M]",
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
                $"{Told.Percent(share)} of the main blocks is work: for strength that is dense, and aerobic in effect.") with
            { Behind = Numbers() };
        }
        else if (review.Plan.Aim is Aim.Endurance or Aim.Conditioning && share < Thresholds.LooseForConditioning)
        {
            yield return Found(Severity.Consider, PlaceId.Class,
                $"{Told.Percent(share)} of the main blocks is work: for {review.Plan.Aim.ToString().ToLowerInvariant()} "
                + $"that is little.") with
            { Behind = Numbers() };
        }

        string Numbers() => $"{new Seconds(work)} of {new Seconds(all)}.";
    }
}
