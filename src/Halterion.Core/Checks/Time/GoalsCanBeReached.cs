using Halterion.Core.PlanFormat;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>The rounds that are the goal at one's own pace can be done in its time.</summary>
public sealed class GoalsCanBeReached() : Rule(
    "time.goal",
    "Own-pace goals can be reached",
    "A goal no one can reach makes everyone rush.", Common,
    "Some set it out of reach on purpose, to see how far each comes.")
{
    /// <inheritdoc/>
    public override string? Several => "goals are out of reach";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from goal in Goals.Of(review.Plan)
        let block = review.Plan.Blocks[goal.Block]
        where goal.Seconds > block.Length
        let fits = block.Length.Value * goal.Rounds / goal.Seconds.Value
        select Found(
            Severity.Consider, block.Id,
            $"{block.Name}: {Counted.Of(goal.Rounds, "round takes", "rounds take")} {goal.Seconds} without a pause, but the block is "
            + $"{block.Length}.",
            [.. Enumerable.Range(1, Math.Max(0, goal.Rounds - 1)).Reverse().Where(r => r <= fits).Take(1)
                .Select(r => new Repair($"Set the goal to "
                    + $"{Counted.Of(r, "round", "rounds")}", Edit.Set($"/blocks/{goal.Block}/rounds", r)))]);
}
