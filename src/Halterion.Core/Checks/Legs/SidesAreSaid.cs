using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Of a move that has sides, the side is said.</summary>
public sealed class SidesAreSaid() : Rule(
    "side.unsaid",
    "Sides are set for one-sided moves",
    "Counts are wrong and nobody is told which side.",
    Common)
{
    /// <inheritdoc/>
    public override string? Several => "one-sided stations have no side set";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in review.Stations
        where at.Station.Sides == SideRule.AsWritten && at.Block.SidePass == SidePass.Station
        let unsaid = review.Works(at).Where(p => p.Part.Side == Side.Both && p.Move.Sided != Sided.TwoSided).ToArray()
        where unsaid.Length > 0
        select Found(Severity.Fix, at.Id, $"{at.Name} is one-sided, but no side is set.", [.. Repairs(at, unsaid)]);

    private static IEnumerable<Repair> Repairs(StationAt at, DonePart[] unsaid)
    {
        var alternate = new Repair("Alternate every rep", root =>
        {
            foreach (var part in unsaid)
            {
                root.PartOf(at, part.Index)["side"] = "alternate";
            }
        });
        var each = at.Station.Dose.All(p => p.Side == Side.Both) && at.Block.Shape.IsInRounds
            ? new Repair("All of it on each side", root => root.StationOf(at)["sides"] = "each") : null;
        return unsaid.All(p => p.Move.Sided == Sided.Alternating) || each is null
            ? each is null
            ? [alternate]
            : [alternate, each]
            : [each, alternate];
    }
}
