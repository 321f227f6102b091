using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Store;
using Halterion.Web.Endpoints;

namespace Halterion.Web.Library;

/// <summary>The class file as text: how it is begun, written and named.</summary>
internal static class ClassText
{
    private static readonly JsonSerializerOptions Indented = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>A new class file, or a copy with a brief of its own.</summary>
    public static string New(string title, int slotMinutes, Aim aim, string? copied, JsonObject habits)
    {
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
        file["aim"] = WordsOf<Aim>.Of(aim);
        file["blocks"] ??= new JsonArray();
        return file.ToJsonString(Indented) + "\n";
    }

    /// <summary>A class file in its written form.</summary>
    public static string Written(JsonElement plan) => JsonSerializer.Serialize(plan, Indented) + "\n";

    /// <summary>Whether a file already says the same, but for ids that it gives by place, so that its text can stay as it came.</summary>
    public static bool Unchanged(string file, JsonElement plan) => JsonElement.DeepEquals(PlanIds.Written(Parse(file)), plan);

    public static JsonElement Parse(string file) => JsonElement.Parse(file.AsSpan().TrimStart('\uFEFF'));

    /// <summary>A class file with its title and its length, for lists.</summary>
    public static ClassRevision Revision(string plan, Evaluator evaluator)
    {
        var title = Parse(plan).TryGetProperty("title", out var given) && given.ValueKind == JsonValueKind.String
            ? given.GetString()
            : null;
        return new ClassRevision(plan, string.IsNullOrWhiteSpace(title) ? "Untitled class" : title, Measure(plan, evaluator));
    }

    public static Measure Measure(string plan, Evaluator evaluator)
    {
        var result = evaluator.Evaluate(plan);
        return new Measure(
            evaluator.Moves.Version,
            result.Timeline?.Length.Value,
            result.Timeline is { } timeline ? (timeline.Length - result.Plan!.Slot).Value : null);
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
