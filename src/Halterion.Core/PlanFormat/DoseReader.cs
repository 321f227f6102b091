using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

internal sealed partial class Context
{
    /// <summary>A dose apart from its station: what its parts take from the option stays open.</summary>
    public ImmutableArray<Part> DoseOf(JsonElement dose) =>
        dose.ValueKind == JsonValueKind.Array ? [.. dose.EnumerateArray().Select((part, i) => Part(part, $"/{i}", i, main: null))] : [];

    private Part Part(JsonElement element, string at, int index, Option? main)
    {
        var fields = new Fields(element, at, faults);
        var kind = fields.Choice<PartKind>("kind", required: true);
        var part = new Part
        {
            Kind = kind ?? PartKind.Time,
            Amount = ReadAmounts(fields) ?? new ByRound<Amount>(new Amount(1)),
            Rounds = ReadRounds(fields),
            Label = fields.Text("label", 1, 120),
        };

        if (kind == PartKind.Rest)
        {
            fields.Refuse(
                "a rest takes only amount, rounds and label",
                "side",
                "tempo",
                "style",
                "pulsesPerRep",
                "pace",
                "move",
                "loadKg",
                "loadFactor",
                "effort");
            fields.Close("a part");
            return part;
        }

        var known = kind is not null;
        part = part with
        {
            Side = fields.Choice<Side>("side") ?? Side.Both,
            LoadKg = fields.DecimalListed("loadKg", 0, 500),
            LoadFactor = fields.DecimalListed("loadFactor", 0.05m, 2),
            Effort = fields.Whole("effort", 0, 10),
        };
        if (fields.Has("loadKg") && fields.Has("loadFactor"))
        {
            fields.Fault("loadFactor", "A part has either a load or a factor of each person's own.", "loadKg or loadFactor, not both");
        }

        if (kind == PartKind.Distance || !known)
        {
            part = part with { Pace = fields.Decimal("pace", 0.01m, 60) ?? part.Pace };
        }
        else
        {
            fields.Refuse("a pace belongs to a distance", "pace");
        }

        Tempo? own = null;
        if (kind == PartKind.Reps || !known)
        {
            own = ReadTempo(fields);
            part = part with
            {
                Style = fields.Choice<RepStyle>("style") ?? RepStyle.Full,
                PulsesPerRep = fields.Whole("pulsesPerRep", 0, 10) ?? 0,
            };
        }
        else
        {
            fields.Refuse("tempo, style and pulses a rep belong to reps", "tempo", "style", "pulsesPerRep");
        }

        part = Resolve(fields, part, own, index, main);
        fields.Close("a part");
        return part;
    }

    /// <summary>
    /// Where the move and the tempo of a part come from: the part, the main option's entry for it, the main option, the move's own.
    /// </summary>
    private Part Resolve(Fields fields, Part part, Tempo? own, int index, Option? main)
    {
        var entry = main?.Parts.GetValueOrDefault(index + 1);
        var ownMove = Move(fields, "move", required: false);
        if (main is null || (fields.Has("move") && ownMove is null))
        {
            return part with { OwnMove = ownMove, OwnTempo = own };
        }

        var move = ownMove ?? entry?.Move ?? main.Move;
        var tempo = own ?? entry?.Manner.Tempo ?? main.Manner.Tempo ?? moves.Find(move)?.Tempo;
        if (part.Kind == PartKind.Reps && tempo is null && !fields.Has("tempo"))
        {
            fields.Fault("tempo", "This move has no tempo of its own, so its reps have no length.", "a tempo, such as 2-0-1-0");
        }
        else if (part.Kind == PartKind.Reps && tempo is not null && tempo.RepSeconds(part.Style) <= 0)
        {
            fields.Fault("tempo", $"A rep at {tempo} takes no time.", "a tempo that takes more than 0 s a rep");
        }

        return part with { Move = move, Tempo = tempo, OwnMove = ownMove, OwnTempo = own };
    }

    private static Tempo? ReadTempo(Fields fields)
    {
        if (fields.Text("tempo", 1, 120) is not { } text)
        {
            return null;
        }

        if (Tempo.TryParse(text, out var tempo))
        {
            return tempo;
        }

        fields.Fault("tempo", $"“{(text.Length > 40 ? text[..40] + "…" : text)}” is no tempo.", "lower-pause-lift-pause, each 0–60 or X, "
            + "such as 3-1-1-0");
        return null;
    }

    private ByRound<Amount>? ReadAmounts(Fields fields)
    {
        if (!fields.Has("amount"))
        {
            fields.Missing<Amount>("amount", "a whole number 1–3600, a range, or a list by round");
        }

        return fields.Listed<Amount>("amount", (value, index) => ReadAmount(fields, value, index));
    }

    private Amount? ReadAmount(Fields fields, JsonElement value, int? index)
    {
        if (value.ValueKind != JsonValueKind.Object)
        {
            return fields.Whole(value, "amount", index, 1, 3600) is { } whole ? new Amount(whole, whole) : null;
        }

        var range = new Fields(value, fields.PointerTo("amount", index), faults);
        var from = range.Whole("from", 1, 3600, required: true);
        var to = range.Whole("to", 1, 3600, required: true);
        range.Close("a range");
        if (from > to)
        {
            range.Fault("to", $"The range goes from {from} to {to}.", "from no greater than to");
        }

        return from is { } a && to is { } b ? new Amount(a, b) : null;
    }

    private PartRounds ReadRounds(Fields fields)
    {
        if (fields.Take("rounds") is not { } value)
        {
            return PartRounds.All;
        }

        if (value.ValueKind != JsonValueKind.Array)
        {
            return fields.Choice("rounds", ["all", "first", "last"]) switch
            {
                "first" => new PartRounds(true, false, []),
                "last" => new PartRounds(false, true, []),
                _ => PartRounds.All,
            };
        }

        var items = fields.Items("rounds", 1, 20, "round numbers");
        var listed = ImmutableArray.CreateBuilder<int>();
        for (var i = 0; i < items.Length; i++)
        {
            if (fields.Whole(items[i], "rounds", i, 1, 20) is { } round)
            {
                if (listed.Contains(round))
                {
                    faults.Add(fields.PointerTo("rounds", i), $"Round {round} stands here twice.", "different round numbers");
                }

                listed.Add(round);
            }
        }

        return new PartRounds(false, false, listed.ToImmutable());
    }
}
