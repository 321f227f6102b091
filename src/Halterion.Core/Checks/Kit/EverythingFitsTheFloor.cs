using System.Globalization;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>What is done at once fits the floor.</summary>
public sealed class EverythingFitsTheFloor() : Rule(
    "room.area",
    "Everything fits on the floor",
    "Arms, legs and weights get in each other’s way.",
        "Our own limit: 4 m² a person on the spot, 6 for jumps and swings, a lane of 1.5 × 6 m to travel")
{
    /// <inheritdoc/>
    public override string? Several => "blocks need more floor than there is";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { Sized: { } size } ? [] :
        from moment in review.Moments
        let needs = moment.Done.Sum(d => review.Works(d.Option, d.At).Select(Area).DefaultIfEmpty(0).Max())
        let has = (double)(size.WidthM * size.LengthM)
        where needs > has
        group needs by moment.Block into block
        select Found(
            Severity.Fix, block.Key.Id,
            string.Create(CultureInfo.InvariantCulture, $"{block.Key.Name} needs {block.Max():0.#} m² at once, but the room has "
                + $"{(double)(size.WidthM * size.LengthM):0.#} m²."));

    private static double Area(DonePart part) => part.Travels ? Thresholds.LaneWidth * Thresholds.LaneLength
        : part.HasImpact || part.IsSwing ? Thresholds.HopSpot : Thresholds.Spot;
}
