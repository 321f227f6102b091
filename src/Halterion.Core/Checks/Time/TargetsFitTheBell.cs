using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Checks;

/// <summary>A target must fit the window in which it is to be done.</summary>
public sealed class TargetsFitTheBell() : Rule(
    "time.target",
    "Targets fit before the bell",
    "A target no one can reach makes people rush, and form slips.", Common)
{
    /// <inheritdoc/>
    public override string? Several => "targets do not fit before the bell";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from late in Stays(review.Timeline).Concat(Cuts(review.Timeline))
        group late by (late.Block, late.Station) into station
        select Late(review, station.MaxBy(s => (s.Needed - s.Window).Value)!);

    private static IEnumerable<CutDose> Stays(Timeline timeline) =>
        from stay in timeline.Stays
        where stay.Needed > stay.Window
        select new CutDose(stay.Block, stay.Round, stay.Station, stay.Window, stay.Needed);

    private static IEnumerable<CutDose> Cuts(Timeline timeline) => timeline.Cuts;

    private Finding Late(ClassReview review, CutDose cut)
    {
        var block = review.Plan.Blocks[cut.Block];
        var station = block.Stations[cut.Station];
        var target = PlanWords.Target(station, block, cut.Round);
        return Found(Severity.Fix, station.Id, $"{station.Name}: {target} takes {cut.Needed}, but the bell rings after {cut.Window}.",
            [.. Repairs(block, station, cut)]);
    }

    private static IEnumerable<Repair> Repairs(Block block, Station station, CutDose cut)
    {
        var place = $"/blocks/{cut.Block}/stations/{cut.Station}/dose";
        var counted = station.Dose.Where(p => p.Kind.IsWork).ToImmutableArray();
        if (counted is [var part] && part.Amount.Values.Length == 1 && Fitting(block, station, part, cut) is { } fits)
        {
            var smaller = part with { Amount = new ByRound<Amount>(new Amount(fits)) };
            yield return new Repair(
                $"{PlanWords.Part(part, 0)} → {PlanWords.Part(smaller, 0)}",
                Edit.Set($"{place}/{station.Dose.IndexOf(part)}/amount", fits));
        }

        var needed = new Seconds((cut.Needed.Value + 4) / 5 * 5);
        if (needed.Value > 1800)
        {
            yield break;
        }

        if (block.Window is { Values.Length: 1 })
        {
            yield return new Repair($"Ring the bell after {needed}", Edit.Set($"/blocks/{cut.Block}/windowSeconds", needed));
        }
        else if (block.Shape == BlockShape.OnTheClock)
        {
            yield return new Repair(
                $"Start every {needed} instead of {cut.Window}", Edit.Set($"/blocks/{cut.Block}/startEverySeconds", needed));
        }
    }

    /// <summary>The largest amount of the part that fits the window; null if not even one does.</summary>
    private static int? Fitting(Block block, Station station, Part part, CutDose cut)
    {
        var (fits, tooMuch) = (0, part.Amount.At(0).To);
        while (tooMuch - fits > 1)
        {
            var amount = (fits + tooMuch) / 2;
            var tried = station with { Dose = station.Dose.Replace(part, part with { Amount = new ByRound<Amount>(new Amount(amount)) }) };
            var needed = DoseClock.Total(DoseClock.Stretches(tried, block, cut.Round, Side.Both));
            (fits, tooMuch) = needed <= cut.Window.Value ? (amount, tooMuch) : (fits, amount);
        }

        return fits > 0 ? fits : null;
    }
}
