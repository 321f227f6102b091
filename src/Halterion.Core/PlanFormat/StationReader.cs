using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>Stations and the rules that join their fields. Which fields there are <see cref="StationTable"/> says.</summary>
internal sealed partial class Context
{
    public ImmutableArray<Station> Stations(Fields fields, Block block, BlockPlace place)
    {
        var items = fields.Items("stations", 1, BlockTable.MostStations, "stations", required: true);
        return
        [
            .. items.Select((station, i) => Station(
                new Fields(station, $"{fields.At}/stations/{i}", faults), new StationPlace(block, $"{place.ById}s{i + 1}"))),
        ];
    }

    private Station Station(Fields fields, StationPlace place)
    {
        var station = PlanLanguage.Station.Read(this, fields, PlanLanguage.BlankStation, place, sure);
        if (!station.HasOwnName)
        {
            var main = station.Options.FirstOrDefault(o => o.Tier == Tier.Main);
            station = station with { Name = main is null ? "" : moves.Find(main.Move)?.Name ?? "" };
        }

        var parts = fields.Peek("dose") is { ValueKind: JsonValueKind.Array } dose ? dose.GetArrayLength() : 0;
        CheckSides(fields, station, place.Block);
        CheckOptionSides(fields, station, parts);
        CheckPartNumbers(fields, station.Options, parts);
        if (station.Chunk > 0 && !CanChunk(station.Sides, station.Dose))
        {
            fields.Fault("chunk", "“Switch every” works with one target in reps on each side.", "sides each and a "
                + "dose of one part of kind reps");
        }

        if (place.Block.StartEvery is not null && station.OwnChange?.Values.Any(v => v > Seconds.Zero) == true)
        {
            fields.Fault("changeSeconds", "With startEverySeconds there are no changes.", "0, or leave it out");
        }

        return station;
    }

    private static void CheckSides(Fields fields, Station station, Block block)
    {
        var dose = station.Dose;
        if (block.SidePass != SidePass.Station && station.Sides != SideRule.AsWritten)
        {
            fields.Fault("sides", "In this block the round decides the side.", "asWritten, or leave it out");
        }

        if (block.SidePass != SidePass.Station && fields.Has("startSide"))
        {
            fields.Fault("startSide", "In this block the round decides the side.", "leave it out");
        }

        if (dose.Length > 0 && dose.All(p => !p.Kind.IsWork))
        {
            fields.Fault("dose", "This target is only rest.", "at least one part that is no rest");
        }

        if (station.Sides == SideRule.Split && dose.Length > 0 && !CanSplit(dose))
        {
            fields.Fault("sides", "“Half on each side” works with one timed target.", "exactly one part of kind time or hold");
        }

        if (station.Sides == SideRule.AsWritten && block.SidePass == SidePass.Station)
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

    private static bool CanSplit(ImmutableArray<Part> dose) => dose is [{ Kind.CanSplit: true }];

    private static bool CanChunk(SideRule sides, ImmutableArray<Part> dose) => sides == SideRule.Each && dose is [{ Kind: PartKind.Reps }];

    /// <summary>An option's own sides stand inside the station's time; they need a dose that can be done so.</summary>
    private static void CheckOptionSides(Fields fields, Station station, int parts)
    {
        for (var i = 0; i < station.Options.Length; i++)
        {
            var option = station.Options[i];
            if (option.Sides == SideRule.Split && parts > 0 && !CanSplit(station.Dose))
            {
                fields.FaultAt($"/options/{i}/sides", "“Half on each side” works with one timed target.", "a dose of exactly one part "
                    + "of kind time or hold");
            }

            if (option.Chunk is not null && !CanChunk(option.Sides ?? station.Sides, station.Dose))
            {
                fields.FaultAt($"/options/{i}/chunk", "“Switch every” works with one target in reps on each "
                    + "side.", "sides each and a dose of "
                    + "one part of kind reps");
            }
        }
    }

    private static void CheckPartNumbers(Fields fields, ImmutableArray<Option> options, int parts)
    {
        for (var i = 0; i < options.Length; i++)
        {
            foreach (var number in options[i].Parts.Keys.Where(n => n > parts && parts > 0))
            {
                fields.FaultAt(
                    $"/options/{i}/parts/{number}", $"There is no part {number}; the target has {parts}.", $"part numbers 1–{parts}");
            }
        }
    }
}
