using System.Collections.Immutable;
using System.Text.Json;

namespace Halterion.Core.Plans;

internal sealed partial class Context
{
    /// <param name="sure">The block's shape is known, so that faults which depend on it can be told.</param>
    private Station Station(JsonElement element, string at, Block block, bool sure)
    {
        var fields = new Fields(element, at, faults);
        var sides = fields.Choice<SideRule>("sides") ?? SideRule.AsWritten;
        if (block.SidePass != SidePass.Station && sides != SideRule.AsWritten)
        {
            fields.Fault("sides", "The round gives the side here.", "asWritten, or leave it out");
        }

        var options = Options(fields, "options");
        var main = options.FirstOrDefault(o => o.Tier == Tier.Main);
        var items = fields.Items("dose", 1, 12, "parts", required: true);
        var dose = items.Select((part, i) => Part(part, $"{at}/dose/{i}", i, main)).ToImmutableArray();
        CheckSides(fields, sides, dose, block.SidePass);
        CheckPartNumbers(fields, options, items.Length);

        var station = new Station
        {
            Name = fields.Text("name", 1, 120) ?? (main is null ? "" : moves.Find(main.Move)?.Name ?? ""),
            Sides = sides,
            Switch = fields.Seconds("switchSeconds", 0, 60) ?? switchTime,
            Change = block.BetweenStations,
            Dose = dose,
            Options = options,
        };

        station = station with { Chunk = Chunk(fields, sides, dose, items.Length) };
        station = Shared(fields, station, block, sure);
        if (block.Shape is BlockShape.Circuit or BlockShape.Sets || !sure)
        {
            station = station with
            {
                Change = fields.Seconds("changeSeconds", 0, 600) ?? station.Change,
                HasOwnChange = fields.Has("changeSeconds"),
                Demo = fields.Seconds("demoSeconds", 0, 300) ?? Seconds.Zero,
            };
            if (block.StartEvery is not null && fields.Has("changeSeconds") && station.Change > Seconds.Zero)
            {
                fields.Fault("changeSeconds", "With startEverySeconds there are no changes.", "0, or leave it out");
            }
        }
        else
        {
            fields.Refuse("changes and demos of a station belong to a circuit or to sets", "changeSeconds", "demoSeconds");
        }

        fields.Close("a station");
        return station;
    }

    private Station Shared(Fields fields, Station station, Block block, bool sure)
    {
        if (sure && block.Shape == BlockShape.OwnPace)
        {
            fields.Refuse("nobody shares a station in an own-pace block", "sharing", "waiting");
            return station;
        }

        var turns = fields.Choice("sharing", ["own", "turns"]) == "turns";
        if (turns)
        {
            return station with { Turns = true, Waiting = Extra(fields, "waiting") };
        }

        fields.Refuse("waiting belongs to a station that is shared in turns", "waiting");
        return station;
    }

    private static int Chunk(Fields fields, SideRule sides, ImmutableArray<Part> dose, int parts)
    {
        if (fields.Whole("chunk", 1, 1000) is not { } chunk)
        {
            return 0;
        }

        if (sides != SideRule.Each || parts != 1 || dose[0].Kind != PartKind.Reps)
        {
            fields.Fault("chunk", "A chunk needs one part of reps, done on each side.", "sides each and a dose of one part of kind reps");
            return 0;
        }

        return chunk;
    }

    private static void CheckSides(Fields fields, SideRule sides, ImmutableArray<Part> dose, SidePass pass)
    {
        if (dose.Length > 0 && dose.All(p => p.Kind == PartKind.Rest))
        {
            fields.Fault("dose", "There is only rest in this dose.", "at least one part that is no rest");
        }

        if (sides == SideRule.Split && dose.Length > 0 && (dose.Length > 1 || dose[0].Kind is not (PartKind.Time or PartKind.Hold)))
        {
            fields.Fault("sides", "Only one timed part can be split between the sides.", "exactly one part of kind time or hold");
        }

        if (sides == SideRule.AsWritten && pass == SidePass.Station)
        {
            return;
        }

        for (var i = 0; i < dose.Length; i++)
        {
            if (dose[i].Side != Side.Both)
            {
                fields.FaultAt($"/dose/{i}/side", "The station or the round gives the side here.", "both, or leave it out");
            }
        }
    }

    private static void CheckPartNumbers(Fields fields, ImmutableArray<Option> options, int parts)
    {
        for (var i = 0; i < options.Length; i++)
        {
            foreach (var number in options[i].Parts.Keys.Where(n => n > parts && parts > 0))
            {
                fields.FaultAt($"/options/{i}/parts/{number}", $"There is no part {number}; the dose has {parts}.", $"part numbers 1–{parts}");
            }
        }
    }
}
