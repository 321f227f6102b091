using Halterion.Core.People;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>A choice against a limit has its reason.</summary>
public sealed class LimitsAreKept() : PeopleRule(
    "people.limit",
    "Choices against a care note have a reason",
    "It may be right; a reason shows it was on purpose.", "The care table")
{
    /// <inheritdoc/>
    public override string? Several => "of your choices go against a care note without a reason";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from given in Given(review, occasion)
        where given.Given.Pinned && Of(given.At, given.Given) is { } option
            && Allowance.WhyNot(given.Person, option, given.At.Station, given.At.Block, review.Moves, occasion.Room.Day) is not null
            && string.IsNullOrWhiteSpace(ReasonOf(occasion, given.Person, given.At))
        group given by given.At into station
        select Found(Severity.Fix, station.Key.Id,
            $"{station.Key.Name}: your choice for {Names(station.Select(g => g.Person))} goes against their care note and has no "
            + "reason.");

    private static string? ReasonOf(Occasion occasion, Person person, StationAt at) =>
        occasion.Room.Pins.LastOrDefault(p => p.Person == person.Id && p.Station == at.Id)?.Reason;
}
