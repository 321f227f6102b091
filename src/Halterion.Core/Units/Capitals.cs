namespace Halterion.Core;

/// <summary>Texts at the beginning of a sentence.</summary>
public static class Capitals
{
    /// <summary>The text with a capital first; an empty one as it is.</summary>
    public static string Capital(this string text) => text.Length == 0 ? text : $"{char.ToUpperInvariant(text[0])}{text[1..]}";
}
