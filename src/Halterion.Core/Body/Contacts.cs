using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>A place where the body rests on something.</summary>
/// <param name="Name">leftFoot, rightToe, leftHand, leftKnee, leftForearm, back, shoulders, bench, side, front, seat, wall.</param>
public sealed record Contact(string Name, Vec At)
{
    /// <summary>A hand or a forearm.</summary>
    public bool IsArm => Ends("Hand") || Ends("Forearm");

    /// <summary>A foot, or a part of one.</summary>
    public bool IsFoot => IsWholeFoot || Ends("Toe") || Ends("Heel");

    /// <summary>Heel and toe are down.</summary>
    public bool IsWholeFoot => Ends("Foot");

    /// <summary>A knee is on the floor.</summary>
    public bool IsKnee => Ends("Knee");

    /// <summary>It is of this side.</summary>
    public bool IsOf(int side) => Name.StartsWith(side > 0 ? "left" : "right", StringComparison.Ordinal);

    private bool Ends(string word) => Name.EndsWith(word, StringComparison.Ordinal);
}

/// <summary>Where a posture rests on something, and how its weight is shared between those places.</summary>
public static class Contacts
{
    private const double HeelUp = 10;

    /// <summary>The one place that only pushes.</summary>
    public const string Wall = "wall";

    /// <summary>Where a body stands on something.</summary>
    public static ImmutableArray<Contact> Of(Posture p, Skeleton s)
    {
        var list = ImmutableArray.CreateBuilder<Contact>();
        if (p.Air > 0)
        {
            return [];
        }

        switch (p.On)
        {
            case Carrier.Back:
                list.Add(new Contact("back", s[Joint.Pelvis] with { Z = 0 }));
                list.Add(new Contact("shoulders", s[Joint.Chest] with { Z = 0 }));
                break;
            case Carrier.Shoulders:
                list.Add(new Contact("shoulders", s[Joint.Chest] with { Z = 0 }));
                break;
            case Carrier.Bench:
                list.Add(new Contact("bench", s[Joint.Chest].Towards(s[Joint.Lumbar], PoseSolver.BladesBelow / Skeleton.ChestLength)));
                break;
            case Carrier.Front:
                list.Add(new Contact("front", s[Joint.Pelvis] with { Z = 0 }));
                list.Add(new Contact("chest", s[Joint.Chest] with { Z = 0 }));
                break;
            case Carrier.Seat:
                list.Add(new Contact("seat", s[Joint.Pelvis] - Vec.Up * PoseSolver.Seat));
                break;
            case Carrier.Wall:
                list.Add(new Contact(Wall, s[Joint.Pelvis].Towards(s[Joint.Chest], 0.5) - s.Chest.Of(Vec.Forward) * PoseSolver.BackBehind));
                break;
            case Carrier.Side:
                var (low, lower) = s[Joint.LeftShoulder].Z < s[Joint.RightShoulder].Z ? (1, "left") : (-1, "right");
                list.Add(s[Joint.Pelvis].Z < 0.17 && p.Anchor is { } anchor && (anchor - p.Pelvis).Length < 1e-6
                    ? new Contact("side", s[Joint.Pelvis] with { Z = 0 })
                    : new Contact($"{lower}Forearm", s.Of(Joint.LeftElbow, low) with { Z = 0 }));
                if (list[^1].IsArm && s.Of(Joint.LeftKnee, low).Z < 0.07 && JointLimits.KneeFlexion(s, low) > 45)
                {
                    // A side plank from the knee: the shin only lies there.
                    list.Add(new Contact($"{lower}Knee", s.Of(Joint.LeftKnee, low) with { Z = 0 }));
                }
                else if (s.Of(Joint.LeftAnkle, low).Z < 0.07)
                {
                    list.Add(new Contact($"{lower}Foot", s.Of(Joint.LeftAnkle, low) with { Z = 0 }));
                }

                break;
        }

        if (p.On == Carrier.Hands && s[Joint.Chest].Z < 0.12)
        {
            list.Add(new Contact("chest", s[Joint.Chest] with { Z = 0 }));
        }

        Feet(list, p, s, 1, p.LeftFoot, "left");
        Feet(list, p, s, -1, p.RightFoot, "right");
        foreach (var (side, hand, name) in new[] { (1, p.LeftHand, "left"), (-1, p.RightHand, "right") })
        {
            if (hand is { Fixed: true, Rests: false })
            {
                var elbow = s.Of(Joint.LeftElbow, side);
                list.Add(
                    elbow.Z < 0.06 && p.On is Carrier.Hands
                        ? new Contact($"{name}Forearm", elbow with { Z = 0 })
                        : new Contact($"{name}Hand", s.Of(Joint.LeftWrist, side)));
            }
        }

        return [.. list.DistinctBy(c => c.Name)];
    }

    private static void Feet(ImmutableArray<Contact>.Builder list, Posture p, Skeleton s, int side, FootState foot, string name)
    {
        switch (foot.Hold)
        {
            case Hold.Planted:
                var what = foot.Pitch > HeelUp ? "Toe" : foot.Pitch < -HeelUp ? "Heel" : "Foot";
                list.Add(new Contact(name + what, Standing.Middle(foot)));
                break;
            case Hold.Edge:
                list.Add(new Contact(name + "Foot", foot.Place));
                break;
            case Hold.Laces:
                list.Add(new Contact(name + "Toe", foot.Place));
                break;
            case Hold.Kneeling:
                list.Add(new Contact(name + "Knee", s.Of(Joint.LeftKnee, side) with { Z = 0 }));
                break;
        }
    }

    /// <summary>Whether only feet carry.</summary>
    public static bool OnFeet(ImmutableArray<Contact> contacts) =>
        contacts.Length > 0 && contacts.All(c => c.IsFoot);

    /// <summary>
    /// Shares of the weight that balance about the centre of mass and differ least from each other: one place carries all, two
    /// by where the centre lies between them. What would pull instead of push carries nothing.
    /// </summary>
    public static double[] Shares(ImmutableArray<Contact> contacts, Vec centre)
    {
        var n = contacts.Length;
        var used = Enumerable.Range(0, n).ToList();
        while (used.Count > 1)
        {
            var shares = LeastNorm([.. used.Select(i => contacts[i].At)], centre);
            var least = Enumerable.Range(0, used.Count).MinBy(i => shares[i]);
            if (shares[least] >= -1e-9)
            {
                var all = new double[n];
                for (var i = 0; i < used.Count; i++)
                {
                    all[used[i]] = Math.Max(0, shares[i]);
                }

                return all;
            }

            used.RemoveAt(least);
        }

        var one = new double[n];
        if (used.Count == 1)
        {
            one[used[0]] = 1;
        }

        return one;
    }

    /// <summary>Sum 1 and the given mean place, as evenly as that allows; a place beside their line is taken on it.</summary>
    private static double[] LeastNorm(Vec[] at, Vec centre)
    {
        var n = at.Length;
        var mean = at.Aggregate(new Vec(0, 0, 0), (a, b) => a + b) * (1.0 / n);
        double xx = 0, xy = 0, yy = 0;
        foreach (var p in at)
        {
            var (dx, dy) = (p.X - mean.X, p.Y - mean.Y);
            (xx, xy, yy) = (xx + dx * dx, xy + dx * dy, yy + dy * dy);
        }

        // A hair of stiffness where all places lie on one line.
        var soft = 1e-6 * (xx + yy) + 1e-12;
        var det = (xx + soft) * (yy + soft) - xy * xy;
        var (cx, cy) = (centre.X - mean.X, centre.Y - mean.Y);
        var (a, b) = (((yy + soft) * cx - xy * cy) / det, ((xx + soft) * cy - xy * cx) / det);
        return [.. at.Select(p => 1.0 / n + a * (p.X - mean.X) + b * (p.Y - mean.Y))];
    }
}
