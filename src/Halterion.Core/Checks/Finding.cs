using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>How much a finding matters (handbook, section 9).</summary>
public enum Severity
{
    /// <summary>Do not run it so.</summary>
    Stop,
    Fix,
    Consider,
    Note,
}

/// <summary>A way out of a finding: a title and what it does to the class.</summary>
/// <param name="Edits">What it sets, and where; applied by the server only.</param>
public sealed record Repair(string Title, [property: JsonIgnore] ImmutableArray<Edit> Edits);

/// <summary>Something seen in a class: what, where, why, by which source, and what would mend it.</summary>
/// <param name="Code">Stable, such as <c>time.over</c>.</param>
/// <param name="Pointer">Where, as a JSON Pointer into the class.</param>
public sealed record Finding(
    string Code,
    Severity Severity,
    string Pointer,
    string What,
    string Why,
    string Source,
    ImmutableArray<Repair> Repairs)
{
    /// <summary>Names the finding within one class.</summary>
    public string Key => $"{Code}@{Pointer}";
}

/// <summary>All that a rule may look at.</summary>
public sealed record ClassReview(ClassPlan Plan, Timeline Timeline, MoveLibrary Moves)
{
    public Seconds Over => Timeline.Length - Plan.Slot;
}

/// <summary>One check. It reads like its sentence in the handbook.</summary>
public interface IRule
{
    IEnumerable<Finding> Check(ClassReview review);
}

/// <summary>The rules, in the order in which their findings are shown.</summary>
public static class Rules
{
    private static readonly ImmutableArray<IRule> All = [new EndsOnTime(), new TargetFitsWindow(), new OptionsBothWays()];

    public static ImmutableArray<Finding> Check(ClassReview review) => [.. All.SelectMany(rule => rule.Check(review))];
}
