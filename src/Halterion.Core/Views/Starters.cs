using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Views;

/// <summary>A ready block to begin from.</summary>
/// <param name="Words">What it is for.</param>
/// <param name="Block">A block of the plan language.</param>
public sealed record Starter(string Name, string Words, JsonObject Block);

/// <summary>A ready station for a move, with the options the ladders propose and the reasons for them.</summary>
/// <param name="Station">A station of the plan language.</param>
public sealed record StationStarter(JsonObject Station, Proposals Proposals);

/// <summary>What a new block or station looks like before anybody has touched it. Usual doses: handbook, section 3 [C].</summary>
public sealed class Starters(MoveLibrary moves, Preferences preferences)
{
    private const int Bell = 40;

    /// <summary>Two moves in a floor position need longer to change sides than the class's usual three seconds.</summary>
    private const int FloorSwitch = 4;

    public ImmutableArray<Starter> Blocks() =>
    [
        new("Circuit", "Everyone does one station at a time; once through is a round.",
            Rested(Block("Circuit", "main", """{ "rounds": 3, "betweenStations": 15 }""", "squat"), "betweenRounds", 60)),
        new("Stations on the bell", "Groups work at all stations at once and move on at the bell.",
            Rested(Block("Stations on the bell", "main", """{ "format": "rotation", "rounds": 2, "windowSeconds": 40, "betweenStations": 20 }""", "squat", "split-squat"), "betweenRounds", 90)),
        new("Superset", "Two moves back to back, then a rest.",
            Rested(Block("Superset", "main", """{ "rounds": 3, "betweenStations": 10 }""", "squat", "hip-hinge"), "betweenRounds", 90)),
        new("Straight sets", "All sets of a station, then the next one.",
            Rested(Block("Straight sets", "main", """{ "order": "sets", "rounds": 3, "betweenStations": 45 }""", "goblet-squat"), "betweenSets", 60)),
        new("Falling targets", "Fewer reps each round: 20, 15, 12.",
            Rested(Dosed(Block("Falling targets", "main", """{ "rounds": 3, "betweenStations": 10 }""", "squat", "hip-hinge"), "20/15/12"), "betweenRounds", 60)),
        new("Drop set", "The same reps three times, lighter each time, with a breath to change weights.",
            Rested(Dosed(Block("Drop set", "main", """{ "order": "sets", "rounds": 2 }""", "goblet-squat"), "10 at 100 % + 12 s rest + 10 at 70 % + 12 s rest + 10 at 40 %"), "betweenSets", 150)),
        new("On the minute", "Each station starts on the minute; what the reps leave is rest.",
            Dosed(Block("On the minute", "main", """{ "rounds": 4, "startEverySeconds": 60, "betweenRounds": 0 }""", "squat", "hip-hinge"), "12")),
        new("One side a round", "First all stations on one side, then all on the other.",
            Rested(Dosed(Block("One side a round", "main", """{ "rounds": 2, "sidePass": "round", "betweenStations": 10 }""", "split-squat", "staggered-deadlift"), "40 s"), "betweenRounds", 60)),
        new("Hundred in chunks", "A hundred reps, fifty a side, changing sides every ten.",
            Dosed(Block("Hundred in chunks", "finisher", "{}", "split-squat"), "50 each side by 10 @ 1-0-1-0")),
        new("Follow-along flow", "One after the other without a break, led from the front.",
            Dosed(Block("Flow", "main", """{ "rounds": 2 }""", "squat", "side-lunge", "hip-hinge"), "30 s")),
        new("Own pace", "Everyone goes round alone until the bell.",
            Block("Own pace", "main", """{ "order": "ownPace", "seconds": 300 }""", "squat", "hip-hinge")),
        new("Warm-up", "Once through, easy and without a break.",
            Dosed(Block("Warm-up", "warmup", """{ "rounds": 1, "betweenStations": 5 }""", "hip-hinge", "squat"), "40 s")),
        new("Cool-down", "Held stretches at the end; protected when the class runs late.",
            Dosed(Block("Cool-down", "cooldown", """{ "rounds": 1, "betweenStations": 5 }""", FirstOf("stand-quad-stretch", "hip-hinge"), FirstOf("forward-fold", "wall-hinge")), "30 s hold")),
        new("Talk", "Welcome, walk-through: a stretch of time without stations.", new()
        {
            ["name"] = "Talk", ["phase"] = "talk", ["format"] = "talk", ["seconds"] = 120,
        }),
    ];

    /// <summary>A station for a move of the library, dosed as is usual for it, or to fill a window.</summary>
    /// <param name="window">The bell of the rotation that it goes into; null elsewhere.</param>
    /// <param name="roundGivesSide">The block gives the side by round.</param>
    public StationStarter Station(Move move, Seconds? window = null, bool roundGivesSide = false)
    {
        var proposals = moves.Propose(move.Id) with { Instead = Instead.Of(move, moves) };
        var dose = window is { } bell ? new UsualDose(move.Dose.Kind == "hold" ? "hold" : "time", bell.Value) : move.Dose;
        var part = new JsonObject { ["kind"] = dose.Kind, ["amount"] = dose.Amount };
        var station = new JsonObject();
        if (!roundGivesSide)
        {
            GiveSides(move, dose.Kind, part, station);
        }

        var options = new JsonArray();
        foreach (var option in new[] { proposals.Harder?.Option, new JsonObject { ["tier"] = "main", ["move"] = move.Id.Value }, proposals.Easier?.Option })
        {
            if (option is not null)
            {
                options.Add(option.DeepClone());
            }
        }

        station["dose"] = new JsonArray(part);
        station["options"] = options;
        return new StationStarter(station, proposals);
    }

    /// <summary>A new class file's own fields for the schools that differ from the language's defaults.</summary>
    public JsonObject ClassFields()
    {
        var fields = new JsonObject();
        if (preferences.Count != Counting.Down)
        {
            fields["count"] = JsonNamingPolicy.CamelCase.ConvertName(preferences.Count.ToString());
        }

        if (preferences.StartSide == Side.Right)
        {
            fields["startSide"] = "right";
        }

        if (preferences.Facing == Facing.Same)
        {
            fields["facing"] = "same";
        }

        return fields;
    }

    private void GiveSides(Move move, string kind, JsonObject part, JsonObject station)
    {
        switch (move.Sided, kind, preferences.Sides)
        {
            case (Sided.Alternating, _, _):
            case (Sided.OneSided, "reps", SideHabit.Alternate):
                part["side"] = "alternate";
                return;
            case (Sided.OneSided, "reps", var habit):
                station["sides"] = "each";
                if (habit == SideHabit.Chunks)
                {
                    station["chunk"] = 5;
                }

                break;
            case (Sided.OneSided, "pulses", _):
                station["sides"] = "each";
                break;
            case (Sided.OneSided, _, _):
                station["sides"] = "split";
                return;
            default:
                return;
        }

        if (move.Position != Position.Standing)
        {
            station["switchSeconds"] = move.Position is Position.Bench or Position.Machine ? 2 * FloorSwitch : FloorSwitch;
        }
    }

    private JsonObject Block(string name, string phase, string timing, params ReadOnlySpan<string> ids)
    {
        var block = JsonNode.Parse(timing)!.AsObject();
        block.Insert(0, "phase", phase);
        block.Insert(0, "name", name);
        if (preferences.Sides == SideHabit.Round && block["sidePass"] is null && phase == "main" && block["order"] is null && block["format"] is null && block["startEverySeconds"] is null)
        {
            block["sidePass"] = "round";
        }

        var stations = new JsonArray();
        foreach (var id in ids)
        {
            var move = moves.Find(new MoveId(id)) ?? throw new JsonException($"The library has no {id}.");
            stations.Add(Station(move, block["windowSeconds"] is null ? null : new Seconds(Bell), block["sidePass"] is not null).Station);
        }

        block["stations"] = stations;
        return block;
    }

    /// <summary>Gives every station of a block the same dose, in the trade's short form.</summary>
    private static JsonObject Dosed(JsonObject block, string dose)
    {
        var typed = ShortDoseReader.Read(dose).Dose!.Station;
        var timed = typed["dose"]!.AsArray() is [{ } only] && ((string?)only["kind"] is "time" or "hold");
        foreach (var station in block["stations"]!.AsArray().Select(s => s!.AsObject()))
        {
            // A held stretch or a timed go of a one-sided move is shared between the sides.
            var split = timed && ((string?)station["sides"] is "split" or "each");
            station.Remove("sides");
            station.Remove("chunk");
            foreach (var (field, value) in typed)
            {
                station[field] = value?.DeepClone();
            }

            if (split)
            {
                station["sides"] = "split";
            }

            if ((string?)station["sides"] is null or "split")
            {
                station.Remove("switchSeconds");
            }
        }

        return block;
    }

    /// <summary>Rests as this instructor is used to.</summary>
    private JsonObject Rested(JsonObject block, string field, int usual)
    {
        block[field] = preferences.Rest switch
        {
            RestHabit.Short => Math.Min(30, usual),
            RestHabit.None => 0,
            _ => usual,
        };
        if (preferences.Rest == RestHabit.Active && moves.Has(new MoveId("march")))
        {
            block["recovery"] = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = "march" });
        }

        return block;
    }

    private string FirstOf(params ReadOnlySpan<string> ids)
    {
        foreach (var id in ids)
        {
            if (moves.Has(new MoveId(id)))
            {
                return id;
            }
        }

        throw new JsonException("The library has none of these.");
    }
}
