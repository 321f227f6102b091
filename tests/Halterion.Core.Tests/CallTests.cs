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
        Assert.Equal(["First: Split squat, 6 reps", "Next: Wall, 60 seconds held"],
            calls.Where(c => c.Kind == CallKind.Next).Select(c => c.Text));
        Assert.Equal([0, 69], calls.Where(c => c.Kind == CallKind.Next).Select(c => c.At));
        var sides = calls.Where(c => c.Kind == CallKind.Side).ToArray();
        Assert.Equal(["Left foot in front, weight in your right hand", "Switch: right foot in front, weight left"],
            sides.Select(s => s.Text));
        Assert.True(sides[0].Ends <= 10 && sides[1].Ends <= 37 && sides[1].At >= 30, "A side is called before its go.");
        Assert.Equal(["10 6 reps", "14 5", "18 4", "22 3", "26 2", "30 1"], Said(calls, CallKind.Count).Take(6));
        Assert.Equal(["111 Halfway", "126 15 seconds to go", "136 5 seconds", "137 4", "138 3", "139 2", "140 1"],
            Said(calls, CallKind.Time).TakeLast(7));
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
            "Halfway: 1, 10 seconds to go: 2, 5 seconds to go: 2, Halfway: 3, 10 seconds to go: 4, 5 seconds to go: 4",
            Shifts(CallKind.Time));
        Assert.Equal("3: 1, 2: 1, 1: 1, 3: 3, 2: 3, 1: 3", Shifts(CallKind.CountIn));
        Assert.Equal("That’s it, well done: 4", Shifts(CallKind.End));
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
        Assert.Equal(" | ", Clips(c => c.Text == "22 reps"));
        Assert.Equal("10 | 10", Clips(c => c.Text == "10" && c.Kind == CallKind.Count));
        Assert.Equal("3 | 2", Clips(c => c.Kind == CallKind.CountIn));
        Assert.Equal("half-way | half-way", Clips(c => c.Text == "Halfway"));
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
    [InlineData("down", "12 reps 11 10 9 8 7 6 5 4 3 2 1")]
    [InlineData("up", "1 rep 2 3 4 5 6 7 8 9 10 11 12")]
    [InlineData("last5", "5 reps 4 3 2 1")]
    [InlineData("off", "")]
    public void Numbers_are_called_as_the_school_has_it_and_the_first_says_of_what(string school, string expected)
    {
        var (_, calls) = Of(
            With(Block($"\"count\":\"{school}\"", Station("""{"kind":"reps","amount":12,"tempo":"2-0-1-0"}"""))),
            new Preferences { Silent = [CallKind.Form, CallKind.Breath] });
        Assert.Equal(expected, string.Join(" ", calls.Where(c => c.Kind == CallKind.Count).Select(c => c.Text)));
    }

    [Fact]
    public void A_rounds_end_says_rounds_and_minutes_a_drink_is_a_drink_and_what_is_switched_off_is_not_said()
    {
        var text = With(Block(""" "rounds":2,"betweenRounds":60,"water":true """, Station("""{"kind":"time","amount":300}""")));
        var (_, calls) = Of(text);
        Assert.Equal(["Rest, 60 seconds", "Take a drink", "Last round", "6 minutes left"],
            calls.Where(c => c.Kind is CallKind.Round or CallKind.Minutes or CallKind.Drink or CallKind.Rest).Select(c => c.Text));
        foreach (var kind in calls.Select(c => c.Kind).Distinct())
        {
            Assert.DoesNotContain(Of(text, new Preferences { Silent = [kind] }).Calls, c => c.Kind == kind);
        }

        Assert.DoesNotContain(calls, c => c.Kind == CallKind.Breath);
        Assert.Contains(Of(text, new Preferences { Silent = [] }).Calls, c => c.Kind == CallKind.Breath);
    }

    /// <summary>One cue in a go, begun in its middle third; the focus every third time; a fault's sentence in the second round.</summary>
    [Fact]
    public void Form_comes_once_a_go_in_its_middle_third_and_never_the_same_twice_running()
    {
        var (timeline, calls) = Of(
            With(Block(""" "rounds":6,"betweenRounds":20 """, Station("""{"kind":"time","amount":40}""")), """ "focus":"Quiet feet", """));
        var form = calls.Where(c => c.Kind == CallKind.Form).ToArray();
        var goes = timeline.Spans.Where(s => s.Kind == SpanKind.Work).ToArray();
        Assert.Equal(goes.Length, form.Length);
        Assert.All(form.Zip(goes), pair => Assert.InRange(pair.First.At, pair.Second.Start.Value + 13.3m, pair.Second.End.Value - 13.3m));
        Assert.All(form.Zip(form.Skip(1)), pair => Assert.NotEqual(pair.First.Text, pair.Second.Text));
        Assert.Equal([2, 5], form.Select((c, i) => (c, i)).Where(f => f.c.Text == "Quiet feet").Select(f => f.i));
        Assert.StartsWith("If ", form[1].Text, StringComparison.Ordinal);
        var fixes = Library.Find(new MoveId("squat"))!.Faults.Select(f => f.Fix.TrimEnd('.'));
        Assert.Empty(form.Select(c => c.Text).Intersect(fixes));
    }

    /// <summary>Quick reps: the first, every fifth, the last five; of forty and more every tenth, the half, the last five.</summary>
    [Theory]
    [InlineData(22, "22 reps 20 15 10 5 4 3 2 1")]
    [InlineData(45, "40 reps 30 23 20 10 5 4 3 2 1")]
    public void Quick_reps_are_not_counted_each(int reps, string expected)
    {
        var (_, calls) = Of(
            With(Block("", Station($$"""{"kind":"reps","amount":{{reps}},"tempo":"1-0-0.5-0"}"""))),
            new Preferences { Silent = [CallKind.Form, CallKind.Breath, CallKind.Care] });
        Assert.Equal(expected, string.Join(" ", calls.Where(c => c.Kind == CallKind.Count).Select(c => c.Text)));
        Assert.DoesNotContain(calls, c => c.Kind == CallKind.Time);
    }

    /// <summary>The hand is where the load says: at the shoulder in a rack, nothing at the chest; both where nothing is said.</summary>
    [Theory]
    [InlineData("""{"implement":"kettlebell","count":1,"kg":8,"position":"low","side":"opposite"}""", "weight in your right hand")]
    [InlineData("""{"implement":"kettlebell","count":1,"kg":8,"position":"rack","side":"same"}""", "at your left shoulder")]
    [InlineData("""{"implement":"kettlebell","count":1,"kg":8,"position":"hips","side":"same"}""", "on your left hip")]
    [InlineData("""{"implement":"kettlebell","count":1,"kg":8,"position":"goblet","side":"same"}""", "")]
    [InlineData("""{"implement":"kettlebell","count":1,"kg":8,"position":"low"}""", "")]
    public void The_hand_is_said_with_the_side(string load, string hand)
    {
        var (_, calls) = Of(With(Block(
            """ "leadInSeconds":30 """,
            $$"""{"sides":"each","dose":[{"kind":"reps","amount":6,"tempo":"2-0-2-0"}],"options":[{"tier":"main","move":"split-squat","load":{{load}}}]}""")));
        Assert.Equal(
            hand.Length == 0 ? "Left foot in front" : $"Left foot in front, {hand}", calls.First(c => c.Kind == CallKind.Side).Text);
    }

    /// <summary>A hold that follows at once is no station of its own; in a string the second side is not announced.</summary>
    [Fact]
    public void What_goes_on_is_not_called_next()
    {
        var (_, calls) = Of(With(Block(
            "",
            """{"dose":[{"kind":"reps","amount":8,"tempo":"2-0-2-0"},{"kind":"hold","amount":20},{"kind":"pulses","amount":10}],"options":[{"tier":"main","move":"squat"}]}""")));
        Assert.Equal(
            ["First: Bodyweight squat, 8 reps", "Hold it, 20 seconds", "10 pulses"],
            calls.Where(c => c.Kind == CallKind.Next || c.Text.EndsWith("pulses", StringComparison.Ordinal)).Select(c => c.Text));
        var each = """{"sides":"each","withNext":true,"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"split-squat"}]}""";
        var (_, tied) = Of(With(Block(
            """ "betweenStations":12 """, each, each.Replace("\"withNext\":true,", "", StringComparison.Ordinal).Replace("split-squat", "side-lunge", StringComparison.Ordinal))));
        Assert.Equal(2, tied.Count(c => c.Kind == CallKind.Next));
        Assert.Contains(tied, c => c.Kind == CallKind.Side && c.Text == "Switch: right foot in front");
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
        var bells = BellsOf(timeline).ToArray();
        Assert.All(calls.Where(c => !IsNumber(c) && c.Kind != CallKind.End), c =>
            Assert.DoesNotContain(bells, b => b > c.At && (b - c.At < 0.4m || b < c.Ends)));
        Assert.All(calls.Zip(calls.Skip(1)).Where(p => IsNumber(p.Second) && !IsNumber(p.First)), p =>
            Assert.True(p.Second.At - p.First.Ends >= 0.4m, $"“{p.Second.Text}” follows “{p.First.Text}”."));
        foreach (var talk in timeline.Spans.Where(s => s.Kind == SpanKind.Talk))
        {
            Assert.All(calls.Where(c => c.At < talk.End.Value && c.Ends > talk.Start.Value), c =>
                Assert.True(c.Kind is CallKind.Next or CallKind.Side or CallKind.Kit or CallKind.CountIn or CallKind.End, c.Text));
        }

        Assert.All(calls.Where(c => c.Kind == CallKind.Form).Zip(calls.Where(c => c.Kind == CallKind.Form).Skip(1)),
            pair => Assert.NotEqual(pair.First.Text, pair.Second.Text));
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            if (timeline.Spans[i] is { Kind: SpanKind.Work } span)
            {
                Counted(plan, span, [.. calls.Where(c => c.Kind == CallKind.Count && c.Scene == i)]);
                SideIsTold(timeline, i, calls);
            }
        }
    }

    private static bool IsNumber(Call call) => call.Kind is CallKind.Count or CallKind.CountIn
        || (call.Kind == CallKind.Time && char.IsAsciiDigit(call.Text[0]) && call.Text.Split(' ').Length <= 2
            && !call.Text.Contains("left"));

    /// <summary>leading.md, 9: where work begins after, or ends before, what is not work, and between two stations.</summary>
    private static IEnumerable<decimal> BellsOf(Timeline timeline)
    {
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            var (now, before) = (timeline.Spans[i], i == 0 ? null : timeline.Spans[i - 1]);
            var (works, worked) = (now.Kind == SpanKind.Work, before?.Kind == SpanKind.Work);
            if (works != worked || (works && (now.Block, now.Station, now.Leg) != (before!.Block, before.Station, before.Leg)))
            {
                yield return now.Start.Value;
            }
        }
    }

    /// <summary>A number stands at its rep and says how many are left, or done; the first of a go alone says of what.</summary>
    private static void Counted(ClassPlan plan, Span span, Call[] numbers)
    {
        if (span.Station is not { } s || plan.Blocks[span.Block].Stations[s] is not { } station
            || station.Dose[span.Part!.Value] is not { Kind: PartKind.Reps } part)
        {
            return;
        }

        var up = plan.Blocks[span.Block].CountAt(station) == Counting.Up;
        foreach (var call in numbers)
        {
            var number = int.Parse(call.Text.Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture);
            var rep = up ? number : span.Amount!.Value - number;
            Assert.Equal(span.Start.Value + (rep * part.RepSeconds), call.At);
            Assert.True(span.Start.Value + ((up ? rep : rep + 1) * part.RepSeconds) <= span.End.Value,
                "A rep that the bell cuts is counted.");
        }
    }

    /// <summary>Before each one-sided go that does not simply go on, its side is named: by itself, or by what is next.</summary>
    private static void SideIsTold(Timeline timeline, int i, Call[] calls)
    {
        var span = timeline.Spans[i];
        var before = timeline.Spans[..i].LastOrDefault(s => s.Kind == SpanKind.Work);
        if (span.Side is not (Side.Left or Side.Right) || span.Start.Value - (before?.Start.Value ?? 0) < 6)
        {
            return;
        }

        if (before is not null && before.End == span.Start && before.Station == span.Station && before.Side == span.Side)
        {
            return;
        }

        var word = span.Side == Side.Left ? "left" : "right";
        Assert.Contains(calls, c => c.Scene == i && c.Kind is CallKind.Side or CallKind.Next && c.Ends <= span.Start.Value
            && c.Text.Contains(word, StringComparison.OrdinalIgnoreCase));
    }

    /// <summary>
    /// All there is in one class, as the browser's tests lead it: after a part with a label in between, and from the last part of one
    /// side to the first of the other, nothing breaks and nothing is announced that goes on.
    /// </summary>
    [Fact]
    public void A_class_with_every_phase_is_called_as_it_would_be_said()
    {
        var text = File.ReadAllText(LeadTests.Beside("every-phase.json"));
        Keeps(text);
        var (timeline, calls) = Of(text);
        Assert.DoesNotContain(calls, c => c.Kind == CallKind.Next && c.Text.Contains("right foot", StringComparison.Ordinal));
        Assert.Equal(2, calls.Count(c => c.Text == "Switch: right foot in front, weight left"));
        Assert.Contains(calls, c => c.Text == "Down to 12 kilos");
        // Ten seconds, a weight to change and the next move: each is said, and each first number has its unit.
        Assert.Contains(calls, c => c.Kind == CallKind.Next && c.Text.StartsWith("Next: Goblet squat, 8 reps", StringComparison.Ordinal));
        foreach (var work in timeline.Spans.Where(s => s.Kind == SpanKind.Work))
        {
            var first = calls.FirstOrDefault(c => c.Kind == CallKind.Count && c.At >= work.Start.Value && c.At < work.End.Value);
            Assert.True(first is null || first.Text.Contains(' ', StringComparison.Ordinal),
                $"“{first?.Text}” at {first?.At} has no unit.");
        }
    }

    /// <summary>An option that differs in one part alone is told when that part begins (leading.md, "Calls", 5).</summary>
    [Fact]
    public void Options_of_a_part_are_told_when_it_begins()
    {
        var (_, calls) = Of(With(Block(
            "",
            """
            {"dose":[{"kind":"time","amount":30},{"kind":"time","amount":30,"move":"wide-squat"}],
             "options":[{"tier":"main","move":"squat"},
                        {"tier":"easier","move":"squat","support":"wall","parts":{"2":{"move":"wide-squat","depth":"half"}}}]}
            """)));
        var told = calls.Where(c => c.Kind == CallKind.Tier).ToArray();
        Assert.Equal(2, told.Length);
        Assert.Contains("wall", told[0].Text, StringComparison.Ordinal);
        Assert.Contains("half", told[1].Text, StringComparison.Ordinal);
        Assert.True(told[0].Ends <= 10 && told[1].At >= 40 && told[1].Ends <= 50, "An option is told at another moment.");
    }
}
