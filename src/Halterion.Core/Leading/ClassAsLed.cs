using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Logbook;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Leading;

/// <summary>A span of a class, as planned and as it was.</summary>
/// <param name="Words">What it is.</param>
/// <param name="Planned">Whole seconds.</param>
/// <param name="Real">Whole seconds, pauses in it included.</param>
/// <param name="Note">"skipped", "12 s longer", "cut to catch up"; empty: as planned.</param>
public sealed record SpanAsLed(SpanKind Kind, string Words, int Planned, int Real, string Note);

/// <summary>A class as it was led, span by span.</summary>
/// <param name="Words">Such as "Led in 27 min 10 s; planned 26 min 40 s".</param>
/// <param name="Ways">The ways to catch up that were taken.</param>
public sealed record ClassAsLed(string Words, ImmutableArray<SpanAsLed> Spans, ImmutableArray<string> Ways)
{
    /// <summary>Less than this is how a tap and a clock are, in seconds. [M]</summary>
    private const int Slight = 3;

    /// <summary>How long each span took from its first moment to its last, in milliseconds.</summary>
    [JsonIgnore]
    public ImmutableArray<long> Took { get; init; } = [];

    /// <param name="now">Milliseconds since 1970 UTC.</param>
    public static ClassAsLed Of(ClassPlan plan, Timeline timeline, ImmutableArray<LeadCommand> commands, long now)
    {
        ImmutableArray<SceneTime> times = [.. timeline.Spans.Select(s => new SceneTime(s.End, s.Gated))];
        var took = TookOf(commands, times, now);
        var cut = LeadRecord.Planned(commands, times);
        var words = SpanWords.Of(plan, timeline);
        return new ClassAsLed(
            LeadRecord.Of(commands, times, now).Words,
            [
                .. timeline.Spans.Select((span, i) =>
                {
                    var (planned, real) = (span.Length().Value, (int)((took[i] + 500) / 1000));
                    return new SpanAsLed(span.Kind, words[i], planned, real, Note(planned, real, (int)(cut[i] / 1000)));
                }),
            ],
            LeadRecord.WaysTaken(commands))
        { Took = [.. took] };
    }

    /// <summary>
    /// The wall-clock time of each scene, pauses included: what the room really took for it. A pause counts for the scene it stands in.
    /// </summary>
    private static long[] TookOf(ImmutableArray<LeadCommand> commands, ImmutableArray<SceneTime> scenes, long now)
    {
        var took = LeadRecord.Ran(commands, scenes, now);
        var moving = commands.Where(c => c.Kind is not (LeadCommandKind.Note or LeadCommandKind.Lead)).ToArray();
        var state = LeadFold.Fold([], scenes);
        for (var i = 0; i < moving.Length; i++)
        {
            state = LeadFold.Next(state, moving[i], scenes);
            if (state.Phase == LeadPhase.Paused && i + 1 < moving.Length)
            {
                var scene = LeadFold.SceneAt(state.Position, scenes, state.Added);
                if (scene >= 0 && scene < took.Length)
                {
                    took[scene] += Math.Max(0, moving[i + 1].At - state.At);
                }
            }
        }

        return took;
    }

    private static string Note(int planned, int real, int cut) =>
        real == 0 && planned > 0 ? "skipped"
        : cut < planned && real <= cut + Slight ? $"cut by {new Seconds(planned - cut)} to catch up"
        : real - planned > Slight ? $"{new Seconds(real - planned)} longer"
        : planned - real > Slight ? $"{new Seconds(planned - real)} shorter"
        : "";
}

/// <summary>What a class as it was led says of how long things take: real seconds over brisk ones, by kind.</summary>
public static class RealPace
{
    /// <summary>Talk, as planned; and each kind of change-over by what takes longest in it.</summary>
    public static ImmutableSortedDictionary<string, decimal> Of(ClassPlan plan, Timeline timeline, ClassAsLed led)
    {
        var sums = new SortedDictionary<string, (decimal Real, decimal Brisk)>(StringComparer.Ordinal);
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            var span = timeline.Spans[i];
            if (led.Took[i] <= 0 || KindOf(plan, timeline, i) is not { } kind || kind.Brisk <= 0)
            {
                continue;
            }

            var (real, brisk) = sums.GetValueOrDefault(kind.Name);
            sums[kind.Name] = (real + led.Took[i] / 1000m, brisk + kind.Brisk);
        }

        return sums.ToImmutableSortedDictionary(s => s.Key, s => s.Value.Real / s.Value.Brisk, StringComparer.Ordinal);
    }

    private static (string Name, decimal Brisk)? KindOf(ClassPlan plan, Timeline timeline, int index)
    {
        var span = timeline.Spans[index];
        if (span.Kind == SpanKind.Talk)
        {
            return (LearntPace.Talk, span.Length().Value);
        }

        var block = plan.Blocks[span.Block];
        if (span is { Kind: SpanKind.Switch, Station: { } sided } && sided < block.Stations.Length)
        {
            // Where two take turns, the first switch of the second is their swap, and no change of sides.
            if (span.Turn is 1 && timeline.Spans[index - 1].Turn is not 1)
            {
                return null;
            }

            var kind = ChangeOver.SwitchKind(block.Stations[sided], plan.Moves);
            return (WordsOf<ChangeKind>.Of(kind), ChangeTimes.Brisk.At(kind));
        }

        if (span.Kind != SpanKind.Change)
        {
            return null;
        }

        var needs = ChangeOver.Of(block, plan.Moves, ChangeTimes.Brisk);
        var next = timeline.Spans.Skip(index + 1).FirstOrDefault(s => s.Kind == SpanKind.Work && s.Block == span.Block);
        var need = block.Shape == BlockShape.Rotation ? needs.MaxBy(n => n.Seconds.Value)
            : next?.Station is { } station && station < needs.Length ? needs[station] : null;
        return need is { Longest: { } longest } ? (WordsOf<ChangeKind>.Of(longest), need.Seconds.Value) : null;
    }
}
