using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Leading.Calling;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Leading;

/// <summary>
/// What the screens show of each span: the part, side and round that is under way, with its figure, target, side, hand and fault; where
/// nothing is worked, those of what comes next. leading.md, "Screens".
/// </summary>
internal sealed class SceneWriter
{
    private readonly ClassPlan plan;
    private readonly ImmutableArray<Span> spans;
    private readonly Timeline timeline;
    private readonly CardWriter cards;
    private readonly CallKit kit = new();
    private readonly Dictionary<int, Go> goes;

    public SceneWriter(ClassPlan plan, Timeline timeline, Preferences preferences)
    {
        (this.plan, this.timeline, spans) = (plan, timeline, timeline.Spans);
        cards = new CardWriter(plan, preferences);
        goes = Go.Of(plan, timeline).ToDictionary(g => g.Index);
    }

    public ImmutableArray<StationCard> Cards => cards.Cards;

    public Scene Scene(int index)
    {
        var (span, block) = (spans[index], plan.Blocks[spans[index].Block]);
        var isRecovery = IsRecovery(span, block);
        var ahead = span.Kind is not (SpanKind.Work or SpanKind.Talk) && !isRecovery ? Following(index) : null;
        var go = goes.GetValueOrDefault(ahead ?? index);
        var shown = ahead ?? index;
        var side = go?.OneSide;
        var (handWords, handBrief) = go is not null && side is { } one ? kit.HandOf(go, one) : ("", "");
        var counted = ahead is null ? Counted(span) : null;
        ImmutableArray<int> pictures = isRecovery ? [cards.OfRecovery(span.Block, span.Length())] : Pictures(spans[shown], go);
        return new Scene(
            span.Start,
            span.End,
            span.Kind,
            span.Block,
            block.Name,
            Headline(index),
            isRecovery ? $"{span.Length()}" : Target(shown),
            go?.Span.Side is { } works ? PlanWords.Of(works, go.Move) : "",
            go is null ? "" : Mirror(side, go),
            span.Round is { } r ? PlanWords.Rounds(block, r) : "",
            pictures,
            Next(index),
            span.Gated,
            go?.Span.Side,
            Said(index),
            block.Id,
            counted is null ? null : span.Amount,
            counted is null ? null : counted.Kind == PartKind.Pulses ? 1 : counted.RepSeconds)
        {
            Title = ahead is null ? Headline(index) : Headline(shown),
            Ahead = ahead is not null,
            Hand = handWords,
            HandBrief = handBrief,
            Load = go is { Part: { } part } ? Load(part, go.Span.Round ?? 0) : "",
            Others = go is { Station.Turns: true } ? Others(go) : "",
            TurnsRound = go?.Block.Shape == BlockShape.Rotation,
            CountsDown = go?.Count == Counting.Down,
        };
    }

    /// <summary>The work, or the talk, that comes after what is neither; null: nothing does.</summary>
    private int? Following(int index)
    {
        var next = index + 1;
        while (next < spans.Length && spans[next].Kind is not (SpanKind.Work or SpanKind.Talk))
        {
            next++;
        }

        return next < spans.Length ? next : null;
    }

    private static bool IsRecovery(Span span, Block block) =>
        span is { Kind: SpanKind.Rest, Gap: not null } && block.Recovery.Any(o => o.Tier == Tier.Main);

    private Part? Counted(Span span) =>
        span is { Kind: SpanKind.Work, Part: { } p, Station: { } s } && plan.Blocks[span.Block].Stations[s].Dose[p] is { } part
            && part.Kind.IsCounted
            ? part
            : null;

    private ImmutableArray<int> Pictures(Span span, Go? go)
    {
        var block = plan.Blocks[span.Block];
        if (span.Shows is { } shown && Where(shown) is { } at)
        {
            var showing = ShowingAt(span, block);
            var station = plan.Blocks[at.Block].Stations[at.Station];
            return [cards.Of(at.Block, at.Station, 0, null, Side.Both, showing.View ?? station.View?.At(0), showing.First)];
        }

        var round = span.Round ?? 0;
        return go is { Station: not null }
            ? [cards.Of(span.Block, span.Station!.Value, round, span.Part, span.Side ?? Side.Both)]
            : span.Kind == SpanKind.Work ? [.. block.Stations.Select((_, i) => cards.Of(span.Block, i, round, null, Side.Both))]
            : span.Station is { } demo ? [cards.Of(span.Block, demo, 0, null, Side.Both, block.Stations[demo].View?.At(0))]
            : [];
    }

    /// <summary>What the block, or the station that comes next, has to be said before its first work.</summary>
    private string Said(int index)
    {
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

        var (first, block, station) = (spans[next], plan.Blocks[spans[next].Block], spans[next].Station);
        var before = spans[..next].Where(s => s.Block == first.Block && s.Kind == SpanKind.Work).ToArray();
        var words = new[]
        {
            before.Length == 0 ? block.Say?.Text : null,
            station is { } s && before.All(b => b.Station != s) ? block.Stations[s].Say?.Text : null,
        };
        return string.Join(" ", words.OfType<string>());
    }

    private string Headline(int index)
    {
        var (span, block) = (spans[index], plan.Blocks[spans[index].Block]);
        var station = span.Station is { } s ? block.Stations[s] : null;
        return (span.Kind, block.Shape) switch
        {
            (SpanKind.LeadIn, _) => "Get ready",
            (SpanKind.Work, BlockShape.Rotation) => $"Interval {span.Leg + 1} of {block.Stations.Length}",
            (SpanKind.Work, BlockShape.OwnPace) => block.Name,
            (SpanKind.Work, _) => PlanWords.Work(station!.Dose[span.Part!.Value], station, plan.Moves),
            (SpanKind.Switch, _) => station!.Turns && span.Turn == 1 ? "Swap over" : "Switch sides",
            (SpanKind.Change, BlockShape.Rotation) => "Move on one station",
            (SpanKind.Change, _) when span.IsDrinkIn(block) => "Drink, then changeover",
            (SpanKind.Change, _) => "Changeover",
            (SpanKind.Rest, _) when span.IsInsideDose => "Rest",
            (SpanKind.Rest, _) when IsRecovery(span, block) => $"Recovery: {RecoveryName(block)}",
            (SpanKind.Rest, _) when span is { Gap: Gap.Rounds } && span.IsDrinkIn(block) => "Rest and drink",
            (SpanKind.Rest, _) => "Rest",
            (SpanKind.Wait, _) => "Wait for the bell",
            (SpanKind.Talk, _) when ShownName(span) is { } shown => $"Demo: {shown}",
            (SpanKind.Talk, _) when span.IsDrinkIn(block) => $"{block.Name}: drink break",
            _ => block.Name,
        };
    }

    private string RecoveryName(Block block) => block.Recovery.First(o => o.Tier == Tier.Main) is var main
        && plan.Moves.Find(main.Move) is { } move ? move.Name : "";

    /// <summary>The station that a talk shows.</summary>
    private string? ShownName(Span span) => span.Shows is { } shown ? plan.Find(shown)?.Station.Name
        : span is { Kind: SpanKind.Talk, Station: { } s } ? plan.Blocks[span.Block].Stations[s].Name : null;

    private string Target(int index)
    {
        var (span, block, round) = (spans[index], plan.Blocks[spans[index].Block], spans[index].Round ?? 0);
        return span.Kind switch
        {
            SpanKind.Talk when span.Shows is { } shown && plan.Find(shown) is { } found =>
                PlanWords.Showing(ShowingAt(span, block), found.Station),
            SpanKind.Talk when block.ShownBy is { } who => $"led by {who}",
            SpanKind.Work when block.Shape == BlockShape.Rotation => timeline.SideChange(span.Block, round) is { } change
                ? $"Switch sides after {change}"
                : "",
            SpanKind.Work when block.Shape == BlockShape.OwnPace =>
                PlanWords.Goal(block) is { Length: > 0 } goal ? $"goal: {goal}" : "your own pace",
            SpanKind.Work when span.Station is { } s =>
                Once(block.Stations[s], PlanWords.Part(block.Stations[s].Dose[span.Part!.Value], round), span),
            _ => "",
        };
    }

    /// <summary>Which line of the walk-through a span is.</summary>
    private Showing ShowingAt(Span span, Block block) =>
        block.Show[spans.Where(s => s.Block == span.Block && s.Shows is not null).TakeWhile(s => s != span).Count()];

    /// <summary>A part's target in one go: a half of a split, or a chunk, is not the whole amount.</summary>
    private static string Once(Station station, string whole, Span span) => station switch
    {
        { Sides: SideRule.Split } => $"{span.Length().Value} s",
        { Chunk: > 0 } => $"{station.Chunk} at a time, {whole} in total",
        _ => whole,
    };

    /// <summary>What is held in this part of a drop set.</summary>
    private static string Load(Part part, int round) => (part.LoadKg, part.LoadFactor) switch
    {
        ({ } kg, _) => string.Create(CultureInfo.InvariantCulture, $"{kg.At(round):0.##} kg"),
        (_, { } share) => string.Create(CultureInfo.InvariantCulture, $"{100 * share.At(round):0.##}% of your own"),
        _ => "",
    };

    /// <summary>Of two who share a station: who works, and what the other does meanwhile.</summary>
    private string Others(Go go)
    {
        var waits = go.Station!.Waiting.FirstOrDefault(o => o.Tier == Tier.Main) is { } waiting
            ? plan.Moves.Find(waiting.Move)?.Name.ToLowerInvariant()
            : null;
        return $"{(go.Span.Turn == 1 ? "Second" : "First")} of you works, the other: {waits ?? "rest"}";
    }

    /// <summary>
    /// The instructor's own side, where it is another: only facing the class, as the station is shown or else as the class is led.
    /// </summary>
    private string Mirror(Side? side, Go go) => (side, go.Station?.View?.At(go.Span.Round ?? 0) switch
    {
        Viewpoint.Front => Facing.Mirror,
        null => plan.Facing,
        Viewpoint.Side or Viewpoint.Back or Viewpoint.Turn => (Facing?)null,
    }) switch
    {
        (Side.Left, Facing.Mirror) => "You face them: your right",
        (Side.Right, Facing.Mirror) => "you, facing them: your left",
        _ => "",
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

    /// <summary>The next stretch in which something is done, with its side and target.</summary>
    private string Next(int index)
    {
        for (var i = index + 1; i < spans.Length; i++)
        {
            var (span, block) = (spans[i], plan.Blocks[spans[i].Block]);
            switch (span.Kind)
            {
                case SpanKind.Work:
                    // Of what goes on only what changes is said.
                    var same = goes.GetValueOrDefault(index) is { Station: { } on } && goes[i].Station?.Id == on.Id ? goes[index] : null;
                    var side = goes[i] is { OneSide: { } one } go && one != same?.OneSide ? PlanWords.Of(one, go.Move) : "";
                    var target = block.Shape == BlockShape.Rotation ? "" : Target(i);
                    var name = same is not null && same.Part!.Move == goes[i].Part!.Move && target.Length > 0 ? "" : Headline(i);
                    return string.Join(", ", new[] { name, target, side }.Where(w => w.Length > 0));
                case SpanKind.Talk:
                    return ShownName(span) is { } shown ? $"Demo: {shown}" : Headline(i);
                case SpanKind.Rest when i == index + 1:
                    return $"{(IsRecovery(span, block) ? RecoveryName(block) : "Rest")}, {span.Length()}";
            }
        }

        return "The end";
    }
}
