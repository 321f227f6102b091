using System.Globalization;
using System.Text.Json;

namespace Halterion.Core.PlanFormat;

/// <summary>Numbers within bounds, and what is said where they are not.</summary>
internal static class Numbers
{
    public static int? Whole(JsonElement value, int min, int max) =>
        JsonText.Exact(value) is { } number && decimal.Truncate(number) == number && number >= min && number <= max ? (int)number : null;

    public static decimal? Decimal(JsonElement value, decimal min, decimal max) =>
        JsonText.Exact(value) is { } number && number >= min && number <= max ? number : null;

    public static string WholeWords(int min, int max) => string.Create(CultureInfo.InvariantCulture, $"a whole number {min}–{max}");

    public static string DecimalWords(decimal min, decimal max) =>
        string.Create(CultureInfo.InvariantCulture, $"a number {min}–{max} with at most two decimal places and no exponent");
}

/// <summary>Reads texts and numbers of a JSON document without throwing.</summary>
public static class JsonText
{
    /// <summary>The text; null if it holds half a surrogate pair, which is no text.</summary>
    public static string? Of(JsonElement value)
    {
        try
        {
            return value.GetString();
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    /// <summary>A field's place as a JSON Pointer (RFC 6901).</summary>
    public static string PointerTo(string at, string name) =>
        $"{at}/{name.Replace("~", "~0", StringComparison.Ordinal).Replace("/", "~1", StringComparison.Ordinal)}";

    /// <summary>Whether a text holds control characters other than tabs and line ends.</summary>
    public static bool HasControls(string text)
    {
        foreach (var c in text)
        {
            if (char.IsControl(c) && c is not ('\t' or '\n' or '\r'))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>The name of a field; null where it is no valid text.</summary>
    public static string? NameOf(JsonProperty property)
    {
        try
        {
            return property.Name;
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    /// <summary>A number with at most two decimal places and no exponent; null for anything else.</summary>
    public static decimal? Exact(JsonElement value)
    {
        if (value.ValueKind != JsonValueKind.Number || value.GetRawText() is not { Length: <= 20 } raw)
        {
            return null;
        }

        var point = raw.IndexOf('.', StringComparison.Ordinal);
        return raw.AsSpan().IndexOfAny('e', 'E') < 0 && (point < 0 || raw.Length - point <= 3)
            ? decimal.Parse(raw, CultureInfo.InvariantCulture)
            : null;
    }
}
