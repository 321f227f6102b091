using System.Text.Json;
using System.Text;
using System.Text.Json.Nodes;
using CsCheck;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>The trade's short form of a dose, and back.</summary>
public class ShortDoseTests
{
    [Fact]
    public void What_is_shown_is_read_back_as_the_same_dose() => RandomClasses.Text.Sample(text =>
    {
        foreach (var block in Json(text)["blocks"]!.AsArray())
        {
            foreach (var station in (block!["stations"]?.AsArray() ?? []).Select(s => s!.AsObject()))
            {
                var plan = ClassReader.ReadBlock(block.AsObject(), Library).Plan!;
                var shown = plan.Blocks[0].Stations[block["stations"]!.AsArray().IndexOf(station)];
                var (typed, fault) = ShortDoseReader.Read(ShortDose.Of(shown));
                Assert.True(fault is null, $"{ShortDose.Of(shown)}: {fault}");
                var changed = block.DeepClone().AsObject();
                typed!.PutInto(changed, changed["stations"]!.AsArray()[station.GetElementIndex()]!.AsObject());
                var again = ClassReader.ReadBlock(changed, Library);
                Assert.Empty(again.Faults);
                Assert.Equal(ShortDose.Of(shown), ShortDose.Of(again.Plan!.Blocks[0].Stations[station.GetElementIndex()]));
                Assert.Equal(Desk.Evaluate(plan).Evaluation!.Totals, Desk.Evaluate(again.Plan!).Evaluation!.Totals);
            }
        }
    });

    [Theory]
    [InlineData("3 × 12 each side @ 3-1-1-0, rest 60", "12 @ 3-1-1-0 each side", 3, 60)]
    [InlineData("3x12/side", "12 each side", 3, null)]
    [InlineData("4 sets of 8-12 reps", "8–12", 4, null)]
    [InlineData("45 sec half/half", "45 s half on each side", null, null)]
    [InlineData("2 min", "120 s", null, null)]
    [InlineData("20/15/12", "20/15/12", null, null)]
    [InlineData("16 alt", "16 alternating", null, null)]
    [InlineData("1:30", "90 s", null, null)]
    [InlineData("45 sec/side", "45 s each side", null, null)]
    [InlineData("10-10-10", "10/10/10", null, null)]
    [InlineData("AMRAP 60 s", "max 60 s", null, null)]
    [InlineData("20 reps then hold 15 s", "20 + 15 s hold", null, null)]
    [InlineData("2 x 10/side", "10 each side", 2, null)]
    [InlineData("x20", "20", null, null)]
    [InlineData("×12 ea", "12 each side", null, null)]
    [InlineData("20 ea.", "20 each side", null, null)]
    [InlineData("5 right 5 left", "5 right + 5 left", null, null)]
    [InlineData("40 s left 40 s right", "40 s left + 40 s right", null, null)]
    [InlineData("8 @30X0", "8 @ 3-0-X-0", null, null)]
    [InlineData("max 1:00 then rest 15 s + 8-10 each", "max 60 s + 15 s rest + 8–10 each side", null, null)]
    [InlineData("20s hold then 10 pulses", "20 s hold + 10 pulses", null, null)]
    [InlineData("50 each side by 10 @ 1-0-x-0", "50 @ 1-0-X-0 each side by 10", null, null)]
    [InlineData("max 60 s in turns rest 2 min", "max 60 s in turns", null, 120)]
    [InlineData(
        "10 left of reverse-lunge + 10 right \"Heavy\" effort 8 (rounds 1, 3)",
        "10 left of reverse-lunge + 10 right effort 8 (rounds 1, 3) \"Heavy\"",
        null,
        null)]
    public void The_trades_ways_of_writing_are_read(string typed, string shown, int? rounds, int? rest)
    {
        var (dose, fault) = ShortDoseReader.Read(typed);
        Assert.True(fault is null, fault?.ToString());
        Assert.Equal((rounds, rest), (dose!.Rounds, dose.Rest));
        var block = Json(Block("", Station("""{"kind":"time","amount":1}"""))).AsObject();
        dose.PutInto(block, block["stations"]![0]!.AsObject());
        var read = ClassReader.ReadBlock(block, Library);
        Assert.Empty(read.Faults);
        Assert.Equal(shown, ShortDose.Of(read.Plan!.Blocks[0].Stations[0]));
    }

    [Theory]
    [InlineData("", 0)]
    [InlineData("each side", 0)]
    [InlineData("12 @ 3-1", 5)]
    [InlineData("12 each side sideways", 13)]
    [InlineData("12 + ", 5)]
    [InlineData("99 x 5", 0)]
    [InlineData("12 to failure", 13)]
    [InlineData("12 slow", 3)]
    [InlineData("max 12 reps", 11)]
    [InlineData("12-8", 4)]
    [InlineData("3600 min", 8)]
    [InlineData("1:75", 4)]
    [InlineData("@30X0", 0)]
    public void What_cannot_be_read_is_named_where_it_stands(string typed, int at)
    {
        var (dose, fault) = ShortDoseReader.Read(typed);
        Assert.Null(dose);
        Assert.True(fault!.Detail.Length > 0 && fault.Right.Length > 0);
        Assert.InRange(fault.At, at, typed.Length);
    }

    /// <summary>Falling targets, hold and pulses: handbook, section 3.</summary>
    [Theory]
    [InlineData("20/15/12 + 15 s hold (last round) + 15 pulses (last round), each side", 3,
        "20, then 15, then 12 reps; in the last round also 15 s hold and 15 pulses; all of one side, then the other", "")]
    [InlineData("20/15/12/10", 3, "20, then 15, then 12 reps", "The block stays: 3 rounds, so only the first 3 of 4 targets are used.")]
    [InlineData("2 x 10, rest 45", 3, "10 reps", "This also changes the block: 2 rounds, 45 s between rounds.")]
    [InlineData("3 x 45 s half a side", 3, "45 s; half on each side", "The block does not change.")]
    public void A_dose_is_echoed_whole_with_what_it_does_to_the_block(string typed, int rounds, string whole, string beside)
    {
        var dose = ShortDoseReader.Read(typed).Dose!;
        var block = Json(Block($"\"rounds\":{rounds},\"betweenRounds\":30", Station("""{"kind":"time","amount":1}"""))).AsObject();
        var before = block.DeepClone().AsObject();
        dose.PutInto(block, block["stations"]![0]!.AsObject());
        var read = ClassReader.ReadBlock(block, Library).Plan!.Blocks[0];
        Assert.Equal((whole, beside), (PlanWords.Whole(read.Stations[0], read), dose.Beside(before, read)));
    }

    [Theory]
    [InlineData("20/15/12", 3, 5, "20/15/12/9/6")]
    [InlineData("4/2", 2, 4, "4/2/1/1")]
    [InlineData("5/10", 2, 3, "5/10/15")]
    [InlineData("10/12/10", 3, 4, "10/12/10/10")]
    [InlineData("20/15/12", 2, 4, "20/15/12")]
    [InlineData("20/15/12", 3, 2, "20/15/12")]
    [InlineData("8–12/6–10", 2, 3, "8–12/6–10/6–10")]
    public void Listed_targets_go_on_as_they_went_when_rounds_are_added(string dose, int before, int after, string then)
    {
        var block = Json(Block($"\"rounds\":{before}", Station("""{"kind":"time","amount":1}"""))).AsObject();
        ShortDoseReader.Read(dose).Dose!.PutInto(block, block["stations"]![0]!.AsObject());
        MoreRounds.Put(block, after);
        var read = ClassReader.ReadBlock(block, Library).Plan!.Blocks[0];
        Assert.Equal((after, then), (read.Rounds, ShortDose.Of(read.Stations[0])));
    }

    [Fact]
    public void A_list_of_moves_is_read_line_by_line_and_what_is_unknown_is_asked()
    {
        var starters = new Starters(Library, new Preferences());
        var lines = PastedMoves.Read("1. Bodyweight squats: 15\n- 12 reverse lunge\n\nhip thrust 3-2-1\nPlank\nWobble dance 20 s\nSplit "
            + "squat 12 sideways", Library, starters, false, ShortDoseReader.Read("40 s").Dose, () => false).Lines;
        Assert.Equal(["Bodyweight squat 15", "Reverse lunge 12 each side", "Hip thrust 3/2/1", "Plank 40 s hold"], lines.Take(4)
            .Select(l => $"{l.Name} {Dose(l)}"));
        Assert.All(lines.Skip(4), l => Assert.Null(l.Station));
        Assert.Equal("20 s", lines[4].Dose);
        Assert.Contains("No move is called", lines[4].Trouble, StringComparison.Ordinal);
        Assert.Contains("not understood", lines[5].Trouble, StringComparison.Ordinal);

        static string Dose(PastedLine line)
        {
            var block = Json(Block("", "{}")).AsObject();
            block["stations"] = new JsonArray(line.Station!.DeepClone());
            return ShortDose.Of(ClassReader.ReadBlock(block, Library).Plan!.Blocks[0].Stations[0]);
        }
    }

    [Theory]
    [InlineData("8 split squats each side", "8 reps; all of one side, then the other", null)]
    [InlineData("Split squat x12 each", "12 reps; all of one side, then the other", null)]
    [InlineData("8 goblet squats", "Goblet squat is another move.", 2)]
    [InlineData("12 hip hinges", "Hip hinge is another move.", 3)]
    [InlineData("8 split squats sideways", "This is not understood here.", 15)]
    public void A_target_may_name_the_move_it_stands_at(string typed, string words, int? at)
    {
        var file = With(Block("", """
            {"id":"here","dose":[{"kind":"reps","amount":5}],"sides":"each","options":[{"tier":"main","move":"split-squat"}]}
            """));
        var result = DoseTyping.Dose(typed, JsonElement.Parse(Encoding.UTF8.GetBytes(file)), "here", Desk)!;
        Assert.Equal(words, result.Read?.Words ?? result.Problem!.Detail);
        Assert.Equal(at, result.Problem?.At);
    }

    [Fact]
    public void A_new_station_is_dosed_like_its_neighbours_where_its_move_can_be()
    {
        var starters = new Starters(Library, new Preferences());
        string Like(string move, string like)
        {
            var block = Json(Block("", "{}")).AsObject();
            block["stations"] = new JsonArray(
                starters.Station(Library.Find(new MoveId(move))!, like: ShortDoseReader.Read(like).Dose).Station.DeepClone());
            return ShortDose.Of(ClassReader.ReadBlock(block, Library).Plan!.Blocks[0].Stations[0]);
        }

        Assert.Equal(["40 s", "40 s half on each side", "40 s hold", "20/15/12 each side"],
            [Like("squat", "40 s"), Like("split-squat", "40 s half a side"), Like("plank", "40 s"), Like("split-squat", "20/15/12")]);
    }

    [Fact]
    public void Whatever_is_typed_it_never_throws() =>
        Gen.Char["0123456789 ×x@-–/+.,%()\"aehklmnoprst"].Array[0, 30].Select(c => new string(c)).Sample(text =>
        {
            var (dose, fault) = ShortDoseReader.Read(text);
            Assert.NotEqual(dose is null, fault is null);
        }, iter: 20_000);

    [Fact]
    public void Every_form_in_the_help_is_read() => Assert.All(ShortDose.Forms, form => Assert.Null(ShortDoseReader.Read(form.Form).Fault));

    /// <summary>Nothing is left out in silence: neither for want of room nor for want of time.</summary>
    [Fact]
    public void A_long_list_is_read_to_its_end_or_says_how_much_is_left()
    {
        var starters = new Starters(Library, new Preferences());
        var text = string.Join('\n', Enumerable.Range(0, 38).Select(i => $"{i + 1}. squat {i + 1}"));
        var all = PastedMoves.Read(text, Library, starters, false, null, () => false);
        Assert.Equal((38, 0), (all.Lines.Count(l => l.Station is not null), all.Left));
        var asked = 0;
        var slow = PastedMoves.Read(text, Library, starters, false, null, () => true);
        Assert.Equal((38, 0), (slow.Lines.Length, slow.Left));
        var some = PastedMoves.Read(string.Join('\n', Enumerable.Repeat(text, 3)), Library, starters, false, null, () => ++asked > 9);
        Assert.Equal((73, 41), (some.Lines.Length, some.Left));
        var endless = PastedMoves.Read(new string('x', 5000), Library, starters, false, null, () => false);
        Assert.Contains("too long", Assert.Single(endless.Lines).Trouble, StringComparison.Ordinal);
    }
}
