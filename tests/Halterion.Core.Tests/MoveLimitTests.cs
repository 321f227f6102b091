using System.Text.RegularExpressions;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Tests;

/// <summary>A move's own word on whom it is not for: its caution in the data, and what lifts it. Common practice.</summary>
public partial class MoveLimitTests
{
    private static readonly MoveLibrary Library = MoveLibrary.Load();

    private static string? WhyNot(string move, Limit limit, bool strict = false, Manner? manner = null, bool? lying = null) =>
        LimitTable.WhyNot(Library.Find(new MoveId(move))!, manner ?? new Manner(), Library, limit, strict, lying);

    [GeneratedRegex("""(?:with|for)(?: an?)? (?:sore|twisting) (?<parts>[^.;:]+)""", RegexOptions.IgnoreCase)]
    private static partial Regex Sore();

    [GeneratedRegex("""\b(?:not|nor|none|no (?:jumps|bounds))\b[^.;]*\b(?:in pregnancy)|down in pregnancy""", RegexOptions.IgnoreCase)]
    private static partial Regex Pregnant();

    [GeneratedRegex("""\bnot?\b[^.;]*\b(?:after birth)|down [^.;]*after birth""", RegexOptions.IgnoreCase)]
    private static partial Regex AfterBirth();

    private static readonly (string Word, Limit[] Limits)[] Parts =
    [
        ("back", [Limit.LowerBack]), ("neck", [Limit.Neck]), (
            "shoulder", [Limit.Shoulder]), ("wrist", [Limit.Wrist]), ("knee", [Limit.Knee]),
        ("groin", [Limit.Hip]), ("joint", [Limit.Knee, Limit.Hip, Limit.Ankle]),
    ];

    /// <summary>Limits that a caution speaks of and the data do not.</summary>
    private static Limit[] Missing(Move move)
    {
        // What it says of hops is said of the option that hops: the table has it.
        var text = move.Cautions.Replace("No hop in pregnancy or with sore joints.", "", StringComparison.Ordinal);
        var said = Sore()
            .Matches(text)
            .SelectMany(m => Parts.Where(p => m.Groups["parts"].Value.Contains(p.Word, StringComparison.OrdinalIgnoreCase))
            .SelectMany(p => p.Limits)).ToHashSet();
        if (Pregnant().IsMatch(text) || text.Contains("second trimester", StringComparison.Ordinal))
        {
            said.Add(Limit.Pregnancy);
        }

        if (AfterBirth().IsMatch(text))
        {
            said.Add(Limit.PelvicFloor);
        }

        if (text.Contains("fall risk", StringComparison.Ordinal) || text.Contains("not with unsure balance", StringComparison.Ordinal))
        {
            said.Add(Limit.Balance);
        }

        return [.. said.Where(limit => move.OwnLimits.All(l => l.Limit != limit)).Order()];
    }

    [Fact]
    public void Every_caution_stands_in_the_data() =>
        Assert.Equal([], Library.Moves.SelectMany(m => Missing(m).Select(l => $"{m.Id}: {l}: {m.Cautions}")));

    /// <summary>The reader above would see a caution that was forgotten.</summary>
    [Fact]
    public void A_caution_without_its_entry_is_found()
    {
        var told = Library.Moves.Where(m => m.OwnLimits.Length > 0).Sum(m => Missing(m with { Limits = [] }).Length);
        Assert.True(told > 100, $"Only {told} are read.");
        Assert.Equal([Limit.Knee, Limit.LowerBack, Limit.Pregnancy],
            Missing(Library.Find(new MoveId("wall-hinge"))! with { Cautions = "Not in pregnancy, nor with a sore back or knee." }));
    }

    [Theory]
    [InlineData("leg-lower", Limit.LowerBack, false)]
    [InlineData("hand-release-push-up", Limit.Pregnancy, false)]
    [InlineData("mountain-climber", Limit.Pregnancy, false)]
    [InlineData("opposite-toe-touch", Limit.Pregnancy, false)]
    [InlineData("turning-side-plank", Limit.Shoulder, false)]
    [InlineData("seated-figure-four", Limit.Knee, false)]
    [InlineData("seated-figure-four", Limit.Knee, true)]
    [InlineData("jump-squat", Limit.Hip, true)]
    [InlineData("skater-jump", Limit.Hip, false)]
    [InlineData("rack-squat", Limit.Wrist, false)]
    [InlineData("kettlebell-swing", Limit.Pregnancy, false)]
    [InlineData("kettlebell-swing", Limit.LowerBack, false)]
    [InlineData("kettlebell-swing", Limit.PelvicFloor, false)]
    [InlineData("stiff-leg-deadlift", Limit.LowerBack, false)]
    [InlineData("walking-lunge", Limit.Knee, false)]
    [InlineData("step-down", Limit.Knee, false)]
    [InlineData("down-dog", Limit.Shoulder, false)]
    [InlineData("frog-pump", Limit.Hip, false)]
    [InlineData("prone-back-lift", Limit.Pregnancy, false)]
    [InlineData("side-plank", Limit.Neck, true)]
    public void Not_offered(string move, Limit limit, bool strict) =>
        Assert.StartsWith($"{LimitTable.Named(limit)}: ", WhyNot(move, limit, strict), StringComparison.Ordinal);

    [Theory]
    [InlineData("wall-hinge", Limit.LowerBack, false)]
    [InlineData("glute-bridge", Limit.LowerBack, false)]
    [InlineData("glute-bridge", Limit.Knee, true)]
    [InlineData("split-squat", Limit.LowerBack, false)]
    [InlineData("dead-bug", Limit.Wrist, true)]
    [InlineData("side-leg-lift", Limit.Pregnancy, true)]
    [InlineData("clam", Limit.Knee, true)]
    [InlineData("standing-hip-extension", Limit.Knee, true)]
    [InlineData("march", Limit.Ankle, true)]
    [InlineData("side-plank", Limit.Wrist, false)]
    [InlineData("box-squat", Limit.Wrist, true)]
    [InlineData("wide-squat", Limit.Pregnancy, false)]
    [InlineData("goblet-squat", Limit.Balance, true)]
    [InlineData("calf-stretch", Limit.Ankle, false)]
    [InlineData("band-side-walk", Limit.LowerBack, true)]
    [InlineData("chair-squat", Limit.Knee, true)]
    [InlineData("chair-squat", Limit.Hip, true)]
    [InlineData("box-squat", Limit.Knee, true)]
    [InlineData("box-squat", Limit.Hip, false)]
    public void Still_offered(string move, Limit limit, bool strict) => Assert.Null(WhyNot(move, limit, strict));

    [Fact]
    public void What_an_option_does_otherwise_lifts_the_entry_that_names_it_and_no_other()
    {
        void Lifted(string move, Limit limit, Manner manner, bool strict = false)
        {
            Assert.NotNull(WhyNot(move, limit, strict));
            Assert.Null(WhyNot(move, limit, strict, manner));
        }

        Lifted("single-leg-deadlift", Limit.Balance, new Manner { Support = Support.Wall });
        Lifted("step-lift-hinge", Limit.Balance, new Manner { Support = Support.Chair });
        Lifted("skater-jump", Limit.Hip, new Manner { Impact = Impact.None });
        Lifted("jump-squat", Limit.PelvicFloor, new Manner { Impact = Impact.None });
        Lifted("plank", Limit.Pregnancy, new Manner { Support = Support.Knees });
        Lifted("bird-dog", Limit.Wrist, new Manner { Support = Support.Forearms });
        Lifted("squat", Limit.Knee, new Manner { Depth = Depth.Half });
        Lifted("squat", Limit.Knee, new Manner { Surface = Surface.Box, HeightCm = 45 });

        // A hand on the wall makes no jump soft, no pad a wrist straight, and a low box is no seat of knee height.
        Assert.NotNull(WhyNot("squat", Limit.Knee, strict: true, manner: new Manner { Surface = Surface.Box, HeightCm = 30 }));
        Assert.NotNull(WhyNot("single-leg-box-squat", Limit.Knee, strict: true, manner: new Manner { HeightCm = 45 }));
        Assert.NotNull(WhyNot("jump-squat", Limit.Hip, manner: new Manner { Support = Support.Wall }));
        Assert.NotNull(WhyNot("bird-dog", Limit.Wrist, manner: new Manner { Surface = Surface.Pad }));
        Assert.NotNull(WhyNot("push-up", Limit.Wrist, manner: new Manner { Support = Support.Knees }));
        Assert.NotNull(WhyNot("turning-side-plank", Limit.Pregnancy, manner: new Manner { Support = Support.Knees }));
        Assert.NotNull(WhyNot("leg-lower", Limit.LowerBack, manner: new Manner { Depth = Depth.Half }));
    }

    [Fact]
    public void Lying_on_the_back_is_no_work_in_a_cool_down_but_a_caution_of_another_kind_is_the_same_there()
    {
        Assert.NotNull(WhyNot("glute-bridge", Limit.Pregnancy, lying: true));
        Assert.Null(WhyNot("glute-bridge", Limit.Pregnancy, lying: false));
        Assert.NotNull(WhyNot("hand-release-push-up", Limit.Pregnancy, lying: false));
        Assert.NotNull(WhyNot("leg-lower", Limit.LowerBack, lying: false));
    }

    /// <summary>No entry is about a limit twice over in the same words, and each names what a person can read.</summary>
    [Fact]
    public void Entries_are_told_apart_and_readable()
    {
        foreach (var move in Library.Moves)
        {
            Assert.Equal(move.OwnLimits.Length, move.OwnLimits.Select(l => (l.Limit, l.Why)).Distinct().Count());
            Assert.All(move.OwnLimits, l => Assert.Matches("^[a-z].{6,110}[^.]$", l.Why));
        }
    }
}
