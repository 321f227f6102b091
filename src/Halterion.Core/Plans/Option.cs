using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

public enum Tier
{
    Easier,
    Main,
    Harder,
    Instead,
}

/// <summary>What is held, and how. Fields that the file leaves out are null.</summary>
public sealed record Load(Implement? Implement, int? Count, Kilograms? Kg, LoadPosition? Position, LoadSide? Side);

/// <summary>How a move is done; null where the file leaves it out.</summary>
public sealed record Manner
{
    public Depth? Depth { get; init; }

    public Support? Support { get; init; }

    public Footing? Base { get; init; }

    public Toes? Toes { get; init; }

    public StepLength? Step { get; init; }

    public TrunkLean? Trunk { get; init; }

    public ArmPlace? Arms { get; init; }

    public Surface? Surface { get; init; }

    public int? HeightCm { get; init; }

    public Impact? Impact { get; init; }

    public BandStrength? Band { get; init; }

    public Grip? Grip { get; init; }

    public Tempo? Tempo { get; init; }

    public Load? Load { get; init; }

    public decimal? Scale { get; init; }
}

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
}
