using System.Collections.Immutable;
using System.Globalization;

namespace Halterion.Core.Body;

/// <summary>A measure of a station for people of a range of stature, in centimetres.</summary>
/// <param name="Least">For the shortest.</param>
/// <param name="Most">For the tallest.</param>
/// <param name="From">One end of the measure in the room, at the last key pose.</param>
public sealed record SetupMeasure(string What, double Least, double Most, string Note, Vec From, Vec To);

/// <summary>A measure as it is drawn beside its figure, in hundredths of stature, y down.</summary>
/// <param name="Lead">Level with the ends of a height, from the body to the line: drawn behind everything.</param>
public sealed record DrawnMeasure(double X1, double Y1, double X2, double Y2, string Words, string Lead);

/// <summary>Sets a station for a person's stature: what is told is what is drawn, read off the solved pose.</summary>
public static class StationSetup
{
    /// <summary>Between feet that stand wide enough to be measured.</summary>
    private const double Wide = 0.3;

    /// <summary>What a participant sets before starting, for the shortest and the tallest.</summary>
    public static ImmutableArray<SetupMeasure> Of(Motion motion, ImmutableArray<string> props, Stature shortest, Stature tallest)
    {
        var last = motion.Count - 1;
        var deep = Enumerable.Range(0, motion.Count).MinBy(i => motion.Key(i).Pelvis.Z);
        var (pose, s) = (motion.Pose(deep), Skeleton.Of(motion.Key(deep)));
        var list = ImmutableArray.CreateBuilder<SetupMeasure>();
        void Add(string what, string note, Vec from, Vec to)
        {
            var share = (to - from).Length;
            list.Add(new SetupMeasure(what, Centimetres(share, shortest), Centimetres(share, tallest), note, from, to));
        }

        void Height(string what, double share, string note, Vec beside) =>
            Add(what, note, beside with { Z = 0 }, beside with { Z = share });
        bool Has(string end) => !props.IsDefault && props.Any(p => p.EndsWith(end, StringComparison.Ordinal));
        var (left, right) = (s[Joint.LeftAnkle] with { Z = 0 }, s[Joint.RightAnkle] with { Z = 0 });
        switch (pose.On)
        {
            case Carrier.Feet when Has(":under"):
                Height("seat height", s[Joint.Pelvis].Z - PoseSolver.Seat, "thighs nearly level when you touch the "
                    + "seat; higher is easier", s[Joint.Pelvis] + new Vec(-0.22, 0, 0));
                break;
            case Carrier.Feet when motion.Key(deep).LeftFoot.Hold == Hold.Laces:
                Height("rear foot height", motion.Key(deep).LeftFoot.Place.Z, "laces down; lower is easier, if in "
                    + "doubt go lower", s[Joint.LeftToe] + new Vec(-0.06, 0, 0));
                Stride(right, left);
                break;
            case Carrier.Feet when Math.Abs(left.X - right.X) > Wide:
                Stride(right, left);
                break;
            case Carrier.Feet when pose.Right is { Free: false, Z: > 0 } step:
                Height("step height, at most", step.Z, "the whole foot on it; lower is easier", s[Joint.RightToe] + new Vec(0.08, 0, 0));
                break;
            case Carrier.Feet when Math.Abs(left.Y - right.Y) > Wide && motion.Way == Way.Back:
                Add("distance between feet", "middle to middle", right, left);
                break;
            case Carrier.Bench:
                var top = Skeleton.Of(motion.Key(last));
                Height("bench height", motion.Pose(last).Height, "its edge just below the shoulder blades; trunk and thighs "
                    + "level at the top", new Vec(-0.46, 0, 0));
                Add("bench to heels", "shins upright and knees "
                    + "square at the top", new Vec(-0.20, 0, 0), top[Joint.RightHeel] with { Y = 0, Z = 0 });
                break;
            case Carrier.Shoulders when motion.Key(last).RightFoot.Hold == Hold.Planted:
                if (motion.Pose(last).Right is { Z: > 0 } raised)
                {
                    Height("height under the feet", raised.Z, "lower is easier", s[Joint.RightToe] + new Vec(0.06, 0, 0));
                }

                Add("seat to heels", "lying; further out works the backs of the thighs, nearer works the "
                    + "front", new Vec(s[Joint.Pelvis].X, 0, 0), s[Joint.RightHeel] with { Y = 0, Z = 0 });
                break;
            case Carrier.Hands when pose.Height > 0.05:
                Height("hands' height", pose.Height, "higher is easier", new Vec(0.16, 0, 0));
                break;
        }

        return list.ToImmutable();

        void Stride(Vec front, Vec rear) =>
            Add("front foot to rear foot", "ankle to ankle: both knees about 90°, front shin upright; if in doubt go "
                + "longer", rear with { Y = 0 }, front with { Y = 0 });
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
        return (best, best > measure.Least + near && best < measure.Most - near ? "the shortest and the tallest people"
            : best > measure.Least + near ? "the shortest"
            : best < measure.Most - near ? "the tallest"
            : "");
    }

    /// <summary>
    /// The measure as a line in a figure: along the floor below it, heights beside it. Null where the view does not show its length.
    /// </summary>
    /// <param name="words">The length as it is shown.</param>
    /// <param name="still">Beside which it stands: a height to the right of all that is drawn, never over a body.</param>
    public static DrawnMeasure? Draw(SetupMeasure measure, Shown seen, string words, Still still)
    {
        if (seen.View is not (View.Side or View.Front))
        {
            return null;
        }

        var camera = Camera.Of(seen.View, seen.Mirrored);
        var (from, to) = (camera.On(measure.From), camera.On(measure.To));
        if ((to - from).Length < 0.9 * (measure.To - measure.From).Length)
        {
            return null;
        }

        if (measure.From.Z == measure.To.Z)
        {
            const double below = 3.5;
            var y = Shapes.Round(Shapes.Y(from) + below);
            return new DrawnMeasure(Shapes.X(from), y, Shapes.X(to), y, words, "");
        }

        var x = Shapes.Round(still.Right + 1);
        var lead = string.Create(CultureInfo.InvariantCulture, $"M{Shapes.X(to)} {Shapes.Y(to)}H{x}");
        return new DrawnMeasure(x, Shapes.Y(from), x, Shapes.Y(to), words, lead);
    }

    private static double Centimetres(double share, Stature stature) => Math.Round(100 * share * stature.Metres);
}
