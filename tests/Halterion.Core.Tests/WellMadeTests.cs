using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>
/// Who builds a class well is left alone: eight shapes, made up by the rules of the trade, with nothing that must be mended and
/// little to think about.
/// </summary>
public class WellMadeTests
{
    private const int MostOthers = 3;

    private static JsonObject Of(string move, string dose, string more = "")
    {
        var station = Ready.Station(Library.Find(new MoveId(move))!).Station;
        station["dose"] = JsonNode.Parse($"[{dose}]");
        station.Remove("sides");
        station.Remove("switchSeconds");
        station.Remove("chunk");
        foreach (var field in JsonNode.Parse($"{{{more}}}")!.AsObject())
        {
            station[field.Key] = field.Value!.DeepClone();
        }

        return station;
    }

    private static string T(int seconds, string side = "both") => $$"""{"kind":"time","amount":{{seconds}},"side":"{{side}}"}""";

    private static JsonObject Block(string fields, params JsonObject[] stations)
    {
        var block = JsonNode.Parse($$"""{"name":"Main","phase":"main",{{fields}}}""")!.AsObject();
        block["stations"] = new JsonArray([.. stations]);
        return block;
    }

    /// <summary>Welcome with a walk-through, a warm-up of the moves without weight, what was given, and stretches.</summary>
    private static string Class(int minutes, string aim, params JsonObject[] main)
    {
        var plan = JsonNode.Parse($$"""
            {"format":"halterion-class","version":1,"title":"Well made","slotMinutes":{{minutes}},"aim":"{{aim}}","blocks":[
              {"name":"Welcome","phase":"talk","format":"talk","seconds":90},
              {"name":"Warm-up","phase":"warmup","betweenStations":8,"stations":[
                {"dose":[{"kind":"time","amount":60,"side":"alternate"}],"options":[{"tier":"main","move":"march"}]},
                {"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"squat","depth":"half"}]},
                {"dose":[{"kind":"time","amount":60,"side":"alternate"}],"options":[{"tier":"main","move":"reverse-lunge","depth":"half"}]},
                {"dose":[{"kind":"time","amount":60}],"options":[{"tier":"main","move":"hip-hinge"}]},
                {"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"glute-bridge"}]}]}]}
            """)!;
        foreach (var block in main)
        {
            plan["blocks"]!.AsArray().Add(block);
        }

        plan["blocks"]!.AsArray().Add(JsonNode.Parse("""{"name":"Cool-down","phase":"cooldown","format":"talk","seconds":240}"""));
        var length = Good(plan.ToJsonString()).Totals.Seconds.Value;
        plan["blocks"]!.AsArray()[^1]!["seconds"] = 240 + Math.Max(0, 60 * minutes - length);
        return plan.ToJsonString();
    }

    private const string Each = "\"sides\":\"each\"";

    public static TheoryData<string> Shapes =>
    [
        // A circuit of five, hip and knee in turn.
        Class(40, "conditioning", Block("\"rounds\":3,\"betweenStations\":20,\"betweenRounds\":90,\"water\":true",
            Of("squat", T(40)), Of("hip-hinge", T(40)), Of("side-lunge", T(40, "alternate")), Of("glute-bridge", T(40)),
                Of("reverse-lunge", T(40, "alternate")))),
        // Straight sets under load, for strength.
        Class(45, "strength", Block("\"order\":\"sets\",\"rounds\":3,\"betweenSets\":120,\"betweenStations\":120,\"water\":true",
            Of("goblet-squat", """{"kind":"reps","amount":8}"""), Of("romanian-deadlift", """{"kind":"reps","amount":8}"""))),
        // Stations on the bell, six round the loft.
        Class(40, "conditioning",
            Block("\"format\":\"rotation\",\"windowSeconds\":40,\"rounds\":2,\"betweenStations\":20,\"betweenRounds\":90,\"water\":true",
            Of("squat", T(40)), Of("hip-hinge", T(40)), Of("side-lunge", T(40, "alternate")), Of("glute-bridge", T(40)),
                Of("reverse-lunge", T(40, "alternate")), Of("march-bridge", T(40, "alternate")))),
        // Everyone at their own pace, with a goal that can be reached.
        Class(30, "conditioning", Block("\"order\":\"ownPace\",\"seconds\":600,\"rounds\":4",
            Of("squat", """{"kind":"reps","amount":12}"""), Of("hip-hinge", """{"kind":"reps","amount":12}"""), Of(
                "side-lunge", """{"kind":"reps","amount":12,"side":"alternate"}"""))),
        // On the minute: what the reps leave is rest.
        Class(30, "conditioning",
            Block("\"startEverySeconds\":60,\"rounds\":4", Of("squat", """{"kind":"reps","amount":14}"""),
                Of("hip-hinge", """{"kind":"reps","amount":12}"""))),
        // A whole round on one side, then a whole round on the other.
        Class(35, "conditioning", Block("\"rounds\":3,\"sidePass\":\"round\",\"betweenStations\":12,\"betweenRounds\":75,\"water\":true",
            Of("split-squat", T(30)), Of("single-leg-bridge", T(30)))),
        // A string of two on one leg, then on the other.
        Class(35, "conditioning", Block("\"rounds\":3,\"betweenStations\":10,\"betweenRounds\":75,\"water\":true",
            Of("split-squat", T(35), $"{Each},\"withNext\":true"), Of("staggered-deadlift", T(35), Each))),
        // Falling targets for endurance.
        Class(35, "endurance", Block("\"rounds\":3,\"betweenStations\":20,\"betweenRounds\":75,\"water\":true",
            Of("squat", """{"kind":"reps","amount":[20,15,12]}"""), Of("hip-hinge", """{"kind":"reps","amount":[20,15,12]}"""), Of(
                "side-lunge", """{"kind":"reps","amount":[20,16,12],"side":"alternate"}"""))),
    ];

    [Theory]
    [MemberData(nameof(Shapes))]
    public void A_well_made_class_is_left_alone(string text)
    {
        var findings = Good(text).Findings;
        var said = string.Join("\n", findings.Select(f => $"{f.Severity} {f.Code} {f.What}"));
        Assert.True(findings.All(f => f.Severity is Severity.Consider or Severity.Note), said);
        Assert.True(findings.Length <= MostOthers, said);
    }
}
