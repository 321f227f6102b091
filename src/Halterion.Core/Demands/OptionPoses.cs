using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>
/// A move done in a manner, as key poses with what is held, worn and stood at. Every field of an option that a body shows is in it.
/// </summary>
public static class OptionPoses
{
    /// <summary>Depth of a squat that goes deeper, by its word: thigh from upright, degrees.</summary>
    private static double Thigh(Depth depth) => depth == Depth.Full ? 104 : 90;

    /// <summary>Depth of a hinge by where the hands come to: trunk from upright, degrees.</summary>
    private static double? Trunk(Depth depth) => depth switch
    {
        Depth.Knee => 46,
        Depth.Parallel or Depth.MidShin => 70,
        Depth.Full or Depth.Floor => 84,
        Depth.Small or Depth.Quarter or Depth.Half => null,
    };

    /// <summary>Share of the move's own way, in hinges and where no standing knee bends.</summary>
    private static double Share(Depth depth) => depth switch
    {
        Depth.Half => 1 / 2.0,
        Depth.Quarter => 1 / 3.0,
        Depth.Small => 1 / 4.0,
        Depth.Parallel or Depth.Full or Depth.Knee or Depth.MidShin or Depth.Floor => 1,
    };

    /// <summary>
    /// The most that the most bent standing knee bends at a shallower word, degrees, from how far it bends in the move's own form. Partial,
    /// half and deep squats as in Schoenfeld, J Strength Cond Res 24, 2010 (from memory); how they go down with the own form is [M].
    /// </summary>
    internal static double Cap(Depth depth, double own) => Math.Max(0, depth switch
    {
        Depth.Half => Math.Min(85, own - 20),
        Depth.Quarter => Math.Min(50, Cap(Depth.Half, own) - 20),
        Depth.Small or Depth.Parallel or Depth.Full or Depth.Knee or Depth.MidShin or Depth.Floor =>
            Math.Min(30, Cap(Depth.Quarter, own) - 20),
    });

    /// <summary>Kilograms that an option without a number is drawn and weighed with. [M]</summary>
    private const double UsualKg = 8;

    /// <param name="stature">Whose body a height in centimetres is held against; 1.70 m where none is said.</param>
    public static MovePoses? Of(Move move, Manner manner, Stature? stature = null) =>
        move.Poses is { } poses ? In(poses, manner, stature ?? Stature.Usual) : null;

    private static MovePoses In(MovePoses m, Manner manner, Stature stature)
    {
        var poses = m.Poses;
        if (manner.Depth is { } depth)
        {
            poses = Deep(m, depth);
        }

        if (manner.Base is { } footing)
        {
            (m, poses) = Based(m, poses, footing);
        }

        poses = Map(poses, p => Small(p, manner));
        if (manner.Step is StepLength.Short or StepLength.Long)
        {
            var by = manner.Step == StepLength.Short ? 0.76 : 1.12;
            poses = Map(poses, p => Stepped(p, by));
        }

        if (manner.Surface is { } surface)
        {
            (m, poses) = On(m, poses, surface, manner.HeightCm / 100.0 / stature.Metres);
        }

        if (manner.Impact is Impact.None)
        {
            // What was in the air is left out; the body stops at what is last now.
            var ground = poses.RemoveAll(p => p.Air > 0);
            poses = ground.Length > 1
                ? ground.SetItem(ground.Length - 1, ground[^1] with { Through = false })
                : Map(poses, p => p with { Air = 0, Heels = 0 });
        }
        else if (manner.Impact is { } impact && poses.All(p => p.Air == 0) && poses[^1].On == Carrier.Feet)
        {
            if (poses is [var one, var other]
                && (one.Left?.Free == true && other.Right?.Free == true || one.Right?.Free == true && other.Left?.Free == true))
            {
                // From one leg to the other: the air lies between them.
                var foot = new FootSpec(Flex: 14, Knee: 30, Out: 2, Point: 42);
                var air = one with
                {
                    Left = foot,
                    Right = foot,
                    Depth = 0,
                    Lean = 12,
                    Air = impact == Impact.Jump ? 0.08 : 0.05,
                    Arc = 0,
                    RightArm = Loose,
                    LeftArm = Loose,
                    Share = 1.1,
                };
                return In(m with { Poses = [one, air, other] }, manner with { Impact = null }, stature);
            }

            // Out of the deeper of two poses into the air and back to it.
            var high = poses.MinBy(p => p.Depth)!;
            poses = poses.Add(high with { Air = impact == Impact.Jump ? 0.08 : 0.04, Heels = 35, Share = 0.7 });
        }

        if (manner.Band is { } band)
        {
            // On hands and knees it goes above the knees where the hip does the work, round the feet where the knee does.
            var hip = poses[0].On == Carrier.Knees && Math.Abs((poses[^1].Right?.Knee ?? 0) - (poses[0].Right?.Knee ?? 0)) < 45;
            var worn = hip
                || poses[0].On is Carrier.Feet or Carrier.Shoulders or Carrier.Bench or Carrier.Side or Carrier.Seat or Carrier.Wall
                ? BandAt.Knees
                : BandAt.Feet;
            m = m with { Band = band == BandStrength.None ? BandAt.None : m.Band != BandAt.None ? m.Band : worn };
        }

        // Holding on comes last but one: a hand that holds on holds no weight.
        (m, poses) = Loaded(m, poses, manner);
        if (manner.Arms is { } arms && m.Holds is null)
        {
            poses = Map(poses, p => Held(p, Word(arms)));
        }

        if (manner.Support is { } support and not Support.None)
        {
            (m, poses) = Supported(m, poses, support);
        }

        return m with { Poses = poses };
    }

    /// <summary>From this lean on, who kneels is on hands and knees, degrees. [M]</summary>
    private const double AllFours = 50;

    /// <summary>A side plank from the knees: thighs in line with the trunk, shins behind.</summary>
    private static readonly FootSpec OnTheKnee = new(Flex: 0, Out: -9, Knee: 88);

    private static readonly ArmSpec Loose = new(Flex: 10, Out: 10, Elbow: 40);

    private static ImmutableArray<KeyPose> Map(ImmutableArray<KeyPose> poses, Func<KeyPose, KeyPose> by) => [.. poses.Select(by)];

    /// <summary>A seat, a step or a box under the foot sets the bend, whatever is said.</summary>
    private static bool IsSetByHeight(MovePoses m) =>
        !m.Props.IsDefault && m.Props.Any(p => p.EndsWith(":under", StringComparison.Ordinal))
            || m.Poses.Any(p => p is { Depth: > 20, Split: 0 } && p.Right is { Free: false, Z: > 0.05 });

    /// <summary>How much of its depth each move keeps at each shallower word: found once for a move's poses.</summary>
    private static readonly ConditionalWeakTable<MovePoses, ConcurrentDictionary<Depth, double>> Kept = [];

    /// <summary>
    /// The deepest pose goes to the depth of the word, the others with it; a shallower word is a cap on the move's own form.
    /// </summary>
    private static ImmutableArray<KeyPose> Deep(MovePoses m, Depth depth)
    {
        var poses = m.Poses;
        var thigh = poses.Max(p => p.Knee is null ? p.Depth : 0);
        if (thigh > 20)
        {
            return IsSetByHeight(m) ? poses
                : Share(depth) < 1 ? Deep(poses, Kept.GetOrCreateValue(m).GetOrAdd(depth, d => Keep(m, d)))
                : Trunk(depth) is not null && depth is not (Depth.Parallel or Depth.Full) ? poses
                : Deep(poses, Thigh(depth) / thigh);
        }

        var lean = poses.Where(p => p.On == Carrier.Feet).Select(p => p.Lean ?? 0).DefaultIfEmpty(0).Max();
        if (lean > 35)
        {
            var by = Trunk(depth) is { } to ? to / lean : Share(depth);
            return Map(poses, p => p.Lean is { } l && l > 20 ? p with { Lean = l * by, Left = Along(p.Left, by) } : p);
        }

        if (poses.Any(p => p.On == Carrier.Knees && p.Lean > AllFours && p.RightArm is { Flex: not null }))
        {
            // On one hand, the other is moved under the chest or up: half of it would be through the floor.
            return poses;
        }

        // Between the first pose and the last: so much of the way.
        var share = Share(depth);
        return [poses[0], .. poses.Skip(1).Select(p => Between(poses[0], p, share))];
    }

    private static ImmutableArray<KeyPose> Deep(ImmutableArray<KeyPose> poses, double by) =>
        Map(poses, p => p.Knee is not null || p.Depth == 0 ? p : p with
        {
            Depth = Math.Min(p.Depth * by, 108),

            // A lean that was said for the full depth goes with it.
            Lean = p.Lean is { } lean ? lean * Math.Min(1, 0.4 + 0.6 * by) : null,
            Shin = p.Shin is { } shin ? shin * Math.Min(1, by) : null,
        });

    /// <summary>The share of its depth at which the most bent standing knee is at its cap, by halving.</summary>
    private static double Keep(MovePoses m, Depth depth)
    {
        var cap = Cap(depth, Bend(m));
        var (low, high) = (0.0, 1.0);
        for (var i = 0; i < 12; i++)
        {
            var by = (low + high) / 2;
            (low, high) = Bend(m with { Poses = Deep(m.Poses, by) }) > cap ? (low, by) : (by, high);
        }

        return low;
    }

    private static double Bend(MovePoses m)
    {
        var motion = OptionFigure.MotionOf(m);
        var standing = Enumerable.Range(0, motion.Count).Select(motion.Key).Where(k => k.On is Carrier.Feet or Carrier.Wall && k.Air == 0);
        return standing.Select(k =>
        {
            var body = Skeleton.Of(k);
            double Of(FootState foot, int side) => foot.Hold is Hold.Planted or Hold.Laces ? JointLimits.KneeFlexion(body, side) : 0;
            return Math.Max(Of(k.LeftFoot, 1), Of(k.RightFoot, -1));
        }).DefaultIfEmpty(0).Max();
    }

    /// <summary>A free leg in line with the trunk comes up as far as the trunk goes down.</summary>
    private static FootSpec? Along(FootSpec? foot, double by) =>
        foot is { Free: true, Flex: > -1 and < 1 } && by < 1 ? foot with { Knee = foot.Knee + 20 * (1 - by) } : foot;

    private static KeyPose Between(KeyPose a, KeyPose b, double share)
    {
        double At(double x, double y) => x + (y - x) * share;
        FootSpec? Foot(FootSpec? x, FootSpec? y) => x is not null && y is not null && x.Free == y.Free
            ? y with
            {
                Flex = x.Flex is { } f && y.Flex is { } g ? At(f, g) : y.Flex,
                Out = At(x.Out, y.Out),
                Knee = At(x.Knee, y.Knee),
                Rotate = At(x.Rotate, y.Rotate),
                X = At(x.X, y.X),
                Z = At(x.Z, y.Z)
            }
            : x is not { Free: true } && y is { Free: true, Flex: { } up } ? y with { Flex = At(0, up) }
            : x is { Free: true, Flex: { } down } && y is not { Free: true } && share < 1 ? x with { Flex = At(down, 0) }
            : y;
        return b with
        {
            Lift = At(a.Lift, b.Lift),
            Down = At(a.Down, b.Down),
            Sit = At(a.Sit, b.Sit),
            Height = b.On is Carrier.Seat or Carrier.Wall ? At(a.Height, b.Height) : b.Height,
            Turn = At(a.Turn, b.Turn),
            Tip = At(a.Tip, b.Tip),
            Twist = At(a.Twist, b.Twist),
            Round = At(a.Round, b.Round),
            Heels = At(a.Heels, b.Heels),
            Knees = At(a.Knees, b.Knees),
            Lean = a.Lean is { } x && b.Lean is { } y ? At(x, y) : b.Lean,
            Right = Foot(a.Right, b.Right),
            Left = Foot(a.Left, b.Left),
        };
    }

    private static (MovePoses Move, ImmutableArray<KeyPose> Poses) Based(MovePoses m, ImmutableArray<KeyPose> poses, Footing footing)
    {
        var deepest = poses.MaxBy(p => p.Depth)!;
        var splits = deepest.Split != 0 || deepest.Left is { X: < -0.25 };
        if (footing is Footing.Staggered or Footing.Single or Footing.Split
            && poses.Any(p => p.On is Carrier.Hands or Carrier.Knees || p.Right is { Free: true } or { Kneel: true }))
        {
            // The leg that would have to stand is in the air, or it is hands and knees that carry.
            return (m, poses);
        }

        switch (footing)
        {
            case Footing.RearRaised when splits:
                return (
                    m with { Props = Add(m.Props, "bench:left") },
                    Map(poses,
                        p => p with
                        {
                            Split = 0,
                            Left = new FootSpec(X: -0.42, Z: 0.17, Laces: true),
                            Depth = Math.Max(p.Depth, 30),
                            Lean = p.Depth > 40 ? 16 : 10,
                            Shin = p.Depth > 40 ? 6 : null,
                            Weight = 0.85
                        }));
            case Footing.FrontRaised when splits:
                return (m with { Props = Add(m.Props, "step:right") },
                    Map(poses, p => p with { Right = (p.Right ?? new FootSpec()) with { Z = 0.08 } }));
            case Footing.Split when poses[0].On == Carrier.Feet:
                return (m,
                    Map(poses,
                        p => p with
                        {
                            Split = 0.488,
                            Width = 0.13,
                            Left = null,
                            Right = null,
                            Shin = p.Depth > 0 ? 0 : null,
                            Lean = p.Depth > 0 ? 12 : 0,
                            Heels = 0
                        }));
            case Footing.Staggered when poses[0].On is Carrier.Shoulders or Carrier.Bench:
                return (m, Map(poses, p => p with { Left = p.Left is { Free: true } ? p.Left : new FootSpec(X: 0.15, Heel: -18) }));
            case Footing.Staggered:
                FootSpec Behind(FootSpec? left) =>
                    left is { Free: true } ? new FootSpec(X: -0.14, Heel: 34) : (left ?? new FootSpec()) with { X = -0.14, Heel = 34 };
                return (m, Map(poses, p => p with { Left = Behind(p.Left), Weight = 0.8 }));
            case Footing.Single when poses[0].On is Carrier.Shoulders or Carrier.Bench:
                return (m, Map(poses, p => p with { Left = new FootSpec(Flex: p.Lift > 0.5 ? 8 : 48, Knee: 8) }));
            case Footing.Single:
                var hinges = poses.Any(p => p.Knee is not null);
                return (m,
                    Map(poses,
                        p => p with
                        {
                            Left = new FootSpec(Flex: hinges ? p.Lean > 30 ? 0 : -6 : 24, Knee: hinges ? 10 : 40),
                            Split = 0,
                            Weight = null
                        }));
            case Footing.Wide:
                return (m with { View = m.View == View.Side ? View.Quarter : m.View, Map = true },
                    Map(poses,
                        p => p with
                        {
                            Width = poses[0].On == Carrier.Feet ? 0.42 : 0.32,
                            Toes = 32,
                            Right = Plain(p.Right),
                            Left = Plain(p.Left)
                        }));
            case Footing.Narrow:
                return (m, Map(poses, p => p with { Width = 0.06, Toes = 2, Right = Plain(p.Right), Left = Plain(p.Left) }));
            case Footing.Hip:
                return (m, Map(poses, p => p with { Width = 0.15, Toes = 8, Right = Plain(p.Right), Left = Plain(p.Left) }));
            default:
                return (m, poses);
        }
    }

    /// <summary>A foot that stands as its stance says.</summary>
    private static FootSpec? Plain(FootSpec? foot) => foot is null || foot.Free ? foot : foot with { Y = null, Turn = null };

    private static KeyPose Small(KeyPose p, Manner manner)
    {
        if (manner.Toes is { } toes && p.On == Carrier.Feet)
        {
            p = p with { Toes = toes == Toes.Out ? 30 : 2 };
        }

        if (manner.Trunk is { } trunk && p.On == Carrier.Feet && p.Depth > 20)
        {
            var apart = p.Split != 0 || p.Left is not null;
            p = p with { Lean = trunk == TrunkLean.Upright ? (apart ? 3 : 24) : (apart ? 30 : 52) };
            p = p.Split == 0 && p.Left is null ? p with { Shin = null } : p;
        }

        return p;
    }

    private static KeyPose Stepped(KeyPose p, double by)
    {
        FootSpec? Foot(FootSpec? f) => f is null || f.Free ? f : f with { X = f.X * by, Y = f.Y is { } y && y > 0.2 ? y * by : f.Y };
        return p with
        {
            Split = p.Split * by,
            Shin = p.Shin is { } shin && by < 1 ? shin + 14 : p.Shin,
            Left = Foot(p.Left),
            Right = Foot(p.Right),
            Width = p.Width is > 0.2 and < 0.4 ? p.Width * by : p.Width
        };
    }

    private static (MovePoses Move, ImmutableArray<KeyPose> Poses) On(
        MovePoses m, ImmutableArray<KeyPose> poses, Surface surface, double? height)
    {
        var word = surface.ToString().ToLowerInvariant();
        double Height(double usual) => height ?? usual;
        var first = poses[0];
        var raises = surface is Surface.Step or Surface.Box or Surface.Bench or Surface.Chair;
        var seat = $"{(surface == Surface.Chair ? "chair" : "box")}:under";
        var under = m.Props.IsDefault ? null : m.Props.FirstOrDefault(p => p.EndsWith(":under", StringComparison.Ordinal));
        if (raises && (under is not null || first.On == Carrier.Feet && poses.All(p => p.Split == 0 && p.Left is null && p.Right is null)))
        {
            // A squat onto a seat: its height is where the hips go.
            var depth = height is null
                ? null
                : (double?)Math.Acos(Math.Clamp((Height(0) + 0.058 - 0.25) / 0.245, -0.3, 0.95)) * 180 / Math.PI;
            return (
                m with { Props = Add(m.Props.IsDefault ? m.Props : m.Props.RemoveAll(p => p == under), seat) },
                Map(poses, p => p.Depth > 40 ? p with { Depth = depth ?? Math.Min(p.Depth, 88), Shin = p.Shin ?? 31 } : p));
        }

        if (raises && first.On is Carrier.Shoulders)
        {
            return (
                m with { Props = Add(m.Props, $"{word}:feet") },
                Map(poses, p => p with { Right = Up(p.Right, Height(0.12)), Left = Up(p.Left, Height(0.12)) }));
        }

        if (raises && first.On is Carrier.Hands)
        {
            return (m with { Props = Add(m.Props, $"{word}:hands") },
                Map(poses, p => p with { Height = Height(surface == Surface.Step ? 0.10 : 0.24) }));
        }

        if (raises && first.Split == 0 && first.Right is { Z: > 0 })
        {
            // The knee bends with the root of the height, as a bent leg shortens.
            var by = Math.Sqrt(Height(first.Right!.Z) / first.Right.Z);
            return (m, Map(poses, p => p with
            {
                Right = p.Right is { Free: false, Z: > 0 } r ? r with { Z = Height(r.Z) } : p.Right,
                Left = p.Left is { Free: false, Z: > 0 } l ? l with { Z = Height(l.Z) } : p.Left,
                Depth = Math.Min(108, p.Depth * by),
                Shin = p.Shin * Math.Min(1, by),
            }));
        }

        return surface switch
        {
            Surface.Wall when first.On == Carrier.Feet => (m with { Props = Add(m.Props, "wall:behind") }, poses),
            Surface.Pad or Surface.Soft when poses.Any(p => p.Split != 0 || p.On == Carrier.Knees) =>
                (m with { Props = Add(m.Props, "pad:knee") }, poses),
            Surface.Mat or Surface.Soft => (m with { Props = Add(m.Props, "mat:lying") }, poses),
            Surface.Floor or Surface.Pad or Surface.Step or Surface.Box or Surface.Chair or Surface.Bench or Surface.Wall => (m, poses),
        };
    }

    private static FootSpec Up(FootSpec? foot, double by) => foot is { Free: true } ? foot : (foot ?? new FootSpec()) with { Z = by };

    private static (MovePoses Move, ImmutableArray<KeyPose> Poses) Loaded(MovePoses m, ImmutableArray<KeyPose> poses, Manner manner)
    {
        if (manner.Load is { IsNone: true })
        {
            return (m with { Holds = null }, poses);
        }

        if (manner.Load is not { } load || load.Implement == Implement.Machine || poses[0].On == Carrier.Front)
        {
            return (m, poses);
        }

        var kind = load.Implement?.ToString().ToLowerInvariant() ?? m.Holds?.Kind ?? "dumbbell";
        var kg = (double?)load.Kg?.Value ?? m.Holds?.Kg ?? UsualKg;
        var two = load.Count == 2;
        var bar = kind == "barbell";
        var bridges = poses[0].On is Carrier.Shoulders or Carrier.Bench;
        var position = load.Position
            ?? (bridges ? LoadPosition.Hips : bar ? null : two || m.Holds?.By == CarriedBy.EachHand ? LoadPosition.Sides : null);
        var right = load.Side is null or LoadSide.Same;
        var one = right ? CarriedBy.RightHand : CarriedBy.LeftHand;
        var hinges = poses.Any(p => p.Knee is not null);
        var (word, by) = position switch
        {
            LoadPosition.Goblet => (ArmWord.Goblet, CarriedBy.BothHands),
            LoadPosition.Rack when !two => (ArmWord.Rack, one),
            LoadPosition.Rack or LoadPosition.Shoulders => (ArmWord.Rack, two ? CarriedBy.EachHand : CarriedBy.BothHands),
            LoadPosition.FrontRack when bar => (ArmWord.FrontRack, CarriedBy.BothHands),
            LoadPosition.FrontRack => (ArmWord.Rack, two ? CarriedBy.EachHand : CarriedBy.BothHands),
            LoadPosition.Back => (ArmWord.Back, CarriedBy.Shoulders),
            LoadPosition.Overhead =>
                (ArmWord.Overhead, two ? CarriedBy.EachHand : bar ? CarriedBy.BothHands : load.Side is null ? CarriedBy.BothHands : one),
            LoadPosition.Hips => (ArmWord.OnHips, CarriedBy.Hips),
            LoadPosition.Low => (ArmWord.Low, two ? CarriedBy.EachHand : CarriedBy.BothHands),
            LoadPosition.Sides => (hinges ? ArmWord.Low : ArmWord.Sides, two ? CarriedBy.EachHand : one),
            _ => (bar || hinges || kind is "ball" or "plate" ? ArmWord.Low : ArmWord.Goblet,
                two ? CarriedBy.EachHand : load.Side is null or LoadSide.Both ? CarriedBy.BothHands : one),
        };
        // Arms that do more than hold it (a swing, a throw) go on doing so.
        var swung = poses.Any(p => (p.RightArm ?? p.Arms) is { Word: null });
        if (m.Holds is { } own && (load.Position is null && !bar || load.Position == LoadPosition.Low && !two && swung))
        {
            // The move's own way to hold it, another weight.
            return (m with { Holds = own with { Kind = kind, Kg = kg } }, poses);
        }

        var lone = by is CarriedBy.RightHand or CarriedBy.LeftHand;
        return (
            m with { Holds = new MoveLoad(kind, kg, by) },
            Map(poses, p => p.On is Carrier.Hands || p.On is Carrier.Knees && p.Lean > AllFours ? p
                : lone ? (
                    by == CarriedBy.RightHand
                        ? p with { RightArm = new ArmSpec(word), LeftArm = new ArmSpec(word == ArmWord.Low ? ArmWord.Sides : ArmWord.Hips) }
                        : p with
                        {
                            LeftArm = new ArmSpec(word),
                            RightArm = new ArmSpec(word == ArmWord.Low ? ArmWord.Sides : ArmWord.Hips)
                        })
                : Held(p, word)));
    }

    /// <summary>Both arms, or the upper one of a body that lies on its side: the lower one carries or lies.</summary>
    private static KeyPose Held(KeyPose p, ArmWord word) => p.On switch
    {
        Carrier.Side => p with { RightArm = new ArmSpec(word) },

        // Hands that carry stay where they are.
        Carrier.Hands => p,
        Carrier.Knees when p.Lean > AllFours => p,

        // On the front there is no room for arms under the chest.
        Carrier.Front when word is not (ArmWord.Sides or ArmWord.Overhead) => p,
        Carrier.Feet or Carrier.Knees or Carrier.Back or Carrier.Shoulders or Carrier.Bench
            or Carrier.Front or Carrier.Seat or Carrier.Wall => p with { Arms = new ArmSpec(word), RightArm = null, LeftArm = null },
    };

    private static ArmWord Word(ArmPlace arms) => arms switch
    {
        ArmPlace.Forward => ArmWord.Forward,
        ArmPlace.Hips => ArmWord.Hips,
        ArmPlace.Crossed => ArmWord.Crossed,
        ArmPlace.Overhead => ArmWord.Overhead,
        ArmPlace.Free or ArmPlace.Sides => ArmWord.Sides,
    };

    private static (MovePoses Move, ImmutableArray<KeyPose> Poses) Supported(MovePoses m, ImmutableArray<KeyPose> poses, Support support)
    {
        var stands = poses.All(p => p.On == Carrier.Feet);
        var atWall = stands && poses.All(p => (p.LeftArm ?? p.Arms)?.Word == ArmWord.WallAhead);
        switch (support)
        {
            case Support.Wall or Support.Hand or Support.TwoHands or Support.Doorway or Support.Helper when atWall:
                // Both hands are on a wall already.
                return (m, poses);
            case Support.Wall or Support.Hand or Support.Doorway or Support.Helper when stands:
                // One hand holds on; a weight is in the other.
                var by = m.Holds is null
                    ? null
                    : m.Holds with { By = m.Holds.By is CarriedBy.LeftHand or CarriedBy.EachHand ? CarriedBy.RightHand : m.Holds.By };
                return (m with { Holds = by, Props = Add(m.Props, "wall:aside") },
                    Map(poses, p => p with { LeftArm = new ArmSpec(ArmWord.Wall), RightArm = p.RightArm ?? p.Arms }));
            case Support.Chair or Support.TwoHands when stands
                && (m.Props.IsDefault || !m.Props.Any(p => p.EndsWith(":under", StringComparison.Ordinal))):
                var props = m.Props.IsDefault ? m.Props : m.Props.RemoveAll(p => p == "wall:ahead");
                return (m with { Holds = null, Props = Add(props, "chair:chairAhead") }, Map(poses, p => Held(p, ArmWord.ChairAhead)));
            case Support.TwoHands or Support.Chair when stands:
                return (m with { Holds = null }, Map(poses, p => Held(p, ArmWord.Thigh)));
            case Support.HandOnThigh when stands:
                return (m, Map(poses, p => p with { RightArm = new ArmSpec(ArmWord.Thigh) }));
            case Support.Knees when poses[0].On == Carrier.Hands:
                return (m, Map(poses, p => p with { OnKnees = true, Right = null, Left = null }));
            case Support.Knees when stands:
                return (m, Map(poses, p => Held(p, ArmWord.Thigh)));
            case Support.Knees when poses[0] is { On: Carrier.Side, Lift: > 0 }:
                return (m, Map(poses, p => p with { OnKnees = true, Left = OnTheKnee, Right = OnTheKnee }));
            case Support.Forearms when poses[0].On is Carrier.Hands
                || poses.All(p => p is { On: Carrier.Knees, LeftArm: null, RightArm: null }):
                return (m,
                    Map(poses,
                        p => p with
                        {
                            Arms = p.On == Carrier.Hands ? new ArmSpec(ArmWord.Forearm) : p.Arms,
                            Lean = p.On == Carrier.Knees ? 100 : p.Lean,
                            Down = 0
                        }));
            default:
                return (m, poses);
        }
    }

    private static ImmutableArray<string> Add(ImmutableArray<string> props, string word) =>
        props.IsDefault ? [word] : props.Contains(word) ? props : props.Add(word);
}
