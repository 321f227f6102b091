using System.Collections.Immutable;
using System.Globalization;
using System.Security;
using System.Text;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Views;

/// <summary>Which groups are where after so many bells.</summary>
/// <param name="Words">Such as "after bell 2".</param>
/// <param name="Groups">By station: the number of the group that is there, from 1.</param>
public sealed record FloorWindow(string Words, ImmutableArray<int> Groups);

/// <summary>The floor of a block from above, with what stands on it when.</summary>
/// <param name="Windows">Of a rotation; none elsewhere.</param>
/// <param name="Svg">The same as a drawing for print and for others.</param>
/// <param name="Known">The room is one that was measured; else its size is only a usual one, and whether all fits is not known.</param>
public sealed record FloorView(PlaceId Block, string Name, FloorPlan Floor, ImmutableArray<FloorWindow> Windows, string Svg, bool Known)
{
    /// <param name="rotates">Groups move round; else everyone is at one station at a time.</param>
    /// <param name="known">The room is one that was measured.</param>
    public static FloorView Of(Block block, FloorPlan floor, bool rotates, bool known = true)
    {
        var many = floor.Stations.Length;
        var windows = rotates
            ? Enumerable.Range(0, many).Select(w => new FloorWindow(
                w == 0 ? "at the start" : string.Create(CultureInfo.InvariantCulture, $"after bell {w}"),
                [.. Enumerable.Range(0, many).Select(s => ((s - w) % many + many) % many + 1)])).ToImmutableArray()
            : [];
        return new FloorView(
            block.Id, block.Name, floor, windows, FloorPicture.Of(block.Name, floor, rotates ? windows[0].Groups : [], rotates), known);
    }
}

/// <summary>The floor as a drawing to scale, 100 units a metre; black lines on white, so that it prints in grey.</summary>
public static class FloorPicture
{
    private const int Metre = 100;
    private const int Edge = 60;

    /// <summary>The floor as a picture.</summary>
    public static string Of(string title, FloorPlan floor, ImmutableArray<int> groups, bool arrows)
    {
        var (w, l) = ((double)floor.Hall.WidthM * Metre, (double)floor.Hall.LengthM * Metre);
        var svg = new StringBuilder();
        void Put(params FormattableString[] parts) => svg.AppendJoin("", parts.Select(FormattableString.Invariant)).Append('\n');
        Put($"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"{-Edge} {-Edge} {w + 2 * Edge} {l + 2 * Edge}\" ",
            $"font-family=\"sans-serif\" text-anchor=\"middle\">");
        Put($"<title>{Safe(title)}: floor plan, {floor.Hall.WidthM:0.##} by {floor.Hall.LengthM:0.##} metres</title>");
        Put($"<defs><marker id=\"tip\" viewBox=\"0 0 8 8\" refX=\"7\" refY=\"4\" markerWidth=\"7\" markerHeight=\"7\" ",
            $"orient=\"auto\"><path d=\"M0 0L8 4L0 8Z\"/></marker></defs>");
        Put($"<rect x=\"0\" y=\"0\" width=\"{w}\" height=\"{l}\" fill=\"#fff\" stroke=\"#222\" stroke-width=\"8\"/>");
        foreach (var f in floor.Hall.Fixtures)
        {
            var (x, y, width, length) = ((double)f.X * Metre, (double)f.Y * Metre, (double)f.WidthM * Metre, (double)f.LengthM * Metre);
            var fill = f.Kind == FixtureKind.Door ? "#fff" : "#bbb";
            Put($"<rect x=\"{x}\" y=\"{y}\" width=\"{width}\" height=\"{length}\" fill=\"{fill}\" stroke=\"#222\" stroke-width=\"3\"/>");
            var name = f.Name ?? PlanFormat.WordsOf<FixtureKind>.Of(f.Kind);
            Put($"<text x=\"{x + width / 2}\" y=\"{y + length / 2 + 8}\" font-size=\"24\">{Safe(name)}</text>");
        }

        for (var i = 0; arrows && floor.Stations.Length > 1 && i < floor.Stations.Length; i++)
        {
            var (x1, y1, x2, y2) = Way(floor.Stations[i], floor.Stations[(i + 1) % floor.Stations.Length]);
            Put($"<path d=\"M{x1:0} {y1:0}L{x2:0} {y2:0}\" stroke=\"#222\" stroke-width=\"5\" stroke-dasharray=\"16 10\" ",
                $"marker-end=\"url(#tip)\"/>");
        }

        for (var i = 0; i < floor.Stations.Length; i++)
        {
            var s = floor.Stations[i];
            var (x, y, width, length) = (s.X * Metre, s.Y * Metre, s.WidthM * Metre, s.LengthM * Metre);
            var dashes = s.Lane ? " stroke-dasharray=\"20 12\"" : "";
            Put($"<rect x=\"{x - width / 2}\" y=\"{y - length / 2}\" width=\"{width}\" height=\"{length}\" rx=\"14\" fill=\"#f3efe2\" ",
                $"stroke=\"#222\" stroke-width=\"4\"{dashes}/>");
            Put($"<text x=\"{x}\" y=\"{y - 8}\" font-size=\"54\" font-weight=\"700\">{s.Number}</text>");
            Put($"<text x=\"{x}\" y=\"{y + 30}\" font-size=\"26\">{Safe(s.Name)}</text>");
            if (i < groups.Length)
            {
                Put($"<circle cx=\"{x + width / 2 - 34}\" cy=\"{y - length / 2 + 34}\" r=\"26\" fill=\"#222\"/>");
                Put($"<text x=\"{x + width / 2 - 34}\" y=\"{y - length / 2 + 45}\" font-size=\"32\" fill=\"#fff\">{groups[i]}</text>");
            }
        }

        Put($"<text x=\"{w / 2}\" y=\"{l + 44}\" font-size=\"28\">{floor.Hall.WidthM:0.##} m × ",
            $"{floor.Hall.LengthM:0.##} m, front at the top; ",
            $"dark circles are the groups at the start</text>");
        return svg.Append("</svg>\n").ToString();
    }

    /// <summary>From the edge of one station to the edge of the next, in units.</summary>
    public static (double X1, double Y1, double X2, double Y2) Way(FloorStation from, FloorStation to)
    {
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        var far = Math.Max(0.01, Math.Sqrt(dx * dx + dy * dy));
        double Out(FloorStation s) =>
            Math.Min(far / 2 - 0.05,
                Math.Min(s.WidthM / 2 / Math.Max(0.001, Math.Abs(dx / far)), s.LengthM / 2 / Math.Max(0.001, Math.Abs(dy / far))));
        var (a, b) = (Out(from), Out(to));
        return (
            (from.X + dx / far * a) * Metre, (from.Y + dy / far * a) * Metre, (to.X - dx / far * b) * Metre, (to.Y - dy / far * b) * Metre);
    }

    private static string Safe(string text) => SecurityElement.Escape(text);
}
