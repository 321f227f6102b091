using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Where a standing knee bends deep, an option bends it less.</summary>
public sealed class DepthCanBeLess() : OptionRule(
    "options.depth",
    "Deep knee bends have a shallower option",
    "A knee that hurts there has no choice but to stop.",
    "About 0–50° of bend is the gentle range: Escamilla, Med Sci Sports Exerc 33, 2001 (from memory); the limits are our own")
{
    /// <inheritdoc/>
    public override string? Several => "deep stations have no shallower option";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        let main = review.Works(at).Select(Knee).DefaultIfEmpty(0).Max()
        where main >= Thresholds.DeepKnee
            && at.Station.Options.Min(o => review.Works(o, at).Select(Knee).DefaultIfEmpty(0).Max()) > main - Thresholds.LessDeep
        select Found(Severity.Consider, at.Id, $"{at.Name} bends the knee to {Math.Round(main)}° and no option is at least 20° shallower.",
            [.. Repairs(review, at, main)]);

    private static double Knee(DonePart part) => part.Facts?.StandingKnee ?? 0;

    private static IEnumerable<Repair> Repairs(ClassReview review, StationAt at, double deep)
    {
        var main = at.Station.Main;
        var less = new[] { Depth.Half, Depth.Quarter, Depth.Small }
            .Select(d => main with { Id = default, Tier = Tier.Easier, Manner = main.Manner with { Depth = d, HeightCm = null } })
            .FirstOrDefault(o => review.Works(o, at).All(p => Knee(p) <= deep - Thresholds.LessDeep))
            ?? Nearest(review, at, $"depth {deep}", p => p.Facts is { } facts && facts.StandingKnee <= deep - Thresholds.LessDeep);
        return less is null ? [] : Add(at, $"Add {Named(review, at, less)}", less);
    }
}
