using Halterion.Core.Demands;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Every station has an easier and a harder option.</summary>
public sealed class OptionsBothWays() : OptionRule(
    "options.missing",
    "Every station has an easier and a harder option",
    "A mixed group can only start and stop together if everyone has something to do.",
    Common,
    "Some give one picture and let people find their own way: in a class that knows itself that may do.")
{
    /// <inheritdoc/>
    public override string? Several => "stations lack an easier or harder option";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        let missing = new[] { Tier.Easier, Tier.Harder }.Where(tier => !at.Station.Options.Any(o => o.Tier == tier)).ToArray()
        where missing.Length > 0
        select Found(Severity.Consider, at.Id,
            $"{at.Name} has "
            + (missing.Length == 2 ? "neither an easier nor a harder option." : $"no {WordsOf<Tier>.Of(missing[0])} "
                + $"option."), [.. Repairs(review, at, missing)]);

    private static IEnumerable<Repair> Repairs(ClassReview review, StationAt at, Tier[] missing)
    {
        var main = at.Station.Main;
        var proposed = Proposals.For(new Doing(main.Move, main.Manner), review.Moves, null, review.Weights);
        var additions = missing.Select(m => m == Tier.Easier ? proposed.Easier : proposed.Harder).OfType<Proposal>()
            .Select(p => OptionEntry.Into(p.Of, at.Station, review.Moves)).ToArray();
        return additions.Length < missing.Length ? [] :
            Add(at, "Add " + string.Join(" and ", additions.Select(a => $"{WordsOf<Tier>.Of(a.Tier)}: {Named(review, at, a)}")), additions);
    }
}
