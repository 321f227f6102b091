using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Sessions;

/// <summary>What the leader can tap.</summary>
public enum LeadCommandKind
{
    /// <summary>The class begins.</summary>
    Start,
    /// <summary>The clock of the class stands.</summary>
    Pause,
    /// <summary>It goes on.</summary>
    Resume,
    /// <summary>To the end of this scene.</summary>
    Skip,
    /// <summary>To the start of this scene, or at its beginning to the one before.</summary>
    Back,
    /// <summary>Ten seconds more for what is on.</summary>
    AddTen,
    /// <summary>The class is over.</summary>
    Finish,

    /// <summary>Opens the gate at which the class waits.</summary>
    Go,

    /// <summary>Other lengths for scenes still to come or under way: a way back is one of these.</summary>
    Adjust,

    /// <summary>Ten seconds less for what is on.</summary>
    LessTen,

    /// <summary>To the start of a scene, forwards or back.</summary>
    Jump,

    /// <summary>Something to remember of a person or the class; the clock does not hear it.</summary>
    Note,

    /// <summary>This device leads now.</summary>
    Lead,
}

/// <summary>Milliseconds by which a scene becomes longer, or shorter.</summary>
/// <param name="Scene">By index, from 0.</param>
public sealed record SceneShift(int Scene, long By);

/// <summary>What was seen, in one tap.</summary>
public enum QuickTap
{
    /// <summary>Put a weight down.</summary>
    Dropped,
    /// <summary>Took the easier.</summary>
    Easier,
    /// <summary>Something hurts.</summary>
    Pain,

    /// <summary>Is here.</summary>
    Came,

    /// <summary>Is not here after all.</summary>
    Away,
}

/// <summary>What a command carries, where its kind carries anything.</summary>
/// <param name="Shifts">Of <see cref="LeadCommandKind.Adjust"/>.</param>
/// <param name="Scene">Of <see cref="LeadCommandKind.Jump"/>; of a note the scene it was taken in.</param>
/// <param name="Text">Of a note; of an adjust the way that was taken, empty where the last one is taken back.</param>
/// <param name="Person">Of whom a note is; null: of nobody in particular.</param>
/// <param name="Tap">Of a note that was one tap.</param>
public sealed record LeadPayload(
    ImmutableArray<SceneShift>? Shifts = null,
    int? Scene = null,
    string? Text = null,
    string? Person = null,
    QuickTap? Tap = null);

/// <summary>Something the leader did.</summary>
/// <param name="Id">Given by the device, so that sending twice counts once.</param>
/// <param name="At">When it was tapped, in milliseconds since 1970 UTC, on a clock that only goes forwards while the class is led.</param>
/// <param name="Device">Which screen it was tapped on; null: from before screens had names.</param>
public sealed record LeadCommand(Guid Id, LeadCommandKind Kind, long At, string? Device = null, LeadPayload? Payload = null);

/// <summary>How far a class is.</summary>
public enum LeadPhase
{
    /// <summary>Not begun.</summary>
    Ready,
    /// <summary>Under way.</summary>
    Running,
    /// <summary>Its clock stands.</summary>
    Paused,
    /// <summary>Over.</summary>
    Finished,
}

/// <summary>Where a class under way is.</summary>
/// <param name="Position">Place on the led timeline at <paramref name="At"/>, in milliseconds. The led timeline is the planned
/// one with every added second in it.</param>
/// <param name="At">Moment to which the position belongs, in milliseconds since 1970 UTC.</param>
/// <param name="Added">Milliseconds added to each scene.</param>
/// <param name="Opened">The last scene whose gate was opened; -1: none.</param>
/// <param name="Leader">The device that leads: the last that started the class or took it over. Null: not known.</param>
public sealed record LeadState(LeadPhase Phase, long Position, long At, ImmutableArray<long> Added, int Opened, string? Leader = null)
{
    /// <summary>The position at a moment, never past the end or a closed gate.</summary>
    public long PositionAt(long moment, ImmutableArray<SceneTime> scenes) =>
        Phase == LeadPhase.Running
            ? Math.Min(Position + Math.Max(0, moment - At), LeadFold.Limit(this, scenes))
            : Position;
}

/// <summary>What the fold needs to know of a scene.</summary>
/// <param name="End">Seconds from the start of the planned class.</param>
/// <param name="Gated">It begins with a tap only.</param>
public readonly record struct SceneTime(Seconds End, bool Gated);

/// <summary>
/// state = fold(commands, timeline). The lead screen carries the same fold, so that it can go on without the
/// server; both are held to the same cases in tests/lead-cases.json.
/// </summary>
public static class LeadFold
{
    /// <summary>Within this time of a scene's start, "back" goes to the scene before it.</summary>
    private const long BackGrace = 2000;

    /// <summary>The state after all commands, in order.</summary>
    public static LeadState Fold(IEnumerable<LeadCommand> commands, ImmutableArray<SceneTime> scenes) =>
        commands.Aggregate(
            new LeadState(LeadPhase.Ready, 0, 0, [.. new long[scenes.Length]], -1), (state, command) => Next(state, command, scenes));

    /// <summary>End of a scene on the led timeline, in milliseconds.</summary>
    public static long EndOf(ImmutableArray<SceneTime> scenes, ImmutableArray<long> added, int scene)
    {
        if (scene < 0)
        {
            return 0;
        }

        var extra = 0L;
        for (var i = 0; i <= scene; i++)
        {
            extra += added[i];
        }

        return scenes[scene].End.Value * 1000L + extra;
    }

    /// <summary>
    /// The next scene whose gate is closed; the number of scenes if there is none. A scene that was left out waits for nobody.
    /// </summary>
    public static int NextGate(LeadState state, ImmutableArray<SceneTime> scenes)
    {
        var gate = Math.Min(state.Opened + 1, scenes.Length);
        while (gate < scenes.Length && !(scenes[gate].Gated && LengthOf(scenes, state.Added, gate) > 0))
        {
            gate++;
        }

        return gate;
    }

    /// <summary>What a scene takes on the led timeline, in milliseconds.</summary>
    public static long LengthOf(ImmutableArray<SceneTime> scenes, ImmutableArray<long> added, int scene) =>
        Planned(scenes, scene) + added[scene];

    private static long Planned(ImmutableArray<SceneTime> scenes, int scene) =>
        1000L * (scenes[scene].End.Value - (scene == 0 ? 0 : scenes[scene - 1].End.Value));

    /// <summary>How far the class can run without a tap.</summary>
    public static long Limit(LeadState state, ImmutableArray<SceneTime> scenes) =>
        EndOf(scenes, state.Added, NextGate(state, scenes) - 1);

    /// <summary>The scene at a position; the last one at and past the end.</summary>
    public static int SceneAt(long position, ImmutableArray<SceneTime> scenes, ImmutableArray<long> added)
    {
        var extra = 0L;
        for (var i = 0; i < scenes.Length; i++)
        {
            extra += added[i];
            if (position < scenes[i].End.Value * 1000L + extra)
            {
                return i;
            }
        }

        return scenes.Length - 1;
    }

    /// <summary>The state after one more command.</summary>
    public static LeadState Next(LeadState state, LeadCommand command, ImmutableArray<SceneTime> scenes)
    {
        // A clock that was set back must not undo what has been shown.
        var at = Math.Max(command.At, state.At);
        var position = state.PositionAt(at, scenes);
        var end = EndOf(scenes, state.Added, scenes.Length - 1);
        if (state.Phase == LeadPhase.Running && position >= end)
        {
            state = state with { Phase = LeadPhase.Finished, Position = end, At = state.At + end - state.Position };
        }

        var here = state with { Position = position, At = at };
        var scene = SceneAt(position, scenes, state.Added);
        return (command.Kind, state.Phase) switch
        {
            (LeadCommandKind.Start, LeadPhase.Ready) => here with { Phase = LeadPhase.Running, Leader = command.Device ?? state.Leader },
            (LeadCommandKind.Pause, LeadPhase.Running) => here with { Phase = LeadPhase.Paused },
            (LeadCommandKind.Resume, LeadPhase.Paused or LeadPhase.Finished) => here with { Phase = LeadPhase.Running },
            (LeadCommandKind.Finish, LeadPhase.Running or LeadPhase.Paused) => here with { Phase = LeadPhase.Finished },
            (LeadCommandKind.Go, LeadPhase.Running) when position == Limit(state, scenes) && position < end => here with { Opened = scene },
            (LeadCommandKind.Skip, LeadPhase.Running or LeadPhase.Paused) =>
                here with { Position = EndOf(scenes, state.Added, scene), Opened = Math.Max(state.Opened, scene + 1) },
            (LeadCommandKind.AddTen, LeadPhase.Running or LeadPhase.Paused) =>
                here with { Added = state.Added.SetItem(scene, state.Added[scene] + 10_000) },
            (LeadCommandKind.LessTen, LeadPhase.Running or LeadPhase.Paused) =>
                here with { Added = Shifted(here, scene, [new(scene, -10_000)], scenes) },
            (LeadCommandKind.Adjust, not LeadPhase.Finished) =>
                here with { Added = Shifted(here, scene, command.Payload?.Shifts ?? [], scenes) },
            (LeadCommandKind.Back, not LeadPhase.Ready) => here with
            {
                Phase = state.Phase == LeadPhase.Finished ? LeadPhase.Paused : state.Phase,
                Position = BackFrom(position, scene, state, scenes),
                Opened = Math.Min(state.Opened, SceneAt(BackFrom(position, scene, state, scenes), scenes, state.Added)),
            },
            (LeadCommandKind.Jump, not LeadPhase.Ready) when command.Payload?.Scene is { } to && to >= 0 && to < scenes.Length => here with
            {
                Phase = state.Phase == LeadPhase.Finished ? LeadPhase.Paused : state.Phase,
                Position = EndOf(scenes, state.Added, to - 1),
                Opened = to > scene ? Math.Max(state.Opened, to) : Math.Min(state.Opened, to),
            },
            (LeadCommandKind.Lead, _) => state with { Leader = command.Device ?? state.Leader },
            _ => state,
        };
    }

    /// <summary>
    /// What is added to each scene after shifts: none of the past is moved, none gets shorter than nothing or than what has run of it.
    /// </summary>
    private static ImmutableArray<long> Shifted(
        LeadState here, int scene, ImmutableArray<SceneShift> shifts, ImmutableArray<SceneTime> scenes)
    {
        var added = here.Added.ToBuilder();
        foreach (var (at, by) in shifts)
        {
            if (at >= scene && at < scenes.Length)
            {
                var run = at == scene ? here.Position - EndOf(scenes, here.Added, scene - 1) : 0;
                added[at] = Math.Max(added[at] + by, run - Planned(scenes, at));
            }
        }

        return added.ToImmutable();
    }

    private static long BackFrom(long position, int scene, LeadState state, ImmutableArray<SceneTime> scenes)
    {
        var start = EndOf(scenes, state.Added, scene - 1);
        return position - start > BackGrace ? start : EndOf(scenes, state.Added, scene - 2);
    }
}
