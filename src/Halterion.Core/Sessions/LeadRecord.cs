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
    /// <summary>A station that is passed over on the way to another was not done. [M]</summary>
    private const long Glimpse = 3000;

    /// <summary>The scenes that were played, not skipped: for at least three seconds, or to their end. By index.</summary>
    /// <param name="now">Milliseconds since 1970 UTC.</param>
    public static ImmutableHashSet<int> Played(ImmutableArray<LeadCommand> commands, ImmutableArray<SceneTime> scenes, long now)
    {
        var played = new Dictionary<int, long>();
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

                    played[scene] = played.GetValueOrDefault(scene) + end - from;
                }
            }

            state = i < commands.Length ? LeadFold.Fold(commands[..(i + 1)], scenes) : state;
        }

        return [.. played.Where(p => p.Value >= Math.Min(Glimpse, LeadFold.LengthOf(scenes, state.Added, p.Key))).Select(p => p.Key)];
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
            ? $"Led in {new Seconds((int)((last - started.Value + 500) / 1000))}; planned {scenes[^1].End}"
            : "Under way";
        return new LeadRecord(started, ended, words);
    }
}
