using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>Numbers: reps as the school counts them, seconds where nothing is counted, and the count-in. They are never moved.</summary>
internal static class NumberCalls
{
    private const int CountIn = 3;
    private const int LastFive = 5;
    private const int LongGo = 40;
    private const int LongHold = 20;

    /// <summary>Slower reps are counted each.</summary>
    private const decimal SlowRep = 2;

    /// <summary>So many are too many to count each fifth.</summary>
    private const int ManyReps = 40;

    /// <summary>Words to be said of what is left of a timed go, with the seconds they begin before its end.</summary>
    private static readonly (int Left, int LeastLength, string Text, string Clip)[] Seconds =
    [
        (10, 20, "10 seconds to go", Clip.TenSeconds),
        (5, 10, "5 seconds to go", Clip.FiveSeconds),
    ];

    /// <param name="sidesChange">Sides change within it, which is said at half of it.</param>
    public static IEnumerable<CallWish> Of(Go go, ImmutableArray<Span> spans, bool sidesChange) =>
        [.. CountingIn(go, spans), .. go.IsCounted ? Counts(go) : Times(go, sidesChange)];

    private static IEnumerable<CallWish> CountingIn(Go go, ImmutableArray<Span> spans)
    {
        // What begins with a tap cannot be counted in.
        if (go.Index == 0 || go.Span.Gated || spans[go.Index - 1].Kind == SpanKind.Work)
        {
            yield break;
        }

        for (var left = CountIn; left >= 1; left--)
        {
            var at = go.Start - left;
            if (at > spans[go.Index - 1].Start.Value)
            {
                yield return Number(CallKind.CountIn, Order.LastNumbers, Written(left), at, go.Index, go.Index) with
                { Clips = Clip.Of(left), OverTalk = true };
            }
        }
    }

    private static IEnumerable<CallWish> Counts(Go go)
    {
        var part = go.Part!;
        var each = part.Kind == PartKind.Pulses ? 1 : part.RepSeconds;
        var reps = go.Span.Amount ?? 0;
        // What is below is announced as it begins, which is its first number where what is left is counted.
        var (first, from) = (true, NextCalls.IsBelow(go) && go.Count != Counting.Down
            ? go.Start + Call.SecondsFor(NextCalls.Below(go)) + CallDiary.Apart
            : go.Start);
        for (var rep = 1; rep <= reps; rep++)
        {
            // Up: as it is done; else what is left as it begins. What the bell cuts has no number.
            var done = go.Start + (rep * each);
            if (done > go.End)
            {
                yield break;
            }

            var number = go.Count == Counting.Up ? rep : reps - rep + 1;
            var isLast = reps - rep < LastFive;
            var at = go.Count == Counting.Up ? done : done - each;
            if (at < from || !IsSaid(go.Count, number, rep, reps, each, isLast))
            {
                continue;
            }

            var unit = Unit(part, number == 1);
            yield return Number(
                CallKind.Count, isLast || first ? Order.LastNumbers : Order.Number, Written(number) + (first ? unit : ""), at, go.Index,
                go.Index) with
            { Clips = Clip.Of(number) };
            first = false;
        }
    }

    /// <summary>" reps", " pulse".</summary>
    public static string Unit(Part part, bool isOne) => (part.Kind == PartKind.Pulses ? " pulse" : " rep") + (isOne ? "" : "s");

    private static bool IsSaid(Counting school, int number, int rep, int reps, decimal each, bool isLast) =>
        isLast
        || (school != Counting.Last5
            && (reps >= ManyReps ? number % 10 == 0 || number == (reps + 1) / 2
                : each >= SlowRep || rep == 1 || number % 5 == 0));

    private static IEnumerable<CallWish> Times(Go go, bool sidesChange)
    {
        if (go.Count == Counting.Off || go.Block.Shape == BlockShape.OwnPace)
        {
            yield break;
        }

        CallWish Say(string text, decimal at, int shift, params ImmutableArray<string> clips) =>
            new(CallKind.Time, Order.Time, [text], at, at, at + 5, go.Index, shift) { BegunBy = at, Clips = clips };
        var isLongHold = go.Part?.Kind == PartKind.Hold && go.Length > LongHold;
        if (go.Count == Counting.Last5 || isLongHold)
        {
            for (var left = LastFive; left >= 1 && left <= go.Length; left--)
            {
                yield return Number(
                    CallKind.Time, Order.LastNumbers, Written(left) + (left == LastFive ? " seconds" : ""), go.End - left, go.Index,
                    go.Index + 1) with
                { Clips = Clip.Of(left) };
            }
        }

        if (go.Count == Counting.Last5)
        {
            yield break;
        }

        if (go.Length >= LongGo && !sidesChange)
        {
            yield return Say("Halfway", go.Start + (go.Length / 2), go.Index, Clip.HalfWay);
        }

        if (isLongHold)
        {
            yield return Say("15 seconds to go", go.End - 15, go.Index + 1);
            yield break;
        }

        foreach (var (left, least, text, clip) in Seconds)
        {
            if (go.Length >= least)
            {
                yield return Say(text, go.End - left, go.Index + 1, clip);
            }
        }
    }

    private static CallWish Number(CallKind kind, int priority, string text, decimal at, int scene, int shift) =>
        new(kind, priority, [text], at, at, at + 5, scene, shift) { BegunBy = at, IsLone = true };

    private static string Written(int number) => number.ToString(CultureInfo.InvariantCulture);
}
