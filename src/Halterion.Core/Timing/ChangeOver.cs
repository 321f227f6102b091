using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>What happens between two stations, or between two sides.</summary>
public enum ChangeKind
{
    /// <summary>On foot to the next place.</summary>
    Walk,

    /// <summary>Standing to floor, or back up.</summary>
    Floor,

    /// <summary>Onto a bench or into a machine.</summary>
    Bench,

    /// <summary>A band on, off or for another.</summary>
    Band,

    /// <summary>Weights up, down or for others.</summary>
    Weights,

    /// <summary>Plates on a bar.</summary>
    Plates,

    /// <summary>Plates with a partner.</summary>
    PlatesShared,

    /// <summary>The other side, standing.</summary>
    SwitchStanding,

    /// <summary>The other side, on the floor.</summary>
    SwitchFloor,

    /// <summary>The other side, on a bench or machine.</summary>
    SwitchBench,
}

/// <summary>What each thing that happens between two stations takes, in seconds.</summary>
/// <param name="Floor">Standing to floor, or back up.</param>
/// <param name="Bench">Onto a bench or into a machine.</param>
/// <param name="PlatesShared">Changing plates with a partner.</param>
public sealed record ChangeTimes(
    int Walk,
    int Floor,
    int Bench,
    int Band,
    int Weights,
    int Plates,
    int PlatesShared,
    int SwitchStanding,
    int SwitchFloor,
    int SwitchBench)
{
    /// <summary>A brisk room. [M] Handbook, section 3.</summary>
    public static readonly ChangeTimes Brisk = new(8, 6, 12, 10, 5, 25, 12, 3, 4, 8);

    /// <summary>
    /// While the instructor talks. Weights, bands, floor and machine: common practice, no source (handbook, section 3).
    /// Walk, plates and switches are not observed: [M] the brisk value and half as much again.
    /// </summary>
    public static readonly ChangeTimes Talking = new(12, 20, 20, 25, 20, 38, 20, 5, 6, 12);

    /// <summary>How long each kind of change takes at the pace an instructor has chosen.</summary>
    public static ChangeTimes Of(Preferences preferences) => Of(preferences.Pace, preferences.Real);

    /// <summary>How long each kind of change takes at a pace.</summary>
    /// <param name="real">How many times the brisk time it really takes, by the word of its <see cref="ChangeKind"/>; what is not
    /// known stays brisk. Used by <see cref="Pace.Real"/> alone.</param>
    public static ChangeTimes Of(Pace pace, ImmutableSortedDictionary<string, decimal> real) => pace switch
    {
        Pace.Brisk => Brisk,
        Pace.Talking => Talking,
        Pace.Real => Brisk.Times(kind => real.GetValueOrDefault(WordsOf<ChangeKind>.Of(kind), 1)),
    };

    /// <summary>How long one kind of change takes, in seconds.</summary>
    public int At(ChangeKind kind) => kind switch
    {
        ChangeKind.Walk => Walk,
        ChangeKind.Floor => Floor,
        ChangeKind.Bench => Bench,
        ChangeKind.Band => Band,
        ChangeKind.Weights => Weights,
        ChangeKind.Plates => Plates,
        ChangeKind.PlatesShared => PlatesShared,
        ChangeKind.SwitchStanding => SwitchStanding,
        ChangeKind.SwitchFloor => SwitchFloor,
        ChangeKind.SwitchBench => SwitchBench,
    };

    private ChangeTimes Times(Func<ChangeKind, decimal> factor)
    {
        int Of(ChangeKind kind) => (int)Math.Ceiling(At(kind) * factor(kind));
        return new ChangeTimes(
            Of(ChangeKind.Walk), Of(ChangeKind.Floor), Of(ChangeKind.Bench), Of(ChangeKind.Band), Of(ChangeKind.Weights),
            Of(ChangeKind.Plates), Of(ChangeKind.PlatesShared), Of(ChangeKind.SwitchStanding), Of(ChangeKind.SwitchFloor),
            Of(ChangeKind.SwitchBench));
    }
}

/// <summary>How long getting from one station to another takes, and what it is made of.</summary>
/// <param name="Words">Such as "to the floor 6 s, weights 5 s"; empty if nothing has to happen.</param>
/// <param name="Longest">What of it takes longest; null if nothing has to happen.</param>
public sealed record ChangeNeed(Seconds Seconds, string Words, ChangeKind? Longest = null)
{
    /// <summary>Nothing has to be changed.</summary>
    public static readonly ChangeNeed None = new(Seconds.Zero, "");
}

/// <summary>True change-overs: from the position and the kit of neighbouring moves (handbook, section 3).</summary>
public static class ChangeOver
{
    /// <summary>For each further thing done on the way. [M] Handbook, section 3.</summary>
    private const int Further = 2;

    private enum Level
    {
        Standing,
        Floor,
        Bench,
    }

    /// <summary>Things that can be done on the way do not add up: the longest counts, plus 2 s for each further one.</summary>
    /// <param name="walks">People move to another place, as in a rotation.</param>
    public static ChangeNeed Between(Station from, Station to, bool walks, MoveLibrary moves, ChangeTimes times)
    {
        var things = new List<(string What, ChangeKind Kind)>();
        if (walks)
        {
            things.Add(("walk", ChangeKind.Walk));
        }

        switch (LevelOf(from, moves), LevelOf(to, moves))
        {
            case (not Level.Bench, Level.Bench):
                things.Add(("get onto the bench or machine", ChangeKind.Bench));
                break;
            case (Level.Standing, Level.Floor):
                things.Add(("get down to the floor", ChangeKind.Floor));
                break;
            case (Level.Floor or Level.Bench, Level.Standing):
                things.Add(("stand up", ChangeKind.Floor));
                break;
            case (Level.Bench, Level.Floor):
                things.Add(("get down to the floor", ChangeKind.Floor));
                break;
        }

        var (had, has) = (WeightOf(from, moves), WeightOf(to, moves));
        if (had != has)
        {
            var plates = had.StartsWith("barbell", StringComparison.Ordinal) && has.StartsWith("barbell", StringComparison.Ordinal);
            things.Add(plates ? ("change plates", to.Turns ? ChangeKind.PlatesShared : ChangeKind.Plates)
                : has.Length == 0 ? ("put weights down", ChangeKind.Weights)
                : had.Length == 0 ? ("pick weights up", ChangeKind.Weights)
                : ("swap weights", ChangeKind.Weights));
        }

        if (BandOf(from, moves) != BandOf(to, moves))
        {
            things.Add((BandOf(to, moves).Length == 0 ? "take the band off" : "put the band on", ChangeKind.Band));
        }

        if (things.Count == 0)
        {
            return ChangeNeed.None;
        }

        var longestFirst = things.OrderByDescending(t => times.At(t.Kind)).ToArray();
        return new ChangeNeed(
            new Seconds(times.At(longestFirst[0].Kind) + Further * (things.Count - 1)),
            string.Join(", ", longestFirst.Select(t => $"{t.What} {times.At(t.Kind)} s")),
            longestFirst[0].Kind);
    }

    /// <summary>Changing sides in the position of the station's move.</summary>
    public static Seconds Switch(Station station, MoveLibrary moves, ChangeTimes times) =>
        new(times.At(SwitchKind(station, moves)));

    /// <summary>What changing sides is in the position of the station's move.</summary>
    public static ChangeKind SwitchKind(Station station, MoveLibrary moves) => LevelOf(station, moves) switch
    {
        Level.Standing => ChangeKind.SwitchStanding,
        Level.Floor => ChangeKind.SwitchFloor,
        Level.Bench => ChangeKind.SwitchBench,
    };

    /// <summary>What the change to each station of a block needs: in a rotation from the station before it round the circle.</summary>
    public static ImmutableArray<ChangeNeed> Of(Block block, MoveLibrary moves, ChangeTimes times)
    {
        var stations = block.Stations;
        var needs = ImmutableArray.CreateBuilder<ChangeNeed>(stations.Length);
        for (var i = 0; i < stations.Length; i++)
        {
            needs.Add(stations.Length == 1
                ? ChangeNeed.None
                : Between(
                    stations[(i + stations.Length - 1) % stations.Length], stations[i], block.Shape == BlockShape.Rotation, moves, times));
        }

        return needs.MoveToImmutable();
    }

    private static Level LevelOf(Station station, MoveLibrary moves) => moves.Find(station.Main.Move)?.Position switch
    {
        Position.OnTheBack or Position.SideLying or Position.HandsAndKnees or Position.Kneeling or Position.Seated or Position.Prone =>
            Level.Floor,
        Position.Bench or Position.Machine => Level.Bench,
        null or Position.Standing => Level.Standing,
    };

    /// <summary>What is held: the option's load, else the weight the move is done with.</summary>
    private static string WeightOf(Station station, MoveLibrary moves)
    {
        var main = station.Main;
        if (main.Manner.Load is { } load)
        {
            var implement = load.Implement is { } named ? WordsOf<Implement>.Of(named) : "";
            return load.IsNone ? "" : FormattableString.Invariant($"{implement} {load.Count ?? 1} {load.Kg?.Value}");
        }

        var kit = moves.Find(main.Move)?.Kit ?? [];
        return kit.FirstOrDefault(k => OptionWeights.Any(w => k.Contains(w, StringComparison.Ordinal))) ?? "";
    }

    private static readonly string[] OptionWeights = ["dumbbell", "kettlebell", "barbell", "plate", "ball"];

    private static string BandOf(Station station, MoveLibrary moves) =>
        station.Main.Manner.Band is { } band ? (band == BandStrength.None ? "" : $"{WordsOf<BandStrength>.Of(band)} band")
        : moves.Find(station.Main.Move)?.Kit.FirstOrDefault(k => k.Contains("band", StringComparison.Ordinal)) ?? "";
}
