using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Words;

/// <summary>
/// What changed between two versions of a class file, in words: where, what, before and after. Drafts with faults are compared too;
/// their targets are then told as they are typed.
/// </summary>
public sealed class PlanChanges
{
    private readonly MoveLibrary moves;
    private readonly Lazy<ClassPlan?> was;
    private readonly Lazy<ClassPlan?> now;
    private readonly Lazy<FrozenDictionary<string, FieldWords.Change>> ofOption;
    private readonly List<string> words = [];

    private PlanChanges(JsonNode before, JsonNode after, MoveLibrary moves)
    {
        this.moves = moves;
        was = new(() => Read(before));
        now = new(() => Read(after));
        ofOption = new(() => FieldWords.Option(moves));
    }

    /// <summary>What changed between two versions of a class, line by line.</summary>
    public static ImmutableArray<string> Between(JsonNode before, JsonNode after, MoveLibrary moves)
    {
        var changes = new PlanChanges(before, after, moves);
        if (before is JsonObject a && after is JsonObject b)
        {
            changes.Fields("", FieldWords.Class, a, b);
            changes.Blocks(List(a, "blocks"), List(b, "blocks"));
        }

        return [.. changes.words];
    }

    private void Blocks(List<JsonObject> before, List<JsonObject> after)
    {
        foreach (var step in Steps(before, after, b => Text(b, "name")))
        {
            switch (step)
            {
                case (null, { } i):
                    Say("", $"new block “{Text(after[i], "name")}”{Length(i)}");
                    break;
                case ({ } i, null):
                    Say("", $"{Text(before[i], "name")} removed");
                    break;
                case ({ } i, { } j):
                    var name = Text(after[j], "name");
                    if (step.Moved)
                    {
                        Say("", $"{name} moved from {Ordinal(i)} to {Ordinal(j)}");
                    }

                    if (Text(before[i], "name") is var old && old != name)
                    {
                        Say("", $"“{old}” renamed “{name}”");
                    }

                    // The shape is told by one of its two fields.
                    var shaped = Same(before[i]["format"], after[j]["format"]) ? "" : "order";
                    Fields(name, FieldWords.Block, before[i], after[j], "name", shaped);
                    Stations(name, (i, List(before[i], "stations")), (j, List(after[j], "stations")));
                    break;
            }
        }
    }

    private void Stations(string block, (int Block, List<JsonObject> All) before, (int Block, List<JsonObject> All) after)
    {
        foreach (var step in Steps(before.All, after.All, StationName))
        {
            switch (step)
            {
                case (null, { } i):
                    Say(block, $"{StationName(after.All[i])} added");
                    break;
                case ({ } i, null):
                    Say(block, $"{StationName(before.All[i])} removed");
                    break;
                case ({ } i, { } j):
                    var (x, y) = (before.All[i], after.All[j]);
                    var (old, name) = (StationName(x), StationName(y));
                    var swapped = old != name;
                    if (swapped)
                    {
                        Say(block, $"{old} → {name}");
                    }

                    if (step.Moved)
                    {
                        Say(block, $"{name} moved from {Ordinal(i)} to {Ordinal(j)}");
                    }

                    Station($"{block}, {name}", swapped, (before.Block, i, x), (after.Block, j, y));
                    break;
            }
        }
    }

    private void Station(
        string where, bool swapped, (int Block, int At, JsonObject Json) before, (int Block, int At, JsonObject Json) after)
    {
        var dosed = !Same(before.Json["dose"], after.Json["dose"]);
        // A target says its sides with it.
        string[] told = dosed ? ["sides", "chunk"] : [];
        Fields(where, FieldWords.Station, before.Json, after.Json, swapped ? [.. told, "name"] : told);
        if (dosed)
        {
            Say(where, Shorter(Target(was.Value, before), Target(now.Value, after)));
        }

        var (x, y) = (List(before.Json, "options"), List(after.Json, "options"));
        foreach (var step in Steps(x, y, o => $"{Text(o, "tier")} {Text(o, "move")}"))
        {
            switch (step)
            {
                case (null, { } i):
                    Say(where, $"{FieldWords.Tier(y[i]["tier"])} option added: {OptionWords(now.Value, after.Block, after.At, i, y[i])}");
                    break;
                case ({ } i, null):
                    Say(where, $"{FieldWords.Tier(x[i]["tier"])} option removed: "
                        + $"{OptionWords(was.Value, before.Block, before.At, i, x[i])}");
                    break;
                case ({ } i, { } j):
                    Option(where, swapped, (before, i, x[i]), (after, j, y[j]));
                    break;
            }
        }
    }

    private void Option(
        string where, bool swapped, ((int Block, int At, JsonObject Json) Station, int At, JsonObject Json) before,
        ((int Block, int At, JsonObject Json) Station, int At, JsonObject Json) after)
    {
        var (old, tier) = (FieldWords.Tier(before.Json["tier"]), FieldWords.Tier(after.Json["tier"]));
        var moved = Text(before.Json, "move") != Text(after.Json, "move");
        if (moved)
        {
            // Another move is another option; of the main one the station has said it with its name.
            if (!swapped || tier != "main")
            {
                Say(where, $"{old} option {FieldWords.Move(before.Json["move"], moves)} → "
                    + OptionWords(now.Value, after.Station.Block, after.Station.At, after.At, after.Json));
            }

            return;
        }

        if (old != tier)
        {
            Say(where, $"{old} option is now {(tier is "easier" or "alternative" ? "an" : "the")} {tier}");
        }

        Fields($"{where}, {tier} option", ofOption.Value, before.Json, after.Json, "tier", "move");
    }

    /// <summary>Plain fields, in words: "3 → 2 rounds".</summary>
    private void Fields(
        string where, FrozenDictionary<string, FieldWords.Change> known, JsonObject before, JsonObject after, params string[] besides)
    {
        foreach (var field in before.Select(f => f.Key).Union(after.Select(f => f.Key)).Except(besides))
        {
            if (!Same(before[field], after[field]))
            {
                // What the language does not know is a fault of the draft, and is told only as that.
                Say(where, known.TryGetValue(field, out var change) ? Told(change, before[field], after[field])
                    : $"unknown entry “{field}” changed");
            }
        }
    }

    /// <summary>A draft may hold anything; what has no words is told as a change.</summary>
    private static string Told(FieldWords.Change change, JsonNode? before, JsonNode? after)
    {
        try
        {
            return change(before, after);
        }
        catch (Exception e) when (e is InvalidOperationException or FormatException)
        {
            return "an entry that does not work changed";
        }
    }

    private void Say(string where, string what)
    {
        if (what.Length > 0)
        {
            words.Add(where.Length > 0 ? $"{where}: {what}" : what);
        }
    }

    private readonly record struct Step(int? Before, int? After, bool Moved)
    {
        public void Deconstruct(out int? before, out int? after) => (before, after) = (Before, After);
    }

    /// <summary>Pairs the items of two lists by name, in order: what came, went, moved, was swapped and stayed.</summary>
    private static List<Step> Steps(List<JsonObject> before, List<JsonObject> after, Func<JsonObject, string> nameOf)
    {
        var steps = new List<Step>();
        var pairs = Pairs(before, after, nameOf);
        var left = Enumerable.Range(0, before.Count).Except(pairs.Select(p => p.Before)).ToList();
        foreach (var i in Enumerable.Range(0, after.Count).Except(pairs.Select(p => p.After)))
        {
            // The same thing under the same name elsewhere has moved; a thing in the same place under another name was swapped.
            var moved = left.FindIndex(b => nameOf(before[b]) == nameOf(after[i]));
            var at = moved >= 0 ? moved : left.FindIndex(b => b == i && before.Count == after.Count);
            steps.Add(new Step(at >= 0 ? left[at] : null, i, moved >= 0));
            if (at >= 0)
            {
                left.RemoveAt(at);
            }
        }

        steps.AddRange(left.Select(b => new Step(b, null, false)));
        steps.AddRange(pairs.Select(p => new Step(p.Before, p.After, false)));
        return steps;
    }

    /// <summary>The longest common run of names, by dynamic programming.</summary>
    private static List<(int Before, int After)> Pairs(List<JsonObject> before, List<JsonObject> after, Func<JsonObject, string> nameOf)
    {
        var (a, b) = (before.ConvertAll(x => nameOf(x)), after.ConvertAll(x => nameOf(x)));
        var longest = new int[a.Count + 1, b.Count + 1];
        for (var i = a.Count - 1; i >= 0; i--)
        {
            for (var j = b.Count - 1; j >= 0; j--)
            {
                longest[i, j] = a[i] == b[j] ? longest[i + 1, j + 1] + 1 : Math.Max(longest[i + 1, j], longest[i, j + 1]);
            }
        }

        var pairs = new List<(int, int)>();
        for (int i = 0, j = 0; i < a.Count && j < b.Count;)
        {
            if (a[i] == b[j])
            {
                pairs.Add((i++, j++));
            }
            else if (longest[i + 1, j] >= longest[i, j + 1])
            {
                i++;
            }
            else
            {
                j++;
            }
        }

        return pairs;
    }

    private ClassPlan? Read(JsonNode file) => ClassReader.Read(Encoding.UTF8.GetBytes(file.ToJsonString()), moves).Plan;

    private static List<JsonObject> List(JsonObject of, string name) => [.. (of[name] as JsonArray ?? []).OfType<JsonObject>()];

    private string StationName(JsonObject station) =>
        Text(station, "name") is { Length: > 0 } name ? name
        : List(station, "options").Find(o => Text(o, "tier") == "main") is { } main ? FieldWords.Move(main["move"], moves) : "a station";

    /// <summary>How long a new block is: " (2 min 25 s)"; empty where the class cannot be timed.</summary>
    private string Length(int block) =>
        now.Value is { } plan && Compiler.Compile(plan).Timeline is { } timeline
            ? $" ({new Seconds(timeline.Spans.Where(s => s.Block == block).Sum(s => s.Length().Value))})"
            : "";

    private string OptionWords(ClassPlan? plan, int block, int station, int option, JsonObject json) =>
        plan is not null && plan.Blocks[block].Stations[station] is var of && of.Options.Length > option
            ? PlanWords.Option(of.Options[option], of, plan.Moves, new Preferences())
            : FieldWords.Move(json["move"], moves);

    private string Target(ClassPlan? plan, (int Block, int At, JsonObject Json) station)
    {
        if (plan is not null)
        {
            return PlanWords.Targets(plan.Blocks[station.Block].Stations[station.At], plan.Blocks[station.Block]);
        }

        // A target that cannot be read is no more than that.
        return station.Json["dose"] is not JsonArray written
            || ClassReader.ReadDose(JsonElement.Parse(written.ToJsonString()), moves) is not { } dose
            ? "a target that does not work"
            : ShortDose.Of(new Station { Id = default, Name = "", Options = [], Dose = dose });
    }

    /// <summary>"10 reps each side → 12 reps each side" in fewer words: "10 → 12 reps each side".</summary>
    private static string Shorter(string before, string after)
    {
        var (a, b) = (before.IndexOf(' ', StringComparison.Ordinal), after.IndexOf(' ', StringComparison.Ordinal));
        return a > 0 && b > 0 && before[a..] == after[b..] ? $"{before[..a]} → {after}" : $"{before} → {after}";
    }

    private static string Ordinal(int index) => (index + 1) switch
    {
        1 => "1st",
        2 => "2nd",
        3 => "3rd",
        var n when n > 20 && n % 10 is 1 or 2 or 3 => n.ToString(CultureInfo.InvariantCulture)
            + (n % 10 == 1 ? "st" : n % 10 == 2 ? "nd" : "rd"),
        var n => n.ToString(CultureInfo.InvariantCulture) + "th",
    };

    private static string Text(JsonObject of, string name) =>
        of[name] is JsonValue value && value.GetValueKind() == JsonValueKind.String ? value.GetValue<string>() : "";

    private static bool Same(JsonNode? a, JsonNode? b) => JsonNode.DeepEquals(a, b);
}
