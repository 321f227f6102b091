namespace Halterion.Core.Body;

/// <summary>A place on paper in fractions of stature: x to the right, y up.</summary>
public readonly record struct Point(double X, double Y)
{
    /// <summary>Its distance from the origin.</summary>
    public double Length => Math.Sqrt(X * X + Y * Y);

    /// <summary>The sum.</summary>
    public static Point operator +(Point a, Point b) => new(a.X + b.X, a.Y + b.Y);

    /// <summary>The difference.</summary>
    public static Point operator -(Point a, Point b) => new(a.X - b.X, a.Y - b.Y);

    /// <summary>The product.</summary>
    public static Point operator *(Point a, double k) => new(a.X * k, a.Y * k);

    /// <summary>On the way to another, 0 to 1.</summary>
    public Point Towards(Point to, double share) => this + (to - this) * share;
}
