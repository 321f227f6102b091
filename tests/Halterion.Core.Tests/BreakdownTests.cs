using CsCheck;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Where the time goes, by hand and for any class.</summary>
public class BreakdownTests
{
    [Fact]
    public void Each_leg_and_each_family_gets_what_was_dosed()
    {
        // Split squat 8 each side at 3 s a rep, twice: 24 s and 8 reps a leg a round. Hinge 30 s: both legs. March: alternating.
        const string Split =
            """{"sides":"each","dose":[{"kind":"reps","amount":8,"tempo":"2-0-1-0"}],"options":[{"tier":"main","move":"split-squat"}]}""";
        const string Hinge = """{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"hip-hinge"}]}""";
        const string Alternating =
            """{"dose":[{"kind":"time","amount":31,"side":"alternate"}],"options":[{"tier":"main","move":"reverse-lunge"}]}""";
        var breakdown = Of(With(Block(""" "rounds":2,"betweenRounds":30 """, Split, Hinge, Alternating)));
        var shares = breakdown.Families.ToDictionary(f => f.Family);
        Assert.Equal((2 * (48 + 31), 16, 16),
            (shares[Family.Lunge].WorkSeconds.Value, shares[Family.Lunge].LeftReps, shares[Family.Lunge].RightReps));
        Assert.Equal(60, shares[Family.Hinge].WorkSeconds.Value);

        // Of the 31 s the side that starts, left, has the odd one.
        Assert.Equal((2 * (24 + 30 + 16), 2 * (24 + 30 + 15)), (breakdown.LeftSeconds.Value, breakdown.RightSeconds.Value));
    }

    [Fact]
    public void In_a_rotation_everyone_does_every_station_and_of_two_turns_one()
    {
        var rotation = Of(
            With(
                Block(
                    """ "format":"rotation","windowSeconds":40,"rounds":2,"betweenStations":15 """,
                    Station("""{"kind":"time","amount":40}"""),
                    Station("""{"kind":"time","amount":40}"""))));
        Assert.Equal(2 * 2 * 40, Assert.Single(rotation.Families).WorkSeconds.Value);
        var shared = Of(With(Block("", Station("""{"kind":"reps","amount":10,"tempo":"2-0-1-0"}""", """ "sharing":"turns" """))));
        Assert.Equal((30, 10L), (Assert.Single(shared.Families).WorkSeconds.Value, shared.Families[0].LeftReps));
    }

    [Fact]
    public void Families_together_work_no_longer_than_the_class_and_no_leg_longer_than_they() => RandomClasses.Text.Sample(text =>
    {
        var evaluation = Desk.Evaluate(text);
        var breakdown = Breakdown.Of(evaluation.Plan!, evaluation.Timeline!);
        var work = breakdown.Families.Sum(f => f.WorkSeconds.Value);
        Assert.InRange(breakdown.LeftSeconds.Value, 0, work);
        Assert.InRange(breakdown.RightSeconds.Value, 0, work);
        Assert.True(breakdown.LeftSeconds.Value + breakdown.RightSeconds.Value >= work);
        Assert.True(work <= evaluation.Timeline!.Spans.Sum(s => s.Length().Value));
    }, iter: 300);

    private static Breakdown Of(string text)
    {
        var plan = Plan(text);
        return Breakdown.Of(plan, Compiler.Compile(plan).Timeline!);
    }
}
