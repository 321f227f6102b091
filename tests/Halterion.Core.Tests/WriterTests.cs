using System.Text.Json.Nodes;
using CsCheck;
using Halterion.Core.PlanFormat;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>What is written is what was read.</summary>
public sealed class WriterTests
{
    /// <summary>Every field of the language, each other than the language has it anyway, comes back to the letter.</summary>
    [Fact]
    public void Every_field_comes_back()
    {
        const string option = """
            {"id":"o1","tier":"main","move":"split-squat","depth":"parallel","support":"none","base":"split","toes":"ahead","step":"long",
             "trunk":"upright","arms":"hips","surface":"mat","heightCm":0,"impact":"none","band":"none","grip":"neutral","tempo":"3-1-X-0",
             "load":{"implement":"dumbbell","count":2,"kg":6.25,"position":"sides","side":"both"},
             "parts":{"1":{"move":"forward-lunge","tempo":"1-0-1-0","depth":"half"}},"note":"as shown"}
            """;
        const string easier =
            """{"id":"o2","tier":"easier","move":"squat","sides":"each","chunk":5,"scale":0.5,"parts":{"1":{"scale":0.75}}}""";
        const string reps = """
            {"kind":"reps","amount":[{"from":8,"to":12},10],"move":"reverse-lunge","tempo":"X-0.5-1.25-0","style":"deadStop",
             "pulsesPerRep":3,"loadKg":[12.5,10],"effort":8,"rounds":[1,3],"label":"Heavy"}
            """;
        Back($$"""
            {"id":"b1","name":"Circuit","phase":"warmup","notes":"n","shownBy":"a guest","rounds":3,"optionalRounds":2,"betweenStations":12,
             "betweenRounds":[30,45],"afterSeconds":20,"leadInSeconds":0,"startSide":"right","count":"off","gate":"rests","keep":"droppable",
             "water":true,"say":{"text":"Both feet","seconds":9},"recovery":[{"id":"r1","tier":"main","move":"skater","step":"short"}],"recoveryIn":"all",
             "stations":[
               {"id":"s1","name":"Own","sides":"each","chunk":4,"sharing":"turns","waiting":[{"id":"w1","tier":"main","move":"squat"}],
                "switchSeconds":[0,2],"changeSeconds":9,"startSide":"left","view":["side","front"],"count":"up","say":{"text":"Low","seconds":3},
                "demoSeconds":[25],"dose":[{{reps}}],"options":[{{option}},{{easier}}]},
               {"id":"s2","sides":"each","withNext":true,"demoSeconds":25,"dose":[{"kind":"hold","amount":20,"loadFactor":0.75}],"options":[{"id":"o3","tier":"main","move":"squat"}]},
               {"id":"s3","sides":"each","dose":[{"kind":"distance","amount":20,"pace":1.25,"rounds":"first"},{"kind":"rest","amount":5,"label":"Plates off"}],"options":[{"id":"o4","tier":"main","move":"squat"}]}]}
            """);
        Back($$"""
            {"id":"b1","name":"Sets","phase":"main","order":"sets","rounds":3,"betweenSets":[60,90],
             "stations":[{"id":"s1","betweenSets":45,"dose":[{{reps.Replace("\"move\"", "\"side\":\"alternate\",\"move\"", StringComparison.Ordinal)}}],"options":[{{option}}]}]}
            """);
        Back($$"""{"id":"b1","name":"Round","phase":"main","rounds":2,"sidePass":"round","startEverySeconds":60,"stations":[{"id":"s1","dose":[{"kind":"time","amount":40}],"options":[{{option}}]}]}""");
        Back($$"""{"id":"b1","name":"Bell","phase":"cooldown","format":"rotation","windowSeconds":[40,50],"keep":"normal","stations":[{"id":"s1","dose":[{"kind":"open","amount":40}],"options":[{{option}}]}]}""");
        Back($$"""{"id":"b1","name":"Own","phase":"finisher","order":"ownPace","seconds":300,"goalReps":100,"goalShared":true,"rounds":1,"stations":[{"id":"s1","dose":[{"kind":"pulses","amount":10,"rounds":"last"}],"options":[{{option}}]}]}""");
    }

    [Fact]
    public void A_walk_through_comes_back() =>
        Assert.Equal(
            """{"id":"b2","name":"Talk","phase":"talk","format":"talk","seconds":60,"show":[{"station":"s1","seconds":30,"view":"turn","first":"easier"}]}""",
            PlanWriter.Of(Plan("""
                {"format":"halterion-class","version":1,"title":"t","slotMinutes":60,"blocks":[
                {"id":"b1","name":"A","phase":"main","stations":[{"id":"s1","dose":[{"kind":"time","amount":40}],"options":[{"id":"o1","tier":"main","move":"squat"},{"id":"o2","tier":"easier","move":"squat"}]}]},
                {"id":"b2","name":"Talk","phase":"talk","format":"talk","seconds":60,"show":[{"station":"s1","seconds":30,"view":"turn","first":"easier"}]}]}
                """).Blocks[1]).ToJsonString());

    private static void Back(string block)
    {
        var text = JsonNode.Parse(block)!;
        var written = PlanWriter.Of(Plan(With(block)).Blocks[0]);
        Assert.True(JsonNode.DeepEquals(text, written), $"{text.ToJsonString()}\n{written.ToJsonString()}");
    }

    /// <summary>Over random classes of all shapes: written and read again, every block takes the same time and is the same text.</summary>
    [Fact]
    public void Random_classes_come_back() => RandomClasses.Text.Sample(
        text =>
        {
            var file = JsonNode.Parse(text)!;
            var plan = Plan(text);
            file["blocks"] = new JsonArray([.. plan.Blocks.Select(PlanWriter.Of)]);
            var again = Plan(file.ToJsonString());
            Assert.Equal(
                plan.Blocks.Select(b => PlanWriter.Of(b).ToJsonString()), again.Blocks.Select(b => PlanWriter.Of(b).ToJsonString()));
            Assert.Equal(Compiler.Compile(plan).Timeline?.Spans, Compiler.Compile(again).Timeline?.Spans);
        },
        iter: 300);
}
