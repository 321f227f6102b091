using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No family is forgotten, and none is half of everything.</summary>
public sealed class FamiliesAreMixed() : Rule(
    "mix.family",
    "A family that occurs has at least 10 % of the main work, and none more than half.",
    "A family with a minute in the class is there for the list only; one with all of it wears one joint.",
    Ours,
    "Some give a day to one family: then say so.")
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
            yield return Found(Severity.Consider, PlaceId.Class, $"Of the main work: {Told.And(off)}.") with
            {
                Behind = $"{Told.And(all)}.",
            };
        }
    }
}
