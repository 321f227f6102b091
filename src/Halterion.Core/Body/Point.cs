namespace Halterion.Core.Body;

/// <summary>A place on paper in fractions of stature: x to the right, y up.</summary>
public readonly record struct Point(double X, double Y)
{
    public double Length => Math.Sqrt(X * X + Y * Y);

    public static Point operator +(Point a, Point b) => new(a.X + b.X, a.Y + b.Y);

    public static Point operator -(Point a, Point b) => new(a.X - b.X, a.Y - b.Y);

    public static Point operator *(Point a, double k) => new(a.X * k, a.Y * k);

    public Point Towards(Point to, double share) => this + (to - this) * share;
}
