using System.Collections.Immutable;
using Halterion.Core.Leading;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Sessions;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>
/// What counts as done (leading.md, "What is recorded as done"; our own rule), by hand from classes that are led by hand.
/// </summary>
public class WorkDoneTests
{
    private static LeadCommand Command(string kind, long at, LeadPayload? payload = null) =>
        new(Guid.NewGuid(), Enum.Parse<LeadCommandKind>(kind, ignoreCase: true), at, Payload: payload);

    private static WorkThatRan Ran(string text, long now, ImmutableArray<BlockGroups> groups, params LeadCommand[] commands) =>
        new(Plan(text), Timeline(text), [.. commands], groups, now);

    private static readonly string TwoRounds = With(Block(
        """ "leadInSeconds":0,"rounds":2 """,
        Station("""{"kind":"time","amount":18}""", "\"name\":\"A\""),
        Station("""{"kind":"time","amount":40}""", "\"name\":\"B\"")));

    private static readonly PlaceId A = new("b1s1");
    private static readonly PlaceId B = new("b1s2");

    /// <summary>A is 2 × 18 s, B 2 × 40 s; B's second is skipped, A's second is left after 12 s in all.</summary>
    [Fact]
    public void Half_of_the_work_counts_and_less_is_cut_short()
    {
        var whole = Ran(TwoRounds, 200_000, [], Command("start", 0));
        Assert.Equal(new WorkDone(36_000, 36_000), whole.At(A));
        Assert.True(whole.At(B).IsDone);
        Assert.Empty(whole.RoundsLeftOut());

        var half = Ran(TwoRounds, 200_000, [], Command("start", 0), Command("finish", 58_000));
        Assert.Equal((true, true, ""), (half.At(A).IsDone, half.At(B).IsDone, half.At(B).Words));
        Assert.Equal(1, Assert.Single(half.RoundsLeftOut()).Round);

        var cut = Ran(TwoRounds, 200_000, [], Command("start", 0), Command("finish", 12_000));
        Assert.Equal(("cut short, 12 of 36 s", false), (cut.At(A).Words, cut.At(A).IsLeftOut));
        Assert.Equal((true, ""), (cut.At(B).IsLeftOut, cut.At(B).Words));
    }

    [Fact]
    public void What_a_way_to_catch_up_took_away_was_not_planned()
    {
        // The second round is taken out, then taken back.
        var gone = new LeadPayload([new SceneShift(2, -18_000), new SceneShift(3, -40_000)], Text: "One round less");
        var back = new LeadPayload([new SceneShift(2, 18_000), new SceneShift(3, 40_000)], Text: "");
        LeadCommand[] less = [Command("start", 0), Command("adjust", 5_000, gone)];
        Assert.Equal(new WorkDone(18_000, 18_000), Ran(TwoRounds, 200_000, [], less).At(A));
        Assert.Equal(["One round less"], LeadRecord.WaysTaken([.. less]));
        LeadCommand[] undone = [.. less, Command("adjust", 6_000, back)];
        Assert.Equal(new WorkDone(36_000, 36_000), Ran(TwoRounds, 200_000, [], undone).At(A));
        Assert.Empty(LeadRecord.WaysTaken([.. undone]));
        // Ten seconds less by hand are not planned away: they are missing.
        Assert.Equal(36_000, Ran(TwoRounds, 200_000, [], Command("start", 0), Command("lessTen", 1_000)).At(A).Planned);
    }

    /// <summary>Two windows of 30 s; group 0 is at A then B. The class ends in the second window: group 1 was hardly at A.</summary>
    [Fact]
    public void In_a_rotation_somebodys_own_stays_count()
    {
        var text = With(Block(
            """ "leadInSeconds":0,"format":"rotation","windowSeconds":30,"betweenStations":10 """,
            Station("""{"kind":"time","amount":30}""", "\"name\":\"A\""), Station("""{"kind":"time","amount":30}""", "\"name\":\"B\"")));
        var (ann, ben) = (new PersonId("ann"), new PersonId("ben"));
        var groups = new BlockGroups(new PlaceId("b1"), [[ann], [ben]], [1, 1]);
        var ran = Ran(text, 500_000, [groups], Command("start", 0), Command("finish", 45_000));
        Assert.True(ran.At(A, ann).IsDone);
        Assert.Equal("cut short, 5 of 30 s", ran.At(B, ann).Words);
        Assert.True(ran.At(B, ben).IsDone);
        Assert.Equal("cut short, 5 of 30 s", ran.At(A, ben).Words);
        Assert.Equal((A, B), (ran.Where(0, ann)!.Value, ran.Where(0, ben)!.Value));
    }

    [Fact]
    public void Of_two_who_take_turns_one_turn_is_somebodys_own()
    {
        var text = With(Block(
            """ "leadInSeconds":0 """,
            """{"name":"A","sharing":"turns","dose":[{"kind":"time","amount":20}],"options":[{"tier":"main","move":"squat"}]}"""));
        Assert.Equal(20_000, Ran(text, 500_000, [], Command("start", 0)).At(A).Planned);
    }

    [Fact]
    public void How_it_went_names_lateness_ways_and_what_was_left_out()
    {
        var plan = Plan(TwoRounds);
        LeadCommand[] taps =
        [
            Command("start", 360_000), Command("adjust", 361_000, new LeadPayload([], Text: "Shorter rests")), Command("finish", 417_000),
        ];
        var times = LeadScript.Of(plan, Timeline(TwoRounds), new Preferences()).Times;
        var ran = Ran(TwoRounds, 900_000, [], taps);
        Assert.Equal(
            ["Began 6 min late", "Ended 2 min late", "To catch up: Shorter rests", "Left out: round 2 of 2, Block",
                "B: cut short, 39 of 80 s"],
            HowItWent.Lines(plan, ran, [.. taps], LeadRecord.Of([.. taps], times, 900_000), 0, 297_000));
        Assert.Empty(HowItWent.Lines(plan, ran, [], LeadRecord.Of([], times, 0), 0, 300_000));
    }

    /// <summary>Paused long past its booked end a class is nobody's any more: 15 minutes (leading.md, "Which class").</summary>
    [Theory]
    [InlineData(899, false)]
    [InlineData(900, true)]
    public void A_class_paused_long_past_its_end_is_left(int seconds, bool left)
    {
        var times = LeadScript.Of(Plan(TwoRounds), Timeline(TwoRounds), new Preferences()).Times;
        ImmutableArray<LeadCommand> paused = [Command("start", 0), Command("pause", 30_000)];
        Assert.Equal(left, LeadRecord.IsLeft(paused, times, 60_000 + (1000L * seconds), 60_000));
        Assert.False(LeadRecord.IsLeft(paused.Add(Command("resume", 31_000)), times, 9_000_000, 60_000));
    }
}
