using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>Reads a stock as data.</summary>
public static class KitReader
{
    /// <summary>The most lines that a list of kit may have.</summary>
    public const int MostLines = 200;

    /// <summary>One line. Each item takes the size that it has, and no other.</summary>
    public static StockLine? Line(Fields fields)
    {
        var item = fields.Choice<KitItem>("item", required: true);
        var count = fields.Whole("count", 0, 1000, required: true);
        var line = new StockLine(
            item ?? KitItem.Mat,
            count ?? 0,
            fields.Decimal("kg", 0.25m, 300),
            fields.Whole("heightCm", 1, 120),
            fields.Choice("strength", ["light", "medium", "strong"]) is { } word ? WordsOf<BandStrength>.All[word] : null,
            fields.Decimal("metres", 0.1m, 500),
            fields.Text("name", 1, 120),
            fields.Flag("standIn") ?? false,
            fields.Choice<Condition>("condition") ?? Condition.Good,
            fields.Text("place", 1, 120));
        if (item is { } what)
        {
            Only(
                "kg", what is KitItem.Dumbbell or KitItem.Kettlebell or KitItem.Plate or KitItem.Ball or KitItem.Bottle or KitItem.Barbell);
            Only("heightCm", what is KitItem.Box or KitItem.Step or KitItem.Bench or KitItem.Chair);
            Only("strength", what is KitItem.Band or KitItem.LongBand);
            Only("metres", what == KitItem.Wall);
            if (what == KitItem.Wall && line.Metres is null)
            {
                fields.Missing<decimal>("metres", "metres of free wall, 0.1–500");
            }
        }

        return item is null || count is null ? null : line;

        void Only(string size, bool has)
        {
            if (!has)
            {
                fields.Refuse($"{WordsOf<KitItem>.Of(item!.Value)} does not have this measure", size);
            }
        }
    }
}
