using System.Collections.Immutable;
using Halterion.Core.Logbook;
using Halterion.Core.Plans;

namespace Halterion.Core.People;

/// <summary>Fills in a log beforehand, so that logging is correcting.</summary>
public static class LogPrefill
{
    /// <param name="lastCame">Who came to the class logged last; empty if there is none yet.</param>
    public static ClassLog For(ClassPlan plan, ImmutableArray<Person> roster, ImmutableHashSet<Guid> lastCame) =>
        new([.. roster.Select(p => Row(plan, p, lastCame.IsEmpty || lastCame.Contains(p.Id)))], "");

    /// <summary>A row as the plan and the person's usual option would have it.</summary>
    public static LogRow Row(ClassPlan plan, Person person, bool came) => new(
        person.Id,
        came,
        [
            .. from block in plan.Blocks.Select((block, index) => (block.Stations, Index: index))
               from station in block.Stations.Select((station, index) => (station.Options, Index: index))
               select new StationUse(block.Index, station.Index, OptionFor(station.Options, person.UsualTier)),
        ],
        "");

    /// <summary>The first option of a person's usual tier; the main one where the station has none.</summary>
    private static int OptionFor(ImmutableArray<Option> options, Tier usual)
    {
        var of = options.Select((option, index) => (option.Tier, Index: index)).ToArray();
        return of.Where(o => o.Tier == usual).Select(o => (int?)o.Index).FirstOrDefault()
            ?? of.First(o => o.Tier == Tier.Main).Index;
    }
}
