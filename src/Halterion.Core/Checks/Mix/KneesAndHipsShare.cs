using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Knee-led and hip-led work keep a measure.</summary>
public sealed class KneesAndHipsShare() : Rule(
    "mix.led",
    "Knees and hips share the work",
    "Knees or backs that do most of it every week complain first.",
    Ours)
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        static bool Counts(StationAt at) => at.IsMain;
        if (!FamilyShares.IsAMix(review, Counts))
        {
            yield break;
        }

        var shares = FamilyShares.Of(review, Counts).By;
        var knee = shares.GetValueOrDefault(Family.Squat) + shares.GetValueOrDefault(Family.Lunge);
        var hip = shares.GetValueOrDefault(Family.Hinge) + shares.GetValueOrDefault(Family.Bridge);
        if (knee > Thresholds.KneeToHip * hip || hip > Thresholds.KneeToHip * knee)
        {
            yield return Found(Severity.Consider, PlaceId.Class,
                $"{new Seconds(knee)} of squats and lunges against {new Seconds(hip)} of hinges and bridges: "
                + "more than 3 to 1.");
        }
    }
}
