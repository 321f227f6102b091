using System.Collections.Immutable;
using Halterion.Core.Moves;

namespace Halterion.Core.Logbook;

/// <summary>A class in a calendar, planned or held.</summary>
/// <param name="Minutes">As planned.</param>
/// <param name="LedMinutes">As led; null: not held yet.</param>
/// <param name="Effort">The mean of what people told.</param>
/// <param name="Families">Of its main work, in order.</param>
/// <param name="Light">Much less than the others of its weeks.</param>
public sealed record CalendarClass(
    Guid Session, Guid Class, string Title, string StartsAt, int Minutes, int? LedMinutes, decimal? Effort, ImmutableArray<Family> Families,
    bool Light, bool Held)
{
    /// <summary>What it is planned to weigh: its minutes at the usual effort.</summary>
    public decimal Planned => Minutes * UsualEffort;

    /// <summary>What it weighed; null: not held.</summary>
    public decimal? Led => Held ? (LedMinutes ?? Minutes) * (Effort ?? UsualEffort) : null;

    /// <summary>Where nobody told theirs. [M] The middle of the scale.</summary>
    public const decimal UsualEffort = 5;
}

/// <summary>A week of a calendar.</summary>
/// <param name="Planned">Of all its classes.</param>
/// <param name="Load">Of those that were held.</param>
public sealed record CalendarWeek(DateOnly Start, decimal Planned, WeekLoad Load, ImmutableArray<CalendarClass> Classes)
{
    /// <summary>The weeks from a day on.</summary>
    public static ImmutableArray<CalendarWeek> Of(DateOnly from, int weeks, IEnumerable<CalendarClass> classes, DayOfWeek weekStart)
    {
        var all = classes.OrderBy(c => c.StartsAt, StringComparer.Ordinal)
            .ToLookup(c => DateOnly.ParseExact(c.StartsAt[..10], "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture));
        var first = WeekLoad.StartOf(from, weekStart);
        return
        [
            .. Enumerable.Range(0, weeks).Select(w => first.AddDays(7 * w)).Select(start =>
            {
                var days = Enumerable.Range(0, WeekLoad.Days).Select(start.AddDays).ToArray();
                return new CalendarWeek(
                    start, days.Sum(d => all[d].Sum(c => c.Planned)), WeekLoad.Of([.. days.Select(d => all[d].Sum(c => c.Led ?? 0))]),
                    [.. days.SelectMany(d => all[d])]);
            }),
        ];
    }
}
