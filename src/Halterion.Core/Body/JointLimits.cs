using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>
/// How far joints go, in degrees. Ranges of the American Academy of Orthopaedic Surgeons (Joint Motion, 1965, from memory:
/// hip flexion 120, extension 30, abduction 45, rotation 45 each way; knee 135–150; plantar flexion 50; elbow 150; shoulder
/// 180), widened by what trained people show in a lunge test for the ankle (about 40, Bennell et al. 1998, from memory) and
/// by what a thigh against the belly still gives ([M], marked below).
/// </summary>
public static class JointLimits
{
    /// <summary>Shin over a flat foot.</summary>
    public const double AnkleBend = 38;

    private const double AnkleMost = 46;
    private const double Pointed = 92;
    private const double HipFlexion = 142;
    private const double HipExtension = -45;
    private const double Knee = 158;
    private const double Spread = 80;
    private const double Spine = 68;

    /// <summary>No body goes through the floor, fractions of stature.</summary>
    private const double Floor = 0.002;

    /// <summary>The joint that a skeleton asks too much of; null where none is.</summary>
    public static (string Joint, string Why)? Past(Skeleton s)
    {
        for (var side = 1; side >= -1; side -= 2)
        {
            var name = side > 0 ? "left" : "right";
            if (KneeFlexion(s, side) is > Knee and var knee)
            {
                return ($"{name} knee", $"bent by {knee:0}°");
            }

            var spread = SpreadOf(s, side);
            if (spread > Spread)
            {
                return ($"{name} hip", $"out by {spread:0}°");
            }

            // A thigh that goes out to its side passes the belly.
            if (HipFlexionOf(s, side) is var hip && (hip > HipFlexion + 0.35 * Math.Max(0, spread) || hip < HipExtension))
            {
                return ($"{name} hip", $"bent by {hip:0}°");
            }

            if (AnkleBendOf(s, side) is var ankle && ankle is > AnkleMost or < -Pointed)
            {
                return ($"{name} ankle", $"bent by {ankle:0}°");
            }
        }

        var lowest = Enum.GetValues<Joint>().MinBy(j => s[j].Z);
        if (s[lowest].Z < -Floor)
        {
            return (lowest.ToString(), "under the floor");
        }

        var bend = Angle(s.Hips.Of(Vec.Up), s.Chest.Of(Vec.Up));
        return bend > Spine ? ("spine", $"bent by {bend:0}°") : null;
    }

    /// <summary>How far a knee is bent, in degrees; 0: straight.</summary>
    public static double KneeFlexion(Skeleton s, int side) =>
        Angle(s.Of(Joint.LeftKnee, side) - s.Of(Joint.LeftHip, side), s.Of(Joint.LeftAnkle, side) - s.Of(Joint.LeftKnee, side));

    /// <summary>Thigh against the hips, forward positive.</summary>
    public static double HipFlexionOf(Skeleton s, int side)
    {
        var thigh = s.Hips.Inverse.Of(s.Of(Joint.LeftKnee, side) - s.Of(Joint.LeftHip, side)).Unit;
        return Math.Sign(thigh.X) * Math.Acos(Math.Clamp(-thigh.Z, -1, 1)) * 180 / Math.PI;
    }

    /// <summary>Thigh out from the middle plane of the hips.</summary>
    public static double SpreadOf(Skeleton s, int side)
    {
        var thigh = s.Hips.Inverse.Of(s.Of(Joint.LeftKnee, side) - s.Of(Joint.LeftHip, side)).Unit;
        return Math.Asin(Math.Clamp(side * thigh.Y, -1, 1)) * 180 / Math.PI;
    }

    /// <summary>Shin over the foot, forward positive: 0 where they stand square.</summary>
    public static double AnkleBendOf(Skeleton s, int side)
    {
        var foot = ((side > 0 ? s.LeftBall : s.RightBall) - s.Of(Joint.LeftHeel, side)).Unit;
        var shank = (s.Of(Joint.LeftKnee, side) - s.Of(Joint.LeftAnkle, side)).Unit;
        return Math.Asin(Math.Clamp(foot.Dot(shank), -1, 1)) * 180 / Math.PI;
    }

    /// <summary>The angle between two directions, in degrees.</summary>
    public static double Angle(Vec a, Vec b) => Math.Acos(Math.Clamp(a.Unit.Dot(b.Unit), -1, 1)) * 180 / Math.PI;
}
