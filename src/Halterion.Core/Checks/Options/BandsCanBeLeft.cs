using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Every banded station has an option without a band.</summary>
public sealed class BandsCanBeLeft() : OptionRule(
    "options.band",
    "Every band station has an option without one",
    "A band that snaps, pinches or is missing leaves someone standing.", Common,
    "Lower and slower does the same without one.")
{
    /// <inheritdoc/>
    public override string? Several => "band stations have no option without one";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        where review.Works(at).Any(p => p.HasBand) && !AnyWithout(review, at, p => p.HasBand)
        select Found(Severity.Consider, at.Id, $"{at.Name} has no option without a band.", [.. Repairs(review, at)]);

    private static IEnumerable<Repair> Repairs(ClassReview review, StationAt at)
    {
        var plain = at.Station.Main with
        {
            Id = default,
            Tier = Tier.Easier,
            Manner = at.Station.Main.Manner with { Band = BandStrength.None }
        };
        return Add(at, "Add the same without a band", plain);
    }
}
