using System.Collections.Immutable;
using System.Text.Json;

namespace Halterion.Core.PlanFormat;

/// <summary>
/// What every JSON document that is taken in must be, whatever it says: each field once, all texts well-formed Unicode
/// without control characters, nested at most 32 deep.
/// </summary>
public static class Soundness
{
    /// <summary>How deep objects may be nested.</summary>
    public const int MaxDepth = 32;

    /// <summary>Reads UTF-8 text, with or without a byte order mark; says what is not sound, each with its place.</summary>
    public static (JsonElement? Root, ImmutableArray<PlanFault> Faults) Read(ReadOnlyMemory<byte> utf8)
    {
        var faults = new Faults();
        try
        {
            using var document = JsonDocument.Parse(WithoutMark(utf8), new JsonDocumentOptions { MaxDepth = MaxDepth });
            Walk(document.RootElement, "", faults);
            return faults.None ? (document.RootElement.Clone(), []) : (null, faults.All);
        }
        catch (JsonException e)
        {
            faults.Add("", NoJson(e), $"JSON text, nested at most {MaxDepth} deep");
            return (null, faults.All);
        }
    }

    /// <summary>Whether a document that was kept by an older version is sound.</summary>
    internal static bool Holds(JsonElement root)
    {
        var faults = new Faults();
        Walk(root, "", faults);
        return faults.None;
    }

    internal static string NoJson(JsonException e) => $"This is not a readable "
        + $"file{(e.LineNumber is { } number ? $" (line {number + 1})" : "")}.";

    internal static ReadOnlyMemory<byte> WithoutMark(ReadOnlyMemory<byte> utf8) =>
        utf8.Span.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF]) ? utf8[3..] : utf8;

    private static void Walk(JsonElement element, string at, Faults faults)
    {
        switch (element.ValueKind)
        {
            case JsonValueKind.Object:
                var names = new HashSet<string>();
                foreach (var property in element.EnumerateObject())
                {
                    if (JsonText.NameOf(property) is not { } name || JsonText.HasControls(name))
                    {
                        faults.Add(at, "A field name is not valid text.", "names in plain Unicode");
                    }
                    else if (!names.Add(name))
                    {
                        faults.Add(JsonText.PointerTo(at, name), $"“{name}” stands here twice.", "each field once");
                    }
                    else
                    {
                        Walk(property.Value, JsonText.PointerTo(at, name), faults);
                    }
                }

                break;
            case JsonValueKind.Array:
                var i = 0;
                foreach (var item in element.EnumerateArray())
                {
                    Walk(item, $"{at}/{i++}", faults);
                }

                break;
            case JsonValueKind.String when JsonText.Of(element) is not { } text || JsonText.HasControls(text):
                faults.Add(at, "This is not valid text.", "plain Unicode text; of control characters only tabs and line ends");
                break;
        }
    }
}
