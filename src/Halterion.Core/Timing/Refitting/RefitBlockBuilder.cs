using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Timing.Refitting;

/// <summary>Finds what may still change in one block of a class under way, what each change saves and what it costs.</summary>
internal sealed class RefitBlockBuilder(ClassPlan plan, int index, Timeline timeline, int first, int end, ClassUnderWay now, FitTerms terms)
{
    private const int MostBranches = 600;

    private readonly Block block = plan.Blocks[index];
    private readonly RefitLevers levers = new(plan, index, timeline, first, end, now, terms);

    /// <param name="unlock">It may change although it is protected.</param>
    public FitBlock Build(bool unlock)
    {
        var whole = Left(_ => false);
        if (now.UnderWay >= end || (block.Keep == Keep.Protected && !unlock))
        {
            return new FitBlock([new FitBranch(whole, [], [])]);
        }

        var branches = ImmutableArray.CreateBuilder<FitBranch>();
        if (block.Shape == BlockShape.Sets && block.OptionalRounds > 0)
        {
            branches.AddRange(Sets());
        }
        else
        {
            branches.Add(Branch(_ => false, [], levers.All(_ => false)));
            for (var less = 1; less <= block.OptionalRounds; less++)
            {
                if (RoundsOff(less) is { } off)
                {
                    branches.Add(off);
                }
            }
        }

        if (block.Keep == Keep.Droppable && now.UnderWay < first)
        {
            branches.Add(new FitBranch(
                0,
                [Pick(FitKinds.Blocks, terms.PerChange + 100 * terms.RoundWeight, -whole, $"Leave out {block.Name}",
                    Enumerable.Range(first, end - first), _ => 0)],
                []));
        }

        return new FitBlock(branches.ToImmutable());
    }

    private int Left(Func<int, bool> gone) => Enumerable.Range(first, end - first).Where(i => !gone(i)).Sum(now.LeftOf);

    private FitBranch Branch(Func<int, bool> gone, ImmutableArray<FitPick> picks, IEnumerable<FitLever> found)
    {
        var real = found.Where(l => l.Choices.Length > 1).ToImmutableArray();
        return new FitBranch(Left(gone) - real.Sum(l => l.Choices[0].Seconds), picks, real);
    }

    private static FitPick Pick(FitKinds kind, int cost, int delta, string words, IEnumerable<int> spans, Func<int, int> length) =>
        new(kind, new FitChoice(0, cost, new FitStep(words, []) { Lengths = [.. spans.Select(i => new NewLength(i, length(i)))] }), delta);

    /// <summary>The last rounds left out; null while one of them has begun, or where a side would be done without the other.</summary>
    private FitBranch? RoundsOff(int less)
    {
        if (block.SidePass == SidePass.Alternate && less % 2 != 0)
        {
            return null;
        }

        // The rest before a round goes with it, unless it is under way: what has begun ends.
        bool Gone(int i) => i > now.UnderWay && levers.RoundOf(i) >= block.Rounds - less;
        var spans = Enumerable.Range(first, end - first).Where(i => levers.RoundOf(i) >= block.Rounds - less).ToArray();
        if (spans.Any(i => i <= now.UnderWay && timeline.Spans[i].Gap is not Gap.Rounds))
        {
            return null;
        }

        var gone = spans.Where(Gone).ToArray();
        var cost = terms.Cost(terms.OptionalRoundWeight, less, block.Rounds);
        var words = $"{block.Name}: {block.Rounds} → {block.Rounds - less} rounds";
        return gone.Length == 0
            ? null
            : Branch(Gone, [Pick(FitKinds.Rounds, cost, -gone.Sum(now.LeftOf), words, gone, _ => 0)], levers.All(Gone));
    }

    /// <summary>
    /// Sets are left out station by station. What that saves hangs on the levers that change those sets too, so that each
    /// combination of them is a branch, and the stations are levers in it.
    /// </summary>
    private IEnumerable<FitBranch> Sets()
    {
        bool MayGo(int span) => span > now.UnderWay && levers.RoundOf(span) >= block.Rounds - block.OptionalRounds;
        var all = levers.All(_ => false).Where(l => l.Choices.Length > 1).ToArray();
        var tied = all.Where(l => l.Choices[^1].Step!.Lengths.Any(n => MayGo(n.Span))).ToArray();
        IEnumerable<ImmutableArray<FitPick>> combined = [[]];
        var many = 1;
        foreach (var lever in tied)
        {
            var choices = Thinned(lever.Choices, MostBranches / many);
            many *= choices.Length;
            combined = combined.SelectMany(
                _ => choices,
                (picks, choice) => choice.Step is null ? picks
                    : picks.Add(new FitPick(lever.Kind, choice, choice.Seconds - lever.Choices[0].Seconds))).ToArray();
        }

        foreach (var picks in combined)
        {
            var lengths = picks.SelectMany(p => p.Step.Lengths).ToDictionary(l => l.Span, l => l.Seconds);
            var standing = now with { Lengths = [.. now.Lengths.Select((seconds, i) => lengths.GetValueOrDefault(i, seconds))] };
            var inside = Enumerable.Range(0, block.Stations.Length).Select(s => SetsOff(s, standing)).Where(l => l.Choices.Length > 1)
                .Concat(all.Except(tied)).ToImmutableArray();
            yield return new FitBranch(
                Enumerable.Range(first, end - first).Sum(standing.LeftOf) - inside.Sum(l => l.Choices[0].Seconds), picks, inside);
        }
    }

    /// <summary>A class in which more hangs together than can be tried in time has its lengths changed in coarser steps.</summary>
    private static ImmutableArray<FitChoice> Thinned(ImmutableArray<FitChoice> choices, int most) =>
        choices.Length <= Math.Max(2, most)
            ? choices
            : [.. Enumerable.Range(0, Math.Max(2, most)).Select(i => choices[i * (choices.Length - 1) / (Math.Max(2, most) - 1)])];

    /// <summary>The last sets of a station, or of the string that begins with it, left out while none of them has begun.</summary>
    private FitLever SetsOff(int station, ClassUnderWay standing)
    {
        var choices = ImmutableArray.CreateBuilder<FitChoice>();
        choices.Add(new FitChoice(0, 0));
        if (station > 0 && block.Stations[station - 1].WithNext)
        {
            return new FitLever(FitKinds.Rounds, choices.ToImmutable());
        }

        var tied = block.Stations[station].WithNext ? block.StringFrom(station).Length : 1;
        bool Here(int i) => timeline.Spans[i].Station is { } s && s >= station && s < station + tied;
        var name = block.Stations[station].Name;
        var most = Enumerable.Range(first, end - first)
            .Where(i => Here(i) && levers.RoundOf(i) >= block.Rounds - block.OptionalRounds)
            .ToArray();
        choices[0] = new FitChoice(most.Where(i => i > now.UnderWay).Sum(standing.LeftOf), 0);
        for (var less = 1; less <= block.OptionalRounds; less++)
        {
            var spans = most.Where(i => levers.RoundOf(i) >= block.Rounds - less).ToArray();
            if (spans.Length == 0 || spans.Any(i => i <= now.UnderWay && timeline.Spans[i].Gap is not Gap.Rounds))
            {
                continue;
            }

            var gone = spans.Where(i => i > now.UnderWay).ToArray();
            choices.Add(new FitChoice(
                choices[0].Seconds - gone.Sum(standing.LeftOf),
                terms.Cost(terms.OptionalRoundWeight, less, block.Rounds),
                new FitStep(string.Create(CultureInfo.InvariantCulture, $"{block.Name}, {name}: {block.Rounds} → "
                    + $"{block.Rounds - less} sets"), [])
                {
                    Lengths = [.. gone.Select(i => new NewLength(i, 0))],
                }));
        }

        return new FitLever(FitKinds.Rounds, choices.ToImmutable());
    }
}
