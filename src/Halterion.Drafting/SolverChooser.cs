using System.Collections.Immutable;
using Google.OrTools.Sat;
using Halterion.Core.Moves;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;

namespace Halterion.Drafting;

/// <summary>Chooses by CP-SAT: one worker, a fixed seed and a limit of deterministic time, so that it chooses the same again.</summary>
internal sealed class SolverChooser : IChooser
{
    /// <summary>Points to whole numbers.</summary>
    private const int Scale = 10;

    /// <summary>Of the brief's seconds, for one choice.</summary>
    private const decimal Part = 0.03m;

    /// <summary>The tables are small: looking for structure in them takes longer than choosing.</summary>
    private const string Plainly = "log_search_progress:false cp_model_probing_level:0 symmetry_level:0 linearization_level:0";

    private static readonly Lazy<bool> there = new(() =>
    {
        try
        {
            // The smallest thing that needs it.
            new CpSolver { StringParameters = "num_workers:1" }.Solve(new CpModel());
            return true;
        }
        catch (Exception e) when (e is DllNotFoundException or TypeInitializationException or BadImageFormatException
            or EntryPointNotFoundException)
        {
            return false;
        }
    });

    /// <summary>Whether its native library is on this machine.</summary>
    public static bool IsThere => there.Value;

    public ImmutableArray<DraftChoice>? Choose(ChoiceTable table, decimal seconds, int seed)
    {
        var model = new CpModel();
        var taken = table.Choices.Select(c => model.NewBoolVar(c.Move.Value)).ToArray();
        var cost = LinearExpr.NewBuilder();
        void Add(ILiteral what, decimal points) => cost.AddTerm((BoolVar)what, (long)(points * Scale));

        for (var i = 0; i < taken.Length; i++)
        {
            Add(taken[i], ChoiceTable.Price(table.Choices[i]));
            if (table.Forced.Contains(table.Choices[i].Move))
            {
                model.Add(taken[i] == 1);
            }
        }

        foreach (var item in table.Choices.SelectMany(c => c.Items).Distinct())
        {
            var fetched = model.NewBoolVar(item);
            foreach (var i in At(table, c => c.Items.Contains(item)))
            {
                model.AddImplication(taken[i], fetched);
            }

            Add(fetched, table.PerItem);
        }

        // One number of stations; what depends on it holds where it is the one.
        var counts = table.Counts.ToDictionary(c => c.Key, c => model.NewBoolVar($"n{c.Key}"));
        model.AddExactlyOne(counts.Values);
        var none = model.NewBoolVar("noneSideways");
        foreach (var (many, chosen) in counts)
        {
            model.Add(LinearExpr.Sum(taken) == many).OnlyEnforceIf(chosen);
            Add(chosen, table.Counts[many]);
            if (many >= 4)
            {
                model.AddBoolOr([.. At(table, c => c.IsSideways).Select(i => taken[i]), none, chosen.Not()]);
            }
        }

        Add(none, table.NoPlane);
        foreach (var family in ChoiceTable.Families)
        {
            var own = LinearExpr.Sum(At(table, c => c.Family == family).Select(i => taken[i]));
            var most = Math.Min(table.Counts.Keys.Max(), At(table, c => c.Family == family).Count());
            var each = Enumerable.Range(0, most + 1).Select(k => model.NewBoolVar($"{family}{k}")).ToArray();
            model.AddExactlyOne(each);
            for (var k = 0; k <= most; k++)
            {
                model.Add(own == k).OnlyEnforceIf(each[k]);
                foreach (var (many, chosen) in counts.Where(c => c.Key >= k))
                {
                    var both = model.NewBoolVar($"{family}{k}of{many}");
                    model.AddBoolOr([both, each[k].Not(), chosen.Not()]);
                    Add(both, table.Shares(family, k, many) + table.Neighbours(k, many));
                }
            }
        }

        foreach (var cut in table.Cuts)
        {
            var inside = At(table, c => cut.Contains(c.Move)).ToArray();
            if (inside.Length == cut.Count)
            {
                // Not these and no others: one of them is missing, or another one is there.
                model.AddBoolOr([.. inside.Select(i => taken[i].Not()), .. At(table, c => !cut.Contains(c.Move)).Select(i => taken[i])]);
            }
        }

        model.Minimize(cost);
        var solver = new CpSolver
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1 random_seed:{seed} max_deterministic_time:{seconds * Part:0.####} {Plainly}"),
        };
        var status = solver.Solve(model);
        if (status == CpSolverStatus.Optimal)
        {
            return [.. table.Choices.Where((_, i) => solver.BooleanValue(taken[i]))];
        }

        // Its time was up: what it has, bettered by exchanges, or what is found without it.
        var greedy = new GreedyChooser().Choose(table, seconds, seed);
        if (status != CpSolverStatus.Feasible)
        {
            return greedy;
        }

        var bettered = GreedyChooser.Bettered(
            table, [.. table.Choices.Where((_, i) => solver.BooleanValue(taken[i]))], seconds, new Random(seed));
        return greedy is { } other && table.Of(other) < table.Of(bettered) ? other : [.. bettered];
    }

    private static IEnumerable<int> At(ChoiceTable table, Func<DraftChoice, bool> which) =>
        Enumerable.Range(0, table.Choices.Length).Where(i => which(table.Choices[i]));
}
