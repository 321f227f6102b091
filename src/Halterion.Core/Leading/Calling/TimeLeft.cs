using System.Collections.Immutable;
using System.Globalization;

namespace Halterion.Core.Leading.Calling;

/// <summary>
/// How what is left of a class is said: to the nearest half minute, under a minute to ten seconds. leading.md, "Calls", 7.
/// </summary>
/// <param name="Under">Less than so much is left.</param>
public sealed record TimeLeft(decimal Under, string Words)
{
    private const int Minute = 60;
    private const int Half = 30;
    private const int Ten = 10;

    /// <summary>A class that runs late may have so much more to go than it was planned to have. [M]</summary>
    private const int More = 1800;

    /// <summary>What can be left of a class, the shortest first.</summary>
    public static ImmutableArray<TimeLeft> UpTo(Seconds length) =>
    [
        .. Enumerable.Range(1, (Minute / Ten) - 1).Select(n => new TimeLeft((n * Ten) + (Ten / 2m), Of(n * Ten))),
        new TimeLeft(Minute, Of(Minute - 1)),
        .. Enumerable.Range(2, (length.Value + More) / Half).Select(n => new TimeLeft((n * Half) + (Half / 2m), Of(n * Half))),
    ];

    /// <summary>What is left, such as "7 and a half minutes left" or "40 seconds left".</summary>
    public static string Of(decimal seconds)
    {
        if (seconds < Minute)
        {
            return $"{Written((int)Math.Max(Ten, Math.Round(seconds / Ten, MidpointRounding.AwayFromZero) * Ten))} seconds left";
        }

        var halves = (int)Math.Round(seconds / Half, MidpointRounding.AwayFromZero);
        return (halves / 2, halves % 2) switch
        {
            (1, 0) => "1 minute left",
            (1, _) => "A minute and a half left",
            (var whole, 0) => $"{Written(whole)} minutes left",
            var (whole, _) => $"{Written(whole)} and a half minutes left",
        };
    }

    private static string Written(int number) => number.ToString(CultureInfo.InvariantCulture);
}
