namespace Halterion.Core.Body;

/// <summary>A person's height in metres.</summary>
public readonly record struct Stature(double Metres)
{
    /// <summary>Shown where nobody's own stature is known. [M] A round number near the middle.</summary>
    public static readonly Stature Usual = new(1.70);
}

/// <summary>
/// The body in fractions of stature and of body mass.
/// Lengths: Drillis &amp; Contini 1966, as in Winter, Biomechanics and Motor Control of Human Movement, 4th ed., fig. 4.1.
/// Masses and centres of mass from the proximal end: same book, table 4.1, after Dempster. All from memory.
/// </summary>
public static class Anthropometry
{
    /// <summary>Ankle above the floor, as a share of stature.</summary>
    public const double AnkleHeight = 0.039;
    /// <summary>Knee above the floor when standing, as a share of stature.</summary>
    public const double KneeHeight = 0.285;
    /// <summary>Hip joints above the floor when standing, as a share of stature.</summary>
    public const double HipHeight = 0.530;
    /// <summary>Shoulder joints above the floor when standing, as a share of stature.</summary>
    public const double ShoulderHeight = 0.818;

    /// <summary>Knee to ankle, as a share of stature.</summary>
    public const double Shank = KneeHeight - AnkleHeight;
    /// <summary>Hip to knee, as a share of stature.</summary>
    public const double Thigh = HipHeight - KneeHeight;
    /// <summary>Hips to shoulders, as a share of stature.</summary>
    public const double Trunk = ShoulderHeight - HipHeight;
    /// <summary>Shoulder to elbow, as a share of stature.</summary>
    public const double UpperArm = 0.186;
    /// <summary>Elbow to wrist, as a share of stature.</summary>
    public const double Forearm = 0.146;
    /// <summary>Length of the hand, as a share of stature.</summary>
    public const double Hand = 0.108;
    /// <summary>Length of the foot, as a share of stature.</summary>
    public const double Foot = 0.152;
    /// <summary>Hip joint to hip joint, as a share of stature.</summary>
    public const double HipBreadth = 0.191;
    /// <summary>Shoulder joint to shoulder joint, as a share of stature.</summary>
    public const double ShoulderBreadth = 0.259;

    /// <summary>From the shoulder to the middle of the head. [M] The head fills the rest of the stature.</summary>
    public const double Neck = 0.112;

    /// <summary>Half the height of the head.</summary>
    public const double HeadRadius = 0.062;

    /// <summary>The ankle stands over the hind quarter of the foot. [M] Common drawing practice.</summary>
    public const double Heel = 0.25 * Foot;

    /// <summary>From the middle of a limb or the trunk to the skin on the side it rests on. [M]</summary>
    public const double Thickness = 0.05;

    /// <summary>One foot, as a share of body mass.</summary>
    public const double FootMass = 0.0145;
    /// <summary>One shank, as a share of body mass.</summary>
    public const double ShankMass = 0.0465;
    /// <summary>One thigh, as a share of body mass.</summary>
    public const double ThighMass = 0.100;
    /// <summary>One upper arm, as a share of body mass.</summary>
    public const double UpperArmMass = 0.028;
    /// <summary>One forearm with its hand, as a share of body mass.</summary>
    public const double ForearmHandMass = 0.022;
    /// <summary>Head and neck, as a share of body mass.</summary>
    public const double HeadMass = 0.081;
    /// <summary>The trunk, as a share of body mass.</summary>
    public const double TrunkMass = 0.497;
    /// <summary>Head, arms and trunk, as a share of body mass.</summary>
    public const double HeadArmsTrunkMass = 0.678;

    /// <summary>Centre of mass of the foot, as a share of its length from the heel.</summary>
    public const double FootCentre = 0.50;
    /// <summary>Centre of mass of the shank from the knee, as a share of its length.</summary>
    public const double ShankCentre = 0.433;
    /// <summary>Centre of mass of the thigh from the hip, as a share of its length.</summary>
    public const double ThighCentre = 0.433;
    /// <summary>Centre of mass of the upper arm from the shoulder, as a share of its length.</summary>
    public const double UpperArmCentre = 0.436;
    /// <summary>Centre of mass of forearm and hand from the elbow, as a share of the forearm's length.</summary>
    public const double ForearmHandCentre = 0.682;
    /// <summary>Centre of mass of the trunk from the hips, as a share of its length.</summary>
    public const double TrunkCentre = 0.50;
    /// <summary>Centre of mass of head, arms and trunk above the hips, as a share of the trunk's length.</summary>
    public const double HeadArmsTrunkCentre = 0.626;

    /// <summary>Standard gravity, m/s².</summary>
    public const double Gravity = 9.80665;

    /// <summary>The mass that moments are told for where nobody's own is known, kg. [M]</summary>
    public const double UsualMass = 70;
}
