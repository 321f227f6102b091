using Halterion.Core.PlanFormat;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>The rounds that are the goal at one's own pace can be done in its time.</summary>
public sealed class GoalsCanBeReached() : Rule(
    "time.goal", "The goal of an own-pace block can be reached in its time.", "A goal that nobody can reach makes everyone rush.", Common,
    "Some set it out of reach on purpose, to see how far each comes.")
{
    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from goal in Goals.Of(review.Plan)
        let block = review.Plan.Blocks[goal.Block]
        where goal.Seconds > block.Length
        let fits = block.Length.Value * goal.Rounds / goal.Seconds.Value
        select Found(
            Severity.Consider, block.Id,
            $"“{block.Name}”: {goal.Rounds} {(goal.Rounds == 1 ? "round takes" : "rounds take")} {goal.Seconds} without any pause; there "
            + $"are {block.Length}.",
            [.. Enumerable.Range(1, Math.Max(0, goal.Rounds - 1)).Reverse().Where(r => r <= fits).Take(1)
                .Select(r => new Repair(r == 1 ? "1 round" : $"{r} rounds", Edit.Set($"/blocks/{goal.Block}/rounds", r)))]);
}
