using System.Collections.Immutable;

using Halterion.Core.Logbook;
using Halterion.Core.Plans;

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
        new("full (every option)", new Seconds(90)),
    ];

    /// <summary>What can be chosen by one of whom it is known how long they really talk.</summary>
    /// <param name="real">See <see cref="Preferences.Real"/>.</param>
    public static ImmutableArray<WalkThroughPace> Of(ImmutableSortedDictionary<string, decimal> real) =>
        real.TryGetValue(LearntPace.Talk, out var talk)
            ? [.. All, new("usual, as you really talk", new Seconds((int)Math.Ceiling(All[1].Seconds.Value * talk / Grain) * Grain))]
            : All;

    /// <summary>Nobody plans talk to the second.</summary>
    private const int Grain = 5;
}
