using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Where balance is asked for, somebody can hold on.</summary>
public sealed class BalanceIsHeld() : OptionRule(
    "options.hold",
    "Balance has an option with a hand hold",
    "Anyone who cannot balance cannot work there.",
    "Our body model (an estimate)")
{
    /// <inheritdoc/>
    public override string? Several => "balance stations have nothing to hold on to";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        where review.Works(at).Any(p => p.Facts is { Demand.Balance: >= Thresholds.WobblyBalance })
            && !at.Station.Options.Any(o => review.Works(o, at).All(p => p.IsHeld))
        select Found(Severity.Consider, at.Id, $"{at.Name} needs balance and no option lets people hold on.", [.. Repairs(review, at)]);

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
