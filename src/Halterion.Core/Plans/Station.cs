using System.Collections.Immutable;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

public enum SideRule
{
    AsWritten,
    Each,
    Split,

    /// <summary>Of an option only: rep by rep, inside the station's time.</summary>
    Alternate,
}

/// <summary>An amount or a range of it. The clock and the counts use <see cref="To"/>.</summary>
public readonly record struct Amount(int From, int To)
{
    public Amount(int only) : this(only, only)
    {
    }

    public override string ToString() => From == To ? $"{To}" : $"{From}–{To}";
}

/// <summary>In which rounds a part is done.</summary>
public sealed record PartRounds(bool First, bool Last, ImmutableArray<int> Listed)
{
    public static readonly PartRounds All = new(true, true, []);

    /// <param name="round">From 0.</param>
    /// <param name="rounds">How many rounds the block has.</param>
    public bool Has(int round, int rounds) =>
        Listed.Length > 0 ? Listed.Contains(round + 1)
        : (First && Last) || (First && round == 0) || (Last && round == rounds - 1);
}

/// <summary>One part of a dose, with its move and tempo resolved (part, main option, the move's own).</summary>
public sealed record Part
{
    public required PartKind Kind { get; init; }

    public required ByRound<Amount> Amount { get; init; }

    public Side Side { get; init; }

    public RepStyle Style { get; init; }

    public int PulsesPerRep { get; init; }

    public PartRounds Rounds { get; init; } = PartRounds.All;

    /// <summary>Seconds a metre.</summary>
    public decimal Pace { get; init; } = 1.5m;

    public MoveId Move { get; init; }

    public Tempo? Tempo { get; init; }

    /// <summary>The move and the tempo that the part itself names, if it does.</summary>
    public MoveId? OwnMove { get; init; }

    public Tempo? OwnTempo { get; init; }

    public string? Label { get; init; }

    public ByRound<decimal>? LoadKg { get; init; }

    public ByRound<decimal>? LoadFactor { get; init; }

    public int? Effort { get; init; }

    /// <summary>Seconds one rep of a <c>reps</c> part takes, pulses included.</summary>
    public decimal RepSeconds => Tempo!.RepSeconds(Style) + PulsesPerRep;
}

/// <summary>How long a station is shown before it is done: once, or by round.</summary>
/// <param name="Values">One value without <paramref name="Listed"/>: the first round only. A list: by round, nothing past its end.</param>
public sealed record Demo(ImmutableArray<Seconds> Values, bool Listed)
{
    public static readonly Demo None = new([], false);

    /// <param name="round">From 0.</param>
    public Seconds At(int round) => round < Values.Length ? Values[round] : Seconds.Zero;
}

/// <summary>One place in the block: a dose and the options to do it with. What it leaves out its block gives.</summary>
public sealed record Station
{
    public required PlaceId Id { get; init; }

    public required string Name { get; init; }

    /// <summary>The name is written; else it is the main move's.</summary>
    public bool HasOwnName { get; init; }

    public SideRule Sides { get; init; }

    /// <summary>Change sides every so many reps; 0: not.</summary>
    public int Chunk { get; init; }

    /// <summary>Two share the station and take turns.</summary>
    public bool Turns { get; init; }

    public ImmutableArray<Option> Waiting { get; init; } = [];

    public ByRound<Seconds>? OwnSwitch { get; init; }

    /// <summary>Time to get here in a circuit or in sets, where it is the station's own.</summary>
    public ByRound<Seconds>? OwnChange { get; init; }

    public Side? OwnStartSide { get; init; }

    /// <summary>This station and the next are done on one side and then on the other.</summary>
    public bool WithNext { get; init; }

    public ByRound<Seconds>? OwnBetweenSets { get; init; }

    public ByRound<Viewpoint>? View { get; init; }

    public Counting? OwnCount { get; init; }

    public Saying? Say { get; init; }

    public Demo Demo { get; init; } = Demo.None;

    public required ImmutableArray<Part> Dose { get; init; }

    public required ImmutableArray<Option> Options { get; init; }

    public Option Main => Options.First(o => o.Tier == Tier.Main);

    /// <summary>The side that all of its dose is written for; both where it is not one.</summary>
    public Side OnlySide =>
        Dose.Where(p => p.Kind.IsWork).Select(p => p.Side).Distinct().ToArray() is [Side.Left or Side.Right] and [var one]
            ? one
            : Side.Both;

    public bool HasOwnChange => OwnChange is not null;
}
