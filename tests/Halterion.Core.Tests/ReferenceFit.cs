using System.Globalization;
using Google.OrTools.Sat;

namespace Halterion.Core.Timing.Fitting;

/// <summary>The fit once more, as a model for the CP-SAT solver of Google OR-Tools: what tests and bench compare with.</summary>
internal static class ReferenceFit
{
    /// <summary>The least price of a class that ends in its slot.</summary>
    /// <param name="limit">Seconds to look for it; none for as long as it takes.</param>
    /// <returns>Null if there is none, or none was proven the least in time.</returns>
    public static int? Solve(FitModel model, FitTerms terms, double? limit = null)
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
                costs.Add(on * branch.Rounds.Cost);
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
        var within = limit is null ? "" : string.Create(CultureInfo.InvariantCulture, $",max_time_in_seconds:{limit}");
        using var solver = new CpSolver { StringParameters = $"num_workers:1,random_seed:1{within}" };
        return solver.Solve(sat) == CpSolverStatus.Optimal ? (int)Math.Round(solver.ObjectiveValue) : null;
    }
}
