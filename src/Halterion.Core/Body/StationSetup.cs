using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>A measure of a station for people of a range of stature, in centimetres.</summary>
/// <param name="Least">For the shortest.</param>
/// <param name="Most">For the tallest.</param>
/// <param name="From">One end of the measure in the figure.</param>
public sealed record SetupMeasure(string What, double Least, double Most, string Note, Point From, Point To);

/// <summary>A measure as it is drawn beside its figure, in hundredths of stature, y down.</summary>
public sealed record DrawnMeasure(double X1, double Y1, double X2, double Y2, string Words);

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
        SetupMeasure Between(string what, double share, string note, Point from, Point to) => new(
            what,
            Centimetres(share, shortest),
            Centimetres(share, tallest),
            note,
            from,
            to);
        SetupMeasure Height(string what, double share, string note, double x) => Between(what, share, note, new Point(x, 0), new Point(x, share));
        SetupMeasure Along(string what, double share, string note, double from, double to) => Between(what, share, note, new Point(from, 0), new Point(to, 0));
        return end.Kind switch
        {
            PoseKind.Squat when end.Prop is "chair" or "box" =>
                [Height("seat height", pose.Hip.Y - Anthropometry.Thickness, "thighs level as the seat is touched; higher is easier", -0.47)],
            PoseKind.Split when end.RearRaise > 0 =>
            [
                Height("rear foot height", RearFoot, "laces down; lower is easier, err low", pose.Far.Toe.X - 0.12),
                Along(
                    "front foot to rear foot",
                    Solver.RightAngleStride(RearFoot + 0.04),
                    "ankle to ankle; err long: too short pushes the knee forward",
                    pose.Far.Ankle.X,
                    pose.Near.Ankle.X),
            ],
            PoseKind.Split when end.FrontRaise > 0 && start.Kind == PoseKind.Split =>
                [Along(
                    "front foot to rear foot",
                    Solver.RightAngleStride(),
                    "ankle to ankle, the front foot wholly on the step",
                    pose.Far.Ankle.X,
                    pose.Near.Ankle.X)],
            PoseKind.Split => [Along(
                "front foot to rear foot",
                Solver.RightAngleStride(),
                "ankle to ankle: both knees square, front shin upright; err long",
                pose.Far.Ankle.X,
                pose.Near.Ankle.X)],
            PoseKind.Single when start is { Kind: PoseKind.Split, FrontRaise: > 0 } =>
                [Height("step height, at most", StepShare * Anthropometry.KneeHeight, "the whole foot on it; lower is easier", 0.22)],
            PoseKind.Thrust =>
            [
                Height("bench height", Solver.BenchHeight, "its edge just below the shoulder blades; trunk and thighs level at the top", -0.19),
                Along("bench to heels", pose.Near.Heel.X, "shins upright and knees square at the top", 0, pose.Near.Heel.X),
            ],
            PoseKind.Bridge => [Along(
                "seat to heels",
                pose.Near.Heel.X - Anthropometry.Trunk,
                "lying: further out works the back of the thighs, nearer the front",
                Anthropometry.Trunk,
                pose.Near.Heel.X)],
            PoseKind.Hinge or PoseKind.Single when pose.TrunkLean > 30 =>
                [Height(
                    "hands above the floor",
                    pose.NearArm.Hand.Y,
                    "at this depth; below the knee is enough if the stretch comes there",
                    pose.NearArm.Hand.X + 0.06)],
            PoseKind.Wide => [Along("foot to foot", 2 * pose.Near.Ankle.X, "from middle to middle", -pose.Near.Ankle.X, pose.Near.Ankle.X)],
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

    /// <summary>The measure as a line in the figure: along the floor below it, heights beside it.</summary>
    /// <param name="words">The length as it is shown.</param>
    public static DrawnMeasure Draw(SetupMeasure measure, string words)
    {
        var below = measure.From.Y == measure.To.Y ? 3.5 : 0;
        return new DrawnMeasure(
            Math.Round(100 * measure.From.X, 1), Math.Round(-100 * measure.From.Y + below, 1), Math.Round(100 * measure.To.X, 1), Math.Round(-100 * measure.To.Y + below, 1), words);
    }

    private static double Centimetres(double share, Stature stature) => Math.Round(100 * share * stature.Metres);
}
