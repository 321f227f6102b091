using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>A kind of thing that a room has.</summary>
public enum KitItem
{
    /// <summary>A mat.</summary>
    Mat,
    /// <summary>A pad for a knee.</summary>
    Pad,
    /// <summary>A chair.</summary>
    Chair,
    /// <summary>A box to step or jump on.</summary>
    Box,
    /// <summary>A low step.</summary>
    Step,
    /// <summary>A bench.</summary>
    Bench,
    /// <summary>A weight for one hand.</summary>
    Dumbbell,
    /// <summary>A weight with a handle on top.</summary>
    Kettlebell,
    /// <summary>A bar.</summary>
    Barbell,
    /// <summary>A plate of a bar.</summary>
    Plate,
    /// <summary>A ball.</summary>
    Ball,
    /// <summary>A bottle of water.</summary>
    Bottle,
    /// <summary>A short loop band.</summary>
    Band,
    /// <summary>A long loop band.</summary>
    LongBand,
    /// <summary>A place at a wall.</summary>
    Wall,
    /// <summary>A machine.</summary>
    Machine,
}

/// <summary>The state of a piece of kit.</summary>
public enum Condition
{
    /// <summary>It can be used.</summary>
    Good,

    /// <summary>To be looked at before it is used.</summary>
    Check,

    /// <summary>Not in stock.</summary>
    Out,
}

/// <summary>One line of a stock.</summary>
/// <param name="Count">How many; dumbbells are counted singly.</param>
/// <param name="Kg">Of one.</param>
/// <param name="Metres">Of free wall.</param>
/// <param name="Name">Of a machine.</param>
/// <param name="StandIn">Makeshift, such as a filled bottle.</param>
/// <param name="Place">Where it is kept.</param>
public sealed record StockLine(
    KitItem Item,
    int Count,
    decimal? Kg = null,
    int? HeightCm = null,
    BandStrength? Strength = null,
    decimal? Metres = null,
    string? Name = null,
    bool StandIn = false,
    Condition Condition = Condition.Good,
    string? Place = null);

/// <summary>So many of something that an option needs, or instead what stands in <paramref name="Or"/>.</summary>
/// <param name="Kg">Of one; null: any.</param>
/// <param name="Metres">Of wall.</param>
/// <param name="BarKg">Plates for a bar that weighs so much with them: equal pairs that make up the rest, exactly.</param>
public sealed record Need(
    KitItem Item,
    int Count = 1,
    decimal? Kg = null,
    int? HeightCm = null,
    BandStrength? Strength = null,
    decimal? Metres = null,
    string? Name = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] ImmutableArray<Need>? Or = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] decimal? BarKg = null)
{
    /// <summary>Wall that one person takes, in metres.</summary>
    public const decimal WallEach = 0.8m;

    /// <summary>A box or a step serves whoever wants its height, within so many centimetres.</summary>
    private const int HeightSlack = 5;

    /// <summary>What it is, without how many: needs of the same kind add up.</summary>
    [JsonIgnore]
    public Need Kind => this with { Count = 1, Or = Or is { } or ? [.. or.Select(o => o.Kind)] : null };

    /// <inheritdoc/>
    public bool Equals(Need? other) =>
        other is not null
            && (Item, Count, Kg, HeightCm, Strength, Metres, Name, BarKg) == (
                other.Item, other.Count, other.Kg, other.HeightCm, other.Strength,
                other.Metres, other.Name, other.BarKg)
        && (Or ?? []).SequenceEqual(other.Or ?? []);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Item, Count, Kg, HeightCm, Strength, Name, BarKg);

    /// <summary>Whether a line of the stock serves it.</summary>
    public bool IsServedBy(StockLine line) =>
        line.Condition != Condition.Out && (ServedBy(line) || (Or ?? []).Any(o => o.IsServedBy(line)));

    private bool ServedBy(StockLine line) => Item switch
    {
        KitItem.Box or KitItem.Step => line.Item is KitItem.Box or KitItem.Step
            && (HeightCm is { } wanted ? line.HeightCm is { } height && Math.Abs(height - wanted) <= HeightSlack : line.Item == Item),
        _ => line.Item == Item
            && (Kg is null || line.Kg == Kg)
            && (HeightCm is null || line.HeightCm is null || Math.Abs(line.HeightCm.Value - HeightCm.Value) <= HeightSlack)
            && (Strength is null || line.Strength == Strength)
            && (Name is null || line.Name is null || string.Equals(line.Name, Name, StringComparison.OrdinalIgnoreCase)),
    };
}
