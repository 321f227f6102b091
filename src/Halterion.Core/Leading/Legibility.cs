using System.Collections.Immutable;

namespace Halterion.Core.Leading;

/// <summary>How tall a digit must be to be read from a distance.</summary>
/// <param name="Metres">From the last row to the screen.</param>
/// <param name="Millimetres">Of the digit itself, not of its type size.</param>
public sealed record DigitHeight(double Metres, int Millimetres);

/// <summary>What can be read from the back of the room.</summary>
public static class Legibility
{
    /// <summary>The height of a character that is read with ease, in minutes of arc (ISO 9241-303: 20 to 22).</summary>
    public const double ArcMinutes = 22;

    private const double Nearest = 2;
    private const double Furthest = 30;
    private const double Step = 0.5;

    /// <summary>h = 2 d tan(α ÷ 2), rounded up: no digit is smaller than it must be.</summary>
    public static int Height(double metres) => (int)Math.Ceiling(2 * metres * 1000 * Math.Tan(ArcMinutes / 60 * Math.PI / 180 / 2));

    /// <summary>For every distance that can be chosen, so that a screen without the server still has them.</summary>
    public static readonly ImmutableArray<DigitHeight> Heights =
    [
        .. Enumerable.Range(0, (int)((Furthest - Nearest) / Step) + 1)
            .Select(i => Nearest + (i * Step))
            .Select(d => new DigitHeight(d, Height(d))),
    ];
}
