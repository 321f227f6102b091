using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Every field of the language at once: read, kept and resolved.</summary>
public class WholeLanguageTests
{
    private const string Text = """
        {
          "format": "halterion-class", "version": 1, "title": "All of it", "notes": "", "slotMinutes": 180,
          "aim": "technique", "startSide": "right", "facing": "same", "count": "last5", "leadInSeconds": 7,
          "switchSeconds": 4, "library": "1",
          "blocks": [
            {
              "name": "Circuit", "notes": "n", "phase": "warmup", "format": "together", "order": "circuit", "rounds": 3,
              "sidePass": "station", "betweenStations": 12, "betweenRounds": [30, 45], "water": true, "gate": "bell",
              "keep": "droppable", "optionalRounds": 2, "leadInSeconds": 0, "startSide": "left", "count": "off",
              "recovery": [{ "tier": "main", "move": "skater", "step": "short" }, { "tier": "easier", "move": "squat" }],
              "stations": [
                {
                  "name": "Own name", "sides": "asWritten", "sharing": "turns", "switchSeconds": 0, "changeSeconds": 9,
                  "demoSeconds": 25, "waiting": [{ "tier": "main", "move": "wall-hinge" }],
                  "dose": [
                    { "kind": "reps", "amount": [{ "from": 8, "to": 12 }, 10], "side": "left", "tempo": "X-0.5-1.25-0",
                      "style": "oneAndAHalf", "pulsesPerRep": 3, "rounds": [1, 3], "move": "reverse-lunge",
                      "label": "Heavy", "loadKg": [12.5, 10], "effort": 8 },
                    { "kind": "rest", "amount": 15, "rounds": "all", "label": "Plates off" },
                    { "kind": "distance", "amount": 20, "pace": 1.25, "loadFactor": 0.75 },
                    { "kind": "open", "amount": 60 }
                  ],
                  "options": [
                    { "tier": "main", "move": "split-squat", "depth": "parallel", "support": "none", "base": "split",
                      "toes": "ahead", "step": "long", "trunk": "upright", "arms": "hips", "surface": "mat",
                      "heightCm": 0, "impact": "none", "band": "none", "grip": "neutral", "tempo": "3-1-1-0",
                      "load": { "implement": "dumbbell", "count": 2, "kg": 6.25, "position": "sides", "side": "both" },
                      "parts": { "3": { "move": "forward-lunge", "tempo": "1-0-1-0" } }, "note": "as shown" },
                    { "tier": "instead", "move": "glute-bridge", "scale": 1.5, "parts": { "1": { "scale": 0.5 } } }
                  ]
                }
              ]
            },
            { "name": "Own pace", "phase": "finisher", "order": "ownPace", "seconds": 300, "goalReps": 100, "goalShared": true,
              "stations": [{ "dose": [{ "kind": "reps", "amount": 10 }], "options": [{ "tier": "main", "move": "squat" }] }] },
            { "name": "Talk", "notes": "bye", "phase": "cooldown", "format": "talk", "seconds": 60, "keep": "normal" }
          ]
        }
        """;

    [Fact]
    public void It_is_read_without_a_fault_and_nothing_is_lost()
    {
        var plan = Plan(Text);
        Assert.Equal((Aim.Technique, Side.Right, Facing.Same, Counting.Last5), (plan.Aim, plan.StartSide, plan.Facing, plan.Count));
        var block = plan.Blocks[0];
        Assert.Equal((Side.Left, Counting.Off, Keep.Droppable, 2, true),
            (block.StartSide, block.Count, block.Keep, block.OptionalRounds, block.Water));
        Assert.Equal([Tier.Main, Tier.Easier], block.Recovery.Select(o => o.Tier));
        var station = block.Stations[0];
        Assert.Equal(
            ("Own name", true, 0, 9, 25),
            (station.Name, station.Turns, block.SwitchAt(station, 0).Value, block.ChangeTo(station, 0).Value, station.Demo.At(0).Value));
        var option = station.Main;
        Assert.Equal<(Depth?, StepLength?, decimal)>(
            (Depth.Parallel, StepLength.Long, 6.25m),
            (option.Manner.Depth, option.Manner.Step, option.Manner.Load!.Kg!.Value.Value));
        Assert.Equal(1.5m, station.Options[1].Manner.Scale);
        Assert.Equal(0.5m, station.Options[1].Parts[1].Manner.Scale);
        Assert.Equal((100, true, 300), (plan.Blocks[1].GoalReps!.Value, plan.Blocks[1].GoalShared, plan.Blocks[1].Length.Value));
        Assert.Equal((Keep.Normal, 60), (plan.Blocks[2].Keep, plan.Blocks[2].Length.Value));
    }

    [Fact]
    public void Move_and_tempo_come_from_the_part_then_its_entry_then_the_option_then_the_move()
    {
        var dose = Plan(Text).Blocks[0].Stations[0].Dose;
        Assert.Equal(("reverse-lunge", "X-0.5-1.25-0"), (dose[0].Move.Value, dose[0].Tempo!.Text));
        Assert.Equal(("forward-lunge", "1-0-1-0"), (dose[2].Move.Value, dose[2].Tempo!.Text));
        Assert.Equal(("split-squat", "3-1-1-0"), (dose[3].Move.Value, dose[3].Tempo!.Text));
        var own = Plan(Text).Blocks[1].Stations[0].Dose[0];
        Assert.Equal("2-0-1-0", own.Tempo!.Text);
    }

    [Fact]
    public void It_takes_what_the_rules_say()
    {
        // Round 1 of the circuit: demo 25; twice (turns) 12 reps of 1.5·(1 + 1.25) + 2·0.5 + 3 = 7.375 s → 88.5 → 89,
        // rest 15, 20 m at 1.25 s → 25, open 60: 189; the switch between the turns is 0. Round 2 leaves the reps out.
        // 10 reps in round 3: 73.75 → 74. In all 25 + 2·189 + 30 + 2·100 + 45 + 2·174 = 1026.
        var evaluation = Good(Text);
        Assert.Equal(1026, evaluation.Outline[0].End.Value);
        Assert.Equal(1026 + 7 + 300 + 60, evaluation.Totals.Seconds.Value);
        Assert.Equal((22, 0, 66), (evaluation.Totals.LeftReps, evaluation.Totals.RightReps, evaluation.Totals.Pulses));

        // Each open go of 60 s at 3-1-1-0 is about 12 reps, both legs, in three rounds.
        Assert.Equal((36, 36), (evaluation.Totals.LeftEstimatedReps, evaluation.Totals.RightEstimatedReps));
    }

    [Fact]
    public void A_cool_down_is_protected_unless_it_says_otherwise()
    {
        var talk = """{"name":"Down","phase":"cooldown","format":"talk","seconds":60}""";
        Assert.Equal(Keep.Protected, Plan(With(talk)).Blocks[0].Keep);
    }

    [Theory]
    [InlineData("""{"kind":"reps","amount":12}""", "", "12 reps")]
    [InlineData("""{"kind":"reps","amount":{"from":8,"to":12}}""", """ "sides":"each" """, "8–12 reps each side")]
    [InlineData("""{"kind":"reps","amount":20}""", """ "sides":"each","chunk":5 """, "20 reps each side, by 5")]
    [InlineData("""{"kind":"time","amount":40}""", """ "sides":"split" """, "40 s, half on each side")]
    [InlineData("""{"kind":"hold","amount":20},{"kind":"pulses","amount":10}""", "", "20 s hold + 10 pulses")]
    [InlineData("""{"kind":"reps","amount":16,"side":"alternate"}""", """ "sharing":"turns" """, "16 reps, alternating sides, in pairs")]
    [InlineData("""{"kind":"distance","amount":30},{"kind":"rest","amount":5},{"kind":"open","amount":45}""", "",
            "30 m + 5 s rest + up to 45 s")]
    public void A_target_always_says_whether_it_means_reps_or_seconds(string dose, string station, string words)
    {
        var block = Plan(With(Block("", Station(dose, station)))).Blocks[0];
        Assert.Equal(words, PlanWords.Target(block.Stations[0], block, 0));
    }

    [Fact]
    public void An_option_is_said_in_words()
    {
        var main = Plan(Text).Blocks[0].Stations[0].Main;
        Assert.Equal(
            "Split squat, to level thighs, split stance, toes forward, long step, trunk upright, arms hips, on a mat, 0 cm, tempo 3-1-1-0, "
            + "neutral grip, 2 × 6.25 kg dumbbell at the sides, as shown",
            PlanWords.Option(main, Library, new Preferences()));
        Assert.Equal(
            ("left foot in front", "right side"),
            (PlanWords.Of(Side.Left, Library.Find(main.Move)), PlanWords.Of(Side.Right, Library.Find(new MoveId("squat")))));
    }
}
