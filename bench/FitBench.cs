using System.Diagnostics;
using System.Globalization;
using Halterion.Core;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;
using Halterion.Core.Timing.Refitting;

/// <summary>Fit on the class of the bench, for twenty slots around its length, against CP-SAT on the same models.</summary>
internal static class FitBench
{
    private const double Aim = 50;
    private const int Cases = 20;

    /// <summary>
    /// CP-SAT is stopped after about so many seconds; a case that it had not finished counts with this time, so the ratio is a least.
    /// </summary>
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
        Console.WriteLine(string.Create(
            CultureInfo.InvariantCulture,
            $"{"fit, three ways",-22} {times[times.Length / 2],8:0.000} ms median, {late:0.000} ms 95th, aim {Aim} ms, "
            + $"{late / Aim:0.00} of it"));

        Refits(plan, terms);
        var (ours, theirs, unfinished) = (0.0, 0.0, 0);
        foreach (var slot in slots.Where((_, i) => i % 5 == 0))
        {
            var model = FitModel.Of(slot, terms);
            var start = Stopwatch.GetTimestamp();
            FitSolver.Solve(model, terms.SpareWeight);
            ours += Stopwatch.GetElapsedTime(start).TotalMilliseconds;
            start = Stopwatch.GetTimestamp();
            unfinished += ReferenceFit.Solve(model, terms, ReferenceLimit).Proven ? 0 : 1;
            theirs += Stopwatch.GetElapsedTime(start).TotalMilliseconds;
        }

        Console.WriteLine(string.Create(
            CultureInfo.InvariantCulture,
            $"{"one fit against CP-SAT",-22} {theirs / ours,8:0} times as fast (aim 20); {unfinished} of 4 cases unfinished by CP-SAT "
            + $"after about {ReferenceLimit} s"));
    }

    /// <summary>Ways back, from twenty places of the class, each 6 min late.</summary>
    private static void Refits(ClassPlan plan, FitTerms terms)
    {
        var timeline = Compiler.Compile(plan).Timeline!;
        var places = Enumerable.Range(0, Cases)
            .Select(i => ClassUnderWay.At(timeline, new Seconds(timeline.Length.Value * i / Cases)))
            .ToArray();
        void Once(int i) => Refit.Of(plan, timeline, places[i % Cases], places[i % Cases].Left - new Seconds(360), terms);
        for (var i = 0; i < 40; i++)
        {
            Once(i);
        }

        var times = new double[200];
        for (var i = 0; i < times.Length; i++)
        {
            var start = Stopwatch.GetTimestamp();
            Once(i);
            times[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
        }

        Array.Sort(times);
        var late = times[times.Length * 95 / 100];
        Console.WriteLine(string.Create(
            CultureInfo.InvariantCulture,
            $"{"refit, three ways",-22} {times[times.Length / 2],8:0.000} ms median, {late:0.000} ms 95th, aim {Aim} ms, "
            + $"{late / Aim:0.00} of it"));
    }
}
