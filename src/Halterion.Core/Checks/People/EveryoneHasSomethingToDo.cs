namespace Halterion.Core.Checks;

/// <summary>Everyone has an option that they may do, at every station.</summary>
public sealed class EveryoneHasSomethingToDo() : PeopleRule(
    "people.gap",
    "Everyone has an option at every station",
    "Someone stands and watches, or does what they should not.",
        "The care table")
{
    /// <inheritdoc/>
    public override string? Several => "stations have no option for someone";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from given in Given(review, occasion)
        where given.Given.Option is null
        group given by given.At into station
        select Found(Severity.Stop, station.Key.Id, $"{station.Key.Name} has no option for {Names(station.Select(g => g.Person))}.");
}
