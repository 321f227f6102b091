using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>How far a stock goes round for several kinds of needs at once.</summary>
public sealed class Supply
{
    /// <summary>Which lines serve a kind one for one, and which only several for one (such as two kettlebells for a barbell).</summary>
    /// <param name="Listed">The stock says something of it; of what it says nothing nobody knows whether it is short.</param>
    private sealed record Served(int[] Lines, (int Line, int Each)[] Several, bool OnlyWall, bool Listed);

    /// <summary>A bar of which nothing is said, kilograms. [M]</summary>
    private const decimal UsualBar = 20;

    private readonly Served[] served;
    private readonly decimal[] capacity;
    private readonly bool simple;
    private readonly decimal?[] plates;
    private readonly decimal bar;

    /// <summary>The kinds that each line serves.</summary>
    private readonly int[][] serves;

    /// <summary>Of each kind that shares its lines with no other.</summary>
    private readonly decimal[] there;

    /// <summary>What is there against what is needed.</summary>
    public Supply(ImmutableArray<Need> kinds, ImmutableArray<StockLine> stock)
    {
        Kinds = kinds;
        var lines = stock.Where(l => l.Condition != Condition.Out).ToArray();
        capacity = [.. lines.Select(l => l.Item == KitItem.Wall ? (l.Metres ?? 0) * l.Count / Need.WallEach : l.Count)];
        served = [.. kinds.Select(kind => Of(kind, lines, Lists(stock, kind)))];
        simple = served.SelectMany(s => s.Lines.Concat(s.Several.Select(v => v.Line))).GroupBy(line => line).All(g => g.Count() == 1)
            && served.All(s => s.Several.Length == 0);
        // A bar weighs what its line says, else 20 kg.
        bar = lines.FirstOrDefault(l => l is { Item: KitItem.Barbell, Kg: not null })?.Kg ?? UsualBar;
        plates = [.. lines.Select(l => l.Item == KitItem.Plate ? l.Kg : null)];
        simple &= kinds.All(k => k.BarKg is null);
        serves = [.. capacity.Select((_, l) => Enumerable.Range(0, kinds.Length)
            .Where(k => served[k].Lines.Contains(l) || served[k].Several.Any(v => v.Line == l)).ToArray())];
        there = [.. served.Select(s => s.Lines.Sum(l => capacity[l]))];
        Components = ComponentsOf();
    }

    /// <summary>
    /// Whether a stock says anything of what is needed, or of what may stand in its place, whatever its size and condition.
    /// </summary>
    public static bool Lists(ImmutableArray<StockLine> stock, Need need) =>
        stock.Any(line => IsSame(line.Item, need.Item)) || (need.Or ?? []).Any(or => Lists(stock, or));

    private static bool IsSame(KitItem line, KitItem item) =>
        line == item || line is KitItem.Box or KitItem.Step && item is KitItem.Box or KitItem.Step;

    /// <summary>How many kinds of kit there are.</summary>
    public ImmutableArray<Need> Kinds { get; }

    /// <summary>For each kind the number of its component: kinds that may take things from each other share one.</summary>
    public int[] Components { get; }

    /// <summary>
    /// How many of a kind there are, were nothing else wanted: metres of wall, else pieces; null: the stock says nothing of it.
    /// </summary>
    public decimal? Have(int kind) => !served[kind].Listed ? null : served[kind].OnlyWall
        ? served[kind].Lines.Sum(l => capacity[l]) * Need.WallEach
        : served[kind].Lines.Sum(l => Math.Floor(capacity[l])) + served[kind].Several.Sum(v => Math.Floor(capacity[v.Line] / v.Each));

    /// <summary>Units short of each kind; of wall each begun metre is one.</summary>
    public int[] Short(ReadOnlySpan<int> demand)
    {
        var missing = new int[Kinds.Length];
        if (simple)
        {
            for (var k = 0; k < Kinds.Length; k++)
            {
                missing[k] = demand[k] == 0 || !served[k].Listed ? 0 : served[k].OnlyWall ? Metres(demand[k], there[k])
                    : Math.Max(0, demand[k] - (int)there[k]);
            }

            return missing;
        }

        var left = Match(demand, missing);
        Load(demand, missing, left);
        for (var k = 0; k < Kinds.Length; k++)
        {
            foreach (var (line, each) in served[k].Several)
            {
                while (missing[k] > 0 && left[line] >= each)
                {
                    left[line] -= each;
                    missing[k]--;
                }
            }

            if (served[k] is { OnlyWall: true, Listed: true } && demand[k] > 0)
            {
                missing[k] = Metres(demand[k], served[k].Lines.Sum(l => left[l]));
            }
        }

        return missing;
    }

    /// <summary>How many pieces a choice takes.</summary>
    public int Units(ReadOnlySpan<int> demand)
    {
        var units = 0;
        foreach (var missing in Short(demand))
        {
            units += missing;
        }

        return units;
    }

    /// <summary>What is short once that much is taken of the kinds that are counted, and how many pieces of them are still there.</summary>
    /// <returns>Whether wall, which is short by metres, is among them.</returns>
    public (int Units, int Free, bool Metres) After(ReadOnlySpan<int> demand, bool[] counted)
    {
        var missing = Short(demand);
        var (units, given, lines, metres) = (0, 0, 0m, false);
        for (var k = 0; k < Kinds.Length; k++)
        {
            units += missing[k];
            // Of what the stock says nothing, none is taken from it.
            if (counted[k] && served[k].Listed)
            {
                metres |= served[k].OnlyWall;
                given += demand[k] - (served[k].OnlyWall ? (int)(missing[k] / Need.WallEach) : missing[k]);
            }
        }

        for (var l = 0; l < capacity.Length; l++)
        {
            lines += serves[l].Any(k => counted[k]) ? capacity[l] : 0;
        }

        return (units, (int)Math.Ceiling(lines) + (metres ? 1 : 0) - given, metres);
    }

    private static int Metres(int places, decimal have) => (int)Math.Max(0, Math.Ceiling((places - have) * Need.WallEach));

    private static Served Of(Need kind, StockLine[] lines, bool listed)
    {
        var plain = kind with { Or = null };
        var one = new List<int>();
        var several = new List<(int, int)>();
        for (var i = 0; i < lines.Length; i++)
        {
            if (plain.IsServedBy(lines[i]))
            {
                one.Add(i);
            }
            else if ((kind.Or ?? []).FirstOrDefault(o => o.IsServedBy(lines[i])) is { } other)
            {
                if (other.Count <= kind.Count)
                {
                    one.Add(i);
                }
                else
                {
                    several.Add((i, other.Count / kind.Count));
                }
            }
        }

        // A place at the wall is given last: whoever needs the wall itself can have nothing else.
        return new Served(
            [.. one.OrderBy(l => lines[l].Item == KitItem.Wall)], [.. several], kind.Item == KitItem.Wall && kind.Or is null, listed);
    }

    /// <summary>
    /// Puts pairs of what plates are left on the bars, so that as few as can be lack theirs; what is short is one pair a bar.
    /// </summary>
    private void Load(ReadOnlySpan<int> demand, int[] missing, decimal[] left)
    {
        var bars = new List<int>();
        for (var k = 0; k < Kinds.Length; k++)
        {
            if (Kinds[k].BarKg is { } kg && kg > bar && served[k].Listed)
            {
                bars.AddRange(Enumerable.Repeat(k, demand[k]));
            }
        }

        if (bars.Count == 0)
        {
            return;
        }

        var lines = Enumerable.Range(0, plates.Length).Where(l => plates[l] is > 0).OrderByDescending(l => plates[l]).ToArray();
        var pairs = lines.Select(l => (int)(left[l] / 2)).ToArray();
        var known = new Dictionary<string, int>();
        Best(0);
        Take(0);

        // The most bars from one on that can be loaded with the pairs that are left.
        int Best(int from)
        {
            if (from == bars.Count)
            {
                return 0;
            }

            var key = $"{from}:{string.Join(',', pairs)}";
            if (known.TryGetValue(key, out var seen))
            {
                return seen;
            }

            var best = Best(from + 1);
            Fill((Kinds[bars[from]].BarKg!.Value - bar) / 2, 0, () =>
            {
                best = Math.Max(best, 1 + Best(from + 1));
                return best == bars.Count - from;
            });
            return known[key] = best;
        }

        void Take(int from)
        {
            if (from == bars.Count)
            {
                return;
            }

            var most = Best(from);
            if (!Fill((Kinds[bars[from]].BarKg!.Value - bar) / 2, 0, () => 1 + Best(from + 1) == most && Done(from + 1)))
            {
                missing[bars[from]]++;
                Take(from + 1);
            }
        }

        bool Done(int from)
        {
            Take(from);
            return true;
        }

        // Every way to make up one side of a bar from the pairs; stops where it is told to.
        bool Fill(decimal side, int line, Func<bool> found)
        {
            if (side == 0)
            {
                return found();
            }

            if (line == lines.Length || side < 0)
            {
                return false;
            }

            for (var many = (int)Math.Min(pairs[line], side / plates[lines[line]]!.Value); many >= 0; many--)
            {
                pairs[line] -= many;
                var stop = Fill(side - many * plates[lines[line]]!.Value, line + 1, found);
                pairs[line] += many;
                if (stop)
                {
                    return true;
                }
            }

            return false;
        }
    }

    /// <summary>Hands out as much as can be, one for one (augmenting paths); what is left over of each line comes back.</summary>
    private decimal[] Match(ReadOnlySpan<int> demand, int[] missing)
    {
        var given = new int[Kinds.Length, capacity.Length];
        var free = Array.ConvertAll(capacity, Math.Floor);
        for (var k = 0; k < Kinds.Length; k++)
        {
            // Wall alone is measured, not counted.
            missing[k] = served[k].OnlyWall || !served[k].Listed || Kinds[k].BarKg is not null ? 0 : demand[k];
            while (missing[k] > 0 && Augment(k, new bool[capacity.Length]))
            {
                missing[k]--;
            }
        }

        var left = (decimal[])capacity.Clone();
        for (var l = 0; l < left.Length; l++)
        {
            for (var k = 0; k < Kinds.Length; k++)
            {
                left[l] -= given[k, l];
            }
        }

        return left;

        bool Augment(int kind, bool[] seen)
        {
            foreach (var line in served[kind].Lines)
            {
                if (seen[line])
                {
                    continue;
                }

                seen[line] = true;
                if (free[line] >= 1)
                {
                    (free[line], given[kind, line]) = (free[line] - 1, given[kind, line] + 1);
                    return true;
                }

                for (var other = 0; other < Kinds.Length; other++)
                {
                    if (other != kind && given[other, line] > 0 && Augment(other, seen))
                    {
                        given[other, line]--;
                        given[kind, line]++;
                        return true;
                    }
                }
            }

            return false;
        }
    }

    private int[] ComponentsOf()
    {
        var component = Enumerable.Range(0, Kinds.Length).ToArray();
        foreach (var line in Enumerable.Range(0, capacity.Length))
        {
            foreach (var k in serves[line].Skip(1))
            {
                var (from, to) = (component[k], component[serves[line][0]]);
                component = Array.ConvertAll(component, c => c == from ? to : c);
            }
        }

        return component;
    }
}
