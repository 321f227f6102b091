using CsCheck;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>
/// What is said while leading (handbook, section 3, "Calls": count-in 3, half-way, ten and five, what is next ten seconds before; common
/// practice, no source).
/// </summary>
public class CallTests
{
    private static (Timeline Timeline, Call[] Calls) Of(string text, Preferences? schools = null)
    {
        var timeline = Timeline(text);
        return (timeline, [.. LeadScript.Of(Plan(text), timeline, schools ?? new Preferences()).Calls]);
    }

    private static IEnumerable<string> Said(Call[] calls, CallKind kind) =>
        calls.Where(c => c.Kind == kind).Select(c => $"{c.At:0.###} {c.Text}");

    [Fact]
    public void Sides_hands_numbers_and_time_are_called_at_their_moment()
    {
        var text = With(Block(
            """ "betweenStations":20 """,
            """{"sides":"each","dose":[{"kind":"reps","amount":6,"tempo":"2-0-2-0"}],"options":[{"tier":"main","move":"split-squat","load":{"implement":"dumbbell","count":1,"kg":6,"position":"sides","side":"opposite"}}]}""",
            Station("""{"kind":"hold","amount":60}""", "\"name\":\"Wall\"")));
        var (_, calls) = Of(text);
        // Lead-in 10, 24 s, switch 3, 24 s, change 20, 60 s.
        Assert.Equal(["First: Split squat, 6 reps, left foot in front, dumbbell", "Next: Wall, 60 s hold"],
            calls.Where(c => c.Kind == CallKind.Next).Select(c => c.Text));
        Assert.Equal([0, 61], calls.Where(c => c.Kind == CallKind.Next).Select(c => c.At));
        var sides = calls.Where(c => c.Kind == CallKind.Side).ToArray();
        Assert.Equal(["Left foot in front, weight in the right hand", "Switch: right foot in front, weight in "
            + "the left hand"], sides.Select(s => s.Text));
        Assert.True(sides[0].Ends <= 10 && sides[1].Ends <= 37 && sides[1].At >= 30, "A side is called before its go.");
        Assert.Equal(["10 6", "14 5", "18 4", "22 3", "26 2", "30 1"], Said(calls, CallKind.Count).Take(6));
        Assert.Equal(["111 Half-way", "126 15 seconds to go", "131 10 seconds to go", "136 5 seconds to go"],
            Said(calls, CallKind.Time).TakeLast(4));
        Assert.Contains("Weight down", calls.Where(c => c.Kind == CallKind.Kit).Select(c => c.Text));
        Assert.Equal(["78 3", "79 2", "80 1"], Said(calls, CallKind.CountIn).TakeLast(3));
    }

    /// <summary>
    /// Ten seconds more of a go move what hangs on its end and nothing that hangs on its start: so much is moved by the scenes before it,
    /// so much by its own. Scenes: lead-in, work of 40 s, change, work of 40 s.
    /// </summary>
    [Fact]
    public void What_hangs_on_an_end_moves_with_it()
    {
        var go = Station("""{"kind":"time","amount":40}""");
        var text = With(Block("\"betweenStations\":20", go, go));
        var script = LeadScript.Of(Plan(text), Timeline(text), new Preferences());
        Assert.Equal(
            [
                "Count 1", "Count 1", "Count 1", "Start 1", "Warning 2", "End 2",
                "Count 3", "Count 3", "Count 3", "Start 3", "Warning 4", "Finish 4",
            ],
            script.Cues.OrderBy(c => c.At).Select(c => $"{c.Kind} {c.Shift}"));
        string Shifts(CallKind kind) => string.Join(", ", script.Calls.Where(c => c.Kind == kind).Select(c => $"{c.Text}: {c.Shift}"));
        Assert.Equal(
            "Half-way: 1, 10 seconds to go: 2, 5 seconds to go: 2, Half-way: 3, 10 seconds to go: 4, 5 seconds to go: 4",
            Shifts(CallKind.Time));
        Assert.Equal("3: 1, 2: 1, 1: 1, 3: 3, 2: 3, 1: 3", Shifts(CallKind.CountIn));
        Assert.Equal("That is the end: 4", Shifts(CallKind.End));
    }

    /// <summary>
    /// What was recorded goes by what is meant, not by the words: the side that works, not the hand that is named after it.
    /// </summary>
    [Fact]
    public void A_call_says_which_recorded_words_stand_for_it()
    {
        var (_, calls) = Of(With(Block(
            """ "betweenStations":20,"rounds":2,"betweenRounds":60,"water":true """,
            """{"sides":"each","dose":[{"kind":"reps","amount":22,"tempo":"1-0-1-0"}],"options":[{"tier":"main","move":"split-squat","load":{"implement":"dumbbell","count":1,"kg":6,"position":"sides","side":"opposite"}}]}""",
            Station("""{"kind":"hold","amount":60}""", "\"name\":\"Wall\""))));
        string Clips(Func<Call, bool> of) => string.Join(" | ", calls.Where(of).Take(2).Select(c => string.Join(" ", c.Clips)));
        Assert.Equal("left | switch right", Clips(c => c.Kind == CallKind.Side));
        Assert.Equal("next left | next", Clips(c => c.Kind == CallKind.Next));
        Assert.Equal(" | ", Clips(c => c.Text is "22" or "21"));
        Assert.Equal("10", Clips(c => c.Text == "10 reps" && c.At < 50)[..2]);
        Assert.Equal("2 | 1", Clips(c => c.Kind == CallKind.CountIn));
        Assert.Equal("half-way | half-way", Clips(c => c.Text == "Half-way"));
        Assert.Equal("ten seconds | ten seconds", Clips(c => c.Text == "10 seconds to go"));
        Assert.Equal("five seconds | five seconds", Clips(c => c.Text == "5 seconds to go"));
        Assert.Equal("", Clips(c => c.Text == "15 seconds to go" && c.At < 200));
        Assert.Equal("drink", Clips(c => c.Kind == CallKind.Drink));
        Assert.Equal("round done", Clips(c => c.Kind == CallKind.Round));
        Assert.Equal("the end", Clips(c => c.Kind == CallKind.End));
        Assert.Equal("",
            Clips(c => c.Kind is CallKind.Form or CallKind.Breath or CallKind.Tier or CallKind.Kit or CallKind.Minutes)
                .Replace(" | ", "", StringComparison.Ordinal));
        Assert.All(calls.SelectMany(c => c.Clips), clip => Assert.Contains(clip, Clip.All));
    }

    [Theory]
    [InlineData("down", "12 11 10 reps 9 8 7 6 5 4 3 2 1")]
    [InlineData("up", "1 2 3 4 5 6 7 8 9 10 reps 11 12")]
    [InlineData("last5", "5 4 3 2 1")]
    [InlineData("off", "")]
    public void Numbers_are_called_as_the_school_has_it_and_ten_says_of_what(string school, string expected)
    {
        var (_, calls) = Of(With(Block($"\"count\":\"{school}\"", Station("""{"kind":"reps","amount":12,"tempo":"2-0-1-0"}"""))));
        Assert.Equal(expected, string.Join(" ", calls.Where(c => c.Kind == CallKind.Count).Select(c => c.Text)));
        Assert.DoesNotContain(calls, c => c.Text == "10");
    }

    [Fact]
    public void A_rounds_end_says_rounds_and_minutes_a_drink_is_a_drink_and_what_is_switched_off_is_not_said()
    {
        var text = With(Block(""" "rounds":2,"betweenRounds":60,"water":true """, Station("""{"kind":"time","amount":300}""")));
        var (_, calls) = Of(text);
        Assert.Equal(["Round 1 of 2 done", "6 minutes left", "Take a drink"],
            calls.Where(c => c.Kind is CallKind.Round or CallKind.Minutes or CallKind.Drink)
                .OrderBy(c => c.Kind)
                .Select(c => c.Text)
                .OrderBy(t => "RM6T".IndexOf(t[0], StringComparison.Ordinal)));
        foreach (var kind in calls.Select(c => c.Kind).Distinct())
        {
            Assert.DoesNotContain(Of(text, new Preferences { Silent = [kind] }).Calls, c => c.Kind == kind);
        }

        Assert.DoesNotContain(calls, c => c.Kind == CallKind.Breath);
        Assert.Contains(Of(text, new Preferences { Silent = [] }).Calls, c => c.Kind == CallKind.Breath);
    }

    [Fact]
    public void Form_comes_once_a_go_in_its_last_third_and_never_the_same_twice_running()
    {
        var (timeline, calls) = Of(
            With(Block(""" "rounds":6,"betweenRounds":20 """, Station("""{"kind":"time","amount":40}""")), """ "focus":"Quiet feet", """));
        var form = calls.Where(c => c.Kind == CallKind.Form).ToArray();
        var goes = timeline.Spans.Where(s => s.Kind == SpanKind.Work).ToArray();
        Assert.Equal(goes.Length, form.Length);
        Assert.All(form.Zip(goes), pair => Assert.InRange(pair.First.At, pair.Second.End.Value - 13.4m, pair.Second.End.Value));
        Assert.All(form.Zip(form.Skip(1)), pair => Assert.NotEqual(pair.First.Text, pair.Second.Text));
        Assert.Contains(form, c => c.Text == "Quiet feet");
    }

    /// <summary>
    /// Whatever the class: nothing overlaps, every one-sided go has its side before it, what is next is said ten seconds ahead, numbers are
    /// right.
    /// </summary>
    [Fact]
    public void Calls_keep_their_rules_in_any_class() => RandomClasses.Text.Sample(Keeps, iter: 300);

    [Fact]
    public void Calls_keep_their_rules_in_every_ready_block()
    {
        foreach (var starter in Ready.Blocks())
        {
            Keeps(With(starter.Block.ToString()));
        }
    }

    private static void Keeps(string text)
    {
        var (plan, (timeline, calls)) = (Plan(text), Of(text));
        Assert.All(calls.Zip(calls.Skip(1)), pair => Assert.True(pair.First.Ends <= pair.Second.At, $"“{pair.First.Text}” and "
            + $"“{pair.Second.Text}” overlap."));
        Assert.All(calls, c => Assert.Equal(c.Text.Split(' ').Length * 0.4m, c.Seconds));
        var (sided, told, starts, announced) = (0, 0, 0, 0);
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            var span = timeline.Spans[i];
            if (span.Kind != SpanKind.Work)
            {
                continue;
            }

            if (span.Side is Side.Left or Side.Right && span.Start.Value > 4)
            {
                sided++;
                var word = span.Side == Side.Left ? "left" : "right";
                told += calls.Any(
                    c => c.Kind == CallKind.Side
                        && c.Scene == i
                        && c.Ends <= span.Start.Value
                        && c.Text.Contains(word, StringComparison.OrdinalIgnoreCase))
                    ? 1
                    : 0;
            }

            var before = timeline.Spans[..i].LastOrDefault(s => s.Kind == SpanKind.Work);
            if (before is null ? span.Start.Value >= 10 : span.Start - before.Start >= new Seconds(20)
                && (before.Station, before.Round, before.Part) != (span.Station, span.Round, span.Part))
            {
                starts++;
                announced += calls.Any(c => c.Kind == CallKind.Next && c.Scene == i && c.At <= span.Start.Value - 10) ? 1 : 0;
            }

            if (span.Station is { } s && plan.Blocks[span.Block].Stations[s].Dose[span.Part!.Value] is { Kind: PartKind.Reps } part)
            {
                var down = plan.Blocks[span.Block].CountAt(plan.Blocks[span.Block].Stations[s]) != Counting.Up;
                foreach (var call in calls.Where(c => c.Kind == CallKind.Count && c.Scene == i))
                {
                    var rep = (call.At - span.Start.Value) / part.RepSeconds;
                    Assert.Equal(Math.Round(rep, 6), Math.Round(rep));
                    Assert.Equal(call.Text.Split(' ')[0], $"{(down ? span.Amount - (int)Math.Round(rep) : (int)Math.Round(rep) + 1)}");
                }
            }
        }

        Assert.Equal((sided, starts), (told, announced));
    }
}
