using System.Text.Json.Nodes;
using CsCheck;
using Halterion.Core.Plans;

namespace Halterion.Core.Tests;

/// <summary>Random valid classes, over all shapes of block.</summary>
internal static class RandomClasses
{
    private static readonly Gen<string> Tempo = Gen.Select(Gen.Int[0, 4], Gen.Int[0, 2], Gen.Int[1, 9], Gen.Int[0, 2])
        .Select((a, b, c, d) => $"{a}-{b}-0.{c}-{d}");

    private static readonly Gen<JsonNode> Amount = Gen.Frequency(
        (3, Gen.Int[1, 60].Select(n => (JsonNode)n)),
        (1, Gen.Int[1, 40].Array[1, 4].Select(a => (JsonNode)new JsonArray([.. a.Select(n => (JsonNode)n)]))),
        (1,
            Gen.Select(Gen.Int[1, 20], Gen.Int[0, 9]).Select(
                (from, more) => (JsonNode)new JsonObject { ["from"] = from, ["to"] = from + more })));

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

            var station = new JsonObject
            {
                ["dose"] = new JsonArray([.. dose]),
                ["options"] = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = "squat" })
            };
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

    private static readonly Gen<JsonObject> Block = Gen.Select(
        Station.Array[1, 4], Gen.Int[1, 4], Gen.Int[0, 30], Gen.Int[0, 30], Gen.Int[0, 9])
        .Select((stations, rounds, between, rest, shape) =>
        {
            var block = new JsonObject
            {
                ["name"] = "Block",
                ["phase"] = "main",
                ["rounds"] = rounds,
                ["betweenStations"] = between,
                ["stations"] = new JsonArray([.. stations])
            };
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
                    return new JsonObject
                    {
                        ["name"] = "Own",
                        ["phase"] = "main",
                        ["order"] = "ownPace",
                        ["seconds"] = rest + 1,
                        ["stations"] = OwnStations(block)
                    };
                case 8:
                    return new JsonObject { ["name"] = "Talk", ["phase"] = "talk", ["format"] = "talk", ["seconds"] = rest + 1 };
            }

            block["betweenRounds"] = rest;
            return block;
        });

    /// <summary>What the second edition adds, where the block takes it.</summary>
    private static readonly Gen<JsonObject> NewBlock = Gen.Select(
        Block, Gen.Int[0, 63], Gen.Int[0, 40], Gen.Int[0, 25]).Select((block, bits, a, b) =>
    {
        var stations = block["stations"]?.AsArray().Select(s => s!.AsObject()).ToArray() ?? [];
        var order = (string?)block["order"] ?? ((string?)block["format"] is { } format and not "together" ? format : "circuit");
        var plain = block["sidePass"] is null && block["startEverySeconds"] is null;
        block["afterSeconds"] = bits % 3 == 0 ? a : 0;
        if (order == "ownPace" && bits % 2 == 0)
        {
            block["rounds"] = 1 + a % 5;
        }

        if (order is not ("ownPace" or "talk") && (bits & 2) > 0)
        {
            block["recovery"] = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = "march" });
            block["recoveryIn"] = (bits & 4) > 0 ? "all" : "rests";
        }

        foreach (var (station, i) in stations.Select((s, i) => (s, i)))
        {
            if ((bits + i) % 3 == 0)
            {
                station["switchSeconds"] = new JsonArray(a % 9, b % 7, a % 4);
            }

            if (block["sidePass"] is null && (bits + i) % 4 == 1)
            {
                station["startSide"] = b % 2 == 0 ? "left" : "right";
            }

            if (order is "circuit" or "sets")
            {
                station["demoSeconds"] = (bits + i) % 4 == 2 ? new JsonArray(a, 0, b) : (bits + i) % 4 == 3 ? b : 0;
                if (plain && (bits + i) % 3 == 1)
                {
                    station["changeSeconds"] = new JsonArray(a, b);
                }
            }

            if (order == "sets" && (bits + i) % 2 == 0)
            {
                station["betweenSets"] = new JsonArray(b, a, 5);
            }
        }

        if (order is "circuit" or "sets" && plain && (bits & 8) > 0)
        {
            Tie(stations);
        }

        return block;
    });

    /// <summary>A walk-through of the first station of the class.</summary>
    private static readonly Gen<JsonObject?> Show = Gen.Select(Gen.Int[0, 4], Gen.Int[1, 50], Gen.Int[0, 30]).Select(
        (n, seconds, more) => n == 0 ? null : new JsonObject
        {
            ["name"] = "Walk-through",
            ["phase"] = "talk",
            ["format"] = "talk",
            ["seconds"] = n * seconds + more + 1,
            ["show"] = new JsonArray(
            [.. Enumerable.Range(0, n).Select(_ => (JsonNode)new JsonObject { ["station"] = "b1s1", ["seconds"] = seconds })]),
        });

    private static void Tie(JsonObject[] stations)
    {
        foreach (var (station, i) in stations.Select((s, i) => (s, i)))
        {
            BothSides(station);
            station["sides"] = "each";
            station.Remove("chunk");
            station.Remove("sharing");
            if (i + 1 < stations.Length && i % 3 != 2)
            {
                station["withNext"] = true;
            }
        }
    }

    public static readonly Gen<string> Text = Gen.Select(Gen.OneOf(Block, NewBlock).Array[1, 3], Show, Gen.Int[0, 12], Gen.Int[0, 8],
        Gen.Bool).Select((blocks, show, leadIn, change, right) => new JsonObject
        {
            ["format"] = "halterion-class",
            ["version"] = 1,
            ["title"] = "Random",
            ["slotMinutes"] = 45,
            ["leadInSeconds"] = leadIn,
            ["switchSeconds"] = change,
            ["startSide"] = right ? "right" : "left",
            ["blocks"] = new JsonArray(
                [.. show is not null && blocks[0]["stations"] is not null ? blocks.Append(show.DeepClone()) : blocks]),
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
