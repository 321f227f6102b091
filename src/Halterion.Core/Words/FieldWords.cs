using System.Collections.Frozen;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Words;

/// <summary>
/// What a changed field of a class means, in words, before and after; what was unset is said as what it was without saying so.
/// A field has its words by the thing that it belongs to and its name in the file.
/// </summary>
internal static class FieldWords
{
    /// <summary>A change of one field in words; empty where other words tell it.</summary>
    internal delegate string Change(JsonNode? before, JsonNode? after);

    private const string AsClass = "as the class";
    private const string AsBlock = "as the block";
    private const string AsMove = "as the move";

    private static readonly Change Elsewhere = (_, _) => "";
    private static readonly Change Count = Between("counting", Map(AsClass,
        ("down", "down"), ("up", "up"), ("last5", "only the last five"), ("off", "not aloud")));
    private static readonly Change Say = Text("words before it");

    private static readonly Func<JsonNode?, string> Sides = Map("together",
        ("asWritten", "together"), ("each", "each side"), ("split", "half on each side"), ("alternate", "alternating every rep"));

    private static readonly Func<JsonNode?, string> View = Map("where it is clearest",
        ("side", "side"), ("front", "front"), ("back", "back"), ("turn", "all round"));

    /// <summary>Of the class itself.</summary>
    public static FrozenDictionary<string, Change> Class { get; } = new Dictionary<string, Change>
    {
        ["format"] = Elsewhere,
        ["version"] = Elsewhere,
        ["library"] = Elsewhere,
        ["blocks"] = Elsewhere,
        ["title"] = Between("title", Quoted("none")),
        ["notes"] = Text("notes"),
        ["slotMinutes"] = (a, b) => $"booked time {Number(a, "none")} → {Number(b, "none")} min",
        ["aim"] = Between("aim", Map("conditioning")),
        ["facing"] = (_, b) => Is(b, "same") ? "you face the same way as the class" : "you face the class",
        ["focus"] = Text("cue of the day"),
        ["bring"] = Text("“bring or wear”"),
        ["warmUp"] = (a, b) => $"warm-up: {WarmUp(a)} → {WarmUp(b)}",
        ["leadInSeconds"] = Between("get-ready time", Times($"{ClassDefaults.Usual.LeadIn}")),
        ["switchSeconds"] = Between("time to switch sides", Times($"{ClassDefaults.Usual.Switch}")),
        ["startSide"] = Between("starts on the", Map("left")),
        ["count"] = Between("counting", Map("down", ("last5", "only the last five"), ("off", "not aloud"))),
        ["moves"] = (_, _) => "moves of your own in it changed",
        ["waivers"] = (_, _) => "what is accepted as is changed",
    }.ToFrozenDictionary();

    /// <summary>Of a block.</summary>
    public static FrozenDictionary<string, Change> Block { get; } = new Dictionary<string, Change>
    {
        ["id"] = Elsewhere,
        ["stations"] = Elsewhere,
        ["name"] = Elsewhere,
        ["phase"] = Between("phase", Map("main block",
            ("warmup", "warm-up"), ("skill", "technique practice"), ("main", "main block"), ("cooldown", "cool-down"))),
        ["notes"] = Text("notes"),
        ["shownBy"] = (a, b) => b is null ? $"led by you (was {Plain(a)})" : $"led by {Plain(b)} (was {(a is null ? "you" : Plain(a))})",
        ["format"] = Between("format", Map("circuit", ("together", "circuit"))),
        ["order"] = Between("format", Map("circuit", ("sets", "straight sets"), ("ownPace", "own pace"))),
        ["seconds"] = Between("length", Times("none")),
        ["show"] = Text("walk-through"),
        ["goalReps"] = (a, b) => $"goal {Number(a, "none")} → {(b is null ? "none" : $"{Number(b, "")} reps")}",
        ["goalShared"] = (_, b) => IsTrue(b) ? "goal shared by the whole room" : "goal for each person",
        ["rounds"] = (a, b) => Number(a, "1") == Number(b, "1") ? "" : $"{Number(a, "1")} → {Number(b, "1")} rounds",
        ["optionalRounds"] = Between("rounds that may be left out", n => Number(n, "0")),
        ["sidePass"] = Between("sides:", Map("both at each station",
            ("station", "both at each station"), ("round", "the whole round left, then right"), ("alternate", "one side each round"))),
        ["windowSeconds"] = Between("work interval", Times("the longest target")),
        ["startEverySeconds"] = (a, b) => b is null ? "timed starts removed"
            : a is null ? $"a start every {Time(b)}" : $"a start every {Time(a)} → {Time(b)}",
        ["betweenStations"] = Between("changeover", Times("none")),
        ["betweenSets"] = Between("rest between sets", Times("none")),
        ["betweenRounds"] = Between("rest between rounds", Times("none")),
        ["afterSeconds"] = Between("rest after the block", Times("none")),
        ["leadInSeconds"] = Between("get-ready time", Times(AsClass)),
        ["startSide"] = Between("starting side", Map(AsClass)),
        ["count"] = Count,
        ["gate"] = Between("starts", Map("by itself",
            ("bell", "by itself"), ("block", "when you press Go"), ("rests", "when you press Go, after every rest too"))),
        ["keep"] = (_, b) => Kept(b),
        ["water"] = (_, b) => IsTrue(b) ? "drink break added to the rests" : "drink break removed",
        ["say"] = Text("words before the block"),
        ["recovery"] = Text("easy movement in the rests"),
        ["recoveryIn"] = (_, b) => Is(b, "all") ? "easy movement in changeovers too" : "easy movement in the rests only",
    }.ToFrozenDictionary();

    /// <summary>Of a station.</summary>
    public static FrozenDictionary<string, Change> Station { get; } = new Dictionary<string, Change>
    {
        ["id"] = Elsewhere,
        ["dose"] = Elsewhere,
        ["options"] = Elsewhere,
        ["name"] = Between("called", Quoted("as its move")),
        ["sides"] = Between("sides:", Sides),
        ["chunk"] = Chunk,
        ["sharing"] = (_, b) => Is(b, "turns") ? "two take turns" : "everyone at the same time",
        ["waiting"] = Text("partner’s task"),
        ["switchSeconds"] = Between("time to switch sides", Times(AsClass)),
        ["changeSeconds"] = Between("changeover", Times(AsBlock)),
        ["betweenSets"] = Between("rest between sets", Times(AsBlock)),
        ["startSide"] = Between("starting side", Map(AsBlock)),
        ["withNext"] = (_, b) => IsTrue(b) ? "linked with the next station" : "no longer linked with the next station",
        ["view"] = Between("shown from the", ByRound(View)),
        ["count"] = Count,
        ["say"] = Say,
        ["demoSeconds"] = Between("demo before it", Times("none")),
    }.ToFrozenDictionary();

    /// <summary>Of an option; its move, and where it is told as a whole, have words of their own.</summary>
    public static FrozenDictionary<string, Change> Option(MoveLibrary moves) => new Dictionary<string, Change>
    {
        ["id"] = Elsewhere,
        ["tier"] = (a, b) => $"now {Article(Tier(b))} (was {Tier(a)})",
        ["move"] = (a, b) => $"{Move(a, moves)} → {Move(b, moves)}",
        ["sides"] = Between("sides:", n => n is null ? "as the station" : Sides(n)),
        ["chunk"] = Chunk,
        ["depth"] = Between("depth:", Map(AsMove, ("parallel", "thighs level"), ("knee", "hands to knee "
            + "height"), ("midShin", "hands to mid-shin"), ("floor", "hands to the floor"))),
        ["support"] = Between("holding on:", Map(AsMove,
            ("none", "no"), ("hand", "one hand"), ("twoHands", "both hands"), ("handOnThigh", "hand on thigh"),
            ("wall", "hand on the wall"), ("chair", "hand on the chair"), ("doorway", "hand on the doorway"), ("knees", "knees down"),
            ("forearms", "forearms down"), ("helper", "a helper"))),
        ["base"] = Between("stance:", Map(AsMove,
            ("frontRaised", "front foot raised"), ("rearRaised", "rear foot raised"), ("single", "one leg"), ("hip", "hip-width"))),
        ["toes"] = Between("toes:", Map(AsMove, ("ahead", "forward"))),
        ["step"] = Between("step:", Map(AsMove)),
        ["trunk"] = Between("trunk:", Map(AsMove)),
        ["arms"] = Between("arms:", Map(AsMove, ("sides", "at the sides"), ("hips", "on the hips"))),
        ["surface"] = Between("on:", Map(AsMove)),
        ["heightCm"] = Between("height:", n => n is null ? AsMove : $"{Number(n, "")} cm"),
        ["impact"] = (_, b) => Is(b, "none") ? "jump taken out: both feet stay on the floor"
            : b is null ? "jump or hop as the move" : $"with a {Plain(b)}",
        ["band"] = Between("band:", Map(AsMove, ("none", "none"))),
        ["grip"] = Between("grip:", Map(AsMove, ("over", "overhand"))),
        ["tempo"] = Between("tempo", n => n is null ? AsMove : Plain(n)),
        ["load"] = Between("weight:", Load),
        ["scale"] = Between("share of the target", n => n is null ? "100%" : $"{100 * n.GetValue<decimal>():0.##}%"),
        ["parts"] = Text("how a part of the target is done"),
        ["note"] = Text("note"),
    }.ToFrozenDictionary();

    /// <summary>A tier as it is called.</summary>
    public static string Tier(JsonNode? tier) => Is(tier, "instead") ? "alternative" : Plain(tier);

    /// <summary>The name of a move.</summary>
    public static string Move(JsonNode? id, MoveLibrary moves) =>
        Plain(id) is var text && moves.Find(new MoveId(text)) is { } move ? move.Name : text;

    private static string Article(string word) => word is "easier" or "alternative" ? $"an {word} option" : $"the {word} option";

    private static string WarmUp(JsonNode? word) => Is(word, "ownTime") ? "on their own before class" : "in class";

    private static string Chunk(JsonNode? before, JsonNode? after) => after is null ? "no longer switching every few reps"
        : $"switching every {Number(after, "")} reps{(before is null ? "" : $" (was {Number(before, "")})")}";

    private static string Kept(JsonNode? keep) =>
        Is(keep, "protected") ? "kept in full when late" : Is(keep, "droppable") ? "can be left out when late" : "can "
            + "be shortened when late";

    private static string Load(JsonNode? load)
    {
        if (load is not JsonObject held)
        {
            return "none";
        }

        var two = held["count"] is { } count && count.ToJsonString() == "2" ? "2 × " : "";
        var where = Plain(held["position"]) switch
        {
            "" => "",
            "goblet" => " at the chest",
            "sides" => " at the sides",
            "shoulders" => " on the shoulders",
            "rack" => " in the rack position",
            "frontRack" => " in the front rack",
            "back" => " on the back",
            "overhead" => " overhead",
            "hips" => " across the hips",
            "low" => " held low",
            var other => $", {other}",
        };
        return $"{two}{(held["kg"] is { } kg ? $"{kg.ToJsonString()} kg " : "")}{Plain(held["implement"])}{where}";
    }

    /// <summary>"label before → after"; empty where both mean the same, such as no rest and one of nothing.</summary>
    private static Change Between(string label, Func<JsonNode?, string> words) =>
        (a, b) => words(a) == words(b) ? "" : $"{label} {words(a)} → {words(b)}";

    /// <summary>What is too long to be told twice: that it came, went or changed.</summary>
    private static Change Text(string what) => (a, b) => $"{what} {(a is null ? "added" : b is null ? "removed" : "changed")}";

    private static Func<JsonNode?, string> Quoted(string unset) => n => n is null ? unset : $"“{Plain(n)}”";

    private static Func<JsonNode?, string> Map(string unset, params (string Word, string Said)[] words)
    {
        var said = words.ToFrozenDictionary(w => w.Word, w => w.Said);
        return n => n is null ? unset : said.GetValueOrDefault(Plain(n)) ?? Plain(n);
    }

    private static Func<JsonNode?, string> Times(string unset) => n => n is null ? unset : Time(n);

    private static Func<JsonNode?, string> ByRound(Func<JsonNode?, string> one) =>
        n => n is JsonArray list ? string.Join(", then ", list.Select(one)) : one(n);

    /// <summary>Seconds, or those of each round: "90 s", "60 s, then 30 s".</summary>
    private static string Time(JsonNode n) => n is JsonArray list
        ? list.Select(v => Time(v!)).ToArray() is var each && each.Distinct().Count() == 1 ? each[0] : string.Join(", then ", each)
        : n is JsonValue value && value.TryGetValue<int>(out var seconds) ? seconds == 0 ? "none" : $"{new Seconds(seconds)}" : Plain(n);

    private static string Number(JsonNode? n, string unset) => n is null ? unset : Plain(n);

    private static bool Is(JsonNode? n, string word) => n is not null && Plain(n) == word;

    private static bool IsTrue(JsonNode? n) => Is(n, "true");

    private static string Plain(JsonNode? n) => n switch
    {
        null => "",
        JsonValue value when value.TryGetValue<string>(out var text) => text,
        _ => n.ToJsonString(),
    };
}
