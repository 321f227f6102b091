using System.Collections.Immutable;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

/// <summary>How a station deals with its sides.</summary>
public enum SideRule
{
    /// <summary>As its parts say.</summary>
    AsWritten,
    /// <summary>All on one side, then all on the other.</summary>
    Each,
    /// <summary>Half of its time on each.</summary>
    Split,

    /// <summary>Of an option only: rep by rep, inside the station's time.</summary>
    Alternate,
}

/// <summary>An amount or a range of it. The clock and the counts use <see cref="To"/>.</summary>
public readonly record struct Amount(int From, int To)
{
    /// <summary>One amount, no range.</summary>
    public Amount(int only) : this(only, only)
    {
    }

    /// <inheritdoc/>
    public override string ToString() => From == To ? $"{To}" : $"{From}–{To}";
}

/// <summary>In which rounds a part is done.</summary>
public sealed record PartRounds(bool First, bool Last, ImmutableArray<int> Listed)
{
    /// <summary>In every round.</summary>
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
    /// <summary>What the amount counts.</summary>
    public required PartKind Kind { get; init; }

    /// <summary>How much, by round.</summary>
    public required ByRound<Amount> Amount { get; init; }

    /// <summary>Which side it is written for.</summary>
    public Side Side { get; init; }

    /// <summary>How a rep is made.</summary>
    public RepStyle Style { get; init; }

    /// <summary>Small movements after each rep, a second each.</summary>
    public int PulsesPerRep { get; init; }

    /// <summary>In which rounds it is done.</summary>
    public PartRounds Rounds { get; init; } = PartRounds.All;

    /// <summary>Seconds a metre.</summary>
    public decimal Pace { get; init; } = 1.5m;

    /// <summary>What is done in it.</summary>
    public MoveId Move { get; init; }

    /// <summary>Seconds of a rep, phase by phase; null: it has none.</summary>
    public Tempo? Tempo { get; init; }

    /// <summary>The move and the tempo that the part itself names, if it does.</summary>
    public MoveId? OwnMove { get; init; }

    /// <summary>The tempo that the part itself names; null: none.</summary>
    public Tempo? OwnTempo { get; init; }

    /// <summary>What it is called; null: as its move.</summary>
    public string? Label { get; init; }

    /// <summary>Kilograms, by round; null: not said.</summary>
    public ByRound<decimal>? LoadKg { get; init; }

    /// <summary>Share of each person's own load, by round; null: not said.</summary>
    public ByRound<decimal>? LoadFactor { get; init; }

    /// <summary>How hard, 0 to 10; null: not said.</summary>
    public int? Effort { get; init; }

    /// <summary>Seconds one rep of a <c>reps</c> part takes, pulses included.</summary>
    public decimal RepSeconds => Tempo!.RepSeconds(Style) + PulsesPerRep;
}

/// <summary>How long a station is shown before it is done: once, or by round.</summary>
/// <param name="Values">One value without <paramref name="Listed"/>: the first round only. A list: by round, nothing past its end.</param>
public sealed record Demo(ImmutableArray<Seconds> Values, bool Listed)
{
    /// <summary>It is not shown.</summary>
    public static readonly Demo None = new([], false);

    /// <param name="round">From 0.</param>
    public Seconds At(int round) => round < Values.Length ? Values[round] : Seconds.Zero;
}

/// <summary>One place in the block: a dose and the options to do it with. What it leaves out its block gives.</summary>
public sealed record Station
{
    /// <summary>Names it within the class.</summary>
    public required PlaceId Id { get; init; }

    /// <summary>Its own name, else that of the main move.</summary>
    public required string Name { get; init; }

    /// <summary>The name is written; else it is the main move's.</summary>
    public bool HasOwnName { get; init; }

    /// <summary>How it deals with its sides.</summary>
    public SideRule Sides { get; init; }

    /// <summary>Change sides every so many reps; 0: not.</summary>
    public int Chunk { get; init; }

    /// <summary>Two share the station and take turns.</summary>
    public bool Turns { get; init; }

    /// <summary>What the other one does while waiting; empty: nothing.</summary>
    public ImmutableArray<Option> Waiting { get; init; } = [];

    /// <summary>Its own time to change sides, by round; null: the class's.</summary>
    public ByRound<Seconds>? OwnSwitch { get; init; }

    /// <summary>Time to get here in a circuit or in sets, where it is the station's own.</summary>
    public ByRound<Seconds>? OwnChange { get; init; }

    /// <summary>The side it begins with; null: the block's.</summary>
    public Side? OwnStartSide { get; init; }

    /// <summary>This station and the next are done on one side and then on the other.</summary>
    public bool WithNext { get; init; }

    /// <summary>Its own rest between sets; null: the block's.</summary>
    public ByRound<Seconds>? OwnBetweenSets { get; init; }

    /// <summary>From where the instructor shows it, by round; null: not said.</summary>
    public ByRound<Viewpoint>? View { get; init; }

    /// <summary>Its own way to count; null: the block's.</summary>
    public Counting? OwnCount { get; init; }

    /// <summary>What is said before its first work.</summary>
    public Saying? Say { get; init; }

    /// <summary>How long it is shown before it is done.</summary>
    public Demo Demo { get; init; } = Demo.None;

    /// <summary>Its parts, in order.</summary>
    public required ImmutableArray<Part> Dose { get; init; }

    /// <summary>Ways to do it; one of them is the main one.</summary>
    public required ImmutableArray<Option> Options { get; init; }

    /// <summary>The option that it is planned with.</summary>
    public Option Main => Options.First(o => o.Tier == Tier.Main);

    /// <summary>The side that all of its dose is written for; both where it is not one.</summary>
    public Side OnlySide =>
        Dose.Where(p => p.Kind.IsWork).Select(p => p.Side).Distinct().ToArray() is [Side.Left or Side.Right] and [var one]
            ? one
            : Side.Both;

    /// <summary>The time to get here is its own.</summary>
    public bool HasOwnChange => OwnChange is not null;
}
