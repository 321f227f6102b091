using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>A measure of a station for people of a range of stature, in centimetres.</summary>
/// <param name="Least">For the shortest.</param>
/// <param name="Most">For the tallest.</param>
public sealed record SetupMeasure(string What, double Least, double Most, string Note);

/// <summary>Sets a station for a person's stature: every measure follows from the segment lengths and the pose.</summary>
public static class StationSetup
{
    /// <summary>A step on which the front thigh stays above level when the foot is put up. [M] Two thirds of knee height.</summary>
    private const double StepShare = 0.55;

    /// <summary>Rear foot up: a taller person takes a higher step; most need less than they think. [M] Half-way up the shin.</summary>
    private const double RearFoot = 0.17;

    /// <summary>Measures of a move's start and end for the shortest and the tallest.</summary>
    public static ImmutableArray<SetupMeasure> Of(Recipe start, Recipe end, Stature shortest, Stature tallest)
    {
        var pose = Solver.Solve(end);
        SetupMeasure Measure(string what, double share, string note) => new(what, Centimetres(share, shortest), Centimetres(share, tallest), note);
        return end.Kind switch
        {
            PoseKind.Squat when end.Prop is "chair" or "box" =>
                [Measure("seat height", pose.Hip.Y - Anthropometry.Thickness, "thighs level as the seat is touched; higher is easier")],
            PoseKind.Split when end.RearRaise > 0 =>
            [
                Measure("rear foot height", RearFoot, "laces down; lower is easier, err low"),
                Measure("front foot to rear foot", Solver.RightAngleStride(RearFoot + 0.04), "ankle to ankle; err long: too short pushes the knee forward"),
            ],
            PoseKind.Split when end.FrontRaise > 0 && start.Kind == PoseKind.Split =>
                [Measure("front foot to rear foot", Solver.RightAngleStride(), "ankle to ankle, the front foot wholly on the step")],
            PoseKind.Split => [Measure("front foot to rear foot", Solver.RightAngleStride(), "ankle to ankle: both knees square, front shin upright; err long")],
            PoseKind.Single when start is { Kind: PoseKind.Split, FrontRaise: > 0 } =>
                [Measure("step height, at most", StepShare * Anthropometry.KneeHeight, "the whole foot on it; lower is easier")],
            PoseKind.Thrust =>
            [
                Measure("bench height", Solver.BenchHeight, "its edge just below the shoulder blades; trunk and thighs level at the top"),
                Measure("bench to heels", pose.Near.Heel.X, "shins upright and knees square at the top"),
            ],
            PoseKind.Bridge => [Measure("seat to heels", pose.Near.Heel.X - Anthropometry.Trunk, "lying: further out works the back of the thighs, nearer the front")],
            PoseKind.Hinge or PoseKind.Single when pose.TrunkLean > 30 =>
                [Measure("hands above the floor", pose.NearArm.Hand.Y, "at this depth; below the knee is enough if the stretch comes there")],
            PoseKind.Wide => [Measure("foot to foot", 2 * pose.Near.Ankle.X, "from middle to middle")],
            _ => [],
        };
    }

    /// <summary>The nearest height there is to a wanted one, and for whom it is not right.</summary>
    /// <param name="measure">What is wanted.</param>
    /// <param name="heights">What there is, cm.</param>
    /// <returns>Null where there is nothing to choose from.</returns>
    public static (int Height, string NotFor)? Nearest(SetupMeasure measure, ImmutableArray<int> heights)
    {
        if (heights.IsDefaultOrEmpty)
        {
            return null;
        }

        const double near = 4;
        var best = heights.MinBy(h => Math.Abs(h - (measure.Least + measure.Most) / 2));
        return (best, best > measure.Least + near && best < measure.Most - near ? "the shortest and the tallest"
            : best > measure.Least + near ? "the shortest"
            : best < measure.Most - near ? "the tallest"
            : "");
    }

    private static double Centimetres(double share, Stature stature) => Math.Round(100 * share * stature.Metres);
}
