using System.Collections.Immutable;

namespace Halterion.Core.Leading;

/// <summary>How a signal sounds: one table for the screens, the page that is taken along and the sound file.</summary>
/// <param name="Pitch">Hertz.</param>
/// <param name="Length">Seconds that a strike rings.</param>
/// <param name="Apart">Seconds from one strike to the next.</param>
public sealed record Bell(CueKind Kind, double Pitch, double Length, int Strikes, double Apart)
{
    /// <summary>Near enough to be one signal, far enough to be counted. [M]</summary>
    private const double BetweenStrikes = 0.28;

    /// <summary>Our own small set: a start is high and long, an end low. [M]</summary>
    public static ImmutableArray<Bell> Table { get; } =
    [
        new(CueKind.Count, 520, 0.12, 1, BetweenStrikes),
        new(CueKind.Start, 1040, 0.55, 1, BetweenStrikes),
        new(CueKind.Switch, 780, 0.3, 2, BetweenStrikes),
        new(CueKind.Warning, 640, 0.08, 2, BetweenStrikes),
        new(CueKind.End, 390, 0.9, 1, BetweenStrikes),
        new(CueKind.Finish, 390, 1.2, 3, BetweenStrikes),
    ];

    /// <summary>The bell of a cue.</summary>
    public static Bell Of(CueKind kind) => Table.First(b => b.Kind == kind);
}
