using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>The weights of a stock, as options are proposed with them.</summary>
public static class StockWeights
{
    /// <summary>Null where no stock is known.</summary>
    public static WeightsAtHand? Of(ImmutableArray<StockLine>? stock) => stock is not { } lines ? null : new WeightsAtHand(
    [
        .. lines.Where(l => l is { Kg: not null, Count: > 0 } && l.Condition != Condition.Out)
            .Select(l => (Found: Enum.TryParse<Implement>(l.Item.ToString(), out var implement), implement, Kg: l.Kg!.Value))
            .Where(l => l.Found).Select(l => (l.implement, l.Kg)),
    ]);
}
