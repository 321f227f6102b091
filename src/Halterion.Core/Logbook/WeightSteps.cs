using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Logbook;

/// <summary>The weights that an option can be loaded with, in kilograms of each one.</summary>
/// <param name="Known">Ascending; null: no stock is known, so that any half kilogram is there.</param>
internal sealed record WeightSteps(ImmutableArray<decimal>? Known)
{
    /// <summary>A smaller step is none; a larger one a leap. ACSM, Med Sci Sports Exerc 41(3), 2009: 2–10 % (from memory).</summary>
    private const decimal Least = 0.02m;

    private const decimal Most = 0.10m;

    /// <summary>Without a stock a step is so much, to the next half kilogram.</summary>
    private const decimal Usual = 1.025m;

    /// <summary>A step back leaves so much of it at most.</summary>
    private const decimal Back = 0.9m;

    /// <summary>The heaviest bar that is built up from plates.</summary>
    private const decimal Heaviest = 300;

    /// <summary>Those of a stock, as many of each as the option holds.</summary>
    public static WeightSteps Of(ImmutableArray<StockLine>? stock, Load? load)
    {
        if (stock is not { } lines)
        {
            return new WeightSteps((ImmutableArray<decimal>?)null);
        }

        if (load?.Implement is not { } implement)
        {
            return new WeightSteps([]);
        }

        var there = lines.Where(l => l.Condition != Condition.Out && l is { Kg: not null, Count: > 0 }).ToArray();
        var own = there.Where(l => l.Item.ToString() == implement.ToString()).GroupBy(l => l.Kg!.Value)
            .Where(g => g.Sum(l => l.Count) >= (load.Count ?? 1)).Select(g => g.Key);
        return new WeightSteps(implement == Implement.Barbell ? Built(own, there) : [.. own.Order()]);
    }

    /// <summary>The smallest that is 2–10 % more; without a stock the usual one. Null where there is none.</summary>
    public decimal? Fine(decimal from) => Known is { } known
        ? known.Where(kg => kg >= from * (1 + Least) && kg <= from * (1 + Most)).Select(kg => (decimal?)kg).FirstOrDefault()
        : Math.Ceiling(from * Usual * 2) / 2;

    /// <summary>The next that is heavier, by however much; null: none is.</summary>
    public decimal? Above(decimal from) => Known is { } known
        ? known.Where(kg => kg > from).Select(kg => (decimal?)kg).FirstOrDefault()
        : Fine(from);

    /// <summary>The greatest that is under nine tenths; null: none is.</summary>
    public decimal? Below(decimal from)
    {
        var most = from * Back;
        if (Known is { } known)
        {
            return known.Where(kg => kg < most).Select(kg => (decimal?)kg).LastOrDefault();
        }

        var half = (Math.Ceiling(most * 2) - 1) / 2;
        return half > 0 ? half : null;
    }

    /// <summary>Bars with equal plates on both ends.</summary>
    private static ImmutableArray<decimal> Built(IEnumerable<decimal> bars, StockLine[] there)
    {
        var sums = new SortedSet<decimal> { 0 };
        foreach (var line in there.Where(l => l.Item == KitItem.Plate))
        {
            for (var pair = 0; pair < line.Count / 2; pair++)
            {
                var more = sums.Select(s => s + 2 * line.Kg!.Value).Where(s => s <= Heaviest).ToArray();
                if (more.All(sums.Contains))
                {
                    break;
                }

                sums.UnionWith(more);
            }
        }

        return [.. bars.SelectMany(bar => sums.Select(s => bar + s)).Where(kg => kg <= Heaviest).Distinct().Order()];
    }
}
