using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>
/// A way through key poses in seconds: a body stops at each but those that it goes through. What flies does so as long as a fall
/// from that height takes, √(2h/g) up and again down, whatever the tempo; only what is done on the floor is slower or quicker.
/// </summary>
public sealed class Course
{
    /// <summary>Quicker than this no body goes from one key pose to the next, seconds. [M]</summary>
    private const double Shortest = 0.32;

    /// <summary>The most that a joint goes in a second, and gains in speed, in statures. [M] A hand or foot in no great hurry.</summary>
    private const double Fastest = 2.75;
    private const double Quickest = 12.5;
    private const int Looks = 28;

    /// <summary>So near to its end a way has ended, whatever the rounding.</summary>
    private const double AtTheEnd = 1e-6;

    /// <summary>Speed at which a pose is gone through, of the mean on the way. [M] Slow enough that nothing jerks.</summary>
    private const double ThroughSpeed = 0.2;

    /// <summary>Speed of leaving the floor, of the mean of the push. [M] Steadily faster.</summary>
    private const double PushSpeed = 2.2;
    private const double ShortestPush = 0.2;

    /// <param name="Falls">Its time is that of a fall.</param>
    private sealed record Piece(double Seconds, Func<double, Posture> At, bool Falls = false);

    private readonly ImmutableArray<Piece> pieces;

    /// <param name="order">Of key poses; neighbours follow each other.</param>
    /// <param name="seconds">What it should take; longer where no body is that quick.</param>
    /// <param name="stature">Of whom: a fall is one of metres.</param>
    internal Course(Motion motion, ImmutableArray<int> order, double seconds, Stature stature)
    {
        var gravity = Anthropometry.Gravity / stature.Metres;
        var ways = Enumerable.Range(0, Math.Max(0, order.Length - 1)).Select(i => (From: order[i], To: order[i + 1], Index: i)).ToArray();
        bool Flies(int pose) => motion.Pose(pose).Air > 0;
        var flown = ways.Where(w => Flies(w.From) || Flies(w.To))
            .SelectMany(w => Flight(motion, w.From, w.To, gravity), (w, piece) => (w.Index, Piece: piece))
            .ToLookup(p => p.Index, p => p.Piece);
        var walked = ways.Where(w => !flown[w.Index].Any()).ToArray();
        var rest = seconds - flown.Sum(g => g.Sum(p => p.Seconds));
        var shares = walked.Sum(w => motion.ShareOf(w.From, w.To));
        var list = ImmutableArray.CreateBuilder<Piece>();
        foreach (var (from, to, index) in ways)
        {
            if (flown[index].Any())
            {
                list.AddRange(flown[index]);
                continue;
            }

            var through = (Comes: index > 0 && motion.Pose(from).Through, Goes: index < ways.Length - 1 && motion.Pose(to).Through);
            Posture On(double u) => motion.Between(from, to, Ease(u, through.Comes ? ThroughSpeed : 0, through.Goes ? ThroughSpeed : 0));
            var least = Math.Max(Shortest, Needs(On, !through.Comes, !through.Goes));
            list.Add(new Piece(Math.Max(least, rest * motion.ShareOf(from, to) / Math.Max(1e-9, shares)), On));
        }

        // Time that a jump does not take is stood, on the side of the floor.
        if (walked.Length == 0 && rest > 0 && ways.Length > 0)
        {
            var ground = Flies(order[0]) ? order[^1] : order[0];
            list.Insert(Flies(order[0]) ? list.Count : 0, new Piece(rest, _ => motion.Key(ground)));
        }

        if (ways.Length == 0)
        {
            list.Add(new Piece(Math.Max(seconds, Shortest), _ => motion.Key(order[0])));
        }

        // A whole number of frames, so that the last one shows the end.
        var slow = list.IndexOf(list.First(p => !p.Falls));
        var more = Math.Ceiling(list.Sum(p => p.Seconds) * Film.FramesPerSecond - 1e-6) / Film.FramesPerSecond - list.Sum(p => p.Seconds);
        list[slow] = list[slow] with { Seconds = list[slow].Seconds + more };
        pieces = list.ToImmutable();
    }

    /// <summary>How long a rep takes.</summary>
    public double Seconds => pieces.Sum(p => p.Seconds);

    /// <summary>The joints at a moment, in seconds from the start of the rep.</summary>
    public Posture At(double second)
    {
        foreach (var piece in pieces)
        {
            if (second <= piece.Seconds || ReferenceEquals(piece, pieces[^1]))
            {
                var share = Math.Clamp(second / piece.Seconds, 0, 1);
                return piece.At(share > 1 - AtTheEnd ? 1 : share);
            }

            second -= piece.Seconds;
        }

        throw new InvalidOperationException("A course has a piece.");
    }

    /// <summary>Push-off and rise, or fall and landing.</summary>
    private static ImmutableArray<Piece> Flight(Motion motion, int from, int to, double gravity)
    {
        var rises = motion.Pose(to).Air > 0;
        var (ground, apex) = rises ? (from, to) : (to, from);
        var touch = motion.TouchOf(ground, apex);
        Posture Push(double u, double goes) => motion.Pushing(ground, apex, Ease(u, 0, goes), Ease(u, 0, 0));
        var air = Math.Sqrt(2 * (motion.Top(apex).Z - touch.Centre.Z) / gravity);
        var way = touch.Centre.Z - motion.Centre(ground).Z;
        var speed = gravity * air;
        var push = Math.Max(ShortestPush, way > 0 ? PushSpeed * way / speed : 0);
        push = Math.Max(push, Needs(u => Push(u, PushSpeed), true, false));
        var slope = way > 0.01 ? Math.Min(PushSpeed, speed * push / way) : 0;
        var pushing = new Piece(push, u => Push(rises ? u : 1 - u, slope));
        var flying = new Piece(air, u => motion.Flying(ground, apex, rises ? u : 1 - u), Falls: true);
        return rises ? [pushing, flying] : [flying, pushing];
    }

    /// <summary>How long a way takes at least: no joint moves or starts faster than a body can.</summary>
    private static double Needs(Func<double, Posture> at, bool fromRest, bool toRest)
    {
        var bodies = Enumerable.Range(0, Looks + 1).Select(i => Skeleton.Of(at(i / (double)Looks)).All).ToArray();
        double most = 0, gain = 0;
        for (var j = 0; j < bodies[0].Count; j++)
        {
            double? before = fromRest ? 0 : null;
            for (var i = 1; i <= Looks; i++)
            {
                var speed = (bodies[i][j] - bodies[i - 1][j]).Length * Looks;
                most = Math.Max(most, speed);
                gain = Math.Max(gain, before is { } b ? Math.Abs(speed - b) * Looks : 0);
                before = speed;
            }

            gain = Math.Max(gain, toRest ? before!.Value * Looks : 0);
        }

        return Math.Max(most / Fastest, Math.Sqrt(gain / Quickest));
    }

    /// <summary>From rest to rest, or in and out at a speed, of the mean (a cubic of Hermite).</summary>
    private static double Ease(double t, double comes, double goes) =>
        comes * (t * t * t - 2 * t * t + t) + (3 - 2 * t) * t * t + goes * (t * t * t - t * t);
}
