using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>A form of the short dose and what it means, for help while typing.</summary>
public sealed record DoseForm(string Form, string Means);

/// <summary>
/// A station's dose in the trade's short form, such as <c>12 each side @ 3-1-1-0</c>; <see cref="ShortDoseReader"/> reads it back.
/// </summary>
public static class ShortDose
{
    /// <summary>What can be typed, the usual first.</summary>
    public static readonly ImmutableArray<DoseForm> Forms =
    [
        new("12", "12 reps"),
        new("12 each side", "all on one side, then all on the other"),
        new("40 s", "40 seconds of work"),
        new("1:30", "a minute and a half of work"),
        new("45 s half on each side", "one timed interval, half on each side"),
        new("16 alternating", "alternating sides every rep"),
        new("12 @ 3-1-1-0", "lower 3 s, pause 1, lift 1, no pause; @30X0 works too (X = as fast as is safe)"),
        new("3 × 12, rest 60", "three rounds or sets, 60 s between them"),
        new("8–12", "a range; the clock uses 12"),
        new("20/15/12", "fewer each round; 20-15-12 is the same"),
        new("20 each side by 5", "five and five, changing sides"),
        new("20 then hold 15 s", "one after the other; a + does the same"),
        new("10 at 100 % + 12 s rest + 10 at 70 %", "a drop set, of each person’s usual load"),
        new("10 at 12 kg", "reps with a load"),
        new("max 60 s", "until form slips, 60 s at most; amrap 60 s is the same"),
        new("20 m", "a distance"),
        new("10 one-and-a-half", "also: dead stop, no lock-out, with 3 pulses"),
        new("10 (last round)", "also: (first round), (rounds 1, 3)"),
        new("30 s in turns", "two share the station"),
    ];

    /// <summary>The dose, the side rule and the sharing of a station.</summary>
    public static string Of(Station station)
    {
        var words = string.Join(" + ", station.Dose.Select(Part));
        return words + station.Sides switch
        {
            SideRule.Each =>
                station.Chunk > 0 ? string.Create(CultureInfo.InvariantCulture, $" each side by {station.Chunk}") : " each side",
            SideRule.Split => " half on each side",
            SideRule.AsWritten or SideRule.Alternate => "",
        } + (station.Turns ? " in turns" : "");
    }

    private static string Part(Part part)
    {
        var words = new List<string?>
        {
            part.Kind.Short(string.Join('/', part.Amount.Values)),
            part is { Kind: PartKind.Distance, Pace: not 1.5m } ? $"at {Number(part.Pace)} s/m" : null,
            part.Side switch
            {
                Side.Left => "left",
                Side.Right => "right",
                Side.Alternate => "alternating",
                Side.Both => null,
            },
            part.OwnMove is { } move ? $"of {move}" : null,
            part.OwnTempo is { } tempo ? $"@ {tempo}" : null,
            part.Style switch
            {
                RepStyle.OneAndAHalf => "one-and-a-half",
                RepStyle.DeadStop => "dead stop",
                RepStyle.ConstantTension => "no lock-out",
                RepStyle.Full => null,
            },
            part.PulsesPerRep > 0 ? string.Create(CultureInfo.InvariantCulture, $"with {part.PulsesPerRep} pulses") : null,
            part.LoadKg is { } kg ? $"at {string.Join('/', kg.Values.Select(Number))} kg" : null,
            part.LoadFactor is { } factor ? $"at {string.Join('/', factor.Values.Select(f => Number(100 * f)))} %" : null,
            part.Effort is { } effort ? string.Create(CultureInfo.InvariantCulture, $"effort {effort}") : null,
            Rounds(part.Rounds),
            part.Label is { } label ? $"\"{label.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : null,
        };
        return string.Join(' ', words.OfType<string>());
    }

    private static string? Rounds(PartRounds rounds) => rounds switch
    {
        { Listed: [var only] } => string.Create(CultureInfo.InvariantCulture, $"(round {only})"),
        { Listed.Length: > 0 } => $"(rounds {string.Join(", ", rounds.Listed)})",
        { First: true, Last: true } => null,
        { First: true } => "(first round)",
        _ => "(last round)",
    };

    private static string Number(decimal value) => value.ToString("0.##", CultureInfo.InvariantCulture);
}
