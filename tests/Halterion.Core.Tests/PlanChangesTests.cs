using System.Text.Json.Nodes;
using CsCheck;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
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
        { "/blocks/0/rounds|2", "“Block”: rounds 3 → 2" },
        { "/blocks/0/betweenRounds|[60,30]", "“Block”: between rounds 90 → 60, 30" },
        { "/blocks/0/stations/1/dose/0/amount|8", "“Block”: Split squat: 10 → 8" },
        { "/blocks/0/stations/1/options/0/move|\"reverse-lunge\"", "“Block”: station Split squat → Reverse lunge" },
        { "/blocks/0/stations/1/options/-|{\"tier\":\"easier\",\"move\":\"squat\"}", "“Block”: Split squat: option easier Bodyweight "
            + "squat added" },
        { "/blocks/1/name|\"Welcome\"", "block “Talk” → “Welcome”" },
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
        Assert.Equal(["“Block”: station Bodyweight squat moved"], PlanChanges.Between(Json(Before), after, Library));
        stations.RemoveAt(0);
        Assert.Contains("“Block”: station Split squat removed", PlanChanges.Between(Json(Before), after, Library));
        after["blocks"]!.AsArray().RemoveAt(1);
        Assert.Contains("block “Talk” removed", PlanChanges.Between(Json(Before), after, Library));
    }

    [Fact]
    public void A_class_has_no_changes_against_itself_and_some_against_any_other() =>
        Gen.Select(RandomClasses.Text, RandomClasses.Text).Sample((a, b) =>
    {
        Assert.Empty(PlanChanges.Between(Json(a), Json(a), Library));
        Assert.Equal(JsonNode.DeepEquals(Json(a), Json(b)), PlanChanges.Between(Json(a), Json(b), Library).IsEmpty);
    });

    private static string Of(string move) => $$"""{"dose":[{"kind":"reps","amount":10}],"options":[{"tier":"main","move":"{{move}}"}]}""";
}
