using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>The main option is for most of the room.</summary>
public sealed class TheRoomIsMet() : PeopleRule(
    "people.shift", "At most half of the room is given the easier option.", "A main option that most do not do is the wrong "
        + "main option.", Ours)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from given in Given(review, occasion)
        where Of(given.At, given.Given) is { Tier: Tier.Easier }
        group given.Person by given.At into station
        where 2 * station.Count() > occasion.Heads
        select Found(Severity.Consider, station.Key.Id, $"{station.Key.Name}: {station.Count()} of {occasion.Heads} are given the "
            + $"easier option.");
}
