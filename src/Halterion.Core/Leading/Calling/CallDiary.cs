using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Leading.Calling;

/// <summary>A call that is wanted: what it may say, best first, and when.</summary>
/// <param name="From">Not begun before, in seconds.</param>
/// <param name="Best">Begun then, if there is room.</param>
/// <param name="Until">Ended by then.</param>
/// <param name="Fresh">None of its texts that was said last time by a call of its kind.</param>
internal sealed record CallWish(CallKind Kind, int Priority, ImmutableArray<string> Texts, decimal From, decimal Best, decimal Until,
    int Scene, int Shift, bool Fresh = false)
{
    /// <summary>Begun by then even where <see cref="Until"/> leaves more.</summary>
    public decimal? BegunBy { get; init; }

    /// <summary>Recorded words that say the same.</summary>
    public ImmutableArray<string> Clips { get; init; } = [];
}

/// <summary>Finds room for calls, the most important first. Two are never said at once.</summary>
internal static class CallDiary
{
    private const decimal Step = 0.1m;

    public static ImmutableArray<Call> Place(IEnumerable<CallWish> wishes)
    {
        var taken = new SortedList<decimal, Call>();
        foreach (var wish in wishes.OrderByDescending(w => w.Priority).ThenBy(w => w.Best))
        {
            var last = wish.Fresh ? taken.Values.LastOrDefault(c => c.Kind == wish.Kind && c.At < wish.From)?.Text : null;
            foreach (var text in wish.Texts)
            {
                if (text.Length > 0 && text != last && Room(taken, wish, Call.SecondsFor(text)) is { } at)
                {
                    taken.Add(at,
                        new Call(at, wish.Kind, text, Call.SecondsFor(text), wish.Priority, wish.Scene, wish.Shift) { Clips = wish.Clips });
                    break;
                }
            }
        }

        return [.. taken.Values];
    }

    /// <summary>The moment nearest to the best one, earlier ones first, at which it can be said.</summary>
    private static decimal? Room(SortedList<decimal, Call> taken, CallWish wish, decimal seconds)
    {
        var latest = Math.Min(wish.Until - seconds, wish.BegunBy ?? decimal.MaxValue);
        var best = Math.Min(wish.Best, latest);
        for (var at = best; at >= wish.From; at -= Step)
        {
            if (IsFree(taken, at, at + seconds))
            {
                return at;
            }
        }

        for (var at = Math.Max(wish.From, best + Step); at <= latest; at += Step)
        {
            if (IsFree(taken, at, at + seconds))
            {
                return at;
            }
        }

        return null;
    }

    private static bool IsFree(SortedList<decimal, Call> taken, decimal from, decimal until)
    {
        var (low, high) = (0, taken.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            (low, high) = taken.Keys[middle] < until ? (middle + 1, high) : (low, middle);
        }

        return low == 0 || taken.Values[low - 1].Ends <= from;
    }
}
