using System.Globalization;
using Google.OrTools.Sat;

namespace Halterion.Core.Timing.Fitting;

/// <summary>The fit once more, as a model for the CP-SAT solver of Google OR-Tools: what tests and bench compare with.</summary>
internal static class ReferenceFit
{
    /// <summary>The least price of a class that ends in its slot; null if there is none.</summary>
    /// <param name="limit">How much to look for it, in the solver's own measure of work (about a second each), the same on every
    /// machine.</param>
    /// <returns>Proven: false where the limit came first.</returns>
    public static (bool Proven, int? Price) Solve(FitModel model, FitTerms terms, double limit)
    {
        var sat = new CpModel();
        var (seconds, costs) = (new List<LinearExpr>(), new List<LinearExpr>());
        foreach (var block in model.Blocks)
        {
            var branches = block.Branches.Select(_ => sat.NewBoolVar("branch")).ToArray();
            sat.AddExactlyOne(branches);
            foreach (var (branch, on) in block.Branches.Zip(branches))
            {
                seconds.Add(on * branch.Fixed);
                costs.Add(on * branch.Cost);
                foreach (var lever in branch.Levers)
                {
                    var choices = lever.Choices.Select(_ => sat.NewBoolVar("choice")).ToArray();
                    sat.Add(LinearExpr.Sum(choices) == on);
                    seconds.AddRange(choices.Zip(lever.Choices, (v, c) => v * c.Seconds));
                    costs.AddRange(choices.Zip(lever.Choices, (v, c) => v * c.Cost));
                }
            }
        }

        var total = LinearExpr.Sum(seconds);
        sat.Add(total <= model.Slot);
        sat.Minimize(LinearExpr.Sum(costs) - total * terms.SpareWeight + terms.SpareWeight * model.Slot);
        using var solver = new CpSolver
        {
            StringParameters = string.Create(CultureInfo.InvariantCulture, $"num_workers:1,random_seed:1,max_deterministic_time:{limit}"),
        };
        return solver.Solve(sat) switch
        {
            CpSolverStatus.Optimal => (true, (int)Math.Round(solver.ObjectiveValue)),
            CpSolverStatus.Infeasible => (true, null),
            _ => (false, null),
        };
    }
}
