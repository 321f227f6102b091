using System.Collections.Immutable;
using CsCheck;
using Halterion.Core.Leading;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;
using Halterion.Core.Timing.Refitting;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>A class that runs late is brought home at the lowest cost, and what is past, under way or protected stays.</summary>
public class RefitTests
{
    private static readonly FitTerms Terms = new();

    private static RefitResult Of(string text, int position, int remaining, FitTerms? terms = null)
    {
        var (plan, timeline) = (Plan(text), Timeline(text));
        return Refit.Of(plan, timeline, ClassUnderWay.At(timeline, new Seconds(position)), new Seconds(remaining), terms ?? Terms);
    }

    private const string TwoGoes = """{"kind":"time","amount":40}""";

    [Fact]
    public void A_worked_refit()
    {
        // Three rounds of two goes of 40 s, 60 s between rounds, then a protected stretch of 300 s: 3·80 + 2·60 + 300 = 660 s.
        var text = With(string.Join(",",
            Block(""" "leadInSeconds":0,"rounds":3,"betweenRounds":60 """, Station(TwoGoes, "\"name\":\"A\""),
                Station(TwoGoes, "\"name\":\"B\"")),
            """{"name":"Down","phase":"cooldown","format":"talk","seconds":300}"""));

        // At 20 s 640 s are left. 30 s less: both rests 60 → 45 (25 %, and 5 a change: 30), or goes 40 → 35 of B now and both in two
        // rounds (13 %, twice, and 5: 31, but it saves 25 only) with a rest of 60 → 55 (9 % and 5): dearer.
        var way = Of(text, 20, 610).Ways[0];
        Assert.Equal(("Shorter rests", 30, 610), (way.Title, way.Cost, way.EndsInSeconds.Value));
        Assert.Equal("Block: rest 60 s → 45 s", Assert.Single(way.Changes));
        Assert.Equal([20, 40, 45, 40, 40, 45, 40, 40, 300], way.Spans.Select(s => s.Length().Value));

        // 30 s into the first rest (at 110 s) 550 s are left. With 70 s less the rests give what is left of the first, and 40 of the
        // second.
        var late = Of(text, 110, 480).Ways.First(w => w.Title == "Shorter rests");
        Assert.Equal([40, 40, 20], late.Spans.Take(3).Select(s => s.Length().Value));
        Assert.Equal(480, late.EndsInSeconds.Value);

        // Nothing late, and far too late.
        Assert.Equal(("No change", 0, 640), Of(text, 20, 640).Ways.Select(w => (w.Title, w.Cost, w.EndsInSeconds.Value)).Single());
        var never = Of(text, 20, 100);
        // Rests to 15, the five goes that have not begun to 30: 20 + 5·30 + 2·15 + 300 = 500.
        Assert.Equal((500, 400), (Assert.Single(never.Ways).EndsInSeconds.Value, never.ShortBy.Value));
        Assert.EndsWith("is kept in full", never.Obstacles[0].Limit, StringComparison.Ordinal);
    }

    [Fact]
    public void A_water_rest_stays_a_drink_a_dropped_block_goes_whole_and_sides_go_in_pairs()
    {
        var drink = With(
            Block(""" "leadInSeconds":0,"rounds":2,"betweenRounds":60,"water":true """,
                Station("""{"kind":"reps","amount":10,"tempo":"1-0-1-0"}""")));
        Assert.Equal([20, 30, 20], Of(drink, 0, 1).Ways[0].Spans.Select(s => s.Length().Value));

        string Two(string keep) => With(string.Join(",",
            Block(""" "leadInSeconds":0 """, Station(TwoGoes)),
            Block($""" "leadInSeconds":0,"keep":"{keep}" """, Station("""{"kind":"reps","amount":10,"tempo":"1-0-1-0"}"""))));
        // 5 a change and 100 × the weight of a round.
        Assert.Equal((305, 39), Of(Two("droppable"), 1, 49).Ways.Select(w => (w.Cost, w.EndsInSeconds.Value)).Single());
        Assert.Equal(10, Of(Two("normal"), 1, 49).ShortBy.Value);
        Assert.Equal(1, Of(Two("droppable"), 45, 14).ShortBy.Value);

        string Alternate(int optional) => With(Block(
            $""" "leadInSeconds":0,"rounds":4,"sidePass":"alternate","optionalRounds":{optional} """, Station(
                """{"kind":"reps","amount":10,"tempo":"1-0-1-0"}""")));
        Assert.Equal(80, Of(Alternate(1), 0, 1).Ways[0].EndsInSeconds.Value);
        Assert.Equal(40, Of(Alternate(3), 0, 1).Ways[0].EndsInSeconds.Value);
    }

    [Fact]
    public void What_was_changed_on_the_way_is_where_the_next_change_begins()
    {
        var text = With(Block(""" "leadInSeconds":0,"rounds":3,"betweenRounds":60 """, Station(TwoGoes)));
        var (plan, timeline) = (Plan(text), Timeline(text));
        var now = new ClassUnderWay([40, 45, 40, 45, 40], 0, new Seconds(10));
        var way = Refit.Of(plan, timeline, now, now.Left - new Seconds(20), Terms).Ways[0];
        // 45 → 35 of 60: 17 % and 5.
        Assert.Equal(("Block: rest 45 s → 35 s", 22), (Assert.Single(way.Changes), way.Cost));
        Assert.Equal([new NewLength(1, 35), new NewLength(3, 35)], way.Lengths);
    }

    /// <summary>Before the class has begun its welcome is as ahead as anything: 120 s of talk may be 15.</summary>
    [Fact]
    public void Before_the_start_nothing_is_under_way()
    {
        var text = With("""{"name":"Welcome","format":"talk","phase":"talk","seconds":120},""" + Block(
            """ "leadInSeconds":0 """, Station("""{"kind":"reps","amount":10,"tempo":"1-0-1-0"}""")));
        Assert.Equal((35, 0), Of(text, 0, 35).Ways.Select(w => (w.EndsInSeconds.Value, w.Spans[0].Start.Value)).First());
        // Once it runs it is what it is.
        Assert.Equal(139, Of(text, 1, 35).Ways[0].EndsInSeconds.Value);
        var (plan, timeline) = (Plan(text), Timeline(text));
        var ready = LeadFold.Fold([], [.. timeline.Spans.Select(s => new SceneTime(s.End, s.Gated))]);
        var ways = WaysBack.Of(plan, timeline, [.. timeline.Spans.Select(s => new SceneTime(s.End, s.Gated))], ready, 720_000, 140_000
            + 630_000, Terms)!;
        Assert.Equal((90, "1 min 30 s late", 0), (ways.LateSeconds.Value, ways.Words, ways.ShortBy.Value));
    }

    [Fact]
    public void Windows_that_differ_by_round_each_lose_a_third_at_most()
    {
        var text = With(Block(
            """ "leadInSeconds":0,"format":"rotation","rounds":3,"windowSeconds":[117,60,36],"betweenStations":0 """,
            Station("""{"kind":"time","amount":10}"""), Station("""{"kind":"time","amount":10}""")));
        var lengths = Of(text, 0, 1).Ways[0].Spans.Where(s => s.Kind == SpanKind.Work).Select(s => s.Length().Value).Distinct();
        Assert.Equal([82, 45, 26], lengths);
        Assert.Equal("Block: work interval 117, 60, 36 s → 82, 45, 26 s", Assert.Single(Of(text, 0, 1).Ways[0].Changes));
    }

    [Fact]
    public void Halves_of_a_split_lose_the_same()
    {
        var text = With(Block(""" "leadInSeconds":0,"rounds":3 """, Station("""{"kind":"time","amount":60}""", "\"sides\":\"split\"")));
        foreach (var remaining in Enumerable.Range(100, 90))
        {
            foreach (var way in Of(text, 0, remaining).Ways)
            {
                var sides = way.Spans.Where(s => s.Kind == SpanKind.Work).GroupBy(s => s.Side).Select(g => g.Sum(s => s.Length()
                    .Value)).ToArray();
                Assert.Equal(sides[0], sides[1]);
            }
        }
    }

    [Fact]
    public void What_stands_in_the_way_is_named_also_where_it_starts_on_the_minute()
    {
        var text = With(Block(
            """ "leadInSeconds":0,"startEverySeconds":60,"rounds":5,"name":"On the minute" """,
            Station("""{"kind":"reps","amount":10,"tempo":"1-0-1-0"}""")).Replace("\"name\":\"Block\",", "", StringComparison.Ordinal));
        var obstacles = Of(text, 61, 60).Obstacles;
        Assert.Contains(obstacles, o => o.Limit == "The timed starts of On the minute" && o.Seconds > Seconds.Zero);
    }

    private static readonly Gen<(string Text, int Position, double Share)> Case =
        Gen.Select(RandomClasses.Text, Gen.Int[0, 9], Gen.Int[0, 3], Gen.Double[0, 1],
            Gen.Double[0.5, 1.05]).Select((text, keeps, optional, at, share) =>
        {
            var file = Json(text);
            foreach (var block in file["blocks"]!.AsArray().Select((b, i) => (Node: b!.AsObject(), Index: i)))
            {
                block.Node["keep"] = ((keeps + block.Index) % 3) switch { 0 => "protected", 1 => "droppable", _ => "normal" };
                if (block.Node["rounds"]?.GetValue<int>() > optional && block.Node["order"]?.GetValue<string>() != "ownPace")
                {
                    block.Node["optionalRounds"] = optional;
                }
            }

            var whole = file.ToJsonString();
            return (whole, (int)(Good(whole).Totals.Seconds.Value * at), share);
        });

    [Fact]
    public void Past_protected_and_sides_stay_and_what_is_promised_is_kept() => Case.Sample(which =>
    {
        var (plan, timeline) = (Plan(which.Text), Timeline(which.Text));
        var now = ClassUnderWay.At(timeline, new Seconds(which.Position));
        var remaining = new Seconds((int)(now.Left.Value * which.Share));
        var result = Refit.Of(plan, timeline, now, remaining, Terms);
        Assert.InRange(result.Ways.Length, 1, 3);
        Assert.Equal(result.Ways.Length, result.Ways.Select(w => string.Join(";", w.Changes)).Distinct().Count());
        foreach (var way in result.Ways)
        {
            Assert.Equal(way.EndsInSeconds.Value, way.Spans.Sum(s => s.Length().Value));
            Assert.Equal(result.ShortBy.Value, Math.Max(0, way.EndsInSeconds.Value - remaining.Value));
            var lengths = timeline.Spans.Select(s => s.Length().Value).ToArray();
            foreach (var (span, seconds) in way.Lengths)
            {
                Assert.True(seconds >= 0 && seconds < lengths[span], $"Span {span} became {seconds} s.");
                Assert.True(span >= now.UnderWay, "The past was changed.");
                Assert.NotEqual(Keep.Protected, plan.Blocks[timeline.Spans[span].Block].Keep);
                Assert.True(span > now.UnderWay || timeline.Spans[span].Kind == SpanKind.Rest, "What is under way was changed.");
                Assert.True(!timeline.Spans[span].IsInsideDose || seconds == 0, "A rest inside a dose was changed.");
                lengths[span] = seconds;
            }

            var goes = timeline.Spans.Select((s, i) => (Span: s, Index: i)).Where(
                g => g.Span is { Kind: SpanKind.Work, Station: not null });
            foreach (var alike in goes.GroupBy(g => (g.Span.Block, g.Span.Station, g.Span.Round, g.Span.Part)))
            {
                // Left out together, or by the same each.
                if (alike.All(g => lengths[g.Index] == 0))
                {
                    continue;
                }

                var after = alike.Select(g => lengths[g.Index] - g.Span.Length().Value).Distinct().ToArray();
                Assert.True(after.Length == 1 || alike.Any(g => plan.Blocks[g.Span.Block].StartEvery is not null),
                    "One side became shorter than the other.");
            }
        }
    }, iter: 1000);

    /// <summary>Whatever was tapped before: the class led on with a way back ends when it says, and undone it ends as before.</summary>
    [Fact]
    public void A_way_back_is_one_command_that_keeps_its_word_and_is_taken_back_by_its_opposite() =>
        Gen.Select(Case, Gen.Int[0, 12].Array[0, 6], Gen.Int[0, 90_000], Gen.Int[-200, 200]).Sample((which, kinds, tapped, late) =>
        {
            var (plan, timeline) = (Plan(which.Text), Timeline(which.Text));
            var scenes = LeadScript.Of(plan, timeline, new Preferences()).Times;
            LeadCommand At(LeadCommandKind kind, long at, LeadPayload? payload = null) => new(Guid.Empty, kind, at, Payload: payload);
            var state = LeadFold.Fold(
                [At(LeadCommandKind.Start, 0),
                    .. kinds.Select((k, i) => At((LeadCommandKind)k, (i + 1) * tapped, new LeadPayload([new SceneShift(i, -4321)], i)))],
                scenes);
            var now = state.At + (tapped / 3);
            long End(LeadState of) => now + LeadFold.EndOf(scenes, of.Added, scenes.Length - 1) - of.PositionAt(now, scenes);
            if (WaysBack.Of(plan, timeline, scenes, state, now, End(state) - (1000 * late), Terms) is not { } found)
            {
                return;
            }

            Assert.Equal(late > 0, found.LateSeconds > Seconds.Zero);
            foreach (var way in found.Ways)
            {
                var after = LeadFold.Next(state, At(LeadCommandKind.Adjust, now, new LeadPayload(way.Shifts)), scenes);
                Assert.InRange(way.EndsAt - End(after), 0, 2999);
                Assert.True(found.ShortBy > Seconds.Zero || End(after) <= End(state) - (1000 * late), "It ends late.");
                var back = way.Shifts.Select(s => new SceneShift(s.Scene, state.Added[s.Scene] - after.Added[s.Scene])).ToImmutableArray();
                // A rest that ends at once is over; all that is still to come is as before.
                var undone = LeadFold.Next(after, At(LeadCommandKind.Adjust, now, new LeadPayload(back)), scenes);
                var scene = LeadFold.SceneAt(after.PositionAt(now, scenes), scenes, after.Added);
                Assert.Equal(state.Added[scene..], undone.Added[scene..]);
            }
        }, iter: 500);

    /// <summary>Ten seconds added on the way are won back once, not by every change that leaves that station alone.</summary>
    [Fact]
    public void Time_added_on_the_way_is_counted_once()
    {
        var goes = new[] { 60, 50, 70, 80 }.Select(s => Station($$"""{"kind":"time","amount":{{s}}}""")).ToArray();
        var text = With(Block(""" "leadInSeconds":0,"betweenStations":20 """, goes));
        var (plan, timeline) = (Plan(text), Timeline(text));
        var scenes = LeadScript.Of(plan, timeline, new Preferences()).Times;
        var second = timeline.Spans.Select((s, i) => (s, i)).First(s => s.s is { Kind: SpanKind.Work, Station: 1 }).i;
        var state = LeadFold.Fold(
            [
                new LeadCommand(Guid.Empty, LeadCommandKind.Start, 0),
                new LeadCommand(Guid.Empty, LeadCommandKind.Adjust, 1000, Payload: new LeadPayload([new SceneShift(second, 10_000)])),
            ],
            scenes);
        var booked = (timeline.Length.Value - 50) * 1000L;
        var found = WaysBack.Of(plan, timeline, scenes, state, 1000, booked, Terms)!;
        Assert.NotEmpty(found.Ways);
        Assert.All(found.Ways, way =>
        {
            var after = LeadFold.Next(state, new LeadCommand(Guid.Empty, LeadCommandKind.Adjust, 1000, Payload: new(way.Shifts)), scenes);
            Assert.InRange(way.EndsAt - LeadFold.EndOf(scenes, after.Added, scenes.Length - 1), 0, 1000);
        });
    }

    /// <summary>
    /// In the rest before a round that may be left out nothing else is left: without it the class is over, and an ended class hears no
    /// adjust.
    /// </summary>
    [Fact]
    public void A_way_that_would_end_the_class_at_once_is_not_offered()
    {
        var text = With(Block(""" "leadInSeconds":0,"rounds":2,"betweenRounds":60,"optionalRounds":1 """, Station(TwoGoes)));
        var (plan, timeline) = (Plan(text), Timeline(text));
        Assert.Equal(0, Assert.Single(Of(text, 60, 1).Ways).EndsInSeconds.Value);
        var scenes = LeadScript.Of(plan, timeline, new Preferences()).Times;
        var state = LeadFold.Fold([new LeadCommand(Guid.Empty, LeadCommandKind.Start, 0)], scenes);
        var found = WaysBack.Of(plan, timeline, scenes, state, 60_000, 61_000, Terms)!;
        Assert.Equal(79, found.LateSeconds.Value);
        Assert.Empty(found.Ways);
        // A minute more and its rest alone is enough.
        Assert.Equal("Shorter rests", WaysBack.Of(plan, timeline, scenes, state, 60_000, 120_000, Terms)!.Ways[0].Title);
    }

    [Fact]
    public void With_time_in_hand_a_round_comes_back_or_the_cool_down_is_longer()
    {
        var text = With(string.Join(",",
            Block(""" "leadInSeconds":0,"rounds":3,"betweenRounds":60,"optionalRounds":1 """, Station(TwoGoes)),
            Block(""" "leadInSeconds":0 """, Station(TwoGoes, """ "sides":"each" """)).Replace(
                "\"phase\":\"main\"", "\"phase\":\"cooldown\"", StringComparison.Ordinal)));
        var (plan, timeline) = (Plan(text), Timeline(text));
        var scenes = LeadScript.Of(plan, timeline, new Preferences()).Times;
        var state = LeadFold.Fold(
            [new LeadCommand(Guid.Empty, LeadCommandKind.Start, 0),
                new LeadCommand(Guid.Empty, LeadCommandKind.Adjust, 1, Payload: new LeadPayload([new(3, -60_000), new(4, -40_000)]))],
            scenes);
        // 223 s are left (40 + 60 + 40 + 40 + 3 + 40) and 345 s are booked.
        var found = WaysBack.Of(plan, timeline, scenes, state, 0, 345_000, Terms)!;
        Assert.Equal("2 min 2 s early", found.Words);
        Assert.Equal(["Put a round back", "A longer cool-down"], found.Ways.Select(w => w.Title));
        Assert.Equal([new SceneShift(3, 60_000), new SceneShift(4, 40_000)], found.Ways[0].Shifts);
        // 60 s each would go, but twice as long is enough.
        Assert.Equal([new SceneShift(5, 40_000), new SceneShift(7, 40_000)], found.Ways[1].Shifts);
        Assert.Empty(WaysBack.Of(plan, timeline, scenes, state, 0, 342_000, Terms)!.Ways);
    }

    /// <summary>Against CP-SAT (Google OR-Tools), an independent exact solver, over the same levers.</summary>
    [Fact]
    public void It_agrees_with_a_constraint_solver()
    {
        var (all, proven) = (0, 0);
        Case.Sample(which =>
        {
            var (plan, timeline) = (Plan(which.Text), Timeline(which.Text));
            var now = ClassUnderWay.At(timeline, new Seconds(which.Position));
            var model = Refit.Model(plan, timeline, now, (int)(now.Left.Value * which.Share), Terms);
            if (model.Blocks.Sum(b => b.Branches.Length) > 200)
            {
                return;
            }

            var reference = ReferenceFit.Solve(model, Terms with { SpareWeight = 0 }, limit: 0.5);
            Interlocked.Increment(ref all);
            if (reference.Proven)
            {
                Interlocked.Increment(ref proven);
                Assert.Equal(reference.Price, FitSolver.Solve(model, 0)?.Cost);
            }
        }, iter: 200);
        Assert.True(all > 100 && proven > 0.9 * all, $"The other solver proved only {proven} of {all}.");
    }

    private sealed record Simple(int Stations, int Go, int Rounds, int Rest, int Change, int Optional, int After, string Keep);

    private static readonly Gen<Simple> SimpleBlock = Gen.Select(
        Gen.Int[1, 3], Gen.Int[2, 6], Gen.Int[1, 3], Gen.Int[0, 4], Gen.Int[0, 3], Gen.Int[0, 1], Gen.Int[0, 2], Gen.Int[0, 2])
        .Select((stations, go, rounds, rest, change, optional, after, keep) =>
            new Simple(stations, go * 10, rounds, rest * 15, change * 5, rounds > 1 ? optional : 0, after * 20,
                new[] { "normal", "droppable", "protected" }[keep]));

    /// <summary>
    /// Every way there is, tried one after the other from the words of the rules alone: circuits of timed goes of the same bodyweight
    /// squat, whose changes need nothing.
    /// </summary>
    [Fact]
    public void No_other_way_is_cheaper() =>
        Gen.Select(SimpleBlock.Array[1, 2], Gen.Double[0, 0.9], Gen.Double[0.4, 1]).Sample((blocks, at, share) =>
    {
        var text = With(string.Join(",", blocks.Select((b, i) => Block(
            $""" "leadInSeconds":0,"rounds":{b.Rounds},"betweenRounds":{b.Rest},"betweenStations":{b.Change},"optionalRounds":{b.Optional},"afterSeconds":{b.After},"keep":"{b.Keep}" """,
            [.. Enumerable.Range(0, b.Stations).Select(_ => Station($$"""{"kind":"time","amount":{{b.Go}}}"""))]))));
        var timeline = Timeline(text);
        var position = (int)(timeline.Length.Value * at);
        var now = ClassUnderWay.At(timeline, new Seconds(position));
        var remaining = (int)(now.Left.Value * share);
        var found = Of(text, position, remaining);
        var (cost, end) = Cheapest(blocks, timeline, now, remaining);
        Assert.Equal((cost, end), (found.Ways[0].Cost, found.Ways[0].EndsInSeconds.Value));
    }, iter: 300);

    private static (int Cost, int End) Cheapest(Simple[] blocks, Timeline timeline, ClassUnderWay now, int remaining)
    {
        IEnumerable<(int Cost, int End)> sums = [(0, 0)];
        foreach (var (block, index) in blocks.Select((b, i) => (b, i)))
        {
            var ways = Ways(block, [.. timeline.Spans.Select((s, i) => (s, i)).Where(p => p.s.Block == index)], now).Distinct().ToArray();
            sums = sums.SelectMany(_ => ways, (sum, way) => (sum.Cost + way.Cost, sum.End + way.End)).Distinct().ToArray();
        }

        var inTime = sums.Where(s => s.End <= remaining).ToArray();
        return inTime.Length > 0
            ? inTime.OrderBy(s => s.Cost).ThenByDescending(s => s.End).First()
            : sums.OrderBy(s => s.End).ThenBy(s => s.Cost).First();
    }

    private static IEnumerable<(int Cost, int End)> Ways(Simple block, (Span Span, int Index)[] spans, ClassUnderWay now)
    {
        var ahead = spans.Where(s => s.Index >= now.UnderWay).ToArray();
        yield return (0, ahead.Sum(s => now.LeftOf(s.Index)));
        if (ahead.Length == 0 || block.Keep == "protected")
        {
            yield break;
        }

        if (block.Keep == "droppable" && spans[0].Index > now.UnderWay)
        {
            yield return (5 + 300, 0);
        }

        int Points(int weight, int change, int of) => change == 0 ? 0 : 5 + weight * (int)Math.Ceiling(100.0 * change / of);
        bool Begun((Span Span, int Index) s) => s.Index <= now.UnderWay;
        for (var off = 0; off <= block.Optional; off++)
        {
            bool Last((Span Span, int Index) s) => off > 0 && s.Span.Round == block.Rounds - 1;
            if (off > 0 && spans.Any(s => Last(s) && Begun(s) && s.Span.Kind != SpanKind.Rest))
            {
                continue;
            }

            bool Closed(Span go) =>
                spans.Any(s => s.Span.Kind == SpanKind.Work && s.Span.Station == go.Station && s.Span.Round == go.Round && Begun(s));
            var rests = ahead.Where(s => s.Span.Kind == SpanKind.Rest).ToArray();
            int Rest((Span Span, int Index) s, int shift)
            {
                var planned = s.Span.Length().Value;
                var total = Math.Max(Math.Min(planned, 15), planned - shift);
                return s.Index == now.UnderWay ? Math.Max(0, total - now.Elapsed.Value) : total;
            }

            int Given((Span Span, int Index) s, int shift) => now.LeftOf(s.Index) - Rest(s, shift);
            for (var shift = 0; shift <= 60; shift += 5)
            {
                for (var change = block.Change; change == block.Change || change > 0; change -= 5)
                {
                    for (var go = block.Go; go >= block.Go * 0.67 && go >= 15; go -= 5)
                    {
                        var end = ahead.Where(s => !(Last(s) && !Begun(s))).Sum(s => s.Span.Kind switch
                        {
                            SpanKind.Rest => Rest(s, shift),
                            SpanKind.Change when !Begun(s) => change,
                            SpanKind.Work when !Begun(s) && !Closed(s.Span) => go,
                            _ => now.LeftOf(s.Index),
                        });
                        yield return (
                            Points(1, off, block.Rounds) + Points(1, rests.Sum(s => Given(s, shift)), rests.Sum(s => s.Span.Length().Value))
                            + Points(1, block.Change - change, block.Change) + Points(2, block.Go - go, block.Go),
                            end);
                    }
                }
            }
        }
    }
}
