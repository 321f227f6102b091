using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Core.Views;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Every move and every proposed option, frame by frame, as another program is given them.</summary>
public class MotionTests
{
    private static readonly ImmutableArray<(string Name, Option Option)> All =
    [
        .. from move in Library.Moves
           let p = Proposals.For(move.Id, Library)
           from option in new[] { ("main", Option.Of(Tier.Main, move.Id)), ("easier", p.Easier?.Of), ("harder", p.Harder?.Of),
               ("instead", p.Instead?.Of) }
           where option.Item2 is not null
           select ($"{move.Id.Value}/{option.Item1}", option.Item2),
        .. Library.Ladders.SelectMany(l => l.Rungs.Select(r => ($"{l.Name}/{r.Move.Value}", Proposals.OptionOf(r, Tier.Main, Library)))),
    ];

    private static readonly string[] Joints = [.. Enum.GetNames<Joint>().Select(n => char.ToLowerInvariant(n[0]) + n[1..])];

    private static int Index(string joint) => Array.IndexOf(Joints, joint);

    /// <summary>All of them for the usual stature, once.</summary>
    private static readonly Lazy<ImmutableArray<(string Name, MoveMotion Motion)>> Usual = new(() => [.. Motions(170, all: true)]);

    private static IEnumerable<(string Name, MoveMotion Motion)> Motions(int stature, bool all = false) => stature == 170 && !all
        ? Usual.Value
        : All.Select(o => (o.Name, MoveMotion.Of(o.Option, "main", Library, new Preferences(), stature)));

    private static double Way(ImmutableArray<double> a, ImmutableArray<double> b) =>
        Math.Sqrt((a[0] - b[0]) * (a[0] - b[0]) + (a[1] - b[1]) * (a[1] - b[1]) + (a[2] - b[2]) * (a[2] - b[2]));

    [Fact]
    public void Nothing_goes_through_the_floor_and_lengths_stay()
    {
        (string From, string To, double Length)[] bones =
        [
            ("leftHip", "leftKnee", 0.245), ("leftKnee", "leftAnkle", 0.246), (
                "leftShoulder", "leftElbow", 0.186), ("leftElbow", "leftWrist", 0.146),
            ("rightHip", "rightKnee", 0.245), ("rightKnee", "rightAnkle", 0.246), (
                "rightShoulder", "rightElbow", 0.186), ("rightElbow", "rightWrist", 0.146),
            ("leftHip", "rightHip", 0.191), ("leftShoulder", "rightShoulder", 0.259),
        ];
        foreach (var stature in (int[])[150, 200])
        {
            Assert.All(Motions(stature), m => Assert.All(m.Motion.Frames, frame =>
            {
                Assert.True(frame.At.Min(p => p[2]) > -0.001,
                    $"{m.Name}: {Joints[Array.IndexOf([.. frame.At.Select(p => p[2])], frame.At.Min(p => p[2]))]} below the floor");
                Assert.All(bones,
                    b => Assert.Equal(
                        b.Length * stature / 100, Way(frame.At[Index(b.From)], frame.At[Index(b.To)]), 0.01 * b.Length * stature / 100));
            }));
        }
    }

    /// <summary>
    /// At 25 frames a second no joint goes further than 12 % of stature, nor 4 % (around flight 7 %) more or less than before.
    /// </summary>
    [Fact]
    public void Nothing_jumps() => Assert.All(Motions(170), m =>
    {
        var frames = m.Motion.Frames;
        for (var i = 1; i < frames.Length; i++)
        {
            for (var j = 0; j < Joints.Length; j++)
            {
                var way = Way(frames[i].At[j], frames[i - 1].At[j]) / 1.7;
                Assert.True(way < 0.12, $"{m.Name}: {Joints[j]} goes {way:0.000} in frame {i}");
                if (i > 1)
                {
                    var before = Way(frames[i - 1].At[j], frames[i - 2].At[j]) / 1.7;
                    var flight = frames[Math.Max(0, i - 3)..Math.Min(frames.Length, i + 2)].Any(f => f.Air);
                    var jerk = Math.Abs(way - before);
                    Assert.True(jerk < (flight ? 0.07 : 0.04), $"{m.Name}: {Joints[j]} jerks by {jerk:0.000} in frame {i}");
                }
            }
        }
    });

    [Fact]
    public void What_stands_balances_and_what_is_held_is_in_the_hand() => Assert.All(Motions(170), m =>
    {
        // A foot that is lifted makes a step of it: until it is down, or up for good, the body is on its way.
        string Stands(MotionFrame f) => string.Join(' ', f.Contacts);
        var (first, last) = (m.Motion.Frames[0], m.Motion.Frames[^1]);
        var still = m.Motion.Frames.Where((f, i) => i == 0 || i == m.Motion.Frames.Length - 1
            || Stands(first) == Stands(last) && Stands(f) == Stands(first) && m.Motion.Frames.All(g => Stands(g) == Stands(first)));
        Assert.All(
            still.Where(
                f => f.Contacts.Length > 0
                    && f.Contacts.All(
                        c => c.EndsWith("Foot", StringComparison.Ordinal)
                            || c.EndsWith("Toe", StringComparison.Ordinal)
                            || c.EndsWith("Heel", StringComparison.Ordinal))),
            f =>
        {
            var feet = f.Contacts.SelectMany(
                c => c.StartsWith("left", StringComparison.Ordinal) ? new[] { "leftHeel", "leftToe" } : ["rightHeel", "rightToe"])
                .Select(j => f.At[Index(j)])
                .ToArray();
            Assert.InRange(f.CentreOfMass[0], feet.Min(p => p[0]) - 0.03, feet.Max(p => p[0]) + 0.03);
            Assert.InRange(f.CentreOfMass[1], feet.Min(p => p[1]) - 0.06, feet.Max(p => p[1]) + 0.06);
        });
        foreach (var item in m.Motion.Items.Where(i => i.HeldBy.All(h => h.EndsWith("Hand", StringComparison.Ordinal)) && i.Kind != "band"))
        {
            for (var i = 0; i < m.Motion.Frames.Length; i++)
            {
                var hands = item.HeldBy.Select(h => m.Motion.Frames[i].At[Index(h)]).ToArray();
                ImmutableArray<double> middle = [hands.Average(h => h[0]), hands.Average(h => h[1]), hands.Average(h => h[2])];
                Assert.True(Way(middle, item.Frames[i]) < (hands.Length == 1 ? 0.02 : 0.06), $"{m.Name}: {item.Kind} is "
                    + $"{Way(middle, item.Frames[i]):0.000} from the hand");
            }
        }
    });

    [Fact]
    public void Start_and_end_differ_unless_it_is_held() => Assert.All(Motions(170), m =>
    {
        var frames = m.Motion.Frames;
        var most = Enumerable.Range(0, Joints.Length).Max(j => frames.Max(f => Way(f.At[j], frames[0].At[j])));
        Assert.Equal(m.Motion.Hold, most < 0.02);
        Assert.Equal(m.Motion.Hold ? 51 : frames.Length, frames.Length);
    });

    /// <summary>What the words say is in the picture: where the body is, which side works, and the kit.</summary>
    [Fact]
    public void The_picture_is_what_the_move_says() => Assert.All(Library.Moves, move =>
    {
        var motion = OptionFigure.MotionOf(move.Poses!);
        var on = move.Poses!.Poses.Select(p => p.On).ToHashSet();
        Assert.True(
            move.Position switch
            {
                Position.Standing => on.Overlaps([Carrier.Feet, Carrier.Wall]),
                Position.OnTheBack => on.Overlaps([Carrier.Back, Carrier.Shoulders]),
                Position.SideLying => on.Contains(Carrier.Side),
                Position.HandsAndKnees => on.Overlaps([Carrier.Knees, Carrier.Hands]),
                Position.Kneeling => on.Contains(Carrier.Knees),
                Position.Prone => on.Contains(Carrier.Front),
                Position.Bench => on.Overlaps([Carrier.Bench, Carrier.Seat]),
                _ => on.Contains(Carrier.Seat),
            },
            move.Id.Value);
        if (move.Sided == Sided.OneSided)
        {
            Assert.True(Enumerable.Range(0, motion.Count).Select(i => Skeleton.Of(motion.Key(i))).Any(s => Mirrored(s) > 0.02),
                $"{move.Id}: both sides do the same");
        }

        bool Kit(string word) => move.Kit.Any(k => k.Contains(word, StringComparison.Ordinal));
        var load = move.Poses.Holds?.Kind ?? "";
        foreach (var kind in (string[])["dumbbell", "kettlebell", "barbell", "ball"])
        {
            Assert.True(load != kind || Kit(kind) || Kit("hand weight") || Kit("medicine"), $"{move.Id}: {kind} is drawn, kit is "
                + $"{string.Join(", ", move.Kit)}");
        }

        Assert.True(move.Poses.Band == BandAt.None || Kit("band"), $"{move.Id}: a band is drawn");
        Assert.True(!Kit("mini-band") || move.Poses.Band != BandAt.None, $"{move.Id}: no band is drawn");
        Assert.True(!(Kit("dumbbell") || Kit("bell")) || load != "", $"{move.Id}: no weight is drawn");
        string[] props = ["chair", "wall", "bench", "box", "step"];
        Assert.All(props.Where(p => move.Kit is [var only] && only == p),
            p => Assert.Contains(move.Poses.Props.IsDefault ? [] : move.Poses.Props, prop => prop.StartsWith(p, StringComparison.Ordinal)));
    });

    private static double Mirrored(Skeleton s)
    {
        var most = 0.0;
        foreach (var joint in (Joint[])[Joint.LeftKnee, Joint.LeftAnkle, Joint.LeftHand, Joint.LeftElbow])
        {
            var (left, right) = (s.Of(joint, 1), s.Of(joint, -1));
            most = Math.Max(most, (left - new Vec(right.X, -right.Y, right.Z)).Length);
        }

        return most;
    }

    [Fact]
    public void Poses_keep_to_the_joints() => Assert.All(All, o =>
    {
        var motion = OptionFigure.MotionOf(OptionPoses.Of(Library.Find(o.Option.Move)!, o.Option.Manner)!);
        Assert.All(Enumerable.Range(0, motion.Count), i => Assert.Null(JointLimits.Past(Skeleton.Of(motion.Key(i)))));
    });

    /// <summary>Every outline turns the same way round, so that overlapping limbs never cut holes into each other.</summary>
    [Fact]
    public void No_limb_cuts_a_hole_into_another() => Assert.All(Library.Moves, move =>
    {
        var figure = OptionFigure.Of(move, new Manner(), Library)!;
        Assert.InRange(figure.Stills.Length, 1, 6);
        Assert.DoesNotContain("NaN", figure.Svg(), StringComparison.Ordinal);
        Assert.NotEqual("", figure.Alt);
        Assert.All(
            figure.Stills.SelectMany(s => s.Layers).SelectMany(l => l.Path.Split('Z', StringSplitOptions.RemoveEmptyEntries)), outline =>
        {
            // The corners alone tell the way round; of two only, the arcs between them do.
            var numbers = Regex.Matches(outline, @"[MLA]([^MLA]*)").Select(m => m.Groups[1].Value.Split(' ')).ToArray();
            var corners = numbers.Select(
                n => (
                    X: double.Parse(n[^2], CultureInfo.InvariantCulture), Y: double.Parse(n[^1], CultureInfo.InvariantCulture))).ToArray();
            var area = corners.Zip([.. corners[1..], corners[0]], (a, b) => a.X * b.Y - b.X * a.Y).Sum();
            Assert.True(area <= 0.5, $"{move.Id}: {outline}");
            Assert.All(Regex.Matches(outline, @"A\S+ \S+ 0 [01] ([01]) "), arc => Assert.Equal("0", arc.Groups[1].Value));
        });
    });

    [Fact]
    public void A_figure_shows_what_it_should()
    {
        Figure Of(string id, Manner? manner = null) => OptionFigure.Of(Library.Find(new MoveId(id))!, manner ?? new Manner(), Library)!;
        Assert.Equal([2, 3, 3], new[] { "squat", "one-half-squat", "walking-lunge" }.Select(id => Of(id).Stills.Length));
        Assert.True(Of("squat").Stills[1] is { X: > 20, Y: 0 } && Of("glute-bridge").Stills[1].Y > 20, "standing beside, lying "
            + "above each other");
        Assert.Contains(Ink.Far, Of("split-squat").Stills[^1].Layers.Select(l => l.Ink));
        Assert.DoesNotContain(Ink.Kit, Of("squat").Stills[^1].Layers.Select(l => l.Ink));
        Assert.Contains(Ink.Kit,
            Of("squat", new Manner { Load = new Load(Implement.Kettlebell, 1, new Kilograms(8), LoadPosition.Goblet, null) })
                .Stills[^1]
                .Layers.Select(l => l.Ink));
        Assert.Contains(Ink.Band, Of("glute-bridge", new Manner { Band = BandStrength.Light }).Stills[^1].Layers.Select(l => l.Ink));
        Assert.Contains("thighs level", Of("squat").Alt, StringComparison.Ordinal);
        Assert.Contains("right leg lifted behind", Of("kickback").Alt, StringComparison.Ordinal);
        Assert.NotNull(Of("wide-squat").Map);
        Assert.Null(Of("squat").Map);
        Assert.Equal(View.Front, OptionFigure.Of(Library.Find(new MoveId("squat"))!, new Manner(), Library, View.Front)!.View);
    }

    /// <summary>The first number of a tempo lowers (handbook, section 3): the way out in a squat, the way back in a bridge.</summary>
    [Fact]
    public void A_figure_goes_at_its_tempo()
    {
        Assert.True(Tempo.TryParse("4-1-2-3", out var tempo));
        string Phases(string id) =>
            string.Join(' ',
                OptionFigure.FilmOf(Library.Find(new MoveId(id))!, new Manner { Tempo = tempo },
                    Library).Phases.Select(p => $"{p.Word}{p.To - p.From:0.#}"));
        Assert.Equal("lower4 hold1 lift2 hold3", Phases("squat"));
        Assert.Equal("lift2 hold3 lower4 hold1", Phases("glute-bridge"));
        var film = OptionFigure.FilmOf(Library.Find(new MoveId("squat"))!, new Manner { Tempo = tempo }, Library);
        Assert.Equal((10.0, 500), (film.Seconds, film.Frames.Length));
    }

    private static FigureFilm FilmOf(string id, Side side) =>
        OptionFigure.FilmOf(Library.Find(new MoveId(id))!, new Manner(), Library, side: side);

    /// <summary>"Left foot in front" and "right foot in front" are two pictures, and words, that mirror each other.</summary>
    [Fact]
    public void Left_and_right_are_told_apart()
    {
        Figure Of(string id, Side side) => OptionFigure.Of(Library.Find(new MoveId(id))!, new Manner(), Library, side: side)!;
        var (right, left) = (Of("split-squat", Side.Right), Of("split-squat", Side.Left));
        Assert.Contains("right foot in front", right.Alt, StringComparison.Ordinal);
        Assert.Contains("left foot in front", left.Alt, StringComparison.Ordinal);
        Assert.Contains("trunk upright", left.Alt, StringComparison.Ordinal);
        Assert.All(Library.Moves, m =>
        {
            var words = new[] { Side.Right, Side.Left }.Select(
                side => Regex.Matches(Of(m.Id.Value, side).Alt, @"\w+").Select(w => w.Value).ToArray()).ToArray();
            Assert.All(words[0].Zip(words[1]),
                pair => Assert.Equal(pair.First switch { "left" => "right", "right" => "left", var same => same }, pair.Second));
        });
        Assert.NotEqual(right.Stills[^1].Layers[0].Path, left.Stills[^1].Layers[0].Path);
        Assert.Equal((right.Stills[^1].Left, right.Stills[^1].Right), (-left.Stills[^1].Right, -left.Stills[^1].Left));
        Assert.Equal(["L", "R"], left.Map!.Labels.Select(l => l.Text).Order());
        static double Foot(Figure figure, string side) => figure.Map!.Labels.Single(l => l.Text == side).Y;
        Assert.True(Foot(right, "R") < Foot(right, "L"), "the right foot is in front");
        Assert.True(Foot(left, "L") < Foot(left, "R"), "the left foot is in front");

        var (one, both) = (FilmOf("split-squat", Side.Right), FilmOf("split-squat", Side.Alternate));
        Assert.NotEqual(one.Frames[30], FilmOf("split-squat", Side.Left).Frames[30]);
        Assert.Equal((2 * one.Seconds, 2 * one.Frames.Length), (both.Seconds, both.Frames.Length));
        Assert.Equal(FilmOf("march", Side.Right).Seconds, FilmOf("march", Side.Alternate).Seconds);
    }

    /// <summary>One arrow, on the part that moves, with a head, beside the body: in the picture on its own too.</summary>
    [Fact]
    public void An_arrow_shows_what_moves() => Assert.All(Library.Moves, move =>
    {
        var figure = OptionFigure.Of(move, new Manner(), Library)!;
        Assert.Equal(figure.Arrow is not null, figure.Svg().Contains("#b23a1e", StringComparison.Ordinal));
        if (figure.Arrow is not { } arrow)
        {
            Assert.True(figure.Stills.Length == 1 || move.Dose.Kind == "hold" || move.Tempo is null, $"{move.Id}: no arrow");
            return;
        }

        Assert.InRange(arrow.Still, 0, figure.Stills.Length - 1);
        Assert.EndsWith("Z", arrow.Head, StringComparison.Ordinal);

        // All of it is in the picture.
        var box = figure.ViewBox.Split(' ').Select(n => double.Parse(n, CultureInfo.InvariantCulture)).ToArray();
        var still = figure.Stills[arrow.Still];
        Assert.All(Regex.Matches(arrow.Line + arrow.Head, @"[ML](\S+) ([^MLZ]+)"), point =>
        {
            Assert.InRange(double.Parse(point.Groups[1].Value, CultureInfo.InvariantCulture) + still.X, box[0] - 1, box[0] + box[2] + 1);
            Assert.InRange(double.Parse(point.Groups[2].Value, CultureInfo.InvariantCulture) + still.Y, box[1] - 1, box[1] + box[3] + 1);
        });
    });

    /// <summary>What stands beside one still reaches into no other: neither walls nor chairs paint over a body.</summary>
    [Fact]
    public void Nothing_paints_over_the_body_beside_it() => Assert.All(
        All.Where(o => OptionPoses.Of(Library.Find(o.Option.Move)!, o.Option.Manner)!.Props is { IsDefaultOrEmpty: false }),
        o =>
        {
            var figure = OptionFigure.Of(Library.Find(o.Option.Move)!, o.Option.Manner, Library)!;
            Assert.All(figure.Stills, still => Assert.All(still.Layers.Where(l => l.Ink is Ink.Wall or Ink.Fixture), layer =>
                Assert.All(Regex.Matches(layer.Path, @"[ML]([-\d.]+) "), x =>
                    Assert.InRange(double.Parse(x.Groups[1].Value, CultureInfo.InvariantCulture), still.Left - 0.5, still.Right + 0.5))));
        });

    /// <summary>
    /// The side that a move's words mean is the right one in its picture, so that "left" is its mirror image: the foot that stands stands,
    /// the one in front is ahead, the leg that is lifted is off the floor or up, the arm that reaches goes furthest.
    /// </summary>
    [Fact]
    public void The_side_that_is_meant_works_in_the_picture() =>
        Assert.All(Library.Moves.Where(m => m.Sided == Sided.OneSided || m.SideMeans == "reaching arm"), move =>
    {
        var motion = OptionFigure.MotionOf(move.Poses!);
        var (start, end) = (motion.Key(0), motion.Key(motion.Count - 1));
        var (first, last) = (Skeleton.Of(start), Skeleton.Of(end));
        double Went(Joint left, int side) => (last.Of(left, side) - first.Of(left, side)).Length;
        bool? right = move.SideMeans switch
        {
            "foot in front" when motion.Pose(0).On == Carrier.Feet => last[Joint.RightAnkle].X > last[Joint.LeftAnkle].X,
            "back leg" or "back knee" => last[Joint.RightKnee].X < last[Joint.LeftKnee].X,
            "standing foot" or "standing leg" or "foot on the floor" => end.RightFoot.Hold == Hold.Planted,
            "upper leg" => last[Joint.RightHip].Z > last[Joint.LeftHip].Z,
            "lifted leg" or "moving leg" or "sweeping leg" or "stretched leg" => Went(Joint.LeftAnkle, -1) > Went(Joint.LeftAnkle, 1),
            "lower arm" => last[Joint.RightElbow].Z < last[Joint.LeftElbow].Z,
            "reaching arm" => Went(Joint.LeftHand, -1) > Went(Joint.LeftHand, 1),
            "hand that holds" => motion.Load!.By == CarriedBy.RightHand,
            "bent leg" or "foot that steps and bends" => JointLimits.KneeFlexion(last, -1) > JointLimits.KneeFlexion(last, 1),
            "foot on the step" or "leg on the step" => first[Joint.RightAnkle].Z > 0.1,
            "crossed leg" => last[Joint.RightAnkle].Z > last[Joint.LeftAnkle].Z,
            _ => null,
        };
        Assert.True(right ?? true, $"{move.Id}: {move.SideMeans}");
    });

    /// <summary>What waits its turn and what is done in the rests are filmed too; a part that is not there is not.</summary>
    [Fact]
    public void Whatever_is_on_is_filmed()
    {
        var plan = Plan(With("""
            {"name":"Work","phase":"main","rounds":2,"betweenRounds":30,"recovery":[{"id":"easy","tier":"main","move":"march"}],"recoveryIn":"rests","stations":[
              {"dose":[{"kind":"time","amount":30}],"sharing":"turns","waiting":[{"id":"wait","tier":"main","move":"squat-hold"}],"options":[{"id":"own","tier":"main","move":"step-up"}]}]}
            """));
        StationFilm? Of(string id, int? part = null) => ForEveryone.FilmOf(plan, new PlaceId(id), part, Side.Both);
        Assert.Equal(3, new[] { "own", "wait", "easy" }.Select(id => Of(id)!.Film.Frames[5]).Distinct().Count());
        Assert.NotNull(Of("own", 1));
        Assert.Null(Of("own", 2) ?? Of("own", 0) ?? Of("nobody") ?? Of("easy", 1));
    }
}
