using CsCheck;
using Halterion.Core.Checks;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
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

    /// <summary>Pieces stand in the order of the clock, none over another, and what lies between two is what the gap says, what a bell leaves beside.</summary>
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
            Block($"\"id\":\"{id}\",\"format\":\"rotation\",\"windowSeconds\":30", [.. Enumerable.Repeat(Station("""{"kind":"time","amount":30}"""), stations)]);
        var plan = Plan(With(string.Join(",", apart
            ? [Rotation("a", 4), Block("", Station("""{"kind":"time","amount":30}""")), Rotation("b", 3)]
            : new[] { Rotation("a", 4), Rotation("b", 3) })));
        var courses = new ClassReview(plan, Compiler.Compile(plan).Timeline!, CheckSettings.Usual).Courses;
        var last = apart ? 2 : 1;
        Assert.Equal(ways, courses.Select(c => (c.Pieces.Last(p => p.Block == 0).Station, c.Pieces.First(p => p.Block == last).Station)).Distinct().Count());
        Assert.All(courses, c => Assert.Equal(7, c.Pieces.Count(p => p.Block == 0 || p.Block == last)));
    }
}
