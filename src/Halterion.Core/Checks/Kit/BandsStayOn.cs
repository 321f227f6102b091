using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Bands go on and off three times at most.</summary>
public sealed class BandsStayOn() : Rule(
    "kit.onOff",
    "Bands stay on",
    "Each time costs about 10 s and a balance on one leg.",
        "Our own limit: a band takes about 10 s on or off")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        if (!review.MainStations.SelectMany(s => review.Works(s)).Any(p => p.BandOn is not null))
        {
            yield break;
        }

        var most = review.Courses.Max(c => Changes(review, c));
        if (most > Thresholds.BandChanges)
        {
            yield return Found(Severity.Note, PlaceId.Class, $"Bands go on or off {most} times in the main blocks; keep "
                + $"it to {Thresholds.BandChanges}.");
        }
    }

    private static int Changes(ClassReview review, Course course)
    {
        var (on, changes) = ((BandStrength?)null, 0);
        foreach (var piece in course.Pieces.Where(p => review.At(p).IsMain))
        {
            var now = review.Done(piece)?.BandOn;
            if (now != on)
            {
                changes += (on is null ? 0 : 1) + (now is null ? 0 : 1);
                on = now;
            }
        }

        return changes + (on is null ? 0 : 1);
    }
}
