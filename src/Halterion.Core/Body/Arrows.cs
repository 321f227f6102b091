using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>One arrow on the part that moves: along its own way, set off to where it covers nothing of the body.</summary>
internal static class Arrows
{
    /// <summary>An arrow as it is drawn, and the points that have to have room.</summary>
    /// <param name="Pulses">It goes so little that one still says it, with a head at both ends.</param>
    internal sealed record Way(Arrow Drawn, int Still, IReadOnlyList<Point> Points, bool Pulses);

    private static readonly Joint[] Told =
    [
        Joint.Pelvis, Joint.Lumbar, Joint.Chest, Joint.LeftKnee, Joint.RightKnee,
        Joint.LeftAnkle, Joint.RightAnkle, Joint.LeftHand, Joint.RightHand,
    ];

    private const double Head = 0.034;
    private const double HeadHalf = 0.017;

    /// <summary>Room between arrow and body.</summary>
    private const double Clear = 0.016;

    private const int Points = 10;

    /// <summary>Where no joint goes further it pulses; and half the length of the arrow that says so.</summary>
    private const double Pulse = 0.045;
    private const double PulseDrawn = 0.062;

    /// <summary>What goes less far needs no arrow.</summary>
    private const double Least = 0.025;

    /// <summary>A foot that goes so far is the point of the move.</summary>
    private const double Travels = 0.15;

    /// <summary>
    /// The joint whose way says most; null where nothing moves. A hand has to go further than the hips to be it, a foot that goes to
    /// another place less far.
    /// </summary>
    public static Joint? Moving(Skeleton a, Skeleton b)
    {
        double Way(Joint j) => (b[j] - a[j]).Length;
        double Told(Joint j) => Way(j) * j switch
        {
            Joint.Pelvis => 1.5,
            Joint.LeftHand or Joint.RightHand => 0.6,
            Joint.LeftAnkle or Joint.RightAnkle when Way(j) > Travels => 2,
            _ => 1,
        };
        var most = Arrows.Told.MaxBy(Told);
        return Told(most) > Least ? most : null;
    }

    /// <param name="shown">The key poses that are drawn.</param>
    /// <param name="named">The joint to show, where the move says so.</param>
    public static Way? Of(Motion motion, ImmutableArray<Skeleton> keys, int[] shown, Camera camera, Joint? named)
    {
        var ways = Enumerable.Range(1, shown.Length - 1)
            .Select(n => (Still: n, From: shown[n - 1], To: shown[n], Joint: named ?? Moving(keys[shown[n - 1]], keys[shown[n]])))
            .Where(w => w.Joint is not null)
            .Select(w => (w.Still, w.From, w.To, Joint: w.Joint!.Value))
            .ToArray();
        if (ways.Length == 0)
        {
            return null;
        }

        var (still, from, to, joint) = ways.MaxBy(w => (keys[w.To][w.Joint] - keys[w.From][w.Joint]).Length);
        Point At(int pose, int step) => camera.On(Skeleton.Of(motion.Between(pose, pose + 1, step / (double)Points))[joint]);
        var line = Enumerable.Range(from, to - from)
            .SelectMany(pose => Enumerable.Range(0, Points + 1).Select(step => At(pose, step)))
            .ToArray();
        line = Smooth(line);
        var furthest = Enum.GetValues<Joint>().Max(j => (keys[to][j] - keys[from][j]).Length);
        var pulses = motion.Way == Body.Way.Back && shown.Length == 2 && furthest < Pulse;
        if (pulses)
        {
            var (middle, along) = (line[0].Towards(line[^1], 0.5), (line[^1] - line[0]) * (1 / (line[^1] - line[0]).Length));
            line = [.. Enumerable.Range(-4, 9).Select(i => middle + along * (i / 4.0 * PulseDrawn))];
        }

        var length = line.Zip(line.Skip(1), (a, b) => (b - a).Length).Sum();
        if (length < Head * 1.3)
        {
            return null;
        }

        var off = Offset(line, Limbs(keys[to], camera, motion.Load));
        line = [.. line.Select(p => p + off)];
        var drawn = Draw(line, still);
        if (pulses)
        {
            var other = Draw([.. line.Reverse()], 0);
            return new Way(new Arrow(Drawing.Line(line[3..^3]), drawn.Head + other.Head, 0), 0, line, true);
        }

        return new Way(drawn, still, line, false);
    }

    /// <summary>A way with corners is shown as one sweep, its ends where they are.</summary>
    private static Point[] Smooth(Point[] line)
    {
        for (var pass = 0; pass < 2 * Points; pass++)
        {
            var inner = Enumerable.Range(1, line.Length - 2).Select(i => (line[i - 1] + line[i] * 2 + line[i + 1]) * 0.25);
            line = [line[0], .. inner, line[^1]];
        }

        return line;
    }

    private static Arrow Draw(Point[] line, int still)
    {
        var tip = line[^1];
        var back = line.Reverse().First(p => (p - tip).Length >= Head || p == line[0]);
        var along = (tip - back) * (1 / Math.Max(1e-9, (tip - back).Length));
        var neck = tip - along * Head;
        var aside = new Point(-along.Y, along.X) * HeadHalf;
        Point[] stroke = [.. line.TakeWhile(p => (p - tip).Length > Head), neck];
        return new Arrow(Drawing.Line(stroke), $"{Drawing.Line(tip, neck + aside, neck - aside)}Z", still);
    }

    /// <summary>
    /// The shortest way aside on which no point comes too near to the body; where there is none, that with most room for its length.
    /// </summary>
    private static Point Offset(Point[] line, (Point From, Point To, double Radius)[] body)
    {
        const int directions = 16;
        (double Worth, Point Off) best = (double.MinValue, new Point(0, 0));
        for (var step = 0; step < 19; step++)
        {
            for (var d = 0; d < (step == 0 ? 1 : directions); d++)
            {
                var (sin, cos) = Math.SinCos(2 * Math.PI * d / directions);
                var off = new Point(cos, sin) * (0.02 * step);
                var room = line.Min(p => body.Min(b => Distance(p + off, b.From, b.To) - b.Radius));
                var worth = Math.Min(room, Clear) * 20 - 0.02 * step;
                if (worth > best.Worth)
                {
                    best = (worth, off);
                }
            }
        }

        return best.Off;
    }

    private static double Distance(Point p, Point a, Point b)
    {
        var way = b - a;
        var along = Math.Clamp(((p - a).X * way.X + (p - a).Y * way.Y) / Math.Max(1e-12, way.X * way.X + way.Y * way.Y), 0, 1);
        return (p - (a + way * along)).Length;
    }

    private static (Point From, Point To, double Radius)[] Limbs(Skeleton s, Camera camera, Carried? load)
    {
        var list = new List<(Point, Point, double)>
        {
            (camera.On(s[Joint.Head]), camera.On(s[Joint.Head]), HeadRadius),
            (camera.On(s[Joint.Pelvis]), camera.On(s[Joint.Lumbar]), 0.062),
            (camera.On(s[Joint.Lumbar]), camera.On(s[Joint.Chest]), 0.058),
        };
        foreach (var side in (int[])[1, -1])
        {
            Point At(Joint j) => camera.On(s.Of(j, side));
            list.Add((At(Joint.LeftShoulder), At(Joint.LeftElbow), 0.031));
            list.Add((At(Joint.LeftElbow), At(Joint.LeftHand), 0.023));
            list.Add((At(Joint.LeftHip), At(Joint.LeftKnee), 0.050));
            list.Add((At(Joint.LeftKnee), At(Joint.LeftAnkle), 0.036));
            list.Add((At(Joint.LeftHeel), At(Joint.LeftToe), 0.024));
        }

        list.AddRange((load?.At(s) ?? []).Select(w => (camera.On(w.At), camera.On(w.At), 0.06)));
        return [.. list];
    }
}
