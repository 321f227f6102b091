using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

internal sealed partial class Context
{
    /// <param name="sure">The block's shape is known, so that faults which depend on it can be told.</param>
    /// <param name="byPlace">Its id where it is given none.</param>
    private Station Station(JsonElement element, string at, Block block, bool sure, string byPlace)
    {
        var fields = new Fields(element, at, faults);
        var id = ids.Take(fields, byPlace);
        var sides = fields.Choice<SideRule>("sides") ?? SideRule.AsWritten;
        if (sides == SideRule.Alternate)
        {
            fields.Fault("sides", "A station alternates part by part.", "asWritten, each or split; alternate is a part's side");
            sides = SideRule.AsWritten;
        }

        if (block.SidePass != SidePass.Station && sides != SideRule.AsWritten)
        {
            fields.Fault("sides", "The round gives the side here.", "asWritten, or leave it out");
        }

        var options = Options(fields, "options", OptionPlace.Station, byPlace + "o");
        var main = options.FirstOrDefault(o => o.Tier == Tier.Main);
        var items = fields.Items("dose", 1, 12, "parts", required: true);
        var dose = items.Select((part, i) => Part(part, $"{at}/dose/{i}", i, main)).ToImmutableArray();
        CheckSides(fields, sides, dose, block.SidePass);
        CheckPartNumbers(fields, options, items.Length);

        var name = fields.Text("name", 1, 120);
        var station = new Station
        {
            Id = id,
            Name = name ?? (main is null ? "" : moves.Find(main.Move)?.Name ?? ""),
            HasOwnName = name is not null,
            Sides = sides,
            Chunk = Chunk(fields, sides, dose, items.Length),
            OwnSwitch = fields.SecondsListed("switchSeconds", 0, 60),
            OwnStartSide = StartSide(fields),
            OwnCount = fields.Choice<Counting>("count"),
            View = fields.Listed<Viewpoint>("view", (value, index) => Word<Viewpoint>(fields, value, "view", index)),
            Dose = dose,
            Options = options,
        };
        if (fields.Has("startSide") && block.SidePass != SidePass.Station)
        {
            fields.Fault("startSide", "The round gives the side here.", "leave it out");
        }

        CheckOptionSides(fields, options, sides, dose, items.Length);
        station = Shared(fields, station, block, sure, byPlace);
        station = OneByOne(fields, station, block, sure);
        fields.Close("a station");
        return station;
    }

    /// <summary>What only a block knows in which everyone goes from station to station together.</summary>
    private Station OneByOne(Fields fields, Station station, Block block, bool sure)
    {
        if (sure && block.Shape != BlockShape.Sets)
        {
            fields.Refuse("rests between sets belong to sets", "betweenSets");
        }

        if (sure && block.Shape is not (BlockShape.Circuit or BlockShape.Sets))
        {
            fields.Refuse(
                "what is timed or said before a station belongs to a circuit or to sets",
                "changeSeconds",
                "demoSeconds",
                "withNext",
                "say");
            return station;
        }

        station = station with
        {
            OwnBetweenSets = fields.SecondsListed("betweenSets", 0, 600),
            OwnChange = fields.SecondsListed("changeSeconds", 0, 600),
            Demo = DemoOf(fields),
            WithNext = fields.Flag("withNext") ?? false,
            Say = Say(fields),
        };
        if (block.StartEvery is not null && station.OwnChange?.Values.Any(v => v > Seconds.Zero) == true)
        {
            fields.Fault("changeSeconds", "With startEverySeconds there are no changes.", "0, or leave it out");
        }

        return station;
    }

    private static Demo DemoOf(Fields fields)
    {
        var listed = fields.Peek("demoSeconds")?.ValueKind == JsonValueKind.Array;
        return fields.SecondsListed("demoSeconds", 0, 300) is { } demo ? new Demo(demo.Values, listed) : Demo.None;
    }

    private static T? Word<T>(Fields fields, JsonElement value, string name, int? index) where T : struct, Enum
    {
        if (value.ValueKind == JsonValueKind.String && JsonText.Of(value) is { } word && WordsOf<T>.All.TryGetValue(word, out var choice))
        {
            return choice;
        }

        fields.FaultAt(fields.PointerTo(name, index)[fields.At.Length..], $"This is {Fields.Kind(value)}.", $"one of: {WordsOf<T>.Listed}");
        return null;
    }

    private Station Shared(Fields fields, Station station, Block block, bool sure, string byPlace)
    {
        if (sure && block.Shape == BlockShape.OwnPace)
        {
            fields.Refuse("nobody shares a station in an own-pace block", "sharing", "waiting");
            return station;
        }

        var turns = fields.Choice("sharing", ["own", "turns"]) == "turns";
        if (turns)
        {
            return station with { Turns = true, Waiting = Extra(fields, "waiting", byPlace + "w") };
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

        if (sides == SideRule.Split && dose.Length > 0 && !CanSplit(dose))
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

    private static bool CanSplit(ImmutableArray<Part> dose) => dose is [{ Kind: PartKind.Time or PartKind.Hold }];

    /// <summary>An option's own sides stand inside the station's time; they need a dose that can be done so.</summary>
    private static void CheckOptionSides(
        Fields fields, ImmutableArray<Option> options, SideRule sides, ImmutableArray<Part> dose, int parts)
    {
        for (var i = 0; i < options.Length; i++)
        {
            var option = options[i];
            if (option.Sides == SideRule.Split && parts > 0 && !CanSplit(dose))
            {
                fields.FaultAt($"/options/{i}/sides", "Only one timed part can be split between the sides.", "a dose of exactly one part "
                    + "of kind time or hold");
            }

            if (option.Chunk is not null && ((option.Sides ?? sides) != SideRule.Each || parts != 1 || dose[0].Kind != PartKind.Reps))
            {
                fields.FaultAt($"/options/{i}/chunk", "A chunk needs one part of reps, done on each side.", "sides each and a dose of "
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
                    $"/options/{i}/parts/{number}", $"There is no part {number}; the dose has {parts}.", $"part numbers 1–{parts}");
            }
        }
    }

    /// <summary>A string is tied of stations that are done on each side, one after the other (plan-language.md, "Seconds").</summary>
    private void CheckStrings(Block block, string at)
    {
        for (var i = 0; i < block.Stations.Length; i++)
        {
            if (!block.Stations[i].WithNext)
            {
                continue;
            }

            var wrong = i + 1 == block.Stations.Length ? "The last station of a block has no next one."
                : block.StartEvery is not null ? "With startEverySeconds every station has its own start."
                : block.SidePass != SidePass.Station ? "The round gives the sides here."
                : !CanTie(block.Stations[i])
                    || !CanTie(block.Stations[i + 1]) ? "A string is made of stations done on each side, without chunk and without turns."
                : null;
            if (wrong is not null)
            {
                faults.Add($"{at}/stations/{i}/withNext", wrong, "two neighbours with sides each, without chunk and sharing, in a "
                    + "circuit or in sets");
            }
        }
    }

    private static bool CanTie(Station station) => station is { Sides: SideRule.Each, Chunk: 0, Turns: false };
}
