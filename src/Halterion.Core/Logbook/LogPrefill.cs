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
}
