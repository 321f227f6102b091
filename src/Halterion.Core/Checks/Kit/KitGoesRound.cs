using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>The kit goes round at every moment.</summary>
public sealed class KitGoesRound() : Rule(
    "kit.short",
    "There is enough kit",
    "Someone hunts for kit while the clock runs.",
        "Counted: who does what, moment by moment")
{
    /// <inheritdoc/>
    public override string? Several => "blocks do not have enough kit";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { Room.Kit: not null } occasion ? [] :
        from missing in occasion.Given.Shortages
        let block = missing.Block ?? review.Stations.First(s => s.Id == missing.Station).Block.Id
        group missing by block into at
        let name = review.Plan.Blocks.First(b => b.Id == at.Key).Name
        select Found(
            Severity.Fix, at.Key, $"{name} needs "
                + $"{Told.And(at.GroupBy(NeedOf).Select(g => g.MaxBy(s => s.Need - s.Have)!).Select(Words))}.");

    private static Need NeedOf(Shortage s) =>
        s.Or is { } or ? new(s.Item, 1, Or: [new Need(or)]) : new(s.Item, 1, s.Kg, s.HeightCm, s.Strength, null, s.Name);

    private static string Either(Shortage s, KitItem or)
    {
        var one = NeedWords.Many(new Need(s.Item, 1, s.Kg, s.HeightCm, s.Strength, null, s.Name));
        return FormattableString.Invariant($"{one} or {NeedWords.Many(or)} for {s.Need:0} people, and there is enough for {s.Have:0}");
    }

    private static string Words(Shortage s) =>
        s.Or is { } or ? Either(s, or)
        : s is { Item: KitItem.Plate, Kg: { } bar }
            ? FormattableString.Invariant($"plates for {s.Need:0} {(s.Need == 1 ? "bar" : "bars")} of {bar:0.##} kg, enough for {s.Have:0}")
        : FormattableString.Invariant($"{s.Need:0.##} {NeedWords.Many(NeedOf(s))} at once; you have {s.Have:0.##}");
}
