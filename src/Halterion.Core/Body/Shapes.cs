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

    public Shapes Disc(Point centre, double radius)
    {
        Move(centre - new Point(radius, 0));
        Arc(radius, false, centre + new Point(radius, 0));
        Arc(radius, false, centre - new Point(radius, 0));
        return Close();
    }

    /// <summary>Corners in either order: it is drawn the way round that the other outlines are, so that none cuts a hole into another.</summary>
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
