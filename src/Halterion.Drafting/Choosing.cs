using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.Moves;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;

namespace Halterion.Drafting;

/// <summary>What the moves of one class are chosen from, and by which prices.</summary>
/// <param name="Counts">Numbers of stations that may be tried, with what each costs.</param>
/// <param name="Shares">For a family, what so many of its stations of so many cost, in points.</param>
/// <param name="Forced">Moves that must be among them.</param>
/// <param name="Cuts">Sets that were tried and did not do.</param>
internal sealed record ChoiceTable(
    ImmutableArray<DraftChoice> Choices,
    ImmutableSortedDictionary<int, decimal> Counts,
    Func<Family, int, int, decimal> Shares,
    ImmutableArray<MoveId> Forced,
    ImmutableArray<ImmutableHashSet<MoveId>> Cuts,
    decimal PerItem,
    decimal NoPlane,
    decimal SameFamily)
{
    /// <summary>[M] Between classes that cost the same, moves that most people know come first: so much a place down their list.</summary>
    public const decimal Unknown = 0.4m;

    /// <summary>[M] From here on down a list all are as little known.</summary>
    public const int MostUnknown = 12;

    public static readonly ImmutableArray<Family> Families = [Family.Squat, Family.Lunge, Family.Hinge, Family.Bridge];

    /// <summary>The price of a move by itself.</summary>
    public static decimal Price(DraftChoice choice) => choice.Cost + (Unknown * Math.Min(MostUnknown, choice.Place));

    /// <summary>What neighbours of one family cost at least, where one has so many of so many.</summary>
    public decimal Neighbours(int own, int all) => SameFamily * Math.Max(0, (2 * own) - all - 1);

    /// <summary>What a set costs by this table; what a class really costs is always worked out on the class itself.</summary>
    public decimal Of(IReadOnlyCollection<DraftChoice> set) => Counts.GetValueOrDefault(set.Count, 1000)
        + set.Sum(Price)
        + (PerItem * set.SelectMany(c => c.Items).Distinct().Count())
        + (set.Count >= 4 && !set.Any(c => c.IsSideways) ? NoPlane : 0)
        + Families.Sum(f => set.Count(c => c.Family == f) is var own ? Shares(f, own, set.Count) + Neighbours(own, set.Count) : 0);
}

/// <summary>Chooses the main moves of a class.</summary>
internal interface IChooser
{
    /// <summary>The cheapest set of the table, in no order; null where there is none.</summary>
    ImmutableArray<DraftChoice>? Choose(ChoiceTable table, decimal seconds, int seed);
}

/// <summary>Chooses without a solver: greedily for each number of stations, then by exchanges.</summary>
internal sealed class GreedyChooser : IChooser
{
    private const int Exchanges = 200;

    public ImmutableArray<DraftChoice>? Choose(ChoiceTable table, decimal seconds, int seed)
    {
        var random = new Random(seed);
        var forced = table.Choices.Where(c => table.Forced.Contains(c.Move)).ToArray();
        ImmutableArray<DraftChoice>? best = null;
        var price = decimal.MaxValue;
        foreach (var (many, _) in table.Counts.OrderBy(c => c.Value).Take(6))
        {
            var set = forced.ToList();
            while (set.Count < many && table.Choices.Where(c => !set.Contains(c)).ToArray() is { Length: > 0 } left)
            {
                set.Add(left.MinBy(c => table.Of([.. set, c]) - table.Counts.GetValueOrDefault(set.Count + 1, 1000))!);
            }

            if (set.Count != many)
            {
                continue;
            }

            set = Bettered(table, set, seconds, random);
            if (!IsCut(table, set) && table.Of(set) is var cost && cost < price)
            {
                (best, price) = ([.. set], cost);
            }
        }

        return best;
    }

    /// <summary>One for another while that is cheaper; what is forced stays.</summary>
    public static List<DraftChoice> Bettered(ChoiceTable table, List<DraftChoice> set, decimal seconds, Random random)
    {
        var free = Enumerable.Range(0, set.Count).Where(i => !table.Forced.Contains(set[i].Move)).ToArray();
        for (var i = 0; i < Exchanges * seconds && free.Length > 0; i++)
        {
            var at = free[random.Next(free.Length)];
            var other = table.Choices[random.Next(table.Choices.Length)];
            if (set.Contains(other))
            {
                continue;
            }

            List<DraftChoice> next = [.. set];
            next[at] = other;
            if (!IsCut(table, next) && (IsCut(table, set) || table.Of(next) < table.Of(set)))
            {
                set = next;
            }
        }

        return set;
    }

    private static bool IsCut(ChoiceTable table, List<DraftChoice> set) => table.Cuts.Any(c => c.SetEquals(set.Select(s => s.Move)));
}
