using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Text.Json.Serialization;
using CsCheck;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

public class LeadTests
{
    /// <summary>Three scenes: 10 s, 50 s, 20 s.</summary>
    private static readonly ImmutableArray<SceneTime> Scenes = [
        new(new Seconds(10), false), new(new Seconds(60), false), new(new Seconds(80), false)];

    [Fact]
    public void The_fold_agrees_with_the_shared_cases()
    {
        using var cases = JsonDocument.Parse(File.ReadAllText(Beside("lead-cases.json")));
        Assert.All(cases.RootElement.EnumerateArray(), @case =>
        {
            var commands = @case.GetProperty("commands")
                .EnumerateArray()
                .Select(c => Command(c[0].GetString()!, c[1].GetInt64(), c.GetArrayLength() > 2 ? c[2] : null));
            var gates = @case.TryGetProperty("gates", out var listed) ? listed.EnumerateArray().Select(g => g.GetInt32()).ToArray() : [];
            ImmutableArray<SceneTime> scenes = [.. Scenes.Select((scene, i) => scene with { Gated = gates.Contains(i) })];
            var state = LeadFold.Fold(commands, scenes);
            var position = state.PositionAt(@case.GetProperty("now").GetInt64(), scenes);
            Assert.Equal(
                (@case.GetProperty("name").GetString(), @case.GetProperty("phase").GetString(), @case.GetProperty("position").GetInt64(),
                    @case.GetProperty("scene").GetInt32()),
                (@case.GetProperty("name").GetString(), state.Phase.ToString().ToLowerInvariant(), position,
                    LeadFold.SceneAt(position, Scenes, state.Added)));
        });
    }

    [Fact]
    public void Whatever_is_tapped_the_position_stays_on_the_timeline() =>
        Gen.Select(Gen.Int[0, 12], Gen.Int[0, 30_000], Gen.Int[0, 2], Gen.Int[-70_000, 20_000]).Array[0, 40].Sample(taps =>
        {
            var at = 0L;
            var commands = taps.Select(t => new LeadCommand(
                Guid.NewGuid(), (LeadCommandKind)t.Item1, at += t.Item2, Payload: new LeadPayload(
                    [new SceneShift(t.Item3, t.Item4)], t.Item3))).ToArray();
            var state = LeadFold.Fold(commands, Scenes);
            var end = LeadFold.EndOf(Scenes, state.Added, 2);
            Assert.InRange(state.PositionAt(at + 1000, Scenes), 0, end);
            Assert.Equal(80_000 + state.Added.Sum(), end);
            Assert.All([0, 1, 2], scene => Assert.True(LeadFold.LengthOf(Scenes, state.Added, scene) >= 0));
        });

    [Fact]
    public void The_record_tells_when_a_class_that_was_left_running_ended()
    {
        var script = Script(With(Block(""" "leadInSeconds":0 """, Station("""{"kind":"time","amount":60}"""))));
        var started = Command("start", 1_000_000);
        Assert.Equal("Not started", LeadRecord.Of([], script.Times, 0).Words);
        Assert.Equal("In progress", LeadRecord.Of([started], script.Times, 1_030_000).Words);
        Assert.Equal(1_060_000, LeadRecord.Of([started], script.Times, 9_000_000).EndedAt);
        Assert.Equal(
            "Took 75 s; planned 60 s",
            LeadRecord.Of([started, Command("pause", 1_010_000), Command("resume", 1_025_000)], script.Times, 9_000_000).Words);
    }

    [Fact]
    public void What_was_skipped_or_never_reached_did_not_run()
    {
        // Three scenes of 10, 50 and 20 s.
        string Ran(long now, params (string Kind, long At)[] taps) =>
            string.Join(" ", LeadRecord.Ran([.. taps.Select(t => Command(t.Kind, t.At))], Scenes, now));
        Assert.Equal("0 0 0", Ran(5_000));
        Assert.Equal("10000 20000 0", Ran(30_000, ("start", 0)));
        Assert.Equal("10000 50000 20000", Ran(900_000, ("start", 0)));
        Assert.Equal("10000 1000 14000", Ran(60_000, ("start", 0), ("skip", 11_000), ("finish", 25_000)));
        Assert.Equal("10000 1000 0", Ran(60_000, ("start", 0), ("note", 10_400), ("lead", 10_600), ("finish", 11_000)));
        Assert.Equal("10000 500 0", Ran(60_000, ("start", 0), ("pause", 10_500), ("finish", 50_000)));
        Assert.Equal("10000 3500 0", Ran(60_000, ("start", 0), ("pause", 11_000), ("resume", 20_000), ("finish", 22_500)));
    }

    [Fact]
    public void Cues_count_in_start_switch_warn_and_end()
    {
        var timeline = Timeline(
            With(
                Block(""" "betweenStations":2 """, Station("""{"kind":"time","amount":30}""", """ "sides":"each" """),
                    Station("""{"kind":"time","amount":20}"""))));
        Assert.Equal(
            [
                "7 count 3", "8 count 2", "9 count 1", "10 start", "30 warning 10",
                "40 switch", "41 count 2", "42 count 1", "43 start", "63 warning 10", "73 end",
                "74 count 1", "75 start", "95 finish",
            ],
            Cue.ListFor(timeline).Select(c => $"{c.At.Value} {c.Kind.ToString().ToLowerInvariant()} {c.Count}".Trim()));
    }

    [Fact]
    public void A_gate_waits_after_the_lead_in_and_after_rests_without_planned_time_or_count_in()
    {
        string Class(string gate) =>
            With(
                Block($"\"gate\":\"{gate}\",\"rounds\":2,\"betweenRounds\":20",
                    Station("""{"kind":"time","amount":25},{"kind":"rest","amount":5}""")));
        string Gated(string gate) => string.Concat(Timeline(Class(gate)).Spans.Select(s => s.Gated ? '|' : '.'));
        Assert.Equal((".......", ".|.....", ".|..|.."), (Gated("bell") + ".", Gated("block") + ".", Gated("rests") + "."));
        Assert.Equal(Timeline(Class("bell")).Length, Timeline(Class("rests")).Length);
        Assert.Equal(6, Cue.ListFor(Timeline(Class("bell"))).Count(c => c.Kind == CueKind.Count));
        Assert.Equal(0, Cue.ListFor(Timeline(Class("rests"))).Count(c => c.Kind == CueKind.Count));
    }

    [Fact]
    public void One_call_serves_a_rotation_only_if_all_change_sides_together()
    {
        const string split = """ "sides":"split" """;
        string Rotation(params string[] stations) =>
            With(Block(""" "format":"rotation","windowSeconds":40,"leadInSeconds":0 """, stations));
        var together = Timeline(Rotation(Station("""{"kind":"time","amount":40}""", split), Station("""{"kind":"time","amount":40}""")));
        Assert.Equal(
            [20, 60], Cue.ListFor(together).Where(c => c is { Kind: CueKind.Switch } && c.At.Value % 40 != 0).Select(c => c.At.Value));
        var apart = Timeline(
            Rotation(Station("""{"kind":"time","amount":40}""", split), Station("""{"kind":"time","amount":30}""", split)));
        Assert.DoesNotContain(Cue.ListFor(apart), c => c.Kind == CueKind.Switch && c.At.Value % 40 != 0);
    }

    [Fact]
    public void The_script_says_what_side_and_what_next()
    {
        var lunge = """{"sides":"each","dose":[{"kind":"reps","amount":8}],"options":[{"tier":"main","move":"split-squat"},{"tier":"easier","move":"tap-split-squat"}]}""";
        var script = Script(With(Block(""" "rounds":2,"betweenRounds":30 """, lunge)));
        Assert.Equal("Split squat, 8 reps, left foot in front", script.Scenes[0].Next);
        Assert.Equal(("left foot in front", "You face them: your right"), (script.Scenes[1].SideWords, script.Scenes[1].MirrorSide));
        Assert.Equal("Round 1 of 2", script.Scenes[1].Round);
        Assert.Equal("Rest, 30 s", script.Scenes[3].Next);
        Assert.Equal("The end", script.Scenes[^1].Next);
        Assert.Equal(["Split squat to a pad"], script.Cards[script.Scenes[1].Cards[0]].Easier);
    }

    private static LeadScript Script(string text) => LeadScript.Of(Plan(text), Timeline(text), new Preferences());


    private static LeadCommand Command(string kind, long at, JsonElement? payload = null) => new(
        Guid.NewGuid(), Enum.Parse<LeadCommandKind>(kind, ignoreCase: true), at, Payload: payload?.Deserialize<LeadPayload>(Web));

    private static readonly JsonSerializerOptions Web = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter() } };

    /// <summary>
    /// Sequences of taps that both folds make from the same numbers (tests/lead-fuzz.json); what comes of all of them is one sum, which
    /// both must find. Whoever changes what a tap does writes the new sum there, after the other fold agrees with it.
    /// </summary>
    [Fact]
    public void Both_folds_agree_on_a_hundred_thousand_sequences()
    {
        using var file = JsonDocument.Parse(File.ReadAllText(Beside("lead-fuzz.json")));
        var (x, sum) = (file.RootElement.GetProperty("seed").GetUInt32(), 2166136261u);
        int Next(int below) => (int)(((x = unchecked((x * 1664525) + 1013904223)) >> 8) % (uint)below);
        void Add(long value) => sum = unchecked((sum ^ (uint)value) * 16777619);
        for (var i = 0; i < file.RootElement.GetProperty("sequences").GetInt32(); i++)
        {
            var (at, end) = (0, 0);
            ImmutableArray<SceneTime> scenes = [
                .. Enumerable.Range(0, 1 + Next(6)).Select(_ => new SceneTime(new Seconds(end += 1 + Next(40)), Next(4) == 0))];
            var state = LeadFold.Fold([], scenes);
            for (var taps = Next(14); taps > 0; taps--)
            {
                at += Next(30_000) - 2000;
                var kind = (LeadCommandKind)Next(13);
                var payload = new LeadPayload(
                    [.. Enumerable.Range(0, Next(4)).Select(_ => new SceneShift(Next(7), Next(60_000) - 40_000))],
                    Next(8) - 1);
                state = LeadFold.Next(state, new LeadCommand(Guid.Empty, kind, at, $"{Next(3)}", payload), scenes);
            }

            Add((int)state.Phase);
            Add(state.Position);
            Add(state.At);
            Add(state.Opened);
            Add(state.Leader is { } leader ? int.Parse(leader, CultureInfo.InvariantCulture) : -1);
            Add(state.PositionAt(at + 7000, scenes));
            foreach (var added in state.Added)
            {
                Add(added);
            }
        }

        Assert.Equal(file.RootElement.GetProperty("sum").GetUInt32(), sum);
    }

    internal static string Beside(string file, [CallerFilePath] string here = "") => Path.Combine(Path.GetDirectoryName(here)!, "..", file);
}
