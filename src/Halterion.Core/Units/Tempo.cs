using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;

namespace Halterion.Core;

/// <summary>How a rep is made.</summary>
public enum RepStyle
{
    /// <summary>All the way, once.</summary>
    Full,
    /// <summary>Down, half up, down, up.</summary>
    OneAndAHalf,
    /// <summary>From a full stop at the bottom.</summary>
    DeadStop,
    /// <summary>Never locked out: no pause at the top.</summary>
    ConstantTension,
}

/// <summary>The four phases of a rep in seconds: lower, pause, lift, pause. <c>X</c> (as fast as is safe) counts 1.</summary>
[JsonConverter(typeof(TempoJson))]
public sealed partial record Tempo
{
    private Tempo(string text, decimal[] phases) => (Text, Lower, Pause, Lift, Top) = (text, phases[0], phases[1], phases[2], phases[3]);

    /// <summary>As written, such as <c>3-1-X-0</c>.</summary>
    public string Text { get; }

    /// <summary>Seconds on the way down.</summary>
    public decimal Lower { get; }

    /// <summary>Seconds at the bottom.</summary>
    public decimal Pause { get; }

    /// <summary>Seconds on the way up.</summary>
    public decimal Lift { get; }

    /// <summary>Seconds at the top.</summary>
    public decimal Top { get; }

    /// <summary>Reads <c>lower-pause-lift-pause</c>, each 0–60 with at most two decimal places, or <c>X</c>.</summary>
    public static bool TryParse(string text, [NotNullWhen(true)] out Tempo? tempo)
    {
        tempo = null;
        if (!Shape().IsMatch(text))
        {
            return false;
        }

        var phases = Array.ConvertAll(text.Split('-'), p => p == "X" ? 1m : decimal.Parse(p, CultureInfo.InvariantCulture));
        if (Array.Exists(phases, p => p > 60))
        {
            return false;
        }

        tempo = new Tempo(text, phases);
        return true;
    }

    /// <summary>Seconds one rep takes in a style, without pulses.</summary>
    public decimal RepSeconds(RepStyle style) => style switch
    {
        RepStyle.OneAndAHalf => 1.5m * (Lower + Lift) + 2 * Pause + Top,
        RepStyle.DeadStop => Lower + Math.Max(Pause, 1) + Lift + Top,
        RepStyle.ConstantTension => Lower + Pause + Lift,
        RepStyle.Full => Lower + Pause + Lift + Top,
    };

    /// <inheritdoc/>
    public override string ToString() => Text;

    [GeneratedRegex(@"\A(X|[0-9]{1,2}(\.[0-9]{1,2})?)(-(X|[0-9]{1,2}(\.[0-9]{1,2})?)){3}\z")]
    private static partial Regex Shape();
}

/// <summary>Writes a tempo as its text.</summary>
public sealed class TempoJson : JsonConverter<Tempo>
{
    /// <inheritdoc/>
    public override Tempo Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        reader.GetString() is { } text && Tempo.TryParse(text, out var tempo)
            ? tempo
            : throw new JsonException("A tempo is four numbers, such as 3-1-1-0.");

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, Tempo value, JsonSerializerOptions options) => writer.WriteStringValue(value.Text);
}
