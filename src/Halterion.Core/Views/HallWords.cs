using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.PlanFormat;
using Halterion.Core.Room;

namespace Halterion.Core.Views;

/// <summary>A room and its kit list in words, a line each: "what: value".</summary>
public static class HallWords
{
    /// <summary>A room in lines, for seeing what differs.</summary>
    public static IEnumerable<string> Lines(string name, HallFloor floor, ImmutableArray<StockLine> stock) =>
    [
        $"Name: {name}",
        string.Create(CultureInfo.InvariantCulture, $"Floor: {floor.WidthM:0.##} × {floor.LengthM:0.##} m"),
        .. floor.Fixtures.Select(f => string.Create(
            CultureInfo.InvariantCulture,
            $"On the floor: {f.Name ?? WordsOf<FixtureKind>.Of(f.Kind)}, {f.WidthM:0.##} × {f.LengthM:0.##} m, {f.X:0.##} m from the "
            + $"left, {f.Y:0.##} m from the front")),
        .. stock.Select(l => $"Kit: {NeedWords.Of(l.Item, l.Count, l.Kg, l.HeightCm, l.Strength, l.Metres, l.Name)}"),
    ];
}
