using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Leading.Calling;

/// <summary>Which side, what that means in the move, and the hand that holds the weight, before each one-sided go.</summary>
internal sealed class SideCalls(Timeline timeline, CallKit kit)
{
    /// <summary>A side that was begun so shortly before is not said again. leading.md, 3.</summary>
    private const decimal NotAgain = 5;

    /// <summary>A whole count-in and a breath before it.</summary>
    private const decimal CountIn = 3.4m;

    public IEnumerable<CallWish> Of(Go go)
    {
        if (go.Span.Leg is not null)
        {
            return Halfway(go);
        }

        var contiguous = go.Before is { } before && before.End == go.Start && before.Station?.Id == go.Station?.Id
            && before.OneSide == go.OneSide;
        return go.OneSide is not { } side || contiguous ? [] : [Before(go, side)];
    }

    private CallWish Before(Go go, Side side)
    {
        var words = PlanWords.Of(side, go.Move);
        var (hand, brief) = kit.HandOf(go, side);
        var isSwitch = go.Follows == Follows.Side
            || (go.Follows == Follows.StringSide && timeline.Spans[go.Index - 1].Kind == SpanKind.Switch);
        string Said(string more) => isSwitch ? $"Switch: {words}{more}" : words.Capital() + more;
        ImmutableArray<string> texts = hand.Length == 0
            ? [Said(""), words.Capital()]
            : [Said(", " + hand), Said(", " + brief), Said(""), words.Capital()];

        // In the gap before the count-in; in a short one instead of it, then with less of the hand; last of all in the go before.
        var seconds = Call.SecondsFor(texts[0]);
        var until = go.Start > 0 ? go.Start : seconds;
        var room = until - go.FreeFrom;
        var best = room >= seconds + CountIn ? until - CountIn - seconds : go.FreeFrom;
        var before = new CallWish(
            CallKind.Side, Order.Side, texts, Math.Max(go.Before?.Start ?? 0, Math.Max(0, go.FreeFrom - 15)), go.FreeFrom - seconds,
            go.Gap > 0 ? go.FreeFrom : until, go.Index, go.Index)
        { OverTalk = true, Clips = isSwitch ? [Clip.Switch, .. Clip.Of(side)] : Clip.Of(side) };
        return go.Gap > 0 ? before with { From = Math.Max(go.FreeFrom, until - 15), Best = best, Until = until, Else = before } : before;
    }

    /// <summary>In a rotation the stations differ: whoever has sides changes them.</summary>
    private IEnumerable<CallWish> Halfway(Go go)
    {
        if (timeline.SideChange(go.Span.Block, go.Span.Round!.Value) is { } change)
        {
            var at = go.Start + change.Value;
            yield return new CallWish(
                CallKind.Side, Order.Side, ["Halfway: other side, if yours has sides", "Halfway: other side"], at - 3, at - 2.8m, at + 2,
                go.Index, go.Index)
            { Clips = [Clip.Switch] };
        }
    }

    /// <summary>Whether a side needs no call of its own: one begun a moment ago, or what is next, has named it.</summary>
    public static bool IsKnown(CallWish wish, IEnumerable<Call> said) => said.Any(c =>
        c.Kind is CallKind.Next && c.Scene == wish.Scene && Math.Abs(c.At - wish.Best) < NotAgain && IsNamedBy(wish, c.Text));

    /// <summary>A text says all of a side: also the hand, where one holds the weight.</summary>
    public static bool IsNamedBy(CallWish side, string text) => text.Contains(side.Texts[0], StringComparison.OrdinalIgnoreCase);
}
