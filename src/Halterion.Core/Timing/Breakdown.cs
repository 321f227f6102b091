using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>What one person does of a family.</summary>
/// <param name="LeftReps">As dosed; estimated reps are not in it.</param>
public sealed record FamilyShare(Family Family, Seconds WorkSeconds, long LeftReps, long RightReps);

/// <summary>Where one person's working time goes: by family and by leg. In a rotation everyone does every station once a round.</summary>
/// <param name="LeftSeconds">Seconds in which the left leg works; work on both sides counts for each, alternating work half and
/// half.</param>
public sealed record Breakdown(ImmutableArray<FamilyShare> Families, Seconds LeftSeconds, Seconds RightSeconds)
{
    /// <summary>Where the seconds of a class come from, span by span.</summary>
    public static Breakdown Of(ClassPlan plan, Timeline timeline)
    {
        var seconds = new SortedDictionary<Family, int>();
        var (left, right) = (0, 0);
        void Add(int block, int station, int part, Side side, int length)
        {
            if (plan.Moves.Find(plan.Blocks[block].Stations[station].Dose[part].Move)?.Family is { } family)
            {
                seconds[family] = seconds.GetValueOrDefault(family) + length;
            }

            var first = plan.Blocks[block].StartSideOf(plan.Blocks[block].Stations[station]) == Side.Left;
            left += side switch { Side.Right => 0, Side.Alternate => (length + (first ? 1 : 0)) / 2, _ => length };
            right += side switch { Side.Left => 0, Side.Alternate => (length + (first ? 0 : 1)) / 2, _ => length };
        }

        foreach (var span in timeline.Spans)
        {
            // Of two turns a person does one.
            if (span is { Kind: SpanKind.Work, Station: { } station, Part: { } part, Side: { } side, Turn: null or 0 })
            {
                Add(span.Block, station, part, side, span.Length().Value);
            }
        }

        foreach (var stay in timeline.Stays)
        {
            foreach (var span in stay.Spans)
            {
                if (span is { Kind: SpanKind.Work, Part: { } part, Side: { } side, Turn: null or 0 })
                {
                    Add(stay.Block, stay.Station, part, side, (span.End - span.Start).Value);
                }
            }
        }

        return new Breakdown(
            [.. seconds.Select(f => Share(plan, f.Key, f.Value))],
            new Seconds(left),
            new Seconds(right));
    }

    private static FamilyShare Share(ClassPlan plan, Family family, int seconds)
    {
        var counts = Counts.Of(plan, part => plan.Moves.Find(part.Move)?.Family == family);
        return new FamilyShare(family, new Seconds(seconds), counts.Left, counts.Right);
    }
}
