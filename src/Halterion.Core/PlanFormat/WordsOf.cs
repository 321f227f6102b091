using System.Collections.Frozen;
using System.Text.Json;

namespace Halterion.Core.PlanFormat;

/// <summary>The words of an enumeration as they stand in a file.</summary>
public static class WordsOf<T> where T : struct, Enum
{
    /// <summary>Each word as it stands in a file, with what it is.</summary>
    public static readonly FrozenDictionary<string, T> All =
        Enum.GetValues<T>().ToFrozenDictionary(v => JsonNamingPolicy.CamelCase.ConvertName(v.ToString()));

    private static readonly FrozenDictionary<T, string> Back = All.ToFrozenDictionary(w => w.Value, w => w.Key);

    /// <summary>All of them, in the order of the enumeration.</summary>
    public static readonly string[] Names = Array.ConvertAll(Enum.GetNames<T>(), JsonNamingPolicy.CamelCase.ConvertName);

    /// <summary>All of them, for a sentence.</summary>
    public static readonly string Listed = string.Join(", ", Names);

    /// <summary>The word that a JSON value is, if it is one of them.</summary>
    public static bool TryRead(JsonElement value, out T word)
    {
        word = default;
        return value.ValueKind == JsonValueKind.String && JsonText.Of(value) is { } text && All.TryGetValue(text, out word);
    }

    /// <summary>The word as it stands in a file.</summary>
    public static string Of(T value) => Back[value];
}
