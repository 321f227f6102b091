using System.Text;
using System.Text.Json;
using Halterion.Core.Plans;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

public class CheckTests
{
    [Theory]
    [InlineData(600, "on time")]
    [InlineData(670, "1 min 10 s over")]
    [InlineData(555, "45 s to spare")]
    [InlineData(810, "3 min 30 s over")]
    public void The_verdict_is_said_in_words(int seconds, string words) =>
        Assert.Equal(words, Good(Talk(seconds)).Verdict);

    [Fact]
    public void A_class_that_ends_on_time_or_a_little_early_is_no_finding()
    {
        Assert.Empty(Good(Talk(600)).Findings);
        Assert.Empty(Good(Talk(540)).Findings);
        Assert.Equal("time.under", Assert.Single(Good(Talk(539)).Findings).Code);
        Assert.Equal("time.over", Assert.Single(Good(Talk(601)).Findings).Code);
    }

    [Fact]
    public void A_waived_finding_stands_last_and_says_why()
    {
        var waiver = """ "waivers":[{"code":"options.missing","place":"/blocks/0/stations/0","reason":"all on one level tonight"}], """;
        var text = With(Block("", Station("""{"kind":"time","amount":30}"""), Station("""{"kind":"time","amount":30}""")), waiver);
        var findings = Good(text).Findings;
        Assert.Equal("all on one level tonight", findings[^1].Waived);
        Assert.Equal("/blocks/0/stations/0", findings[^1].Pointer);
        Assert.Single(findings, f => f.Waived is not null);
    }

    [Theory]
    [InlineData(""" "format":"rotation","windowSeconds":40,"rounds":2 """)]
    [InlineData(""" "startEverySeconds":40 """)]
    public void A_target_that_does_not_fit_is_found_and_each_way_out_makes_it_fit(string timing)
    {
        var text = With(Block(timing, Station("""{"kind":"reps","amount":15,"tempo":"2-0-1-0"}""", """ "sides":"each" """)));
        var finding = Assert.Single(Good(text).Findings, f => f.Code == "time.target");
        Assert.Equal(
            "Bodyweight squat: 15 reps each side takes 93 s, but the bell rings after 40 s.",
            finding.What.Replace("1 min 33 s", "93 s", StringComparison.Ordinal));
        for (var i = 0; i < 2; i++)
        {
            var mended = Mended(text, finding.Key, i)!;
            Assert.DoesNotContain(Good(mended).Findings, f => f.Code == "time.target");
        }

        // 6 reps each side take 18 + 3 + 18 = 39 s; 7 would take 45.
        Assert.Equal("15 reps → 6 reps", finding.Repairs[0].Title);
    }

    [Fact]
    public void A_station_without_an_option_gets_one_from_the_ladder()
    {
        var text = With(Block("", Station("""{"kind":"time","amount":30}""")));
        var finding = Assert.Single(Good(text).Findings, f => f.Code == "options.missing");
        var mended = Mended(text, finding.Key)!;
        Assert.DoesNotContain(Good(mended).Findings, f => f.Code == "options.missing");
        Assert.Null(Mended(mended, finding.Key));
    }

    private static string Talk(int seconds) =>
        With($$"""{"name":"Talk","phase":"talk","format":"talk","seconds":{{seconds}}}""")
            .Replace("\"slotMinutes\":60", "\"slotMinutes\":10", StringComparison.Ordinal);
}
