using System.Text;
using System.Text.Json;
using CsCheck;
using Halterion.Core.Checks;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

public class CheckTests
{
    [Theory]
    [InlineData(600, "on time")]
    [InlineData(670, "70 s over")]
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

    /// <summary>Every way out that is offered for an overrun ends in time, and touches no protected block.</summary>
    [Fact]
    public void Every_trim_ends_on_time() =>
        Gen.Select(RandomClasses.Text, Gen.Double[0.6, 0.99]).Sample((text, share) =>
        {
            var plan = Json(text);
            plan["blocks"]![0]!["keep"] = "protected";
            plan["slotMinutes"] = Math.Clamp((int)(Good(text).Totals.Seconds.Value * share / 60), 5, 180);
            var slot = (int)plan["slotMinutes"]! * 60;
            var kept = plan["blocks"]![0]!.ToJsonString();
            using var parsed = JsonDocument.Parse(plan.ToJsonString());
            foreach (var finding in Good(plan.ToJsonString()).Findings.Where(f => f.Code == "time.over"))
            {
                for (var i = 0; i < finding.Repairs.Length; i++)
                {
                    var mended = Evaluator.Mend(parsed.RootElement, finding.Key, i, Library)!;
                    Assert.True(Good(mended.ToJsonString()).Totals.Seconds.Value <= slot, finding.Repairs[i].Title);
                    Assert.Equal(kept, mended["blocks"]![0]!.ToJsonString());
                }
            }
        });

    [Fact]
    public void The_trim_that_takes_least_comes_first()
    {
        // 3 rounds of 167 s with two rests of 60 s, 21 s over. Goes 5 s shorter cost 2·5/100; rests 15 s shorter 30/120; a round 3/3.
        var text = With(Block(""" "leadInSeconds":0,"rounds":3,"betweenRounds":60 """, Station("""{"kind":"time","amount":100}"""), Station("""{"kind":"time","amount":67}""")))
            .Replace("\"slotMinutes\":60", "\"slotMinutes\":10", StringComparison.Ordinal);
        var over = Assert.Single(Good(text).Findings, f => f.Code == "time.over");
        Assert.Equal("The class ends 21 s late.", over.What);
        Assert.Equal(
            ["Every go in “Block” 5 s shorter", "Rest between rounds in “Block”: 60 s → 45 s", "One round less of “Block”"],
            over.Repairs.Select(r => r.Title));
    }

    [Theory]
    [InlineData(""" "format":"rotation","windowSeconds":40,"rounds":2 """)]
    [InlineData(""" "startEverySeconds":40 """)]
    public void A_target_that_does_not_fit_is_found_and_each_way_out_makes_it_fit(string timing)
    {
        var text = With(Block(timing, Station("""{"kind":"reps","amount":15,"tempo":"2-0-1-0"}""", """ "sides":"each" """)));
        var finding = Assert.Single(Good(text).Findings, f => f.Code == "time.target");
        Assert.Equal("Bodyweight squat: 15 reps each side takes 93 s; the bell rings after 40 s.", finding.What.Replace("1 min 33 s", "93 s", StringComparison.Ordinal));
        using var parsed = JsonDocument.Parse(text);
        for (var i = 0; i < 2; i++)
        {
            var mended = Evaluator.Mend(parsed.RootElement, finding.Key, i, Library)!.ToJsonString();
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
        using var parsed = JsonDocument.Parse(text);
        var mended = Evaluator.Mend(parsed.RootElement, finding.Key, 0, Library)!;
        Assert.DoesNotContain(Good(mended.ToJsonString()).Findings, f => f.Code == "options.missing");
        Assert.Null(Evaluator.Mend(JsonElement.Parse(Encoding.UTF8.GetBytes(mended.ToJsonString())), finding.Key, 0, Library));
    }

    private static string Talk(int seconds) =>
        With($$"""{"name":"Talk","phase":"talk","format":"talk","seconds":{{seconds}}}""").Replace("\"slotMinutes\":60", "\"slotMinutes\":10", StringComparison.Ordinal);
}
