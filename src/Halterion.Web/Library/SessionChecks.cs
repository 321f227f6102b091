using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sheets;
using Halterion.Core.Views;
using Halterion.Store;

namespace Halterion.Web.Library;

/// <summary>The checks of a class with all that is known of its session: who comes, with what, where, and what was held before.</summary>
internal sealed class SessionChecks(SessionRooms sessionRooms, Rooms rooms, Logs logs, Classes classes, Current current)
{
    /// <summary>What a version of a class is to a history: it never changes again.</summary>
    private readonly ConcurrentDictionary<(Guid Class, int Version), HeldClass?> held = new();

    /// <summary>What was found, and the room it was found in; null where nobody comes.</summary>
    public sealed record Checked(ClassReview Review, ImmutableArray<Finding> Findings, Assignment? Given);

    /// <summary>The data was put back: a version may be another one now.</summary>
    public void Forget() => held.Clear();

    public Checked Of(SessionRooms.Ready ready)
    {
        var hall = sessionRooms.HallOf(ready.Chosen);
        var given = ready.Room.Heads > 0 ? Assigning.Of(ready.Room) : null;
        var occasion = given is null
            ? null
            : new Occasion(ready.Room, given, hall is null ? null : new RoomSize(hall.Floor.WidthM, hall.Floor.LengthM));
        var review = new ClassReview(ready.Plan, ready.Timeline, current.Evaluator.Settings, occasion, HistoryOf(ready.Session));
        return new Checked(review, Rules.Check(review, rooms.Waivers(ready.Session.Id)), given);
    }

    /// <summary>One page before the class.</summary>
    public ReadyView View(SessionRooms.Ready ready)
    {
        var found = Of(ready);
        var room = found.Given is null ? null : RoomView.Of(ready.Room, found.Given, ready.Timeline, current.Preferences);
        var ticks = rooms.Ticks(ready.Session.Id).Union(ready.Chosen.Looked.Select(k => ReadyView.LookKey + k));
        return ReadyView.Of(found.Review, found.Findings, room, ticks, current.Preferences);
    }

    /// <summary>
    /// What was logged before, with its minutes and efforts; null where this one has no date. Sets are those of the plan; where people told
    /// of an effort under that of a hard set, none counts.
    /// </summary>
    public History? HistoryOf(StoredSession session)
    {
        if (StartOf(session.Booking.StartsAt) is not { } start)
        {
            return null;
        }

        var monday = start.Date.AddDays(-(((int)start.DayOfWeek + 6) % 7));
        var last = !logs.Planned(session.Id).Select(StartOf).OfType<DateTime>().Any(s => s > start && s < monday.AddDays(7));
        return new History(start, [.. logs.Held(session.Id).Select(HeldOf).OfType<HeldClass>()], last);
    }

    private HeldClass? HeldOf(LoggedClass logged) =>
        StartOf(logged.StartsAt) is { } start && logged.Version is { } of
            && held.GetOrAdd((logged.Class, of), key => Look(key.Class, key.Version)) is { } known
                ? known with
                {
                    Start = start,
                    Minutes = logged.Minutes ?? known.Minutes,
                    Effort = logged.Effort,
                    HardSets = logged.Effort < PersonProgress.HardFrom ? known.HardSets.Clear() : known.HardSets,
                }
                : null;

    private HeldClass? Look(Guid id, int version)
    {
        if (classes.At(id, version) is not { } stored
            || current.Evaluator.Evaluate(stored.Plan) is not { Plan: { } plan, Timeline: { } timeline })
        {
            return null;
        }

        var review = new ClassReview(plan, timeline, CheckSettings.Usual);
        return new HeldClass(
            default, timeline.Length.Value / 60, null,
            WeekRule.HardSets(review).ToImmutableSortedDictionary(s => s.Key, s => s.Value),
            review.MainMoves(), null);
    }

    private static DateTime? StartOf(string? text) =>
        DateTime.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.None, out var start) ? start : null;
}
