using Halterion.Core.Demands;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Easier really is easier and harder really is harder, by the demand model.</summary>
public sealed class OptionsInOrder() : OptionRule(
    "options.order",
    "Easier is easier and harder is harder",
    "Anyone who picks easier should find it easier. This is an estimate, so judge for yourself.",
    "Our body model (an estimate)")
{
    /// <inheritdoc/>
    public override string? Several => "options are not easier or harder than main";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        let main = DemandModel.Of(at.Station.Main.Move, at.Station.Main.Manner, review.Moves)
        where main is not null
        from option in at.Station.Options
        where option.Tier is Tier.Easier or Tier.Harder
        let demand = DemandModel.Of(option.Move, option.Manner, review.Moves)
        where demand is not null && Wrong(option.Tier, demand.Overall - main.Overall) && !IsCoached(option, at.Station.Main, review)
        select Found(
            Severity.Consider, option.Id,
            $"{at.Name}: the {WordsOf<Tier>.Of(option.Tier)} option is {(option.Tier == Tier.Easier ? "harder" : "easier")} than main "
            + $"({demand.From(main)}).",
            new Repair("Make it an alternative", root => root.OptionOf(at, at.Station.Options.IndexOf(option))["tier"] = "instead"));

    /// <summary>What a coach gives as easier is so, where the estimate does not see why.</summary>
    private static bool IsCoached(Option option, Option main, ClassReview review) =>
        review.Moves.Find(main.Move) is { } move
            && Offers.Of(move, option.Tier, review.Moves).Any(o => o.Option.Move == option.Move)
            && Words.Differs.Coached(option, main, review.Moves) is not null;

    private static bool Wrong(Tier tier, double more) => tier == Tier.Easier ? more > Thresholds.Felt : more < -Thresholds.Felt;
}
