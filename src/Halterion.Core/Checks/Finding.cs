using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
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
/// <param name="Make">What it sets, and where; worked out when it is asked for, on the server only.</param>
public sealed record Repair(string Title, [property: JsonIgnore] Func<ImmutableArray<Edit>> Make)
{
    public Repair(string title, ImmutableArray<Edit> edits)
        : this(title, () => edits)
    {
    }
}

/// <summary>Something seen in a class: what, where, why, by which source, and what would mend it.</summary>
/// <param name="Code">Stable, such as <c>time.over</c>.</param>
/// <param name="Place">The id of the block, station or option, or <see cref="PlaceId.Class"/>.</param>
public sealed record Finding(
    string Code,
    Severity Severity,
    PlaceId Place,
    string What,
    string Why,
    string Source,
    ImmutableArray<Repair> Repairs)
{
    /// <summary>The same place as a JSON Pointer into the class.</summary>
    public string Pointer { get; init; } = "";

    /// <summary>The reason for which it is left as it is; null: it is not waived.</summary>
    public string? Waived { get; init; }

    /// <summary>Names the finding within one class.</summary>
    public string Key => $"{Code}@{Place}";
}

/// <summary>All that a rule may look at.</summary>
public sealed record ClassReview(ClassPlan Plan, Timeline Timeline, Preferences Preferences)
{
    public MoveLibrary Moves => Plan.Moves;

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
    private static readonly ImmutableArray<IRule> All = [new EndsOnTime(), new TargetFitsWindow(), new ChangesAreLongEnough(), new OptionsBothWays(), new OptionsInOrder()];

    /// <summary>All findings, at most one a code and place; one that is waived says why and stands last.</summary>
    public static ImmutableArray<Finding> Check(ClassReview review)
    {
        var reasons = review.Plan.Waivers.GroupBy(w => (w.Code, w.Place)).ToDictionary(g => g.Key, g => g.First().Reason);
        var pointers = Places.PointersOf(review.Plan);
        return [.. All.SelectMany(rule => rule.Check(review))
            .DistinctBy(f => (f.Code, f.Place))
            .Select(f => f with { Pointer = pointers[f.Place], Waived = reasons.GetValueOrDefault((f.Code, f.Place)) })
            .OrderBy(f => f.Waived is not null)];
    }
}
