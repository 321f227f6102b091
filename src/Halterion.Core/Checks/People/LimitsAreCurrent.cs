using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No limit is past its date.</summary>
public sealed class LimitsAreCurrent() : PeopleRule(
    "people.expired",
    "Care notes are up to date",
    "An expired note is no longer used, whether or not they are better.", Common)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.Occasion is { } occasion
            && occasion.Room.People.Where(p => (p.Limits ?? []).Any(l => l.Until < occasion.Room.Day)).ToArray() is { Length: > 0 } ranOut)
        {
            yield return Found(Severity.Note, PlaceId.Class, $"Care notes that have expired: {Names(ranOut)}. Ask them, "
                + $"then renew or end the note.");
        }
    }
}
