using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;

namespace Halterion.Core.Checks;

/// <summary>What repairs do to a class file.</summary>
internal static class RepairKit
{
    public static JsonArray Blocks(this JsonObject root) => root["blocks"]!.AsArray();

    public static JsonObject BlockAt(this JsonObject root, int block) => root.Blocks()[block]!.AsObject();

    public static JsonObject StationOf(this JsonObject root, StationAt at) => root.BlockAt(at.B)["stations"]![at.S]!.AsObject();

    public static JsonObject PartOf(this JsonObject root, StationAt at, int part) => root.StationOf(at)["dose"]![part]!.AsObject();

    public static JsonObject OptionOf(this JsonObject root, StationAt at, int option) => root.StationOf(at)["options"]![option]!.AsObject();

    /// <summary>A station with one timed part and its main option.</summary>
    public static JsonObject Timed(string move, int seconds, string side = "both", string kind = "time") => new()
    {
        ["dose"] = new JsonArray(Part(kind, seconds, side)),
        ["options"] = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = move }),
    };

    public static JsonObject Part(string kind, int amount, string side = "both")
    {
        var part = new JsonObject { ["kind"] = kind, ["amount"] = amount };
        if (side != "both")
        {
            part["side"] = side;
        }

        return part;
    }

    /// <summary>Gives two stations each other's place.</summary>
    public static void Swap(this JsonObject root, StationAt one, int other)
    {
        var stations = root.BlockAt(one.B)["stations"]!.AsArray();
        var (a, b) = (stations[one.S]!.DeepClone(), stations[other]!.DeepClone());
        (stations[one.S], stations[other]) = (b, a);
    }

    /// <summary>A way for each other place in the block that a station could trade with, the nearest first.</summary>
    public static IEnumerable<Action<JsonObject>> Swaps(StationAt at) =>
        Enumerable.Range(0, at.Block.Stations.Length).Where(i => i != at.S).OrderBy(i => Math.Abs(i - at.S))
            .Select(i => (Action<JsonObject>)(root => root.Swap(at, i)));

    public static JsonArray Options(params JsonObject[] options) => new([.. options]);

    public static void Put(this JsonObject of, string field, JsonNode value) => of[field] = value;

    public static Edit Set(StationAt at, string field, int value) => Edit.Set($"{at.Pointer}/{field}", value);
}
