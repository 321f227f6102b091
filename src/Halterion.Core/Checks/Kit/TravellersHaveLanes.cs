namespace Halterion.Core.Checks;

/// <summary>Everyone who travels has a lane.</summary>
public sealed class TravellersHaveLanes() : Rule(
    "room.lane", "Everyone who travels at once has a lane of 1.5 × 6 m.", "People walk into each other, with weights in their hands.",
        "[M] A lane of 1.5 × 6 m")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { Sized: { } size } ? [] :
        from moment in review.Moments
        let travel = moment.Done.Count(d => review.Works(d.Option, d.At).Any(p => p.Travels))
        where travel > Lanes(size)
        group travel by moment.Block into block
        select Found(Severity.Fix, block.Key.Id,
            $"“{block.Key.Name}”: {block.Max()} travel at once; the room has {(Lanes(size) == 1 ? "1 lane" : $"{Lanes(size)} lanes")}.");

    private static int Lanes(RoomSize size) =>
        Math.Max(Laid((double)size.WidthM, (double)size.LengthM), Laid((double)size.LengthM, (double)size.WidthM));

    private static int Laid(double width, double length) =>
        (int)Math.Floor(width / Thresholds.LaneWidth) * (int)Math.Floor(length / Thresholds.LaneLength);
}
