using Halterion.Core.People;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>A choice against a limit has its reason.</summary>
public sealed class LimitsAreKept() : PeopleRule(
    "people.limit", "A choice that goes against a limit has a reason.",
        "It may be right; then the reason is known, and if not it is seen in time.", "The table of limits; docs/room.md")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from given in Given(review, occasion)
        where given.Given.Pinned && Of(given.At, given.Given) is { } option
            && Allowance.WhyNot(given.Person, option, given.At.Station, given.At.Block, review.Moves, occasion.Room.Day) is not null
            && string.IsNullOrWhiteSpace(ReasonOf(occasion, given.Person, given.At))
        group given by given.At into station
        select Found(Severity.Fix, station.Key.Id,
            $"{station.Key.Name}: what you chose for {Names(station.Select(g => g.Person))} goes against their care, without a reason.");

    private static string? ReasonOf(Occasion occasion, Person person, StationAt at) =>
        occasion.Room.Pins.LastOrDefault(p => p.Person == person.Id && p.Station == at.Id)?.Reason;
}
