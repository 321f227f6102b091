using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Store;

namespace Halterion.Web.Library;

/// <summary>The library that ships with the program, and how a user's own moves come beside it.</summary>
internal sealed class ShippedMoves(MoveLibrary library)
{
    public MoveLibrary Library => library;

    public MoveLibrary With(OwnMoves own)
    {
        // One by one: a move whose id the library has taken since keeps none of the others away.
        var moves = own.List().SelectMany(text => ClassReader.ReadMoves(JsonElement.Parse($"[{text}]"), library).Moves);
        return library.With([.. moves]);
    }

    /// <summary>A class file with every own move that it uses in it, so that it travels whole; as it came where it uses none.</summary>
    public static JsonElement Carrying(JsonElement plan, MoveLibrary moves, OwnMoves own)
    {
        var used = Ids(plan).Where(id => !moves.IsShipped(new MoveId(id))).ToHashSet();
        if (used.Count == 0 || JsonNode.Parse(plan.GetRawText()) is not JsonObject file || file["moves"] is not (null or JsonArray))
        {
            return plan;
        }

        var carried = file["moves"] as JsonArray ?? [];
        var there = carried.OfType<JsonObject>()
            .Select(m => m["id"] is JsonValue id && id.TryGetValue<string>(out var text) ? text : null)
            .ToHashSet();
        var missing = own.List().Select(text => JsonNode.Parse(text)!.AsObject())
            .Where(m => used.Contains((string)m["id"]!) && !there.Contains((string)m["id"]!)).ToArray();
        if (missing.Length == 0)
        {
            return plan;
        }

        foreach (var move in missing)
        {
            // A class is text that is read and compared at every key: the picture stays in the library and its export.
            var light = move.DeepClone().AsObject();
            light.Remove("picture");
            carried.Add(light);
        }

        file["moves"] = carried.DeepClone();
        return JsonElement.Parse(file.ToJsonString());
    }

    /// <summary>Every text that stands under a field named move.</summary>
    private static IEnumerable<string> Ids(JsonElement element) => element.ValueKind switch
    {
        JsonValueKind.Object => element.EnumerateObject().SelectMany(p =>
            p.Name == "move" && p.Value.ValueKind == JsonValueKind.String ? [p.Value.GetString()!] : Ids(p.Value)),
        JsonValueKind.Array => element.EnumerateArray().SelectMany(Ids),
        _ => [],
    };
}
