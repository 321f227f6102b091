using System.Collections.Immutable;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

public enum Aim
{
    Conditioning,
    Strength,
    Endurance,
    Technique,
}

public enum Facing
{
    Mirror,
    Same,
}

public enum Counting
{
    Down,
    Up,
    Last5,
    Off,
}

/// <summary>Where people warm up and cool down.</summary>
public enum WarmUp
{
    InClass,

    /// <summary>On their own, before and after.</summary>
    OwnTime,
}

/// <summary>A value that may change by round, set or gap; the last one repeats.</summary>
public sealed record ByRound<T>(ImmutableArray<T> Values)
{
    public ByRound(T only) : this([only])
    {
    }

    /// <param name="round">From 0.</param>
    public T At(int round) => Values[Math.Min(round, Values.Length - 1)];

    public bool Equals(ByRound<T>? other) => other is not null && Values.AsSpan().SequenceEqual(other.Values.AsSpan());

    public override int GetHashCode() => Values.Length;
}

/// <summary>A finding that the instructor has seen and leaves as it is.</summary>
/// <param name="Code">The finding's code, such as <c>options.missing</c>.</param>
/// <param name="Place">The id of the block, station or option, or <see cref="PlaceId.Class"/>.</param>
public sealed record Waiver(string Code, PlaceId Place, string Reason);

/// <summary>What a class gives to blocks and stations that say nothing else.</summary>
public sealed record ClassDefaults(Seconds LeadIn, Seconds Switch, Side StartSide, Counting Count)
{
    public static readonly ClassDefaults Usual = new(new Seconds(10), new Seconds(3), Side.Left, Counting.Down);
}

/// <summary>
/// A class as data: what plan-language.md calls "the class". Its fields are as written; what the class gives is asked of the block.
/// </summary>
public sealed record ClassPlan
{
    public required string Title { get; init; }

    public string Notes { get; init; } = "";

    /// <summary>The room is booked this many minutes.</summary>
    public required int SlotMinutes { get; init; }

    public Aim Aim { get; init; }

    public Facing Facing { get; init; }

    public ClassDefaults Defaults { get; init; } = ClassDefaults.Usual;

    /// <summary>The cue of the day, come back to all through.</summary>
    public string? Focus { get; init; }

    /// <summary>What people bring or wear.</summary>
    public string? Bring { get; init; }

    public WarmUp WarmUp { get; init; }

    public required ImmutableArray<Block> Blocks { get; init; }

    /// <summary>The library that the class is read with: the shipped moves and the class's own.</summary>
    public required MoveLibrary Moves { get; init; }

    /// <summary>Findings seen and left.</summary>
    public ImmutableArray<Waiver> Waivers { get; init; } = [];

    public Seconds Slot => new(SlotMinutes * 60);

    public Side StartSide => Defaults.StartSide;

    public Counting Count => Defaults.Count;

    /// <summary>The station of that id and its block; null if it is gone.</summary>
    public (Block Block, Station Station)? Find(PlaceId id)
    {
        foreach (var block in Blocks)
        {
            foreach (var station in block.Stations)
            {
                if (station.Id == id)
                {
                    return (block, station);
                }
            }
        }

        return null;
    }
}
