using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>A family that was worked hard rests before it comes first again.</summary>
public sealed class FamiliesRest() : WeekRule(
    "week.rest",
    "A tired family does not come first",
    "They have not recovered, and the first block should be the best one.", Ours)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.History is not { } history)
        {
            yield break;
        }

        var sets = Before(history).Where(h => h.Start >= history.Start.AddHours(-Thresholds.HardHours))
            .SelectMany(h => h.HardSets).GroupBy(s => s.Key).ToDictionary(g => g.Key, g => g.Sum(s => s.Value));
        var first = review.MainStations.FirstOrDefault();
        if (first is null)
        {
            yield break;
        }

        var families = first.Block.Shape == BlockShape.Rotation
            ? review.Stations.Where(s => s.B == first.B).SelectMany(s => review.Works(s)).Select(p => p.Family)
            : review.Courses[0].Pieces.Where(p => review.At(p).IsMain).Take(1).Select(p => review.Done(p)!.Family);
        var tired = families.Distinct().Where(f => sets.GetValueOrDefault(f) >= Thresholds.HardSets).ToArray();
        if (tired.Length > 0)
        {
            yield return Found(
                Severity.Consider, PlaceId.Class,
                $"{Told.And(tired.Select(f => FormattableString.Invariant($"{f} had {sets[f]:0.#} hard sets")))} in the last "
                + $"{Thresholds.HardHours} h and {(tired.Length == 1 ? "comes" : "come")} first today.");
        }
    }
}
