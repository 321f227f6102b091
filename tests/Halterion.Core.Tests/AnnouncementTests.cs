using CsCheck;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;
using Halterion.Core.Words;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>How a class is announced, how its title stands to the clock, and how its seconds are accounted for.</summary>
public class AnnouncementTests
{
    private static readonly string Work = Station("""{"kind":"time","amount":60}""");

    [Fact]
    public void A_class_is_announced_by_what_it_adds_up_to()
    {
        string Of(string text) => Announcement.Of(Plan(text), Compiler.Compile(Plan(text)).Timeline!);
        var main = Block(""" "leadInSeconds":0,"rounds":3 """, Work);
        Assert.Equal("One move, three rounds, 3 minutes.", Of(With(main)));
        var warm = main.Replace("\"phase\":\"main\"", "\"phase\":\"warmup\"", StringComparison.Ordinal);
        Assert.Equal("One move, three rounds, 3 minutes, plus a warm-up.", Of(With($"{warm},{main}")));
        Assert.Equal("One move, two parts, 6 minutes.", Of(With($"{main},{main}")));
        Assert.Equal("", Of(With(warm)));
    }

    [Theory]
    [InlineData("Legs in 3 minutes", "")]
    [InlineData("45 min of legs", "The title says 45 minutes, but the class takes 3 min (booked: 60 min).")]
    [InlineData("60-minute legs", "")]
    [InlineData("Legs 101", "")]
    public void A_title_is_held_against_the_clock(string title, string note)
    {
        var text = With(Block(""" "leadInSeconds":0,"rounds":3 """, Work));
        var plan = Plan(text) with { Title = title };
        Assert.Equal(note, Announcement.TitleAgainstClock(plan, Compiler.Compile(plan).Timeline!));
    }

    [Fact]
    public void Every_second_of_a_block_is_accounted_for() => RandomClasses.Text.Sample(
        text =>
        {
            if (new Evaluator(Library, new Preferences()).Evaluate(text).Evaluation is not { } evaluation)
            {
                return;
            }

            Assert.All(evaluation.Outline, block =>
            {
                Assert.Equal((block.End - block.Start).Value, block.Accounts.Sum(a => a.Seconds.Value));
                Assert.InRange(block.Before.Value, 0, (block.End - block.Start).Value);
                Assert.All(block.Stations, s => Assert.InRange(s.Before.Value, 0, (block.End - block.Start).Value));
            });
        },
        iter: 150);

    [Fact]
    public void The_small_tape_shows_work_by_family_and_nothing_of_a_class_with_faults()
    {
        var text = With(Block("", Work));
        var svg = TapePicture.Of(Plan(text), Compiler.Compile(Plan(text)).Timeline);
        Assert.Contains("viewBox=\"0 0 3600 30\"", svg, StringComparison.Ordinal);
        Assert.Contains("x=\"10\" y=\"3\" width=\"60\"", svg, StringComparison.Ordinal);
        Assert.DoesNotContain("rect", TapePicture.Of(null, null), StringComparison.Ordinal);
    }
}
