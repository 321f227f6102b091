using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Every loaded station has an option without a weight.</summary>
public sealed class LoadsCanBeLeft() : OptionRule(
    "options.load",
    "Every loaded station has an unloaded option",
    "People who are new, or have had enough, have nothing to do there.", Common)
{
    /// <inheritdoc/>
    public override string? Several => "loaded stations have no unloaded option";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        where review.Works(at).Any(p => p.IsLoaded) && !AnyWithout(review, at, p => p.IsLoaded)
        select Found(Severity.Consider, at.Id, $"{at.Name} has no option without a weight.", [.. Repairs(review, at)]);

    private static IEnumerable<Repair> Repairs(ClassReview review, StationAt at) =>
        Nearest(review, at, "load", p => !p.IsLoaded) is { } option ? Add(at, $"Add {Named(review, at, option)}", option) : [];
}
