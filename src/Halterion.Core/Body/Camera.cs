namespace Halterion.Core.Body;

/// <summary>From where a figure is looked at.</summary>
public enum View
{
    /// <summary>From the right, forward to the right of the picture.</summary>
    Side,
    /// <summary>From the front.</summary>
    Front,

    /// <summary>From in front of the right side, a little above.</summary>
    Quarter,
    /// <summary>From behind.</summary>
    Behind,

    /// <summary>From in front of the right side and well above: what lies there.</summary>
    High,

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

    /// <param name="mirrored">As in a mirror: what the right side does is seen as the left side's.</param>
    public static Camera Of(View view, bool mirrored = false)
    {
        var camera = view switch
        {
            View.Front => new Camera(90, 0),
            View.Quarter => new Camera(38, 14),
            View.Behind => new Camera(-38, 14),
            View.High => new Camera(52, 34),
            View.Above => new Camera(),
            View.Side => new Camera(0, 0),
        };
        return mirrored ? new Camera(-camera.right, camera.up, camera.toward) : camera;
    }

    private Camera(Vec right, Vec up, Vec toward) => (this.right, this.up, this.toward) = (right, up, toward);

    /// <summary>Where a point falls on the picture.</summary>
    public Point On(Vec place) => new(right.Dot(place), up.Dot(place));

    /// <summary>More is nearer.</summary>
    public double Near(Vec place) => toward.Dot(place);
}
