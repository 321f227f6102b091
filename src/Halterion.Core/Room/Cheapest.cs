using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>One way for somebody to do a station at a moment.</summary>
/// <param name="Option">Its place among the station's options.</param>
internal readonly record struct Offer(int Option, int Cost, ImmutableArray<Need> Needs);

/// <summary>Somebody at a station at a moment, with what they may do there, in the order of the options.</summary>
/// <param name="Sharing">Where two share the station: its number; kit is then needed for the half that works.</param>
internal sealed record Seat(ImmutableArray<Offer> Offers, int? Sharing = null);

/// <summary>
/// The cheapest way to do a moment: the costs of the offers and <see cref="Unit"/> for each unit of kit short, in sum; of equal
/// sums the first by seat, then by offer. Exact, by going seat by seat through all that matters of what was taken so far (the
/// units of kit that may run out), and leaving what cannot beat a good first answer.
/// </summary>
internal static class Cheapest
{
    /// <summary>What a unit short costs. [M]</summary>
    public const int Unit = 200;

    /// <summary>
    /// Past so many states a moment is answered as well as a search by single changes can; no room of people comes near it.
    /// </summary>
    private const int MostStates = 250_000;

    /// <summary>For each seat which of its offers; whether it is known to be the cheapest.</summary>
    public static (int[] Taken, bool Exact) Of(IReadOnlyList<Seat> seats, ImmutableArray<StockLine>? stock)
    {
        var taken = seats.Select(First).ToArray();
        if (stock is not { } lines)
        {
            return (taken, true);
        }

        // Only what runs short is counted. As long as something else runs short in the answer it is counted too; an answer in
        // which nothing else does costs what it was found to cost, and no answer costs less than where less is counted.
        var supply = new Supply([.. seats.SelectMany(s => s.Offers).SelectMany(o => o.Needs).Select(n => n.Kind).Distinct()], lines);
        var counted = new HashSet<int>();
        var working = Tally.WorkingAt(seats);
        var exact = true;
        while (exact && Tally.ShortIn(seats, taken, supply).Count(counted.Add) > 0)
        {
            taken = seats.Select(First).ToArray();
            foreach (var part in new Tally(seats, supply, counted, working).Parts())
            {
                // Each part by itself: what another part takes is nothing to it.
                var tally = new Tally([.. part.Select(i => seats[i])], supply, counted, working);
                var own = part.Select(i => taken[i]).ToArray();
                exact &= Solve(tally, [.. Enumerable.Range(0, part.Length)], own);
                for (var i = 0; i < part.Length; i++)
                {
                    taken[part[i]] = own[i];
                }
            }
        }

        return (taken, exact);
    }

    /// <summary>The cheapest offer by itself, the first of equal ones.</summary>
    private static int First(Seat seat)
    {
        var best = 0;
        for (var i = 1; i < seat.Offers.Length; i++)
        {
            if (seat.Offers[i].Cost < seat.Offers[best].Cost)
            {
                best = i;
            }
        }

        return best;
    }

    /// <summary>Settles the seats of one part, which share kit that may run out with each other and nobody else.</summary>
    private static bool Solve(Tally tally, int[] part, int[] taken)
    {
        if (!tally.Holds)
        {
            return false;
        }

        var bound = Improve(tally, part, taken);
        var (rest, least) = (new int[part.Length + 1], tally.LeastFrom(part));
        for (var i = part.Length - 1; i >= 0; i--)
        {
            rest[i] = rest[i + 1] + tally.Seats[part[i]].Offers.Min(o => o.Cost);
        }

        var layers = new List<Dictionary<UInt128, int>> { new() { [0] = 0 } };
        var states = 0;
        for (var i = 0; i < part.Length; i++)
        {
            var next = new Dictionary<UInt128, int>();
            foreach (var (state, cost) in layers[i])
            {
                foreach (var offer in tally.Worthwhile(part[i]))
                {
                    var (after, sum) = (state + tally.Of(part[i], offer), cost + tally.Seats[part[i]].Offers[offer].Cost);
                    if (next.TryGetValue(after, out var known))
                    {
                        if (sum < known)
                        {
                            next[after] = sum;
                        }
                    }
                    else if (sum + rest[i + 1] + Unit * tally.UnitsAtLeast(after, least[i + 1]) <= bound)
                    {
                        next[after] = sum;
                    }
                }
            }

            layers.Add(next);
            states += next.Count;
            if (states > MostStates)
            {
                return false;
            }
        }

        Follow(tally, part, layers, taken);
        return true;
    }

    /// <summary>
    /// Walks from the end which states lie on a cheapest way, then takes from the front the first offer that stays on one.
    /// </summary>
    private static void Follow(Tally tally, int[] part, List<Dictionary<UInt128, int>> layers, int[] taken)
    {
        var found = layers[^1].Min(s => s.Value + Unit * tally.Units(s.Key));
        var good = new HashSet<UInt128>[layers.Count];
        good[^1] = [.. layers[^1].Where(s => s.Value + Unit * tally.Units(s.Key) == found).Select(s => s.Key)];
        for (var i = part.Length - 1; i >= 0; i--)
        {
            good[i] = [
                .. layers[i].Where(s => Array.Exists(tally.Worthwhile(part[i]), o => Leads(i, s.Key, s.Value, o))).Select(s => s.Key)];
        }

        var (state, cost) = (UInt128.Zero, 0);
        for (var i = 0; i < part.Length; i++)
        {
            var offer = Array.Find(tally.Worthwhile(part[i]), o => Leads(i, state, cost, o));
            (state, cost) = (state + tally.Of(part[i], offer), cost + tally.Seats[part[i]].Offers[offer].Cost);
            taken[part[i]] = offer;
        }

        bool Leads(int i, UInt128 from, int cost, int offer)
        {
            var to = from + tally.Of(part[i], offer);
            return good[i + 1].Contains(to) && layers[i + 1][to] == cost + tally.Seats[part[i]].Offers[offer].Cost;
        }
    }

    /// <summary>
    /// Changes single offers, then lets two change places, while that is cheaper; gives what it costs then. A first answer to
    /// measure others by.
    /// </summary>
    private static int Improve(Tally tally, int[] part, int[] taken)
    {
        var (state, sum) = (UInt128.Zero, 0);
        foreach (var seat in part)
        {
            (state, sum) = (state + tally.Of(seat, taken[seat]), sum + CostOf(seat, taken[seat]));
        }

        var best = sum + Unit * tally.Units(state);
        for (var changed = true; changed;)
        {
            changed = false;
            for (var a = 0; a < part.Length; a++)
            {
                foreach (var offer in tally.Worthwhile(part[a]))
                {
                    changed |= Try([(part[a], offer)]);
                }

                for (var b = a + 1; b < part.Length; b++)
                {
                    changed |= taken[part[a]] != taken[part[b]] && taken[part[b]] < tally.Seats[part[a]].Offers.Length
                        && taken[part[a]] < tally.Seats[part[b]].Offers.Length
                        && Try([(part[a], taken[part[b]]), (part[b], taken[part[a]])]);
                }
            }
        }

        return best;

        int CostOf(int seat, int offer) => tally.Seats[seat].Offers[offer].Cost;

        bool Try(ReadOnlySpan<(int Seat, int Offer)> changes)
        {
            var (after, cost) = (state, sum);
            foreach (var (seat, offer) in changes)
            {
                after = after - tally.Of(seat, taken[seat]) + tally.Of(seat, offer);
                cost += CostOf(seat, offer) - CostOf(seat, taken[seat]);
            }

            if (cost >= best || cost + Unit * tally.Units(after) >= best)
            {
                return false;
            }

            foreach (var (seat, offer) in changes)
            {
                taken[seat] = offer;
            }

            (state, sum, best) = (after, cost, cost + Unit * tally.Units(after));
            return true;
        }
    }
}
