using System.Text.Json.Nodes;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Nobody lands more than 80 times in a class.</summary>
public sealed class LandingsAreFew() : Rule(
    "order.contacts",
    "Jump landings are limited",
    "Shins, knees and calves feel it the next day.",
    "Beginners 80–100, intermediate 100–120: Haff & Triplett, NSCA 2016, plyometrics chapter (from memory)",
    "The table gives 120–140 to the advanced: in a room of mixed ability the beginners count.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var worst = review.Courses.Select(
            c => c.Pieces.Select(p => (At: review.At(p), Landings: Landings(review, p))).Where(l => l.Landings > 0).ToArray())
            .MaxBy(l => l.Sum(x => x.Landings)) ?? [];
        var all = worst.Sum(l => l.Landings);
        if (all <= Thresholds.Contacts)
        {
            yield break;
        }

        var by = worst.GroupBy(l => (l.At.B, l.At.S)).Select(g => (g.First().At, Sum: g.Sum(x => x.Landings))).ToArray();
        yield return Found(
            all > Thresholds.MostContacts ? Severity.Fix : Severity.Consider, PlaceId.Class, $"Up to {all} jump "
                + $"landings per person; keep it to {Thresholds.Contacts} (never over {Thresholds.MostContacts}).",
            new Repair($"Cut to about {Thresholds.Contacts} "
                + $"landings", root => Fewer(root, review, [.. by.Select(b => b.At)], (double)Thresholds.Contacts / all))) with
        {
            Behind = $"{Told.And(by.Select(b => $"{b.At.Name} {b.Sum}"))}.",
        };
    }

    /// <summary>How often one person lands on their way round.</summary>
    public static int Of(ClassReview review, Course course) => course.Pieces.Sum(p => Landings(review, p));

    /// <summary>A timed part counts the reps that its tempo leaves room for.</summary>
    private static int Landings(ClassReview review, Piece piece)
    {
        if (review.Done(piece) is not { HasImpact: true } jump)
        {
            return 0;
        }

        return jump.Part.RepsIn(jump.Part.Kind.IsTimed ? piece.Seconds : piece.Amount) * jump.Landings;
    }

    private static void Fewer(JsonObject root, ClassReview review, StationAt[] stations, double share)
    {
        foreach (var at in stations)
        {
            foreach (var done in review.Works(at).Where(p => p.HasImpact))
            {
                RepairKit.Change(root.PartOf(at, done.Index), amount => Math.Max(1, (int)Math.Floor(share * amount)));
            }
        }
    }
}
