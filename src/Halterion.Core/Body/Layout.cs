using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>Stills in rows, so that they are as large as they can be where a figure usually stands.</summary>
/// <param name="Places">By how much each is moved.</param>
/// <param name="Above">Of the first row, over its floor.</param>
internal sealed record Layout(ImmutableArray<(double X, double Y)> Places, double Width, double Height, double Above)
{
    private const double Between = 2;

    /// <summary>Width to height of the places that figures have on cards and screens. [M]</summary>
    private const double Place = 1.25;

    /// <param name="backwards">From right to left.</param>
    public static Layout Of(IReadOnlyList<Figure.Box> boxes, bool backwards)
    {
        var best = Enumerable.Range(1, boxes.Count)
            .Select(columns => In(boxes, columns))
            .OrderByDescending(l => Math.Min(Place / l.Width, 1 / l.Height))
            .First();
        return backwards
            ? best with { Places = [.. best.Places.Select((p, i) => (best.Width - p.X - 2 * boxes[i].Left - boxes[i].Width, p.Y))] }
            : best;
    }

    private static Layout In(IReadOnlyList<Figure.Box> boxes, int columns)
    {
        var places = ImmutableArray.CreateBuilder<(double, double)>();
        double width = 0, floor = 0;
        var rows = boxes.Chunk(columns).ToArray();
        var (left, right) = (boxes.Min(b => b.Left), boxes.Max(b => b.Left + b.Width));
        foreach (var (row, n) in rows.Select((row, n) => (row, n)))
        {
            // Under each other what is the same stands at the same place.
            var x = 0.0;
            floor += n == 0 ? 0 : rows[n - 1].Max(b => b.Below) + Between + row.Max(b => b.Above);
            foreach (var box in row)
            {
                places.Add((x - (columns == 1 ? left : box.Left), floor));
                x += columns == 1 ? right - left : box.Width + Between;
            }

            width = Math.Max(width, columns == 1 ? x : x - Between);
        }

        var above = rows[0].Max(b => b.Above);
        return new Layout(places.ToImmutable(), width, above + floor + rows[^1].Max(b => b.Below), above);
    }
}
