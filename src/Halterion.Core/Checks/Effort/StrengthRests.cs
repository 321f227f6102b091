using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Loaded work for strength has its rest.</summary>
public sealed class StrengthRests() : Rule(
    "effort.rest",
    "Strength sets get enough rest",
    "With short rests the weight has to come down, and the work becomes endurance.",
    "Rest of 2–5 min for strength: Haff & Triplett (eds), Essentials of Strength Training and Conditioning, 4th ed., NSCA 2016 (from "
    + "memory); our own limit, looser than the table on purpose",
    "Some keep the rest short to keep the room busy: then the aim is endurance or conditioning.")
{
    /// <inheritdoc/>
    public override string? Several => "loaded stations rest too little for strength";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.Plan.Aim != Aim.Strength)
        {
            yield break;
        }

        var loaded = review.MainStations.Where(s => review.Works(s).Any(p => p.IsLoaded)).ToArray();
        foreach (var at in loaded.Where(s => s.Block is { Shape: BlockShape.Sets, Rounds: > 1 }))
        {
            // The rests of a string are those of its first station.
            var first = review.Stations.First(s => s.Id == at.Block.FirstOfString(at.Station).Id);
            var shortest = Enumerable.Range(0, at.Block.Rounds - 1).Min(gap => at.Block.RestOf(first.Station, gap));
            if (shortest.Value < Thresholds.StrengthRest)
            {
                yield return Found(
                    Severity.Consider, at.Id, $"{at.Name}: only {shortest} of rest between loaded sets; strength needs "
                        + $"about {Thresholds.StrengthRest} s.",
                    new Repair(
                        $"Rest {Thresholds.StrengthOffer} s between sets", RepairKit.Set(first, "betweenSets", Thresholds.StrengthOffer)));
            }
        }

        foreach (var block in loaded.Where(s => s.Block.Shape.RestsBetweenRounds).DistinctBy(s => s.B))
        {
            var gaps = review.Courses.SelectMany(c => c.Pieces.Zip(c.Pieces.Skip(1)))
                .Where(p => p.First.Block == block.B && p.Second.Block == block.B && p.First.Station != p.Second.Station)
                .Select(p => p.Second.Gap).ToArray();
            if (gaps.Length > 0 && gaps.Max() < Thresholds.StrengthGap)
            {
                yield return Found(
                    Severity.Consider, block.Block.Id,
                    $"{block.Block.Name}: the longest gap between loaded stations is {new Seconds(gaps.Max())}; strength needs at least "
                        + $"{Thresholds.StrengthGap} s.",
                    new Repair($"{Thresholds.StrengthOffer} s changeovers",
                        Edit.Set($"/blocks/{block.B}/betweenStations", Thresholds.StrengthOffer)),
                    new Repair($"{Thresholds.StrengthOffer} s between rounds",
                        Edit.Set($"/blocks/{block.B}/betweenRounds", Thresholds.StrengthOffer)));
            }
        }
    }
}
