using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>One move has one name in a class, and one name is one move.</summary>
public sealed class OneNameForOneMove() : OptionRule(
    "words.names",
    "One name for one move",
    "People look for a second move where there is only one, or do the wrong one.",
    Common,
    "Some name a station after what it is for: then all of that move do well to carry the name.")
{
    /// <inheritdoc/>
    public override string? Several => "names do not match their moves";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        var seen = new List<(StationAt At, string Moves)>();
        foreach (var at in Judged(review))
        {
            var moves = string.Join(" ", review.Works(at).Select(p => p.Move.Id.Value).Distinct());
            if (seen.Find(s => s.Moves == moves && s.At.Name != at.Name) is { At: { } other })
            {
                yield return Found(
                    Severity.Consider, at.Id, $"“{at.Name}” and “{other.Name}” are the same move under two names.",
                    new Repair($"Rename to “{other.Name}”", new Edit($"{at.Pointer}/name", other.Name)));
            }
            else if (seen.Find(s => s.Moves != moves && s.At.Name == at.Name) is { At: { } first })
            {
                var own = review.Moves.Find(at.Station.Main.Move)!.Name;
                yield return Found(
                    Severity.Consider, at.Id, $"“{at.Name}” is a different move from the “{at.Name}” in {first.Block.Name}.",
                    new Repair($"Rename to “{own}”", new Edit($"{at.Pointer}/name", own)));
            }

            seen.Add((at, moves));
        }
    }
}
