using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>A class that cannot be put on a clock: too long, or in too many pieces.</summary>
internal sealed class TooLargeException(PlanFault fault) : Exception
{
    public PlanFault Fault { get; } = fault;
}

/// <summary>Lays spans one after the other and keeps to the bounds of the language.</summary>
internal sealed class SpanWriter
{
    private const int MostSeconds = 24 * 3600;
    private const int MostSpans = 20_000;

    private readonly ImmutableArray<Span>.Builder spans = ImmutableArray.CreateBuilder<Span>();
    private int blockStart;
    private int now;
    private bool gate;

    public int Block { get; private set; }

    public void Open(int block) => (Block, blockStart, gate) = (block, spans.Count, false);

    /// <summary>The class waits for a tap before the next span.</summary>
    public void Wait() => gate = true;

    /// <summary>Adds a span; one of 0 s is left out.</summary>
    public void Add(
        SpanKind kind,
        Seconds length,
        int? round = null,
        int? station = null,
        int? part = null,
        Side? side = null,
        int? pass = null,
        int? turn = null,
        int? leg = null,
        int? amount = null,
        PlaceId? shows = null,
        Gap? gap = null)
    {
        if (length == Seconds.Zero)
        {
            return;
        }

        if (spans.Count == MostSpans)
        {
            throw new TooLargeException(
                new PlanFault("/blocks", $"This class has too many steps.", $"at most {MostSpans} spans"));
        }

        if (length.Value > MostSeconds - now)
        {
            throw new TooLargeException(new PlanFault("/blocks", "This class is longer than 24 hours.", "at most 24 hours"));
        }

        spans.Add(new Span(
            new Seconds(now),
            new Seconds(now + length.Value),
            kind,
            Block,
            round,
            station,
            part,
            side,
            pass,
            turn,
            leg,
            shows)
        { Gated = gate, Amount = amount, Gap = gap });
        gate = false;
        now += length.Value;
    }

    /// <summary>
    /// Gives changes and rests the place of the next span of the block that is neither; they have none if nothing follows.
    /// A rest inside a dose keeps its own, and is passed over.
    /// </summary>
    public void Close()
    {
        Span? next = null;
        for (var i = spans.Count - 1; i >= blockStart; i--)
        {
            if (spans[i].Kind is not (SpanKind.Change or SpanKind.Rest))
            {
                next = spans[i];
            }
            else if (next is not null && !spans[i].IsInsideDose)
            {
                spans[i] = spans[i] with { Round = next.Round, Station = next.Station, Pass = next.Pass, Turn = next.Turn, Leg = next.Leg };
            }
        }
    }

    public ImmutableArray<Span> Done() => spans.ToImmutable();
}
