using System.Text.Json.Nodes;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>
/// Writes parts of a class as they stand in a file, by the tables that read them back (<see cref="PlanLanguage"/>). What is as the
/// language has it anyway is left out; an id that is not given yet too.
/// </summary>
public static class PlanWriter
{
    private static readonly AmountOrRange AmountForm = new();
    private static readonly EachRound<Seconds> SecondsForm = new(new LengthInSeconds(0, int.MaxValue));

    /// <summary>A block with all that is in it.</summary>
    public static JsonObject Of(Block block) => PlanLanguage.Block.Write(block);

    /// <summary>A station with its dose and options.</summary>
    public static JsonObject Of(Station station) => PlanLanguage.Station.Write(station);

    /// <summary>A part with what it names itself; what it takes from its option stays there.</summary>
    public static JsonObject Of(Part part) => PlanLanguage.Part.Write(part);

    /// <summary>An option.</summary>
    public static JsonObject Of(Option option) => PlanLanguage.Option.Write(option);

    /// <summary>An amount: a number, or a range.</summary>
    public static JsonNode Of(Amount amount) => AmountForm.Write(amount);

    /// <summary>A value by round: alone where there is one, else a list.</summary>
    public static JsonNode Of(ByRound<Seconds> seconds) => SecondsForm.Write(seconds);

    /// <summary>The fields of a station that a typed dose sets (<see cref="TypedDose.StationFields"/>).</summary>
    public static JsonObject Dose(TypedDose typed)
    {
        var written = PlanLanguage.Station.Write(PlanLanguage.BlankStation with { Dose = typed.Dose, Turns = typed.Turns });
        if (typed.Sides is { } sides)
        {
            written["sides"] = WordsOf<SideRule>.Of(sides);
        }

        if (typed.Chunk is { } chunk)
        {
            written["chunk"] = chunk;
        }

        return written;
    }
}
