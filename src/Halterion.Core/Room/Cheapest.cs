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

    /// <summary>Past so many states a moment is answered as well as a search by single changes can; no room of people comes near it.</summary>
    private const int MostStates = 400_000;

    /// <summary>For each seat which of its offers; whether it is known to be the cheapest.</summary>
    public static (int[] Taken, bool Exact) Of(IReadOnlyList<Seat> seats, ImmutableArray<StockLine>? stock)
    {
        var taken = seats.Select(s => First(s)).ToArray();
        if (stock is not { } lines)
        {
            return (taken, true);
        }

        var tally = new Tally(seats, lines);
        var exact = true;
        foreach (var part in tally.Parts())
        {
            exact &= Solve(tally, part, taken);
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

    private sealed class Layer
    {
        public Dictionary<string, int> Least { get; } = new(StringComparer.Ordinal);
    }

    /// <summary>Settles the seats of one part, which share kit that may run out with each other and nobody else.</summary>
    private static bool Solve(Tally tally, int[] part, int[] taken)
    {
        var bound = Improve(tally, part, taken);
        var rest = new int[part.Length + 1];
        for (var i = part.Length - 1; i >= 0; i--)
        {
            rest[i] = rest[i + 1] + tally.Seats[part[i]].Offers.Min(o => o.Cost);
        }

        var layers = new List<Layer> { new() };
        layers[0].Least[tally.Start(part)] = 0;
        var (states, found) = (0, bound);
        for (var i = 0; i < part.Length; i++)
        {
            var next = new Layer();
            foreach (var (state, cost) in layers[i].Least)
            {
                foreach (var offer in tally.Worthwhile(part[i]))
                {
                    var (after, sum) = (tally.Add(state, part[i], offer), cost + tally.Seats[part[i]].Offers[offer].Cost);
                    if (next.Least.TryGetValue(after, out var known))
                    {
                        if (sum < known)
                        {
                            next.Least[after] = sum;
                        }
                    }
                    else if (sum + rest[i + 1] + Unit * tally.Units(after) <= bound)
                    {
                        next.Least[after] = sum;
                    }
                }
            }

            layers.Add(next);
            states += next.Least.Count;
            if (states > MostStates)
            {
                return false;
            }
        }

        found = layers[^1].Least.Min(s => s.Value + Unit * tally.Units(s.Key));
        Follow(tally, part, layers, found, taken);
        return true;
    }

    /// <summary>Walks from the end which states lie on a cheapest way, then takes from the front the first offer that stays on one.</summary>
    private static void Follow(Tally tally, int[] part, List<Layer> layers, int found, int[] taken)
    {
        var good = new HashSet<string>[layers.Count];
        good[^1] = [.. layers[^1].Least.Where(s => s.Value + Unit * tally.Units(s.Key) == found).Select(s => s.Key)];
        for (var i = part.Length - 1; i >= 0; i--)
        {
            good[i] = [.. layers[i].Least.Where(s => tally.Worthwhile(part[i]).Any(o => Leads(i, s.Key, s.Value, o))).Select(s => s.Key)];
        }

        var (state, cost) = (tally.Start(part), 0);
        for (var i = 0; i < part.Length; i++)
        {
            var offer = tally.Worthwhile(part[i]).First(o => Leads(i, state, cost, o));
            (state, cost) = (tally.Add(state, part[i], offer), cost + tally.Seats[part[i]].Offers[offer].Cost);
            taken[part[i]] = offer;
        }

        bool Leads(int i, string from, int cost, int offer)
        {
            var to = tally.Add(from, part[i], offer);
            return good[i + 1].Contains(to) && layers[i + 1].Least[to] == cost + tally.Seats[part[i]].Offers[offer].Cost;
        }
    }

    /// <summary>Changes single offers, then pairs, while that is cheaper; gives what it costs then. A first answer to measure others by.</summary>
    private static int Improve(Tally tally, int[] part, int[] taken)
    {
        var best = Cost();
        for (var changed = true; changed;)
        {
            changed = false;
            foreach (var seat in part)
            {
                foreach (var offer in tally.Worthwhile(seat))
                {
                    var before = taken[seat];
                    taken[seat] = offer;
                    var cost = Cost();
                    if (cost < best)
                    {
                        (best, changed) = (cost, true);
                    }
                    else
                    {
                        taken[seat] = before;
                    }
                }
            }
        }

        return best;

        int Cost()
        {
            var state = tally.Start(part);
            var sum = 0;
            foreach (var seat in part)
            {
                state = tally.Add(state, seat, taken[seat]);
                sum += tally.Seats[seat].Offers[taken[seat]].Cost;
            }

            return sum + Unit * tally.Units(state);
        }
    }
}
