using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core.PlanFormat;

namespace Halterion.Core.Checks;

/// <summary>How much a finding matters (handbook, section 9).</summary>
public enum Severity
{
    /// <summary>Do not run it so.</summary>
    Stop,
    /// <summary>To be mended before class.</summary>
    Fix,
    /// <summary>Worth a thought.</summary>
    Consider,
    /// <summary>Good to know.</summary>
    Note,
}

/// <summary>
/// A way out of a finding: a title, and ways to do it, the best first. Which of them is taken, is found out by trying them.
/// </summary>
/// <param name="Ways">Each changes the class file in place; worked out when they are asked for.</param>
public sealed record Repair(string Title, [property: JsonIgnore] Func<IEnumerable<Action<JsonObject>>> Ways)
{
    /// <summary>A repair that changes the class file.</summary>
    public Repair(string title, params Edit[] edits)
        : this(title, root => Array.ForEach(edits, edit => edit.ApplyTo(root)))
    {
    }

    /// <summary>A repair that changes the class file.</summary>
    public Repair(string title, Action<JsonObject> way)
        : this(title, () => [way])
    {
    }

    /// <summary>A repair whose edits are worked out when it is asked for.</summary>
    public static Repair Later(string title, Func<IEnumerable<Edit>> edits) => new(title, root =>
    {
        foreach (var edit in edits())
        {
            edit.ApplyTo(root);
        }
    });
}

/// <summary>Something seen in a class: what, where, why, by which source, and what would mend it.</summary>
/// <param name="Code">Stable, such as <c>time.over</c>.</param>
/// <param name="Place">The id of the block, station or option, or <see cref="PlaceId.Class"/>.</param>
public sealed record Finding(string Code, Severity Severity, PlaceId Place, string What, ImmutableArray<Repair> Repairs)
{
    /// <summary>Why it matters.</summary>
    public string Why { get; init; } = "";

    /// <summary>Whose rule it is.</summary>
    public string Source { get; init; } = "";

    /// <summary>What others do; empty where nobody does otherwise.</summary>
    public string Others { get; init; } = "";

    /// <summary>What is behind the number; empty where the sentence says it all.</summary>
    public string Behind { get; init; } = "";

    /// <summary>The same place as a JSON Pointer into the class.</summary>
    public string Pointer { get; init; } = "";

    /// <summary>Where it is, in words: the name of the station or block; "the class".</summary>
    public string Where { get; init; } = "";

    /// <summary>When it comes in the class, in seconds; 0 for the class as a whole.</summary>
    public Seconds At { get; init; }

    /// <summary>It is waived for the occasion, not in the class.</summary>
    public bool OfSession { get; init; }

    /// <summary>The reason for which it is left as it is; null: it is not waived.</summary>
    public string? Waived { get; init; }

    /// <summary>Names the finding within one class.</summary>
    public string Key => $"{Code}@{Place}";
}
