using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Microsoft.OpenApi.Reader;

namespace Halterion.Web.Answers;

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
            foreach (var (name, definition) in PublishedSchema.Class()["$defs"]!.AsObject())
            {
                Add(document, name, definition!.ToJsonString().Replace("#/$defs/", "#/components/schemas/", StringComparison.Ordinal));
            }

            // Screens offer of a block, a station or a part what it takes.
            document.AddExtension("x-taken", new JsonNodeExtension(PublishedSchema.Taken()));

            NamePlans(document);
            NameFilters(document);

            return Task.CompletedTask;
        });
    }

    /// <summary>
    /// Parts of the plan language that the program passes on as they are, by the names of the fields in which they stand.
    /// </summary>
    private static readonly Dictionary<string, string> PlanFields = new()
    {
        ["plan"] = "ClassPlan",
        ["class"] = "ClassPlan",
        ["block"] = "PlanBlock",
        ["station"] = "PlanStation",
        ["option"] = "PlanOption",
        ["proposed"] = "PlanOption",
        ["moves"] = "PlanMove",
    };

    /// <summary>Where bare JSON is passed on it is a part of the plan language: the contract says which.</summary>
    private static void NamePlans(OpenApiDocument document)
    {
        foreach (var schema in document.Components!.Schemas!.Values.OfType<OpenApiSchema>().Where(s => s.Properties is not null))
        {
            foreach (var (name, property) in schema.Properties!.ToArray())
            {
                if (!PlanFields.TryGetValue(name, out var part))
                {
                    continue;
                }

                if (IsBare(property))
                {
                    var whole = new OpenApiSchemaReference(part, document);
                    schema.Properties![name] = name == "moves" ? new OpenApiSchema { Type = JsonSchemaType.Array, Items = whole } : whole;
                }
                else if (property is OpenApiSchema { Type: JsonSchemaType.Array } list && (list.Items is null || IsBare(list.Items)))
                {
                    list.Items = new OpenApiSchemaReference(part, document);
                }
            }
        }

        foreach (var content in document.Paths.Values.SelectMany(p => p.Operations!.Values).Select(o => o.RequestBody?.Content)
            .OfType<IDictionary<string, OpenApiMediaType>>())
        {
            foreach (var media in content.Values.Where(m => IsBare(m.Schema)))
            {
                media.Schema = new OpenApiSchemaReference("ClassPlan", document);
            }
        }
    }

    /// <summary>The filters of the library are words of the contract.</summary>
    private static void NameFilters(OpenApiDocument document)
    {
        (string Name, string[] Words)[] filters =
        [
            (nameof(Family), WordsOf<Family>.Names), (nameof(Position), WordsOf<Position>.Names), (nameof(Plane), WordsOf<Plane>.Names),
                (nameof(Limit), WordsOf<Limit>.Names),
        ];
        foreach (var (name, words) in filters)
        {
            document.Components!.Schemas!.TryAdd(
                name, new OpenApiSchema { Type = JsonSchemaType.String, Enum = [.. words.Select(w => (JsonNode)w)] });
            foreach (var parameter in document.Paths["/api/moves/search"].Operations![HttpMethod.Get].Parameters!.OfType<OpenApiParameter>()
                .Where(p => string.Equals(p.Name, name, StringComparison.OrdinalIgnoreCase)))
            {
                parameter.Schema = new OpenApiSchemaReference(name, document);
            }
        }
    }

    /// <summary>A reference to "any JSON", also where it may be left out.</summary>
    private static bool IsBare(IOpenApiSchema? schema) => schema switch
    {
        OpenApiSchemaReference reference => reference.Reference.Id is nameof(JsonElement) or "JsonObject",
        OpenApiSchema { OneOf: { Count: > 0 } choices } => choices.Any(IsBare),
        OpenApiSchema
        {
            Type: null, Enum: null or { Count: 0 }, AllOf: null or { Count: 0 }, AnyOf: null or { Count: 0 },
            Properties: null or { Count: 0 }
        } => true,
        _ => false,
    };

    private static JsonSchemaType? Raw(Type type)
    {
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        if (plain == typeof(Tempo))
        {
            return JsonSchemaType.String;
        }

        var raw = Array.Find(
            plain.GetInterfaces(), i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IScalar<,>))?.GetGenericArguments()[1];
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
