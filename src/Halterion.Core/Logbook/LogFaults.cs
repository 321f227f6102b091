using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Logbook;

/// <summary>What is wrong with a log for the class it speaks of: its stations and options must be those of that class.</summary>
public static class LogFaults
{
    /// <returns>Faults with pointers into <c>{ "log": … }</c>.</returns>
    public static ImmutableArray<PlanFault> Of(ClassLog log, ClassPlan plan)
    {
        var options = plan.Blocks.SelectMany(b => b.Stations).ToDictionary(s => s.Id, s => s.Options.Select(o => o.Id).ToHashSet());
        var faults = new Faults();
        var people = new HashSet<PersonId>();
        for (var r = 0; r < log.Rows.Length; r++)
        {
            if (!people.Add(log.Rows[r].PersonId))
            {
                faults.Add($"/log/rows/{r}/personId", "This person has a row already.", "one row a person");
            }

            var stations = new HashSet<PlaceId>();
            for (var u = 0; u < log.Rows[r].Uses.Length; u++)
            {
                var (at, use) = ($"/log/rows/{r}/uses/{u}", log.Rows[r].Uses[u]);
                if (!options.TryGetValue(use.Station, out var known))
                {
                    faults.Add($"{at}/station", $"The class has no station “{use.Station}”.", "the id of one of its stations");
                }
                else if (!stations.Add(use.Station))
                {
                    faults.Add($"{at}/station", $"“{use.Station}” stands in this row already.", "each station once");
                }
                else if (use.Option is { } option && !known.Contains(option))
                {
                    faults.Add($"{at}/option", $"The station has no option “{option}”.", "the id of one of its options, or leave it out");
                }
                else if (use.ChangedTo is { } changed && !known.Contains(changed))
                {
                    faults.Add($"{at}/changedTo", $"The station has no option “{changed}”.",
                        "the id of one of its options, or leave it out");
                }
            }
        }

        About(log.Hardest, "hardest");
        About(log.LeastLiked, "leastLiked");
        return faults.All;

        void About(PlaceId? station, string field)
        {
            if (station is { } named && !options.ContainsKey(named))
            {
                faults.Add($"/log/{field}", $"The class has no station “{named}”.", "the id of one of its stations");
            }
        }
    }
}
