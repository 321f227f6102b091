using System.Collections.Immutable;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sessions;

namespace Halterion.Core.Logbook;

/// <summary>Fills in a log beforehand, so that logging is correcting.</summary>
public static class LogPrefill
{
    /// <summary>So many names can be looked over at once. [M] Our choice.</summary>
    private const int SmallRoster = 24;

    /// <summary>
    /// A log of those who are expected, each with what they were given to do and what was noted of them. Where people were ticked at
    /// the start, whoever was not did not come, but for those of whom something was noted.
    /// </summary>
    /// <param name="noted">While it was led; null: nothing was.</param>
    public static ClassLog For(Assignment assigned, IEnumerable<Person> expected, LeadNotes? noted = null) => new(
        [
            .. expected.Select(p => Row(assigned, p, IsThere(p.Id, noted)) with
            {
                Note = noted?.Words.TryGetValue(p.Id, out var lines) == true ? string.Join("; ", lines) : "",
            }),
        ],
        noted is null ? "" : string.Join("; ", noted.OfClass));

    /// <summary>As they were ticked; of whom something was noted was seen; where nobody was ticked, everybody came.</summary>
    private static bool IsThere(PersonId person, LeadNotes? noted) =>
        noted is null || noted.Came.IsEmpty
        || (noted.Came.TryGetValue(person, out var came) ? came : noted.Words.ContainsKey(person));

    /// <summary>
    /// Who is expected: those who were named; else who came last time; else the roster, where it is no larger than the class.
    /// </summary>
    /// <param name="lastCame">Who came to the session logged last; empty if there is none yet.</param>
    public static ImmutableArray<Person> Expected(ImmutableArray<Person> roster, ImmutableArray<PersonId> named,
        ImmutableHashSet<PersonId> lastCame, int headCount) =>
        !named.IsEmpty ? [.. roster.Where(p => named.Contains(p.Id))]
        : !lastCame.IsEmpty ? [.. roster.Where(p => lastCame.Contains(p.Id))]
        : roster.Length <= Math.Max(headCount, SmallRoster) ? roster
        : [];

    /// <summary>A row as somebody was assigned; where nothing was for them, the station is left out.</summary>
    public static LogRow Row(Assignment assigned, Person person, bool came) => new(
        person.Id,
        came,
        [.. assigned.People.First(p => p.Person == person.Id).Stations.Select(s => new StationUse(s.Station, s.Option))],
        "");

    /// <summary>The same with what was to be done, set by set, and of that what ran; what never ran is left out.</summary>
    /// <param name="shares">The share of a round that ran, of a station for somebody; null: it is not known, so that all of it did.</param>
    public static LogRow WithSets(LogRow row, ClassPlan plan, Person? person, Func<PlaceId, PersonId, Func<int, BodySide?,
        decimal>>? shares) => row with
        {
            Uses =
        [
            .. row.Uses.Select(use => plan.Find(use.Station) is { } place
                && place.Station.Options.FirstOrDefault(o => o.Id == use.Last) is { } option
                    ? use with { Sets = Doses.Sets(place.Block, place.Station, option, person, shares?.Invoke(use.Station, row.PersonId)) }
                    : use),
        ],
        };

    /// <summary>Pain that was told of while leading, at the station where it was, else in the row.</summary>
    /// <param name="where">The station that somebody is at in a scene.</param>
    public static LogRow WithPain(LogRow row, LeadNotes? noted, Func<int, PersonId, PlaceId?> where)
    {
        foreach (var (_, scene, words) in noted?.Pains.Where(p => p.Who == row.PersonId) ?? [])
        {
            var at = scene is { } s ? where(s, row.PersonId) : null;
            row = at is { } station && row.Uses.Any(u => u.Station == station)
                ? row with { Uses = [.. row.Uses.Select(u => u.Station == station ? u with { Pain = new Pain(words) } : u)] }
                : row with { Pain = new Pain(words) };
        }

        return row;
    }
}
