using CsCheck;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Views;
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
    [InlineData("45 sec half/half", "45 s half a side", null, null)]
    [InlineData("2 min", "120 s", null, null)]
    [InlineData("20/15/12", "20/15/12", null, null)]
    [InlineData("16 alt", "16 alternating", null, null)]
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
    [InlineData("max 12 reps", 11)]
    [InlineData("12-8", 4)]
    [InlineData("3600 min", 8)]
    public void What_cannot_be_read_is_named_where_it_stands(string typed, int at)
    {
        var (dose, fault) = ShortDoseReader.Read(typed);
        Assert.Null(dose);
        Assert.True(fault!.Detail.Length > 0 && fault.Right.Length > 0);
        Assert.InRange(fault.At, at, typed.Length);
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
}
