using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>
/// One thing of form in a go, good for everybody: a cue of the move, the focus of the class in every third, the sentence of a fault in
/// a station's second round. Never a bare correction.
/// </summary>
internal sealed class FormCalls(ClassPlan plan)
{
    private const decimal ShortGo = 15;
    private const decimal LongGo = 60;
    private const decimal Every = 40;

    private readonly Dictionary<MoveId, int> told = [];
    private int number;
    private string last = "";

    /// <summary>Places the form calls of a go; those of earlier goes are placed.</summary>
    public void Place(Go go, CallDiary diary)
    {
        var isRotation = go.Span.Leg is not null;
        if (go.Length < ShortGo || go.Block.Shape == BlockShape.OwnPace || (isRotation && plan.Focus is not { Length: > 0 }))
        {
            return;
        }

        var third = Math.Round(go.Length / 3, 1);
        for (var (from, nth) = (go.Start + third, 0); nth == 0 || (go.Length > LongGo && from < go.End - 5); nth++)
        {
            var until = nth == 0 ? go.Start + (2 * third) : Math.Min(from + 10, go.End);
            var texts = isRotation ? [plan.Focus!] : Texts(go);
            var call = diary.Place(new CallWish(
                CallKind.Form, Order.Form, [.. texts.Where(t => t != last)], from, from, go.End, go.Index,
                go.Index)
            { BegunBy = until });
            if (call is not null)
            {
                Told(go, call.Text);
            }

            from = (call?.At ?? from) + Every;
        }
    }

    private void Told(Go go, string text)
    {
        last = text;
        number++;
        if (go.Move is { } move && text != plan.Focus)
        {
            told[move.Id] = told.GetValueOrDefault(move.Id) + 1;
        }
    }

    private ImmutableArray<string> Texts(Go go)
    {
        if (plan.Focus is { Length: > 0 } focus && number % 3 == 2)
        {
            return [focus];
        }

        if (go.Move is not { } move)
        {
            return [];
        }

        var times = told.GetValueOrDefault(move.Id);
        var cues = move.Cues is { IsDefault: false } own ? own : [];
        var turned = cues.IsEmpty ? cues : [.. cues[(times % cues.Length)..], .. cues[..(times % cues.Length)]];
        var fault = go.Span.Round == 1 && go.Block.Rounds > 2 ? move.Faults.Select(f => f.Say).OfType<string>().FirstOrDefault() : null;
        return fault is null ? turned : [fault.TrimEnd('.'), .. turned];
    }
}
