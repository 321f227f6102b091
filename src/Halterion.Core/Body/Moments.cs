namespace Halterion.Core.Body;

/// <summary>Static moments at one leg, N·m; positive: the muscles that straighten the joint must hold against it.</summary>
/// <param name="Share">Of the ground force that goes through this leg.</param>
public sealed record LegMoments(double Knee, double Hip, double Share);

/// <summary>
/// Static moments about knee and hip: the ground force under the foot against the weight of what lies below the joint
/// (equilibrium of the segments below it; Winter, ch. 5, without acceleration). It is a static estimate.
/// </summary>
public static class Moments
{
    /// <param name="mass">Body mass, kg.</param>
    public static (LegMoments Near, LegMoments Far) Of(Pose pose, Stature stature, double mass)
    {
        var (centre, total) = (pose.CentreOfMass, 1 + (pose.Weight?.Share ?? 0));
        var (near, far) = (Middle(pose.Near), Middle(pose.Far));

        // One foot: all of it. Side by side: half each. Apart: shared by where the centre of mass lies between them.
        var together = Math.Abs(near - far) < 0.02;
        var share = pose.OnOneFoot ? 1 : together ? 0.5 : Math.Clamp((centre.X - far) / (near - far), 0, 1);
        var single = together || pose.OnOneFoot;
        return (
            Leg(pose.Near, share * total, single ? centre.X : near, stature, mass) with { Share = share },
            Leg(pose.Far, (1 - share) * total, single ? centre.X : far, stature, mass) with { Share = 1 - share });
    }

    /// <summary>Moment about the hips of all that is above them, both legs together, N·m: what the back extensors carry too.</summary>
    public static double Back(Pose pose, Stature stature, double mass) =>
        Anthropometry.Gravity * mass * stature.Metres * pose.Masses().Except(Pose.LegMasses(pose.Near))
            .Except(Pose.LegMasses(pose.Far)).Sum(m => m.Share * (m.At.X - pose.Hip.X));

    private static LegMoments Leg(Leg leg, double force, double at, Stature stature, double mass)
    {
        var newtons = Anthropometry.Gravity * mass * stature.Metres;
        var parts = Pose.LegMasses(leg).ToArray();
        double About(Point joint, int below) =>
            force * (joint.X - at) - parts[below..].Sum(p => p.Share * (joint.X - p.At.X));

        // Knee: the ground force passes behind the knee in a bent leg, so knee.X - at is positive. Hip: it passes in front.
        return new LegMoments(newtons * About(leg.Knee, 1), -newtons * About(leg.Hip, 0), 0);
    }

    private static double Middle(Leg leg) => (leg.Heel.X + leg.Toe.X) / 2;
}
