using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Halterion.Core;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Microsoft.OpenApi.Reader;

namespace Halterion.Web;

/// <summary>How values look on the wire, and how the OpenAPI document describes them.</summary>
public static class Contract
{
    public static void Configure(JsonSerializerOptions options)
    {
        options.NumberHandling = JsonNumberHandling.Strict;
        options.DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
    }

    public static void Describe(OpenApiOptions options)
    {
        options.AddSchemaTransformer((schema, context, _) =>
        {
            var type = context.JsonTypeInfo.Type;
            if (Raw(type) is { } raw)
            {
                schema.Type = raw;
            }
            else if (context.JsonTypeInfo.ElementType is { } element && Raw(element) is { } item)
            {
                // An element type that is written by a converter comes out as {}: say what it is.
                schema.Items = new OpenApiSchema { Type = item };
            }

            return Task.CompletedTask;
        });
        options.AddDocumentTransformer((document, _, _) =>
        {
            using var schema = JsonDocument.Parse(File.ReadAllBytes(ClassSchemaFile));
            foreach (var definition in schema.RootElement.GetProperty("$defs").EnumerateObject())
            {
                Add(document, definition.Name, definition.Value.GetRawText().Replace("#/$defs/", "#/components/schemas/", StringComparison.Ordinal));
            }

            return Task.CompletedTask;
        });
    }

    /// <summary>The JSON Schema of the class file, as published.</summary>
    public static string ClassSchemaFile => Path.Combine(AppContext.BaseDirectory, "class.schema.json");

    private static JsonSchemaType? Raw(Type type)
    {
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        if (plain == typeof(Tempo))
        {
            return JsonSchemaType.String;
        }

        var raw = Array.Find(plain.GetInterfaces(), i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IScalar<,>))?.GetGenericArguments()[1];
        return raw switch
        {
            null => null,
            _ when raw == typeof(string) => JsonSchemaType.String,
            _ when raw == typeof(int) => JsonSchemaType.Integer,
            _ => JsonSchemaType.Number,
        };
    }

    private static void Add(OpenApiDocument document, string name, string json)
    {
        using var text = new MemoryStream(Encoding.UTF8.GetBytes(json));
        var schema = new OpenApiJsonReader().ReadFragment<OpenApiSchema>(text, OpenApiSpecVersion.OpenApi3_1, document, out var diagnostic);
        if (schema is null || diagnostic is { Errors.Count: > 0 })
        {
            throw new InvalidOperationException(name + ": " + string.Join("; ", diagnostic?.Errors ?? []));
        }

        document.Components ??= new OpenApiComponents();
        document.Components.Schemas ??= new Dictionary<string, IOpenApiSchema>();
        document.Components.Schemas[name] = schema;
    }
}
