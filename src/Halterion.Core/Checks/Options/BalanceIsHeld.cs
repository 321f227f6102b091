using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Where balance is asked for, somebody can hold on.</summary>
public sealed class BalanceIsHeld() : OptionRule(
    "options.hold", "Where balance is asked for, an option holds on to something.", "Who cannot balance cannot work there either.",
    "[M] demand from the body model; docs/body-model.md")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        where review.Works(at).Any(p => p.Facts is { Demand.Balance: >= Thresholds.WobblyBalance })
            && !at.Station.Options.Any(o => review.Works(o, at).All(p => p.IsHeld))
        select Found(Severity.Consider, at.Id, $"{at.Name} asks for balance, and no option holds on "
            + $"to anything.", [.. Repairs(review, at)]);

    private static IEnumerable<Repair> Repairs(ClassReview review, StationAt at)
    {
        var main = at.Station.Main;
        Option[] tried =
        [
            .. new[] { Support.Hand, Support.Chair, Support.Wall }.Select(s =>
                main with { Id = default, Tier = Tier.Easier, Manner = main.Manner with { Support = s } }),
        ];
        var fits = tried.FirstOrDefault(o => Demands.OptionPoses.Of(review.Moves.Find(o.Move)!, o.Manner) is not null);
        return fits is null ? [] : Add(at, "Add the same with a hand hold", fits);
    }
}
