using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Words;

namespace Halterion.Core.Views;

/// <summary>An instant of a rep. Metres, z up, the floor at 0; moments in N·m, static.</summary>
/// <param name="At">Joints in the order of the motion's list.</param>
/// <param name="Contacts">Where the body rests on something.</param>
/// <param name="Air">Nothing carries it.</param>
public sealed record MotionFrame(
    ImmutableArray<ImmutableArray<double>> At,
    ImmutableArray<string> Contacts,
    ImmutableArray<double> CentreOfMass,
    bool Air,
    ImmutableSortedDictionary<string, double> Moments);

/// <summary>What is held or worn, frame by frame.</summary>
/// <param name="HeldBy">Joints that hold it.</param>
public sealed record MotionItem(string Kind, double? Kg, ImmutableArray<string> HeldBy, ImmutableArray<ImmutableArray<double>> Frames);

/// <summary>One rep of an option at its tempo (2 s of what is held), for checking and for other programs.</summary>
/// <param name="Hold">It is held, not repeated.</param>
/// <param name="Demand">0 to 5 each; overall is their weighted sum.</param>
/// <param name="Views">From where it is best seen.</param>
public sealed record MoveMotion(
    MoveId Move,
    string Option,
    string Words,
    int StatureCm,
    double MassKg,
    int FramesPerSecond,
    bool Hold,
    ImmutableArray<string> Joints,
    ImmutableArray<MotionFrame> Frames,
    ImmutableArray<MotionItem> Items,
    ImmutableSortedDictionary<string, double> Demand,
    ImmutableArray<View> Views)
{
    private static readonly ImmutableArray<string> Names = [.. Enum.GetNames<Joint>().Select(JsonNamingPolicy.CamelCase.ConvertName)];

    /// <param name="option">Of a move that has poses.</param>
    public static MoveMotion Of(Option option, string name, MoveLibrary moves, Preferences preferences, int statureCm)
    {
        var move = moves.Find(option.Move)!;
        var stature = new Stature(statureCm / 100.0);
        var poses = OptionPoses.Of(move, option.Manner, stature)!;
        var motion = OptionFigure.MotionOf(poses);
        var hold = move.Dose.Kind == "hold" && (option.Manner.Tempo ?? move.Tempo) is null;
        var rep = OptionFigure.Rep(motion, move, option.Manner, stature);
        var seconds = hold ? Film.Held : rep.Seconds;
        var count = (int)Math.Round(seconds * Film.FramesPerSecond) + 1;
        var postures = Enumerable.Range(0, count)
            .Select(i => hold ? motion.Key(motion.Count - 1) : rep.At(Math.Min(seconds, (double)i / Film.FramesPerSecond)))
            .ToArray();
        var bodies = postures.Select(Skeleton.Of).ToArray();
        ImmutableArray<double> Metres(Vec v) =>
            [Math.Round(v.X * stature.Metres, 4), Math.Round(v.Y * stature.Metres, 4), Math.Round(v.Z * stature.Metres, 4)];
        var contacts = postures.Zip(bodies, Contacts.Of).ToArray();
        var forces = Eased(
            [.. postures.Select(p => Forces.Of(p, motion.Load, stature, Anthropometry.UsualMass))],
            [.. contacts.Select(c => string.Join(' ', c.Select(x => x.Name)))]);
        var frames = postures.Select((posture, i) =>
        {
            var (body, moments) = (bodies[i], forces[i]);
            return new MotionFrame(
                [.. body.All.Select(Metres)],
                [.. contacts[i].Select(c => c.Name)],
                Metres(Body.Carried.Centre(body, motion.Load)),
                contacts[i].IsEmpty,
                ImmutableSortedDictionary.CreateRange(StringComparer.Ordinal, new Dictionary<string, double>
                {
                    ["leftAnkle"] = Round(moments.Left.Ankle),
                    ["leftKnee"] = Round(moments.Left.Knee),
                    ["leftHip"] = Round(moments.Left.Hip),
                    ["rightAnkle"] = Round(moments.Right.Ankle),
                    ["rightKnee"] = Round(moments.Right.Knee),
                    ["rightHip"] = Round(moments.Right.Hip),
                    ["lowerBack"] = Round(moments.LowerBack),
                }));
        });
        var demand = DemandModel.Of(option.Move, option.Manner, moves)!;
        return new MoveMotion(
            move.Id,
            name,
            PlanWords.Option(option, moves, preferences),
            statureCm,
            Anthropometry.UsualMass,
            Film.FramesPerSecond,
            hold,
            Names,
            [.. frames],
            [.. Carried(motion, poses, bodies, Metres)],
            ImmutableSortedDictionary.CreateRange(
                StringComparer.Ordinal,
                demand.Dimensions.Select(d => KeyValuePair.Create(d.Of == "inner thigh" ? "innerThigh" : d.Of, Math.Round(d.Value, 2)))
                    .Append(KeyValuePair.Create("overall", Math.Round(demand.Overall, 2)))),
            [.. new[] { poses.View, View.Side, View.Front, View.Quarter }.Distinct()]);
    }

    /// <summary>A foot takes the weight over, or gives it up, in about a quarter of a second, not between two frames. [M]</summary>
    private const int TakesOver = 3;

    /// <summary>Moments where the contacts change around a frame are the mean of the frames around it.</summary>
    private static Moments[] Eased(Moments[] moments, string[] contacts)
    {
        return [.. moments.Select((own, i) =>
        {
            var around = Enumerable.Range(i - TakesOver, 2 * TakesOver + 1).Where(n => n >= 0 && n < moments.Length).ToArray();
            if (around.All(n => contacts[n] == contacts[i]))
            {
                return own;
            }

            double Mean(Func<Moments, double> of) => around.Average(n => of(moments[n]));
            LegLoad Leg(Func<Moments, LegLoad> of) =>
                new(Mean(m => of(m).Ankle), Mean(m => of(m).Knee), Mean(m => of(m).Hip), Mean(m => of(m).Side), Mean(m => of(m).Share));
            return new Moments(Leg(m => m.Left), Leg(m => m.Right), Mean(m => m.LowerBack), Mean(m => m.BackTurn));
        })];
    }

    private static IEnumerable<MotionItem> Carried(
        Motion motion, MovePoses poses, Skeleton[] bodies, Func<Vec, ImmutableArray<double>> metres)
    {
        if (motion.Load is { } load)
        {
            var held = load.By switch
            {
                CarriedBy.RightHand => [["rightHand"]],
                CarriedBy.LeftHand => [["leftHand"]],
                CarriedBy.EachHand => [["leftHand"], ["rightHand"]],
                CarriedBy.BothHands or CarriedBy.Shoulders or CarriedBy.Hips =>
                    (ImmutableArray<ImmutableArray<string>>)[["leftHand", "rightHand"]],
            };
            for (var i = 0; i < held.Length; i++)
            {
                var n = i;
                yield return new MotionItem(load.Kind, load.Kg, held[i], [.. bodies.Select(b => metres(load.At(b).ElementAt(n).At))]);
            }
        }

        if (poses.Band != BandAt.None)
        {
            Vec At(Skeleton b) => poses.Band switch
            {
                BandAt.Knees => b[Joint.LeftKnee].Towards(b[Joint.RightKnee], 0.5),
                BandAt.Ankles or BandAt.Feet => b[Joint.LeftAnkle].Towards(b[Joint.RightAnkle], 0.5),
                BandAt.Shoulders => b[Joint.Chest],
                BandAt.Hips => b[Joint.Pelvis],
                BandAt.None or BandAt.AnchorBehind or BandAt.AnchorHigh or BandAt.AnchorAhead
                    or BandAt.AnchorBack or BandAt.AnchorAnkle => b[Joint.LeftHand].Towards(b[Joint.RightHand], 0.5),
            };
            ImmutableArray<string> worn = poses.Band switch
            {
                BandAt.Knees => ["leftKnee", "rightKnee"],
                BandAt.Ankles or BandAt.Feet => ["leftAnkle", "rightAnkle"],
                BandAt.Shoulders => ["chest"],
                BandAt.Hips => ["pelvis"],
                BandAt.AnchorAnkle => ["rightAnkle"],
                BandAt.None or BandAt.AnchorBehind or BandAt.AnchorHigh or BandAt.AnchorAhead
                    or BandAt.AnchorBack => ["leftHand", "rightHand"],
            };
            yield return new MotionItem("band", null, worn, [.. bodies.Select(b => metres(At(b)))]);
        }
    }

    private static double Round(double moment) => Math.Round(moment, 1);
}
