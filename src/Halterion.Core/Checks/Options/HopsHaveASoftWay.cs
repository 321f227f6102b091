using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Every hop has an option without one.</summary>
public sealed class HopsHaveASoftWay() : OptionRule(
    "options.hop",
    "Every jump has a no-jump option",
    "People with sore knees, ankles or backs, or who are pregnant, have nothing to do there.", Common)
{
    /// <inheritdoc/>
    public override string? Several => "jumping stations have no no-jump option";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        where review.Works(at).Any(p => p.HasImpact) && !AnyWithout(review, at, p => p.HasImpact)
        select Found(Severity.Fix, at.Id, $"{at.Name} jumps and has no option without a jump.", [.. Repairs(review, at)]);

    private static IEnumerable<Repair> Repairs(ClassReview review, StationAt at) =>
        Nearest(review, at, "impact", p => !p.HasImpact) is { } option ? Add(at, $"Add {Named(review, at, option)}", option) : [];
}
