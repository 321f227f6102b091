using CsCheck;
using Halterion.Core.Body;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>What holds for any valid class.</summary>
public class ClockPropertyTests
{
    [Fact]
    public void The_compiler_agrees_with_a_second_writing_of_the_language() => RandomClasses.Text.Sample(
        text =>
        {
            var evaluation = Good(text);
            Assert.Equal(ReferenceClock.Spans(Json(text)), evaluation.Spans.Select(Line));
            Assert.Equal(ReferenceClock.Goals(Json(text)), evaluation.Goals.Select(g => g.Seconds.Value));
        },
        iter: 5000);

    private static string Line(Span s)
    {
        string?[] place =
        [
            s.Shows is { } shows ? $"shows-{shows}" : null,
            s.Round is { } round ? $"round{round}" : null,
            s.Station is { } station ? $"station{station}" : null,
            s.Pass is { } pass ? $"pass{pass}" : null,
            s.Turn is { } turn ? $"turn{turn}" : null,
            s.Leg is { } leg ? $"leg{leg}" : null,
            s.Part is { } part ? $"part{part}" : null,
            s.Side is { } side ? $"side-{side.ToString().ToLowerInvariant()}" : null,
        ];
        var kind = System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(s.Kind.ToString());
        return string.Join(' ', new[] { $"{s.Start.Value}-{s.End.Value}", kind, $"block{s.Block}" }.Concat(place.OfType<string>()));
    }

    [Fact]
    public void Spans_are_contiguous_and_the_shares_sum() => RandomClasses.Text.Sample(text =>
    {
        var evaluation = Good(text);
        var at = 0;
        foreach (var span in evaluation.Spans)
        {
            Assert.Equal(at, span.Start.Value);
            Assert.True(span.End > span.Start);
            at = span.End.Value;
        }

        var t = evaluation.Totals;
        Assert.Equal(at, t.Seconds.Value);
        Assert.Equal(
            t.Seconds, t.WorkSeconds + t.SwitchSeconds + t.ChangeSeconds + t.RestSeconds + t.WaitSeconds + t.LeadInSeconds + t.TalkSeconds);
        Assert.Equal(at - 45 * 60, t.OverSeconds.Value);
        Assert.Equal(at, evaluation.Outline[^1].End.Value);
    });

    [Fact]
    public void A_stay_fills_its_window_or_is_cut_by_the_bell() => RandomClasses.Text.Sample(text =>
    {
        foreach (var stay in Good(text).Stays)
        {
            var done = stay.Spans.IsEmpty ? Seconds.Zero : stay.Spans[^1].End;
            Assert.Equal(stay.Needed < stay.Window ? stay.Needed : stay.Window, done);
            Assert.Equal(stay.Window, done + stay.SpareSeconds);
        }
    });

    [Fact]
    public void Doubling_the_seconds_of_timed_work_doubles_the_work() =>
        Gen.Select(Gen.Int[1, 900].Array[1, 6], Gen.Int[1, 5]).Sample((amounts, rounds) =>
        {
            int Work(int times) => Good(With(Block(
                $"\"rounds\":{rounds}",
                [.. amounts.Select(a => Station($$"""{"kind":"time","amount":{{a * times}}}"""))]))).Totals.WorkSeconds.Value;
            Assert.Equal(2 * Work(1), Work(2));
        });

    /// <summary>The same arithmetic done another way: in hundredths of a second, part by part, without spans.</summary>
    [Fact]
    public void Reps_take_amount_times_rep_rounded_up_on_each_side() =>
        Gen.Select(
            Gen.Int[1, 200], Gen.Int[1, 999], Gen.Int[0, 999], Gen.Int[1, 50], Gen.Int[0, 9]).Sample((reps, lower, lift, chunk, change) =>
        {
            var tempo = $"{lower / 100}.{lower % 100:00}-0-{lift / 100}.{lift % 100:00}-0";
            var text = With(Block(
                """ "leadInSeconds":0 """,
                Station($$"""{"kind":"reps","amount":{{reps}},"tempo":"{{tempo}}"}""",
                    $"\"sides\":\"each\",\"chunk\":{chunk},\"switchSeconds\":{change}")));
            var goes = Enumerable.Repeat(chunk, reps / chunk).Append(reps % chunk).Where(n => n > 0).ToArray();
            var oneSide = goes.Sum(n => (n * (lower + lift) + 99) / 100);
            var totals = Good(text).Totals;
            Assert.Equal(2 * oneSide + (2 * goes.Length - 1) * change, totals.Seconds.Value);
            Assert.Equal((reps, reps), (totals.LeftReps, totals.RightReps));
        });
}
