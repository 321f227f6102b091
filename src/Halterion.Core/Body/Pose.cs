using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>A place in fractions of stature: x forward (to the toes), y up from the floor.</summary>
public readonly record struct Point(double X, double Y)
{
    public static Point operator +(Point a, Point b) => new(a.X + b.X, a.Y + b.Y);

    public static Point operator -(Point a, Point b) => new(a.X - b.X, a.Y - b.Y);

    public static Point operator *(Point a, double k) => new(a.X * k, a.Y * k);

    public double Length => Math.Sqrt(X * X + Y * Y);

    /// <summary>A step of a length; the angle in degrees from straight up, forward positive.</summary>
    public static Point Up(double degrees, double length) => new(length * Math.Sin(Radians(degrees)), length * Math.Cos(Radians(degrees)));

    /// <summary>A step of a length; the angle in degrees from straight down, forward positive.</summary>
    public static Point Down(double degrees, double length) => new(length * Math.Sin(Radians(degrees)), -length * Math.Cos(Radians(degrees)));

    public Point Towards(Point to, double share) => this + (to - this) * share;

    private static double Radians(double degrees) => degrees * Math.PI / 180;
}

/// <summary>A leg from the hip down.</summary>
public sealed record Leg(Point Hip, Point Knee, Point Ankle, Point Heel, Point Toe)
{
    /// <summary>Degrees between thigh and shank; 0 is straight.</summary>
    public double KneeFlexion => Angles.Between(Knee - Hip, Ankle - Knee);

    /// <summary>Degrees of the shank from upright, forward positive.</summary>
    public double ShinLean => Angles.FromUp(Knee - Ankle);

    /// <summary>Degrees of the thigh from level: 0 is level, 90 upright, below 0 the hip is lower than the knee.</summary>
    public double ThighRise => Math.Atan2(Hip.Y - Knee.Y, Math.Abs(Hip.X - Knee.X)) * 180 / Math.PI;
}

public sealed record Arm(Point Shoulder, Point Elbow, Point Hand);

/// <summary>A weight that is held.</summary>
/// <param name="Share">Of the body's mass.</param>
public sealed record HeldWeight(Point At, double Share);

/// <summary>Kit or support as it is drawn.</summary>
/// <param name="Kind">bench, box, wall, chair, mat, weight, band, bar, ball.</param>
public sealed record Prop(string Kind, Point From, Point To);

/// <summary>A body at rest, seen from the side or from the front.</summary>
/// <param name="Near">The leg on the viewer's side, the working one where only one works.</param>
/// <param name="Support">Where it stands, lies or leans, in x.</param>
public sealed record Pose(
    Point Hip,
    Point Shoulder,
    Point Head,
    Leg Near,
    Leg Far,
    Arm NearArm,
    Arm FarArm,
    ImmutableArray<double> Support,
    ImmutableArray<Prop> Props,
    HeldWeight? Weight = null,
    bool FromFront = false)
{
    /// <summary>Only the near foot bears.</summary>
    public bool OnOneFoot { get; init; }

    /// <summary>Degrees of the trunk from upright, forward positive.</summary>
    public double TrunkLean => Angles.FromUp(Shoulder - Hip);

    /// <summary>Degrees between trunk and near thigh; 0 is straight.</summary>
    public double HipFlexion => Angles.Between(Shoulder - Hip, Hip - Near.Knee);

    /// <summary>Centre of mass of body and held weight.</summary>
    public Point CentreOfMass
    {
        get
        {
            var (sum, mass) = (new Point(0, 0), 0.0);
            foreach (var (at, share) in Masses())
            {
                (sum, mass) = (sum + at * share, mass + share);
            }

            return sum * (1 / mass);
        }
    }

    /// <summary>Where the masses lie.</summary>
    public IEnumerable<(Point At, double Share)> Masses()
    {
        yield return (Head, Anthropometry.HeadMass);
        yield return (Hip.Towards(Shoulder, Anthropometry.TrunkCentre), Anthropometry.TrunkMass);
        foreach (var arm in new[] { NearArm, FarArm })
        {
            yield return (arm.Shoulder.Towards(arm.Elbow, Anthropometry.UpperArmCentre), Anthropometry.UpperArmMass);
            yield return (arm.Elbow.Towards(arm.Hand, Anthropometry.ForearmHandCentre), Anthropometry.ForearmHandMass);
        }

        foreach (var leg in new[] { Near, Far })
        {
            foreach (var part in LegMasses(leg))
            {
                yield return part;
            }
        }

        if (Weight is { } held)
        {
            yield return (held.At, held.Share);
        }
    }

    internal static IEnumerable<(Point At, double Share)> LegMasses(Leg leg) =>
    [
        (leg.Hip.Towards(leg.Knee, Anthropometry.ThighCentre), Anthropometry.ThighMass),
        (leg.Knee.Towards(leg.Ankle, Anthropometry.ShankCentre), Anthropometry.ShankMass),
        (leg.Heel.Towards(leg.Toe, Anthropometry.FootCentre), Anthropometry.FootMass),
    ];

    /// <summary>Whether the centre of mass lies over the base of support; where not, the side to which the body falls.</summary>
    public Balance Balance =>
        CentreOfMass.X < Support.Min() - Tolerance ? Balance.FallsBack
        : CentreOfMass.X > Support.Max() + Tolerance ? Balance.FallsForward
        : Balance.Stands;

    private const double Tolerance = 0.002;
}

public enum Balance
{
    Stands,
    FallsBack,
    FallsForward,
}

internal static class Angles
{
    /// <summary>Degrees between two directions.</summary>
    public static double Between(Point a, Point b)
    {
        var cosine = (a.X * b.X + a.Y * b.Y) / (a.Length * b.Length);
        return Math.Acos(Math.Clamp(cosine, -1, 1)) * 180 / Math.PI;
    }

    /// <summary>Degrees from straight up, forward positive.</summary>
    public static double FromUp(Point direction) => Math.Atan2(direction.X, direction.Y) * 180 / Math.PI;

    /// <summary>
    /// The joint between two ends of a limb of two segments; the nearest reachable place where the ends are too far apart.
    /// </summary>
    /// <param name="side">+1: the joint lies to the left of the way from <paramref name="from"/> to <paramref name="to"/>; -1: to its right.</param>
    public static Point Joint(Point from, Point to, double first, double second, int side)
    {
        var way = to - from;
        var distance = Math.Clamp(way.Length, Math.Abs(first - second) + 1e-6, first + second - 1e-6);
        var along = (first * first - second * second + distance * distance) / (2 * distance);
        var across = Math.Sqrt(Math.Max(0, first * first - along * along));
        var unit = way * (1 / Math.Max(way.Length, 1e-9));
        return from + unit * along + new Point(-unit.Y, unit.X) * (side * across);
    }
}
