using System.Collections.Immutable;

namespace Halterion.Core.Moves;

/// <summary>What a participant may have to go gently with (handbook, section 6).</summary>
public enum Limit
{
    /// <summary>A sore knee.</summary>
    Knee,
    /// <summary>A sore lower back.</summary>
    LowerBack,
    /// <summary>Unsure on one leg.</summary>
    Balance,
    /// <summary>With child, or just after.</summary>
    Pregnancy,
    /// <summary>A sore or stiff ankle.</summary>
    Ankle,
    /// <summary>A sore wrist.</summary>
    Wrist,
    /// <summary>A sore hip.</summary>
    Hip,
    /// <summary>A sore neck.</summary>
    Neck,
    /// <summary>A sore shoulder.</summary>
    Shoulder,
    /// <summary>A weak pelvic floor.</summary>
    PelvicFloor,
}

/// <summary>For whom an entry of a move counts.</summary>
public enum LimitWhen
{
    /// <summary>For everyone with the limit.</summary>
    Any,

    /// <summary>Where the limit is a strict one.</summary>
    Strict,
}

/// <summary>What an option may do otherwise than the move's own form, so that an entry of the move does not count for it.</summary>
public enum Lift
{
    /// <summary>A hand on a wall, a chair, a doorway, or a helper.</summary>
    Hold,
    /// <summary>On the forearms.</summary>
    Forearms,

    /// <summary>Knees down, or the hands so high that it is no plank any more.</summary>
    Knees,

    /// <summary>Pad, mat or soft ground under the knees.</summary>
    Pad,

    /// <summary>Less deep than the move's own form.</summary>
    Depth,

    /// <summary>Without hop or jump.</summary>
    Impact,

    /// <summary>Without its weight, or with at most half of it.</summary>
    Load,

    /// <summary>Down to a seat of knee height and up again, both feet, without a load.</summary>
    Seat,
}

/// <summary>A move's own word on whom it is not for, as its caution says it, read for its own form in the library.</summary>
/// <param name="Why">Goes after the limit's name.</param>
/// <param name="LiftedBy">Any of these in an option's manner, and the entry does not count for it; null: nothing.</param>
/// <param name="Lying">It is about lying on the back, which is no work in a cool-down.</param>
public sealed record MoveLimit(Limit Limit, LimitWhen When, string Why, ImmutableArray<Lift>? LiftedBy = null, bool Lying = false);
