namespace Halterion.Core.Checks;

/// <summary>Everyone who travels has a lane.</summary>
public sealed class TravellersHaveLanes() : Rule(
    "room.lane",
    "Travelling moves have a lane",
    "People walk into each other with weights in their hands.",
        "Our own limit: a lane of 1.5 × 6 m")
{
    /// <inheritdoc/>
    public override string? Several => "blocks have too few lanes";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { Sized: { } size } ? [] :
        from moment in review.Moments
        let travel = moment.Done.Count(d => review.Works(d.Option, d.At).Any(p => p.Travels))
        where travel > Lanes(size)
        group travel by moment.Block into block
        select Found(Severity.Fix, block.Key.Id,
            $"{block.Key.Name}: {Counted.Of(block.Max(), "person travels", "people travel")} at once, but the room has "
            + $"{Counted.Of(Lanes(size), "lane", "lanes")} of 1.5 × 6 m.");

    private static int Lanes(RoomSize size) =>
        Math.Max(Laid((double)size.WidthM, (double)size.LengthM), Laid((double)size.LengthM, (double)size.WidthM));

    private static int Laid(double width, double length) =>
        (int)Math.Floor(width / Thresholds.LaneWidth) * (int)Math.Floor(length / Thresholds.LaneLength);
}
