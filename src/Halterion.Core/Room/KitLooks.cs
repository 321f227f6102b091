using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>A look before use.</summary>
/// <param name="Key">Stable, to be ticked off.</param>
public sealed record KitLook(string Key, string Words);

/// <summary>
/// What is looked at before kit is used. Common practice, no source; the maker's own words and the rules of the house come first.
/// </summary>
public static class KitLooks
{
    private static readonly Dictionary<KitItem, string> Words = new()
    {
        [KitItem.Chair] = "Chairs: no wobble; against a wall or on a mat so they cannot slide.",
        [KitItem.Box] = "Boxes: level; none tips when you press one edge.",
        [KitItem.Step] = "Steps: level, feet clicked in, top dry.",
        [KitItem.Bench] = "Benches: none slides or tips; the edge is padded.",
        [KitItem.Dumbbell] = "Dumbbells: heads tight, handles dry.",
        [KitItem.Kettlebell] = "Kettlebells: handles dry and smooth.",
        [KitItem.Barbell] = "Barbells: collars on, room behind to step back.",
        [KitItem.Plate] = "Plates: collars on when they are on a bar.",
        [KitItem.Band] = "Bands: stretch and look for tears.",
        [KitItem.LongBand] = "Long bands: no tears, and the anchor holds a hard pull.",
        [KitItem.Mat] = "Mats: flat, none slides.",
        [KitItem.Wall] = "Wall: dry, floor dry, nothing hanging loose.",
        [KitItem.Machine] = "Machines: pin in, seat locked, cables undamaged.",
        [KitItem.Ball] = "Balls: whole and dry.",
        [KitItem.Bottle] = "Bottles: tops on tight.",
    };

    /// <summary>The looks for the kit in use, and one for what is makeshift or to be checked.</summary>
    public static ImmutableArray<KitLook> For(IEnumerable<KitItem> used, IEnumerable<StockLine> stock)
    {
        var items = used.Distinct().Order().ToArray();
        var looks = items.Where(Words.ContainsKey).Select(i => new KitLook(PlanFormat.WordsOf<KitItem>.Of(i), Words[i]));
        var lines = stock.Where(l => items.Contains(l.Item)).ToArray();
        static string Named(StockLine l) => Capitals.Capital(NeedWords.Of(l.Item, 1, l.Kg, l.HeightCm, l.Strength, null, l.Name));
        var checks = lines.Where(l => l.Condition == Condition.Check)
            .Select(l => new KitLook($"check-{Key(l)}", $"{Named(l)}: marked “check first”."));
        var makeshift = lines.Where(l => l.StandIn).Select(l => new KitLook($"stand-in-{Key(l)}", $"{Named(l)}: "
            + $"stand-in; must not break or roll."));
        return [.. looks.Concat(checks).Concat(makeshift).DistinctBy(l => l.Key)];
    }

    private static string Key(StockLine line) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture,
            $"{PlanFormat.WordsOf<KitItem>.Of(line.Item)}-{line.Kg}{line.HeightCm}{line.Strength}{line.Name}");
}
