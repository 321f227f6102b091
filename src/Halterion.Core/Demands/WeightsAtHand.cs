using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>The weights that a class has, so that none is proposed that nobody could pick up; kilograms of each one.</summary>
/// <param name="Lines">By implement; what is not listed nothing is known of.</param>
public sealed record WeightsAtHand(ImmutableArray<(Implement Implement, decimal Kg)> Lines)
{
    /// <summary>Weights as they are usually made, where nothing is known of a class's own. Common practice, no source.</summary>
    private static readonly ImmutableArray<decimal> Made = [
        1, 2, 3, 4, 5, 6, 8, 10, 12, 14, 16, 18, 20, 24, 28, 32, 36, 40, 45, 50, 60, 70, 80, 90, 100];

    /// <summary>The nearest to a wanted weight on one side of another; null where there is none.</summary>
    /// <param name="limit">Strictly below it, or above it; null: either.</param>
    public static decimal? Nearest(WeightsAtHand? known, Implement implement, decimal wanted, decimal? limit, bool below)
    {
        var own = known?.Lines.Where(l => l.Implement == implement).Select(l => l.Kg).Distinct().ToArray() ?? [];
        return (own.Length > 0 ? own : Made.Append(wanted))
            .Where(kg => limit is not { } edge || (below ? kg < edge : kg > edge))
            .OrderBy(kg => Math.Abs(kg - wanted)).ThenBy(kg => kg)
            .Select(kg => (decimal?)kg).FirstOrDefault();
    }
}
