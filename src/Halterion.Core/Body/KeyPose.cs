using System.Collections.Immutable;

namespace Halterion.Core.Body;

/// <summary>What carries the body.</summary>
public enum Carrier
{
    /// <summary>Standing.</summary>
    Feet,

    /// <summary>One or both knees; with hands on the floor: hands and knees.</summary>
    Knees,

    /// <summary>Hands or forearms, and feet or knees: planks.</summary>
    Hands,

    /// <summary>Lying on the back.</summary>
    Back,

    /// <summary>Shoulders on the floor, hips lifted.</summary>
    Shoulders,

    /// <summary>Shoulder blades on a bench, hips lifted.</summary>
    Bench,

    /// <summary>Lying on the left side, or lifted off it on a forearm.</summary>
    Side,

    /// <summary>Lying on the front.</summary>
    Front,
    /// <summary>Sitting.</summary>
    Seat,

    /// <summary>Feet, the back against a wall that pushes and does not carry.</summary>
    Wall,
}

/// <summary>How an arm is held, where a word says it.</summary>
public enum ArmWord
{
    /// <summary>Hanging, or beside the trunk of a body that lies.</summary>
    Sides,
    /// <summary>Straight ahead at shoulder height.</summary>
    Forward,
    /// <summary>Hands on the hips.</summary>
    Hips,
    /// <summary>Across the chest.</summary>
    Crossed,

    /// <summary>Hands together in front of the breastbone.</summary>
    Chest,
    /// <summary>Both hands hold one thing at the chest.</summary>
    Goblet,

    /// <summary>At the collarbone, elbow down.</summary>
    Rack,

    /// <summary>A bar across the front of the shoulders, elbows high.</summary>
    FrontRack,

    /// <summary>A bar behind the neck.</summary>
    Back,
    /// <summary>Fingers beside the head.</summary>
    Head,
    /// <summary>Straight up.</summary>
    Overhead,
    /// <summary>Straight out to the sides.</summary>
    Out,

    /// <summary>Elbows bent square, upper arms out.</summary>
    OutBent,
    /// <summary>Hands on the thigh.</summary>
    Thigh,

    /// <summary>Holding on behind the thigh.</summary>
    BehindThigh,
    /// <summary>Hands on the front knee.</summary>
    Knee,
    /// <summary>A hand holds the foot of its side.</summary>
    Foot,
    /// <summary>Hanging, with or round what is held.</summary>
    Low,
    /// <summary>Ahead, as at the top of a swing.</summary>
    Swing,
    /// <summary>Between the thighs, as at the bottom of a swing.</summary>
    SwingBack,
    /// <summary>A hand on the wall beside.</summary>
    Wall,
    /// <summary>Both hands on the wall in front.</summary>
    WallAhead,
    /// <summary>Hands on the back of a chair in front.</summary>
    ChairAhead,
    /// <summary>Hands on the floor.</summary>
    Floor,
    /// <summary>On the forearms.</summary>
    Forearm,
    /// <summary>Hands on what one sits on.</summary>
    Seat,

    /// <summary>Under the lower back.</summary>
    Tailbone,
    /// <summary>Under the head.</summary>
    UnderHead,

    /// <summary>On the bar that lies across the hips.</summary>
    OnHips,
    /// <summary>Reaching for a foot.</summary>
    TowardFoot,

    /// <summary>Hands under the brow of a body that lies on its front.</summary>
    Brow,
}

/// <summary>An arm by a word, by angles in degrees, or by where the wrist is.</summary>
/// <param name="Flex">Upper arm from along the trunk, forward positive.</param>
/// <param name="Out">Upper arm out to its side.</param>
/// <param name="Turn">Of the upper arm about itself, outward positive.</param>
/// <param name="At">Where the wrist is in the room: x, y, z; y is out to its own side.</param>
/// <param name="Rests">What lies there carries nothing.</param>
/// <param name="By">Where the wrist is from the middle of the shoulders, in the axes of the chest; y is out to its own side.</param>
public sealed record ArmSpec(
    ArmWord? Word = null,
    double? Flex = null,
    double Out = 0,
    double Elbow = 0,
    double Turn = 0,
    ImmutableArray<double> At = default,
    ImmutableArray<double> By = default,
    bool Palm = false,
    bool Rests = false);

/// <summary>A foot where it stands, or a leg by its angles where it is free. Degrees, and fractions of stature.</summary>
/// <param name="X">Forward, under the ankle as it would stand flat.</param>
/// <param name="Y">Out to its own side; null: half the width of the stance.</param>
/// <param name="Turn">Toes out; null: as the stance's.</param>
/// <param name="Z">Height of what it stands on.</param>
/// <param name="Heel">Lifted heel, or lifted toes where negative; null: what the stance asks for.</param>
/// <param name="Laces">It lies on its upper side.</param>
/// <param name="Edge">It stands on its outer edge, sole inward.</param>
/// <param name="Kneel">This knee is on the floor.</param>
/// <param name="Flex">Free: thigh from along the trunk, forward positive.</param>
/// <param name="Out">Free: thigh out to its side.</param>
/// <param name="Rotate">Of the thigh about itself, outward positive; of a foot that stands: the knee further out than the toes.</param>
/// <param name="Point">Free: toes pointed.</param>
public sealed record FootSpec(
    double X = 0,
    double? Y = null,
    double? Turn = null,
    double Z = 0,
    double? Heel = null,
    bool Laces = false,
    bool Kneel = false,
    double? Flex = null,
    double Out = 0,
    double Knee = 0,
    double Rotate = 0,
    double Point = 15,
    bool Edge = false)
{
    /// <summary>A foot that is not on the floor.</summary>
    public bool Free => Flex is not null;
}

/// <summary>
/// One key pose of a move in words of contacts: what carries, where the feet and hands are, how deep, how the trunk is.
/// Lengths are fractions of stature, angles degrees; the working side is the right one. From these the body is solved.
/// </summary>
public sealed record KeyPose
{
    /// <summary>What carries the body.</summary>
    public Carrier On { get; init; }

    /// <summary>From ankle to ankle, sideways.</summary>
    public double Width { get; init; } = 0.15;

    /// <summary>
    /// Right foot ahead of the left, from ankle to ankle; negative: behind it. The front foot stands at 0, the rear one on its toes.
    /// </summary>
    public double Split { get; init; }

    /// <summary>Toes turned out.</summary>
    public double Toes { get; init; } = 8;

    /// <summary>The right foot.</summary>
    public FootSpec? Right { get; init; }

    /// <summary>The left foot.</summary>
    public FootSpec? Left { get; init; }

    /// <summary>Thigh of the carrying leg from upright: 90 is level. 0: as straight as the stance lets it.</summary>
    public double Depth { get; init; }

    /// <summary>Bend of the carrying knee, where that is said instead of the depth.</summary>
    public double? Knee { get; init; }

    /// <summary>Shin of the carrying leg, forward positive; null: what balance asks for.</summary>
    public double? Shin { get; init; }

    /// <summary>Trunk, forward positive; null: what balance asks for in a bend, else upright.</summary>
    public double? Lean { get; init; }

    /// <summary>Chest turned against the hips, left positive.</summary>
    public double Turn { get; init; }

    /// <summary>Trunk tipped to the right.</summary>
    public double Tip { get; init; }

    /// <summary>Lower back rounded, or arched where negative: chest further forward than the hips.</summary>
    public double Round { get; init; }

    /// <summary>Hips (and all above) turned to the left; and tipped to the right.</summary>
    public double Face { get; init; }

    /// <summary>How far the trunk leans to a side, in degrees.</summary>
    public double Tilt { get; init; }

    /// <summary>Hips turned about the spine to the left, the chest staying.</summary>
    public double Twist { get; init; }

    /// <summary>Share of the body over the right foot; null: what the stance asks for.</summary>
    public double? Weight { get; init; }

    /// <summary>Knees further out than the toes (in: negative), degrees.</summary>
    public double Knees { get; init; }

    /// <summary>Both heels lifted.</summary>
    public double Heels { get; init; }

    /// <summary>How far the feet are off the floor in a hop or jump.</summary>
    public double Air { get; init; }

    /// <summary>Bridges and side planks: hips lifted, 0 to 1.</summary>
    public double Lift { get; init; }

    /// <summary>Kneeling: thighs back from upright.</summary>
    public double Sit { get; init; }

    /// <summary>Planks: chest lowered, 0 to 1.</summary>
    public double Down { get; init; }

    /// <summary>Planks: bend at the hips.</summary>
    public double Pike { get; init; }

    /// <summary>Of the seat, bench, or what the hands are on.</summary>
    public double Height { get; init; }

    /// <summary>Lying on the right side instead of the left; what is said of right and left is said of the other then.</summary>
    public bool OnRight { get; init; }

    /// <summary>Planks and lying: knees on the floor or bent.</summary>
    public bool OnKnees { get; init; }

    /// <summary>Both arms, where each has none of its own.</summary>
    public ArmSpec? Arms { get; init; }

    /// <summary>The right arm, where it is another.</summary>
    public ArmSpec? RightArm { get; init; }

    /// <summary>The left arm, where it is another.</summary>
    public ArmSpec? LeftArm { get; init; }

    /// <summary>Hanging in front: how far the hands are further out than the shoulders.</summary>
    public double Hands { get; init; } = -0.02;

    /// <summary>Chin further forward (down), degrees.</summary>
    public double Head { get; init; }

    /// <summary>Share of the rep's time that the way to this pose takes.</summary>
    public double Share { get; init; } = 1;

    /// <summary>How high a travelling foot is lifted on the way to this pose.</summary>
    public double Arc { get; init; } = 0.035;

    /// <summary>The body goes through without a stop.</summary>
    public bool Through { get; init; }

    /// <summary>It stops here, but another still of the figure shows as much.</summary>
    public bool Unseen { get; init; }
}
