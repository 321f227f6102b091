using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>A piece of one person's work. Places count from 0; seconds from the start of the class.</summary>
/// <param name="Amount">Reps, seconds, pulses or metres of this go.</param>
/// <param name="Gap">Planned seconds since their last piece of work; what is left of a window is not counted.</param>
/// <param name="Pause">The same with what is left of a window.</param>
/// <param name="AfterOther">Somebody else had their turn in between.</param>
public readonly record struct Piece(
    int Block, int Round, int Station, int Part, Side Side, int Start, int Seconds, int Amount, int Gap, int Pause, bool AfterOther);

/// <summary>The class as one person meets it: of two turns one, in a rotation as their group goes round.</summary>
public sealed record Course(ImmutableArray<Piece> Pieces)
{
    /// <summary>Neighbours in their own order: the last piece at a station and the first at the next one.</summary>
    public IEnumerable<(Piece Before, Piece After)> Neighbours() =>
        Pieces.Zip(Pieces.Skip(1)).Where(p => p.First.Block != p.Second.Block || p.First.Station != p.Second.Station);

    /// <summary>
    /// One for each way to go round the rotations. Where one rotation follows another directly every end of the first meets
    /// every start of the second; those further apart have nothing to do with each other, and go round together.
    /// </summary>
    public static ImmutableArray<Course> AllOf(ClassPlan plan, Timeline timeline)
    {
        var stays = timeline.Stays.ToDictionary(s => (s.Block, s.Round, s.Station));
        var most = plan.Blocks.Where(Rotates).Select(b => b.Stations.Length).DefaultIfEmpty(1).Max();
        var second = SecondOfPairs(plan);
        var others = second.Contains(true) ? most : 1;
        return
        [
            .. from one in Enumerable.Range(0, most)
               from other in Enumerable.Range(0, others)
               select Of(plan, timeline, stays,
                   [.. plan.Blocks.Select((b, i) => b.Stations.Length == 0 ? 0 : (second[i] ? other : one) % b.Stations.Length)]),
        ];
    }

    private static bool Rotates(Block block) => block.Shape == BlockShape.Rotation;

    /// <summary>Of rotations that follow each other directly, every second one.</summary>
    private static bool[] SecondOfPairs(ClassPlan plan)
    {
        var second = new bool[plan.Blocks.Length];
        for (var b = 1; b < second.Length; b++)
        {
            second[b] = Rotates(plan.Blocks[b]) && Rotates(plan.Blocks[b - 1]) && !second[b - 1];
        }

        return second;
    }

    private static Course Of(ClassPlan plan, Timeline timeline, Dictionary<(int, int, int), Stay> stays, int[] starts)
    {
        var writer = new Writer();
        foreach (var span in timeline.Spans)
        {
            var block = plan.Blocks[span.Block];
            if (span.Kind != SpanKind.Work)
            {
                writer.Idle(span.Length().Value);
            }
            else if (span.Leg is { } leg)
            {
                var station = (starts[span.Block] + leg) % block.Stations.Length;
                Stay(writer, stays[(span.Block, span.Round!.Value, station)], block, span.Start.Value);
            }
            else if (span.Station is not { } station)
            {
                OwnPace(writer, block, span);
            }
            else if (span.Turn is > 0)
            {
                writer.Other(span.Length().Value);
            }
            else
            {
                writer.Work(span.Block, span.Round ?? 0, station, span.Part ?? 0, span.Side ?? Side.Both, span.Start.Value, span.Length()
                    .Value, span.Amount ?? 0);
            }
        }

        return new Course(writer.Done());
    }

    private static void Stay(Writer writer, Stay stay, Block block, int start)
    {
        var now = 0;
        foreach (var span in stay.Spans)
        {
            var length = (span.End - span.Start).Value;
            if (span.Kind != SpanKind.Work)
            {
                writer.Idle(length);
            }
            else if (span.Turn is > 0)
            {
                writer.Other(length);
            }
            else
            {
                var part = block.Stations[stay.Station].Dose[span.Part!.Value];
                writer.Work(stay.Block, stay.Round, stay.Station, span.Part.Value, span.Side!.Value, start + span.Start.Value, length,
                    Done(part, block.Stations[stay.Station], stay.Round, length));
            }

            now = span.End.Value;
        }

        writer.Spare(stay.Window.Value - now);
    }

    /// <summary>How much of a part a go is: as written, also where the bell cuts it; of chunks, as long as it takes.</summary>
    private static int Done(Part part, Station station, int round, int seconds) => part.Kind switch
    {
        PartKind.Reps when station.Chunk > 0 => (int)Math.Round(seconds / part.RepSeconds, MidpointRounding.AwayFromZero),
        PartKind.Reps or PartKind.Distance => part.Amount.At(round).To,
        PartKind.Time or PartKind.Hold or PartKind.Pulses or PartKind.Open or PartKind.Rest => seconds,
    };

    /// <summary>At their own pace people go round without planned gaps: as often as the goal says, else once.</summary>
    private static void OwnPace(Writer writer, Block block, Span span)
    {
        var now = span.Start.Value;
        for (var round = 0; round < block.Rounds; round++)
        {
            for (var s = 0; s < block.Stations.Length; s++)
            {
                foreach (var stretch in DoseClock.Stretches(block.Stations[s], block, round, Compiler.SideOfRound(block, round, 0)))
                {
                    if (stretch.Kind == SpanKind.Work && stretch.Turn == 0)
                    {
                        writer.Work(span.Block, round, s, stretch.Part, stretch.Side, now, stretch.Seconds, stretch.Amount);
                    }
                    else
                    {
                        writer.Idle(stretch.Seconds);
                    }

                    now += stretch.Seconds;
                }
            }
        }
    }

    private sealed class Writer
    {
        private readonly ImmutableArray<Piece>.Builder pieces = ImmutableArray.CreateBuilder<Piece>();
        private int gap;
        private int spare;
        private bool other;

        public void Idle(int seconds) => gap += seconds;

        public void Spare(int seconds) => spare += seconds;

        public void Other(int seconds) => (gap, other) = (gap + seconds, true);

        public void Work(int block, int round, int station, int part, Side side, int start, int seconds, int amount)
        {
            pieces.Add(new Piece(block, round, station, part, side, start, seconds, amount, gap, gap + spare, other));
            (gap, spare, other) = (0, 0, false);
        }

        public ImmutableArray<Piece> Done() => pieces.ToImmutable();
    }
}
