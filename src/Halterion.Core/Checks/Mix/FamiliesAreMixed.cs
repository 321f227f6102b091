using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No family is forgotten, and none is half of everything.</summary>
public sealed class FamiliesAreMixed() : Rule(
    "mix.family",
    "Families are balanced",
    "A minute of a family is only there for the list; a whole class of one wears the same joint.",
    Ours,
    "Some give a day to one family. If so, accept this as is.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        static bool Counts(StationAt at) => at.IsMain && at.Block.Shape.IsInRounds;
        if (!FamilyShares.IsAMix(review, Counts))
        {
            yield break;
        }

        var shares = FamilyShares.Of(review, Counts);
        var off = FamilyShares.Hard.Where(f => shares.By.ContainsKey(f))
            .Where(f => shares.Of(f) is < Thresholds.LeastOfAFamily or > Thresholds.MostOfAFamily)
            .Select(f => $"{f.ToString().ToLowerInvariant()} {Told.Percent(shares.Of(f))}").ToArray();
        if (off.Length > 0)
        {
            var all = shares.By.OrderByDescending(b => b.Value)
                .Select(b => $"{b.Key.ToString().ToLowerInvariant()} {new Seconds(b.Value)}");
            yield return Found(Severity.Consider, PlaceId.Class, $"The main blocks are {Told.And(off)}; aim for 10–50% "
                + $"of each family.") with
            {
                Behind = $"{Told.And(all)}.",
            };
        }
    }
}
