using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Leading;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Core.Words;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Endpoints;
using Halterion.Web.Live;

namespace Halterion.Web.Library;

/// <summary>A class that was led, with the taps.</summary>
internal sealed record LedClass(ClassPlan Plan, Timeline Timeline, ImmutableArray<LeadCommand> Commands)
{
    /// <summary>Null where it was not led, or cannot be read any more as it was.</summary>
    public static LedClass? Of(StoredSession session, Classes classes, Leads leads, Evaluator evaluator)
    {
        if (leads.OpenOf(session.Id) is not { } lead || session.ClassVersion is not { } version
            || classes.At(session.ClassId, version) is not { } stored
            || ScriptFile.Read(lead.Format, lead.Script) is not { } script
            || evaluator.Evaluate(stored.Plan) is not { Plan: { } plan, Timeline: { } timeline }
            || !script.Times.Select(t => t.End).SequenceEqual(timeline.Spans.Select(s => s.End)))
        {
            return null;
        }

        return new LedClass(plan, timeline, lead.Commands);
    }
}

/// <summary>Classes in weeks: planned, and held as they were.</summary>
internal sealed class CalendarOf(Sessions sessions, Logs logs, Classes classes, Current current)
{
    public ImmutableArray<CalendarWeek> Weeks(DateOnly from, int weeks)
    {
        var start = WeekLoad.StartOf(from, current.Preferences.WeekStart);
        var (first, end) = (Iso(start), Iso(start.AddDays(7 * weeks)));
        var held = logs.Between(first, end).ToDictionary(h => h.Session);
        var all = sessions.Between(first, end).Select(line =>
        {
            var log = held.GetValueOrDefault(line.Session);
            return (Line: line, Log: log, Known: KnownOf(line.Class, log?.Version ?? line.Version));
        }).ToArray();
        var usual = all.GroupBy(c => c.Line.Title)
            .ToDictionary(t => t.Key, t => t.Select(c => c.Known.WorkSeconds).Order().ElementAt(t.Count() / 2));
        return CalendarWeek.Of(
            start,
            weeks,
            all.Select(c => new CalendarClass(
                c.Line.Session, c.Line.Class, c.Line.Title, c.Line.StartsAt, c.Known.Minutes, c.Log?.Minutes, c.Log?.Effort,
                    c.Known.Families,
                c.Known.WorkSeconds < LightShare * usual[c.Line.Title], c.Log is not null)),
            current.Preferences.WeekStart);
    }

    /// <summary>With so much less main work than the middle one of its name in these weeks it is a light one. [M]</summary>
    private const decimal LightShare = 0.7m;

    private sealed record Known(int Minutes, int WorkSeconds, ImmutableArray<Family> Families);

    private readonly ConcurrentDictionary<(Guid, int), Known> versions = new();

    private Known KnownOf(Guid id, int version) => versions.GetOrAdd((id, version), _ =>
    {
        if (classes.At(id, version) is not { } stored
            || current.Evaluator.Evaluate(stored.Plan) is not { Plan: { } plan, Timeline: { } timeline })
        {
            return new Known(0, 0, []);
        }

        var families = plan.Blocks.Where(ClassReview.IsMain).SelectMany(b => b.Stations)
            .Select(s => plan.Moves.Find(s.Main.Move)!.Family).Distinct().ToImmutableArray();
        var work = timeline.Spans.Where(s => s.Kind == SpanKind.Work
            && ClassReview.IsMain(plan.Blocks[s.Block])).Sum(s => s.Length().Value);
        return new Known((timeline.Length.Value + 30) / 60, work, families);
    });

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}

/// <summary>Who moves on in a session, and what becomes of it.</summary>
internal sealed class SessionSuggestions(
    Classes classes, Rooms rooms, SessionRooms sessionRooms, Logs logs, Store.People people, Current current)
{
    /// <summary>So many classes with a move are looked back at: more than it takes to come from a weight to the next.</summary>
    private const int Looked = 12;

    public ImmutableArray<NamedSuggestion> Of(StoredSession session)
    {
        if (Found(session) is not { } found)
        {
            return [];
        }

        var pins = found.Room.Pins.ToDictionary(p => (p.Person, p.Station));
        return
        [
            .. found.Suggestions.Select(s =>
            {
                var person = found.Room.People.First(p => p.Id == s.Person);
                var station = found.Room.Plan.Find(s.Station)!.Value.Station;
                return new NamedSuggestion(
                    person.Called,
                    station.Name,
                    s.Next.Of is { } of ? PlanWords.Option(of, current.Moves, current.Preferences) : "",
                    IsTaken(person, s, pins.GetValueOrDefault((s.Person, s.Station))),
                    IsTakeable(s),
                    s);
            }),
        ];
    }

    /// <summary>It asks for nothing that is not so already: as last time, or taken before.</summary>
    private static bool IsTaken(Person person, StationSuggestion s, Pin? pin) =>
        s.Next is { Action: NextStep.Stay, First: null, Rule: not "pain" }
        || (pin is not null && pin.Option == s.Takes && pin.Reason == s.Next.Reason
            && (Weight(s) is not { } weight || Remembered(person, s) == weight.Kg));

    private static bool IsTakeable(StationSuggestion s) => s.Takes is not null || Weight(s) is not null;

    private static decimal? Remembered(Person person, StationSuggestion s) => person.Loads?.GetValueOrDefault(s.Next.Of!.Move.Value)?.Kg;

    /// <summary>What is to be remembered: of all that is held.</summary>
    private static RememberedLoad? Weight(StationSuggestion s) =>
        s.Next is { Kg: { } kg, Of: { Manner.Load: { Implement: { } implement } load } }
            ? new RememberedLoad(implement, kg * (load.Count ?? 1)) : null;

    /// <summary>
    /// Takes suggestions into the assignment: the option as a choice with its reason, the weight as what they usually hold.
    /// </summary>
    /// <returns>What stood before, for each that changed something.</returns>
    public ImmutableArray<TakenBefore> Take(StoredSession session, ImmutableHashSet<(PersonId, PlaceId)> which)
    {
        if (Found(session) is not { } found)
        {
            return [];
        }

        var pins = found.Room.Pins.ToDictionary(p => (p.Person, p.Station));
        var before = ImmutableArray.CreateBuilder<TakenBefore>();
        foreach (var s in found.Suggestions.Where(s => which.Contains((s.Person, s.Station))))
        {
            var person = people.Find(s.Person)!;
            var pin = pins.GetValueOrDefault((s.Person, s.Station));
            if (IsTaken(person, s, pin) || !IsTakeable(s))
            {
                continue;
            }

            var weight = Weight(s) is { } w && Remembered(person, s) != w.Kg ? w : null;
            var known = weight is null ? null : person.Loads?.GetValueOrDefault(s.Next.Of!.Move.Value);
            before.Add(new TakenBefore(
                s.Person, s.Station, pin?.Option, pin?.Reason ?? "", weight is null ? null : s.Next.Of!.Move,
                weight is null ? null : known?.Implement ?? weight.Implement, known?.Kg));
            if (s.Takes is { } takes)
            {
                rooms.Pin(session.Id, s.Person, s.Station, takes, s.Next.Reason);
            }

            if (weight is not null)
            {
                Remember(person, s.Next.Of!.Move, weight);
            }
        }

        return before.ToImmutable();
    }

    public void PutBack(Guid session, ImmutableArray<TakenBefore> before)
    {
        foreach (var place in before)
        {
            rooms.Pin(session, place.Person, place.Station, place.Option, place.Reason);
            if (place is { Move: { } move, Implement: { } implement } && people.Find(place.Person) is { } person)
            {
                Remember(person, move, place.Kg is { } kg ? new RememberedLoad(implement, kg) : null);
            }
        }
    }

    private void Remember(Person person, MoveId move, RememberedLoad? load)
    {
        var loads = person.Loads ?? ImmutableSortedDictionary<string, RememberedLoad>.Empty;
        people.Change(
            person with { Loads = load is null ? loads.Remove(move.Value) : loads.SetItem(move.Value, load) }, new Basis(person.Revision));
    }

    private (RoomOf Room, ImmutableArray<StationSuggestion> Suggestions)? Found(StoredSession session)
    {
        var stored = session.ClassVersion is { } version ? classes.At(session.ClassId, version) : classes.Find(session.ClassId);
        if (stored is null || current.Evaluator.Evaluate(stored.Plan) is not { Plan: { } plan })
        {
            return null;
        }

        // What is suggested is beside the level, not beside what was taken from a suggestion before.
        var room = sessionRooms.Of(plan, session, rooms.Of(session.Id));
        var given = Assigning.Of(room with { Pins = [] });
        var moves = plan.Blocks.SelectMany(b => b.Stations).Select(s => s.Main.Move).Distinct();
        return (room, Suggestions.Of(room, given, logs.LastOf(room.People.Select(p => p.Id), moves, Looked, session.Booking.StartsAt)));
    }
}

/// <summary>How long talk and change-overs really take, learnt from the classes that were led last.</summary>
internal sealed class LearntPaces(
    Sessions sessions, Classes classes, Leads leads, ShippedMoves shipped, OwnMoves own, SteadyClock clock)
{
    /// <summary>So many classes are looked through: five of each kind are enough.</summary>
    private const int Looked = 20;

    public ImmutableArray<LearntPace> Now()
    {
        var evaluator = new Evaluator(shipped.With(own), new Preferences());
        var by = new SortedDictionary<string, List<decimal>>(StringComparer.Ordinal);
        foreach (var session in sessions.LedLast(Looked).Reverse())
        {
            if (LedClass.Of(session, classes, leads, evaluator) is not { } led)
            {
                continue;
            }

            var real = RealPace.Of(led.Plan, led.Timeline, ClassAsLed.Of(led.Plan, led.Timeline, led.Commands, clock.Now));
            foreach (var (kind, ratio) in real)
            {
                (by.TryGetValue(kind, out var known) ? known : by[kind] = []).Add(ratio);
            }
        }

        return [.. by.Select(k => LearntPace.From(k.Key, k.Value)).OfType<LearntPace>()];
    }

    /// <summary>How many times as long each kind takes, as a pace is made of it.</summary>
    public ImmutableSortedDictionary<string, decimal> Factors() =>
        Now().ToImmutableSortedDictionary(p => p.Of, p => p.Factor, StringComparer.Ordinal);
}

/// <summary>All logs as rows, for a spreadsheet.</summary>
internal sealed class LogRows(Store.People people, Logs logs, Current current)
{
    public IEnumerable<LogLine> All()
    {
        foreach (var person in people.List())
        {
            var came = logs.ClassesOf(person.Id).ToDictionary(c => c.Session);
            foreach (var use in logs.WorkOf(person.Id))
            {
                var of = came[use.Session];
                yield return new LogLine(
                    use.StartsAt, of.Title, person.Name, use.Use.Station.Value,
                        current.Moves.Find(use.Work.Move)?.Name ?? use.Work.Move.Value,
                    use.Work.Option["tier"]!.GetValue<string>(), use.Work.Target, use.Use.Sets, use.Use.Effort ?? use.Effort, use.Use.Pain,
                    of.Minutes, use.Use.Note.Length > 0 ? use.Use.Note : of.Row.Note);
            }
        }
    }
}
