using System.Text.Json;
using Halterion.Core.Leading;
using Halterion.Web.Answers;

namespace Halterion.Web.Live;

/// <summary>
/// Lead scripts as they are kept for good: each under the version of its format, and read by that version's reader for ever.
/// Fields that a later version added are missing in an older script and read as empty.
/// </summary>
internal static class ScriptFile
{
    /// <summary>1: before scenes and cards named their ids. 2: they do. 3: with calls.</summary>
    public const int Format = 3;

    private static readonly JsonSerializerOptions Json = Tolerant();

    public static string Write(LeadScript script) => JsonSerializer.Serialize(script, Json);

    /// <summary>Null if the text is no script in a format that this version knows.</summary>
    public static LeadScript? Read(int format, string text)
    {
        if (format is < 1 or > Format)
        {
            return null;
        }

        try
        {
            return JsonSerializer.Deserialize<LeadScript>(text, Json)?.Whole();
        }
        catch (Exception e) when (e is JsonException or NotSupportedException)
        {
            return null;
        }
    }

    private static JsonSerializerOptions Tolerant()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web);
        Contract.Configure(options);
        options.RespectNullableAnnotations = false;
        options.RespectRequiredConstructorParameters = false;
        return options;
    }
}
