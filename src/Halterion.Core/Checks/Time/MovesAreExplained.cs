using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>There are ten seconds of talk for each different move of the main work.</summary>
public sealed class MovesAreExplained() : Rule(
    "time.talk",
    "New moves get time to be shown",
    "Whatever has no time planned is explained while the clock runs, and the class ends late.",
    "Common practice: explaining, mounting and switching take 2–20% of the time")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var moves = review.MainMoves();
        var said = review.Plan.Blocks.Sum(b => (b.Say?.Seconds.Value ?? 0) + b.Stations.Sum(s => s.Say?.Seconds.Value ?? 0));
        var time = said + review.Timeline.Spans.Where(s => s.Kind == SpanKind.Talk).Sum(s => s.Length().Value);
        if (time < Thresholds.TalkEach * moves.Length)
        {
            yield return Found(
                Severity.Consider, PlaceId.Class,
                $"{Counted.Of(moves.Length, "move", "moves")} in the main blocks, but "
                    + $"{(time == 0 ? "no time" : $"only {new Seconds(time)}")} to show "
                + (moves.Length == 1 ? "it." : "them."),
                [.. Demos(review)]);
        }
    }

    private static IEnumerable<Repair> Demos(ClassReview review)
    {
        var shown = review.MainStations.Where(s => s.Block.Shape.IsOneByOne
            && s.Station.Demo.Values.Length == 0 && s.Station.Say is null).ToArray();
        if (shown.Length > 0)
        {
            yield return new Repair("10 s to show each", [.. shown.Select(s => Edit.Set($"{s.Pointer}/demoSeconds", Thresholds.TalkEach))]);
        }

        var first = review.Plan.Blocks.ToList().FindIndex(b => ClassReview.IsMain(b) && b.Stations.Length > 0);
        if (first >= 0)
        {
            yield return new Repair("A walk-through of 10 s each before the main work", root => root.Blocks().Insert(first, new JsonObject
            {
                ["name"] = "Walk-through",
                ["phase"] = "talk",
                ["format"] = "talk",
                ["show"] = new JsonArray([.. review.MainStations.Take(60)
                    .Select(s => new JsonObject { ["station"] = s.Id.Value,
                        ["seconds"] = Thresholds.TalkEach * Math.Max(1, review.Works(s).Select(p => p.Move.Id).Distinct().Count()) })]),
            }));
        }
    }
}
