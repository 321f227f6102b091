using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No limit is past its date.</summary>
public sealed class LimitsAreCurrent() : PeopleRule(
    "people.expired", "A limit that has run out is renewed or ended.", "What ran out is not looked at any more, whether it is "
        + "well or not.", Common)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.Occasion is { } occasion
            && occasion.Room.People.Where(p => (p.Limits ?? []).Any(l => l.Until < occasion.Room.Day)).ToArray() is { Length: > 0 } ranOut)
        {
            yield return Found(Severity.Note, PlaceId.Class, $"Care that has run out: {Names(ranOut)}. Ask, and renew or end it.");
        }
    }
}
