using System.Collections.Immutable;
using CsCheck;
using Halterion.Core.Checks;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;
using Halterion.Core.Views;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>What one person meets, held against the clock itself: second by second, and by what the class adds up to.</summary>
public class CourseTests
{
    private static void Each(Action<ClassReview> look) => RandomClasses.Text.Sample(
        text =>
        {
            if (Evaluate(text) is { Plan: { } plan, Timeline: { } timeline })
            {
                look(new ClassReview(plan, timeline, CheckSettings.Usual));
            }
        },
        iter: 300,
        print: text => text);

    /// <summary>Whatever way a person goes round, they work as long on each leg as the class says one person does.</summary>
    [Fact]
    public void Every_way_round_adds_up_to_the_work_of_one_person() => Each(review =>
    {
        var whole = Breakdown.Of(review.Plan, review.Timeline);
        foreach (var course in review.Courses)
        {
            var (left, right) = (0, 0);
            foreach (var piece in course.Pieces.Where(p => review.At(p).Block.Shape != BlockShape.OwnPace))
            {
                var first = review.At(piece).Block.StartSideOf(review.At(piece).Station) == Side.Left ? 1 : 0;
                left += piece.Side switch { Side.Right => 0, Side.Alternate => (piece.Seconds + first) / 2, _ => piece.Seconds };
                right += piece.Side switch { Side.Left => 0, Side.Alternate => (piece.Seconds + 1 - first) / 2, _ => piece.Seconds };
            }

            Assert.Equal((whole.LeftSeconds.Value, whole.RightSeconds.Value), (left, right));
        }
    });

    /// <summary>
    /// By hand from docs/room.md, "group g is at station (g + w) mod n": with two stations nobody sees which way round it goes, with three
    /// one does.
    /// </summary>
    [Fact]
    public void In_a_rotation_everybody_goes_on_to_the_next_station()
    {
        var station = Station("""{"kind":"time","amount":30}""");
        var text = With(
            Block(""" "format":"rotation","windowSeconds":40,"rounds":2,"betweenStations":10 """, station, station, station, station));
        var (plan, timeline) = (Plan(text), Timeline(text));
        Assert.Equal(
            ["0123 0123", "1230 1230", "2301 2301", "3012 3012"],
            new ClassReview(plan, timeline, CheckSettings.Usual).Courses
                .Select(c => string.Join(' ', c.Pieces.Chunk(4).Select(round => string.Concat(round.Select(p => p.Station))))));

        // The kit goes where the people go: five of them, the first group of two.
        var block = plan.Blocks[0].Id;
        var moments = Moments.Of(
            Place.Of(plan), 5, new Dictionary<PlaceId, ImmutableArray<ImmutableArray<int>>> { [block] = Groups.InOrder(5, 4) });
        Assert.Equal(
            ["0 0 1 2 3", "1 1 2 3 0", "2 2 3 0 1", "3 3 0 1 2"],
            moments.Select(m => string.Join(' ', m.Spots.OrderBy(s => s.Person).Select(s => s.Station))));

        // And so does the drawing of the floor: which group, from 1, is at each station.
        var floor = FloorLayout.Of(
            plan.Blocks[0], Library, new HallFloor(10, 14, []), [2, 1, 1, 1], ImmutableDictionary<string, FloorSpot>.Empty);
        Assert.Equal(["1234", "4123", "3412", "2341"],
            FloorView.Of(plan.Blocks[0], floor, rotates: true).Windows.Select(w => string.Concat(w.Groups)));
    }

    /// <summary>
    /// Pieces stand in the order of the clock, none over another, and what lies between two is what the gap says, what a bell leaves
    /// beside.
    /// </summary>
    [Fact]
    public void Gaps_are_what_the_clock_leaves_between_two_pieces() => Each(review =>
    {
        foreach (var course in review.Courses)
        {
            foreach (var (before, after) in course.Pieces.Zip(course.Pieces.Skip(1)))
            {
                Assert.InRange(after.Gap, 0, after.Pause);
                // At their own pace people are not on the clock, also where such a block lies between the two.
                var (from, to) = (review.Plan.Blocks.IndexOf(review.At(before).Block), review.Plan.Blocks.IndexOf(review.At(after).Block));
                if (review.Plan.Blocks.Skip(from).Take(to - from + 1).All(b => b.Shape != BlockShape.OwnPace))
                {
                    Assert.Equal(after.Start - before.Start - before.Seconds, after.Pause);
                }
            }
        }
    });

    /// <summary>The longest run on one leg, counted from the spans of a class in which nothing rotates, by a loop of its own.</summary>
    [Fact]
    public void The_longest_time_on_one_leg_is_what_a_stop_watch_shows() => Each(review =>
    {
        if (review.Plan.Blocks.Any(b => b.Shape is BlockShape.Rotation or BlockShape.OwnPace))
        {
            return;
        }

        var (longest, run, idle, side) = (0, 0, 0, Side.Both);
        foreach (var span in review.Timeline.Spans)
        {
            var counts = review.Plan.Blocks[span.Block].Phase is Phase.Main or Phase.Finisher or Phase.Activation;
            var onOneLeg = span is { Kind: SpanKind.Work, Side: Side.Left or Side.Right, Turn: null or 0 } && counts;
            idle = span.Kind == SpanKind.Work ? idle : idle + span.Length().Value;
            if (span.Kind == SpanKind.Work && !(onOneLeg && span.Side == side && idle < 10))
            {
                (run, side) = (0, onOneLeg ? span.Side!.Value : Side.Both);
            }

            if (span.Kind == SpanKind.Work)
            {
                (run, idle) = (onOneLeg ? run + span.Length().Value : 0, 0);
            }

            longest = Math.Max(longest, run);
        }

        Assert.Equal(longest, LegsGetABreak.Longest(review, Assert.Single(review.Courses)));
    });

    /// <summary>Of two rotations in a row every end of the first meets every start of the second; those apart go round together.</summary>
    [Theory]
    [InlineData(false, 12)]
    [InlineData(true, 4)]
    public void Every_group_is_looked_at(bool apart, int ways)
    {
        string Rotation(string id, int stations) =>
            Block($"\"id\":\"{id}\",\"format\":\"rotation\",\"windowSeconds\":30",
                [.. Enumerable.Repeat(Station("""{"kind":"time","amount":30}"""), stations)]);
        var plan = Plan(With(string.Join(",", apart
            ? [Rotation("a", 4), Block("", Station("""{"kind":"time","amount":30}""")), Rotation("b", 3)]
            : new[] { Rotation("a", 4), Rotation("b", 3) })));
        var courses = new ClassReview(plan, Compiler.Compile(plan).Timeline!, CheckSettings.Usual).Courses;
        var last = apart ? 2 : 1;
        Assert.Equal(ways,
            courses.Select(c => (c.Pieces.Last(p => p.Block == 0).Station, c.Pieces.First(p => p.Block == last).Station))
                .Distinct()
                .Count());
        Assert.All(courses, c => Assert.Equal(7, c.Pieces.Count(p => p.Block == 0 || p.Block == last)));
    }
}
