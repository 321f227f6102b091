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
public sealed record Load(string? Implement, int? Count, Kilograms? Kg, string? Position, string? Side);

/// <summary>How a move is done. Words are those of the plan language, already checked; null where the file leaves them out.</summary>
public sealed record Manner
{
    public string? Depth { get; init; }

    public string? Support { get; init; }

    public string? Base { get; init; }

    public string? Toes { get; init; }

    public string? Step { get; init; }

    public string? Trunk { get; init; }

    public string? Arms { get; init; }

    public string? Surface { get; init; }

    public int? HeightCm { get; init; }

    public string? Impact { get; init; }

    public string? Band { get; init; }

    public string? Grip { get; init; }

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
    int? Chunk = null);
