using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>What a person's main work is made of, in seconds by family.</summary>
internal sealed record FamilyShares(int All, IReadOnlyDictionary<Family, int> By)
{
    public double Of(Family family) => All == 0 ? 0 : (double)By.GetValueOrDefault(family) / All;

    public static readonly Family[] Hard = [Family.Squat, Family.Lunge, Family.Hinge, Family.Bridge];

    public static FamilyShares Of(ClassReview review, Func<StationAt, bool> counts)
    {
        // Round a rotation everyone does the same in sum.
        var work = review.Courses[0].Pieces.Where(p => counts(review.At(p))).Select(p => (review.Done(p)?.Family, p.Seconds)).ToArray();
        return new FamilyShares(work.Sum(w => w.Seconds), work.Where(w => w.Family is not null).GroupBy(w => w.Family!.Value)
            .ToDictionary(g => g.Key, g => g.Sum(w => w.Seconds)));
    }

    public static bool IsAMix(ClassReview review, Func<StationAt, bool> counts) =>
        review.Stations.Count(counts) >= Thresholds.StationsOfAMix;
}
