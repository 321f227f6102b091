using System.Collections.Immutable;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

/// <summary>What a class is for: checks of rests, reps and density ask by it.</summary>
public enum Aim
{
    /// <summary>Heart and breath: short rests, moderate loads.</summary>
    Conditioning,
    /// <summary>Few reps of what is heavy, long rests.</summary>
    Strength,
    /// <summary>Many reps of what is light.</summary>
    Endurance,
    /// <summary>Learning: the form comes before the load.</summary>
    Technique,
}

/// <summary>How the instructor moves before a class.</summary>
public enum Facing
{
    /// <summary>Facing them, as their mirror: their left is your right.</summary>
    Mirror,
    /// <summary>With them, on the same side.</summary>
    Same,
}

/// <summary>How reps are counted aloud.</summary>
public enum Counting
{
    /// <summary>What is left.</summary>
    Down,
    /// <summary>What is done.</summary>
    Up,
    /// <summary>The last five alone.</summary>
    Last5,
    /// <summary>Not at all.</summary>
    Off,
}

/// <summary>Where people warm up and cool down.</summary>
public enum WarmUp
{
    /// <summary>In the class.</summary>
    InClass,

    /// <summary>On their own, before and after.</summary>
    OwnTime,
}

/// <summary>A value that may change by round, set or gap; the last one repeats.</summary>
public sealed record ByRound<T>(ImmutableArray<T> Values)
{
    /// <summary>The same in every round.</summary>
    public ByRound(T only) : this([only])
    {
    }

    /// <param name="round">From 0.</param>
    public T At(int round) => Values[Math.Min(round, Values.Length - 1)];

    /// <inheritdoc/>
    public bool Equals(ByRound<T>? other) => other is not null && Values.AsSpan().SequenceEqual(other.Values.AsSpan());

    /// <inheritdoc/>
    public override int GetHashCode() => Values.Length;
}

/// <summary>A finding that the instructor has seen and leaves as it is.</summary>
/// <param name="Code">The finding's code, such as <c>options.missing</c>.</param>
/// <param name="Place">The id of the block, station or option, or <see cref="PlaceId.Class"/>.</param>
public sealed record Waiver(string Code, PlaceId Place, string Reason);

/// <summary>What a class gives to blocks and stations that say nothing else.</summary>
public sealed record ClassDefaults(Seconds LeadIn, Seconds Switch, Side StartSide, Counting Count)
{
    /// <summary>What the language gives to a class that says nothing.</summary>
    public static readonly ClassDefaults Usual = new(new Seconds(10), new Seconds(3), Side.Left, Counting.Down);
}

/// <summary>
/// A class as data: what plan-language.md calls "the class". Its fields are as written; what the class gives is asked of the block.
/// </summary>
public sealed record ClassPlan
{
    /// <summary>What it is called.</summary>
    public required string Title { get; init; }

    /// <summary>The instructor's own.</summary>
    public string Notes { get; init; } = "";

    /// <summary>The room is booked this many minutes.</summary>
    public required int SlotMinutes { get; init; }

    /// <summary>What it is for.</summary>
    public Aim Aim { get; init; }

    /// <summary>How the instructor stands to the class.</summary>
    public Facing Facing { get; init; }

    /// <summary>What it gives to blocks and stations that say nothing else.</summary>
    public ClassDefaults Defaults { get; init; } = ClassDefaults.Usual;

    /// <summary>The cue of the day, come back to all through.</summary>
    public string? Focus { get; init; }

    /// <summary>What people bring or wear.</summary>
    public string? Bring { get; init; }

    /// <summary>Where people warm up and cool down.</summary>
    public WarmUp WarmUp { get; init; }

    /// <summary>Its parts, in order.</summary>
    public required ImmutableArray<Block> Blocks { get; init; }

    /// <summary>The library that the class is read with: the shipped moves and the class's own.</summary>
    public required MoveLibrary Moves { get; init; }

    /// <summary>Findings seen and left.</summary>
    public ImmutableArray<Waiver> Waivers { get; init; } = [];

    /// <summary>The booked time.</summary>
    public Seconds Slot => new(SlotMinutes * 60);

    /// <summary>The side that one-sided work begins with.</summary>
    public Side StartSide => Defaults.StartSide;

    /// <summary>How reps are counted aloud.</summary>
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
