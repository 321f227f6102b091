using System.Collections.Immutable;

namespace Halterion.Core.Plans;

public enum Phase
{
    Warmup,
    Activation,
    Skill,
    Main,
    Core,
    Finisher,
    Cooldown,
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

/// <summary>Where recovery is done.</summary>
public enum RecoveryIn
{
    Rests,

    /// <summary>In the changes between stations too.</summary>
    All,
}

/// <summary>How the instructor stands to show a station.</summary>
public enum Viewpoint
{
    Side,
    Front,
    Back,
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
    public required PlaceId Id { get; init; }

    public required string Name { get; init; }

    public string Notes { get; init; } = "";

    public required Phase Phase { get; init; }

    public required BlockShape Shape { get; init; }

    public ClassDefaults Defaults { get; init; } = ClassDefaults.Usual;

    /// <summary>Who shows or leads it, where it is not the instructor.</summary>
    public string? ShownBy { get; init; }

    /// <summary>Length of a talk or of an own-pace block; 0 elsewhere.</summary>
    public Seconds Length { get; init; }

    /// <summary>The walk-through of a talk.</summary>
    public ImmutableArray<Showing> Show { get; init; } = [];

    public int? GoalReps { get; init; }

    public bool GoalShared { get; init; }

    /// <summary>In an own-pace block a goal where <see cref="GoalRounds"/> is set, else 1.</summary>
    public int Rounds { get; init; } = 1;

    /// <summary>The rounds of an own-pace block are a goal.</summary>
    public bool GoalRounds { get; init; }

    public SidePass SidePass { get; init; }

    /// <summary>The bell of a rotation, by round; none: from the doses.</summary>
    public ByRound<Seconds>? Window { get; init; }

    public Seconds? StartEvery { get; init; }

    public Seconds BetweenStations { get; init; }

    public ByRound<Seconds> BetweenSets { get; init; } = new(Seconds.Zero);

    public ByRound<Seconds> BetweenRounds { get; init; } = new(Seconds.Zero);

    public ImmutableArray<Option> Recovery { get; init; } = [];

    public RecoveryIn RecoveryIn { get; init; }

    /// <summary>Rest at the end of the block.</summary>
    public Seconds After { get; init; }

    public Saying? Say { get; init; }

    public bool Water { get; init; }

    public Gate Gate { get; init; }

    public Keep? OwnKeep { get; init; }

    public int OptionalRounds { get; init; }

    public Seconds? OwnLeadIn { get; init; }

    public Side? OwnStartSide { get; init; }

    public Counting? OwnCount { get; init; }

    public ImmutableArray<Station> Stations { get; init; } = [];

    /// <summary>A cool-down is kept where nothing else is said.</summary>
    public Keep UsualKeep => Phase == Phase.Cooldown ? Keep.Protected : Keep.Normal;

    public Keep Keep => OwnKeep ?? UsualKeep;

    public Seconds LeadIn => OwnLeadIn ?? Defaults.LeadIn;

    public Side StartSide => OwnStartSide ?? Defaults.StartSide;

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
