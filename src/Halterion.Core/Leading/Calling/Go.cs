using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>How a go stands to the one before it.</summary>
internal enum Follows
{
    /// <summary>Another station, or the first of all.</summary>
    Station,

    /// <summary>The same station in the next set or round.</summary>
    Set,

    /// <summary>Another part of the same dose.</summary>
    Part,

    /// <summary>The other side of the same station.</summary>
    Side,

    /// <summary>The second pass of a string of stations: all of it is known.</summary>
    StringSide,

    /// <summary>The other of two who take turns.</summary>
    Turn,

    /// <summary>It goes on.</summary>
    Same,
}

/// <summary>One span of work, with what is asked of it when something is said.</summary>
/// <param name="Index">Its place among the spans.</param>
/// <param name="Before">The go before it; null: it is the first.</param>
/// <param name="Station">Null in a rotation and at own pace, where people are at all of them.</param>
internal sealed record Go(
    int Index, Span Span, Block Block, Station? Station, Part? Part, Move? Move, Go? Before, Follows Follows)
{
    public decimal Start => Span.Start.Value;

    public decimal End => Span.End.Value;

    public decimal Length => End - Start;

    /// <summary>Since when nothing is worked, in seconds; its own start where it follows at once.</summary>
    public decimal FreeFrom => Before?.End ?? 0;

    public decimal Gap => Start - FreeFrom;

    /// <summary>The side that works; null: both, or in turn.</summary>
    public Side? OneSide => Span.Side is Side.Left or Side.Right ? Span.Side : null;

    /// <summary>How reps are counted in it.</summary>
    public Counting Count => Station is { } station ? Block.CountAt(station) : Block.Count;

    /// <summary>Its reps or pulses are counted aloud, so that no seconds are said.</summary>
    public bool IsCounted => Count != Counting.Off && Part?.Kind.IsCounted == true;

    /// <summary>The first go of its station in this round or set, on whatever side.</summary>
    public bool IsFirstOfStation => Follows is Follows.Station or Follows.Set;

    /// <summary>All goes of a class, in order.</summary>
    public static ImmutableArray<Go> Of(ClassPlan plan, Timeline timeline)
    {
        var goes = ImmutableArray.CreateBuilder<Go>();
        var seen = new HashSet<(int Block, int? Station, int? Round, int? Pass)>();
        Go? before = null;
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            var span = timeline.Spans[i];
            if (span.Kind != SpanKind.Work)
            {
                continue;
            }

            var block = plan.Blocks[span.Block];
            var station = span.Station is { } s ? block.Stations[s] : null;
            var part = station is not null && span.Part is { } p ? station.Dose[p] : null;
            var again = station is not null && !seen.Add((span.Block, span.Station, span.Round, span.Pass));
            var move = part is null ? null : plan.Moves.Find(part.Move);
            before = new Go(i, span, block, station, part, move, before, Relation(before?.Span, span, again, move is not null
                && move == before?.Move));
            goes.Add(before);
        }

        return goes.ToImmutable();
    }

    /// <param name="sameMove">The go before is of the same move.</param>
    private static Follows Relation(Span? before, Span now, bool again, bool sameMove) =>
        before is null || before.Block != now.Block || now.Station is null ? Follows.Station
        : before.Station != now.Station || before.Pass != now.Pass ? again ? Follows.StringSide : Follows.Station
        : before.Round != now.Round ? Follows.Set
        : before.Turn != now.Turn ? Follows.Turn
        // The other side begins with the first part again; parts that are written for a side each are one move or two.
        : before.Side != now.Side && (now.Part <= before.Part || sameMove) ? Follows.Side
        : before.Part != now.Part ? Follows.Part
        : before.Side != now.Side ? Follows.Side
        : Follows.Same;
}
