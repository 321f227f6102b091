using System.Globalization;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>Kit in words.</summary>
public static class NeedWords
{
    /// <summary>"2 × 6 kg dumbbell", "light band", "0.8 m of free wall", "kettlebell or dumbbell".</summary>
    public static string Of(Need need)
    {
        if (need.BarKg is { } bar)
        {
            return string.Create(CultureInfo.InvariantCulture, $"plates to {bar:0.##} kg");
        }

        var self = Of(need.Item, need.Count, need.Kg, need.HeightCm, need.Strength, need.Metres, need.Name);
        return need.Or is { IsEmpty: false } or
            ? $"{self} or {string.Join(" or ", or.Select(o => Of(o with { Count = Math.Max(o.Count, need.Count) })))}" : self;
    }

    /// <summary>The kind as it is counted: "6 kg dumbbells", "light bands", "metres of free wall".</summary>
    public static string Many(Need need) => need.Item == KitItem.Wall ? "metres of free wall"
        : need.BarKg is not null ? Of(need)
        : Plural(Of(need with { Count = 1, Or = null }));

    /// <summary>A thing as it is counted: "dumbbells", "long bands".</summary>
    public static string Many(KitItem item) => Plural(Named(item));

    /// <summary>A piece of kit in words: "6 kg dumbbell", "2 × 6 kg dumbbell", "3 mats".</summary>
    public static string Of(KitItem item, decimal count, decimal? kg, int? heightCm, BandStrength? strength, decimal? metres, string? name)
    {
        if (item == KitItem.Wall)
        {
            return string.Create(
                CultureInfo.InvariantCulture, $"{(metres ?? Need.WallEach) * (count == 0 ? 1 : count):0.#} m of free wall");
        }

        var noun = item switch
        {
            KitItem.LongBand => "long band",
            KitItem.Machine when name is not null => $"{name} machine",
            _ => item.ToString().ToLowerInvariant(),
        };
        var words = strength is { } s ? $"{s.ToString().ToLowerInvariant()} {noun}" : noun;
        var several = count > 1 ? string.Create(CultureInfo.InvariantCulture, $"{count:0.##} {Plural(words)}") : words;
        // Things of one size are counted in front of it: "2 × 8 kg kettlebell".
        var size = (kg is { } weight ? string.Create(CultureInfo.InvariantCulture, $"{weight:0.##} kg ") : "")
            + (heightCm is { } height ? string.Create(CultureInfo.InvariantCulture, $"{height} cm ") : "");
        return size.Length == 0 ? several
            : count > 1 ? string.Create(CultureInfo.InvariantCulture, $"{count:0.##} × {size}{words}")
            : size + words;
    }

    /// <summary>The bare word for a thing: "wall", "long band".</summary>
    public static string Named(KitItem item) => item == KitItem.LongBand ? "long band" : item.ToString().ToLowerInvariant();

    private static string Plural(string noun) =>
        noun.EndsWith('x') || noun.EndsWith("ch", StringComparison.Ordinal) ? $"{noun}es" : $"{noun}s";
}
