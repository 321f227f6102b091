using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Logbook;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Tests;

/// <summary>Where what is suggested meets what a class has and what somebody may do.</summary>
public sealed class SuggestionTests
{
    private static readonly MoveLibrary Moves = MoveLibrary.Load();

    private static readonly DateOnly Day = new(2026, 11, 30);

    private static readonly ClassPlan Plan = ClassReader.Read(System.Text.Encoding.UTF8.GetBytes("""
        {"format":"halterion-class","version":1,"title":"T","slotMinutes":30,"blocks":[{"id":"b","name":"Work","phase":"main","rounds":2,"stations":[
          {"id":"s","dose":[{"kind":"reps","amount":10}],"options":[
            {"id":"m","tier":"main","move":"hip-hinge"},{"id":"e","tier":"easier","move":"single-leg-deadlift"},
            {"id":"i","tier":"instead","move":"glute-bridge"}]}]}]}
        """), Moves).Plan!;

    private static PastUse Past(Person person, string option, Pain? pain, string day = "2026-11-26T18:00")
    {
        var use = new StationUse(new PlaceId("s"), new PlaceId(option)) { Sets = [new DoneSet(10), new DoneSet(10)], Pain = pain };
        return new PastUse(person.Id, Guid.NewGuid(), day, null, use, LoggedWork.Of(Plan, use)!);
    }

    private static ImmutableArray<StationSuggestion> Of(Person person, params PastUse[] history)
    {
        var room = new RoomOf(Plan, Day, [person], 1, [], null, new Dictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>());
        return Suggestions.Of(room, Assigning.Of(room), history);
    }

    [Fact]
    public void An_option_that_their_care_forbids_is_never_taken()
    {
        var free = new Person(new PersonId("a"), "Ada");
        var careful = free with { Limits = [new PersonLimit(Limit.Balance, Strict: true)] };
        // The class calls something easier that is not so for everybody.
        Assert.Equal(new PlaceId("e"), Of(free, Past(free, "m", new Pain("back"))).Single().Takes);
        var kept = Of(careful, Past(careful, "m", new Pain("back"))).Single();
        Assert.Equal(NextStep.Easier, kept.Next.Action);
        Assert.Null(kept.Takes);
    }

    [Fact]
    public void What_was_done_instead_is_another_move()
    {
        var person = new Person(new PersonId("a"), "Ada");
        Assert.Equal(new MoveId("glute-bridge"), Past(person, "i", null).Work.Move);
        Assert.Equal(Family.Bridge, Past(person, "i", null).Work.Family);
        Assert.Equal(new MoveId("hip-hinge"), Past(person, "e", null).Work.Move);
        Assert.Empty(Of(person, Past(person, "i", null)));
    }

    [Fact]
    public void Who_had_pain_twice_is_given_the_classs_own_way_out()
    {
        var person = new Person(new PersonId("a"), "Ada");
        var next = Of(person, Past(person, "m", new Pain("back"), "2026-11-19T18:00"), Past(person, "m", new Pain("back"))).Single();
        Assert.Equal((NextStep.Leave, new PlaceId("i")), (next.Next.Action, next.Takes!.Value));
        Assert.Equal("10, 10", next.LastTime);
    }

    [Fact]
    public void What_is_asked_for_is_set_by_set_by_side_and_with_what_is_held()
    {
        var plan = ClassReader.Read(System.Text.Encoding.UTF8.GetBytes("""
            {"format":"halterion-class","version":1,"title":"T","slotMinutes":30,"blocks":[{"id":"b","name":"Work","phase":"main","rounds":3,"startSide":"right","stations":[
              {"id":"s","sides":"each","dose":[{"kind":"reps","amount":[12,10,8]}],"options":[
                {"id":"m","tier":"main","move":"split-squat","load":{"implement":"dumbbell","count":2,"kg":6,"position":"sides"}},
                {"id":"e","tier":"easier","move":"split-squat","scale":0.5},
                {"id":"h","tier":"harder","move":"split-squat","load":{"implement":"kettlebell","position":"goblet"}}]},
              {"id":"t","dose":[{"kind":"time","amount":40}],"options":[{"id":"tm","tier":"main","move":"squat"}]}]}]}
            """), Moves).Plan!;
        var (block, station) = plan.Find(new PlaceId("s"))!.Value;
        Option Of(string id) => station.Options.First(o => o.Id == new PlaceId(id));
        var sets = Doses.Sets(block, station, Of("m"));
        Assert.Equal([12, 12, 10, 10, 8, 8], sets.Select(s => s.Reps!.Value));
        Assert.Equal([BodySide.Right, BodySide.Left], sets.Take(2).Select(s => s.Side!.Value));
        Assert.All(sets, s => Assert.Equal(12, s.Kg));
        Assert.Equal([6, 6, 5, 5, 4, 4], Doses.Sets(block, station, Of("e")).Select(s => s.Reps!.Value));
        // A weight that is each one's own is what they usually hold, of the same implement only.
        var holds = new Person(new PersonId("a"), "Ada", Loads: ImmutableSortedDictionary<string, RememberedLoad>.Empty
            .Add("split-squat", new RememberedLoad(Implement.Kettlebell, 10)));
        Assert.Equal(10, Doses.Sets(block, station, Of("h"), holds)[0].Kg);
        Assert.Null(Doses.Sets(block, station, Of("h"))[0].Kg);
        Assert.Equal(new Target(Reps: 8), Doses.Target(block, station, Of("m")));
        // What ran: all of the first round, half of the second on one side, nothing else.
        var ran = Doses.Sets(block, station, Of("m"), null,
            (round, side) => round == 0 ? 1 : round == 1 && side == BodySide.Right ? 0.5m : 0);
        Assert.Equal([12, 12, 5], ran.Select(s => s.Reps!.Value));
        var (_, timed) = plan.Find(new PlaceId("t"))!.Value;
        Assert.Equal([40, 40, 40], Doses.Sets(block, timed, timed.Main).Select(s => s.Seconds!.Value));
    }

    [Fact]
    public void Hard_sets_are_those_of_main_work_that_were_hard()
    {
        var person = new Person(new PersonId("a"), "Ada");
        PastUse With(decimal? effort) => Past(person, "m", null) with { Effort = effort };
        Assert.Equal(2, PersonProgress.HardSets([With(6)])["hinge"]);
        Assert.Equal(2, PersonProgress.HardSets([With(null)])["hinge"]);
        Assert.Empty(PersonProgress.HardSets([With(5.5m)]));
        var warm = With(9) with { Work = With(9).Work with { IsMain = false } };
        Assert.Empty(PersonProgress.HardSets([warm]));
        // Left and right are one go.
        var sided = With(7) with
        {
            Use = With(7).Use with
            {
                Sets = [new DoneSet(8, Side: BodySide.Left), new DoneSet(8, Side: BodySide.Right), new DoneSet(8, Side: BodySide.Left)],
            },
        };
        Assert.Equal(2, PersonProgress.HardSets([sided])["hinge"]);
    }

    [Fact]
    public void A_use_that_cannot_be_read_any_more_is_no_history()
    {
        var person = new Person(new PersonId("a"), "Ada");
        var use = Past(person, "m", null);
        Assert.NotNull(use.AsPast(Moves));
        var gone = use.Work with { Option = new JsonObject { ["tier"] = "main", ["move"] = "gone-move" } };
        Assert.Null((use with { Work = gone }).AsPast(Moves));
        Assert.Null((use with { Use = use.Use with { Sets = [new DoneSet(Seconds: 10)] } }).AsPast(Moves));
        Assert.Null((use with { Use = use.Use with { Sets = [] } }).AsPast(Moves));
    }
}
