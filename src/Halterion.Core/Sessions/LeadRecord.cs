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
            _ => (long?)null,
        };
        var words = ended is { } last
            ? $"Led in {new Seconds((int)((last - started.Value + 500) / 1000))}; planned {scenes[^1].End}"
            : "Under way";
        return new LeadRecord(started, ended, words);
    }
}
