using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>No leg works for longer than 90 s without a break.</summary>
public sealed class LegsGetABreak() : Rule(
    "leg.long",
    "No leg works too long without a break",
    "After that the hip drops, the knee drifts in and form is gone.",
    Ours,
    "Some string moves on one leg on purpose, up to two minutes. If so, accept this as is.")
{
    /// <inheritdoc/>
    public override string? Several => "stations are long on one leg";

    private readonly record struct Run(Piece First, Piece Last, int Seconds);

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var never = (int)review.Settings.Limit(Code);
        var longer = Math.Min(Thresholds.LongOnOneLeg, never);
        return from run in review.Courses.SelectMany(c => Runs(review, c))
               where run.Seconds > longer
               group run by (run.First.Block, run.First.Station) into place
               let worst = place.MaxBy(r => r.Seconds)
               let at = review.At(worst.First)
               let last = review.At(worst.Last)
               select Found(
                   worst.Seconds > never ? Severity.Fix : Severity.Consider, at.Id,
                   at.Id == last.Id ? $"{at.Name}: {new Seconds(worst.Seconds)} on one leg without a break."
                       : $"From {at.Name} to {last.Name}: {new Seconds(worst.Seconds)} on one leg without a break.",
                   [.. Repairs(at, last, worst)]) with
               {
                   Behind = $"{worst.First.Side} leg, from {worst.First.Start / 60}:{worst.First.Start % 60:00}.",
               };
    }

    /// <summary>The longest that one leg works without a break, in seconds.</summary>
    public static int Longest(ClassReview review, Course course) => Runs(review, course).Select(r => r.Seconds).DefaultIfEmpty(0).Max();

    private static IEnumerable<Run> Runs(ClassReview review, Course course)
    {
        Run? run = null;
        foreach (var piece in course.Pieces)
        {
            var counts = review.At(piece).IsMainOrActivation && piece.Side is Side.Left or Side.Right;
            if (run is { } before && counts && before.Last.Side == piece.Side && piece.Pause < Thresholds.LegBreak && !piece.AfterOther)
            {
                run = new Run(before.First, piece, before.Seconds + piece.Seconds);
                continue;
            }

            if (run is { } done)
            {
                yield return done;
            }

            run = counts ? new Run(piece, piece, piece.Seconds) : null;
        }

        if (run is { } last)
        {
            yield return last;
        }
    }

    private static IEnumerable<Repair> Repairs(StationAt at, StationAt last, Run run)
    {
        if (at.Id != last.Id)
        {
            if (last.Block.Shape is BlockShape.Circuit or BlockShape.Sets && last.S > 0)
            {
                yield return new Repair(
                    $"{Thresholds.LegBreak} s before {last.Name}", RepairKit.Set(last, "changeSeconds", Thresholds.LegBreak));
            }

            yield break;
        }

        if (at.Station is { Sides: SideRule.Each, Dose: [{ Kind: PartKind.Reps } reps], WithNext: false, Chunk: 0 }
            && (at.S == 0 || !at.Block.Stations[at.S - 1].WithNext))
        {
            var chunk = Math.Max(1, reps.Amount.Values.Max(a => a.To) / 2);
            yield return new Repair($"Change sides every {chunk}", RepairKit.Set(at, "chunk", chunk));
        }

        if (at.Station.Dose is [{ Kind.CanSplit: true, Amount.Values.Length: 1 } only]
            && at.Station.Sides != SideRule.Split && only.Amount.At(0).To is > 2 and var amount)
        {
            yield return new Repair($"A rest of {Thresholds.LegBreak} s half-way", root =>
            {
                var first = root.PartOf(at, 0);
                var second = first.DeepClone().AsObject();
                (first["amount"], second["amount"]) = ((amount + 1) / 2, amount / 2);
                var dose = root.StationOf(at)["dose"]!.AsArray();
                dose.Add(RepairKit.Part("rest", Thresholds.LegBreak));
                dose.Add(second);
            });
        }

        if (run.First.Part != run.Last.Part && at.Station.Dose.Length < 12)
        {
            yield return new Repair($"A rest of {Thresholds.LegBreak} s before part {run.Last.Part + 1}", root =>
                root.StationOf(at)["dose"]!.AsArray().Insert(run.Last.Part, RepairKit.Part("rest", Thresholds.LegBreak)));
        }
    }
}
