namespace Halterion.Core.Plans;

/// <summary>Where the named parts of a class stand just now.</summary>
public static class Places
{
    /// <summary>The JSON Pointer (RFC 6901) of every block, station and option; <c>""</c> for the class itself.</summary>
    public static Dictionary<PlaceId, string> PointersOf(ClassPlan plan)
    {
        var pointers = new Dictionary<PlaceId, string> { [PlaceId.Class] = "" };
        for (var b = 0; b < plan.Blocks.Length; b++)
        {
            var block = plan.Blocks[b];
            pointers[block.Id] = $"/blocks/{b}";
            Add(pointers, block.Recovery, $"/blocks/{b}/recovery");
            for (var s = 0; s < block.Stations.Length; s++)
            {
                var station = block.Stations[s];
                var at = $"/blocks/{b}/stations/{s}";
                pointers[station.Id] = at;
                Add(pointers, station.Options, at + "/options");
                Add(pointers, station.Waiting, at + "/waiting");
            }
        }

        return pointers;
    }

    private static void Add(Dictionary<PlaceId, string> pointers, IReadOnlyList<Option> options, string at)
    {
        for (var i = 0; i < options.Count; i++)
        {
            pointers[options[i].Id] = $"{at}/{i}";
        }
    }
}
