using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Plans;
using Halterion.Store;
using Halterion.Web.Endpoints;

namespace Halterion.Web;

/// <summary>The class file as text: how it is begun, written and named.</summary>
internal static class ClassText
{
    private static readonly JsonSerializerOptions Indented = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>A new class file, or a copy with a brief of its own; null if the brief is out of bounds.</summary>
    public static string? New(string title, int slotMinutes, Aim aim, string? copied, JsonObject habits)
    {
        if (string.IsNullOrWhiteSpace(title) || title.EnumerateRunes().Count() > 120 || slotMinutes is < 5 or > 180)
        {
            return null;
        }

        var file = copied is null
            ? new JsonObject { ["format"] = "halterion-class", ["version"] = 1 }
            : JsonNode.Parse(copied.TrimStart('\uFEFF'))!.AsObject();
        if (copied is null)
        {
            foreach (var (field, value) in habits)
            {
                file[field] = value?.DeepClone();
            }
        }

        file["title"] = title;
        file["slotMinutes"] = slotMinutes;
        file["aim"] = JsonNamingPolicy.CamelCase.ConvertName(aim.ToString());
        file["blocks"] ??= new JsonArray();
        return file.ToJsonString(Indented) + "\n";
    }

    /// <summary>A class file in its written form.</summary>
    public static string Written(JsonElement plan) => JsonSerializer.Serialize(plan, Indented) + "\n";

    /// <summary>Whether a file already says the same, so that its text can stay as it came.</summary>
    public static bool Unchanged(string file, JsonElement plan) => JsonElement.DeepEquals(Parse(file), plan);

    public static JsonElement Parse(string file) => JsonElement.Parse(file.AsSpan().TrimStart('\uFEFF'));

    public static ClassRevision Revision(string plan, Booking booking)
    {
        var title = Parse(plan).TryGetProperty("title", out var given) && given.ValueKind == JsonValueKind.String ? given.GetString() : null;
        return new ClassRevision(plan, string.IsNullOrWhiteSpace(title) ? "Untitled class" : title, booking.StartsAt, booking.Zone, booking.HeadCount);
    }

    /// <summary>A file name made of the title, safe on every system.</summary>
    public static string FileName(string title, string ending = "halterion.json")
    {
        var name = new StringBuilder();
        foreach (var c in title.ToLowerInvariant())
        {
            if (char.IsAsciiLetterOrDigit(c))
            {
                name.Append(c);
            }
            else if (name.Length > 0 && name[^1] != '-')
            {
                name.Append('-');
            }
        }

        var stem = name.ToString().Trim('-');
        return $"{(stem.Length == 0 ? "class" : stem[..Math.Min(60, stem.Length)])}.{ending}";
    }
}
