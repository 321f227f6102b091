using System.Globalization;
using System.Text.Json.Nodes;

namespace Halterion.Core.PlanFormat;

/// <summary>Sets one value of a class file. The rest of the file stays as it is.</summary>
/// <param name="Pointer">A JSON Pointer; a last token of <c>-</c> appends to a list (RFC 6901).</param>
public sealed record Edit(string Pointer, JsonNode Value)
{
    /// <summary>Puts a number in one place of the file.</summary>
    public static Edit Set(string pointer, Seconds value) => new(pointer, JsonValue.Create(value.Value));

    /// <summary>Puts a number in one place of the file.</summary>
    public static Edit Set(string pointer, int value) => new(pointer, JsonValue.Create(value));

    /// <summary>Applies the edit in place.</summary>
    /// <exception cref="InvalidOperationException">The class has no such place: it is not the one the finding was made for.</exception>
    public void ApplyTo(JsonNode root)
    {
        var tokens = Pointer.Split('/')[1..];
        JsonNode? parent = root;
        foreach (var token in tokens[..^1])
        {
            parent = parent switch
            {
                JsonObject o => o[token],
                JsonArray a when Index(token) is { } i && i < a.Count => a[i],
                _ => null,
            };
        }

        var last = tokens[^1];
        switch (parent)
        {
            case JsonObject o:
                o[last] = Value.DeepClone();
                break;
            case JsonArray a when last == "-":
                a.Add(Value.DeepClone());
                break;
            case JsonArray a when Index(last) is { } i && i < a.Count:
                a[i] = Value.DeepClone();
                break;
            default:
                throw new InvalidOperationException($"The class has no place {Pointer}.");
        }
    }

    private static int? Index(string token) =>
        int.TryParse(token, NumberStyles.None, CultureInfo.InvariantCulture, out var index) ? index : null;
}
