using System.Collections.Immutable;

namespace Halterion.Core.Plans;

/// <summary>Which part of a class a block is.</summary>
public enum Phase
{
    /// <summary>Getting warm.</summary>
    Warmup,
    /// <summary>Waking up what works later.</summary>
    Activation,
    /// <summary>Learning a move.</summary>
    Skill,
    /// <summary>The main work.</summary>
    Main,
    /// <summary>The trunk.</summary>
    Core,
    /// <summary>Short and hard at the end.</summary>
    Finisher,
    /// <summary>Winding down.</summary>
    Cooldown,
    /// <summary>Words, no work.</summary>
    Talk,
}

/// <summary>What gives a station its side.</summary>
public enum SidePass
{
    /// <summary>The station itself.</summary>
    Station,
    /// <summary>The round: all stations on one side, then all on the other.</summary>
    Round,
    /// <summary>The round: one side, then the other, round by round.</summary>
    Alternate,
}

/// <summary>What may become of a block when the class runs late.</summary>
public enum Keep
{
    /// <summary>It may become shorter.</summary>
    Normal,
    /// <summary>It stays as it is.</summary>
    Protected,
    /// <summary>It may be left out whole.</summary>
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

/// <summary>Where recovery is done.</summary>
public enum RecoveryIn
{
    /// <summary>In the rests between rounds or sets.</summary>
    Rests,

    /// <summary>In the changes between stations too.</summary>
    All,
}

/// <summary>How the instructor stands to show a station.</summary>
public enum Viewpoint
{
    /// <summary>From the side.</summary>
    Side,
    /// <summary>Facing the class.</summary>
    Front,
    /// <summary>With the back to the class.</summary>
    Back,
    /// <summary>Turning round.</summary>
    Turn,
}

/// <summary>Something said in the time before some work; it adds none.</summary>
public sealed record Saying(string Text, Seconds Seconds);

/// <summary>A station shown in a walk-through.</summary>
/// <param name="View">From where; as written, else the station's own in its first round.</param>
/// <param name="First">Which tier is shown first.</param>
public sealed record Showing(PlaceId Station, Seconds Seconds, Viewpoint? View, Tier First);

/// <summary>A part of a class, as written; <see cref="Defaults"/> holds what the class gives where it says nothing.</summary>
public sealed record Block
{
    /// <summary>Names it within the class.</summary>
    public required PlaceId Id { get; init; }

    /// <summary>What it is called.</summary>
    public required string Name { get; init; }

    /// <summary>The instructor's own.</summary>
    public string Notes { get; init; } = "";

    /// <summary>Which part of a class it is.</summary>
    public required Phase Phase { get; init; }

    /// <summary>How it runs.</summary>
    public required BlockShape Shape { get; init; }

    /// <summary>What the class gives where the block says nothing.</summary>
    public ClassDefaults Defaults { get; init; } = ClassDefaults.Usual;

    /// <summary>Who shows or leads it, where it is not the instructor.</summary>
    public string? ShownBy { get; init; }

    /// <summary>Length of a talk or of an own-pace block; 0 elsewhere.</summary>
    public Seconds Length { get; init; }

    /// <summary>The walk-through of a talk.</summary>
    public ImmutableArray<Showing> Show { get; init; } = [];

    /// <summary>Reps to reach in an own-pace block; null: none.</summary>
    public int? GoalReps { get; init; }

    /// <summary>The goal is that of all together.</summary>
    public bool GoalShared { get; init; }

    /// <summary>In an own-pace block a goal where <see cref="GoalRounds"/> is set, else 1.</summary>
    public int Rounds { get; init; } = 1;

    /// <summary>The rounds of an own-pace block are a goal.</summary>
    public bool GoalRounds { get; init; }

    /// <summary>Whether the station or the round gives the side.</summary>
    public SidePass SidePass { get; init; }

    /// <summary>The bell of a rotation, by round; none: from the doses.</summary>
    public ByRound<Seconds>? Window { get; init; }

    /// <summary>A station starts every so many seconds; null: when the one before it is done.</summary>
    public Seconds? StartEvery { get; init; }

    /// <summary>Time to get from station to station.</summary>
    public Seconds BetweenStations { get; init; }

    /// <summary>Rest between two sets of a station, by gap.</summary>
    public ByRound<Seconds> BetweenSets { get; init; } = new(Seconds.Zero);

    /// <summary>Rest between two rounds, by gap.</summary>
    public ByRound<Seconds> BetweenRounds { get; init; } = new(Seconds.Zero);

    /// <summary>What is done in its rests, with options; empty: nothing.</summary>
    public ImmutableArray<Option> Recovery { get; init; } = [];

    /// <summary>In which of its pauses recovery is done.</summary>
    public RecoveryIn RecoveryIn { get; init; }

    /// <summary>Rest at the end of the block.</summary>
    public Seconds After { get; init; }

    /// <summary>What is said before its first work.</summary>
    public Saying? Say { get; init; }

    /// <summary>People drink in its pauses, or in the talk.</summary>
    public bool Water { get; init; }

    /// <summary>Where it waits for a tap.</summary>
    public Gate Gate { get; init; }

    /// <summary>What may become of it, where that is written; null: as is usual for its phase.</summary>
    public Keep? OwnKeep { get; init; }

    /// <summary>How many of its last rounds may be left out.</summary>
    public int OptionalRounds { get; init; }

    /// <summary>Its own lead-in; null: the class's.</summary>
    public Seconds? OwnLeadIn { get; init; }

    /// <summary>The side it begins with; null: the class's.</summary>
    public Side? OwnStartSide { get; init; }

    /// <summary>Its own way to count; null: the class's.</summary>
    public Counting? OwnCount { get; init; }

    /// <summary>What is done, in order; none in a talk.</summary>
    public ImmutableArray<Station> Stations { get; init; } = [];

    /// <summary>A cool-down is kept where nothing else is said.</summary>
    public Keep UsualKeep => Phase == Phase.Cooldown ? Keep.Protected : Keep.Normal;

    /// <summary>What may become of it when the class runs late.</summary>
    public Keep Keep => OwnKeep ?? UsualKeep;

    /// <summary>Time from its beginning to its first work.</summary>
    public Seconds LeadIn => OwnLeadIn ?? Defaults.LeadIn;

    /// <summary>The side it begins with.</summary>
    public Side StartSide => OwnStartSide ?? Defaults.StartSide;

    /// <summary>How reps are counted aloud.</summary>
    public Counting Count => OwnCount ?? Defaults.Count;

    /// <summary>How often all stations are gone through in a round: once a side where the round gives the sides.</summary>
    public int Passes => SidePass == SidePass.Round ? 2 : 1;

    /// <summary>The side with which a station begins: its own, its string's, else the block's.</summary>
    public Side StartSideOf(Station station) => FirstOfString(station).OwnStartSide ?? StartSide;

    /// <summary>Time to change sides at a station in a round, from 0.</summary>
    public Seconds SwitchAt(Station station, int round) => station.OwnSwitch?.At(round) ?? Defaults.Switch;

    /// <summary>Time to get to a station in a round, from 0.</summary>
    public Seconds ChangeTo(Station station, int round) => station.OwnChange?.At(round) ?? BetweenStations;

    /// <summary>Rest between two sets of a station; the first gap is 0.</summary>
    public Seconds RestOf(Station station, int gap) => (station.OwnBetweenSets ?? BetweenSets).At(gap);

    /// <summary>How reps are counted aloud at a station: its own way, else the block's.</summary>
    public Counting CountAt(Station station) => station.OwnCount ?? Count;

    /// <summary>The stations of the string that begins at this one, itself the first; a station that is not tied is alone.</summary>
    public ImmutableArray<Station> StringFrom(int first)
    {
        var last = first;
        while (Stations[last].WithNext && last + 1 < Stations.Length)
        {
            last++;
        }

        return Stations[first..(last + 1)];
    }

    /// <summary>The station at which the string begins that this one is tied into; itself where it is tied to none before it.</summary>
    public Station FirstOfString(Station station)
    {
        var at = Stations.Length - 1;
        while (at >= 0 && Stations[at].Id != station.Id)
        {
            at--;
        }

        while (at > 0 && Stations[at - 1].WithNext)
        {
            at--;
        }

        return at < 0 ? station : Stations[at];
    }
}
