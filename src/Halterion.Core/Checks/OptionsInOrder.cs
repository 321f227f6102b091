using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Easier really is easier and harder really is harder, by the demand model.</summary>
public sealed class OptionsInOrder : IRule
{
    /// <summary>Less than this is no difference that anybody feels. [M]</summary>
    private const double Slack = 0.3;

    public IEnumerable<Finding> Check(ClassReview review) =>
        from block in review.Plan.Blocks
        from station in block.Stations
        let main = DemandModel.Of(station.Main.Move, station.Main.Manner, review.Moves)
        where main is not null
        from option in station.Options
        where option.Tier is Tier.Easier or Tier.Harder
        let demand = DemandModel.Of(option.Move, option.Manner, review.Moves)
        where demand is not null && Wrong(option.Tier, demand.Overall - main.Overall)
        select new Finding(
            "options.order", Severity.Consider, option.Id,
            $"{station.Name}: the {option.Tier.ToString().ToLowerInvariant()} option asks {(option.Tier == Tier.Easier ? "more" : "less")} than the main one ({demand.From(main)}).",
            "Who takes the easier way must find it easier; it is a static estimate, so judge for yourself.",
            "[M] demand from the body model; docs/body-model.md",
            []);

    private static bool Wrong(Tier tier, double more) => tier == Tier.Easier ? more > Slack : more < -Slack;
}
