namespace Halterion.Core.Body;

/// <summary>A place or a way in the room: x forward, y to the person's left, z up. In fractions of stature unless it says metres.</summary>
public readonly record struct Vec(double X, double Y, double Z)
{
    /// <summary>Ahead of a body that stands.</summary>
    public static readonly Vec Forward = new(1, 0, 0);
    /// <summary>To its left.</summary>
    public static readonly Vec Left = new(0, 1, 0);
    /// <summary>Upwards.</summary>
    public static readonly Vec Up = new(0, 0, 1);

    /// <summary>How long it is.</summary>
    public double Length => Math.Sqrt(X * X + Y * Y + Z * Z);

    /// <summary>The same direction, one long.</summary>
    public Vec Unit => Length is > 1e-12 and var length ? this * (1 / length) : Forward;

    /// <summary>The sum.</summary>
    public static Vec operator +(Vec a, Vec b) => new(a.X + b.X, a.Y + b.Y, a.Z + b.Z);

    /// <summary>The difference.</summary>
    public static Vec operator -(Vec a, Vec b) => new(a.X - b.X, a.Y - b.Y, a.Z - b.Z);

    /// <summary>The difference.</summary>
    public static Vec operator -(Vec a) => new(-a.X, -a.Y, -a.Z);

    /// <summary>The product.</summary>
    public static Vec operator *(Vec a, double by) => new(a.X * by, a.Y * by, a.Z * by);

    /// <inheritdoc/>
    public override string ToString() => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"({X:0.###}, "
        + $"{Y:0.###}, {Z:0.###})");

    /// <summary>The dot product.</summary>
    public double Dot(Vec b) => X * b.X + Y * b.Y + Z * b.Z;

    /// <summary>The cross product.</summary>
    public Vec Cross(Vec b) => new(Y * b.Z - Z * b.Y, Z * b.X - X * b.Z, X * b.Y - Y * b.X);

    /// <summary>On the way to another, 0 to 1.</summary>
    public Vec Towards(Vec b, double share) => this + (b - this) * share;

    /// <summary>The part of it that stands square on an axis.</summary>
    public Vec Beside(Vec axis) => this - axis * Dot(axis);
}

/// <summary>A turn of the room, as a unit quaternion: it turns one set of axes into another without a seam.</summary>
public readonly record struct Turn(double W, double X, double Y, double Z)
{
    /// <summary>No turn.</summary>
    public static readonly Turn None = new(1, 0, 0, 0);

    /// <summary>About the way up, left positive; degrees.</summary>
    public static Turn Yaw(double degrees) => About(Vec.Up, degrees);

    /// <summary>About the way to the left: leaning forward positive; degrees.</summary>
    public static Turn Pitch(double degrees) => About(Vec.Left, degrees);

    /// <summary>About the way forward: tipping to the right positive; degrees.</summary>
    public static Turn Roll(double degrees) => About(Vec.Forward, degrees);

    /// <summary>The turn that brings forward and up to two given ways; the first is made square to the second.</summary>
    public static Turn To(Vec forward, Vec up)
    {
        var z = up.Unit;
        var x = forward.Beside(z);
        x = x.Length < 1e-9 ? (Math.Abs(z.X) < 0.9 ? Vec.Forward : Vec.Left).Beside(z).Unit : x.Unit;
        var y = z.Cross(x);
        return Of(x, y, z);
    }

    /// <summary>A direction after the turn.</summary>
    public Vec Of(Vec v)
    {
        var axis = new Vec(X, Y, Z);
        var twice = axis.Cross(v) * 2;
        return v + twice * W + axis.Cross(twice);
    }

    /// <summary>The turn back.</summary>
    public Turn Inverse => new(W, -X, -Y, -Z);

    /// <summary>The product.</summary>
    public static Turn operator *(Turn a, Turn b) => new(
        a.W * b.W - a.X * b.X - a.Y * b.Y - a.Z * b.Z,
        a.W * b.X + a.X * b.W + a.Y * b.Z - a.Z * b.Y,
        a.W * b.Y - a.X * b.Z + a.Y * b.W + a.Z * b.X,
        a.W * b.Z + a.X * b.Y - a.Y * b.X + a.Z * b.W);

    /// <summary>The shorter way round, at an even speed (Shoemake 1985).</summary>
    public Turn Towards(Turn b, double share)
    {
        var dot = W * b.W + X * b.X + Y * b.Y + Z * b.Z;
        var sign = dot < 0 ? -1 : 1;
        dot = Math.Min(1, Math.Abs(dot));
        var angle = Math.Acos(dot);
        var (p, q) = angle < 1e-6
            ? (1 - share, share)
            : (Math.Sin((1 - share) * angle) / Math.Sin(angle), Math.Sin(share * angle) / Math.Sin(angle));
        q *= sign;
        return new Turn(W * p + b.W * q, X * p + b.X * q, Y * p + b.Y * q, Z * p + b.Z * q).Whole();
    }

    private Turn Whole()
    {
        var length = Math.Sqrt(W * W + X * X + Y * Y + Z * Z);
        return new Turn(W / length, X / length, Y / length, Z / length);
    }

    private static Turn About(Vec axis, double degrees)
    {
        var (sin, cos) = Math.SinCos(degrees * Math.PI / 360);
        return new Turn(cos, axis.X * sin, axis.Y * sin, axis.Z * sin);
    }

    /// <summary>From the columns of a rotation matrix (Shepperd 1978).</summary>
    private static Turn Of(Vec x, Vec y, Vec z)
    {
        var trace = x.X + y.Y + z.Z;
        if (trace > 0)
        {
            var s = Math.Sqrt(trace + 1) * 2;
            return new Turn(s / 4, (y.Z - z.Y) / s, (z.X - x.Z) / s, (x.Y - y.X) / s).Whole();
        }

        if (x.X > y.Y && x.X > z.Z)
        {
            var s = Math.Sqrt(1 + x.X - y.Y - z.Z) * 2;
            return new Turn((y.Z - z.Y) / s, s / 4, (y.X + x.Y) / s, (z.X + x.Z) / s).Whole();
        }

        if (y.Y > z.Z)
        {
            var s = Math.Sqrt(1 + y.Y - x.X - z.Z) * 2;
            return new Turn((z.X - x.Z) / s, (y.X + x.Y) / s, s / 4, (z.Y + y.Z) / s).Whole();
        }

        var r = Math.Sqrt(1 + z.Z - x.X - y.Y) * 2;
        return new Turn((x.Y - y.X) / r, (z.X + x.Z) / r, (z.Y + y.Z) / r, r / 4).Whole();
    }
}
