using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

/// <summary>Which of a station's options it is.</summary>
public enum Tier
{
    /// <summary>Asks less.</summary>
    Easier,
    /// <summary>As it is planned.</summary>
    Main,
    /// <summary>Asks more.</summary>
    Harder,
    /// <summary>Another move for who cannot do the main one.</summary>
    Instead,
}

/// <summary>What is held, and how. Fields that the file leaves out are null.</summary>
public sealed record Load(Implement? Implement, int? Count, Kilograms? Kg, LoadPosition? Position, LoadSide? Side)
{
    /// <summary>Without what the move itself holds: a ball, a stick, a bar.</summary>
    public static Load None { get; } = new(null, null, null, null, null);

    /// <summary>Nothing is held.</summary>
    public bool IsNone => Implement is null;
}

/// <summary>How a move is done; null where the file leaves it out.</summary>
public sealed record Manner
{
    /// <summary>How deep.</summary>
    public Depth? Depth { get; init; }

    /// <summary>What is held on to.</summary>
    public Support? Support { get; init; }

    /// <summary>How the feet stand.</summary>
    public Footing? Base { get; init; }

    /// <summary>Where the toes point.</summary>
    public Toes? Toes { get; init; }

    /// <summary>How long the step is.</summary>
    public StepLength? Step { get; init; }

    /// <summary>How the trunk is held.</summary>
    public TrunkLean? Trunk { get; init; }

    /// <summary>Where the arms are.</summary>
    public ArmPlace? Arms { get; init; }

    /// <summary>On what.</summary>
    public Surface? Surface { get; init; }

    /// <summary>Height of what one steps or sits on, in centimetres.</summary>
    public int? HeightCm { get; init; }

    /// <summary>Whether the feet leave the floor.</summary>
    public Impact? Impact { get; init; }

    /// <summary>Which band.</summary>
    public BandStrength? Band { get; init; }

    /// <summary>How a bar is held.</summary>
    public Grip? Grip { get; init; }

    /// <summary>Seconds of a rep, phase by phase.</summary>
    public Tempo? Tempo { get; init; }

    /// <summary>What is held.</summary>
    public Load? Load { get; init; }

    /// <summary>How much of the amount is done: 0.5 is half.</summary>
    public decimal? Scale { get; init; }

    /// <summary>
    /// By what differs most: manners are looked up many times in every evaluation, and all of it takes ten times as long.
    /// </summary>
    public override int GetHashCode() => HashCode.Combine(
        (int?)Depth
            ?? -1, (int?)Support
            ?? -1, (int?)Surface
            ?? -1, (int?)Band
            ?? -1, HeightCm
            ?? -1, Load?.GetHashCode()
            ?? 0, Tempo?.GetHashCode()
            ?? 0, Scale
            ?? 0);

    /// <summary>This manner, and what it leaves out as the other has it.</summary>
    public Manner Over(Manner below) => new()
    {
        Depth = Depth ?? below.Depth,
        Support = Support ?? below.Support,
        Base = Base ?? below.Base,
        Toes = Toes ?? below.Toes,
        Step = Step ?? below.Step,
        Trunk = Trunk ?? below.Trunk,
        Arms = Arms ?? below.Arms,
        Surface = Surface ?? below.Surface,
        HeightCm = HeightCm ?? below.HeightCm,
        Impact = Impact ?? below.Impact,
        Band = Band ?? below.Band,
        Grip = Grip ?? below.Grip,
        Tempo = Tempo ?? below.Tempo,
        Load = Load ?? below.Load,
        Scale = Scale ?? below.Scale,
    };
}

/// <summary>A move as it is done in one part of a dose.</summary>
public readonly record struct Doing(MoveId Move, Manner Manner);

/// <summary>One part's own move and manner under an option.</summary>
public sealed record PartManner(MoveId? Move, Manner Manner);

/// <summary>One way to do a station.</summary>
/// <param name="Parts">By part number from 1: where this option differs in that part.</param>
/// <param name="Sides">How it is done inside the same time; null: as the station's.</param>
/// <param name="Chunk">Its own change of sides every so many reps; null: the station's, where the sides are too.</param>
public sealed record Option(
    PlaceId Id,
    Tier Tier,
    MoveId Move,
    Manner Manner,
    ImmutableSortedDictionary<int, PartManner> Parts,
    string? Note,
    SideRule? Sides = null,
    int? Chunk = null)
{
    /// <summary>A move in a manner and no more, not named yet.</summary>
    public static Option Of(Tier tier, MoveId move, Manner? manner = null, string? note = null) =>
        new(default, tier, move, manner ?? new Manner(), ImmutableSortedDictionary<int, PartManner>.Empty, note);

    /// <summary>All that is done under this option, part by part, each once; rests are left out.</summary>
    public IEnumerable<Doing> In(Station station) => station.Dose.IsEmpty ? [new Doing(Move, Manner)]
        : station.Dose.Select((part, i) => (Part: part, Entry: Parts.GetValueOrDefault(i + 1)))
            .Where(p => p.Part.Kind.IsWork)
            .Select(p => DoingOf(p.Part, p.Entry))
            .Distinct();

    /// <summary>What is done under this option in one part of its station's dose, by its place from 0.</summary>
    public Doing In(Station station, int part) => DoingOf(station.Dose[part], Parts.GetValueOrDefault(part + 1));

    private Doing DoingOf(Part part, PartManner? entry) => new(MoveIn(part, entry), WithLoadOf(part, entry?.Manner.Over(Manner) ?? Manner));

    /// <summary>
    /// A part's own move counts before the main option's entry for it; any other option says in its entry where it differs.
    /// </summary>
    private MoveId MoveIn(Part part, PartManner? entry) =>
        (Tier == Tier.Main ? part.OwnMove ?? entry?.Move : entry?.Move ?? part.OwnMove) ?? Move;

    /// <summary>What a part loads at most counts where the option names no weight of its own.</summary>
    private static Manner WithLoadOf(Part part, Manner manner) =>
        part.LoadKg is { } kg && manner.Load is { Kg: null, IsNone: false } load
            ? manner with { Load = load with { Kg = new Kilograms(kg.Values.Max()) } }
            : manner;
}
