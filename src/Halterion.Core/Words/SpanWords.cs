using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Words;

/// <summary>What each span of the tape is, with its arithmetic: "12 reps × 3 s, right".</summary>
internal static class SpanWords
{
    public static ImmutableArray<string> Of(ClassPlan plan, Timeline timeline)
    {
        var needs = timeline.Stays.GroupBy(s => (s.Block, s.Round)).ToDictionary(g => g.Key, g => g.Max(s => s.Needed));
        return [.. timeline.Spans.Select(span => $"{What(plan, span, needs)}: {span.Length()}")];
    }

    private static string What(ClassPlan plan, Span span, Dictionary<(int, int), Seconds> needs)
    {
        var block = plan.Blocks[span.Block];
        var station = span.Station is { } s ? block.Stations[s] : null;
        return span.Kind switch
        {
            SpanKind.LeadIn => $"{block.Name}, lead-in",
            SpanKind.Talk when span.Shows is { } shown => $"Demo: {plan.Find(shown)?.Station.Name}",
            SpanKind.Talk => station is null ? block.Name : $"Demo: {station.Name}",
            SpanKind.Switch => span.Turn == 1 ? "Swap over or switch sides" : "Switch sides",
            SpanKind.Change => block.Shape == BlockShape.Rotation ? "Move on one station"
                : span.IsDrinkIn(block) ? $"Drink, then {station?.Name}"
                : $"Changeover to {station?.Name ?? "what follows"}",
            SpanKind.Wait => $"{station?.Name}, wait for the bell",
            SpanKind.Rest when span.IsInsideDose => "Rest within the target",
            SpanKind.Rest => Rest(block, span, station),
            SpanKind.Work when block.Shape == BlockShape.Rotation =>
                $"{Round(block, span)}interval {span.Leg + 1} of {block.Stations.Length}, longest target "
                    + $"{needs[(span.Block, span.Round!.Value)]}",
            SpanKind.Work when station is null => $"{block.Name}, at one's own pace",
            SpanKind.Work => $"{Round(block, span)}{station!.Name}, {Work(station.Dose[span.Part!.Value], span)}",
        };
    }

    private static string Rest(Block block, Span span, Station? station) => span.Gap switch
    {
        Gap.Stations => $"Recovery on the way to {station?.Name ?? "what follows"}",
        Gap.End => "Rest after the block",
        Gap.Rounds or null => block.Shape == BlockShape.Sets ? "Rest between sets" : block.Water ? "Drink break" : "Rest between rounds",
    };

    private static string Round(Block block, Span span) =>
        block.Rounds == 1 || span.Round is null ? ""
        : string.Create(CultureInfo.InvariantCulture, $"{block.Shape.RoundWord.Capital()} {span.Round + 1} of "
            + $"{block.Rounds}, ");

    private static string Work(Part part, Span span)
    {
        var side = span.Side switch
        {
            Side.Left => ", left side",
            Side.Right => ", right side",
            Side.Alternate => ", alternating sides",
            null or Side.Both => "",
        };
        var amount = span.Amount ?? 0;
        var cut = part.SecondsFor(amount) > span.Length().Value ? ", cut by the bell" : "";
        return part.Reckoned(amount) + side + cut;
    }
}
