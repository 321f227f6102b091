using System.Collections.Immutable;

namespace Halterion.Core.PlanFormat;

/// <summary>All faults of one reading, in the order they were met.</summary>
public sealed class Faults
{
    /// <summary>Past this many a reader gains nothing from one more.</summary>
    private const int Most = 200;

    private readonly List<PlanFault> found = [];

    /// <summary>A field that is null is one that is left out: so in requests, not in class files.</summary>
    public bool NullIsAbsent { get; init; }

    /// <summary>Nothing is wrong.</summary>
    public bool None => found.Count == 0;

    /// <summary>In the order in which they were met.</summary>
    public ImmutableArray<PlanFault> All => [.. found];

    /// <summary>Notes one fault more.</summary>
    public void Add(string pointer, string detail, string right)
    {
        if (found.Count < Most)
        {
            found.Add(new PlanFault(pointer, detail, right));
        }
    }
}
