using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Halterion.Core.Moves;

/// <summary>The four families of the lower body, and what stands around them.</summary>
public enum Family
{
    /// <summary>Down between both feet.</summary>
    Squat,
    /// <summary>One foot before the other.</summary>
    Lunge,
    /// <summary>Hips back with a long back.</summary>
    Hinge,
    /// <summary>Hips up from the floor or a bench.</summary>
    Bridge,

    /// <summary>Waking up the hips, or burning them out.</summary>
    Activation,

    /// <summary>Active recovery and warm-up.</summary>
    Recovery,
    /// <summary>Holding the trunk still.</summary>
    Core,
    /// <summary>Held at the end.</summary>
    Stretch,
}

/// <summary>In which direction the body moves.</summary>
public enum Plane
{
    /// <summary>Forward, back, up and down.</summary>
    Sagittal,
    /// <summary>To the side.</summary>
    Frontal,
    /// <summary>Turning.</summary>
    Transverse,
}

/// <summary>Where the body is: what getting in and out of a move costs depends on it.</summary>
public enum Position
{
    /// <summary>Standing.</summary>
    Standing,
    /// <summary>Lying on the back.</summary>
    OnTheBack,
    /// <summary>Lying on a side.</summary>
    SideLying,
    /// <summary>On hands and knees.</summary>
    HandsAndKnees,
    /// <summary>On the knees.</summary>
    Kneeling,
    /// <summary>Sitting.</summary>
    Seated,
    /// <summary>Lying on the front.</summary>
    Prone,
    /// <summary>On a bench.</summary>
    Bench,
    /// <summary>On a machine.</summary>
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

/// <summary>Felt where it should not be, and what to change then.</summary>
/// <param name="Where">Such as "front of the knee".</param>
public sealed record FeltElsewhere(string Where, string Change);

/// <summary>A usual fault and what mends it; if it stays, an easier option.</summary>
/// <param name="Say">What is said to a class of it, always with its condition.</param>
public sealed record FormFault(string Seen, string Fix, string? Say = null);

/// <summary>The dose a move starts with in a new station.</summary>
/// <param name="Kind">A kind of the plan language: time, reps, hold or pulses.</param>
/// <param name="Amount">Seconds, reps or pulses.</param>
public sealed record UsualDose(string Kind, int Amount);

/// <summary>The weight that a move always carries.</summary>
/// <param name="Implement">A word of the plan language.</param>
/// <param name="Kg">Of each.</param>
public sealed record UsualLoad(string Implement, int Count, double Kg)
{
    /// <summary>Of all together.</summary>
    public double Kilograms => Count * Kg;
}

/// <summary>
/// Another move done in a manner, which amounts to the move that says so: a push-up on the knees. Words of the plan language.
/// </summary>
public sealed record MoveForm(MoveId Move, string? Support = null, string? Surface = null, string? Base = null);

/// <summary>
/// What a move asks beside what its poses show, in the scales of the demand (added before they bend towards 5). [M] Stated.
/// </summary>
/// <param name="Skill">What needs learning, 0–5.</param>
/// <param name="Knee">Such as the braking of a step forward.</param>
/// <param name="Hip">Such as a weight that is thrown, or tension that never rests.</param>
/// <param name="Impact">Of feet that jump while the hands stay down.</param>
/// <param name="Balance">What the way from pose to pose adds.</param>
public sealed record StatedAsks(double? Skill = null, double Knee = 0, double Hip = 0, double Back = 0, double Balance = 0,
    double InnerThigh = 0, double Impact = 0);

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
/// <param name="Like">The shipped move whose poses and demand a user's own one takes.</param>
/// <param name="Demand">What the user says instead of that demand.</param>
/// <param name="AtHome">A stretch that every take-home sheet ends with.</param>
/// <param name="Asks">What it asks that its poses do not show; an own move has it from the one that it is like.</param>
/// <param name="Limits">Whom it is not for by its own word, whatever its facts.</param>
/// <param name="Usual">The weight that it always carries, where none is written.</param>
/// <param name="Ballistic">Its weight is swung or thrown.</param>
/// <param name="FormOf">What other moves are when they are done so: this one.</param>
/// <param name="Cues">What a coach says, three short ones.</param>
/// <param name="SideSay">How a side is said: "{side} foot in front".</param>
/// <param name="Picture">A photo or drawing of a user's own move, as a data address; no shipped move has one.</param>
/// <param name="Ready">What should have been seen to be sound before it.</param>
/// <param name="Quick">Faster than 0.9 s a rep is its nature.</param>
/// <param name="SelfCheck">What a person can test on themselves.</param>
/// <param name="NotFelt">What to do where it is not felt at all.</param>
/// <param name="Felt">Where it should be felt.</param>
/// <param name="Elsewhere">Felt there instead: what to change.</param>
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
    MoveId? Like = null,
    StatedDemand? Demand = null,
    StatedAsks? Asks = null,
    bool AtHome = false,
    ImmutableArray<MoveLimit>? Limits = null,
    ImmutableArray<Tick>? Ready = null,
    bool Quick = false,
    string? SelfCheck = null,
    string? NotFelt = null,
    ImmutableArray<FeltElsewhere>? Elsewhere = null,
    UsualLoad? Usual = null,
    bool Ballistic = false,
    ImmutableArray<MoveForm>? FormOf = null,
    ImmutableArray<string>? Cues = null,
    string? SideSay = null,
    string? Picture = null)
{
    /// <summary>What a coach offers beside it; none for a user's own move. Clients are given options.</summary>
    [JsonIgnore]
    public MoveOffers Offers { get; init; } = MoveOffers.None;

    /// <summary>Its key poses; none for a user's own move without any. Clients are given figures.</summary>
    [JsonIgnore]
    public MovePoses? Poses { get; init; }

    /// <summary>What other moves are when they are done so.</summary>
    [JsonIgnore]
    public ImmutableArray<MoveForm> Forms => FormOf ?? [];

    /// <summary>Whom it is not for by its own word.</summary>
    [JsonIgnore]
    public ImmutableArray<MoveLimit> OwnLimits => Limits ?? [];

    /// <summary>What should have been seen to be sound before it.</summary>
    [JsonIgnore]
    public ImmutableArray<Tick> Wants => Ready ?? [];
}
