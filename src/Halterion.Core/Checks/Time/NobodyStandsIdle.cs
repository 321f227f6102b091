using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>Nobody waits for the bell for more than half of the window.</summary>
public sealed class NobodyStandsIdle() : Rule(
    "time.idle",
    "Nobody waits long for the bell",
    "Anyone who finishes early cools down, or rushes a second time through.",
    Ours,
    "Where the wait is the rest, as in starts every minute, much of it may be right: then change the limit or say why.")
{
    /// <inheritdoc/>
    public override string? Several => "stations leave people waiting";

    private readonly record struct Wait(int Block, int Station, int Spare, int Window);

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var most = (double)review.Settings.Limit(Code);
        return from wait in Stays(review).Concat(Starts(review))
               where wait.Spare > most * wait.Window
               group wait by (wait.Block, wait.Station) into station
               let worst = station.MaxBy(w => w.Spare)
               let at = review.Stations.First(s => s.B == worst.Block && s.S == worst.Station)
               select Found(
                   Severity.Consider, at.Id,
                   $"{at.Name} is finished {new Seconds(worst.Spare)} before the bell of {new Seconds(worst.Window)}.",
                   [.. Repairs(review, at, worst)]);
    }

    private static IEnumerable<Wait> Stays(ClassReview review) =>
        from stay in review.Timeline.Stays
        where stay.Spans.Any(s => s.Kind == SpanKind.Work)
        select new Wait(stay.Block, stay.Station, stay.SpareSeconds.Value, stay.Window.Value);

    private static IEnumerable<Wait> Starts(ClassReview review) =>
        from span in review.Timeline.Spans
        let block = review.Plan.Blocks[span.Block]
        where span.Kind == SpanKind.Wait && block.Shape == BlockShape.OnTheClock
            && DoseClock.DoesAnything(block.Stations[span.Station!.Value], block, span.Round!.Value)
        select new Wait(span.Block, span.Station!.Value, span.Length().Value, block.StartEvery!.Value.Value);

    private static IEnumerable<Repair> Repairs(ClassReview review, StationAt at, Wait wait)
    {
        if (at.Station.Dose is not [{ Kind.IsWork: true } part] || part.Amount.Values.Length != 1)
        {
            yield break;
        }

        var needed = wait.Window - wait.Spare;
        var amount = part.Amount.At(0).To;
        var fits = needed == 0 ? amount : (int)((long)amount * wait.Window * 3 / 4 / needed);
        if (fits > amount && fits <= 3600)
        {
            yield return new Repair($"Raise the target from {amount} to {fits}", Edit.Set($"{at.Pointer}/dose/0/amount", fits));
        }

        if (part.Kind is PartKind.Reps or PartKind.Pulses or PartKind.Distance && at.Station.Chunk == 0)
        {
            var goes = at.Station.Sides == SideRule.Each ? 2 : 1;
            var time = Math.Max(1,
                wait.Window / goes / (at.Station.Turns ? 2 : 1) - (
                    goes > 1 || at.Station.Turns ? at.Block.SwitchAt(at.Station, 0).Value : 0));
            yield return new Repair($"Work until the bell ({new Seconds(time)}{(goes > 1 ? " each side" : "")})", root =>
            {
                var side = root.PartOf(at, 0)["side"]?.DeepClone();
                var timed = new JsonObject { ["kind"] = "time", ["amount"] = time };
                if (side is not null)
                {
                    timed["side"] = side;
                }

                root.StationOf(at)["dose"]![0] = timed;
            });
        }
    }
}
