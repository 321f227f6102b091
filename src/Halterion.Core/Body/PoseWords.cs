using System.Globalization;

namespace Halterion.Core.Body;

/// <summary>A figure in words, made from its pose: for a screen reader, and for whoever would rather read.</summary>
internal static class PoseWords
{
    public static string Of(Pose start, Pose end, Recipe from, Recipe to) =>
        $"From {Short(start, from)} to {Short(end, to)}: {string.Join(", ", Details(end, to))}.";

    private static string Short(Pose pose, Recipe r) => r.Kind switch
    {
        PoseKind.Squat => r.Air > 0 ? "a jump"
            : r.HeelRaise > 20 && r.Depth < 20 ? "standing on the toes"
            : r.Depth < 15 ? "standing"
            : pose.Near.ThighRise < 8 ? "thighs level with the floor"
            : "a bent stance",
        PoseKind.Hinge => pose.TrunkLean < 20 ? "standing" : "trunk forward from the hips",
        PoseKind.Split => r.Depth < 0.3 ? "a long stance, one foot in front" : "a lunge",
        PoseKind.Single => Math.Abs(pose.TrunkLean) > 40 ? "trunk forward on one leg" : "standing on one leg",
        PoseKind.Wide => Math.Abs(r.Shift) > 0.4 ? "over one leg" : r.Depth < 20 ? "standing, from the front" : "a wide squat, from the front",
        PoseKind.Bridge => r.Depth < 0.3 ? "lying on the back, feet on the floor" : "hips lifted",
        PoseKind.Thrust => r.Depth < 0.3 ? "sitting low, back on the bench" : "hips level, back on the bench",
        PoseKind.HandsAndKnees => r.OneLeg ? "hands and knees, one leg lifted" : "hands and knees",
        PoseKind.Plank => r.Knee > 60 ? "a plank on the knees" : r.Depth > 0.2 ? "hips high, hands and feet on the floor" : "a plank",
        PoseKind.SideLying => r.Depth > 0 ? "a side plank" : "lying on one side",
        PoseKind.Supine => "lying on the back",
        PoseKind.Kneeling => r.OneLeg ? "half kneeling" : "kneeling",
        _ => "sitting",
    };

    private static IEnumerable<string> Details(Pose pose, Recipe r)
    {
        if (r.Kind is PoseKind.Squat or PoseKind.Split)
        {
            yield return pose.Near.ThighRise < 8 ? "front thigh level or lower" : Degrees(pose.Near.ThighRise, "thigh above level");
            yield return Math.Abs(pose.Near.ShinLean) < 8 ? "shin upright" : Degrees(pose.Near.ShinLean, "shin forward");
        }

        if (r.Kind is PoseKind.Squat or PoseKind.Hinge or PoseKind.Split or PoseKind.Single)
        {
            yield return Math.Abs(pose.TrunkLean) < 12 ? "trunk upright" : Degrees(pose.TrunkLean, "trunk forward");
        }

        if (r.Kind is PoseKind.Bridge or PoseKind.Thrust)
        {
            yield return Math.Abs(pose.Near.ShinLean) < 12 ? "shins upright" : "shins leaning";
            yield return r.OneLeg ? "one foot lifted" : "both feet down";
        }

        yield return r.Arms switch
        {
            ArmStyle.Forward => "arms forward",
            ArmStyle.Hips => "hands on the hips",
            ArmStyle.Crossed => "arms crossed",
            ArmStyle.Overhead => "arms overhead",
            ArmStyle.Chest => "hands at the chest",
            ArmStyle.Shoulders => "hands at the shoulders",
            ArmStyle.Back => "hands behind the head",
            ArmStyle.Thigh => "hands on the thigh",
            ArmStyle.Wall => "a hand on the wall",
            ArmStyle.Out => "arms out to the sides",
            ArmStyle.Hang => "arms hanging",
            _ => "arms at ease",
        };
        if (r.Holds is not null)
        {
            yield return r.Holds == "ball" ? "holding a ball" : "holding a weight";
        }
    }

    private static string Degrees(double value, string what) => string.Create(CultureInfo.InvariantCulture, $"{what} {Math.Abs(value):0}°");
}
