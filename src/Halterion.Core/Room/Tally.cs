using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>What has been taken of the kit that may run out, as one number: a few bits for each thing counted.</summary>
internal sealed class Tally
{
    private const int Width = 128;

    /// <summary>A thing counted: units of a kind; or, where a station is shared, people who need so many of it.</summary>
    private readonly record struct Slot(int Kind, int? Sharing, int Each);

    private readonly Supply supply;
    private readonly List<Slot> slots = [];
    private readonly bool[] scarce;
    private readonly IReadOnlyDictionary<int, int> working;
    private readonly (int Slot, int Units)[][][] loads;
    private readonly UInt128[][] packed;
    private readonly int[] shift;
    private readonly int[] bits;
    private readonly int[][] worthwhile;
    private readonly Dictionary<UInt128, (int Units, int Free, bool Metres)> known = [];

    /// <param name="counted">The components of kinds that are counted; the others are taken to be without end.</param>
    /// <param name="working">How many work at once at each station that is shared.</param>
    public Tally(IReadOnlyList<Seat> seats, Supply supply, IReadOnlySet<int> counted, IReadOnlyDictionary<int, int> working)
    {
        (Seats, this.supply, this.working) = (seats, supply, working);
        scarce = [.. supply.Components.Select(counted.Contains)];
        loads = [.. seats.Select(s => s.Offers.Select(o => Load(o, s.Sharing)).ToArray())];
        scarce = [.. Enumerable.Range(0, scarce.Length).Select(k => slots.Exists(s => supply.Components[s.Kind] == supply.Components[k]))];
        worthwhile = [.. seats.Select((s, i) => Worth(s, loads[i]))];
        bits = [.. Enumerable.Range(0, slots.Count)
            .Select(
                slot => 1 + (int)Math.Log2(Math.Max(1, loads.Sum(seat => seat.Max(o => o.Where(l => l.Slot == slot).Sum(l => l.Units))))))];
        shift = [.. Enumerable.Range(0, slots.Count).Select(slot => bits.Take(slot).Sum())];
        Holds = bits.Sum() <= Width;
        packed = [.. loads.Select(seat => seat.Select(o => Holds ? Packed(o) : 0).ToArray())];
    }

    public IReadOnlyList<Seat> Seats { get; }

    /// <summary>Whether what is counted fits one number; only a crowd of hundreds with all kinds of kit does not.</summary>
    public bool Holds { get; }

    /// <summary>Half of those at each shared station work while the others wait, whatever part of them is looked at.</summary>
    public static IReadOnlyDictionary<int, int> WorkingAt(IReadOnlyList<Seat> seats) =>
        seats.Where(s => s.Sharing is not null).GroupBy(s => s.Sharing!.Value).ToDictionary(g => g.Key, g => (g.Count() + 1) / 2);

    /// <summary>The components of kinds of which something is short in an answer.</summary>
    public static IEnumerable<int> ShortIn(IReadOnlyList<Seat> seats, int[] taken, Supply supply)
    {
        var demand = new int[supply.Kinds.Length];
        foreach (var at in seats.Select((s, i) => (s.Sharing, s.Offers[taken[i]].Needs)).GroupBy(n => n.Sharing))
        {
            foreach (var kind in at.SelectMany(n => n.Needs).GroupBy(n => n.Kind))
            {
                demand[supply.Kinds.IndexOf(kind.Key)] += at.Key is null ? kind.Sum(n => n.Count)
                    : Largest([.. kind.Select(n => (n.Count, 1))], (at.Count() + 1) / 2);
            }
        }

        var missing = supply.Short(demand);
        return Enumerable.Range(0, missing.Length).Where(k => missing[k] > 0).Select(k => supply.Components[k]).Distinct();
    }

    /// <summary>The offers of a seat that are not beaten by another which costs and takes no more.</summary>
    public int[] Worthwhile(int seat) => worthwhile[seat];

    /// <summary>What an offer adds to a state.</summary>
    public UInt128 Of(int seat, int offer) => packed[seat][offer];

    /// <summary>Seats by the scarce kit that they may share; those that need none are in no part.</summary>
    public IEnumerable<int[]> Parts()
    {
        var group = new Dictionary<int, int>();
        int Root(int c) => group.TryGetValue(c, out var up) && up != c ? Root(up) : c;
        var touched = Enumerable.Range(0, Seats.Count)
            .Select(
                seat => loads[seat].SelectMany(o => o).Select(l => supply.Components[slots[l.Slot].Kind]).Distinct().ToArray()).ToArray();
        foreach (var components in touched)
        {
            foreach (var c in components.Skip(1))
            {
                group[Root(c)] = Root(components[0]);
            }
        }

        return Enumerable.Range(0, Seats.Count)
            .Where(seat => touched[seat].Length > 0)
            .GroupBy(seat => Root(touched[seat][0]))
            .Select(g => g.ToArray());
    }

    /// <summary>
    /// The least that the seats from one on take of all that is counted, whatever they choose; none where stations are shared.
    /// </summary>
    public int[] LeastFrom(int[] part)
    {
        var least = new int[part.Length + 1];
        for (var i = part.Length - 1; i >= 0 && !Seats.Any(s => s.Sharing is not null); i--)
        {
            least[i] = least[i + 1] + worthwhile[part[i]].Min(o => loads[part[i]][o].Sum(l => l.Units));
        }

        return least;
    }

    /// <summary>Units short once that much is taken.</summary>
    public int Units(UInt128 state)
    {
        return Look(state).Units;
    }

    private (int Units, int Free, bool Metres) Look(UInt128 state)
    {
        if (known.TryGetValue(state, out var seen))
        {
            return seen;
        }

        var (missing, free, metres) = supply.After(Demand(state), scarce);
        return known[state] = (missing, free, metres);
    }

    /// <summary>Units short at the least once so much more has been taken, of whatever is still there.</summary>
    public int UnitsAtLeast(UInt128 state, int more)
    {
        var (missing, free, metres) = Look(state);
        // A place at the wall is less than a metre of it.
        return missing + (more <= free ? 0 : metres ? (int)((more - free) * Need.WallEach) : more - free);
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

    private int[] Demand(UInt128 state)
    {
        var demand = new int[supply.Kinds.Length];
        for (var i = 0; i < slots.Count; i++)
        {
            if (slots[i].Sharing is null)
            {
                demand[slots[i].Kind] += Count(state, i);
            }
        }

        foreach (var shared in working.Count == 0 ? [] : Enumerable.Range(0, slots.Count)
            .Where(i => slots[i].Sharing is not null && Count(state, i) > 0).GroupBy(i => (slots[i].Sharing, slots[i].Kind)))
        {
            demand[shared.Key.Kind] += Largest(
                [.. shared.Select(i => (slots[i].Each, Count(state, i)))], working[shared.Key.Sharing!.Value]);
        }

        return demand;
    }

    private int Count(UInt128 state, int slot) => (int)(uint)(state >> shift[slot]) & ((1 << bits[slot]) - 1);

    private UInt128 Packed((int Slot, int Units)[] load)
    {
        var sum = UInt128.Zero;
        foreach (var (slot, many) in load)
        {
            sum += (UInt128)many << shift[slot];
        }

        return sum;
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
        bool NoMore(int a, int b) => Array.TrueForAll(loads[a], l => Array.Exists(loads[b], m => m.Slot == l.Slot && m.Units >= l.Units));
        return
        [
            .. Enumerable.Range(0, seat.Offers.Length).Where(b => !Enumerable.Range(0, seat.Offers.Length).Any(a => a != b && NoMore(a, b)
                && (seat.Offers[a].Cost < seat.Offers[b].Cost || seat.Offers[a].Cost == seat.Offers[b].Cost && a < b))),
        ];
    }
}
