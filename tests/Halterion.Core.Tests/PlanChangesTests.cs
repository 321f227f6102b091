using System.Text.Json.Nodes;
using CsCheck;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Words;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

public class PlanChangesTests
{
    private static readonly string Before = With(
        Block(""" "rounds":3,"betweenRounds":90 """, Of("squat"), Of("split-squat"), Of("hip-hinge")) + ""","""
        + """{"name":"Talk","phase":"talk","format":"talk","seconds":60}""");

    public static TheoryData<string, string> Cases => new()
    {
        { "/title|\"Other\"", "title “Test” → “Other”" },
        { "/slotMinutes|50", "booked time 60 → 50 min" },
        { "/aim|\"strength\"", "aim conditioning → strength" },
        { "/facing|\"same\"", "you face the same way as the class" },
        { "/leadInSeconds|15", "get-ready time 10 s → 15 s" },
        { "/warmUp|\"ownTime\"", "warm-up: in class → on their own before class" },
        { "/focus|\"Knees over toes\"", "cue of the day added" },
        { "/blocks/0/rounds|2", "Block: 3 → 2 rounds" },
        { "/blocks/0/betweenRounds|[60,30]", "Block: rest between rounds 90 s → 60 s, then 30 s" },
        { "/blocks/0/afterSeconds|30", "Block: rest after the block none → 30 s" },
        { "/blocks/0/water|true", "Block: drink break added to the rests" },
        { "/blocks/0/gate|\"block\"", "Block: starts by itself → when you press Go" },
        { "/blocks/0/order|\"sets\"", "Block: format circuit → straight sets" },
        { "/blocks/0/stations/1/dose/0/amount|8", "Block, Split squat: 10 → 8 reps" },
        { "/blocks/0/stations/1/dose/0/side|\"left\"", "Block, Split squat: 10 reps → 10 reps, left side" },
        { "/blocks/0/stations/1/sides|\"each\"", "Block, Split squat: sides: together → each side" },
        { "/blocks/0/stations/0/withNext|true", "Block, Bodyweight squat: linked with the next station" },
        { "/blocks/0/stations/1/options/0/depth|\"half\"", "Block, Split squat, main option: depth: as the move → half" },
        { "/blocks/0/stations/1/options/0/impact|\"none\"",
            "Block, Split squat, main option: jump taken out: both feet stay on the floor" },
        { "/blocks/0/stations/1/options/0/load|{\"implement\":\"barbell\",\"kg\":20,\"position\":\"back\"}",
            "Block, Split squat, main option: weight: none → 20 kg barbell on the back" },
        { "/blocks/0/stations/1/options/0/move|\"reverse-lunge\"", "Block: Split squat → Reverse lunge" },
        { "/blocks/0/stations/1/options/-|{\"tier\":\"easier\",\"move\":\"squat\",\"depth\":\"half\"}",
            "Block, Split squat: easier option added: Bodyweight squat, half depth" },
        { "/blocks/1/name|\"Welcome\"", "“Talk” renamed “Welcome”" },
        { "/blocks/1/seconds|90", "Talk: length 60 s → 90 s" },
    };

    [Theory]
    [MemberData(nameof(Cases))]
    public void A_change_is_said_in_words(string edit, string words)
    {
        var after = Json(Before);
        new Edit(edit.Split('|')[0], Json(edit.Split('|')[1])).ApplyTo(after);
        Assert.Equal([words], PlanChanges.Between(Json(Before), after, Library));
    }

    [Fact]
    public void Moving_adding_and_removing_are_told_apart()
    {
        var after = Json(Before);
        var stations = after["blocks"]![0]!["stations"]!.AsArray();
        var first = stations[0];
        stations.RemoveAt(0);
        stations.Add(first);
        Assert.Equal(["Block: Bodyweight squat moved from 1st to 3rd"], PlanChanges.Between(Json(Before), after, Library));
        stations.RemoveAt(0);
        Assert.Contains("Block: Split squat removed", PlanChanges.Between(Json(Before), after, Library));
        after["blocks"]!.AsArray().RemoveAt(1);
        Assert.Contains("Talk removed", PlanChanges.Between(Json(Before), after, Library));
        Assert.Contains("new block “Talk” (60 s)", PlanChanges.Between(after, Json(Before), Library));
    }

    [Fact]
    public void A_block_that_is_renamed_and_changed_says_both()
    {
        var after = Json(Before);
        after["blocks"]![1]!["name"] = "Welcome";
        after["blocks"]![1]!["seconds"] = 120;
        Assert.Equal(["“Talk” renamed “Welcome”", "Welcome: length 60 s → 2 min"],
            PlanChanges.Between(Json(Before), after, Library));
    }

    [Fact]
    public void An_option_that_changes_its_tier_or_its_move_says_what_it_was()
    {
        var before = Json(Before);
        Station(before)["options"]!.AsArray().Add(Json("""{"tier":"easier","move":"squat"}"""));
        var after = before.DeepClone();
        Station(after)["options"]![1]!["tier"] = "instead";
        Assert.Equal(["Block, Split squat: easier option is now an alternative"], PlanChanges.Between(before, after, Library));
        after = before.DeepClone();
        Station(after)["options"]![1] = Json("""{"tier":"easier","move":"reverse-lunge","support":"chair"}""");
        Assert.Equal(["Block, Split squat: easier option Bodyweight squat → Reverse lunge, hand on the chair"],
            PlanChanges.Between(before, after, Library));

        static JsonNode Station(JsonNode file) => file["blocks"]![0]!["stations"]![1]!;
    }

    /// <summary>Every field of the published schema has words; a new one without them is found here.</summary>
    [Fact]
    public void Every_field_of_the_language_has_words()
    {
        var definitions = PublishedSchema.Class()["$defs"]!;
        foreach (var (thing, at) in new[] { ("ClassPlan", ""), ("PlanBlock", "/blocks/0"), ("PlanStation", "/blocks/0/stations/1"),
            ("PlanOption", "/blocks/0/stations/1/options/0") })
        {
            var fields = definitions[thing]!["properties"]!.AsObject().Select(f => f.Key).ToArray();
            Assert.Contains(fields, f => f is "title" or "phase" or "chunk" or "band");
            foreach (var field in fields)
            {
                var after = Json(Before);
                new Edit($"{at}/{field}", Json("7")).ApplyTo(after);
                Assert.DoesNotContain(
                    PlanChanges.Between(Json(Before), after, Library), w => w.Contains("unknown", StringComparison.Ordinal));
            }
        }
    }

    [Fact]
    public void A_number_that_is_written_out_where_it_was_meant_is_no_change()
    {
        var (before, after) = (Json(Before), Json(Before));
        before["blocks"]![0]!["rounds"] = 1;
        after["blocks"]![0]!.AsObject().Remove("rounds");
        Assert.Empty(PlanChanges.Between(before, after, Library));
    }

    [Fact]
    public void A_draft_with_any_value_anywhere_is_told_without_a_wire_word() =>
        Gen.Select(RandomClasses.Text, RandomClasses.Text).Sample((a, b) =>
        {
            foreach (var words in PlanChanges.Between(Json(a), Json(b), Library))
            {
                Assert.DoesNotMatch(
                    "true|false|null|[{}\\[\\]]|ownPace|ownTime|asWritten|twoHands|handOnThigh|rearRaised|frontRaised"
                    + "|Seconds|(?<!then )none → none$", words);
            }
        }, iter: 200);

    [Fact]
    public void A_class_has_no_changes_against_itself_and_some_against_any_other() =>
        Gen.Select(RandomClasses.Text, RandomClasses.Text).Sample((a, b) =>
    {
        Assert.Empty(PlanChanges.Between(Json(a), Json(a), Library));
        Assert.Equal(JsonNode.DeepEquals(Json(a), Json(b)), PlanChanges.Between(Json(a), Json(b), Library).IsEmpty);
    });

    private static string Of(string move) => $$"""{"dose":[{"kind":"reps","amount":10}],"options":[{"tier":"main","move":"{{move}}"}]}""";
}
