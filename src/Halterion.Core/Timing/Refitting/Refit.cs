using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Timing.Refitting;

/// <summary>Where a class under way is.</summary>
/// <param name="Lengths">What each span of the plan takes as things stand, in seconds: planned, or changed on the way; 0: left out.</param>
/// <param name="UnderWay">The span that it is in; the number of spans: it is over; -1: it has not begun, and nothing is under way.</param>
/// <param name="Elapsed">How much of that span has run.</param>
public sealed record ClassUnderWay(ImmutableArray<int> Lengths, int UnderWay, Seconds Elapsed)
{
    /// <summary>A class that runs as planned.</summary>
    /// <param name="position">From the start of the class; at a span's end the next one is under way. At 0 it has not begun.</param>
    public static ClassUnderWay At(Timeline timeline, Seconds position)
    {
        if (position == Seconds.Zero)
        {
            return new ClassUnderWay([.. timeline.Spans.Select(s => s.Length().Value)], NotBegun, Seconds.Zero);
        }

        var at = 0;
        while (at < timeline.Spans.Length && timeline.Spans[at].End <= position)
        {
            at++;
        }

        return new ClassUnderWay(
            [.. timeline.Spans.Select(s => s.Length().Value)],
            at,
            at < timeline.Spans.Length ? position - timeline.Spans[at].Start : Seconds.Zero);
    }

    /// <summary>Nothing is under way yet: a welcome is as far ahead as anything.</summary>
    public const int NotBegun = -1;

    /// <summary>What is left of a span.</summary>
    public int LeftOf(int span) => span < UnderWay ? 0 : span == UnderWay ? Math.Max(0, Lengths[span] - Elapsed.Value) : Lengths[span];

    /// <summary>What is still to come of it.</summary>
    public Seconds Left => new(Enumerable.Range(0, Lengths.Length).Sum(LeftOf));
}

/// <summary>A way back: what changes in the rest of a class under way.</summary>
/// <param name="Spans">The rest of the class as it would run, from 0; the first is what is left of the span under way.</param>
public sealed record RefitWay(string Title, int Cost, Seconds EndsInSeconds, ImmutableArray<Span> Spans, ImmutableArray<string> Changes)
{
    /// <summary>The spans that take another time, with all they then take.</summary>
    [JsonIgnore]
    public ImmutableArray<NewLength> Lengths { get; init; } = [];
}

/// <summary>Up to three ways back, the cheapest first; where none ends in time, the one that ends soonest.</summary>
/// <param name="ShortBy">By how many seconds even the soonest end is late; 0: it ends in time.</param>
/// <param name="Obstacles">Limits in the way, where none ends in time.</param>
public sealed record RefitResult(ImmutableArray<RefitWay> Ways, Seconds ShortBy, ImmutableArray<FitObstacle> Obstacles);

/// <summary>
/// Brings a class that runs late home on time: changes what is still to come, at the lowest cost by the weights of
/// <see cref="FitTerms"/>. What is past, what is under way but for a rest, and what is protected stays; nothing gets longer.
/// Spare time costs nothing; of equal costs the latest end. Pure.
/// </summary>
public static class Refit
{
    private const int Offers = 3;

    /// <param name="remaining">Seconds until it is to end; may be past.</param>
    public static RefitResult Of(ClassPlan plan, Timeline timeline, ClassUnderWay now, Seconds remaining, FitTerms terms)
    {
        if (now.Left <= remaining)
        {
            return new RefitResult([Way(timeline, now, new FitSolution(now.Left.Value, 0, []))], Seconds.Zero, []);
        }

        var model = Model(plan, timeline, now, remaining.Value, terms);
        if (FitSolver.Solve(model, 0) is not { } best)
        {
            var soonest = FitSolver.Solve(model with { Slot = model.Least }, 0)!;
            return new RefitResult(
                [Way(timeline, now, soonest)],
                new Seconds(model.Least) - remaining,
                Obstacles(plan, timeline, now, terms, model.Least));
        }

        var used = best.Picks.Aggregate(FitKinds.None, (kinds, pick) => kinds | pick.Kind);
        FitKinds[] others =
        [
            FitKinds.Rest | FitKinds.Change | FitKinds.Talk,
            FitKinds.Work,
            FitKinds.Rounds | FitKinds.Blocks,
            .. Enum.GetValues<FitKinds>()
                .Where(k => k is not (FitKinds.None or FitKinds.All) && (used & k) != 0)
                .Select(k => FitKinds.All & ~k),
        ];
        var found = new List<FitSolution> { best };
        foreach (var kinds in others)
        {
            if (FitSolver.Solve(model.Only(kinds), 0) is { } other && !found.Exists(f => Fit.Same(f, other)))
            {
                found.Add(other);
            }
        }

        var rest = found.Skip(1).OrderBy(f => f.Cost).ThenByDescending(f => f.Seconds);
        return new RefitResult([.. rest.Take(Offers - 1).Prepend(best).Select(f => Way(timeline, now, f))], Seconds.Zero, []);
    }

    /// <summary>The rest of the class as a choice of branches and levers.</summary>
    public static FitModel Model(ClassPlan plan, Timeline timeline, ClassUnderWay now, int remaining, FitTerms terms, bool unlock = false)
    {
        var blocks = ImmutableArray.CreateBuilder<FitBlock>();
        var first = 0;
        while (first < timeline.Spans.Length)
        {
            var block = timeline.Spans[first].Block;
            var last = first;
            while (last < timeline.Spans.Length && timeline.Spans[last].Block == block)
            {
                last++;
            }

            blocks.Add(new RefitBlockBuilder(plan, block, timeline, first, last, now, terms).Build(unlock));
            first = last;
        }

        return new FitModel(blocks.ToImmutable(), remaining);
    }

    private static RefitWay Way(Timeline timeline, ClassUnderWay now, FitSolution solution)
    {
        var lengths = now.Lengths.ToArray();
        var changed = solution.Picks.SelectMany(p => p.Step.Lengths).ToImmutableArray();
        foreach (var change in changed)
        {
            lengths[change.Span] = change.Seconds;
        }

        return new RefitWay(
            Fit.Title(solution),
            solution.Cost,
            new Seconds(solution.Seconds),
            Rest(timeline, now with { Lengths = [.. lengths] }),
            [.. solution.Picks.Select(p => p.Step.Words)])
        {
            Lengths = [.. lengths.Select((seconds, i) => new NewLength(i, seconds)).Where(l => l.Seconds != now.Lengths[l.Span])],
        };
    }

    private static ImmutableArray<Span> Rest(Timeline timeline, ClassUnderWay now)
    {
        var spans = ImmutableArray.CreateBuilder<Span>();
        var at = Seconds.Zero;
        for (var i = Math.Max(0, now.UnderWay); i < timeline.Spans.Length; i++)
        {
            if (now.LeftOf(i) is > 0 and var left)
            {
                spans.Add(timeline.Spans[i] with { Start = at, End = at + new Seconds(left) });
                at += new Seconds(left);
            }
        }

        return spans.ToImmutable();
    }

    /// <summary>What the waits of blocks with timed starts hold: each interval begins on its time however quick the work was.</summary>
    private static int OnTheClock(ClassPlan plan, Timeline timeline, ClassUnderWay now) => Enumerable.Range(0, timeline.Spans.Length)
        .Where(i => i > now.UnderWay && timeline.Spans[i].Kind == SpanKind.Wait
            && plan.Blocks[timeline.Spans[i].Block].StartEvery is not null)
        .Sum(now.LeftOf);

    private static ImmutableArray<FitObstacle> Obstacles(ClassPlan plan, Timeline timeline, ClassUnderWay now, FitTerms terms, int least)
    {
        int Won(FitTerms without, bool unlock = false, ClassPlan? other = null) =>
            least - Model(other ?? plan, timeline, now, 0, without, unlock).Least;
        string Named(Func<Block, bool> which) => string.Join(
            " and ", plan.Blocks.Where((b, i) => which(b) && timeline.Spans.Select((s, at) => (s.Block, at)).Any(s => s.Block == i
                && s.at > now.UnderWay))
                .Select(b => b.Name));
        (string Limit, int Seconds)[] limits =
        [
            ($"Shortest rest or talk ({terms.RestFloor} s)", Won(terms with { RestFloor = 0 })),
            ($"Shortest work interval ({terms.WorkFloor} s, at most a third shorter)", Won(terms with { WorkFloor = 5,
                WorkPercent = 90 })),
            ($"{Named(b => b.Keep == Keep.Protected)} is kept in full", Won(terms, unlock: true)),
            ($"The timed starts of {Named(b => b.StartEvery is not null)}", OnTheClock(plan, timeline, now)),
        ];
        return
        [
            .. limits.Where(l => l.Seconds > 0).OrderByDescending(l => l.Seconds)
                .Select(l => new FitObstacle(l.Limit, new Seconds(l.Seconds))),
        ];
    }
}
