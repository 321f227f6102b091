namespace Halterion.Core.Moves;

/// <summary>What has been seen to be sound (handbook, section 5).</summary>
public enum Tick
{
    /// <summary>A hinge with a long back.</summary>
    Hinge,

    /// <summary>Ten split squats hands-free.</summary>
    Split,

    /// <summary>Reverse lunges without a wobble.</summary>
    Step,

    /// <summary>Landings that nobody hears.</summary>
    Land,

    /// <summary>8–12 clean reps without weight.</summary>
    Load,
}
