using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading;

/// <summary>A signal to the class.</summary>
public enum CueKind
{
    /// <summary>One of the three beats before a start.</summary>
    Count,
    /// <summary>Work begins.</summary>
    Start,
    /// <summary>The sides change.</summary>
    Switch,

    /// <summary>Ten seconds of a long go are left.</summary>
    Warning,
    /// <summary>Work ends.</summary>
    End,
    /// <summary>The class ends.</summary>
    Finish,
}

/// <summary>A signal and when it sounds.</summary>
/// <param name="At">Seconds from the start of the class.</param>
/// <param name="Shift">How many scenes, from the first, move it when seconds are added to them: a start moves with what came
/// before it, a count or an end also with its own scene.</param>
/// <param name="Count">3, 2 or 1 on a beat; 10 on a warning.</param>
/// <param name="Scene">The scene that it is about: where that is left out, it does not sound. Null: not known, as in scripts of
/// old.</param>
public sealed record Cue(Seconds At, CueKind Kind, int Shift, int? Count = null, int? Scene = null)
{
    private const int CountIn = 3;
    private const int WarnAt = 10;

    /// <summary>Goes shorter than this need no warning. Common practice, no source.</summary>
    private const int LongGo = 30;

    /// <summary>The cues of a timeline, in order (handbook, section 3, "Calls": count-in 3, warning at 10 s).</summary>
    public static ImmutableArray<Cue> ListFor(Timeline timeline)
    {
        var spans = timeline.Spans;
        var cues = ImmutableArray.CreateBuilder<Cue>();
        for (var i = 0; i < spans.Length; i++)
        {
            var span = spans[i];
            var before = i > 0 ? spans[i - 1] : null;
            var after = i + 1 < spans.Length ? spans[i + 1] : null;
            if (span.Kind == SpanKind.Switch)
            {
                cues.Add(new Cue(span.Start, CueKind.Switch, i, Scene: i));
            }
            else if (span.Kind == SpanKind.Work)
            {
                cues.Add(
                    new Cue(span.Start, before is { Kind: SpanKind.Work } && before.Side != span.Side ? CueKind.Switch : CueKind.Start, i,
                        Scene: i));
                if (span.Leg is not null && timeline.SideChange(span.Block, span.Round!.Value) is { } change)
                {
                    cues.Add(new Cue(span.Start + change, CueKind.Switch, i, Scene: i));
                }

                if (span.Length().Value >= LongGo)
                {
                    cues.Add(new Cue(span.End - new Seconds(WarnAt), CueKind.Warning, i + 1, WarnAt, i));
                }

                if (after is not null && after.Kind is not (SpanKind.Work or SpanKind.Switch))
                {
                    cues.Add(new Cue(span.End, CueKind.End, i + 1, Scene: i));
                }
            }

            // What begins with a tap cannot be counted in.
            if (after is { Kind: SpanKind.Work, Gated: false } && span.Kind != SpanKind.Work)
            {
                CountInto(cues, span, i + 1);
            }
        }

        if (!spans.IsEmpty)
        {
            cues.Add(new Cue(spans[^1].End, CueKind.Finish, spans.Length));
        }

        return cues.ToImmutable();
    }

    /// <summary>Beats that fall inside the span before the start; a short switch has room for fewer.</summary>
    private static void CountInto(ImmutableArray<Cue>.Builder cues, Span span, int shift)
    {
        for (var left = CountIn; left >= 1; left--)
        {
            var at = span.End - new Seconds(left);
            if (at > span.Start)
            {
                cues.Add(new Cue(at, CueKind.Count, shift, left, shift));
            }
        }
    }
}
