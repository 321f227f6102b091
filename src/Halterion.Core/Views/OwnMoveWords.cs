using System.Text.Json;

namespace Halterion.Core.Views;

/// <summary>What is typed of a move of one's own, a line each: "what: value".</summary>
public static class OwnMoveWords
{
    /// <summary>Fields by the labels that they have where they are typed; a field without one is named as in the data.</summary>
    private static readonly Dictionary<string, string> Labels = new()
    {
        ["name"] = "Name",
        ["aliases"] = "Also called",
        ["family"] = "Family",
        ["like"] = "Looks like",
        ["position"] = "Position",
        ["plane"] = "Direction",
        ["sided"] = "Sides",
        ["sideMeans"] = "What its side means",
        ["tempo"] = "Tempo",
        ["dose"] = "Usual dose",
        ["kit"] = "Kit",
        ["demand"] = "What it asks",
        ["getIn"] = "Getting in and out",
        ["setUp"] = "Set-up",
        ["path"] = "Path",
        ["end"] = "End position",
        ["breath"] = "Breath",
        ["rep"] = "What one rep is",
        ["felt"] = "Felt where",
        ["muscles"] = "What works",
        ["easier"] = "How to make it easier",
        ["harder"] = "How to make it harder",
        ["readiness"] = "What should be sound before it",
        ["kitSafety"] = "Kit safety",
        ["cautions"] = "Cautions",
        ["faults"] = "Faults",
        ["limits"] = "Not offered with",
        ["cues"] = "What you say of it",
        ["picture"] = "Picture",
    };

    /// <param name="several">More than one move is told of: each line says of which it is.</param>
    public static IEnumerable<string> Lines(JsonElement move, bool several) =>
        from field in move.EnumerateObject()
        where field.Name != "id"
        let label = Labels.GetValueOrDefault(field.Name, field.Name)
        select $"{label}{(several ? $" of {move.GetProperty("name").GetString()}" : "")}: {Words(field.Value)}";

    private static string Words(JsonElement value) => value.ValueKind switch
    {
        JsonValueKind.Object => string.Join(", ", value.EnumerateObject().Select(f => $"{f.Name} {Words(f.Value)}")),
        JsonValueKind.Array => string.Join(", ", value.EnumerateArray().Select(Words)),
        JsonValueKind.String when value.GetString()!.StartsWith("data:", StringComparison.Ordinal) =>
            $"one of {value.GetString()!.Length * 3 / 4000} kB",
        _ => value.ToString(),
    };
}
