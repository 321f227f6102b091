using System.Text.Json;
using System.Text.Json.Serialization;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Store;

/// <summary>What the instructor chose for all classes.</summary>
public sealed class Settings(Database database)
{
    private const string OfPreferences = "preferences";
    private const string OfFit = "fit";

    private static readonly JsonSerializerOptions Json = new(
        JsonSerializerDefaults.Web)
    { Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) } };

    public Preferences Preferences() => Read<Preferences>(OfPreferences) ?? new Preferences();

    public Saved Save(Preferences preferences, Basis basis) => Write(OfPreferences, preferences, basis);

    public FitTerms FitTerms() => Read<FitTerms>(OfFit) ?? new FitTerms();

    public Saved Save(FitTerms terms, Basis basis) => Write(OfFit, terms, basis);

    /// <summary>How often the preferences, and the limits for fitting, were changed.</summary>
    public (int Preferences, int Fit) Revisions()
    {
        using var connection = database.Connect();
        return (Documents.RevisionOf(connection, Document(OfPreferences)), Documents.RevisionOf(connection, Document(OfFit)));
    }

    private static string Document(string name) => $"setting:{name}";

    private T? Read<T>(string name)
    {
        using var connection = database.Connect();
        return connection.Scalar("SELECT value FROM setting WHERE name = @name", [("@name", name)]) is string text
            ? JsonSerializer.Deserialize<T>(text, Json)
            : default;
    }

    /// <summary>A setting that nobody chose yet is there all the same, as it ships.</summary>
    private Saved Write<T>(string name, T value, Basis basis) => database.Save(
        Document(name),
        basis,
        _ => true,
        c => c.Run(
            "INSERT INTO setting (name, value) VALUES (@name, @value) ON CONFLICT (name) DO UPDATE SET value = excluded.value",
            [("@name", name), ("@value", JsonSerializer.Serialize(value, Json))]));
}
