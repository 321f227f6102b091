using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>
/// Reads the kit of a move as it is written, such as "pair of dumbbells" or "low bench or step", into what a stock can be asked for.
/// </summary>
public static class KitWords
{
    /// <summary>What a stock holds, by the word for it.</summary>
    private static readonly Dictionary<string, KitItem> Items = new()
    {
        ["mat"] = KitItem.Mat,
        ["pad"] = KitItem.Pad,
        ["cushion"] = KitItem.Pad,
        ["chair"] = KitItem.Chair,
        ["box"] = KitItem.Box,
        ["step"] = KitItem.Step,
        ["bench"] = KitItem.Bench,
        ["dumbbell"] = KitItem.Dumbbell,
        ["hand weight"] = KitItem.Dumbbell,
        ["kettlebell"] = KitItem.Kettlebell,
        ["barbell"] = KitItem.Barbell,
        ["plate"] = KitItem.Plate,
        ["ball"] = KitItem.Ball,
        ["medicine ball"] = KitItem.Ball,
        ["bottle"] = KitItem.Bottle,
        ["band"] = KitItem.Band,
        ["mini-band"] = KitItem.Band,
        ["long band"] = KitItem.LongBand,
        ["wall"] = KitItem.Wall,
    };

    /// <summary>What is always at hand, or what no stock counts.</summary>
    private static readonly HashSet<string> Uncounted = [
        "line", "cloth", "slider", "stick", "towel", "block", "bar", "anchor", "doorway", "floor"];

    private static readonly string[] Adjectives = ["light", "heavy", "low", "high", "folded", "rolled", "sturdy", "a", "an", "one", "free"];

    /// <summary>The needs that a line of a move's kit stands for; none where it is always at hand or is no kit of a stock.</summary>
    public static ImmutableArray<Need> Read(string words) =>
        [.. words.Trim().ToLowerInvariant().Split(" and ").Select(Either).OfType<Need>()];

    /// <summary>Whether every word of it is known.</summary>
    public static bool IsKnown(string words) =>
        words.Trim()
            .ToLowerInvariant()
            .Split(" and ")
            .SelectMany(w => w.Split(" or "))
            .All(w => One(w) is not null || Uncounted.Contains(Bare(w).Noun));

    /// <summary>"A or b": the first, or instead the others; nothing where one of them is always at hand.</summary>
    private static Need? Either(string words)
    {
        var kinds = words.Split(" or ").Select(One).ToArray();
        return Array.Exists(kinds, k => k is null) ? null
            : kinds.Length == 1 ? kinds[0]
            : kinds[0]! with { Or = [.. kinds.Skip(1).Select(k => k!)] };
    }

    private static Need? One(string words)
    {
        var (count, noun) = Bare(words);
        return Items.TryGetValue(noun, out var item)
            ? new Need(item, item == KitItem.Wall ? 1 : count, Metres: item == KitItem.Wall ? Need.WallEach : null)
            : noun.EndsWith(" machine", StringComparison.Ordinal) ? new Need(KitItem.Machine, Name: noun[..^" machine".Length])
            : null;
    }

    private static (int Count, string Noun) Bare(string words)
    {
        var list = words.Trim().Split(' ', StringSplitOptions.RemoveEmptyEntries).ToList();
        var count = 1;
        if (list is ["pair", "of", ..])
        {
            (count, list) = (2, list[2..]);
        }
        else if (list is ["two", ..])
        {
            (count, list) = (2, list[1..]);
        }

        while (list.Count > 1 && Adjectives.Contains(list[0]))
        {
            list.RemoveAt(0);
        }

        var noun = string.Join(' ', list);
        if (!Items.ContainsKey(noun) && noun.EndsWith('s'))
        {
            // Several without a number are a pair.
            (noun, count) = (noun[..^1], 2);
        }

        return (count, noun);
    }
}
