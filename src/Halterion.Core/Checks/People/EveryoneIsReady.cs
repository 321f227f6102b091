using Halterion.Core.People;

namespace Halterion.Core.Checks;

/// <summary>Everyone has shown what their option wants first.</summary>
public sealed class EveryoneIsReady() : PeopleRule(
    "people.ready", "Everyone has shown what their option wants to be sound first.",
        "A lunge that travels before one that stands, a swing before a hinge: it shows on the way.", "[C] Ready for more; docs/room.md")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from given in Given(review, occasion)
        let option = Of(given.At, given.Given)
        where option is not null
        let missing = review.Wants(option, given.At).Where(t => !given.Person.Has(t)).ToArray()
        where missing.Length > 0
        group (given.Person, missing) by given.At into station
        let ticks = station.SelectMany(s => s.missing.Select(m => (Tick: m, s.Person))).GroupBy(x => x.Tick, x => x.Person)
        let told = string.Join("; ", ticks.Select(t => $"{Allowance.Named(t.Key)} of {Names(t)}"))
        select Found(Severity.Consider, station.Key.Id, $"{station.Key.Name}: not ticked yet, {told}.");
}
