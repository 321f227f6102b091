namespace Halterion.Core.Body;

/// <summary>From where a figure is looked at.</summary>
public enum View
{
    /// <summary>From the right, forward to the right of the picture.</summary>
    Side,
    Front,

    /// <summary>From in front of the right side, a little above.</summary>
    Quarter,
    Behind,

    /// <summary>From above: the feet on the floor.</summary>
    Above,
}

/// <summary>Looks at the room from far away (parallel lines stay parallel) and puts it on paper: right and up.</summary>
public sealed class Camera
{
    private readonly Vec right;
    private readonly Vec up;
    private readonly Vec toward;

    private Camera(double around, double above)
    {
        var (sin, cos) = Math.SinCos(around * Math.PI / 180);
        var (high, level) = Math.SinCos(above * Math.PI / 180);
        right = new Vec(cos, sin, 0);
        var flat = new Vec(sin, -cos, 0);
        toward = flat * level + Vec.Up * high;
        up = Vec.Up * level - flat * high;
    }

    /// <summary>From above, forward up the paper.</summary>
    private Camera()
    {
        (right, up, toward) = (-Vec.Left, Vec.Forward, Vec.Up);
    }

    public static Camera Of(View view) => view switch
    {
        View.Front => new Camera(90, 0),
        View.Quarter => new Camera(38, 14),
        View.Behind => new Camera(-38, 14),
        View.Above => new Camera(),
        _ => new Camera(0, 0),
    };

    public Point On(Vec place) => new(right.Dot(place), up.Dot(place));

    /// <summary>More is nearer.</summary>
    public double Near(Vec place) => toward.Dot(place);
}
