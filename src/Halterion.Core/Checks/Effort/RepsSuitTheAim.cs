using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>How many reps are done under load suits the aim.</summary>
public sealed class RepsSuitTheAim() : Rule(
    "effort.reps",
    "Reps suit the aim",
    "A weight light enough for many reps trains endurance; one heavy enough for few trains strength.",
    "Strength up to 6, endurance from 12: Haff & Triplett, NSCA 2016 (from memory); our own limit is looser than the table",
    "Some build strength with ten and more, close to failure.")
{
    /// <inheritdoc/>
    public override string? Several => "stations have reps that do not suit the aim";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in review.MainStations
        let reps = Enumerable.Range(0, at.Block.Rounds).SelectMany(round => Added(review, at, round)).ToArray()
        where reps.Length > 0
        let wrong = review.Plan.Aim switch
        {
            Aim.Strength when reps.Max() > Thresholds.MostStrengthReps => reps.Max(),
            Aim.Endurance when reps.Min() < Thresholds.LeastEnduranceReps => reps.Min(),
            _ => (int?)null,
        }
        where wrong is not null
        select Found(Severity.Note, at.Id, $"{at.Name}: {wrong} loaded reps; for "
            + (review.Plan.Aim == Aim.Strength ? "strength keep to 8 or fewer." : "endurance use 12 or more."));

    /// <summary>The reps of each run of loaded parts of one move and side in a round, with no more than a short rest between two.</summary>
    private static IEnumerable<int> Added(ClassReview review, StationAt at, int round)
    {
        var (sum, rest, last) = (0, 0, (DonePart?)null);
        for (var i = 0; i < at.Station.Dose.Length; i++)
        {
            var part = at.Station.Dose[i];
            if (!part.Rounds.Has(round, at.Block.Rounds))
            {
                continue;
            }

            if (!part.Kind.IsWork)
            {
                rest += part.Amount.At(round).To;
                continue;
            }

            var done = review.Parts(at)[i];
            var counts = done is { IsLoaded: true } && part.Kind == PartKind.Reps;
            if (last is not null
                && !(counts && last.Move.Id == done!.Move.Id && last.Part.Side == part.Side && rest <= Thresholds.ClusterRest))
            {
                yield return sum;
                (sum, last) = (0, null);
            }

            if (counts)
            {
                (sum, last) = (sum + part.Amount.At(round).To, done);
            }

            rest = 0;
        }

        if (last is not null)
        {
            yield return sum;
        }
    }
}
