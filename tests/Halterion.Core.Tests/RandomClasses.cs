using System.Text.Json.Nodes;
using CsCheck;

namespace Halterion.Core.Tests;

/// <summary>Random valid classes, over all shapes of block.</summary>
internal static class RandomClasses
{
    private static readonly Gen<string> Tempo = Gen.Select(Gen.Int[0, 4], Gen.Int[0, 2], Gen.Int[1, 9], Gen.Int[0, 2])
        .Select((a, b, c, d) => $"{a}-{b}-0.{c}-{d}");

    private static readonly Gen<JsonNode> Amount = Gen.Frequency(
        (3, Gen.Int[1, 60].Select(n => (JsonNode)n)),
        (1, Gen.Int[1, 40].Array[1, 4].Select(a => (JsonNode)new JsonArray([.. a.Select(n => (JsonNode)n)]))),
        (1, Gen.Select(Gen.Int[1, 20], Gen.Int[0, 9]).Select((from, more) => (JsonNode)new JsonObject { ["from"] = from, ["to"] = from + more })));

    private static readonly Gen<JsonObject> Part = Gen.Select(Gen.Int[0, 5], Amount, Tempo, Gen.Int[0, 3], Gen.Int[0, 3], Gen.Int[0, 5])
        .Select((kind, amount, tempo, side, style, when) =>
        {
            string[] kinds = ["reps", "time", "hold", "pulses", "open", "rest"];
            var part = new JsonObject { ["kind"] = kinds[kind], ["amount"] = amount };
            if (kinds[kind] == "reps")
            {
                part["tempo"] = tempo;
                part["style"] = Pick(style, "full", "oneAndAHalf", "deadStop", "constantTension");
                part["pulsesPerRep"] = when / 3;
            }

            if (kinds[kind] != "rest")
            {
                part["side"] = Pick(side, "both", "left", "right", "alternate");
            }

            part["rounds"] = when == 5 ? new JsonArray(2, 3, 9) : Pick(when, "all", "all", "all", "first", "last");
            return part;
        });

    private static readonly Gen<JsonObject> Station = Gen.Select(Part.Array[1, 3], Gen.Int[0, 4], Gen.Int[0, 20], Gen.Bool)
        .Select((dose, sides, number, turns) =>
        {
            if (dose.All(p => (string?)p["kind"] == "rest"))
            {
                dose[0]["kind"] = "time";
            }

            var station = new JsonObject { ["dose"] = new JsonArray([.. dose]), ["options"] = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = "squat" }) };
            if (sides == 1)
            {
                BothSides(station);
                station["sides"] = "each";
                if (dose is [var only] && (string?)only["kind"] == "reps")
                {
                    station["chunk"] = number + 1;
                }
            }

            if (turns && number < 5)
            {
                station["sharing"] = "turns";
            }

            if (number % 3 == 0)
            {
                station["switchSeconds"] = number;
            }

            if (sides == 2 && dose is [var whole] && (string?)whole["kind"] is "time" or "hold")
            {
                BothSides(station);
                station["sides"] = "split";
            }

            return station;
        });

    private static readonly Gen<JsonObject> Block = Gen.Select(Station.Array[1, 4], Gen.Int[1, 4], Gen.Int[0, 30], Gen.Int[0, 30], Gen.Int[0, 9])
        .Select((stations, rounds, between, rest, shape) =>
        {
            var block = new JsonObject { ["name"] = "Block", ["phase"] = "main", ["rounds"] = rounds, ["betweenStations"] = between, ["stations"] = new JsonArray([.. stations]) };
            switch (shape)
            {
                case 0:
                    block["order"] = "sets";
                    block["betweenSets"] = new JsonArray(rest, rest / 2);
                    return block;
                case 1:
                    block["format"] = "rotation";
                    block["windowSeconds"] = between + 5;
                    break;
                case 2:
                    block["format"] = "rotation";
                    break;
                case 3:
                    block["sidePass"] = "round";
                    Plain(block);
                    break;
                case 4:
                    block["betweenStations"] = 0;
                    block["startEverySeconds"] = rest + 5;
                    break;
                case 5:
                    block["sidePass"] = "alternate";
                    Plain(block);
                    break;
                case 6:
                    var last = block["stations"]!.AsArray()[^1]!.AsObject();
                    last["demoSeconds"] = rest;
                    last["changeSeconds"] = between / 2;
                    break;
                case 7:
                    return new JsonObject { ["name"] = "Own", ["phase"] = "main", ["order"] = "ownPace", ["seconds"] = rest + 1, ["stations"] = OwnStations(block) };
                case 8:
                    return new JsonObject { ["name"] = "Talk", ["phase"] = "talk", ["format"] = "talk", ["seconds"] = rest + 1 };
            }

            block["betweenRounds"] = rest;
            return block;
        });

    public static readonly Gen<string> Text = Gen.Select(Block.Array[1, 3], Gen.Int[0, 12], Gen.Int[0, 8], Gen.Bool).Select((blocks, leadIn, change, right) => new JsonObject
    {
        ["format"] = "halterion-class",
        ["version"] = 1,
        ["title"] = "Random",
        ["slotMinutes"] = 45,
        ["leadInSeconds"] = leadIn,
        ["switchSeconds"] = change,
        ["startSide"] = right ? "right" : "left",
        ["blocks"] = new JsonArray([.. blocks]),
    }.ToJsonString());

    private static JsonArray OwnStations(JsonObject block)
    {
        var stations = block["stations"]!.DeepClone().AsArray();
        foreach (var station in stations)
        {
            station!.AsObject().Remove("sharing");
        }

        return stations;
    }

    private static void Plain(JsonObject block)
    {
        foreach (var station in block["stations"]!.AsArray())
        {
            BothSides(station!.AsObject());
            station.AsObject().Remove("sides");
            station.AsObject().Remove("chunk");
        }
    }

    private static void BothSides(JsonObject station)
    {
        foreach (var part in station["dose"]!.AsArray())
        {
            part!.AsObject().Remove("side");
        }
    }

    private static string Pick(int index, params string[] words) => words[index];
}
