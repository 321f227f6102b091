using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;

namespace Halterion.Core.Leading;

/// <summary>What is to be said of a class as it was led: lateness, ways taken, what was left out and what was cut short.</summary>
public static class HowItWent
{
    /// <summary>Less is how a tap and a clock are. [M]</summary>
    private const int Slight = 15;

    /// <param name="record">When it began and ended.</param>
    /// <param name="startsAt">When it was booked to begin, in milliseconds since 1970 UTC; null: it has no date.</param>
    /// <param name="endsAt">When its booked time is over.</param>
    public static ImmutableArray<string> Lines(
        ClassPlan plan, WorkThatRan work, ImmutableArray<LeadCommand> commands, LeadRecord record, long? startsAt, long? endsAt)
    {
        if (record.StartedAt is not { } started)
        {
            return [];
        }

        var lines = ImmutableArray.CreateBuilder<string>();
        if (startsAt is { } booked && Off(started - booked) is { } began)
        {
            lines.Add($"Began {began}");
        }

        if (record.EndedAt is { } ended && endsAt is { } over && Off(ended - over) is { } late && ended > over)
        {
            lines.Add($"Ended {late}");
        }

        if (LeadRecord.WaysTaken(commands) is { IsEmpty: false } ways)
        {
            lines.Add($"To catch up: {string.Join(", ", ways)}");
        }

        var rounds = work.RoundsLeftOut().ToArray();
        lines.AddRange(rounds.Select(r => $"Left out: {r.Block.Shape.RoundWord} {r.Round + 1} of {r.Block.Rounds}, {r.Block.Name}"));
        var stations = plan.Blocks.SelectMany(b => b.Stations, (block, station) => (block, station, Done: work.At(station.Id)))
            .Where(s => s.Done.Planned > 0).ToArray();
        if (stations.Where(s => s.Done.IsLeftOut).Select(s => s.station.Name).Distinct().ToArray() is { Length: > 0 } gone)
        {
            lines.Add($"Not done: {string.Join(", ", gone)}");
        }

        lines.AddRange(stations.Where(s => s.Done.Words.Length > 0).Select(s => $"{s.station.Name}: {s.Done.Words}"));
        return lines.ToImmutable();
    }

    /// <summary>"6 min late"; null where it is hardly off, or off by a day: then it was led on another.</summary>
    private static string? Off(long milliseconds)
    {
        var seconds = new Seconds((int)(Math.Abs(Math.Clamp(milliseconds, -100_000_000, 100_000_000)) / 1000));
        return seconds.Value is < Slight or > 3 * 3600 ? null : $"{seconds.Apart()} {(milliseconds > 0 ? "late" : "early")}";
    }
}
