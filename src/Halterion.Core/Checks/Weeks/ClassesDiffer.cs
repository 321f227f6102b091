using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Not three times the same.</summary>
public sealed class ClassesDiffer() : WeekRule(
    "week.same", "Not three classes running have the same main moves.", "Who always does the same stops getting better at it, and "
        + "stops coming.", Common,
    "Some keep a class for weeks, one thing harder each time: then say so.")
{
    private const int Running = 2;

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.History is { } history && Before(history).TakeLast(Running).ToArray() is { Length: Running } last
            && review.MainMoves().ToHashSet() is { Count: > 0 } moves && last.All(h => moves.SetEquals(h.Moves)))
        {
            yield return Found(Severity.Note, PlaceId.Class, "The same main moves as in the last two classes.");
        }
    }
}
