using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>What has been taken of the kit that may run out, as a text that two equal states share: a letter for each thing counted.</summary>
internal sealed class Tally
{
    /// <summary>A thing counted: units of a kind; or, where a station is shared, people who need so many of it.</summary>
    private readonly record struct Slot(int Kind, int? Sharing, int Each);

    private readonly Supply supply;
    private readonly List<Slot> slots = [];
    private readonly bool[] scarce;
    private readonly Dictionary<int, int> working;
    private readonly (int Slot, int Units)[][][] loads;
    private readonly int[][] worthwhile;
    private readonly Dictionary<string, int> units = new(StringComparer.Ordinal);

    public Tally(IReadOnlyList<Seat> seats, ImmutableArray<StockLine> stock)
    {
        Seats = seats;
        supply = new Supply([.. seats.SelectMany(s => s.Offers).SelectMany(o => o.Needs).Select(n => n.Kind).Distinct()], stock);
        working = seats.Where(s => s.Sharing is not null).GroupBy(s => s.Sharing!.Value).ToDictionary(g => g.Key, g => (g.Count() + 1) / 2);
        scarce = Scarce();
        loads = [.. seats.Select(s => s.Offers.Select(o => Load(o, s.Sharing)).ToArray())];
        worthwhile = [.. seats.Select((s, i) => Worth(s, loads[i]))];
    }

    public IReadOnlyList<Seat> Seats { get; }

    /// <summary>The offers of a seat that are not beaten by another which costs and takes no more.</summary>
    public int[] Worthwhile(int seat) => worthwhile[seat];

    /// <summary>Seats by the scarce kit that they may share; those that need none are in no part.</summary>
    public IEnumerable<int[]> Parts()
    {
        var group = new Dictionary<int, int>();
        int Root(int c) => group.TryGetValue(c, out var up) && up != c ? Root(up) : c;
        var touched = Enumerable.Range(0, Seats.Count).Select(seat => loads[seat].SelectMany(o => o).Select(l => supply.Components[slots[l.Slot].Kind]).Distinct().ToArray()).ToArray();
        foreach (var components in touched)
        {
            foreach (var c in components.Skip(1))
            {
                group[Root(c)] = Root(components[0]);
            }
        }

        return Enumerable.Range(0, Seats.Count).Where(seat => touched[seat].Length > 0).GroupBy(seat => Root(touched[seat][0])).Select(g => g.ToArray());
    }

    /// <summary>Nothing taken.</summary>
    public string Start(int[] part) => part.Length == 0 ? "" : new string('\0', slots.Count);

    public string Add(string state, int seat, int offer)
    {
        var load = loads[seat][offer];
        if (load.Length == 0)
        {
            return state;
        }

        return string.Create(state.Length, (state, load), static (text, from) =>
        {
            from.state.CopyTo(text);
            foreach (var (slot, units) in from.load)
            {
                text[slot] += (char)units;
            }
        });
    }

    /// <summary>Units short once that much is taken.</summary>
    public int Units(string state)
    {
        if (units.TryGetValue(state, out var known))
        {
            return known;
        }

        var demand = new int[supply.Kinds.Length];
        for (var i = 0; i < slots.Count; i++)
        {
            if (slots[i].Sharing is null)
            {
                demand[slots[i].Kind] += state[i];
            }
        }

        foreach (var shared in Enumerable.Range(0, slots.Count).Where(i => slots[i].Sharing is not null && state[i] > 0).GroupBy(i => (slots[i].Sharing, slots[i].Kind)))
        {
            demand[shared.Key.Kind] += Largest([.. shared.Select(i => (slots[i].Each, (int)state[i]))], working[shared.Key.Sharing!.Value]);
        }

        return units[state] = supply.Units(demand);
    }

    /// <summary>The sum of the so many largest needs.</summary>
    internal static int Largest((int Each, int People)[] needs, int many)
    {
        var sum = 0;
        foreach (var (each, people) in needs.OrderByDescending(n => n.Each))
        {
            var who = Math.Min(people, many);
            sum += who * each;
            many -= who;
        }

        return sum;
    }

    /// <summary>Kinds that could run out if everybody took the most; the others need no counting.</summary>
    private bool[] Scarce()
    {
        var most = new int[supply.Kinds.Length];
        for (var k = 0; k < most.Length; k++)
        {
            most[k] = Seats.Sum(s => s.Offers.Max(o => o.Needs.Where(n => n.Kind == supply.Kinds[k]).Sum(n => n.Count)));
        }

        var missing = supply.Short(most);
        var components = Enumerable.Range(0, most.Length).Where(k => missing[k] > 0).Select(k => supply.Components[k]).ToHashSet();
        return [.. supply.Components.Select(components.Contains)];
    }

    private (int Slot, int Units)[] Load(Offer offer, int? sharing)
    {
        var load = new List<(int, int)>();
        foreach (var need in offer.Needs)
        {
            var kind = supply.Kinds.IndexOf(need.Kind);
            if (!scarce[kind])
            {
                continue;
            }

            var slot = new Slot(kind, sharing, sharing is null ? 1 : need.Count);
            if (!slots.Contains(slot))
            {
                slots.Add(slot);
            }

            load.Add((slots.IndexOf(slot), sharing is null ? need.Count : 1));
        }

        return [.. load];
    }

    private static int[] Worth(Seat seat, (int Slot, int Units)[][] loads)
    {
        bool NoMore(int a, int b) => loads[a].All(l => loads[b].Any(m => m.Slot == l.Slot && m.Units >= l.Units));
        return
        [
            .. Enumerable.Range(0, seat.Offers.Length).Where(b => !Enumerable.Range(0, seat.Offers.Length).Any(a => a != b && NoMore(a, b)
                && (seat.Offers[a].Cost < seat.Offers[b].Cost || seat.Offers[a].Cost == seat.Offers[b].Cost && a < b))),
        ];
    }
}
