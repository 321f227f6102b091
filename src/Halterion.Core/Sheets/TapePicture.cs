using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Sheets;

/// <summary>A class as a small tape, for lists: work in the hues of its families, sides as halves, the end of the slot.</summary>
public static class TapePicture
{
    private const int Height = 30;

    private const string Rest = "#cbb679";

    /// <summary>An SVG as wide as the longer of class and slot, one unit a second; empty where a class cannot be read.</summary>
    public static string Of(ClassPlan? plan, Timeline? timeline)
    {
        if (plan is null || timeline is null)
        {
            return $"""<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 {Height}"/>""";
        }

        var slot = 60 * plan.SlotMinutes;
        var length = timeline.Length.Value;
        var width = Math.Max(slot, length);
        var svg = new StringBuilder();
        svg.Append(CultureInfo.InvariantCulture,
            $"""<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width} {Height}" preserveAspectRatio="none">""");
        Rect(svg, 0, 0, Math.Min(slot, length), Height, "#ecdcae");
        if (length > slot)
        {
            Rect(svg, slot, 0, length - slot, Height, "#e8b9b0");
        }

        foreach (var span in timeline.Spans)
        {
            Draw(svg, span, plan.Blocks[span.Block], plan.Moves);
        }

        Rect(svg, slot - width / 300.0, 0, width / 300.0, Height, "#9d2a1f");
        return svg.Append("</svg>").ToString();
    }

    private static void Draw(StringBuilder svg, Span span, Block block, MoveLibrary moves)
    {
        var (start, seconds) = (span.Start.Value, (span.End - span.Start).Value);
        switch (span.Kind)
        {
            case SpanKind.Talk:
                Rect(svg, start, 4, seconds, Height - 8, "#fffdf4");
                break;
            case SpanKind.Rest:
                Rect(svg, start, 12, seconds, Height - 24, Rest);
                break;
            case SpanKind.Work:
                // In a rotation all stations are worked at once: a stripe each.
                var stations = span.Station is { } one ? [block.Stations[one]] : block.Stations;
                var tall = (Height - 6.0) / stations.Length;
                for (var i = 0; i < stations.Length; i++)
                {
                    var half = span.Side is Side.Left or Side.Right && stations.Length == 1;
                    var top = 3 + i * tall + (half && span.Side == Side.Right ? tall / 2 : 0);
                    Rect(svg, start, top, seconds, half ? tall / 2 : tall * 0.94, Hue(moves.Find(stations[i].Main.Move)!.Family));
                }

                break;
        }
    }

    private static void Rect(StringBuilder svg, double x, double y, double width, double height, string fill) =>
        svg.Append(CultureInfo.InvariantCulture,
            $"""<rect x="{x:0.##}" y="{y:0.##}" width="{width:0.##}" height="{height:0.##}" fill="{fill}"/>""");

    private static string Hue(Family family) => family switch
    {
        Family.Squat => "#1f5f8b",
        Family.Lunge => "#9a5b00",
        Family.Hinge => "#2a7d6b",
        Family.Bridge => "#7b3f72",
        Family.Activation or Family.Recovery or Family.Core or Family.Stretch => "#5d666b",
    };
}
