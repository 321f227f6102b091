using System.Text.Json;
using System.Text.Json.Serialization;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Store;

/// <summary>What the instructor chose for all classes.</summary>
public sealed class Settings(Database database)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) } };

    public Preferences Preferences() => Read<Preferences>("preferences") ?? new Preferences();

    public void Save(Preferences preferences) => Write("preferences", preferences);

    public FitTerms FitTerms() => Read<FitTerms>("fit") ?? new FitTerms();

    public void Save(FitTerms terms) => Write("fit", terms);

    private T? Read<T>(string name)
    {
        using var connection = database.Connect();
        return connection.Scalar("SELECT value FROM setting WHERE name = @name", [("@name", name)]) is string text
            ? JsonSerializer.Deserialize<T>(text, Json)
            : default;
    }

    private void Write<T>(string name, T value)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO setting (name, value) VALUES (@name, @value) ON CONFLICT (name) DO UPDATE SET value = excluded.value",
            [("@name", name), ("@value", JsonSerializer.Serialize(value, Json))]);
    }
}
