using System.Text.Json.Nodes;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>There is a drink break in any twenty minutes of work.</summary>
public sealed class ThereIsADrinkBreak() : Rule(
    "time.drink",
    "There is a drink break every 20 min of work",
    "People do not drink unless they are told to, and it shows in the last third.",
    Common,
    "Some let everyone sip whenever they like; then nobody misses a target for it only where it has a rest.")
{
    private readonly record struct Stretch(int Start, int End)
    {
        public int Seconds => End - Start;
    }

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var most = 60 * review.Settings.Limit(Code);
        var longest = Stretches(review).OrderByDescending(s => s.Seconds).FirstOrDefault();
        if (longest.Seconds > most)
        {
            yield return Found(
                Severity.Consider, PlaceId.Class,
                $"{new Seconds(longest.Seconds)} of work without a drink break. Plan one at least every "
                + $"{new Seconds((int)most)}.",
                new Repair($"Add a {Thresholds.DrinkBreak} s drink break", () => Ways(review, longest))) with
            {
                Behind = $"From {Clock(longest.Start)} to {Clock(longest.End)} into the class.",
            };
        }
    }

    private static string Clock(int seconds) => $"{seconds / 60}:{seconds % 60:00}";

    /// <summary>From the first work after a break to the last before the next.</summary>
    private static IEnumerable<Stretch> Stretches(ClassReview review)
    {
        int? start = null;
        var end = 0;
        foreach (var span in review.Timeline.Spans)
        {
            if (span.Kind == SpanKind.Work)
            {
                start ??= span.Start.Value;
                end = span.End.Value;
            }
            else if (start is { } from && IsBreak(review.Plan.Blocks[span.Block], span))
            {
                yield return new Stretch(from, end);
                start = null;
            }
        }

        if (start is { } last)
        {
            yield return new Stretch(last, end);
        }
    }

    private static bool IsBreak(Block block, Span span) => span.IsDrinkIn(block)
        && (span.Kind == SpanKind.Talk || span.Length().Value >= Thresholds.DrinkBreak);

    /// <summary>A rest between rounds near the middle of the stretch; else a break between two blocks.</summary>
    private static IEnumerable<Action<JsonObject>> Ways(ClassReview review, Stretch stretch)
    {
        var middle = (stretch.Start + stretch.End) / 2;
        int Far(IEnumerable<Span> spans) => spans.Min(s => Math.Abs((s.Start.Value + s.End.Value) / 2 - middle));
        var rests = review.Timeline.Spans
            .Where(s => s.Start.Value > stretch.Start && s.End.Value < stretch.End
                && s.Gap is { } gap && gap == review.Plan.Blocks[s.Block].Shape.DrinkGap)
            .GroupBy(s => s.Block).OrderBy(Far);
        foreach (var near in rests)
        {
            var (block, longest) = (review.Plan.Blocks[near.Key], Math.Max(Thresholds.DrinkBreak, near.Max(s => s.Length().Value)));
            yield return root =>
            {
                var json = root.BlockAt(near.Key);
                json["water"] = true;
                if (block.Shape.DrinkGap == Gap.Stations)
                {
                    json["betweenStations"] = Math.Max(block.BetweenStations.Value, Thresholds.DrinkBreak);
                }
                else if (near.Any(s => s.Length().Value < Thresholds.DrinkBreak))
                {
                    json["betweenRounds"] = longest;
                }
            };
        }

        foreach (var before in Enumerable.Range(1, review.Plan.Blocks.Length - 1)
            .OrderBy(b => Far(review.Timeline.Spans.Where(s => s.Block == b).DefaultIfEmpty(review.Timeline.Spans[^1]).Take(1))))
        {
            yield return root => root.Blocks().Insert(before, new JsonObject
            {
                ["name"] = "Drink break",
                ["phase"] = "talk",
                ["format"] = "talk",
                ["seconds"] = Thresholds.DrinkBreak,
                ["water"] = true,
            });
        }
    }
}
