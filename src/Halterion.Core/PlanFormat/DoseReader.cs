using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>Doses, and where the move and the tempo of a part come from. Which fields there are <see cref="PartTable"/> says.</summary>
internal sealed partial class Context
{
    /// <summary>A dose apart from its station: what its parts take from the option stays open.</summary>
    public ImmutableArray<Part> DoseOf(JsonElement dose) =>
        dose.ValueKind == JsonValueKind.Array ? [.. dose.EnumerateArray().Select((part, i) => Part(part, $"/{i}", i, main: null))] : [];

    /// <summary>The dose of a station whose options are read.</summary>
    public ImmutableArray<Part> Dose(Fields fields, Station station)
    {
        var main = station.Options.FirstOrDefault(o => o.Tier == Tier.Main);
        var items = fields.Items("dose", 1, StationTable.MostParts, "parts", required: true);
        return [.. items.Select((part, i) => Part(part, $"{fields.At}/dose/{i}", i, main))];
    }

    private Part Part(JsonElement element, string at, int index, Option? main)
    {
        var fields = new Fields(element, at, faults);
        var kind = fields.Choice<PartKind>("kind", required: true);
        var part = PlanLanguage.Part.Read(
            this, fields, PlanLanguage.BlankPart with { Kind = kind ?? PartKind.Time }, default, sure: kind is not null);
        if (!part.Kind.IsWork)
        {
            return part;
        }

        if (fields.Has("loadKg") && fields.Has("loadFactor"))
        {
            fields.Fault("loadFactor", "Give a weight or a share of their usual load, not both.", "loadKg or loadFactor, not both");
        }

        return Resolve(fields, part, index, main);
    }

    /// <summary>
    /// Where the move and the tempo of a part come from: the part, the main option's entry for it, the main option, the move's own.
    /// </summary>
    private Part Resolve(Fields fields, Part part, int index, Option? main)
    {
        if (main is null || (fields.Has("move") && part.OwnMove is null))
        {
            return part;
        }

        var entry = main.Parts.GetValueOrDefault(index + 1);
        var move = part.OwnMove ?? entry?.Move ?? main.Move;
        var tempo = part.OwnTempo ?? entry?.Manner.Tempo ?? main.Manner.Tempo ?? moves.Find(move)?.Tempo;
        if (part.Kind == PartKind.Reps && tempo is null && !fields.Has("tempo"))
        {
            fields.Fault("tempo", "This move has no usual tempo, so the length of a rep is not known.", "a tempo, such as 2-0-1-0");
        }
        else if (part.Kind == PartKind.Reps && tempo is not null && tempo.RepSeconds(part.Style) <= 0)
        {
            fields.Fault("tempo", $"A rep at {tempo} takes no time.", "a tempo that takes more than 0 s a rep");
        }

        return part with { Move = move, Tempo = tempo };
    }
}
