using System.Text.Json.Nodes;

namespace Halterion.Core.PlanFormat;

/// <summary>Pieces of a JSON Schema (draft 2020-12).</summary>
internal static class Schemas
{
    /// <summary>What is described once under <c>$defs</c>.</summary>
    public static JsonObject Of(string definition) => new() { ["$ref"] = "#/$defs/" + definition };

    public static JsonObject Words(params ReadOnlySpan<string> words)
    {
        var listed = new JsonArray();
        foreach (var word in words)
        {
            listed.Add(word);
        }

        return new() { ["type"] = "string", ["enum"] = listed };
    }

    /// <param name="least">Not written where it is 0: a schema that says so says nothing.</param>
    public static JsonObject List(JsonObject item, int least, int most)
    {
        var list = new JsonObject { ["type"] = "array", ["items"] = item };
        if (least > 0)
        {
            list["minItems"] = least;
        }

        list["maxItems"] = most;
        return list;
    }

    /// <summary>An object with these fields and no others.</summary>
    public static JsonObject Object(string? about, IEnumerable<(string Name, JsonObject Schema)> fields, string[] required)
    {
        var properties = new JsonObject();
        foreach (var (name, schema) in fields)
        {
            properties[name] = schema;
        }

        var whole = About(new JsonObject { ["type"] = "object", ["properties"] = properties, ["additionalProperties"] = false }, about);
        if (required.Length > 0)
        {
            whole["required"] = new JsonArray([.. required.Select(r => (JsonNode)r)]);
        }

        return whole;
    }

    public static JsonObject About(JsonObject schema, string? about)
    {
        if (about is not null)
        {
            schema["description"] = about;
        }

        return schema;
    }
}
