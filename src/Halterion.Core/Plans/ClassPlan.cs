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

public enum Phase
{
    Warmup,
    Activation,
    Main,
    Finisher,
    Cooldown,
    Talk,
}

/// <summary>How a block runs: the plan language's <c>format</c> and <c>order</c> in one word.</summary>
public enum BlockShape
{
    Circuit,
    Sets,
    OwnPace,
    Rotation,
    Talk,
}

public enum SidePass
{
    Station,
    Round,
    Alternate,
}

public enum Keep
{
    Normal,
    Protected,
    Droppable,
}

/// <summary>Where a class waits for the leader's tap. Waiting is not planned time.</summary>
public enum Gate
{
    /// <summary>Nowhere.</summary>
    Bell,

    /// <summary>After the lead-in.</summary>
    Block,

    /// <summary>After the lead-in and after every rest between rounds or sets.</summary>
    Rests,
}

/// <summary>A value that may change by round, set or gap; the last one repeats.</summary>
public sealed record ByRound<T>(ImmutableArray<T> Values)
{
    public ByRound(T only) : this([only])
    {
    }

    public T At(int round) => Values[Math.Min(round, Values.Length - 1)];

    public bool Equals(ByRound<T>? other) => other is not null && Values.AsSpan().SequenceEqual(other.Values.AsSpan());

    public override int GetHashCode() => Values.Length;
}

/// <summary>A finding that the instructor has seen and leaves as it is.</summary>
/// <param name="Code">The finding's code, such as <c>options.missing</c>.</param>
/// <param name="Place">The finding's JSON Pointer.</param>
public sealed record Waiver(string Code, string Place, string Reason);

/// <summary>A class as data: what plan-language.md calls "the class".</summary>
public sealed record ClassPlan
{
    public required string Title { get; init; }

    public string Notes { get; init; } = "";

    /// <summary>The room is booked this many minutes.</summary>
    public required int SlotMinutes { get; init; }

    public Aim Aim { get; init; }

    public Side StartSide { get; init; } = Side.Left;

    public Facing Facing { get; init; }

    public Counting Count { get; init; }

    public required ImmutableArray<Block> Blocks { get; init; }

    /// <summary>The library that the class is read with: the shipped moves and the class's own.</summary>
    public required MoveLibrary Moves { get; init; }

    /// <summary>Findings seen and left.</summary>
    public ImmutableArray<Waiver> Waivers { get; init; } = [];

    public Seconds Slot => new(SlotMinutes * 60);
}

/// <summary>A part of a class. Values the class could give (lead-in, start side, count) are already resolved here.</summary>
public sealed record Block
{
    public required string Name { get; init; }

    public required Phase Phase { get; init; }

    public required BlockShape Shape { get; init; }

    /// <summary>Length of a talk or of an own-pace block; 0 elsewhere.</summary>
    public Seconds Length { get; init; }

    public int? GoalReps { get; init; }

    public bool GoalShared { get; init; }

    public int Rounds { get; init; } = 1;

    public SidePass SidePass { get; init; }

    /// <summary>The bell of a rotation, by round; none: from the doses.</summary>
    public ByRound<Seconds>? Window { get; init; }

    public Seconds? StartEvery { get; init; }

    public Seconds BetweenStations { get; init; }

    public ByRound<Seconds> BetweenSets { get; init; } = new(Seconds.Zero);

    public ByRound<Seconds> BetweenRounds { get; init; } = new(Seconds.Zero);

    public ImmutableArray<Option> Recovery { get; init; } = [];

    public bool Water { get; init; }

    public Gate Gate { get; init; }

    public Keep Keep { get; init; }

    public int OptionalRounds { get; init; }

    public Seconds LeadIn { get; init; }

    public Side StartSide { get; init; } = Side.Left;

    public Counting Count { get; init; }

    public ImmutableArray<Station> Stations { get; init; } = [];
}
