using Halterion.Core.People;

namespace Halterion.Core.Checks;

/// <summary>Everyone has shown what their option wants first.</summary>
public sealed class EveryoneIsReady() : PeopleRule(
    "people.ready",
    "People are signed off for what they do",
    "A moving lunge before a still one, a swing before a hinge: it shows.", "Common practice")
{
    /// <inheritdoc/>
    public override string? Several => "stations have people not signed off";

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
        select Found(Severity.Consider, station.Key.Id, $"{station.Key.Name}: not signed off yet: {told}.");
}
