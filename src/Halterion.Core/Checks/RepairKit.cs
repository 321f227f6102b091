using System.Text.Json.Nodes;
using Halterion.Core.Moves;
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
    public static JsonObject Timed(MoveId move, int seconds, string side = "both", string kind = "time") => new()
    {
        ["dose"] = new JsonArray(Part(kind, seconds, side)),
        ["options"] = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = move.Value }),
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

    /// <summary>The most that an amount of a file says: of a range its end, of a list its largest.</summary>
    public static int Most(JsonNode amount) => amount switch
    {
        JsonArray list => list.Max(a => Most(a!)),
        JsonObject range => Most(range["to"]!),
        _ => (int)amount.GetValue<decimal>(),
    };

    /// <summary>Another amount, entry by entry where it is listed by round.</summary>
    public static void Change(JsonObject part, Func<int, int> change) => part["amount"] = part["amount"] switch
    {
        JsonArray list => new JsonArray([.. list.Select(a => (JsonNode)change(Most(a!)))]),
        var one => change(Most(one!)),
    };

    /// <summary>Gives two stations each other's place, also in a walk-through that shows them in their order.</summary>
    public static void Swap(this JsonObject root, StationAt one, int other)
    {
        var stations = root.BlockAt(one.B)["stations"]!.AsArray();
        var before = Ids(stations);
        var (a, b) = (stations[one.S]!.DeepClone(), stations[other]!.DeepClone());
        (stations[one.S], stations[other]) = (b, a);
        var after = Ids(stations);
        foreach (var show in root.Blocks().Select(block => block!["show"]).OfType<JsonArray>())
        {
            var places = Enumerable.Range(0, show.Count).Where(i => before.Contains(Shown(show[i]))).ToArray();
            var shown = places.Select(i => show[i]!).ToArray();
            if (!shown.Select(s => before.IndexOf(Shown(s))).SequenceEqual(shown.Select(s => before.IndexOf(Shown(s))).Order()))
            {
                // It goes its own way, and keeps it.
                continue;
            }

            var next = shown.OrderBy(s => after.IndexOf(Shown(s))).Select(s => s.DeepClone()).ToArray();
            for (var i = 0; i < places.Length; i++)
            {
                show[places[i]] = next[i];
            }
        }

        static List<string> Ids(JsonArray stations) => [.. stations.Select(s => $"{s!["id"]}")];

        static string Shown(JsonNode? line) => $"{line!["station"]}";
    }

    /// <summary>A way for each other place in the block that a station could trade with, the nearest first.</summary>
    public static IEnumerable<Action<JsonObject>> Swaps(StationAt at) =>
        Enumerable.Range(0, at.Block.Stations.Length).Where(i => i != at.S).OrderBy(i => Math.Abs(i - at.S))
            .Select(i => (Action<JsonObject>)(root => root.Swap(at, i)));

    /// <summary>
    /// A block made so many seconds longer: every timed part of it by the same share, to five seconds; false where it has none.
    /// </summary>
    /// <param name="timed">What its timed parts take now in the whole class, seconds.</param>
    public static bool Lengthen(this JsonObject root, int block, int timed, int more)
    {
        var parts = root.BlockAt(block)["stations"]!.AsArray().SelectMany(s => s!["dose"]!.AsArray())
            .Select(p => p!.AsObject()).Where(p => $"{p["kind"]}" is "time" or "hold" && p["amount"] is JsonValue).ToArray();
        if (timed == 0 || parts.Length == 0)
        {
            return false;
        }

        // What is timed grows by all that is missing; switches, changes and reps stay as they are.
        var share = 1 + (double)more / timed;
        foreach (var part in parts)
        {
            Change(part, v => Math.Min(600, (int)(5 * Math.Ceiling(v * share / 5))));
        }

        return true;
    }

    /// <summary>A block that fills so many seconds with moves, each as long as the others.</summary>
    /// <param name="make">A station of a move and its seconds.</param>
    public static JsonObject Filled(string name, string phase, MoveId[] moves, int seconds, Func<MoveId, int, JsonObject> make)
    {
        var each = Math.Clamp((seconds + moves.Length - 1) / moves.Length, 20, 600);
        return new JsonObject
        {
            ["name"] = name,
            ["phase"] = phase,
            ["leadInSeconds"] = 0,
            ["stations"] = new JsonArray([.. moves.Select(m => make(m, each))]),
        };
    }

    public static Edit Set(StationAt at, string field, int value) => Edit.Set($"{at.Pointer}/{field}", value);
}
