using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>A point of the body that is followed.</summary>
public enum Joint
{
    /// <summary>Crown of the head.</summary>
    Head,
    /// <summary>Base of the neck.</summary>
    Neck,
    /// <summary>Middle of the chest.</summary>
    Chest,
    /// <summary>Small of the back.</summary>
    Lumbar,
    /// <summary>Middle between the hips.</summary>
    Pelvis,
    /// <summary>Left shoulder joint.</summary>
    LeftShoulder,
    /// <summary>Left elbow.</summary>
    LeftElbow,
    /// <summary>Left wrist.</summary>
    LeftWrist,
    /// <summary>Middle of the left hand.</summary>
    LeftHand,
    /// <summary>Left hip joint.</summary>
    LeftHip,
    /// <summary>Left knee.</summary>
    LeftKnee,
    /// <summary>Left ankle.</summary>
    LeftAnkle,
    /// <summary>Left heel.</summary>
    LeftHeel,
    /// <summary>Tip of the left foot.</summary>
    LeftToe,
    /// <summary>Right shoulder joint.</summary>
    RightShoulder,
    /// <summary>Right elbow.</summary>
    RightElbow,
    /// <summary>Right wrist.</summary>
    RightWrist,
    /// <summary>Middle of the right hand.</summary>
    RightHand,
    /// <summary>Right hip joint.</summary>
    RightHip,
    /// <summary>Right knee.</summary>
    RightKnee,
    /// <summary>Right ankle.</summary>
    RightAnkle,
    /// <summary>Right heel.</summary>
    RightHeel,
    /// <summary>Tip of the right foot.</summary>
    RightToe,
}

/// <summary>A leg or an arm: where its far end is seen from its root, and to which side it bends.</summary>
/// <param name="Frame">In the axes of the pelvis or chest: down runs along the limb, forward is the side of the knee, back that of the
/// elbow.</param>
/// <param name="Length">From root to ankle or wrist.</param>
public readonly record struct Limb(Turn Frame, double Length)
{
    /// <summary>From its beginning to its end.</summary>
    public Vec Along => -Frame.Of(Vec.Up);

    /// <summary>On the way to another, 0 to 1.</summary>
    public Limb Towards(Limb b, double share) => new(Frame.Towards(b.Frame, share), Length + (b.Length - Length) * share);
}

/// <summary>How a foot is: on the floor (or on what stands there), on its upper side, or free.</summary>
public enum Hold
{
    /// <summary>Not on the floor.</summary>
    Free,
    /// <summary>Flat on the floor.</summary>
    Planted,
    /// <summary>On the back of the foot.</summary>
    Laces,
    /// <summary>On the knee.</summary>
    Kneeling,

    /// <summary>On its outer edge, the soles together.</summary>
    Edge,
}

/// <summary>A foot in the room.</summary>
/// <param name="Place">Under the ankle as it would stand flat: x, y and the height of what it stands on.</param>
/// <param name="Yaw">Degrees to the left.</param>
/// <param name="Pitch">Heel lifted over the ball; toes lifted over the heel where negative.</param>
/// <param name="World">How it is turned; of a planted foot it follows from yaw and pitch.</param>
/// <param name="ToesFlat">How far the toes stay level under a lifted heel, 0 to 1.</param>
/// <param name="KneeOut">How far its knee goes further out than its toes point, degrees.</param>
public readonly record struct FootState(
    Hold Hold, Vec Place, double Yaw, double Pitch, Turn World, double KneeOut = 0, double ToesFlat = 0);

/// <summary>A hand in the room.</summary>
/// <param name="At">Where the wrist stays, while the hand stays there.</param>
/// <param name="Flat">How far the hand lies along a way of its own instead of along the forearm, 0 to 1.</param>
public readonly record struct HandState(bool Fixed, Vec At, double Flat, Vec Way)
{
    /// <summary>It hangs with a weight that slides along the legs, so much further out than its shoulder.</summary>
    public double? Slides { get; init; }

    /// <summary>It stays where it is and carries nothing.</summary>
    public bool Rests { get; init; }
}

/// <summary>All that a body's posture is made of; every skeleton follows from one in closed form.</summary>
public sealed record Posture(
    Vec Pelvis,
    Turn Hips,
    Turn Chest,
    Turn Head,
    Limb LeftLeg,
    Limb RightLeg,
    FootState LeftFoot,
    FootState RightFoot,
    Limb LeftArm,
    Limb RightArm,
    HandState LeftHand,
    HandState RightHand,
    double Air)
{
    /// <summary>Where it turns about on the way to another posture that does so too; none where it stands on its feet.</summary>
    public Vec? Anchor { get; init; }

    /// <summary>What carries the body.</summary>
    public Carrier On { get; init; }
}

/// <summary>Where every joint is.</summary>
public sealed class Skeleton
{
    /// <summary>Where the spine bends, above the hips. [M] A third of the trunk.</summary>
    public const double LumbarLength = 0.096;

    /// <summary>From the small of the back to the neck, as a share of stature.</summary>
    public const double ChestLength = Trunk - LumbarLength;
    /// <summary>Length of the neck, as a share of stature.</summary>
    public const double NeckLength = 0.050;
    /// <summary>From the neck to the middle of the head, as a share of stature.</summary>
    public const double HeadLength = 0.070;

    /// <summary>From the wrist to the middle of the hand.</summary>
    public const double Grip = Hand / 2;

    /// <summary>From heel to the ball on which the foot bends. [M] Seven tenths of its length.</summary>
    public const double BallLength = 0.7 * Foot;

    /// <summary>The ball of the foot before the ankle, as a share of stature.</summary>
    public const double BallAhead = BallLength - Heel;

    private readonly Vec[] at = new Vec[23];

    /// <summary>Where a joint is.</summary>
    public Vec this[Joint joint] => at[(int)joint];

    /// <summary>Ball of the left foot.</summary>
    public Vec LeftBall { get; private set; }

    /// <summary>Ball of the right foot.</summary>
    public Vec RightBall { get; private set; }

    /// <summary>Middle between the hips.</summary>
    public Turn Hips { get; private init; }

    /// <summary>Middle of the chest.</summary>
    public Turn Chest { get; private init; }

    /// <summary>Where the head looks.</summary>
    public Turn HeadTurn { get; private init; }

    /// <summary>Every joint.</summary>
    public IReadOnlyList<Vec> All => at;

    /// <summary>The joints of a posture.</summary>
    public static Skeleton Of(Posture p)
    {
        var s = new Skeleton { Hips = p.Hips, Chest = p.Chest, HeadTurn = p.Head };
        var a = s.at;
        a[(int)Joint.Pelvis] = p.Pelvis;
        a[(int)Joint.Lumbar] = p.Pelvis + p.Hips.Of(Vec.Up) * LumbarLength;
        a[(int)Joint.Chest] = a[(int)Joint.Lumbar] + p.Chest.Of(Vec.Up) * ChestLength;
        a[(int)Joint.Neck] = a[(int)Joint.Chest] + p.Chest.Of(Vec.Up) * NeckLength;
        a[(int)Joint.Head] = a[(int)Joint.Neck] + p.Head.Of(Vec.Up) * HeadLength;
        s.Leg(p, +1, p.LeftLeg, p.LeftFoot);
        s.Leg(p, -1, p.RightLeg, p.RightFoot);
        s.Arm(p, +1, p.LeftArm, p.LeftHand);
        s.Arm(p, -1, p.RightArm, p.RightHand);
        return s;
    }

    /// <summary>A hip joint, given the pelvis.</summary>
    public static Vec HipOf(Vec pelvis, Turn hips, int side) => pelvis + hips.Of(Vec.Left) * (side * HipBreadth / 2);

    /// <summary>A shoulder joint, given the chest.</summary>
    public static Vec ShoulderOf(Vec pelvis, Turn hips, Turn chest, int side) =>
        pelvis + hips.Of(Vec.Up) * LumbarLength + chest.Of(Vec.Up) * ChestLength + chest.Of(Vec.Left) * (side * ShoulderBreadth / 2);

    /// <summary>The ankle of a foot that stands or lies somewhere: heel lifted over the ball, toes lifted over the heel.</summary>
    public static Vec AnkleOf(FootState foot)
    {
        if (foot.Hold is Hold.Laces or Hold.Edge)
        {
            return foot.Place + Vec.Up * 0.035;
        }

        var turn = Turn.Yaw(foot.Yaw);
        var pivot = new Vec(foot.Pitch >= 0 ? BallAhead : -Heel, 0, 0);
        return foot.Place + turn.Of(pivot + Turn.Pitch(foot.Pitch).Of(new Vec(0, 0, AnkleHeight) - pivot));
    }

    /// <summary>The bent joint of a limb of two bones, and its ends.</summary>
    public static Vec Middle(Vec root, Vec along, Vec pole, double length, double upper, double lower)
    {
        var down = (upper * upper - lower * lower + length * length) / (2 * length);
        return root + along * down + pole * Math.Sqrt(Math.Max(0, upper * upper - down * down));
    }

    private void Leg(Posture p, int side, Limb leg, FootState foot)
    {
        var hip = HipOf(p.Pelvis, p.Hips, side);
        var frame = p.Hips * leg.Frame;
        var along = -frame.Of(Vec.Up);
        var ankle = hip + along * leg.Length;
        var knee = Middle(hip, along, frame.Of(Vec.Forward), leg.Length, Thigh, Shank);
        var ball = ankle + foot.World.Of(new Vec(BallAhead, 0, -AnkleHeight));

        // The toes stay on the floor under a lifted heel; in the air they follow the foot.
        var toes = foot.ToesFlat > 0 ? foot.World.Towards(Turn.Yaw(foot.Yaw), foot.ToesFlat) : foot.World;

        Set(side, Joint.LeftHip, hip);
        Set(side, Joint.LeftKnee, knee);
        Set(side, Joint.LeftAnkle, ankle);
        Set(side, Joint.LeftHeel, ankle + foot.World.Of(new Vec(-Heel, 0, -AnkleHeight)));
        Set(side, Joint.LeftToe, ball + toes.Of(new Vec(Foot - BallLength, 0, 0)));
        if (side > 0)
        {
            LeftBall = ball;
        }
        else
        {
            RightBall = ball;
        }
    }

    private void Arm(Posture p, int side, Limb arm, HandState hand)
    {
        var shoulder = ShoulderOf(p.Pelvis, p.Hips, p.Chest, side);
        var frame = p.Chest * arm.Frame;
        var along = -frame.Of(Vec.Up);
        var wrist = shoulder + along * arm.Length;
        var elbow = Middle(shoulder, along, -frame.Of(Vec.Forward), arm.Length, UpperArm, Forearm);
        var straight = (wrist - elbow).Unit;
        var way = hand.Flat <= 0 ? straight : (straight * (1 - hand.Flat) + hand.Way * hand.Flat).Unit;
        Set(side, Joint.LeftShoulder, shoulder);
        Set(side, Joint.LeftElbow, elbow);
        Set(side, Joint.LeftWrist, wrist);
        Set(side, Joint.LeftHand, wrist + way * Grip);
    }

    private void Set(int side, Joint left, Vec place) => at[(int)Sided(left, side)] = place;

    /// <summary>The same joint on either side; +1 is left.</summary>
    public static Joint Sided(Joint left, int side) => side > 0 ? left : left + (Joint.RightShoulder - Joint.LeftShoulder);

    /// <summary>The joints of a posture.</summary>
    public Vec Of(Joint left, int side) => this[Sided(left, side)];

    /// <summary>Segment masses as shares of body mass and where their centres are (Winter, table 4.1).</summary>
    public ImmutableArray<(Vec At, double Share)> Masses()
    {
        var masses = ImmutableArray.CreateBuilder<(Vec, double)>(12);
        masses.Add((this[Joint.Head], HeadMass));
        masses.Add((this[Joint.Pelvis].Towards(this[Joint.Chest], TrunkCentre), TrunkMass));
        for (var side = 1; side >= -1; side -= 2)
        {
            masses.Add((Of(Joint.LeftShoulder, side).Towards(Of(Joint.LeftElbow, side), UpperArmCentre), UpperArmMass));
            masses.Add((Of(Joint.LeftElbow, side).Towards(Of(Joint.LeftWrist, side), ForearmHandCentre), ForearmHandMass));
            masses.Add((Of(Joint.LeftHip, side).Towards(Of(Joint.LeftKnee, side), ThighCentre), ThighMass));
            masses.Add((Of(Joint.LeftKnee, side).Towards(Of(Joint.LeftAnkle, side), ShankCentre), ShankMass));
            masses.Add((Of(Joint.LeftHeel, side).Towards(Of(Joint.LeftToe, side), FootCentre), FootMass));
        }

        return masses.MoveToImmutable();
    }

    /// <summary>Centre of mass of the body alone.</summary>
    public Vec CentreOfMass
    {
        get
        {
            var sum = new Vec(0, 0, 0);
            foreach (var (place, share) in Masses())
            {
                sum += place * share;
            }

            return sum;
        }
    }
}
