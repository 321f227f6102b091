using System.Collections.Immutable;
using Halterion.Core.Body;

namespace Halterion.Core.Moves;

/// <summary>The four families of the lower body, and what stands around them.</summary>
public enum Family
{
    Squat,
    Lunge,
    Hinge,
    Bridge,

    /// <summary>Waking up the hips, or burning them out.</summary>
    Activation,

    /// <summary>Active recovery and warm-up.</summary>
    Recovery,
    Core,
    Stretch,
}

public enum Plane
{
    Sagittal,
    Frontal,
    Transverse,
}

/// <summary>Where the body is: what getting in and out of a move costs depends on it.</summary>
public enum Position
{
    Standing,
    OnTheBack,
    SideLying,
    HandsAndKnees,
    Kneeling,
    Seated,
    Prone,
    Bench,
    Machine,
}

/// <summary>How a move uses its sides.</summary>
public enum Sided
{
    /// <summary>Both legs do the same.</summary>
    TwoSided,

    /// <summary>One side, then the other.</summary>
    OneSided,

    /// <summary>Usually the sides take turns, rep by rep.</summary>
    Alternating,
}

/// <summary>A usual fault and what mends it.</summary>
public sealed record FormFault(string Seen, string Fix);

/// <summary>The dose a move starts with in a new station.</summary>
/// <param name="Kind">A kind of the plan language: time, reps, hold or pulses.</param>
/// <param name="Amount">Seconds, reps or pulses.</param>
public sealed record UsualDose(string Kind, int Amount);

/// <summary>Start and end of a move, for the body model.</summary>
public sealed record MoveFigure(Recipe Start, Recipe End);

/// <summary>What a move asks that no pose shows. [M] Stated; what is left out the body model tells.</summary>
/// <param name="Skill">What needs learning, 0–5.</param>
/// <param name="Brakes">What the front knee brakes when the step lands.</param>
/// <param name="OneLegShare">How much more the hip of the one leg lifts in a bridge.</param>
/// <param name="NeverRests">What keeping the tension adds at the hip.</param>
/// <param name="Throws">A pose at rest does not see that the weight is thrown.</param>
/// <param name="Unsteady">What the way from pose to pose adds to balance.</param>
/// <param name="Travels">It goes forward over the floor, and lands a step.</param>
public sealed record StatedAsks(
    double? Skill = null,
    double? Brakes = null,
    double? OneLegShare = null,
    double? NeverRests = null,
    double? Throws = null,
    double? Unsteady = null,
    bool Travels = false);

/// <summary>What a user says of an own move, each 0–5; what is not said is taken from the move that it is like, or is 0.</summary>
public sealed record StatedDemand(int? Knee, int? Hip, int? Back, int? Balance, int? Impact, int? Mobility, int? Skill, int? Grip);

/// <summary>A move of the library: how it is set up, done, seen and felt.</summary>
/// <param name="SideMeans">What "left" and "right" mean, such as "front foot"; none for two-sided moves.</param>
/// <param name="Rep">What one rep is.</param>
/// <param name="Tempo">The tempo used where a class names none; none for a move that is only held.</param>
/// <param name="Muscles">What does the work.</param>
/// <param name="Easier">One line: how to make it easier.</param>
/// <param name="Harder">One line: how to make it harder.</param>
/// <param name="Readiness">What should be sound before it.</param>
/// <param name="GetIn">How to get in and out where that is not obvious.</param>
/// <param name="Figure">Start and end pose; none for a user's own move without one.</param>
/// <param name="Like">The shipped move whose figure and demand a user's own one takes.</param>
/// <param name="Demand">What the user says instead of that demand.</param>
/// <param name="AtHome">A stretch that every take-home sheet ends with.</param>
/// <param name="Asks">What it asks that its figure does not show; an own move has it from the one that it is like.</param>
/// <param name="Felt">Where it should be felt, and what to change if it is felt elsewhere.</param>
public sealed record Move(
    MoveId Id,
    string Name,
    ImmutableArray<string> Aliases,
    Family Family,
    Plane Plane,
    Position Position,
    Sided Sided,
    string Rep,
    UsualDose Dose,
    ImmutableArray<string> Kit,
    string SetUp,
    string Path,
    string End,
    string Breath,
    ImmutableArray<FormFault> Faults,
    string Felt,
    string Cautions,
    string? SideMeans = null,
    Tempo? Tempo = null,
    string Muscles = "",
    string Easier = "",
    string Harder = "",
    string? Readiness = null,
    string? GetIn = null,
    string? KitSafety = null,
    MoveFigure? Figure = null,
    MoveId? Like = null,
    StatedDemand? Demand = null,
    StatedAsks? Asks = null,
    bool AtHome = false);
