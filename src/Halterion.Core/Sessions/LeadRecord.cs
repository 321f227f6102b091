using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Sessions;

/// <summary>A class as it was led.</summary>
/// <param name="StartedAt">Milliseconds since 1970 UTC; null if it was never started.</param>
/// <param name="EndedAt">Null while it is still under way.</param>
/// <param name="Words">Such as "Led in 27 min 10 s; planned 26 min 40 s".</param>
public sealed record LeadRecord(long? StartedAt, long? EndedAt, string Words)
{
    /// <summary>How long each scene ran, in milliseconds: what was skipped did not, what was done again did twice.</summary>
    /// <param name="now">Milliseconds since 1970 UTC.</param>
    public static long[] Ran(ImmutableArray<LeadCommand> commands, ImmutableArray<SceneTime> scenes, long now)
    {
        var ran = new long[scenes.Length];
        // What does not move the class leaves its state where it was: its time would be counted twice.
        commands = [.. commands.Where(c => c.Kind is not (LeadCommandKind.Note or LeadCommandKind.Lead))];
        var state = LeadFold.Fold([], scenes);
        for (var i = 0; i <= commands.Length; i++)
        {
            var until = i < commands.Length ? Math.Max(commands[i].At, state.At) : now;
            if (state.Phase == LeadPhase.Running)
            {
                var to = state.PositionAt(until, scenes);
                for (var scene = LeadFold.SceneAt(state.Position, scenes, state.Added); scene < scenes.Length; scene++)
                {
                    var from = Math.Max(state.Position, LeadFold.EndOf(scenes, state.Added, scene - 1));
                    var end = Math.Min(to, LeadFold.EndOf(scenes, state.Added, scene));
                    if (end <= from)
                    {
                        break;
                    }

                    ran[scene] += end - from;
                }
            }

            state = i < commands.Length ? LeadFold.Next(state, commands[i], scenes) : state;
        }

        return ran;
    }

    /// <summary>How long each scene was to be, in milliseconds: as planned, less what a way to catch up took away.</summary>
    public static long[] Planned(ImmutableArray<LeadCommand> commands, ImmutableArray<SceneTime> scenes)
    {
        var planned = scenes.Select((s, i) => 1000L * (s.End.Value - (i > 0 ? scenes[i - 1].End.Value : 0))).ToArray();
        var state = LeadFold.Fold([], scenes);
        foreach (var command in commands)
        {
            var before = state.Added;
            state = LeadFold.Next(state, command, scenes);
            for (var i = 0; command.Kind == LeadCommandKind.Adjust && i < planned.Length; i++)
            {
                planned[i] += state.Added[i] - before[i];
            }
        }

        return [.. planned.Select(ms => Math.Max(0, ms))];
    }

    /// <summary>The ways to catch up that were taken and not taken back, in order.</summary>
    public static ImmutableArray<string> WaysTaken(ImmutableArray<LeadCommand> commands)
    {
        var taken = new List<string>();
        foreach (var text in commands.Where(c => c.Kind == LeadCommandKind.Adjust).Select(c => c.Payload?.Text).OfType<string>())
        {
            if (text.Length > 0)
            {
                taken.Add(text);
            }
            else if (taken.Count > 0)
            {
                taken.RemoveAt(taken.Count - 1);
            }
        }

        return [.. taken];
    }

    /// <summary>Paused for so long past its booked end, a class is nobody's any more. leading.md, "Which class".</summary>
    private const long LeftAfter = 15 * 60 * 1000;

    /// <summary>Whether a class stands paused since long past its booked end.</summary>
    /// <param name="now">Milliseconds since 1970 UTC.</param>
    /// <param name="endsAt">When the booked time is over; null: when its own time would be, had it never been paused.</param>
    public static bool IsLeft(ImmutableArray<LeadCommand> commands, ImmutableArray<SceneTime> scenes, long now, long? endsAt)
    {
        var state = LeadFold.Fold(commands, scenes);
        var started = commands.FirstOrDefault(c => c.Kind == LeadCommandKind.Start)?.At;
        return started is { } start && state.Phase == LeadPhase.Paused
            && now - Math.Max(state.At, endsAt ?? start + (1000L * scenes[^1].End.Value)) >= LeftAfter;
    }

    /// <param name="now">Milliseconds since 1970 UTC: a class left running has ended if its time is up by then.</param>
    public static LeadRecord Of(ImmutableArray<LeadCommand> commands, ImmutableArray<SceneTime> scenes, long now)
    {
        var started = commands.FirstOrDefault(c => c.Kind == LeadCommandKind.Start)?.At;
        if (started is null)
        {
            return new LeadRecord(null, null, "Not started");
        }

        var state = LeadFold.Fold(commands, scenes);
        var end = LeadFold.EndOf(scenes, state.Added, scenes.Length - 1);
        var ended = state.Phase switch
        {
            LeadPhase.Finished => state.At,
            LeadPhase.Running when state.PositionAt(now, scenes) >= end => state.At + end - state.Position,
            LeadPhase.Ready or LeadPhase.Running or LeadPhase.Paused => (long?)null,
        };
        var words = ended is { } last
            ? $"Took {new Seconds((int)((last - started.Value + 500) / 1000))}; planned {scenes[^1].End}"
            : "In progress";
        return new LeadRecord(started, ended, words);
    }
}
