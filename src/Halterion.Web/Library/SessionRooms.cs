using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Endpoints;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Library;

/// <summary>The room of a stored session: who is expected, what was chosen for them, and what there is to use.</summary>
internal sealed class SessionRooms(
    People people, Sessions sessions, Rooms rooms, Logs logs, Current current, TimeProvider clock, TimeZoneInfo zone)
{
    /// <summary>A class as it stands on the screen, read with the room of its session.</summary>
    public sealed record Ready(ClassPlan Plan, Timeline Timeline, RoomOf Room, StoredSession Session, SessionRoom Chosen);

    /// <summary>Reads a request about a class in the room of a session; what is wrong with either is the problem.</summary>
    public (Ready? Ready, T? Request,
        ProblemHttpResult? Problem) Read<T>(Guid id, Body<T> body, Func<T, JsonElement> file) where T : class, IRead<T>
    {
        if (body.Value is not { } request)
        {
            return (null, null, body.Problem);
        }

        if (sessions.Find(id) is not { } session)
        {
            return (null, null, Problems.NotFound("session"));
        }

        var read = current.Evaluator.Evaluate(file(request).GetRawText());
        if (read is not { Plan: { } plan, Timeline: { } timeline })
        {
            return (null, null, Problems.Faults(read.Faults.At("", "/class"), Problems.Request));
        }

        return (ReadyOf(plan, timeline, session), request, null);
    }

    /// <summary>A class that was read, in the room of its session.</summary>
    public Ready ReadyOf(ClassPlan plan, Timeline timeline, StoredSession session)
    {
        var chosen = rooms.Of(session.Id);
        return new Ready(plan, timeline, Of(plan, session, chosen), session, chosen);
    }

    /// <summary>The same once something was chosen.</summary>
    public Ready Again(Ready before)
    {
        var chosen = rooms.Of(before.Session.Id);
        return before with { Room = Of(before.Plan, before.Session, chosen), Chosen = chosen };
    }

    public RoomView View(Ready ready)
    {
        KeepGroups(ready);
        return RoomView.Of(ready.Room, ready.Timeline, current.Preferences);
    }

    /// <summary>A group that was shown is kept, whichever way the head-count changes afterwards: brief, desk or attendance.</summary>
    private void KeepGroups(Ready ready)
    {
        foreach (var (block, groups) in ready.Room.Groups)
        {
            var places = groups.SelectMany((g, i) => g.Select(p => (Person: p, Place: i))).ToArray();
            var were = ready.Chosen.Groups.GetValueOrDefault(block);
            if (places.Length > 0
                && (
                    were is null
                        || were.Count != places.Length
                        || places.Any(p => !were.TryGetValue(p.Person, out var was) || was != p.Place)))
            {
                rooms.Group(ready.Session.Id, block, places);
            }
        }
    }

    /// <summary>The hall of a session: the chosen one, else the only or first one.</summary>
    public StoredHall? HallOf(SessionRoom chosen)
    {
        var halls = rooms.List();
        return halls.FirstOrDefault(h => h.Id == chosen.Hall) ?? halls.FirstOrDefault();
    }

    /// <summary>Who is expected, by name.</summary>
    public ImmutableArray<Person> Expected(StoredSession session) =>
        LogPrefill.Expected(people.List(), session.Booking.Expected, logs.LastCame(session.Id), session.Booking.HeadCount);

    public DateOnly DayOf(StoredSession session) =>
        Day(session) ?? DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(clock.GetUtcNow(), zone).Date);

    /// <summary>The people, kit and groups that a class is held with.</summary>
    public RoomOf Of(ClassPlan plan, StoredSession session, SessionRoom chosen)
    {
        var expected = Expected(session);
        var known = expected.Select(p => p.Id).ToHashSet();
        return new RoomOf(
            plan,
            DayOf(session),
            expected,
            session.Booking.HeadCount,
            [.. chosen.Pins.Where(p => known.Contains(p.Person))],
            HallOf(chosen) is { Stock: { IsEmpty: false } stock } ? stock : null,
            GroupsOf(plan, expected, session, chosen));
    }

    /// <summary>The floor of a block: where its stations lie, and who is where when.</summary>
    public FloorView FloorOf(Block block, RoomOf room, SessionRoom chosen)
    {
        var rotates = block.Shape.IsSpread;
        var (hall, known) = HallOf(chosen)?.Floor is { } measured ? (measured, true) : (HallFloor.Usual, false);
        if (!rotates)
        {
            return FloorView.Of(block, FloorLayout.Together(block, room.Plan.Moves, hall, room.Heads), rotates, known);
        }

        var most = Groups.Sizes(room.Heads, block.Stations.Length).Max();
        return FloorView.Of(
            block, FloorLayout.Of(block, room.Plan.Moves, hall, [.. block.Stations.Select(_ => most)], chosen.Spots), rotates, known);
    }

    /// <summary>For the log: everyone on the roster, with what was chosen; kit is not held against those who did not come.</summary>
    public static RoomOf Everyone(ClassPlan plan, StoredSession session, ImmutableArray<Person> roster, Rooms rooms) => new(
        plan, Day(session) ?? DateOnly.MinValue, roster, roster.Length, rooms.Of(session.Id).Pins, null,
        ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>.Empty);

    /// <summary>The groups of every rotation: as they were chosen, where they are of the same people.</summary>
    private ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>> GroupsOf(
        ClassPlan plan, ImmutableArray<Person> expected, StoredSession session, SessionRoom chosen)
    {
        var made = Even(plan, expected, session, chosen);
        return plan.Blocks.Where(b => made.ContainsKey(b.Id)).ToImmutableDictionary(
            b => b.Id,
            b => chosen.Groups.TryGetValue(b.Id, out var were) && GroupPlans.AsChosen(b, expected, were) is { } groups
                ? groups
                : made[b.Id]);
    }

    /// <summary>The groups of every rotation evened out, so that who had one keeps it where that can be.</summary>
    public ImmutableDictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>> Even(
        ClassPlan plan, ImmutableArray<Person> expected, StoredSession session, SessionRoom chosen)
    {
        var circles = people.Circles().Where(c => c.Together).ToImmutableArray();
        var known = logs.Known();
        return plan.Blocks.Where(b => b is { Shape: BlockShape.Rotation, Stations.IsEmpty: false }).ToImmutableDictionary(
            b => b.Id,
            b => GroupPlans.Of(
                b, plan.Moves, expected, session.Booking.HeadCount, DayOf(session),
                chosen.Groups.GetValueOrDefault(b.Id) ?? ImmutableDictionary<PersonId, int>.Empty,
                id => circles.FirstOrDefault(c => c.People.Contains(id))?.Id,
                id => !known.Contains(id)));
    }

    private static DateOnly? Day(StoredSession session) =>
        session.Booking.StartsAt is { Length: >= 10 } starts
            ? DateOnly.ParseExact(starts[..10], "yyyy-MM-dd", CultureInfo.InvariantCulture)
            : null;
}
