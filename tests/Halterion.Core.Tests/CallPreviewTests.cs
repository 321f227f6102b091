using System.Globalization;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Core.Words;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>What settings and sheets say to people before a class.</summary>
public sealed class CallPreviewTests
{
    private static HeardCall[] Heard(Preferences preferences) => [.. CallPreview.Of(Library, preferences).Calls];

    [Fact]
    public void The_settings_are_heard_in_the_example()
    {
        var usual = Heard(new Preferences());
        Assert.Contains(usual, c => c.Text.Contains("Split squat", StringComparison.OrdinalIgnoreCase));
        Assert.Contains(usual, c => c.Text.Contains("left", StringComparison.OrdinalIgnoreCase));
        Assert.Equal(usual.Select(c => TimeSpan.ParseExact(c.At, @"m\:ss", CultureInfo.InvariantCulture)).Order(),
            usual.Select(c => TimeSpan.ParseExact(c.At, @"m\:ss", CultureInfo.InvariantCulture)));

        // Who begins on the right hears the right first; what is off is not said.
        static string First(HeardCall[] heard) => heard.First(c => c.Text.Contains("foot", StringComparison.OrdinalIgnoreCase)).Text;
        Assert.Contains("left", First(usual), StringComparison.OrdinalIgnoreCase);
        Assert.Contains("right", First(Heard(new Preferences { StartSide = Side.Right })), StringComparison.OrdinalIgnoreCase);
        Assert.Empty(Heard(new Preferences { Silent = [.. Enum.GetValues<CallKind>()] }));
    }

    [Theory]
    [InlineData("3-1-1-0", "3 s down, 1 s hold, 1 s up")]
    [InlineData("2-0-X-1", "2 s down, up fast, 1 s at the top")]
    [InlineData("1.5-0-1-0", "1.5 s down, 1 s up")]
    public void A_tempo_is_said_in_words_to_those_who_do_it(string tempo, string words)
    {
        Assert.True(Tempo.TryParse(tempo, out var read));
        Assert.Equal(words, PlanWords.Said(read));

        // On a card too; the instructor's own sheet keeps the figures.
        var plan = Plan(With(Block("", $$"""
            {"dose":[{"kind":"reps","amount":8}],"options":[{"tier":"main","move":"squat","tempo":"{{tempo}}"},
              {"tier":"instead","move":"wall-sit"}]}
            """)));
        var timeline = Timing.Compiler.Compile(plan).Timeline!;
        var card = ClassCards.Of(plan, timeline, new Preferences(), new(160), new(185)).Stations[0];
        Assert.Contains(words, card.Options[0].Words, StringComparison.Ordinal);
        Assert.DoesNotContain(tempo, card.Options[0].Words, StringComparison.Ordinal);
        var station = RunSheet.Of(plan, timeline, null, new Preferences()).Blocks[0].Stations[0];
        Assert.Contains(tempo, station.Main, StringComparison.Ordinal);
        Assert.Single(station.Instead);
    }

    [Fact]
    public void An_empty_class_is_offered_a_warm_up_stations_and_a_cool_down_and_blocks_have_the_names_of_the_trade()
    {
        var starters = new Starters(Library, new Preferences()).Blocks();
        Assert.Equal(["Cool-down", "Stations", "Warm-up"], starters.Select(s => s.First).OfType<string>().Order(StringComparer.Ordinal));
        bool Finds(string word) => starters.Any(
            s => $"{s.Name} {s.Group} {s.Words} {s.Also}".Contains(word, StringComparison.OrdinalIgnoreCase));
        Assert.All(
            ["rotation", "on the minute", "ladder", "pyramid", "finisher", "every minute", "stretch", "drop set"],
            word => Assert.True(Finds(word), word));
        var pyramid = starters.Single(s => s.Name == "Pyramid");
        Assert.Empty(Evaluate(With(pyramid.Block.ToJsonString())).Faults);
    }
}
