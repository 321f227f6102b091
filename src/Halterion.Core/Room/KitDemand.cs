using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>What a moment asks of one kind of kit, and what of it is short.</summary>
internal sealed record KitDemand(Need Kind, int Units, Shortage Shortage, KitPeak Peak)
{
    public static IEnumerable<KitDemand> Of(
        Moment moment, IReadOnlyList<Seat> seats, IReadOnlyList<int> taken, ImmutableArray<StockLine>? stock)
    {
        var needs = seats.Select((seat, i) => (seat.Sharing, seat.Offers[taken[i]].Needs)).ToArray();
        var kinds = needs.SelectMany(n => n.Needs).Select(n => n.Kind).Distinct().ToImmutableArray();
        var working = needs.Where(n => n.Sharing is not null)
            .GroupBy(n => n.Sharing!.Value)
            .ToDictionary(g => g.Key, g => (g.Count() + 1) / 2);
        var demand = kinds.Select(kind => needs
            .GroupBy(n => n.Sharing)
            .Sum(at => at.Key is { } shared
                ? Tally.Largest([.. at.SelectMany(n => n.Needs).Where(n => n.Kind == kind).Select(n => (n.Count, 1))], working[shared])
                : at.SelectMany(n => n.Needs).Where(n => n.Kind == kind).Sum(n => n.Count))).ToArray();
        var supply = stock is { } lines ? new Supply(kinds, lines) : null;
        var missing = supply?.Short(demand);
        for (var k = 0; k < kinds.Length; k++)
        {
            var (kind, asked) = (kinds[k], kinds[k] is { Item: KitItem.Wall, Or: null } ? demand[k] * Need.WallEach : demand[k]);
            var units = missing?[k] ?? 0;
            // What others took of the same lines is not there.
            var have = supply?.Have(k) is not { } all
                ? (decimal?)null
                : units > 0 && kind is not { Item: KitItem.Wall, Or: null } ? Math.Min(all, asked - units)
                : all;
            if (kind.BarKg is not null && units == 0)
            {
                // What goes on a bar is said where it does not go round.
                continue;
            }

            PlaceId? block = moment.Station is null ? moment.Block : null;
            var window = moment.Window;
            yield return new KitDemand(
                kind,
                units,
                new Shortage(
                    kind.Item,
                    asked,
                    have ?? 0,
                    moment.Station,
                    block,
                    window,
                    kind.BarKg ?? kind.Kg,
                    kind.HeightCm,
                    kind.Strength,
                    kind.Name,
                    kind.Or is [var or, ..] ? or.Item : null),
                new KitPeak(
                    kind.Item, asked, have, moment.Station, block, window, kind.BarKg ?? kind.Kg, kind.HeightCm, kind.Strength, kind.Metres,
                    kind.Name)
                { Kind = kind });
        }
    }
}
