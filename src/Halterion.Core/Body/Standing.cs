using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>
/// A body on its feet: from depth, lean and weight to where the hips are, so that it balances. Unknown are where the hips are
/// (forward, sideways), how far the carrying knee is bent and, where no lean is said, the trunk; a Newton iteration brings
/// centre of mass, depth and shin to what was asked.
/// </summary>
internal static class Standing
{
    private const int Steps = 14;
    private const double Near = 1e-7;

    public static Posture Solve(KeyPose p, Carried? load, double ankle)
    {
        var (left, right) = (PoseSolver.SpecOf(p, 1), PoseSolver.SpecOf(p, -1));
        // A foot that only taps on something high does not carry.
        var taps = p.Weight < 0.5 && right.Z > left.Z + 0.05;
        var carry = right.Free || p.Split < 0 || taps ? 1 : -1;
        var bends = p.Depth > 0 || p.Knee is not null;
        var free = p.Lean is null && bends;
        if (free && p.Knee is null && p.Depth < Shallow)
        {
            // Near straight a thigh says next to nothing of a knee: its bend is said instead.
            p = p with { Knee = p.Depth + NaturalShin(p.Depth, ankle), Shin = p.Shin ?? NaturalShin(p.Depth, ankle) };
        }

        var shin = p.Shin ?? (free ? NaturalShin(p.Knee is null ? p.Depth : p.Knee.Value * 0.75, ankle) : null);
        var byShin = p is { Shin: not null, Lean: not null } && bends;

        // Forward and sideways place, bend of the knee, lean.
        double[] x = [StartAt(p, carry, shin ?? 12), Aside(p, left, right), p.Knee ?? (bends ? 1.2 * p.Depth : PoseSolver.LeastKnee),
            p.Lean ?? (free ? 0.4 * p.Depth : 0)];
        Posture At(double[] v) => Place(p, carry, v[0], v[1], v[2], v[3]);
        int[] unknown = !bends ? [0, 1] : free ? [0, 1, 2, 3] : [0, 1, 2];

        double[] Wrong(double[] v)
        {
            var posture = At(v);
            var s = Skeleton.Of(posture);
            var centre = Carried.Centre(s, load);
            var target = Target(p, posture, left, right);
            var (knee, foot) = (s.Of(Joint.LeftKnee, carry), carry > 0 ? posture.LeftFoot : posture.RightFoot);
            var front = Turn.Yaw(foot.Yaw).Of(Vec.Forward);
            var shank = knee - s.Of(Joint.LeftAnkle, carry);
            var leans = Math.Atan2(shank.Dot(front), shank.Z) * 180 / Math.PI;
            var shinWrong = (leans - (shin ?? 0)) / 100;
            var ahead = byShin ? shinWrong : centre.X - target.X;
            var thigh = (knee - s.Of(Joint.LeftHip, carry)).Unit;
            var depth = Math.Acos(Math.Clamp(-thigh.Z, -1, 1)) * 180 / Math.PI;
            double[] wrong = [
                ahead, centre.Y - target.Y, p.Knee is null ? (depth - p.Depth) / 100 : (v[2] - p.Knee.Value) / 100, shinWrong];
            return wrong[..unknown.Length];
        }

        Newton(x, unknown, Wrong);
        return free && x[3] is > MostLean or < LeastLean
            ? Solve(p with { Lean = Math.Clamp(x[3], LeastLean, MostLean), Shin = null }, load, ankle)
            : At(x);
    }

    private const double Shallow = 14;

    // Beyond these a trunk does not go to balance a squat: the shin gives way instead. [M]
    private const double MostLean = 58;
    private const double LeastLean = 2;

    /// <summary>
    /// How far the shin comes forward in a bend: quickly at first, then as far as the ankle gives. [M] Close to an even lean of the trunk.
    /// </summary>
    private static double NaturalShin(double depth, double ankle) => ankle * (1 - Math.Exp(-depth / 32));

    /// <summary>Sideways the hips begin over where the weight is to be.</summary>
    private static double Aside(KeyPose p, FootSpec left, FootSpec right)
    {
        var (l, r) = (left.Y ?? p.Width / 2, -(right.Y ?? p.Width / 2));
        return left.Free ? r : right.Free ? l : l + (r - l) * (p.Weight ?? 0.5);
    }

    private static double StartAt(KeyPose p, int carry, double shin)
    {
        var (left, right) = (PoseSolver.SpecOf(p, 1), PoseSolver.SpecOf(p, -1));
        var at = carry > 0 ? left.X : right.X;
        if (p.Depth > 5)
        {
            return at + Shank * Math.Sin(shin * Math.PI / 180) - Thigh * Math.Sin(p.Depth * Math.PI / 180);
        }

        return (left.Free || right.Free ? at : (left.X + right.X - Math.Abs(p.Split)) / 2) + 0.02;
    }

    /// <summary>Where the centre of mass should be: over the middle of the foot or feet, or shared between them.</summary>
    private static Vec Target(KeyPose p, Posture posture, FootSpec left, FootSpec right)
    {
        if (left.Free || right.Free)
        {
            return Middle(left.Free ? posture.RightFoot : posture.LeftFoot);
        }

        return Middle(posture.LeftFoot).Towards(Middle(posture.RightFoot), p.Weight ?? 0.5);
    }

    /// <summary>Where a foot carries best: its middle, or its ball under a lifted heel.</summary>
    public static Vec Middle(FootState foot)
    {
        var share = Math.Clamp(foot.Pitch / 40, 0, 1);
        return foot.Place + Turn.Yaw(foot.Yaw).Of(
            new Vec(PoseSolver.MidFoot + (Skeleton.BallAhead + 0.012 - PoseSolver.MidFoot) * share, 0, 0));
    }

    private static Posture Place(KeyPose p, int carry, double forward, double aside, double knee, double lean)
    {
        var (hips, chest) = PoseSolver.Upright(p, lean);
        var foot = PoseSolver.Planted(p, PoseSolver.SpecOf(p, carry), carry);
        var at = Skeleton.AnkleOf(foot);
        var joint = Skeleton.HipOf(new Vec(forward, aside, 0), hips, carry);
        var length = PoseSolver.LegLength(Math.Clamp(knee, 1, 158));
        var across = new Vec(joint.X - at.X, joint.Y - at.Y, 0).Length;
        var pelvis = new Vec(forward, aside, at.Z + Math.Sqrt(Math.Max(1e-4, length * length - across * across)) - joint.Z);
        var legs = (PoseSolver.Leg(p, pelvis, hips, 1, 0), PoseSolver.Leg(p, pelvis, hips, -1, 0));
        return PoseSolver.Upper(p, pelvis, hips, chest, legs.Item1, legs.Item2);
    }

    /// <summary>Newton's iteration with numeric slopes; steps are held small, so that it does not leave the body's reach.</summary>
    private static void Newton(double[] x, int[] unknown, Func<double[], double[]> wrong)
    {
        double[] small = [1e-4, 1e-4, 0.02, 0.02];
        double[] most = [0.08, 0.08, 25, 25];
        for (var step = 0; step < Steps; step++)
        {
            var now = wrong(x);
            if (now.All(w => Math.Abs(w) < Near))
            {
                return;
            }

            var n = unknown.Length;
            var slopes = new double[n, n + 1];
            for (var j = 0; j < n; j++)
            {
                var moved = (double[])x.Clone();
                moved[unknown[j]] += small[unknown[j]];
                var there = wrong(moved);
                for (var i = 0; i < n; i++)
                {
                    slopes[i, j] = (there[i] - now[i]) / small[unknown[j]];
                }
            }

            for (var i = 0; i < n; i++)
            {
                slopes[i, n] = -now[i];
            }

            var change = Gauss(slopes, n);
            var scale = 1.0;
            for (var j = 0; j < n; j++)
            {
                scale = Math.Min(scale, most[unknown[j]] / Math.Max(1e-12, Math.Abs(change[j])));
            }

            // Halved while it makes things worse.
            var before = now.Sum(w => w * w);
            var from = (double[])x.Clone();
            for (var half = 0; half < 6; half++, scale /= 2)
            {
                for (var j = 0; j < n; j++)
                {
                    x[unknown[j]] = from[unknown[j]] + scale * change[j];
                }

                if (wrong(x).Sum(w => w * w) < before)
                {
                    break;
                }
            }
        }
    }

    /// <summary>Gaussian elimination with pivoting; a way that changes nothing is not gone.</summary>
    private static double[] Gauss(double[,] m, int n)
    {
        for (var c = 0; c < n; c++)
        {
            var pivot = c;
            for (var r = c + 1; r < n; r++)
            {
                pivot = Math.Abs(m[r, c]) > Math.Abs(m[pivot, c]) ? r : pivot;
            }

            for (var k = 0; k <= n; k++)
            {
                (m[c, k], m[pivot, k]) = (m[pivot, k], m[c, k]);
            }

            if (Math.Abs(m[c, c]) < 1e-9)
            {
                m[c, c] = 1e9;
            }

            for (var r = c + 1; r < n; r++)
            {
                var by = m[r, c] / m[c, c];
                for (var k = c; k <= n; k++)
                {
                    m[r, k] -= by * m[c, k];
                }
            }
        }

        var x = new double[n];
        for (var r = n - 1; r >= 0; r--)
        {
            x[r] = m[r, n];
            for (var k = r + 1; k < n; k++)
            {
                x[r] -= m[r, k] * x[k];
            }

            x[r] /= m[r, r];
        }

        return x;
    }
}
