using System.Collections.Immutable;

namespace Halterion.Core.Plans;

/// <summary>How this instructor usually deals with sides in new stations.</summary>
public enum SideHabit
{
    /// <summary>All of one side, then the other.</summary>
    Each,

    /// <summary>The sides take turns, rep by rep.</summary>
    Alternate,

    /// <summary>Small chunks: five and five.</summary>
    Chunks,

    /// <summary>A whole round on one side, then a whole round on the other.</summary>
    Round,
}

/// <summary>How this instructor usually rests in new blocks.</summary>
public enum RestHabit
{
    /// <summary>Full rest keeps it strength.</summary>
    Full,

    /// <summary>Short rest makes it endurance.</summary>
    Short,

    /// <summary>Straight on.</summary>
    None,

    /// <summary>Something easy instead of standing.</summary>
    Active,
}

/// <summary>How fast the room changes over.</summary>
public enum Pace
{
    Brisk,

    /// <summary>While the instructor talks.</summary>
    Talking,
}

public enum WeightUnit
{
    Kg,
    Lb,
}

public enum LengthUnit
{
    Cm,
    In,
}

public enum ClockFormat
{
    H24,
    H12,
}

public enum Scheme
{
    Light,
    Dark,
    System,
}

/// <summary>
/// The schools an instructor belongs to (handbook, section 2, as far as they touch the clock), and how numbers are shown.
/// Schools shape what is new; a class keeps what it says itself.
/// </summary>
public sealed record Preferences
{
    public Counting Count { get; init; }

    public Side StartSide { get; init; } = Side.Left;

    public Facing Facing { get; init; }

    public SideHabit Sides { get; init; }

    public RestHabit Rest { get; init; }

    public Pace Pace { get; init; }

    public WeightUnit Weight { get; init; }

    public LengthUnit Length { get; init; }

    public ClockFormat Clock { get; init; }

    public Scheme Scheme { get; init; }

    /// <summary>Kinds of calls that are not said. Breath is a school of its own: it is said where it is asked for.</summary>
    public ImmutableArray<CallKind> Silent { get; init; } = [CallKind.Breath];

    /// <summary>What the instructor set of the checks, by code.</summary>
    public ImmutableSortedDictionary<string, decimal> Limits { get; init; } = ImmutableSortedDictionary<string, decimal>.Empty;

    /// <summary>Checks that are switched off, by code, with the reason.</summary>
    public ImmutableSortedDictionary<string, string> Off { get; init; } = ImmutableSortedDictionary<string, string>.Empty;

    /// <summary>Heights of the boxes, benches and steps there are, cm.</summary>
    public ImmutableArray<int> Heights { get; init; } = [];
}
