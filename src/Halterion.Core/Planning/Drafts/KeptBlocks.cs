using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Planning.Drafts;

/// <summary>Which part of a drafted class something belongs to.</summary>
internal enum KeptPart
{
    /// <summary>Words before the work.</summary>
    Talk,

    /// <summary>Getting ready.</summary>
    WarmUp,

    /// <summary>The main work.</summary>
    Main,

    /// <summary>Winding down.</summary>
    CoolDown,
}

/// <summary>What of a class so far stays as it is: whole blocks, and stations of blocks that are made anew.</summary>
/// <param name="Prefix">Begins the names of what is new: nothing that stays is called so.</param>
/// <param name="StationsFirst">The main stations that stay come before the main blocks that do.</param>
/// <param name="Replaced">Blocks that do not stay: what is new in their stead is called as they were.</param>
/// <param name="Fields">What the class itself says beside its blocks: how it counts, its own moves.</param>
internal sealed record KeptBlocks(
    ImmutableArray<(KeptPart Part, JsonObject Block)> AllBlocks, ImmutableArray<(KeptPart Part, JsonObject Station)> AllStations,
    string Prefix, JsonObject Fields, bool StationsFirst, ImmutableArray<(string Phase, string Id, string Name)> Replaced)
{
    /// <summary>What a brief says itself.</summary>
    private static readonly ImmutableHashSet<string> Own = ["title", "slotMinutes", "aim", "warmUp", "blocks"];

    /// <summary>Blocks that stay, in their order.</summary>
    public ImmutableArray<JsonObject> Blocks(KeptPart part) => [.. AllBlocks.Where(b => b.Part == part).Select(b => b.Block)];

    /// <summary>Stations that stay, in their order.</summary>
    public ImmutableArray<JsonObject> Stations(KeptPart part) => [.. AllStations.Where(s => s.Part == part).Select(s => s.Station)];

    /// <summary>The main moves of everything that stays of the main work, blocks first, as they come to stand.</summary>
    public ImmutableArray<MoveId> MainMoves =>
    [
        .. Blocks(KeptPart.Main).Where(b => (string?)b["phase"] is "main" or "finisher").SelectMany(b => List(b, "stations"))
            .Concat(Stations(KeptPart.Main))
            .SelectMany(s => List(s, "options")).Where(o => (string?)o["tier"] == "main").Select(o => new MoveId((string)o["move"]!)),
    ];

    /// <summary>A pinned option keeps its whole station.</summary>
    public static KeptBlocks Of(KeptParts? kept)
    {
        if (kept is null)
        {
            return new KeptBlocks([], [], "d", [], false, []);
        }

        bool IsPinned(JsonObject place) => place["id"] is JsonValue id && kept.Pinned.Contains(new PlaceId(id.GetValue<string>()));
        var root = JsonNode.Parse(PlanIds.Written(kept.Plan).GetRawText())!.AsObject();
        var blocks = List(root, "blocks").ToArray();
        var stations = blocks.Where(b => !IsPinned(b))
            .SelectMany(b => List(b, "stations").Where(s => IsPinned(s) || List(s, "options").Any(IsPinned)).Select(s => (PartOf(b), s)));
        var taken = blocks.SelectMany(b => List(b, "stations").Prepend(b)).Select(p => $"{p["id"]}").ToArray();
        string[] letters = [.. Enumerable.Range(0, 26).Select(i => $"{(char)('a' + ((i + 3) % 26))}")];
        var prefix = letters.Concat(from one in letters from other in letters select one + other)
            .First(p => !taken.Any(id => id.StartsWith(p, StringComparison.Ordinal)));
        ImmutableArray<JsonObject> whole = [.. blocks.Where(IsPinned)];
        ImmutableArray<(KeptPart, JsonObject)> single = [.. stations];
        bool HasPinned(JsonObject b) => List(b, "stations").Any(s => IsPinned(s) || List(s, "options").Any(IsPinned));
        var main = blocks.FirstOrDefault(b => PartOf(b) == KeptPart.Main && (IsPinned(b) || HasPinned(b)));
        // Words or water between the work are part of it.
        var first = Array.FindIndex(blocks, b => PartOf(b) == KeptPart.Main);
        KeptPart Placed(JsonObject b) =>
            PartOf(b) == KeptPart.Talk && first >= 0 && Array.IndexOf(blocks, b) > first ? KeptPart.Main : PartOf(b);
        return new KeptBlocks(
            [.. whole.Select(b => (Placed(b), b))], single, prefix, FieldsOf(root, whole, single.Select(s => s.Item2)),
            main is not null && !IsPinned(main),
            [
                .. blocks.Where(b => !IsPinned(b) && List(b, "stations").Any())
                    .Select(b => ((string)b["phase"]!, (string)b["id"]!, (string)b["name"]!)),
            ]);
    }

    /// <summary>The fields of the class; of what was accepted in it only that which is about all of it, or about what stays.</summary>
    private static JsonObject FieldsOf(JsonObject root, IEnumerable<JsonObject> blocks, IEnumerable<JsonObject> stations)
    {
        var fields = new JsonObject(root.Where(f => !Own.Contains(f.Key)).Select(f => KeyValuePair.Create(f.Key, f.Value?.DeepClone())));
        var all = stations.Concat(blocks.SelectMany(b => List(b, "stations"))).ToArray();
        var here = blocks.Concat(all).Concat(all.SelectMany(s => List(s, "options"))).Select(p => (string?)p["id"])
            .Append(PlaceId.Class.Value).ToHashSet();
        if (fields["waivers"] is JsonArray waivers)
        {
            fields["waivers"] = new JsonArray([.. waivers.Where(w => here.Contains((string?)w!["place"])).Select(w => w!.DeepClone())]);
        }

        return fields;
    }

    private static KeptPart PartOf(JsonObject block) => WordsOf<Phase>.All[(string)block["phase"]!] switch
    {
        Phase.Talk => KeptPart.Talk,
        Phase.Warmup or Phase.Activation or Phase.Skill => KeptPart.WarmUp,
        Phase.Main or Phase.Core or Phase.Finisher => KeptPart.Main,
        Phase.Cooldown => KeptPart.CoolDown,
    };

    private static IEnumerable<JsonObject> List(JsonObject thing, string name) => (thing[name] as JsonArray ?? []).OfType<JsonObject>();
}
