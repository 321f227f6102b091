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
    /// <summary>Quicker than usual from place to place.</summary>
    Brisk,

    /// <summary>While the instructor talks.</summary>
    Talking,

    /// <summary>As it was in the classes led last; what they do not tell is brisk.</summary>
    Real,
}

/// <summary>In what weights are written.</summary>
public enum WeightUnit
{
    /// <summary>Kilograms.</summary>
    Kg,
    /// <summary>Pounds.</summary>
    Lb,
}

/// <summary>In what heights are written.</summary>
public enum LengthUnit
{
    /// <summary>Centimetres.</summary>
    Cm,
    /// <summary>Inches.</summary>
    In,
}

/// <summary>How the time of day is written.</summary>
public enum ClockFormat
{
    /// <summary>17:30.</summary>
    H24,
    /// <summary>5:30 pm.</summary>
    H12,
}

/// <summary>On which day weeks begin.</summary>
public enum FirstOfWeek
{
    /// <summary>Monday to Sunday, as in ISO 8601.</summary>
    Monday,
    /// <summary>Sunday to Saturday.</summary>
    Sunday,
}

/// <summary>Light or dark.</summary>
public enum Scheme
{
    /// <summary>Light.</summary>
    Light,
    /// <summary>Dark.</summary>
    Dark,
    /// <summary>As the machine has it.</summary>
    System,
}

/// <summary>
/// The schools an instructor belongs to (handbook, section 2, as far as they touch the clock), and how numbers are shown.
/// Schools shape what is new; a class keeps what it says itself.
/// </summary>
public sealed record Preferences
{
    /// <summary>How reps are counted aloud.</summary>
    public Counting Count { get; init; }

    /// <summary>The side that one-sided work begins with.</summary>
    public Side StartSide { get; init; } = Side.Left;

    /// <summary>How the instructor moves before a class.</summary>
    public Facing Facing { get; init; }

    /// <summary>How one-sided work is shared between the sides.</summary>
    public SideHabit Sides { get; init; }

    /// <summary>How one rests between rounds.</summary>
    public RestHabit Rest { get; init; }

    /// <summary>How quick people get from place to place.</summary>
    public Pace Pace { get; init; }

    /// <summary>
    /// How many times the brisk time (talk: the planned time) it really takes, by the word of its kind of change-over or
    /// "talk". Learnt from what was led, never set by hand.
    /// </summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public ImmutableSortedDictionary<string, decimal> Real { get; init; } = ImmutableSortedDictionary<string, decimal>.Empty;

    /// <summary>In what weights are written.</summary>
    public WeightUnit Weight { get; init; }

    /// <summary>In what heights are written.</summary>
    public LengthUnit Length { get; init; }

    /// <summary>How the time of day is written.</summary>
    public ClockFormat Clock { get; init; }

    /// <summary>On which day weeks begin.</summary>
    public FirstOfWeek Week { get; init; }

    /// <summary>The day on which weeks begin.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public DayOfWeek WeekStart => Week == FirstOfWeek.Sunday ? DayOfWeek.Sunday : DayOfWeek.Monday;

    /// <summary>Light, dark or as the machine has it.</summary>
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
