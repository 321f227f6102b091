using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Planning.Weeks;
using Halterion.Core.Plans;

namespace Halterion.Core.Tests;

/// <summary>A series over its weeks. All steps are our own choice, no source.</summary>
public sealed class SeriesTests
{
    private static readonly Evaluator Evaluator = new(MoveLibrary.Load(), new Preferences());

    private static JsonObject Class(int slot = 60, int rounds = 3, int reps = 10, string main = "squat") => JsonNode.Parse($$$"""
        {"format":"halterion-class","version":1,"title":"T","slotMinutes":{{{slot}}},"blocks":[
          {"id":"w","name":"Warm-up","phase":"warmup","stations":[{"id":"w1","dose":[{"kind":"reps","amount":10}],"options":[{"id":"w1o","tier":"main","move":"squat"}]}]},
          {"id":"m","name":"Main","phase":"main","rounds":{{{rounds}}},"betweenRounds":40,"stations":[
            {"id":"a","dose":[{"kind":"reps","amount":{{{reps}}}}],"options":[{"id":"ao","tier":"main","move":"{{{main}}}"},{"id":"ae","tier":"easier","move":"box-squat"}]},
            {"id":"b","dose":[{"kind":"reps","amount":{"from":8,"to":12}}],"options":[{"id":"bo","tier":"main","move":"glute-bridge"}]}]}]}
        """)!.AsObject();

    private static Series Read(string fields)
    {
        var faults = new Faults { NullIsAbsent = true };
        var series = SeriesReader.Read(new Fields(JsonElement.Parse(Encoding.UTF8.GetBytes(fields)), "", faults), faults);
        Assert.Empty(faults.All);
        return series!;
    }

    private static Series Of(string harder, int weeks = 6, string light = "4", string first = "2026-11-30") => Read($$"""
        {"format":"halterion-series","version":1,"name":"Winter","firstDay":"{{first}}","weeks":{{weeks}},
         "days":[{"weekday":"monday","time":"18:00","class":"A"}],"harder":{{harder}},"lightEvery":{{light}}}
        """);

    private static SeriesClass[] Unrolled(
        Series series, JsonObject plan, Dictionary<(DateOnly, string), ByHand>? changed = null) =>
        [.. Unroll.Of(series, new Dictionary<string,
            JsonElement> { ["A"] = JsonElement.Parse(Encoding.UTF8.GetBytes(plan.ToJsonString())) },
            Evaluator, changed)];

    private static int Reps(SeriesClass of) => (int)of.Plan["blocks"]![1]!["stations"]![0]!["dose"]![0]!["amount"]!;

    [Fact]
    public void Each_strong_week_is_harder_than_the_one_before_by_turns()
    {
        var weeks = Unrolled(Of("""["reps","rest"]"""), Class());
        Assert.Equal([1, 2, 3, 4, 5, 6], weeks.Select(w => w.Week));
        Assert.Equal([false, false, false, true, false, false], weeks.Select(w => w.Light));
        Assert.Empty(weeks[0].Changes);
        Assert.Equal([10, 11, 11], weeks.Take(3).Select(Reps));
        int Rest(SeriesClass of) => (int)of.Plan["blocks"]![1]!["betweenRounds"]!;
        // The light week used up no turn: the fifth is the third that is strong after the first, so it has reps again.
        Assert.Equal([40, 40, 30, 30, 30, 20], weeks.Select(Rest));
        Assert.Equal([12, 12], weeks.Skip(4).Select(Reps));
        // A range moves as a whole; the warm-up does not.
        Assert.Equal("""{"from":9,"to":13}""", weeks[1].Plan["blocks"]![1]!["stations"]![1]!["dose"]![0]!["amount"]!.ToJsonString());
        Assert.Equal(10, (int)weeks[1].Plan["blocks"]![0]!["stations"]![0]!["dose"]![0]!["amount"]!);
        Assert.Contains(weeks[1].Changes, c => c.Contains("11", StringComparison.Ordinal));
    }

    [Fact]
    public void Rest_falls_to_its_floor_and_then_it_is_said()
    {
        var weeks = Unrolled(Of("""["rest"]""", light: "null"), Class());
        Assert.Equal([40, 30, 20, 15, 15, 15], weeks.Select(w => (int)w.Plan["blocks"]![1]!["betweenRounds"]!));
        Assert.Contains("stays as it was", Assert.Single(weeks[4].Changes), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(1, 10, 1)]
    [InlineData(2, 10, 2)]
    [InlineData(3, 10, 2)]
    [InlineData(4, 7, 3)]
    [InlineData(5, 10, 3)]
    [InlineData(10, 3, 6)]
    public void A_light_week_has_six_tenths(int rounds, int reps, int light)
    {
        var weeks = Unrolled(Of("""["reps"]""", weeks: 2, light: "2"), Class(rounds: rounds, reps: reps));
        var main = weeks[1].Plan["blocks"]![1]!;
        Assert.Equal(light, (int)main["rounds"]!);
        long Main(SeriesClass of) => (int)of.Plan["blocks"]![1]!["rounds"]! * (Reps(of)
            + (int)of.Plan["blocks"]![1]!["stations"]![1]!["dose"]![0]!["amount"]!["to"]!);
        // One rep more or less at one station would not be nearer.
        Assert.InRange(Math.Abs(Main(weeks[1]) - (0.6 * Main(weeks[0]))), 0, light / 2.0);
    }

    [Fact]
    public void What_no_longer_fits_makes_room_elsewhere_or_stays_as_it_was()
    {
        // Just long enough for the first week: a rep more takes rest, but no reps, and nothing becomes longer.
        var base0 = Evaluator.Evaluate(Class().ToJsonString()).Evaluation!;
        var slot = (base0.Totals.Seconds.Value + 59) / 60;
        var weeks = Unrolled(Of("""["reps"]""", weeks: 4, light: "null"), Class(slot));
        Assert.All(weeks, w => Assert.True(w.Evaluation.Totals.OverSeconds <= Seconds.Zero));
        Assert.Equal([10, 11, 12, 13], weeks.Select(Reps));
        Assert.True((int)weeks[3].Plan["blocks"]![1]!["betweenRounds"]! < 40);
        // A round more where there is no room for it stays out, and that is said.
        var tight = Class(Math.Max(5, (Evaluator.Evaluate(Class(rounds: 2, reps: 40).ToJsonString()).Evaluation!.Totals.Seconds.Value
            + 59) / 60), 2, 40);
        foreach (var block in new[] { tight["blocks"]![0]!, tight["blocks"]![1]! })
        {
            block["keep"] = "protected";
        }

        var kept = Unrolled(Of("""["rounds"]""", weeks: 2, light: "null"), tight);
        Assert.Equal(2, (int)kept[1].Plan["blocks"]![1]!["rounds"]!);
        Assert.Contains("late", Assert.Single(kept[1].Changes), StringComparison.Ordinal);
    }

    [Fact]
    public void A_step_up_keeps_ids_and_leaves_what_was_main_as_the_easier_one()
    {
        var up = Unrolled(Of("""["options"]""", weeks: 2, light: "null"), Class(main: "split-squat"))[1].Plan;
        var options = up["blocks"]![1]!["stations"]![0]!["options"]!.AsArray();
        Assert.Equal(["ao", "ae"], options.Select(o => (string)o!["id"]!));
        // What was main, plainly done, is the easier one now; the main one is another move, or done otherwise.
        Assert.Equal("""{"id":"ae","tier":"easier","move":"split-squat"}""", options[1]!.ToJsonString());
        Assert.NotEqual("""{"id":"ao","tier":"main","move":"split-squat"}""", options[0]!.ToJsonString());
        Assert.NotNull(Evaluator.Evaluate(up.ToJsonString()).Evaluation);
    }

    [Fact]
    public void Weeks_are_calendar_weeks_and_the_first_may_be_short()
    {
        var series = Read("""
            {"format":"halterion-series","version":1,"name":"W","firstDay":"2026-12-02","weeks":2,"days":[
             {"weekday":"thursday","time":"18:00","class":"A"},{"weekday":"monday","time":"09:30","class":"A"}]}
            """);
        string[] Days(Series of) => [.. of.Dates().Select(d => $"{d.Week} {d.Date.ToString("MM-dd", CultureInfo.InvariantCulture)}")];
        Assert.Equal(["1 12-03", "2 12-07", "2 12-10"], Days(series));
        // From Sunday to Saturday the Sunday begins its week.
        Assert.Equal(["1 12-03", "2 12-06"], Days(series with
        {
            WeekStart = DayOfWeek.Sunday,
            Days = [new SeriesDay(DayOfWeek.Sunday, "10:00", "A"), new SeriesDay(DayOfWeek.Thursday, "18:00", "A")],
        }).Take(2));
        // Over the change of the clocks in October 2026 a week has seven days as ever.
        Assert.Equal(["1 10-22", "2 10-26", "2 10-29"], Days(series with { FirstDay = new DateOnly(2026, 10, 22) }));
    }

    [Fact]
    public void A_week_changed_by_hand_is_followed_or_not()
    {
        var second = new DateOnly(2026, 12, 7);
        var series = Of("""["reps"]""", weeks: 3, light: "null");
        int[] After(bool followed) => [.. Unrolled(
            series, Class(), new() { [(second, "18:00")] = new ByHand(Class(reps: 20), followed) }).Select(Reps)];
        Assert.Equal([10, 20, 21], After(followed: true));
        Assert.Equal([10, 20, 12], After(followed: false));
    }

    [Fact]
    public void A_family_that_was_hard_the_day_before_is_told_of()
    {
        var series = Of("[]", weeks: 1) with
        {
            Days = [new SeriesDay(DayOfWeek.Monday, "18:00", "A"), new SeriesDay(DayOfWeek.Tuesday, "18:00", "A")],
        };
        var weeks = Unrolled(series, Class(rounds: 12));
        Assert.DoesNotContain(weeks[0].Findings, f => f.Code == "week.rest");
        Assert.Contains(weeks[1].Findings, f => f.Code == "week.rest");
    }

    [Fact]
    public void What_is_written_is_read_again()
    {
        var series = Of("""["reps","rounds","rest","options"]""") with { WeekStart = DayOfWeek.Sunday };
        Assert.Equal(SeriesReader.Write(series).ToJsonString(),
            SeriesReader.Write(Read(SeriesReader.Write(series).ToJsonString())).ToJsonString());
    }
}
