using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No hold is longer than a minute.</summary>
public sealed class HoldsEnd() : Rule(
    "hold.long",
    "Holds last at most 60 s",
    "After a minute people hold their breath and let other muscles take over.",
    "Common practice is 15–30 s; the limit is our own",
    "Some hold until form slips: then an open end with a cap says so.")
{
    /// <inheritdoc/>
    public override string? Several => "holds are longer than 60 s";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in review.Stations
        where at.IsMainOrActivation
        let holds = at.Station.Dose.Select((part, i) => (Index: i, part.Kind, Longest: Longest(at, part)))
            .Where(h => h.Kind == PartKind.Hold && h.Longest > Thresholds.LongHold).ToArray()
        where holds.Length > 0
        select Found(Severity.Note, at.Id, $"{at.Name}: a hold of "
            + $"{new Seconds(holds.Max(h => h.Longest))}; keep holds to {Thresholds.LongHold} s.", [.. Repairs(at, holds[0].Index)]);

    private static int Longest(StationAt at, Part part)
    {
        var amount = Enumerable.Range(0, at.Block.Rounds).Where(r => part.Rounds.Has(r, at.Block.Rounds)).Select(r => part.Amount.At(r).To)
            .DefaultIfEmpty(0).Max();
        return at.Station.Sides == SideRule.Split ? (amount + 1) / 2 : amount;
    }

    private static IEnumerable<Repair> Repairs(StationAt at, int index)
    {
        var part = at.Station.Dose[index];
        if (at.Station.Sides == SideRule.Split || at.Station.Dose.Length > 10 || part.Amount.Values.Length != 1 || part.Amount.At(0)
            .To is not (> 12 and var amount))
        {
            yield break;
        }

        yield return new Repair("Two holds with 5 s between", root =>
        {
            var first = root.PartOf(at, index);
            var second = first.DeepClone().AsObject();
            (first["amount"], second["amount"]) = ((amount - 5 + 1) / 2, (amount - 5) / 2);
            var dose = root.StationOf(at)["dose"]!.AsArray();
            dose.Insert(index + 1, second);
            dose.Insert(index + 1, RepairKit.Part("rest", 5));
        });
    }
}
