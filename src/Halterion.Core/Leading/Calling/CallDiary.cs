using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>A call that is wanted: what it may say, best first, and when.</summary>
/// <param name="From">Not begun before, in seconds.</param>
/// <param name="Best">Begun then, if there is room.</param>
/// <param name="Until">Ended by then.</param>
internal sealed record CallWish(CallKind Kind, int Priority, ImmutableArray<string> Texts, decimal From, decimal Best, decimal Until,
    int Scene, int Shift)
{
    /// <summary>Begun by then even where <see cref="Until"/> leaves more.</summary>
    public decimal? BegunBy { get; init; }

    /// <summary>What is tried where this has no room.</summary>
    public CallWish? Else { get; init; }

    /// <summary>Recorded words that say the same.</summary>
    public ImmutableArray<string> Clips { get; init; } = [];

    /// <summary>A number alone: it must not be taken for a part of the sentence before it.</summary>
    public bool IsLone { get; init; }

    /// <summary>It may be said where the instructor talks or shows.</summary>
    public bool OverTalk { get; init; }
}

/// <summary>
/// Finds room for calls, the most important first. Two are never said at once; none begins just before a bell; a number stands apart
/// from sentences; while people work there is room to hear the room.
/// </summary>
internal sealed class CallDiary
{
    private const decimal Step = 0.1m;

    /// <summary>Nothing begins so shortly before a bell, and no number so shortly behind a sentence. leading.md, 9.</summary>
    public const decimal Apart = 0.4m;

    /// <summary>In so many seconds of work at most so many are spoken, numbers aside. leading.md, 9.</summary>
    private const decimal Window = 60;
    private const decimal MostSpoken = 20;

    private readonly SortedList<decimal, (Call Call, bool IsLone)> taken = [];
    private readonly decimal[] bells;
    private readonly (decimal Start, decimal End)[] talks;
    private readonly (decimal Start, decimal End)[] work;

    public CallDiary(Timeline timeline)
    {
        var spans = timeline.Spans;
        (decimal Start, decimal End)[] Of(SpanKind kind) =>
            [.. spans.Where(s => s.Kind == kind).Select(s => ((decimal)s.Start.Value, (decimal)s.End.Value))];
        (talks, work) = (Of(SpanKind.Talk), Of(SpanKind.Work));
        bells = [.. BellsOf(timeline)];
    }

    /// <summary>Where work begins after, or ends before, what is not work, and between two stations.</summary>
    public static IEnumerable<decimal> BellsOf(Timeline timeline)
    {
        var spans = timeline.Spans;
        for (var i = 0; i <= spans.Length; i++)
        {
            var (before, after) = (i > 0 ? spans[i - 1] : null, i < spans.Length ? spans[i] : null);
            var works = (Before: before?.Kind == SpanKind.Work, After: after?.Kind == SpanKind.Work);
            if (works.Before != works.After
                || (works.Before && (before!.Block, before.Station, before.Leg) != (after!.Block, after.Station, after.Leg)))
            {
                yield return (after?.Start ?? before!.End).Value;
            }
        }
    }

    public ImmutableArray<Call> Calls => [.. taken.Values.Select(t => t.Call)];

    /// <summary>Says the first of a wish's texts that has room; null: none has.</summary>
    public Call? Place(CallWish wish)
    {
        foreach (var text in wish.Texts)
        {
            if (text.Length > 0 && Room(wish, Call.SecondsFor(text)) is { } at)
            {
                var call = new Call(at, wish.Kind, text, Call.SecondsFor(text), wish.Priority, wish.Scene, wish.Shift)
                { Clips = wish.Clips };
                taken.Add(at, (call, wish.IsLone));
                return call;
            }
        }

        return wish.Else is { } other ? Place(other) : null;
    }

    /// <summary>Says more of a call, where there is room for it.</summary>
    public void Lengthen(Call call, string text)
    {
        var at = taken.IndexOfKey(call.At);
        var longer = call with { Text = text, Seconds = Call.SecondsFor(text) };
        if (at == taken.Count - 1 || longer.Ends <= taken.Keys[at + 1])
        {
            taken[call.At] = (longer, taken[call.At].IsLone);
        }
    }

    /// <summary>The calls that begin in a stretch of time.</summary>
    public IEnumerable<Call> Between(decimal from, decimal until) =>
        taken.Values.Select(t => t.Call).Where(c => c.At >= from && c.At < until);

    /// <summary>The moment nearest to the best one, earlier ones first, at which it can be said.</summary>
    private decimal? Room(CallWish wish, decimal seconds)
    {
        var latest = Math.Min(wish.Until - seconds, wish.BegunBy ?? decimal.MaxValue);
        var best = Math.Min(wish.Best, latest);
        for (var at = best; at >= wish.From; at -= Step)
        {
            if (IsFree(wish, at, seconds))
            {
                return at;
            }
        }

        for (var at = Math.Max(wish.From, best + Step); at <= latest; at += Step)
        {
            if (IsFree(wish, at, seconds))
            {
                return at;
            }
        }

        return null;
    }

    private bool IsFree(CallWish wish, decimal at, decimal seconds)
    {
        var (low, high) = (0, taken.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            (low, high) = taken.Keys[middle] < at + seconds ? (middle + 1, high) : (low, middle);
        }

        // A number stands apart from the sentence before it, whichever of the two was first to be given its room.
        if (low > 0 && taken.Values[low - 1] is var earlier
            && earlier.Call.Ends + (wish.IsLone && !earlier.IsLone ? Apart : 0) > at)
        {
            return false;
        }

        if (low < taken.Count && taken.Values[low] is var later
            && at + seconds + (later.IsLone && !wish.IsLone ? Apart : 0) > later.Call.At)
        {
            return false;
        }

        return (wish.IsLone || !IsAcrossABell(at, seconds))
            && (wish.OverTalk || !Overlaps(talks, at, at + seconds))
            && (wish.IsLone || !Overlaps(work, at, at + seconds) || LeavesRoom(at, seconds));
    }

    /// <summary>Begun just before a bell, or so that the bell rings into it.</summary>
    private bool IsAcrossABell(decimal at, decimal seconds)
    {
        var next = Array.BinarySearch(bells, at);
        next = next >= 0 ? next + 1 : ~next;
        return next < bells.Length && bells[next] - at < Math.Max(Apart, seconds);
    }

    private static bool Overlaps((decimal Start, decimal End)[] stretches, decimal from, decimal until) =>
        Array.Exists(stretches, s => s.Start < until && from < s.End);

    /// <summary>Whether in every minute of work around it enough is left unspoken.</summary>
    private bool LeavesRoom(decimal at, decimal seconds)
    {
        var near = taken.Values.Where(t => !t.IsLone && t.Call.At > at - Window && t.Call.At < at + Window
            && Overlaps(work, t.Call.At, t.Call.Ends)).Select(t => t.Call).ToArray();
        return near.Select(c => c.At).Append(at).Where(start => start <= at).All(start =>
            seconds + near.Where(c => c.At >= start && c.At < start + Window).Sum(c => c.Seconds) <= MostSpoken || at >= start + Window);
    }
}
