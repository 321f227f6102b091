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
    public const double AnkleHeight = 0.039;
    public const double KneeHeight = 0.285;
    public const double HipHeight = 0.530;
    public const double ShoulderHeight = 0.818;

    public const double Shank = KneeHeight - AnkleHeight;
    public const double Thigh = HipHeight - KneeHeight;
    public const double Trunk = ShoulderHeight - HipHeight;
    public const double UpperArm = 0.186;
    public const double Forearm = 0.146;
    public const double Hand = 0.108;
    public const double Foot = 0.152;
    public const double HipBreadth = 0.191;
    public const double ShoulderBreadth = 0.259;

    /// <summary>From the shoulder to the middle of the head. [M] The head fills the rest of the stature.</summary>
    public const double Neck = 0.112;

    /// <summary>Half the height of the head.</summary>
    public const double HeadRadius = 0.062;

    /// <summary>The ankle stands over the hind quarter of the foot. [M] Common drawing practice.</summary>
    public const double Heel = 0.25 * Foot;

    /// <summary>From the middle of a limb or the trunk to the skin on the side it rests on. [M]</summary>
    public const double Thickness = 0.05;

    public const double FootMass = 0.0145;
    public const double ShankMass = 0.0465;
    public const double ThighMass = 0.100;
    public const double UpperArmMass = 0.028;
    public const double ForearmHandMass = 0.022;
    public const double HeadMass = 0.081;
    public const double TrunkMass = 0.497;
    public const double HeadArmsTrunkMass = 0.678;

    public const double FootCentre = 0.50;
    public const double ShankCentre = 0.433;
    public const double ThighCentre = 0.433;
    public const double UpperArmCentre = 0.436;
    public const double ForearmHandCentre = 0.682;
    public const double TrunkCentre = 0.50;
    public const double HeadArmsTrunkCentre = 0.626;

    /// <summary>Standard gravity, m/s².</summary>
    public const double Gravity = 9.80665;

    /// <summary>The mass that moments are told for where nobody's own is known, kg. [M]</summary>
    public const double UsualMass = 70;
}
