using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>What changed between two versions of a class file, in words. Drafts with faults are compared too.</summary>
public sealed class PlanChanges
{
    private readonly MoveLibrary moves;
    private readonly List<string> words = [];

    private PlanChanges(MoveLibrary moves) => this.moves = moves;

    /// <summary>What changed between two versions of a class, line by line.</summary>
    public static ImmutableArray<string> Between(JsonNode before, JsonNode after, MoveLibrary moves)
    {
        var changes = new PlanChanges(moves);
        if (before is JsonObject a && after is JsonObject b)
        {
            changes.Fields("", a, b, "blocks");
            changes.Items("", List(a, "blocks"), List(b, "blocks"), BlockName, "block", (name, x, y) =>
            {
                changes.Fields(name + ": ", x, y, "stations");
                changes.Items(name + ": ", List(x, "stations"), List(y, "stations"), changes.StationName, "station", changes.Station);
            });
        }

        return [.. changes.words];
    }

    private void Station(string name, JsonObject before, JsonObject after)
    {
        Fields(name + ": ", before, after, "dose", "options");
        if (!Same(before["dose"], after["dose"]))
        {
            words.Add($"{name}: {Dose(before)} → {Dose(after)}");
        }

        Items(name + ": ", List(before, "options"), List(after, "options"), OptionName, "option",
            (option, x, y) => Fields($"{option}: ", x, y));
    }

    /// <summary>Plain fields, in words: "rounds 3 → 2".</summary>
    private void Fields(string where, JsonObject before, JsonObject after, params string[] besides)
    {
        foreach (var field in before.Select(f => f.Key).Union(after.Select(f => f.Key)).Except([.. besides, "id"]))
        {
            if (!Same(before[field], after[field]))
            {
                words.Add($"{where}{Spaced(field)} {Value(before[field])} → {Value(after[field])}");
            }
        }
    }

    /// <summary>Pairs the items of two lists by name, in order, and says what came, went, moved and changed.</summary>
    private void Items(
        string where,
        List<JsonObject> before, List<JsonObject> after, Func<JsonObject, string> nameOf, string what,
            Action<string, JsonObject, JsonObject> compare)
    {
        var pairs = Pairs(before, after, nameOf);
        var left = Enumerable.Range(0, before.Count).Except(pairs.Select(p => p.Before)).ToList();
        foreach (var i in Enumerable.Range(0, after.Count).Except(pairs.Select(p => p.After)))
        {
            // The same thing under the same name elsewhere has moved; a thing in the same place under another name was swapped.
            var moved = left.FindIndex(b => nameOf(before[b]) == nameOf(after[i]));
            if (moved >= 0)
            {
                words.Add($"{where}{what} {nameOf(after[i])} moved");
                compare(where + nameOf(after[i]), before[left[moved]], after[i]);
                left.RemoveAt(moved);
                continue;
            }

            var swapped = left.FindIndex(b => b == i && before.Count == after.Count);
            if (swapped >= 0)
            {
                words.Add($"{where}{what} {nameOf(before[left[swapped]])} → {nameOf(after[i])}");
                left.RemoveAt(swapped);
            }
            else
            {
                words.Add($"{where}{what} {nameOf(after[i])} added");
            }
        }

        words.AddRange(left.Select(b => $"{where}{what} {nameOf(before[b])} removed"));
        foreach (var (b, a) in pairs)
        {
            compare(where + nameOf(after[a]), before[b], after[a]);
        }
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

    private static List<JsonObject> List(JsonObject of, string name) => [.. (of[name] as JsonArray ?? []).OfType<JsonObject>()];

    private static string BlockName(JsonObject block) => $"“{Text(block, "name")}”";

    private string StationName(JsonObject station) =>
        Text(station, "name") is { Length: > 0 } name ? name
        : List(station, "options").Find(o => Text(o, "tier") == "main") is { } main ? MoveName(Text(main, "move")) : "a station";

    private string OptionName(JsonObject option) => $"{Text(option, "tier")} {MoveName(Text(option, "move"))}";

    private string MoveName(string id) => moves.Find(new MoveId(id))?.Name ?? id;

    private string Dose(JsonObject station)
    {
        // A dose that cannot be read is shown as it stands.
        if (station["dose"] is not JsonArray written
            || ClassReader.ReadDose(JsonElement.Parse(written.ToJsonString()), moves) is not { } dose)
        {
            return Value(station["dose"]);
        }

        return ShortDose.Of(new Station { Id = default, Name = "", Options = [], Dose = dose });
    }

    private static string Text(JsonObject of, string name) =>
        of[name] is JsonValue value && value.GetValueKind() == JsonValueKind.String ? value.GetValue<string>() : "";

    private static bool Same(JsonNode? a, JsonNode? b) => JsonNode.DeepEquals(a, b);

    private static string Value(JsonNode? value) => value switch
    {
        null => "none",
        JsonValue v when v.GetValueKind() == JsonValueKind.String => $"“{v.GetValue<string>()}”",
        JsonValue v => v.ToJsonString(),
        JsonArray { Count: 0 } => "none",
        JsonArray a when a.All(i => i is JsonValue) => string.Join(", ", a.Select(i => i!.ToJsonString())),
        JsonArray a => $"{Counted.Of(a.Count, "entry", "entries")}",
        JsonObject load when load["implement"] is not null =>
            $"{(load["kg"] is { } kg ? $"{kg.ToJsonString()} kg " : "")}{Text(load, "implement")}",
        JsonObject range when range["from"] is not null && range["to"] is not null =>
            $"{range["from"]!.ToJsonString()}–{range["to"]!.ToJsonString()}",
        _ => "changed",
    };

    /// <summary>A field name in words: betweenRounds becomes "between rounds".</summary>
    private static string Spaced(string field) =>
        string.Concat(field.Select(c => char.IsUpper(c) ? $" {char.ToLowerInvariant(c)}" : $"{c}"));
}
