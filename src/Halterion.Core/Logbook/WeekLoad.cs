using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Halterion.Core.Logbook;

/// <summary>
/// What the seven days of a week weigh together. Daily load is the sum of the day's sessions, each its effort times its minutes
/// (Foster et al., J Strength Cond Res 15(1), 2001); monotony is their mean over their sample standard deviation, strain the week's
/// load times it (Foster, Med Sci Sports Exerc 30(7), 1998). All from memory.
/// </summary>
/// <param name="Monotony">High where all days are alike; null where they are, so that there is nothing to divide by.</param>
/// <param name="Strain">High where a week is both heavy and the same every day.</param>
public sealed record WeekLoad(
    decimal Sum,
    decimal Mean,
    decimal Deviation,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] decimal? Monotony,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] decimal? Strain)
{
    /// <summary>Days in a week.</summary>
    public const int Days = 7;

    /// <param name="days">The loads of its seven days.</param>
    /// <exception cref="ArgumentException">There are not seven.</exception>
    public static WeekLoad Of(ImmutableArray<decimal> days)
    {
        if (days.Length != Days)
        {
            throw new ArgumentException("A week has seven days.", nameof(days));
        }

        var sum = days.Sum();
        var mean = sum / Days;
        var squares = days.Sum(d => (d - mean) * (d - mean));
        var deviation = days.All(d => d == days[0]) ? 0m : (decimal)Math.Sqrt((double)(squares / (Days - 1)));
        decimal? monotony = deviation == 0 ? null : mean / deviation;
        return new WeekLoad(Rounded(sum), Rounded(mean), Rounded(deviation), monotony is { } m ? Rounded(m) : null,
            monotony is { } of ? Rounded(sum * of) : null);
    }

    /// <summary>The first day of the week that a day is in.</summary>
    /// <param name="startsOn">Monday for ISO weeks, Sunday by setting.</param>
    public static DateOnly StartOf(DateOnly day, DayOfWeek startsOn) => day.AddDays(-(((int)day.DayOfWeek - (int)startsOn + 7) % 7));

    private static decimal Rounded(decimal value) => Math.Round(value, 2, MidpointRounding.AwayFromZero);
}
