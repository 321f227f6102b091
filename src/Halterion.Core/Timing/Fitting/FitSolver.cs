using System.Collections.Immutable;

namespace Halterion.Core.Timing.Fitting;

/// <summary>Something that is changed.</summary>
/// <param name="Choice">One that changes something.</param>
/// <param name="Delta">By how many seconds it alone changes the class.</param>
public sealed record FitPick(FitKinds Kind, FitChoice Choice, int Delta)
{
    /// <summary>What changes.</summary>
    public FitStep Step => Choice.Step!;
}

/// <summary>A choice of branches and levers.</summary>
/// <param name="Picks">What is changed, in the order of the class.</param>
public sealed record FitSolution(int Seconds, int Cost, ImmutableArray<FitPick> Picks);

/// <summary>
/// Finds the cheapest class that does not pass its slot, seconds to spare paid for: dynamic programming over seconds,
/// which is exact because both seconds and costs add up (Kellerer, Pferschy &amp; Pisinger, Knapsack Problems, 2004,
/// ch. 11: the multiple-choice knapsack; from memory).
/// </summary>
public static class FitSolver
{
    private const int None = int.MaxValue / 2;

    /// <summary>One branch of one block in the table, with the choice that led to each second of each lever.</summary>
    private sealed record Trace(FitBranch Branch, int Offset, ushort[][] Choices);

    /// <param name="spareWeight">Points for each second before the slot.</param>
    /// <returns>Null where even the shortest class does not fit.</returns>
    public static FitSolution? Solve(FitModel model, int spareWeight)
    {
        var room = model.Slot - model.Least;
        if (room < 0)
        {
            return null;
        }

        // No more room is needed than the longest class can fill.
        room = Math.Min(room,
            model.Blocks.Sum(
                b => b.Branches.Max(branch => branch.Fixed + branch.Levers.Sum(l => l.Choices.Max(c => c.Seconds))) - b.Least));
        var table = new int[room + 1];
        Array.Fill(table, None);
        table[0] = 0;
        var traces = new (Trace[] Branches, ushort[] Chosen)[model.Blocks.Length];
        for (var b = 0; b < model.Blocks.Length; b++)
        {
            traces[b] = Add(model.Blocks[b], ref table);
        }

        var end = End(table, model.Slot - model.Least, spareWeight);
        return new FitSolution(model.Least + end, table[end], Back(model, traces, end));
    }

    private static (Trace[] Branches, ushort[] Chosen) Add(FitBlock block, ref int[] table)
    {
        var best = new int[table.Length];
        Array.Fill(best, None);
        var chosen = new ushort[table.Length];
        var branches = new Trace[block.Branches.Length];
        for (var i = 0; i < branches.Length; i++)
        {
            var branch = block.Branches[i];
            var offset = branch.Least - block.Least;
            var costs = new int[table.Length];
            Array.Fill(costs, None);
            for (var t = 0; t + offset < table.Length; t++)
            {
                costs[t + offset] = table[t] + branch.Cost;
            }

            var choices = new ushort[branch.Levers.Length][];
            for (var l = 0; l < branch.Levers.Length; l++)
            {
                choices[l] = Pull(branch.Levers[l], ref costs);
            }

            branches[i] = new Trace(branch, offset, choices);
            for (var t = 0; t < costs.Length; t++)
            {
                if (costs[t] < best[t])
                {
                    (best[t], chosen[t]) = (costs[t], (ushort)i);
                }
            }
        }

        table = best;
        return (branches, chosen);
    }

    private static ushort[] Pull(FitLever lever, ref int[] costs)
    {
        var next = new int[costs.Length];
        Array.Fill(next, None);
        var chosen = new ushort[costs.Length];
        var least = lever.Least;
        for (var c = 0; c < lever.Choices.Length; c++)
        {
            var (more, cost) = (lever.Choices[c].Seconds - least, lever.Choices[c].Cost);
            if (more >= costs.Length)
            {
                continue;
            }

            var from = costs.AsSpan(0, costs.Length - more);
            var to = next.AsSpan(more, from.Length);
            var marks = chosen.AsSpan(more, from.Length);
            for (var t = 0; t < from.Length; t++)
            {
                var sum = from[t] + cost;
                if (sum < to[t])
                {
                    to[t] = sum;
                    marks[t] = (ushort)c;
                }
            }
        }

        costs = next;
        return chosen;
    }

    /// <summary>The cheapest end, of equals the latest; there always is one, for all at their least is one.</summary>
    private static int End(int[] table, int slot, int spareWeight)
    {
        var (best, least) = (0, long.MaxValue);
        for (var t = table.Length - 1; t >= 0; t--)
        {
            var cost = table[t] >= None ? long.MaxValue : table[t] + (long)spareWeight * (slot - t);
            if (cost < least)
            {
                (best, least) = (t, cost);
            }
        }

        return best;
    }

    private static ImmutableArray<FitPick> Back(FitModel model, (Trace[] Branches, ushort[] Chosen)[] traces, int end)
    {
        var picks = new List<FitPick>();
        for (var b = traces.Length - 1; b >= 0; b--)
        {
            var trace = traces[b].Branches[traces[b].Chosen[end]];
            for (var l = trace.Choices.Length - 1; l >= 0; l--)
            {
                var lever = trace.Branch.Levers[l];
                var choice = lever.Choices[trace.Choices[l][end]];
                end -= choice.Seconds - lever.Least;
                if (choice.Step is not null)
                {
                    picks.Add(new FitPick(lever.Kind, choice, choice.Seconds - lever.Choices[0].Seconds));
                }
            }

            end -= trace.Offset;
            picks.AddRange(trace.Branch.Picks.Reverse());
        }

        picks.Reverse();
        return [.. picks];
    }
}
