using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Sheets;

/// <summary>An option on a card.</summary>
public sealed record CardOption(Tier Tier, string Words, Figure? Figure);

/// <summary>A card to lie at a station, to be read from three metres.</summary>
/// <param name="Number">Of the station in its block, from 1.</param>
/// <param name="Place">Such as "Station 2 of 6".</param>
/// <param name="Cue">The one thing to think of.</param>
/// <param name="SetUp">Measures for the statures asked for, in words.</param>
/// <param name="Measures">The same as lines in the main option's figure.</param>
public sealed record StationPlaceCard(
    string Block,
    int Number,
    string Place,
    string Name,
    Family Family,
    string Target,
    ImmutableArray<CardOption> Options, string Cue, ImmutableArray<string> SetUp, ImmutableArray<DrawnMeasure> Measures);

/// <summary>A line of the walk-through: what to show, from which side, in which order, which fault.</summary>
/// <param name="Seconds">25 s a station with its options. [M] Handbook, section 3.</param>
public sealed record WalkThroughLine(string Name, string View, string Show, string Fault, Seconds Seconds, Figure? Figure);

/// <summary>A move on the sheet that participants take home.</summary>
public sealed record TakeAwayMove(string Name, string Target, string How, Figure? Figure);

/// <summary>All that is printed for a class beside its run sheet. Nothing on it says who has which limit.</summary>
/// <param name="Announcement">The class in a sentence.</param>
/// <param name="Bring">What people bring or wear.</param>
/// <param name="Kit">What the main options are done with.</param>
public sealed record ClassCards(
    string Title,
    string Announcement,
    string Bring,
    ImmutableArray<string> Kit,
    ImmutableArray<StationPlaceCard> Stations,
    ImmutableArray<WalkThroughLine> WalkThrough,
    string WalkThroughTakes,
    ImmutableArray<TakeAwayMove> TakeAway,
    ImmutableArray<TakeAwayMove> Stretches,
    string Cautions)
{
    private const int ShownSeconds = 25;

    /// <summary>The cards of a class for a span of statures.</summary>
    public static ClassCards Of(ClassPlan plan, Timeline timeline, Preferences preferences, Stature shortest, Stature tallest)
    {
        var stations = plan.Blocks.SelectMany(b => b.Stations.Select((s, i) => (Block: b, Station: s, Index: i))).ToArray();
        var once = Once(plan);
        var shown = Shown(plan, once.Select(s => s.Station), preferences);
        return new ClassCards(
            plan.Title,
            Words.Announcement.Of(plan, timeline),
            plan.Bring ?? "",
            [.. stations.SelectMany(s => plan.Moves.Find(s.Station.Main.Move)!.Kit).Distinct().Order(StringComparer.Ordinal)],
            [.. stations.Select(s => Card(plan, s.Block, s.Station, s.Index, preferences, shortest, tallest))],
            shown,
            new Seconds(shown.Sum(line => line.Seconds.Value)).ToString(),
            [.. once.Where(s => plan.Moves.Find(s.Station.Main.Move)!.Family is not (Family.Recovery or Family.Stretch)).Select(s => Take(
                plan,
                plan.Moves.Find(s.Station.Main.Move)!,
                PlanWords.Targets(s.Station, s.Block),
                s.Station.Main.Manner))],
            [.. plan.Moves.Moves.Where(m => m.AtHome).Select(m => Take(
                plan,
                m,
                string.Create(CultureInfo.InvariantCulture, $"{m.Dose.Amount} s{(m.Sided == Sided.TwoSided ? "" : " each side")}"),
                new Manner()))],
            "Everything we say in class is an offer. If you feel pain, dizziness, chest discomfort or unusual "
                + "breathlessness, stop and tell us. Not sure whether to start? Ask a doctor or midwife first.");
    }

    /// <summary>Every move once, at the first station that does it.</summary>
    internal static (Block Block, Station Station)[] Once(ClassPlan plan) =>
        [.. plan.Blocks.SelectMany(b => b.Stations.Select(s => (Block: b, Station: s))).DistinctBy(s => s.Station.Main.Move)];

    private static StationPlaceCard Card(
        ClassPlan plan, Block block, Station station, int index, Preferences preferences, Stature shortest, Stature tallest)
    {
        var move = plan.Moves.Find(station.Main.Move)!;
        Figure? Drawn(Option o) => OptionFigure.Of(plan.Moves.Find(o.Move)!, o.Manner, plan.Moves, side: station.OnlySide);
        var setUp = SetUp(move, station, Drawn(station.Main), preferences, shortest, tallest).ToArray();
        Tier[] order = [Tier.Harder, Tier.Main, Tier.Easier, Tier.Instead];
        return new StationPlaceCard(
            block.Name,
            index + 1,
            string.Create(CultureInfo.InvariantCulture, $"Station {index + 1} of {block.Stations.Length}"),
            station.Name,
            move.Family,
            PlanWords.Targets(station, block),
            [.. station.Options.OrderBy(o => Array.IndexOf(order, o.Tier)).Select(o => new CardOption(
                o.Tier,
                ForPeople(o, PlanWords.Option(o, station, plan.Moves, preferences)),
                Drawn(o)))],
            move.Path,
            [.. setUp.Select(m => m.Words)],
            [.. setUp.Select(m => m.Drawn).OfType<DrawnMeasure>()]);
    }

    /// <summary>An option as those read it who are to do it: a tempo in words.</summary>
    private static string ForPeople(Option option, string words) =>
        option.Manner.Tempo is { } tempo ? words.Replace($"tempo {tempo}", PlanWords.Said(tempo), StringComparison.Ordinal) : words;

    private static IEnumerable<(string Words, DrawnMeasure? Drawn)> SetUp(
        Move move, Station station, Figure? figure, Preferences preferences, Stature shortest, Stature tallest)
    {
        if (OptionPoses.Of(move, station.Main.Manner) is not { } poses || figure is null)
        {
            return [];
        }

        var seen = new Shown(poses.View, station.OnlySide == Side.Left);
        var measures = StationSetup.Of(OptionFigure.MotionOf(poses), poses.Props, shortest, tallest);
        return measures.Select(m =>
            {
                string Length(double cm) => PlanWords.Height((decimal)cm, preferences.Length);
                var range = m.Least == m.Most ? Length(m.Least) : $"{Length(m.Least).Split(' ')[0]}–{Length(m.Most)}";
                var have = m.What.Contains("height", StringComparison.Ordinal)
                    && StationSetup.Nearest(m, preferences.Heights) is { } nearest
                    ? $"; yours: {Length(nearest.Height)}{(nearest.NotFor.Length > 0 ? $" (not for {nearest.NotFor})" : "")}"
                    : "";
                var brief = m.Least == m.Most ? range : $"{Length(m.Least).Split(' ')[0]}–{Length(m.Most)}";
                return ($"{m.What.Capital()}: {range} ({m.Note}){have}", StationSetup.Draw(m, seen, brief, figure.Stills[^1]));
            });
    }

    /// <summary>The walk-through as the class plans it; where it plans none, every move once.</summary>
    internal static ImmutableArray<WalkThroughLine> Shown(ClassPlan plan, IEnumerable<Station> once, Preferences preferences)
    {
        var planned = plan.Blocks.SelectMany(b => b.Show).ToImmutableArray();
        return planned.IsEmpty
            ? [.. once.Select(s => Walk(plan, s, preferences))]
            : [.. planned.Select(showing => Walk(plan, plan.Find(showing.Station)!.Value.Station, preferences, showing))];
    }

    private static WalkThroughLine Walk(ClassPlan plan, Station station, Preferences preferences, Showing? showing = null)
    {
        var move = plan.Moves.Find(station.Main.Move)!;
        var first = showing?.First ?? Tier.Main;
        var tiers = station.Options.Where(o => o.Tier is Tier.Easier or Tier.Harder && o.Tier != first).OrderBy(o => o.Tier)
            .Select(o => $"{PlanWords.Of(o.Tier)}: {PlanWords.Option(o, station, plan.Moves, preferences)}");
        var begin = first == Tier.Main
            ? "stance, movement, finish"
            : $"start with {first.ToString().ToLowerInvariant()}: "
                + $"{PlanWords.Option(station.Options.First(o => o.Tier == first), station, plan.Moves, preferences)}; then main";
        var view = PlanWords.From(showing?.View ?? station.View?.At(0));
        return new WalkThroughLine(
            station.Name,
            view ?? move.Poses?.View switch
            {
                View.Front => "from the front",
                View.Quarter or View.Behind =>
                "at an angle, so side and front show",
                null when move.Plane != Plane.Sagittal => "from the front",
                null or View.Side or View.High or View.Above => "from the side"
            },
            string.Join("; ", tiers.Prepend(begin)),
            move.Faults.IsDefaultOrEmpty ? "" : $"{move.Faults[0].Seen} → {move.Faults[0].Fix}",
            showing?.Seconds ?? new Seconds(ShownSeconds),
            OptionFigure.Of(move, station.Main.Manner, plan.Moves, felt: false, side: station.OnlySide));
    }

    private static TakeAwayMove Take(ClassPlan plan, Move move, string target, Manner manner) =>
        new(move.Name, target, $"{move.SetUp} {move.Path}".Trim(), OptionFigure.Of(move, manner, plan.Moves));
}
