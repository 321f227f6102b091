using System.Text.Json;
using System.Text.Json.Nodes;

namespace Halterion.Core.PlanFormat;

/// <summary>Writes the ids of a class file into it, where they are only given by place.</summary>
public static class PlanIds
{
    /// <summary>The same class with every block, station and option named; drafts too. What is no object is passed over.</summary>
    public static JsonElement Written(JsonElement plan)
    {
        if (!Soundness.Holds(plan) || JsonNode.Parse(plan.GetRawText()) is not JsonObject file)
        {
            return plan;
        }

        var ids = PlaceIds.Of(plan);
        var changed = false;
        foreach (var (block, b) in Objects(file["blocks"]))
        {
            var blockId = $"b{b + 1}";
            changed |= Name(block, blockId, ids);
            changed |= Names(block["recovery"], blockId + "r", ids);
            foreach (var (station, s) in Objects(block["stations"]))
            {
                var stationId = $"{blockId}s{s + 1}";
                changed |= Name(station, stationId, ids);
                changed |= Names(station["options"], stationId + "o", ids);
                changed |= Names(station["waiting"], stationId + "w", ids);
            }
        }

        return changed ? JsonElement.Parse(file.ToJsonString()) : plan;
    }

    private static bool Names(JsonNode? options, string byPlace, PlaceIds ids)
    {
        var changed = false;
        foreach (var (option, i) in Objects(options))
        {
            changed |= Name(option, $"{byPlace}{i + 1}", ids);
        }

        return changed;
    }

    private static bool Name(JsonObject of, string byPlace, PlaceIds ids)
    {
        if (of.ContainsKey("id"))
        {
            return false;
        }

        of.Insert(0, "id", ids.Free(byPlace));
        return true;
    }

    private static IEnumerable<(JsonObject Item, int Index)> Objects(JsonNode? list) =>
        list is JsonArray array
            ? array.Select((item, i) => (Item: item as JsonObject, Index: i)).Where(p => p.Item is not null).Select(p => (p.Item!, p.Index))
            : [];
}
