using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.Moves;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;

namespace Halterion.Drafting;

/// <summary>Proposes up to three different classes for a brief (drafting.md).</summary>
/// <param name="solver">False: the built-in search, whether or not the solver is on this machine.</param>
public sealed class Drafter(MoveLibrary moves, Preferences preferences, bool solver = true)
{
    /// <summary>The solver's native library is on this machine.</summary>
    public static bool HasSolver => SolverChooser.IsThere;

    private IChooser Chooser => solver && HasSolver ? new SolverChooser() : new GreedyChooser();

    /// <summary>Classes that are judged in what the brief calls a second, for each draft.</summary>
    private const int JudgedASecond = 7;

    private const int Drafts = 3;

    /// <summary>Shapes by aim, the most usual first: common practice, no source.</summary>
    private static readonly ImmutableDictionary<Aim, ImmutableArray<DraftShape>> Usual = new Dictionary<Aim, ImmutableArray<DraftShape>>
    {
        [Aim.Conditioning] = [DraftShape.Rotation, DraftShape.Circuit, DraftShape.OnTheMinute, DraftShape.Supersets, DraftShape.Sets],
        [Aim.Strength] = [DraftShape.Sets, DraftShape.Rotation, DraftShape.Supersets, DraftShape.Circuit, DraftShape.OnTheMinute],
        [Aim.Endurance] = [DraftShape.Circuit, DraftShape.Rotation, DraftShape.OnTheMinute, DraftShape.Supersets, DraftShape.Sets],
        [Aim.Technique] = [DraftShape.Circuit, DraftShape.Sets, DraftShape.Supersets, DraftShape.Rotation, DraftShape.OnTheMinute],
    }.ToImmutableDictionary();

    /// <summary>Drafts for a brief whose words were read already.</summary>
    public DraftAnswer Of(DraftBrief brief)
    {
        if (Collision(brief) is { } collision)
        {
            return collision;
        }

        var chooser = Chooser;
        var stations = new DraftStations(brief, moves, preferences);
        var budget = (int)(JudgedASecond * brief.Seconds);
        (DraftShape Shape, Tried? Tried, string Why) Found(DraftShape shape, int at, HashSet<MoveId> used)
        {
            var judge = new Judge(brief, moves, preferences, stations);
            var best = new Search(brief, judge, stations, moves, chooser, shape, used, (brief.Seed * 7919) + at).Best(budget);
            return (shape, best, judge.Why);
        }


        DraftShape[] possible = brief.Shape == DraftShape.Any ? [.. Usual[brief.Aim]] : [brief.Shape];
        foreach (var asked in brief.Include.Except(stations.KeptMains))
        {
            var against = possible.Select(s => stations.WhyNot(asked, s)).ToArray();
            if (against.All(w => w is not null))
            {
                return new DraftAnswer(
                    [], against[0], "Ask for another move, or give up the wish that is against it.", chooser is SolverChooser);
            }
        }

        var found = new List<(DraftShape Shape, Tried Tried)>();
        var reason = "";
        if (brief.Shape == DraftShape.Any)
        {
            // Different shapes know nothing of each other: they are looked for beside each other.
            var shapes = Usual[brief.Aim];
            var first = shapes.Take(Drafts).Select((shape, i) => (shape, i)).AsParallel().AsOrdered()
                .Select(s => Found(s.shape, s.i, [])).ToArray();
            found.AddRange(first.Where(f => f.Tried is not null).Select(f => (f.Shape, f.Tried!)));
            reason = first[0].Why;
            for (var i = Drafts; i < shapes.Length && found.Count < Drafts; i++)
            {
                if (Found(shapes[i], i, []).Tried is { } tried)
                {
                    found.Add((shapes[i], tried));
                }
            }
        }

        // Others of a shape, with other moves.
        foreach (var shape in brief.Shape == DraftShape.Any ? found.Select(f => f.Shape).ToArray() : [brief.Shape])
        {
            while (found.Count < Drafts)
            {
                var used = found.Where(f => f.Shape == shape).SelectMany(f => f.Tried.Mains).Except(brief.Include).ToHashSet();
                var (_, tried, why) = Found(shape, found.Count, used);
                reason = tried is null ? why : reason;
                // Where all of it is kept or asked for there is only one such class.
                if (tried is null || (found.Any(f => f.Shape == shape) && !tried.Mains.Except(brief.Include).Any()))
                {
                    break;
                }

                found.Add((shape, tried));
            }
        }

        var bound = Bound(brief);
        return found.Count == 0
            ? new DraftAnswer([], reason.Length > 0 ? reason : "No class keeps all that must be kept.", WayOut(brief))
            : new DraftAnswer([.. found.OrderBy(f => f.Tried.Cost).Select(f => new Draft(
                f.Tried.Plan, f.Shape, f.Tried.Cost, bound, f.Tried.Cost == bound, f.Tried.Terms,
                Reasons.Of(brief, f.Tried, moves)))], Solved: chooser is SolverChooser);
    }

    /// <summary>
    /// What no class of the brief can be without: moves of the last classes that must be in it again, and more of them than stations
    /// are wished for.
    /// </summary>
    private static decimal Bound(DraftBrief brief)
    {
        var wanted = brief.Include.Distinct().ToArray();
        // Terms are rounded to a tenth: a bound is rounded down.
        decimal Down(decimal points) => Math.Floor(10 * points) / 10;
        return Down(wanted.Sum(m => DraftCost.Recent(brief, m)) * brief.Wishes.Of("recent"))
            + Down(Math.Max(0, wanted.Length - brief.To) * DraftCost.StationOff * brief.Wishes.Of("stations"));
    }

    private DraftAnswer? Collision(DraftBrief brief)
    {
        if (brief.Include.FirstOrDefault(brief.Avoid.Contains) is { Value: not null } both)
        {
            var name = moves.Find(both)?.Name ?? both.Value;
            return new DraftAnswer([], $"{name} is both wanted and to be avoided.", $"Take {name} out of one of the two.");
        }

        return brief.Keep is { Raised.IsEmpty: true }
            ? new DraftAnswer(
                [], "No station has a harder option that could be the main one for these people and this kit.",
                "Add harder options in Build, or ask for other moves.")
            : null;
    }

    private static string WayOut(DraftBrief brief) =>
        brief.Keep is not null ? "Keep less of the class, book more time, or mend what its findings say first."
        : brief.Include.Length > 0 ? "Ask for fewer moves, or for another shape."
        : brief.Shape != DraftShape.Any ? "Leave the shape open, or book more time."
        : "Book more time, or shorten the warm-up and the cool-down.";
}

/// <summary>Looks for the best class of a shape: moves are chosen from a table, what breaks a rule is cut off, it is bettered.</summary>
internal sealed class Search(
    DraftBrief brief, Judge judge, DraftStations stations, MoveLibrary moves, IChooser chooser, DraftShape shape,
    HashSet<MoveId> used, int seed)
{
    private const int MostCuts = 12;
    private const int MostSame = 3;
    private const int MostStations = 16;

    /// <summary>Numbers of stations that are looked at together: those that failed make room for others.</summary>
    private const int MostCounts = 5;

    /// <summary>[M] So many moves of a family are looked at, the everyday ones first; the rest where those do not do.</summary>
    private const int Looked = 9;

    /// <summary>[M] Without wishes the families are about as many: so much of what a wish would cost, only between equals.</summary>
    private const decimal Unasked = 0.1m;

    /// <summary>[M] Without wishes a class of four stations or more has all four families, unless that costs more than this.</summary>
    private const decimal Missing = 10;

    /// <summary>[M] Welcome and walk-through, in seconds.</summary>
    private const int Talk = 120;

    /// <summary>[M] A number of stations with which a class goes round too often, or not often enough: points a station.</summary>
    private const int Unusual = 2;

    /// <summary>[M] Seconds that a station takes in all with its rests, three or four times round.</summary>
    private int EachTakes => shape switch
    {
        DraftShape.Sets => 400,
        DraftShape.Supersets => 300,
        DraftShape.DropSets => 450,
        _ => 230,
    };

    private int MainSeconds => (60 * brief.SlotMinutes) - brief.WarmUpSeconds - brief.CoolDownSeconds - Talk;

    /// <summary>So many stations the time usually holds.</summary>
    private int Usually => MainSeconds / EachTakes;

    private readonly Random random = new(seed);
    private readonly ImmutableArray<MoveId> forced = [.. brief.Include.Distinct().Except(stations.KeptMains)];
    private readonly HashSet<MoveId> banned = [];
    private readonly HashSet<int> unfit = [];
    private readonly List<ImmutableHashSet<MoveId>> cuts = [];

    public Tried? Best(int budget)
    {
        var (same, stuck) = (0, (string?)null);
        var looked = Looked;
        var choices = Choices(looked);
        for (var i = 0; i < MostCuts; i++)
        {
            var table = Table(choices);
            if (table.Counts.IsEmpty)
            {
                return null;
            }

            if (chooser.Choose(table, brief.Seconds, seed + i) is not { } set)
            {
                if (looked > MostStations)
                {
                    return null;
                }

                // What most people know does not do: the rest of the library.
                looked = MostStations * Looked;
                choices = Choices(looked);
                continue;
            }

            if (judge.Of(shape, Ordered(set)) is not { } tried)
            {
                // Where so many are more than the time usually holds, more of them do not fit either.
                unfit.UnionWith(set.Length + stations.KeptMains.Length > Usually
                    ? Enumerable.Range(set.Length, MostStations) : [set.Length]);
            }
            else if (tried.Breaches.IsEmpty)
            {
                return Bettered(tried, choices, budget);
            }
            else
            {
                // What stays broken whichever moves are taken is not the moves' fault.
                var whole = tried.Breaches.Where(b => b.Rule != DraftRules.Uneven && !tried.IsOfTheMoves(b))
                    .Select(b => $"{b.Rule} {b.Place}").FirstOrDefault();
                same = whole is not null && whole == stuck ? same + 1 : 0;
                stuck = whole;
                if (same == MostSame)
                {
                    return null;
                }

                Cut(set, tried);
            }
        }

        return null;
    }

    /// <summary>Forbids what failed: the move that a rule is broken at, or else just this set.</summary>
    private void Cut(ImmutableArray<DraftChoice> set, Tried tried)
    {
        var at = tried.Breaches.Select(tried.MoveOf).OfType<MoveId>().Where(m => !forced.Contains(m)).Distinct().ToArray();
        if (at.Length == 0 && tried.Breaches.Any(b => b.Rule == DraftRules.Uneven))
        {
            // Whose sides take turns is what can be uneven.
            at = [.. set.Where(c => moves.Find(c.Move)!.Sided == Sided.Alternating && !forced.Contains(c.Move)).Select(c => c.Move)];
        }

        banned.UnionWith(at);
        if (at.Length == 0)
        {
            cuts.Add([.. set.Select(c => c.Move)]);
        }
    }

    private ImmutableArray<DraftChoice> Choices(int looked)
    {
        var asked = ChoiceTable.Families.SelectMany(f => stations.Known(f)
                .Where(m => !used.Contains(m) && !stations.KeptMains.Contains(m) && (Suits(moves.Find(m)!) || forced.Contains(m)))
                .Where((m, i) => i < looked || forced.Contains(m)))
            .Union(forced).ToArray();
        return
        [
            .. asked.AsParallel().AsOrdered().Select(m => stations.Main(m, shape)).AsSequential().OfType<DraftChoice>()
                .Select(c => c with { Cost = c.Cost + (Luck * (decimal)random.NextDouble()) }),
        ];
    }

    /// <summary>[M] Between moves as good and as known the seed decides: in points.</summary>
    private const decimal Luck = 2;

    /// <summary>What the shape leaves out at once: a timed go in turns has no even sides.</summary>
    private bool Suits(Move move) => shape switch
    {
        DraftShape.OneSideARound => move.Sided == Sided.OneSided,
        DraftShape.DropSets => move.Usual is not null || move.Kit.Length > 0,
        _ => move.Sided != Sided.Alternating,
    };

    private ChoiceTable Table(ImmutableArray<DraftChoice> choices) => new(
        [.. choices.Where(c => !banned.Contains(c.Move))], Counts(), Shares, forced, [.. cuts],
        DraftCost.PerItem * brief.Wishes.Of("kit"), DraftCost.NoPlane * brief.Wishes.Of("plane"),
        DraftCost.SameFamily * brief.Wishes.Of("neighbours"));

    /// <summary>Numbers of stations that the shape can have, the likelier ones a little cheaper.</summary>
    private ImmutableSortedDictionary<int, decimal> Counts()
    {
        var fits = shape == DraftShape.Rotation && brief.Heads > 0 ? (brief.Heads + 2) / 3 : Usually;
        var middle = Math.Clamp(fits, brief.From, brief.To);
        // What is kept stands beside what is chosen.
        var kept = stations.KeptMains.Length;
        return Enumerable.Range(kept, Math.Max(1, MostStations - kept + 1))
            .Where(n => n > 0 && n - kept >= forced.Length && (shape != DraftShape.Supersets || n % 2 == 0) && !unfit.Contains(n - kept))
            .Select(n => (Many: n - kept, Off: Math.Max(0, brief.From - n) + Math.Max(0, n - brief.To), Far: Math.Abs(n - middle)))
            .Select(n => (n.Many, Price: (DraftCost.StationOff * brief.Wishes.Of("stations") * n.Off) + (Unusual * n.Far)))
            .OrderBy(n => n.Price).Take(MostCounts).ToImmutableSortedDictionary(n => n.Many, n => n.Price);
    }

    /// <summary>How far so many of so many are from the wished part of a family, each station as long as the others.</summary>
    private decimal Shares(Family family, int own, int all)
    {
        var wished = brief.Shares.Where(s => s.Value > 0).ToDictionary(s => s.Key, s => s.Value);
        var kept = stations.KeptMains.Count(m => moves.Find(m)?.Family == family);
        (own, all) = (own + kept, all + stations.KeptMains.Length);
        var actual = all == 0 ? 0 : 100m * own / all;
        return wished.Count == 0
            ? (Unasked * DraftCost.Share * Math.Abs(actual - (100m / ChoiceTable.Families.Length)))
                + (own == 0 && all >= ChoiceTable.Families.Length ? Missing : 0)
            : DraftCost.Share * brief.Wishes.Of("shares")
                * Math.Abs(actual - (100 * wished.GetValueOrDefault(family) / wished.Values.Sum()));
    }

    /// <summary>Families take turns, from standing to the floor; the hardest move comes in the first half.</summary>
    private ImmutableArray<MoveId> Ordered(ImmutableArray<DraftChoice> set)
    {
        var left = set.ToList();
        var order = new List<DraftChoice>();
        var hardest = set.MaxBy(c => c.Demand);
        while (left.Count > 0)
        {
            var late = order.Count + 1 >= (set.Length + 1) / 2;
            var next = left.OrderBy(c => order.Count > 0 && order[^1].Family == c.Family)
                .ThenBy(c => !(late && c == hardest))
                .ThenByDescending(c => left.Count(l => l.Family == c.Family))
                .ThenBy(c => Turn(c.Family)).ThenByDescending(c => c.Demand).First();
            order.Add(next);
            left.Remove(next);
        }

        return [.. order.Select(c => c.Move)];
    }

    /// <summary>Common practice, no source: knees and hips in turn, the floor last.</summary>
    private static int Turn(Family family) => family switch
    {
        Family.Squat => 0,
        Family.Hinge => 1,
        Family.Lunge => 2,
        Family.Bridge => 3,
        _ => 4,
    };

    /// <summary>Other moves, and other places for them, while that is cheaper.</summary>
    private Tried Bettered(Tried best, ImmutableArray<DraftChoice> choices, int budget)
    {
        var family = choices.ToDictionary(c => c.Move, c => c.Family);
        var prices = choices.ToDictionary(c => c.Move, ChoiceTable.Price);
        for (var i = 0; i < budget && best.Cost > 0 && !best.Mains.IsEmpty; i++)
        {
            var at = random.Next(best.Mains.Length);
            ImmutableArray<MoveId>? next = null;
            if (i % 2 == 1 && best.Mains.Length > 1)
            {
                var with = random.Next(best.Mains.Length);
                next = with == at ? null : best.Mains.SetItem(at, best.Mains[with]).SetItem(with, best.Mains[at]);
            }
            else if (!forced.Contains(best.Mains[at]))
            {
                var own = best.Mains[at];
                var others = choices.Where(c => c.Family == family[own] && !best.Mains.Contains(c.Move) && !banned.Contains(c.Move)
                    && prices[c.Move] < prices[own] + Near).OrderBy(ChoiceTable.Price).Take(5).ToArray();
                next = others.Length == 0 ? null : best.Mains.SetItem(at, others[random.Next(others.Length)].Move);
            }

            if (next is { } mains && judge.Of(shape, mains) is { } tried && Weighed(tried) < Weighed(best))
            {
                best = tried;
            }
        }

        return best;

        decimal Weighed(Tried tried) => tried.Price + tried.Mains.Sum(m => ChoiceTable.Unknown
            * Math.Min(ChoiceTable.MostUnknown, choices.First(c => c.Move == m).Place));
    }

    /// <summary>[M] A move that costs so much more by itself is not worth a look.</summary>
    private const decimal Near = 12;
}
