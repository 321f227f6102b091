using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>One move has one name in a class, and one name is one move.</summary>
public sealed class OneNameForOneMove() : OptionRule(
    "words.names",
    "In a class one move has one name, and one name means one move.",
    "People look for a second move where there is only one, or do the first where the second is meant.",
    Common,
    "Some name a station after what it is for: then all of that move do well to carry the name.")
{
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
                    Severity.Consider, at.Id, $"“{at.Name}” is the same move as “{other.Name}”.",
                    new Repair($"Call it “{other.Name}”", new Edit($"{at.Pointer}/name", other.Name)));
            }
            else if (seen.Find(s => s.Moves != moves && s.At.Name == at.Name) is { At: { } first })
            {
                var own = review.Moves.Find(at.Station.Main.Move)!.Name;
                yield return Found(
                    Severity.Consider, at.Id, $"“{at.Name}” is another move than in “{first.Block.Name}”.",
                    new Repair($"Call it “{own}”", new Edit($"{at.Pointer}/name", own)));
            }

            seen.Add((at, moves));
        }
    }
}
