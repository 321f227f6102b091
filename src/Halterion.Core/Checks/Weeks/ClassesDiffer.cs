using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Not three times the same.</summary>
public sealed class ClassesDiffer() : WeekRule(
    "week.same",
    "Classes vary",
    "People who always do the same stop improving, and stop coming.", Common,
    "Some keep a class for weeks, one thing harder each time. If so, accept this as is.")
{
    private const int Running = 2;

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (review.History is { } history && Before(history).TakeLast(Running).ToArray() is { Length: Running } last
            && review.MainMoves().ToHashSet() is { Count: > 0 } moves && last.All(h => moves.SetEquals(h.Moves)))
        {
            yield return Found(Severity.Note, PlaceId.Class, "Same main moves as in the last two classes.");
        }
    }
}
