using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Planning.Drafts;

/// <summary>How the main blocks of a drafted class run.</summary>
public enum DraftShape
{
    /// <summary>As suits best.</summary>
    Any,
    /// <summary>A group at each station; all move on at the bell.</summary>
    Rotation,
    /// <summary>All stations once, then the next round.</summary>
    Circuit,
    /// <summary>All sets of a station, then the next station.</summary>
    Sets,
    /// <summary>Circuits of exactly two stations, two rounds or more.</summary>
    Supersets,
    /// <summary>One station a block, lighter and lighter, two sets or more.</summary>
    DropSets,
    /// <summary>A circuit that is gone through on one side, then on the other.</summary>
    OneSideARound,
    /// <summary>A circuit in which a station starts every full minute.</summary>
    OnTheMinute,
}

/// <summary>What of a class that stands is to stay.</summary>
/// <param name="Plan">The class so far.</param>
/// <param name="Pinned">Ids of blocks, stations or options.</param>
public sealed record KeptParts(JsonElement Plan, ImmutableArray<PlaceId> Pinned)
{
    /// <summary>Stations that stay, but whose harder option is the main one now; null where that was not asked for.</summary>
    public ImmutableHashSet<PlaceId>? Raised { get; init; }
}

/// <summary>How much each wish weighs: 0 is "never mind", 1 as usual, 2 "very much".</summary>
/// <param name="Weights">By term of the cost; what is missing weighs 1.</param>
public sealed record DraftWishes(ImmutableSortedDictionary<string, decimal> Weights)
{
    /// <summary>Every wish as usual.</summary>
    public static readonly DraftWishes Usual = new(ImmutableSortedDictionary<string, decimal>.Empty);

    /// <summary>The weight of a term.</summary>
    public decimal Of(string term) => Weights.GetValueOrDefault(term, 1);
}

/// <summary>What an evening needs: a class is proposed for it (drafting.md).</summary>
public sealed record DraftBrief
{
    /// <summary>What the class is called.</summary>
    public string Title { get; init; } = "New class";

    /// <summary>The room is booked this many minutes.</summary>
    public required int SlotMinutes { get; init; }

    /// <summary>What the class is for.</summary>
    public Aim Aim { get; init; }

    /// <summary>How its main blocks run.</summary>
    public DraftShape Shape { get; init; }

    /// <summary>Main stations that are wished for, at least.</summary>
    public int From { get; init; } = 4;

    /// <summary>Main stations that are wished for, at most.</summary>
    public int To { get; init; } = 8;

    /// <summary>Wished parts of the main work by family, in proportion; empty: no wish.</summary>
    public ImmutableSortedDictionary<Family, decimal> Shares { get; init; } = ImmutableSortedDictionary<Family, decimal>.Empty;

    /// <summary>0: on their own time; null: what the checks find right.</summary>
    public int? WarmUpMinutes { get; init; }

    /// <summary>Null: what the checks find right.</summary>
    public int? CoolDownMinutes { get; init; }

    /// <summary>There is a break in which people drink.</summary>
    public bool Drink { get; init; }

    /// <summary>No main option leaves the floor.</summary>
    public bool LowImpact { get; init; }

    /// <summary>Main moves that must be in it.</summary>
    public ImmutableArray<MoveId> Include { get; init; } = [];

    /// <summary>Moves that must be nowhere in it.</summary>
    public ImmutableArray<MoveId> Avoid { get; init; } = [];

    /// <summary>Moves that may be options, but no new main ones.</summary>
    public ImmutableArray<MoveId> NotMain { get; init; } = [];

    /// <summary>Main moves of the last classes, latest first.</summary>
    public ImmutableArray<ImmutableArray<MoveId>> Recent { get; init; } = [];

    /// <summary>Who comes, by name.</summary>
    public ImmutableArray<Person> People { get; init; } = [];

    /// <summary>How many come; where more are named, the names count.</summary>
    public int HeadCount { get; init; }

    /// <summary>What there is; null: not known.</summary>
    public ImmutableArray<StockLine>? Kit { get; init; }

    /// <summary>How large the room is; null: not known.</summary>
    public RoomSize? Room { get; init; }

    /// <summary>What was held before; null: not known.</summary>
    public History? History { get; init; }

    /// <summary>The day it is held on.</summary>
    public DateOnly Day { get; init; } = DateOnly.MinValue;

    /// <summary>What is to stay; null: nothing stands yet.</summary>
    public KeptParts? Keep { get; init; }

    /// <summary>How long may be looked for: a measure of work and not of the clock, so that a brief always gives the same drafts.</summary>
    public decimal Seconds { get; init; } = 1;

    /// <summary>Another one gives other drafts.</summary>
    public int Seed { get; init; } = 1;

    /// <summary>How much each wish weighs.</summary>
    public DraftWishes Wishes { get; init; } = DraftWishes.Usual;

    /// <summary>How many come.</summary>
    public int Heads => Math.Max(HeadCount, People.Length);

    /// <summary>Warm-up in seconds.</summary>
    public int WarmUpSeconds => 60 * (WarmUpMinutes ?? (SlotMinutes >= Thresholds.LongClass ? 5 : 1));

    /// <summary>Cool-down in seconds.</summary>
    public int CoolDownSeconds => 60 * (CoolDownMinutes ?? (SlotMinutes >= Thresholds.LongClass ? 4 : 1));
}
