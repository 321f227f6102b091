namespace Halterion.Core.Body;

/// <summary>What a body does: the kinds of pose that the model knows how to solve.</summary>
public enum PoseKind
{
    /// <summary>Both feet side by side, hips down and back.</summary>
    Squat,

    /// <summary>Both feet side by side, trunk forward from the hips, knees soft.</summary>
    Hinge,

    /// <summary>One foot in front, one behind.</summary>
    Split,

    /// <summary>On one foot, the other leg free.</summary>
    Single,

    /// <summary>Seen from the front: feet wide, hips down between them or over one of them.</summary>
    Wide,

    /// <summary>On the back, feet on the floor, hips up.</summary>
    Bridge,

    /// <summary>Shoulder blades on a bench, hips up.</summary>
    Thrust,

    /// <summary>On hands and knees.</summary>
    HandsAndKnees,

    /// <summary>On hands or forearms and feet or knees.</summary>
    Plank,

    /// <summary>Lying on one side.</summary>
    SideLying,

    /// <summary>Lying on the back, legs free.</summary>
    Supine,

    /// <summary>Kneeling upright or on one knee.</summary>
    Kneeling,

    /// <summary>Sitting.</summary>
    Seated,
}

/// <summary>How the arms are held.</summary>
public enum ArmStyle
{
    Sides,
    Forward,
    Hips,
    Crossed,
    Overhead,
    Chest,
    Shoulders,
    Back,
    Hang,
    Thigh,
    Wall,
    Swing,
    Out,
    OneUp,
}

/// <summary>
/// One pose by named parameters, as it stands in the data files of the library. Angles are in degrees, lengths in
/// fractions of stature. What a kind does not use is left out.
/// </summary>
public sealed record Recipe
{
    public PoseKind Kind { get; init; }

    /// <summary>Squat, wide: degrees of the thigh from upright (90: level). Split: 0 high to 1 low. Bridge, thrust: 0 down to 1 up.</summary>
    public double Depth { get; init; }

    /// <summary>Hinge, single: degrees of the trunk from upright. Elsewhere an extra lean; null: solved for balance.</summary>
    public double? Trunk { get; init; }

    /// <summary>Squat: the most the shin may lean, from the ankle or by choice (0: strictly upright).</summary>
    public double Shin { get; init; } = 32;

    /// <summary>Hinge: degrees of knee bend.</summary>
    public double Knee { get; init; } = 18;

    /// <summary>Split: from ankle to ankle; 0: the one that gives both knees a right angle. Wide: half the distance of the feet.</summary>
    public double Stance { get; init; }

    /// <summary>Height under the near or front foot.</summary>
    public double FrontRaise { get; init; }

    /// <summary>Height under the far or rear foot.</summary>
    public double RearRaise { get; init; }

    /// <summary>Degrees by which the heels are lifted.</summary>
    public double HeelRaise { get; init; }

    /// <summary>Free leg: degrees of the thigh from straight down, forward positive; and of the knee bend.</summary>
    public double FreeThigh { get; init; }

    public double FreeKnee { get; init; }

    /// <summary>Wide: how far the hips are over one foot, -1 to 1; bridges: the far foot's distance out.</summary>
    public double Shift { get; init; }

    /// <summary>How far the whole body is off the floor, in a hop or jump.</summary>
    public double Air { get; init; }

    public ArmStyle Arms { get; init; }

    /// <summary>What is held: kind of implement; null: nothing.</summary>
    public string? Holds { get; init; }

    /// <summary>Mass held, share of body mass; 0 with an implement: a light one of a tenth.</summary>
    public double Load { get; init; }

    /// <summary>What stands by: chair, box, wall, bench, pad, band, ball.</summary>
    public string? Prop { get; init; }

    /// <summary>Height of the bench, box or step.</summary>
    public double PropHeight { get; init; }

    /// <summary>Only one leg works, the other is lifted.</summary>
    public bool OneLeg { get; init; }

    /// <summary>A hand or the back takes part of the weight, so that balance is not asked of the feet alone.</summary>
    public bool Held { get; init; }
}
