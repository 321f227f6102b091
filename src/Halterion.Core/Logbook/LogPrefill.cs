using System.Collections.Immutable;
using Halterion.Core.People;
using Halterion.Core.Plans;

namespace Halterion.Core.Logbook;

/// <summary>Fills in a log beforehand, so that logging is correcting.</summary>
public static class LogPrefill
{
    /// <summary>So many names can be looked over at once. [M] Our choice.</summary>
    private const int SmallRoster = 24;

    /// <summary>A log of those who are expected, each with what the plan and their usual option would have them do.</summary>
    public static ClassLog For(ClassPlan plan, IEnumerable<Person> expected) => new([.. expected.Select(p => Row(plan, p, came: true))], "");

    /// <summary>Who is expected: those who were named; else who came last time; else the roster, where it is no larger than the class.</summary>
    /// <param name="lastCame">Who came to the session logged last; empty if there is none yet.</param>
    public static ImmutableArray<Person> Expected(ImmutableArray<Person> roster, ImmutableArray<Guid> named, ImmutableHashSet<Guid> lastCame, int headCount) =>
        !named.IsEmpty ? [.. roster.Where(p => named.Contains(p.Id))]
        : !lastCame.IsEmpty ? [.. roster.Where(p => lastCame.Contains(p.Id))]
        : roster.Length <= Math.Max(headCount, SmallRoster) ? roster
        : [];

    /// <summary>A row as the plan and the person's usual option would have it.</summary>
    public static LogRow Row(ClassPlan plan, Person person, bool came) => new(
        person.Id,
        came,
        [
            .. from block in plan.Blocks
               from station in block.Stations
               select new StationUse(station.Id, OptionFor(station.Options, person.UsualTier)),
        ],
        "");

    /// <summary>The first option of a person's usual tier; the main one where the station has none.</summary>
    private static PlaceId OptionFor(ImmutableArray<Option> options, Tier usual) =>
        (options.FirstOrDefault(o => o.Tier == usual) ?? options.First(o => o.Tier == Tier.Main)).Id;
}
