using System.Diagnostics;
using System.Globalization;
using Google.OrTools.Sat;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

/// <summary>Fit on the class of the bench, for twenty slots around its length, against CP-SAT on the same models.</summary>
internal static class FitBench
{
    private const double Aim = 50;
    private const int Cases = 20;

    /// <summary>CP-SAT is stopped after this; a case that it had not finished counts with this time, so the ratio is a least.</summary>
    private const double ReferenceLimit = 10;

    public static void Run(ClassPlan plan)
    {
        var terms = new FitTerms();
        var slots = Enumerable.Range(0, Cases).Select(i => plan with { SlotMinutes = plan.SlotMinutes - 5 + i / 2 }).ToArray();
        for (var i = 0; i < 40; i++)
        {
            Fit.Of(slots[i % Cases], terms);
        }

        var times = new double[200];
        for (var i = 0; i < times.Length; i++)
        {
            var start = Stopwatch.GetTimestamp();
            Fit.Of(slots[i % Cases], terms);
            times[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
        }

        Array.Sort(times);
        var late = times[times.Length * 95 / 100];
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{"fit, three ways",-22} {times[times.Length / 2],8:0.000} ms median, {late:0.000} ms 95th, aim {Aim} ms, {late / Aim:0.00} of it"));

        var (ours, theirs, unfinished) = (0.0, 0.0, 0);
        foreach (var slot in slots.Where((_, i) => i % 5 == 0))
        {
            var model = FitModel.Of(slot, terms);
            var start = Stopwatch.GetTimestamp();
            FitSolver.Solve(model, terms.SpareWeight);
            ours += Stopwatch.GetElapsedTime(start).TotalMilliseconds;
            start = Stopwatch.GetTimestamp();
            unfinished += Reference(model, terms) ? 0 : 1;
            theirs += Stopwatch.GetElapsedTime(start).TotalMilliseconds;
        }

        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{"one fit against CP-SAT",-22} {theirs / ours,8:0} times as fast (aim 20); {unfinished} of 4 cases unfinished by CP-SAT after {ReferenceLimit} s"));
    }

    private static bool Reference(FitModel model, FitTerms terms)
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
        sat.Minimize(LinearExpr.Sum(costs) - total * terms.SpareWeight);
        using var solver = new CpSolver { StringParameters = string.Create(CultureInfo.InvariantCulture, $"num_workers:1,random_seed:1,max_time_in_seconds:{ReferenceLimit}") };
        return solver.Solve(sat) == CpSolverStatus.Optimal;
    }
}
