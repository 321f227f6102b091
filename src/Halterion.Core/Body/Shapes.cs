using System.Globalization;
using System.Text;

namespace Halterion.Core.Body;

/// <summary>Filled outlines as an SVG path, in hundredths of stature, y down. Sizes go in as fractions of stature.</summary>
internal sealed class Shapes
{
    private readonly StringBuilder path = new();

    /// <summary>A limb: rounded at both ends, thicker at one of them. [M] Thicknesses are of the drawing, not measured.</summary>
    public Shapes Capsule(Point from, double thick, Point to, double thin)
    {
        var way = to - from;
        if (way.Length < Math.Abs(thick - thin) + 1e-6)
        {
            return Disc(thick >= thin ? from : to, Math.Max(thick, thin));
        }

        // The outer tangents of two circles touch both at one and the same angle.
        var angle = Math.Atan2(way.Y, way.X);
        var touch = Math.Acos((thick - thin) / way.Length);
        Point At(Point centre, double radius, double of) => centre + new Point(radius * Math.Cos(of), radius * Math.Sin(of));
        Move(At(from, thick, angle + touch));
        Arc(thick, touch < Math.PI / 2, At(from, thick, angle - touch));
        To(At(to, thin, angle - touch));
        Arc(thin, touch > Math.PI / 2, At(to, thin, angle + touch));
        return Close();
    }

    /// <summary>The skin around some discs: what a thread laid around them would enclose. A disc of no size is a corner.</summary>
    public Shapes Hull(IReadOnlyList<(Point At, double Radius)> discs)
    {
        const int around = 24;
        var points = new List<(Point At, int Disc)>();
        for (var d = 0; d < discs.Count; d++)
        {
            var (at, radius) = discs[d];
            for (var i = 0; i < (radius > 0 ? around : 1); i++)
            {
                var angle = 2 * Math.PI * i / around;
                points.Add((at + new Point(radius * Math.Cos(angle), radius * Math.Sin(angle)), d));
            }
        }

        // Andrew's monotone chain (1979).
        points.Sort((a, b) => a.At.X != b.At.X ? a.At.X.CompareTo(b.At.X) : a.At.Y.CompareTo(b.At.Y));
        List<(Point At, int Disc)> Half(IEnumerable<(Point At, int Disc)> row)
        {
            var chain = new List<(Point At, int Disc)>();
            foreach (var p in row)
            {
                while (chain.Count > 1 && Cross(chain[^2].At, chain[^1].At, p.At) <= 1e-9)
                {
                    chain.RemoveAt(chain.Count - 1);
                }

                chain.Add(p);
            }

            chain.RemoveAt(chain.Count - 1);
            return chain;
        }

        static double Cross(Point o, Point a, Point b) => (a.X - o.X) * (b.Y - o.Y) - (a.Y - o.Y) * (b.X - o.X);
        List<(Point At, int Disc)> skin = [.. Half(points), .. Half(Enumerable.Reverse(points))];

        // It is begun where one disc ends, so that what lies on one disc can be one arc; the last one closes it.
        var start = skin.FindIndex(p => p.Disc != skin[(skin.IndexOf(p) + skin.Count - 1) % skin.Count].Disc);
        if (start < 0)
        {
            return Disc(discs[skin[0].Disc].At, discs[skin[0].Disc].Radius);
        }

        Move(skin[start].At);
        for (var i = 0; i < skin.Count;)
        {
            var first = skin[(start + i) % skin.Count];
            var length = 1;
            while (i + length < skin.Count && skin[(start + i + length) % skin.Count].Disc == first.Disc)
            {
                length++;
            }

            if (i > 0)
            {
                To(first.At);
            }

            if (length > 1)
            {
                Arc(discs[first.Disc].Radius, length - 1 > around / 2, skin[(start + i + length - 1) % skin.Count].At);
            }

            i += length;
        }

        return Close();
    }

    public Shapes Disc(Point centre, double radius)
    {
        Move(centre - new Point(radius, 0));
        Arc(radius, false, centre + new Point(radius, 0));
        Arc(radius, false, centre - new Point(radius, 0));
        return Close();
    }

    /// <summary>
    /// Corners in either order: it is drawn the way round that the other outlines are, so that none cuts a hole into another.
    /// </summary>
    public Shapes Polygon(params ReadOnlySpan<Point> corners)
    {
        var area = 0.0;
        for (var i = 0; i < corners.Length; i++)
        {
            var next = corners[(i + 1) % corners.Length];
            area += corners[i].X * next.Y - next.X * corners[i].Y;
        }

        for (var i = 0; i < corners.Length; i++)
        {
            var corner = corners[area >= 0 ? i : corners.Length - 1 - i];
            if (i == 0)
            {
                Move(corner);
            }
            else
            {
                To(corner);
            }
        }

        return Close();
    }

    public override string ToString() => path.ToString();

    private void Move(Point p) => path.Append(CultureInfo.InvariantCulture, $"M{X(p)} {Y(p)}");

    private void To(Point p) => path.Append(CultureInfo.InvariantCulture, $"L{X(p)} {Y(p)}");

    private void Arc(double radius, bool large, Point to) =>
        path.Append(CultureInfo.InvariantCulture, $"A{Round(100 * radius)} {Round(100 * radius)} 0 {(large ? 1 : 0)} 0 {X(to)} {Y(to)}");

    private Shapes Close()
    {
        path.Append('Z');
        return this;
    }

    public static double X(Point p) => Round(100 * p.X);

    public static double Y(Point p) => Round(-100 * p.Y);

    public static double Round(double value) => Math.Round(value, 1);
}
