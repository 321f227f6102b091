using System.Globalization;
using Halterion.Core.Checks;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning;

/// <summary>The hardest moment of a class, by the demand model.</summary>
/// <param name="At">Seconds from the start, as the first group of a rotation meets it.</param>
public sealed record HardestMoment(Seconds At, string Words);

/// <summary>A class in one line: how dense it is, landings, the longest time on one leg, the hardest moment.</summary>
/// <param name="Hardest">Null where there is no main work of which anything is known.</param>
public sealed record ClassMeasure(string InOneLine, HardestMoment? Hardest)
{
    /// <summary>How often each demand is met, for the numbers beside the verdict.</summary>
    public static ClassMeasure Of(ClassReview review)
    {
        var spans = review.Timeline.Spans.Where(s => ClassReview.IsMain(review.Plan.Blocks[s.Block])).ToArray();
        var work = spans.Where(s => s.Kind == SpanKind.Work).Sum(s => s.Length().Value);
        if (work == 0)
        {
            return new ClassMeasure("No main block yet.", null);
        }

        var share = (double)work / spans.Sum(s => s.Length().Value);
        var landings = review.Courses.Max(c => LandingsAreFew.Of(review, c));
        var leg = review.Courses.Max(c => LegsGetABreak.Longest(review, c));
        var hardest = review.Courses[0].Pieces
            .Where(p => review.At(p).IsMain && review.Done(p)?.Facts is not null)
            .Select(p => (Piece: p, review.Done(p)!.Facts!.Demand.Overall))
            .OrderByDescending(p => p.Overall).ThenBy(p => p.Piece.Start)
            .Select(p => new HardestMoment(new Seconds(p.Piece.Start),
                string.Create(CultureInfo.InvariantCulture, $"Hardest: {review.At(p.Piece).Name}, around minute {p.Piece.Start / 60 + 1}")))
            .FirstOrDefault();
        return new ClassMeasure(
            $"Working time is {Told.Percent(share)} of the main blocks · "
            + $"{(landings == 0 ? "no jump landings" : Counted.Of(landings, "landing", "landings"))} · "
            + $"longest on one leg {new Seconds(leg)}.{(hardest is null ? "" : $" {hardest.Words}.")}",
            hardest);
    }
}
