using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>The goals of the own-pace blocks of a class (plan-language.md, "What evaluation returns").</summary>
public static class Goals
{
    /// <summary>What the rounds of own-pace blocks take one person.</summary>
    public static ImmutableArray<Goal> Of(ClassPlan plan) =>
        [
            .. plan.Blocks.Select((block, index) => (Block: block, Index: index))
                .Where(b => b.Block.GoalRounds)
                .Select(b => Of(b.Block, b.Index))];

    private static Goal Of(Block block, int index)
    {
        var counts = Counts.Of(block);
        var seconds = Enumerable.Range(0, block.Rounds).Sum(round =>
            block.Stations.Sum(station => (long)DoseClock.Total(DoseClock.Stretches(station, block, round, Side.Both))));
        return new Goal(index, block.Rounds, new Seconds((int)Math.Min(seconds, int.MaxValue)), counts.Left, counts.Right);
    }
}
