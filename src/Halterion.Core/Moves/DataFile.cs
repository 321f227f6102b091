using System.Text.Json;
using System.Text.Json.Serialization;

namespace Halterion.Core.Moves;

/// <summary>What ships with the program as data: moves, ladders, ready blocks.</summary>
internal static class DataFile
{
    public static readonly JsonSerializerOptions Format = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectRequiredConstructorParameters = false,
        RespectNullableAnnotations = true,
        NumberHandling = JsonNumberHandling.Strict,
    };

    /// <param name="name">The file's, without <c>.json</c>.</param>
    /// <exception cref="InvalidOperationException">There is no such file in the program.</exception>
    /// <exception cref="JsonException">It is not of the form that is asked for.</exception>
    public static T Read<T>(string name)
    {
        using var data = typeof(DataFile).Assembly.GetManifestResourceStream($"data/{name}.json")
            ?? throw new InvalidOperationException($"The program has no {name}.json.");
        return JsonSerializer.Deserialize<T>(data, Format)!;
    }
}
