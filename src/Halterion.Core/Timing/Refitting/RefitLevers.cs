using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Timing.Refitting;

/// <summary>What may be shorter in the rest of one block (Refit's levers), each with all lengths that it can give its spans.</summary>
internal sealed class RefitLevers(ClassPlan plan, int index, Timeline timeline, int first, int end, ClassUnderWay now, FitTerms terms)
{
    /// <summary>A drink takes this long. [M]</summary>
    private const int Drink = 30;

    private const int Longest = 600;

    private readonly Block block = plan.Blocks[index];
    private int[]? compiled;

    /// <param name="gone">Spans that are left out.</param>
    public IEnumerable<FitLever> All(Func<int, bool> gone)
    {
        yield return Shifts(FitKinds.Rest, "rest", IsRest, i => now.UnderWay == i ? now.Elapsed.Value : 0, gone);
        yield return Shifts(FitKinds.Talk, "talk", i => timeline.Spans[i].Kind == SpanKind.Talk && i > now.UnderWay, _ => 0, gone);
        foreach (var lever in Changes(gone).Concat(Work(gone)))
        {
            yield return lever;
        }
    }

    /// <summary>
    /// The round that a span belongs to, from 0; the rest before it too. None: the lead-in, and the rest after the block.
    /// </summary>
    public int RoundOf(int span) => timeline.Spans[span].Round ?? -1;

    private int PlannedOf(int span) => timeline.Spans[span].Length().Value;

    private bool IsRest(int i) => timeline.Spans[i] is { Kind: SpanKind.Rest, Gap: Gap.Rounds or Gap.End };

    private IEnumerable<int> Ahead => Enumerable.Range(first, end - first).Where(i => i >= now.UnderWay);

    private int FloorOf(int span) =>
        Math.Min(PlannedOf(span),
            timeline.Spans[span].IsDrinkIn(block) ? Drink : terms.RestFloor);

    /// <summary>Spans that become shorter by the same number of seconds, each down to its floor.</summary>
    private FitLever Shifts(FitKinds kind, string what, Func<int, bool> takes, Func<int, int> run, Func<int, bool> gone)
    {
        var spans = Ahead.Where(i => takes(i) && now.Lengths[i] > 0).ToArray();
        int Shifted(int i, int by) => Math.Min(now.Lengths[i], Math.Max(run(i), Math.Max(FloorOf(i), PlannedOf(i) - by)));
        return Lever(
            kind,
            spans,
            Enumerable.Range(1, Longest / FitTerms.Step).Select(n => n * FitTerms.Step),
            Shifted,
            by => terms.Cost(terms.RestWeight, spans.Sum(i => now.Lengths[i] - Shifted(i, by)), spans.Sum(PlannedOf)),
            by => $"{block.Name}: {what} {Listed(spans, i => now.Lengths[i])} → {Listed(spans, i => Shifted(i, by))}",
            gone);
    }

    /// <summary>The block's change and each station's own.</summary>
    private IEnumerable<FitLever> Changes(Func<int, bool> gone)
    {
        if (!block.Shape.HasChanges)
        {
            yield break;
        }

        var needs = ChangeOver.Of(block, plan.Moves, terms.Changes);
        var rotation = block.Shape == BlockShape.Rotation;
        var shared = Enumerable.Range(0, block.Stations.Length)
            .Where(i => rotation || (i > 0 && !block.Stations[i].HasOwnChange))
            .ToArray();
        var drink = block is { Water: true, Shape.DrinkGap: Gap.Stations };
        var between = block.BetweenStations.Value;
        yield return Change(
            $"{block.Name}: changeovers",
            [block.BetweenStations],
            [.. shared.Select(i => Least(i, needs))],
            drink,
            v => block with { BetweenStations = v[0] },
            gone);
        for (var i = 0; i < block.Stations.Length && !rotation; i++)
        {
            var (station, place) = (block.Stations[i], i);
            if (station.OwnChange is { } own)
            {
                yield return Change(
                    $"{block.Name}: changeover to {station.Name}",
                    own.Values,
                    [i == 0 && block.SidePass != SidePass.Round ? 0 : Least(i, needs)],
                    drink,
                    v => block with { Stations = block.Stations.SetItem(place, station with { OwnChange = new ByRound<Seconds>(v) }) },
                    gone);
            }
        }
    }

    /// <summary>What the way to a station needs: to get there, and to say what is said on it.</summary>
    private int Least(int station, ImmutableArray<ChangeNeed> needs) =>
        Math.Max(needs[station].Seconds.Value, block.Stations[station].Say is { } say ? Math.Min(say.Seconds.Value, terms.RestFloor) : 0);

    private FitLever Change(
        string what,
        ImmutableArray<Seconds> values,
        ImmutableArray<int> needs,
        bool drink,
        Func<ImmutableArray<Seconds>, Block> with,
        Func<int, bool> gone)
    {
        var need = Math.Max(needs.DefaultIfEmpty(0).Max(), drink ? Drink : 1);
        Seconds Shifted(Seconds value, int by) =>
            new(value.Value - by >= need ? value.Value - by : values.Length == 1 ? value.Value : Math.Min(value.Value, need));
        var most = values.Max(v => v.Value);
        var sum = values.Sum(v => v.Value);
        var tried = new Dictionary<int, int[]?>();
        int[]? Lengths(int by) =>
            tried.TryGetValue(by, out var known) ? known : tried[by] = Compiled(with([.. values.Select(v => Shifted(v, by))]));
        var steps = Enumerable.Range(1, most / FitTerms.Step).Select(n => n * FitTerms.Step)
            .Where(by => most - by >= Math.Min(most, need) && most - by > 0 && Lengths(by) is not null);
        var spans = Ahead.Where(i => i > now.UnderWay && now.Lengths[i] > 0 && timeline.Spans[i].Gap == Gap.Stations).ToArray();
        return Lever(
            FitKinds.Change,
            spans,
            steps,
            (i, by) => Shortened(i, Lengths(by)!),
            by => terms.Cost(terms.ChangeWeight, sum - values.Sum(v => Shifted(v, by).Value), sum),
            by => $"{what} {string.Join(", ", values)} → {string.Join(", ", values.Select(v => Shifted(v, by)))}",
            gone);
    }

    private IEnumerable<FitLever> Work(Func<int, bool> gone)
    {
        if (!block.Shape.HasStations)
        {
            yield break;
        }

        var open = Ahead.Where(i => i > now.UnderWay && now.Lengths[i] > 0 && IsOpen(i, gone)).ToArray();
        if (block.Shape == BlockShape.OwnPace)
        {
            yield return Timed($"{block.Name}:", block.Length.Value, 0, v => block with { Length = new Seconds(v) }, open, gone);
        }
        else if (block.Shape == BlockShape.Rotation)
        {
            yield return Window(open, gone);
        }
        else if (block.StartEvery is { } every)
        {
            var longest = Enumerable.Range(0, block.Rounds).Max(round => block.Stations.Max(s =>
                DoseClock.Total(DoseClock.Stretches(s, block, round, Compiler.SideOfRound(block, round, 0)))));
            yield return Timed(
                $"{block.Name}: a start every",
                every.Value,
                Math.Min(every.Value, longest),
                v => block with { StartEvery = new Seconds(v) },
                open,
                gone);
        }
        else
        {
            foreach (var goes in new FitBlockBuilder(block, index, plan, terms).TimedGroups())
            {
                yield return Timed($"{block.Name}: {goes.What}", goes.Seconds, terms.WorkFloor, v => goes.With(block, v), open, gone);
            }
        }
    }

    /// <summary>
    /// A go may change if none of the same station and round is behind or under way, so that both sides stay alike; where rounds
    /// alternate the sides, neither may one of its pair.
    /// </summary>
    private bool IsOpen(int span, Func<int, bool> gone)
    {
        var it = timeline.Spans[span];
        if (it.Kind is not (SpanKind.Work or SpanKind.Wait))
        {
            return false;
        }

        var pairs = block.SidePass == SidePass.Alternate;
        bool Alike(int? round) => round == it.Round || (pairs && round / 2 == it.Round / 2);
        for (var i = first; i < end; i++)
        {
            var other = timeline.Spans[i];
            if (other.Kind is SpanKind.Work or SpanKind.Wait
                && other.Station == it.Station
                && Alike(other.Round)
                && (i <= now.UnderWay || gone(i)))
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>A length of work in steps, as it would run with another value.</summary>
    private FitLever Timed(string what, int value, int floor, Func<int, Block> with, int[] open, Func<int, bool> gone)
    {
        var tried = new Dictionary<int, int[]?>();
        int[]? Lengths(int v) => tried.TryGetValue(v, out var known) ? known : tried[v] = Compiled(with(v));
        var touched = terms.Steps(value, value, floor).Where(v => Lengths(v) is { } changed && IsAlike(changed)).ToArray();
        return Lever(
            FitKinds.Work,
            open,
            touched.Reverse(),
            (i, v) => Shortened(i, Lengths(v)!),
            v => terms.Cost(terms.WorkWeight, value - v, value),
            v => $"{what} {value} s → {v} s",
            gone);
    }

    /// <summary>Both sides of a station lose the same in a round: halves of a split that are rounded would not.</summary>
    private bool IsAlike(int[] changed) => Enumerable.Range(first, end - first)
        .Where(i => timeline.Spans[i] is { Kind: SpanKind.Work, Side: Side.Left or Side.Right, Station: { } s }
            && block.Stations[s].Sides == SideRule.Split)
        .GroupBy(i => (timeline.Spans[i].Station, timeline.Spans[i].Round, timeline.Spans[i].Part, timeline.Spans[i].Turn))
        .All(goes => goes.Select(i => PlannedOf(i) - changed[i - first]).Distinct().Count() <= 1);

    private FitLever Window(int[] open, Func<int, bool> gone)
    {
        var builder = new FitBlockBuilder(block, index, plan, terms);
        var windows = Enumerable.Range(first, end - first).Where(i => timeline.Spans[i].Kind == SpanKind.Work).Select(PlannedOf).ToArray();
        var longest = windows.DefaultIfEmpty(0).Max();
        return Lever(
            FitKinds.Work,
            open,
            builder.WindowShifts().Where(by => by < 0).OrderByDescending(by => by),
            (i, by) => Math.Min(now.Lengths[i], PlannedOf(i) + terms.Within(PlannedOf(i), by)),
            by => terms.Cost(terms.WorkWeight, -by, longest),
            by => builder.WindowWords(windows, by),
            gone);
    }

    /// <summary>
    /// A span as long as a change makes it. One that the change does not reach stays, also where it was made longer on the way: that
    /// time would else be counted as won by every lever.
    /// </summary>
    private int Shortened(int span, int[] changed) =>
        changed[span - first] < compiled![span - first] ? Math.Min(now.Lengths[span], changed[span - first]) : now.Lengths[span];

    /// <summary>The lengths of the block's spans with something changed; null if it then falls into other spans.</summary>
    private int[]? Compiled(Block changed)
    {
        compiled ??= Lengths(block);
        var lengths = Lengths(changed);
        return compiled.Length == end - first && lengths.Length == compiled.Length ? lengths : null;
    }

    private static int[] Lengths(Block of)
    {
        var compilation = new Compilation();
        compilation.Block(of, 0);
        return [.. compilation.Done().Spans.Select(s => s.Length().Value)];
    }

    /// <summary>A lever over spans: each value gives each of them a length; values that change nothing are passed over.</summary>
    private FitLever Lever(
        FitKinds kind,
        int[] spans,
        IEnumerable<int> values,
        Func<int, int, int> length,
        Func<int, int> cost,
        Func<int, string> words,
        Func<int, bool> gone)
    {
        var kept = spans.Where(i => !gone(i)).ToArray();
        var choices = ImmutableArray.CreateBuilder<FitChoice>();
        choices.Add(new FitChoice(kept.Sum(now.LeftOf), 0));
        foreach (var value in values)
        {
            var changed = kept.Select(i => new NewLength(i, length(i, value)))
                .Where(l => l.Seconds < now.Lengths[l.Span])
                .ToImmutableArray();
            var seconds = choices[0].Seconds - changed.Sum(l => now.Lengths[l.Span] - l.Seconds);
            if (seconds < choices[^1].Seconds)
            {
                choices.Add(new FitChoice(seconds, cost(value), new FitStep(words(value), []) { Lengths = changed }));
            }
        }

        return new FitLever(kind, choices.ToImmutable());
    }

    private static string Listed(int[] spans, Func<int, int> length) =>
        string.Join(", ", spans.Select(i => new Seconds(length(i))).Distinct());
}
