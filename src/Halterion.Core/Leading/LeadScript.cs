using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Leading;

/// <summary>What an instructor needs to see of one station.</summary>
/// <param name="Watch">The usual fault to look for, and its fix.</param>
/// <param name="Id">The station's id in the class that is led.</param>
public sealed record StationCard(
    string Name,
    Family Family,
    string Target,
    ImmutableArray<string> Harder, string Main, ImmutableArray<string> Easier,
    string Watch,
    PlaceId? Id = null);

/// <summary>One stretch of the class as it is shown while leading.</summary>
/// <param name="Headline">What is going on now.</param>
/// <param name="Side">Which side, for the class: "left foot in front".</param>
/// <param name="MirrorSide">Which side that is for an instructor who faces the class and mirrors it.</param>
/// <param name="Cards">The stations shown, as indices into the script's cards.</param>
/// <param name="Next">What comes next, with its target.</param>
/// <param name="Gated">It begins with a tap only.</param>
/// <param name="Say">What is said in this time, before the work that follows.</param>
/// <param name="BlockId">The block's id in the class that is led.</param>
/// <param name="Reps">How many reps this go has, where they have a tempo.</param>
/// <param name="RepSeconds">How long each takes.</param>
public sealed record Scene(
    Seconds Start,
    Seconds End,
    SpanKind Kind,
    int Block,
    string BlockName,
    string Headline,
    string Target,
    string SideWords,
    string MirrorSide,
    string Round,
    ImmutableArray<int> Cards,
    string Next,
    bool Gated = false,
    Side? Side = null,
    string Say = "",
    PlaceId? BlockId = null,
    int? Reps = null,
    decimal? RepSeconds = null);

/// <summary>All that a screen needs to lead a class without asking again: the timeline in words, and the cues.</summary>
/// <param name="Focus">The cue of the day.</param>
/// <param name="Calls">What is said, in order.</param>
public sealed record LeadScript(
    string Title,
    Seconds Length,
    Seconds Slot,
    ImmutableArray<Scene> Scenes, ImmutableArray<StationCard> Cards, ImmutableArray<Cue> Cues, ImmutableArray<Call> Calls,
    string Focus = "")
{
    /// <summary>How the cues sound.</summary>
    public ImmutableArray<Bell> Bells => Bell.Table;

    /// <summary>What the fold over the taps needs to know of the scenes.</summary>
    [JsonIgnore]
    public ImmutableArray<SceneTime> Times => [.. Scenes.Select(s => new SceneTime(s.End, s.Gated))];

    /// <summary>The same script with nothing missing: one that an older version wrote lacks what came later.</summary>
    public LeadScript Whole() => this with
    {
        Title = Title ?? "",
        Focus = Focus ?? "",
        Scenes = Scenes.IsDefault ? [] : [.. Scenes.Select(s => s with
        {
            BlockName = s.BlockName ?? "",
            Headline = s.Headline ?? "",
            Target = s.Target ?? "",
            SideWords = s.SideWords ?? "",
            MirrorSide = s.MirrorSide ?? "",
            Round = s.Round ?? "",
            Next = s.Next ?? "",
            Say = s.Say ?? "",
            Cards = s.Cards.IsDefault ? [] : s.Cards,
        })],
        Cards = Cards.IsDefault ? [] : [.. Cards.Select(c => c with
        {
            Name = c.Name ?? "",
            Target = c.Target ?? "",
            Main = c.Main ?? "",
            Watch = c.Watch ?? "",
            Harder = c.Harder.IsDefault ? [] : c.Harder,
            Easier = c.Easier.IsDefault ? [] : c.Easier,
        })],
        Cues = Cues.IsDefault ? [] : Cues,
        Calls = Calls.IsDefault ? [] : Calls,
    };

    /// <summary>The script of a class, in the order of its spans.</summary>
    public static LeadScript Of(ClassPlan plan, Timeline timeline, Preferences preferences)
    {
        var writer = new ScriptWriter(plan, preferences);
        var scenes = timeline.Spans.Select((span, i) => writer.Scene(timeline, span, i)).ToImmutableArray();
        var script = new LeadScript(
            plan.Title, timeline.Length, plan.Slot, scenes, writer.Cards, Cue.ListFor(timeline), [], plan.Focus ?? "");
        var announced = scenes.Select(s => new Announced(s.Headline, s.Target, s.SideWords)).ToImmutableArray();
        return script with { Calls = Call.ListFor(plan, timeline, announced, preferences) };
    }
}

internal sealed class ScriptWriter
{
    private readonly ClassPlan plan;
    private readonly MoveLibrary moves;
    private readonly Preferences preferences;
    private readonly Dictionary<(int Block, int Station, int Round), int> indices = [];
    private readonly ImmutableArray<StationCard>.Builder cards = ImmutableArray.CreateBuilder<StationCard>();

    public ScriptWriter(ClassPlan plan, Preferences preferences) => (this.plan, moves, this.preferences) = (plan, plan.Moves, preferences);

    public ImmutableArray<StationCard> Cards => cards.ToImmutable();

    public Scene Scene(Timeline timeline, Span span, int index)
    {
        var block = plan.Blocks[span.Block];
        var station = span.Station is { } s ? block.Stations[s] : null;
        var round = span.Round ?? 0;
        return new Scene(
            span.Start,
            span.End,
            span.Kind,
            span.Block,
            block.Name,
            Headline(span, block, station),
            Target(timeline, span, block, station, round),
            span.Side is { } side ? PlanWords.Of(side, MoveOf(block, span)) : "",
            Mirror(span.Side, station, round),
            span.Round is { } r ? PlanWords.Rounds(block, r) : "",
            ShownCards(span, block, round),
            Next(timeline, index),
            span.Gated,
            span.Side,
            Said(timeline, block, index),
            block.Id,
            Counted(span, station) is null ? null : span.Amount,
            Counted(span, station)?.RepSeconds);
    }

    private static Part? Counted(Span span, Station? station) =>
        span is { Kind: SpanKind.Work, Part: { } p } && station?.Dose[p] is { Kind: PartKind.Reps } part ? part : null;

    /// <summary>What the block, or the station that comes next, has to be said before its first work.</summary>
    private string Said(Timeline timeline, Block block, int index)
    {
        var spans = timeline.Spans;
        if (spans[index].Kind == SpanKind.Work)
        {
            return "";
        }

        var next = index + 1;
        while (next < spans.Length && spans[next].Block == spans[index].Block && spans[next].Kind != SpanKind.Work)
        {
            next++;
        }

        if (next == spans.Length || spans[next].Block != spans[index].Block)
        {
            return "";
        }

        var (first, station) = (spans[next], spans[next].Station);
        var blockFirst = !spans[..next].Any(s => s.Block == first.Block && s.Kind == SpanKind.Work);
        var stationFirst = station is not null
            && !spans[..next].Any(s => s.Block == first.Block && s.Station == station && s.Kind == SpanKind.Work);
        var words = new[] { blockFirst ? block.Say?.Text : null, stationFirst ? block.Stations[station!.Value].Say?.Text : null };
        return string.Join(" ", words.OfType<string>());
    }

    private string Headline(Span span, Block block, Station? station) => (span.Kind, block.Shape) switch
    {
        (SpanKind.LeadIn, _) => "Get ready",
        (SpanKind.Work, BlockShape.Rotation) => $"Go {span.Leg + 1} of {block.Stations.Length}",
        (SpanKind.Work, BlockShape.OwnPace) => block.Name,
        (SpanKind.Work, _) => WorkName(block, station!, span),
        (SpanKind.Switch, _) => station!.Turns && span.Turn == 1 ? "Swap over" : "Switch sides",
        (SpanKind.Change, BlockShape.Rotation) => "Move on",
        (SpanKind.Change, _) when span.IsDrinkIn(block) => "Drink, then change",
        (SpanKind.Change, _) => "Change",
        (SpanKind.Rest, _) when span.IsInsideDose => "Rest",
        (SpanKind.Rest, _) when span is { Gap: Gap.Rounds } && span.IsDrinkIn(block) => "Rest and drink",
        (SpanKind.Rest, _) => Resting(span, block, station),
        (SpanKind.Wait, _) => "Wait for the bell",
        (SpanKind.Talk, _) when span.Shows is { } shown => $"Show: {plan.Find(shown)?.Station.Name}",
        (SpanKind.Talk, _) when span.IsDrinkIn(block) => $"{block.Name}: drink",
        (SpanKind.Talk, _) => station is null ? block.Name : $"Show: {station.Name}",
        _ => block.Name,
    };

    /// <summary>Recovery is said as what it is; in a change between stations also where it leads.</summary>
    private string Resting(Span span, Block block, Station? station)
    {
        var active = block.Recovery.FirstOrDefault(o => o.Tier == Tier.Main) is { } main
            ? $"Easy: {PlanWords.Option(main, moves, preferences)}"
            : "Rest";
        return span.Gap != Gap.Stations ? active
            : station is null ? $"{active}, then move on"
            : $"{active}, on the way to {station.Name}";
    }

    private string WorkName(Block block, Station station, Span span)
    {
        var part = station.Dose[span.Part!.Value];
        return part.Label ?? (part.Move == station.Main.Move ? station.Name : moves.Find(part.Move)?.Name ?? station.Name);
    }

    private string Target(Timeline timeline, Span span, Block block, Station? station, int round) => span.Kind switch
    {
        SpanKind.Talk when span.Shows is { } shown && plan.Find(shown) is { } found =>
            PlanWords.Showing(ShowingAt(timeline, span, block), found.Station),
        SpanKind.Talk when block.ShownBy is { } who => $"led by {who}",
        SpanKind.Work when block.Shape == BlockShape.Rotation => timeline.SideChange(span.Block, round) is { } change ? $"Sides change "
            + $"after {change}" : "",
        SpanKind.Work when block.Shape == BlockShape.OwnPace =>
            PlanWords.Goal(block) is { Length: > 0 } goal ? $"goal: {goal}" : "at your own pace",
        SpanKind.Work when station is not null => Once(station, PlanWords.Part(station.Dose[span.Part!.Value], round), span),
        _ => "",
    };

    /// <summary>Which line of the walk-through a span is.</summary>
    private static Showing ShowingAt(Timeline timeline, Span span, Block block) =>
        block.Show[timeline.Spans.Where(s => s.Block == span.Block && s.Shows is not null).TakeWhile(s => s != span).Count()];

    /// <summary>A part's target in one go: a half of a split, or a chunk, is not the whole amount.</summary>
    private static string Once(Station station, string whole, Span span) => station switch
    {
        { Sides: SideRule.Split } => $"{span.Length().Value} s",
        { Chunk: > 0 } => $"{station.Chunk} at a time, {whole} in all",
        _ => whole,
    };

    /// <summary>
    /// The instructor's own side, where it is another: only facing the class, as the station is shown or else as the class is led.
    /// </summary>
    private string Mirror(Side? side, Station? station, int round) => (side, station?.View?.At(round) switch
    {
        Viewpoint.Front => Facing.Mirror,
        null => plan.Facing,
        Viewpoint.Side or Viewpoint.Back or Viewpoint.Turn => (Facing?)null,
    }) switch
    {
        (Side.Left, Facing.Mirror) => "you, facing them: your right",
        (Side.Right, Facing.Mirror) => "you, facing them: your left",
        _ => "",
    };

    private Move? MoveOf(Block block, Span span) =>
        span is { Station: { } s, Part: { } p } ? moves.Find(block.Stations[s].Dose[p].Move) : null;

    private ImmutableArray<int> ShownCards(Span span, Block block, int round) => block.Shape switch
    {
        BlockShape.Rotation or BlockShape.OwnPace => [.. block.Stations.Select((_, i) => CardIndex(span.Block, i, round))],
        BlockShape.Talk => span.Shows is { } shown && Where(shown) is { } at ? [CardIndex(at.Block, at.Station, 0)] : [],
        BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Sets =>
            span.Station is { } station ? [CardIndex(span.Block, station, round)]
            : block.Stations.Length > 0 ? [CardIndex(span.Block, 0, 0)]
            : [],
    };

    private (int Block, int Station)? Where(PlaceId station)
    {
        for (var b = 0; b < plan.Blocks.Length; b++)
        {
            for (var s = 0; s < plan.Blocks[b].Stations.Length; s++)
            {
                if (plan.Blocks[b].Stations[s].Id == station)
                {
                    return (b, s);
                }
            }
        }

        return null;
    }

    private int CardIndex(int block, int station, int round)
    {
        if (!indices.TryGetValue((block, station, round), out var index))
        {
            index = cards.Count;
            cards.Add(Card(plan.Blocks[block], plan.Blocks[block].Stations[station], round));
            indices.Add((block, station, round), index);
        }

        return index;
    }

    private StationCard Card(Block block, Station station, int round)
    {
        ImmutableArray<string> Of(Tier tier) =>
            [.. station.Options.Where(o => o.Tier == tier).Select(o => PlanWords.Option(o, station, moves, preferences))];
        var main = moves.Find(station.Main.Move)!;
        var watch = main.Faults.IsDefaultOrEmpty ? "" : $"{main.Faults[0].Seen}. {main.Faults[0].Fix}";
        return new StationCard(
            station.Name,
            main.Family,
            PlanWords.Target(station, block, round),
            Of(Tier.Harder),
            PlanWords.Option(station.Main, moves, preferences),
            Of(Tier.Easier),
            watch,
            station.Id);
    }

    /// <summary>The next stretch in which something is done, with its side and target.</summary>
    private string Next(Timeline timeline, int index)
    {
        for (var i = index + 1; i < timeline.Spans.Length; i++)
        {
            var span = timeline.Spans[i];
            var block = plan.Blocks[span.Block];
            switch (span.Kind)
            {
                case SpanKind.Work:
                    var station = span.Station is { } s ? block.Stations[s] : null;
                    var side = span.Side is Side.Left or Side.Right ? PlanWords.Of(span.Side.Value, MoveOf(block, span)) : "";
                    var target = block.Shape == BlockShape.Rotation ? "" : Target(timeline, span, block, station, span.Round ?? 0);
                    return string.Join(", ", new[] { Headline(span, block, station), target, side }.Where(w => w.Length > 0));
                case SpanKind.Talk:
                    return Headline(span, block, span.Station is { } t ? block.Stations[t] : null);
                case SpanKind.Rest when i == index + 1:
                    return $"Rest, {span.Length()}";
            }
        }

        return "The end";
    }
}
