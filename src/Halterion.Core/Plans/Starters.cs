using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

/// <summary>A ready block to begin from.</summary>
/// <param name="Words">What it is for.</param>
/// <param name="Block">A block of the plan language.</param>
public sealed record Starter(string Name, string Words, JsonObject Block);

/// <summary>A ready station for a move, with the options the ladders propose and the reasons for them.</summary>
/// <param name="Station">A station of the plan language.</param>
public sealed record StationStarter(JsonObject Station, Proposals Proposals);

/// <summary>What a new block or station looks like before anybody has touched it. Usual doses: handbook, section 3 [C].</summary>
public static class Starters
{
    private const int Bell = 40;

    public static ImmutableArray<Starter> Blocks(MoveLibrary moves) =>
    [
        new("Circuit", "Everyone does one station at a time; once through is a round.", Block("Circuit", "main", ("squat", moves), new()
        {
            ["format"] = "together", ["rounds"] = 3, ["betweenStations"] = 15, ["betweenRounds"] = 60,
        })),
        new("Stations on the bell", "Groups work at all stations at once and move on at the bell.", Block("Stations on the bell", "main", ("squat", moves), new()
        {
            ["format"] = "rotation", ["rounds"] = 2, ["windowSeconds"] = Bell, ["betweenStations"] = 20, ["betweenRounds"] = 90,
        })),
        new("Straight sets", "All sets of a station, then the next one.", Block("Straight sets", "main", ("goblet-squat", moves), new()
        {
            ["format"] = "together", ["order"] = "sets", ["rounds"] = 3, ["betweenSets"] = 60, ["betweenStations"] = 45,
        })),
        new("Warm-up", "Once through, easy and without a break.", Block("Warm-up", "warmup", ("hip-hinge", moves), new()
        {
            ["format"] = "together", ["rounds"] = 1, ["betweenStations"] = 5,
        })),
        new("Talk", "Welcome, walk-through, stretch: a stretch of time without stations.", new()
        {
            ["name"] = "Talk", ["phase"] = "talk", ["format"] = "talk", ["seconds"] = 120,
        }),
    ];

    /// <summary>A station for a move of the library, dosed as is usual for it, or to fill a window.</summary>
    /// <param name="window">The bell of the rotation that it goes into; null elsewhere.</param>
    public static StationStarter Station(Move move, MoveLibrary moves, Seconds? window = null)
    {
        var proposals = moves.Propose(move.Id);
        var dose = window is { } bell ? new UsualDose(move.Dose.Kind == "hold" ? "hold" : "time", bell.Value) : move.Dose;
        var part = new JsonObject { ["kind"] = dose.Kind, ["amount"] = dose.Amount };
        if (move.Sided == Sided.Alternating)
        {
            part["side"] = "alternate";
        }

        var station = new JsonObject();
        if (move.Sided == Sided.OneSided)
        {
            station["sides"] = dose.Kind == "reps" ? "each" : "split";
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

    private static JsonObject Block(string name, string phase, (string Move, MoveLibrary Library) first, JsonObject timing)
    {
        var block = new JsonObject { ["name"] = name, ["phase"] = phase };
        foreach (var (field, value) in timing)
        {
            block[field] = value?.DeepClone();
        }

        var move = first.Library.Find(new MoveId(first.Move)) ?? throw new JsonException($"The library has no {first.Move}.");
        block["stations"] = new JsonArray(Station(move, first.Library, timing["windowSeconds"] is null ? null : new Seconds(Bell)).Station);
        return block;
    }
}
