using System.Collections.Immutable;

namespace Halterion.Core.Planning;

/// <summary>
/// How long each move is shown in a walk-through. Common practice, no source: seen from 11 s in brief to 140 s with all options and faults.
/// </summary>
public sealed record WalkThroughPace(string Name, Seconds Seconds)
{
    /// <summary>How long a station is shown, as it can be chosen.</summary>
    public static readonly ImmutableArray<WalkThroughPace> All =
    [
        new("brief", new Seconds(15)),
        new("usual", new Seconds(45)),
        new("full, with every option", new Seconds(90)),
    ];
}
