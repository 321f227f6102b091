namespace Halterion.Core.Moves;

/// <summary>What a participant may have to go gently with (handbook, section 6).</summary>
public enum Limit
{
    Knee,
    LowerBack,
    Balance,
    Pregnancy,
    Ankle,
    Wrist,
    Hip,
    Neck,
    Shoulder,
    PelvicFloor,
}
