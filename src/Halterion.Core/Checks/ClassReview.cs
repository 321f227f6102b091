using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>A station with where it stands; places count from 0.</summary>
public sealed record StationAt(Block Block, int B, Station Station, int S)
{
    /// <summary>Where it stands, as a JSON Pointer.</summary>
    public string Pointer => $"/blocks/{B}/stations/{S}";

    /// <summary>The station's id.</summary>
    public PlaceId Id => Station.Id;

    /// <summary>What it is called.</summary>
    public string Name => Station.Name;

    /// <summary>It belongs to the main work.</summary>
    public bool IsMain => ClassReview.IsMain(Block);

    /// <summary>Main work or getting ready for it.</summary>
    public bool IsMainOrActivation => IsMain || Block.Phase == Phase.Activation;
}

/// <summary>The occasion: who comes, with which kit, in which room.</summary>
/// <param name="Sized">The size of the room; null: not known.</param>
public sealed record Occasion(RoomOf Room, Assignment Given, RoomSize? Sized)
{
    /// <summary>How many come, named or not.</summary>
    public int Heads => Room.Heads;
}

/// <summary>Metres.</summary>
public readonly record struct RoomSize(decimal WidthM, decimal LengthM);

/// <summary>A class that was held.</summary>
/// <param name="Effort">0–10, as people said.</param>
/// <param name="HardSets">By family.</param>
/// <param name="Moves">The main moves; empty: not known.</param>
/// <param name="Load">Effort times minutes.</param>
public sealed record HeldClass(
    DateTime Start, int? Minutes, decimal? Effort, ImmutableSortedDictionary<Family, decimal> HardSets, ImmutableArray<MoveId> Moves,
        decimal? Load);

/// <summary>What was held before, and when this class begins.</summary>
/// <param name="LastOfWeek">No other class is planned in this week.</param>
public sealed record History(DateTime Start, ImmutableArray<HeldClass> Held, bool LastOfWeek = true);

/// <summary>All that a rule may look at. What is not known is null, and not judged.</summary>
public sealed class ClassReview
{
    private readonly Lazy<ImmutableArray<Course>> courses;
    private readonly Dictionary<(int Block, int Station), ImmutableArray<DonePart?>> parts = [];
    private readonly Dictionary<PlaceId, ImmutableArray<DonePart>> works = [];
    private readonly Dictionary<PlaceId, ImmutableArray<Need>> needs = [];
    private readonly Dictionary<PlaceId, ImmutableArray<Tick>> wants = [];
    private readonly Lazy<ILookup<PlaceId, PlaceId?>> given;
    private readonly Lazy<ImmutableArray<Moment>> moments;
    private readonly int[] firsts;

    /// <summary>A class to be checked, with all that is known of its occasion.</summary>
    public ClassReview(ClassPlan plan, Timeline timeline, CheckSettings settings, Occasion? occasion = null, History? history = null)
    {
        (Plan, Timeline, Settings, Occasion, History) = (plan, timeline, settings, occasion, history);
        Stations = [.. plan.Blocks.SelectMany((block, b) => block.Stations.Select((station, s) => new StationAt(block, b, station, s)))];
        firsts = new int[plan.Blocks.Length];
        for (var b = 1; b < firsts.Length; b++)
        {
            firsts[b] = firsts[b - 1] + plan.Blocks[b - 1].Stations.Length;
        }

        courses = new(() => Course.AllOf(plan, timeline));
        given = new(() => (occasion?.Given.People ?? []).SelectMany(p => p.Stations).ToLookup(s => s.Station, s => s.Option));
        moments = new(() => occasion is null ? [] : [.. Moment.AllOf(this, occasion)]);
    }

    /// <summary>The class.</summary>
    public ClassPlan Plan { get; }

    /// <summary>The class to the second.</summary>
    public Timeline Timeline { get; }

    /// <summary>Which rules hold, with which bounds.</summary>
    public CheckSettings Settings { get; }

    /// <summary>Who comes, where, and with what; null: not known.</summary>
    public Occasion? Occasion { get; }

    /// <summary>The classes before and after it; null: not known.</summary>
    public History? History { get; }

    /// <summary>The library that it is read with.</summary>
    public MoveLibrary Moves => Plan.Moves;

    /// <summary>Null where the stock is not known.</summary>
    public WeightsAtHand? Weights => StockWeights.Of(Occasion?.Room.Kit);

    /// <summary>Every station with its block, in order.</summary>
    public ImmutableArray<StationAt> Stations { get; }

    /// <summary>The stations of the main work.</summary>
    public IEnumerable<StationAt> MainStations => Stations.Where(s => s.IsMain);

    /// <summary>What one person does: one for each way to go round the rotations.</summary>
    public ImmutableArray<Course> Courses => courses.Value;

    /// <summary>What is done at once in each moment of the occasion.</summary>
    public ImmutableArray<Moment> Moments => moments.Value;

    /// <summary>Options of a station that somebody is given; whoever has no name does the main one.</summary>
    public IEnumerable<Option> InUse(StationAt at) =>
        at.Station.Options.Where(o => given.Value[at.Id].Contains(o.Id)
            || o.Tier == Tier.Main && Occasion is { } occasion && occasion.Heads > occasion.Room.People.Length);

    /// <summary>By how many seconds it is too long; negative: too short.</summary>
    public Seconds Over => Timeline.Length - Plan.Slot;

    /// <summary>Main work is that of blocks of phase main or finisher.</summary>
    public static bool IsMain(Block block) => block.Phase is Phase.Main or Phase.Finisher;

    /// <summary>The station of a piece of work.</summary>
    public StationAt At(Piece piece) => Stations[firsts[piece.Block] + piece.Station];

    /// <summary>What the main option does in a part; null for a rest.</summary>
    public DonePart? Done(Piece piece) => Parts(At(piece))[piece.Part];

    /// <summary>What the main option does, part by part; null for a rest.</summary>
    public ImmutableArray<DonePart?> Parts(StationAt at)
    {
        if (!parts.TryGetValue((at.B, at.S), out var done))
        {
            parts[(at.B, at.S)] = done = PartsOf(at.Station.Main, at.Station);
        }

        return done;
    }

    /// <summary>The parts of the main option in which something is done.</summary>
    public ImmutableArray<DonePart> Works(StationAt at) => Works(at.Station.Main, at);

    /// <summary>What any option does, part by part, rests left out.</summary>
    public ImmutableArray<DonePart> Works(Option option, StationAt at)
    {
        // An option that is only thought of has no name to be remembered by.
        if (option.Id == default)
        {
            return [.. PartsOf(option, at.Station).OfType<DonePart>()];
        }

        if (!works.TryGetValue(option.Id, out var done))
        {
            works[option.Id] = done = [.. (option.Tier == Tier.Main ? Parts(at) : PartsOf(option, at.Station)).OfType<DonePart>()];
        }

        return done;
    }

    /// <summary>What an option of a station has to be given.</summary>
    public ImmutableArray<Need> Needs(Option option, StationAt at) =>
        Kept(needs, option.Id, () => Room.Needs.Of(option, at.Station, Moves));

    /// <summary>What should be sound before an option of a station.</summary>
    public ImmutableArray<Tick> Wants(Option option, StationAt at) =>
        Kept(wants, option.Id, () => Allowance.Wants(option, at.Station, Moves));

    private static T Kept<T>(Dictionary<PlaceId, T> kept, PlaceId id, Func<T> find) =>
        kept.TryGetValue(id, out var known) ? known : kept[id] = find();

    /// <summary>The different moves of all main work, in its order.</summary>
    /// <summary>What readies for the families of the main work and stretches them, in the order in which they are worked.</summary>
    public IEnumerable<FamilyMoves> WorkedFamilies =>
        MainStations.SelectMany(s => Works(s)).Select(p => p.Family).Distinct().Select(MoveLibrary.Usual.Of).OfType<FamilyMoves>();

    /// <summary>The moves of the main work, each once.</summary>
    public ImmutableArray<MoveId> MainMoves() => [.. MainStations.SelectMany(s => Works(s)).Select(p => p.Move.Id).Distinct()];

    private ImmutableArray<DonePart?> PartsOf(Option option, Station station) =>
        [.. station.Dose.Select((part, i) => !part.Kind.IsWork ? null : DonePart.Of(part, i, option, station, Moves))];
}
