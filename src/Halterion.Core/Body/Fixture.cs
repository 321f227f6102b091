using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>What stands in the room: chair, box, step, bench, wall, pad, mat, anchor, rail. A block from one corner to the other.</summary>
public sealed record Fixture(string Kind, Vec From, Vec To)
{
    /// <summary>Of a wall as much as stands behind a body, so that it does not reach into what is drawn beside it.</summary>
    internal Fixture Beside(params ReadOnlySpan<Skeleton> bodies)
    {
        if (Kind != "wall")
        {
            return this;
        }

        const double more = 0.06;
        bool thin = To.X - From.X < To.Y - From.Y;
        Vec[] joints = [.. bodies.ToArray().SelectMany(b => b.All)];
        double Low(Func<Vec, double> of) => joints.Min(of) - more;
        double High(Func<Vec, double> of) => joints.Max(of) + more;
        var high = Math.Min(To.Z, High(v => v.Z) + 0.04);
        var (low, far) = (From, To with { Z = high });
        return thin
            ? new Fixture(Kind, low with { Y = Math.Max(From.Y, Low(v => v.Y)) }, far with { Y = Math.Min(To.Y, High(v => v.Y)) })
            : new Fixture(Kind, low with { X = Math.Max(From.X, Low(v => v.X)) }, far with { X = Math.Min(To.X, High(v => v.X)) });
    }
}

/// <summary>Places what a move is done at or on where its contacts are.</summary>
public static class Fixtures
{
    /// <param name="words">From the library: "chair:under", "wall:behind", "wall:aside", "step:right" …</param>
    public static ImmutableArray<Fixture> Of(
        ImmutableArray<string> words, ImmutableArray<KeyPose> poses, ImmutableArray<Skeleton> keys, BandAt band = BandAt.None)
    {
        var list = ImmutableArray.CreateBuilder<Fixture>();
        if (Anchor(band) is { } anchor)
        {
            // A post, or the leg of something heavy.
            var thick = new Vec(0.012, 0.012, 0);
            list.Add(new Fixture("anchor", (anchor - thick) with { Z = 0 }, anchor + thick + Vec.Up * 0.02));
        }

        foreach (var word in words.IsDefault ? [] : words)
        {
            var parts = word.Split(':');
            if (word == "plate:hands")
            {
                // One under each hand.
                foreach (var hand in (Vec[])[keys[0][Joint.LeftWrist], keys[0][Joint.RightWrist]])
                {
                    var corner = new Vec(hand.X - 0.07, hand.Y - 0.07, 0);
                    list.Add(new Fixture("plate", corner, new Vec(hand.X + 0.1, hand.Y + 0.07, poses[0].Height)));
                }

                continue;
            }

            if (At(parts[0], parts.Length > 1 ? parts[1] : "", poses, keys) is { } fixture)
            {
                list.Add(fixture);
            }
        }

        return list.ToImmutable();
    }

    /// <summary>Whether the feet slide on something.</summary>
    internal static bool Slide(ImmutableArray<string> words) => !words.IsDefault && words.Contains("slider:feet");

    /// <summary>Where a band is fixed in the room; null for one that is worn.</summary>
    internal static Vec? Anchor(BandAt band) => band switch
    {
        BandAt.AnchorBehind => new Vec(-0.52, 0, 0.06),
        BandAt.AnchorAhead => new Vec(0.60, 0, 0.70),
        BandAt.AnchorBack => new Vec(-0.34, 0, 0.74),
        BandAt.AnchorHigh => new Vec(0.46, 0, 0.98),
        BandAt.AnchorAnkle => new Vec(0.52, -0.1, 0.06),
        BandAt.None or BandAt.Knees or BandAt.Ankles or BandAt.Feet or BandAt.Shoulders or BandAt.Hips => null,
    };

    private static Fixture? At(string kind, string where, ImmutableArray<KeyPose> poses, ImmutableArray<Skeleton> keys)
    {
        var lowest = keys.MinBy(k => k[Joint.Pelvis].Z)!;
        var pelvis = lowest[Joint.Pelvis];
        switch (where)
        {
            case "under":
                return Block(kind, pelvis + new Vec(-0.125, -0.13, 0), pelvis + new Vec(0.115, 0.13, 0), pelvis.Z - PoseSolver.Seat);
            case "behind":
                // The seat's back touches it at the furthest pose.
                var back = keys.Min(k => k[Joint.Pelvis].X) - 0.072;
                return new Fixture(kind, new Vec(back - 0.03, -0.3, 0), new Vec(back, 0.3, 1.0));
            case "back":
                return new Fixture(kind, new Vec(pelvis.X - 0.105, -0.3, 0), new Vec(pelvis.X - 0.075, 0.3, 1.0));
            case "aside":
                return new Fixture(kind, new Vec(-0.28, ArmWords.WallAside + 0.012, 0), new Vec(0.42, ArmWords.WallAside + 0.03, 1.0));
            case "left" when kind == "wall":
                return new Fixture(kind, new Vec(-0.3, 0.43, 0), new Vec(0.35, 0.45, 1.0));
            case "right" when kind == "wall":
                return new Fixture(kind, new Vec(-0.3, -0.45, 0), new Vec(0.35, -0.43, 1.0));
            case "ahead":
                return new Fixture(kind, new Vec(ArmWords.WallAhead, -0.3, 0), new Vec(ArmWords.WallAhead + 0.03, 0.3, 1.0));
            case "chairAhead":
                return new Fixture(
                    "chairBack", new Vec(ArmWords.ChairAhead - 0.03, -0.12, 0), new Vec(ArmWords.ChairAhead + 0.22, 0.12, 0.50));
            case "right" or "left":
                var side = where == "left" ? 1 : -1;
                var raised = poses.Select((p, i) => (Spec: PoseSolver.SpecOf(p, side), Key: keys[i])).FirstOrDefault(x => x.Spec.Z > 0);
                if (raised.Spec is null)
                {
                    return null;
                }

                var (heel, toe) = (raised.Key.Of(Joint.LeftHeel, side), raised.Key.Of(Joint.LeftToe, side));
                var (low, high) = (Math.Min(heel.X, toe.X), Math.Max(heel.X, toe.X));
                return new Fixture(kind, new Vec(low - 0.05, heel.Y - 0.12, 0), new Vec(high + 0.05, heel.Y + 0.12, raised.Spec.Z));
            case "feet":
                var first = keys[^1];
                var z = PoseSolver.SpecOf(poses[^1], -1).Z;
                var x = Math.Min(first[Joint.RightHeel].X, first[Joint.LeftHeel].X);
                return new Fixture(kind, new Vec(x - 0.03, -0.17, 0), new Vec(x + 0.21, 0.17, z));
            case "shoulders":
                return new Fixture(kind, new Vec(-0.42, -0.28, 0), new Vec(-0.20, 0.28, poses[^1].Height));
            case "hands":
                return new Fixture(kind, new Vec(-0.10, -0.2, 0), new Vec(0.12, 0.2, poses[^1].Height));
            case "knee":
                var knee = keys.SelectMany(k => new[] { k[Joint.LeftKnee], k[Joint.RightKnee] }).MinBy(v => v.Z);
                return new Fixture(kind, new Vec(knee.X - 0.075, knee.Y - 0.06, 0),
                    new Vec(knee.X + 0.075, knee.Y + 0.06, Math.Max(0.012, knee.Z - 0.042)));
            case "tap":
                return new Fixture(kind, new Vec(0.2, -0.3, 0), new Vec(0.42, 0.3, 0.2));
            case "across":
                return new Fixture(kind, new Vec(-0.1, -0.04, 0), new Vec(0.14, 0.04, 0.1));
            case "line":
                return new Fixture(kind, new Vec(-0.15, -0.008, 0), new Vec(0.2, 0.008, 0));
            case "lying":
                return Mat(kind, keys);
            default:
                return null;
        }
    }

    private static Fixture Mat(string kind, ImmutableArray<Skeleton> keys)
    {
        var low = keys.SelectMany(k => k.All).Where(v => v.Z < 0.2).ToArray();
        return new Fixture(kind, new Vec(low.Min(v => v.X) - 0.06, -0.2, -0.012), new Vec(low.Max(v => v.X) + 0.06, 0.2, 0));
    }

    private static Fixture Block(string kind, Vec a, Vec b, double height) => new(kind, new Vec(a.X, a.Y, 0), new Vec(b.X, b.Y, height));
}
