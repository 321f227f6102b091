using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>The main option is for most of the room.</summary>
public sealed class TheRoomIsMet() : PeopleRule(
    "people.shift",
    "The main option suits most people",
    "If most people do not do the main option, it is the wrong main option.", Ours)
{
    /// <inheritdoc/>
    public override string? Several => "main options are too hard for most";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from given in Given(review, occasion)
        where Of(given.At, given.Given) is { Tier: Tier.Easier }
        group given.Person by given.At into station
        where 2 * station.Count() > occasion.Heads
        select Found(Severity.Consider, station.Key.Id, $"{station.Key.Name}: {station.Count()} of {occasion.Heads} people get the "
            + "easier option.");
}
