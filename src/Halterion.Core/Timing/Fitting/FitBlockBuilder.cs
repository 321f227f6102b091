using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing.Fitting;

/// <summary>Finds what may change in one block, and what each change would take and cost.</summary>
internal sealed partial class FitBlockBuilder(Block block, int index, ClassPlan plan, FitTerms terms)
{
    private readonly string at = $"/blocks/{index}";
    private static readonly FitChoice AsItIs = new(0, 0);

    /// <param name="open">Changes are allowed; else the block only has its length.</param>
    public FitBlock Build(bool open)
    {
        if (!open || !block.Shape.HasStations)
        {
            return new FitBlock([new FitBranch(Length(block)!.Value, [], [])]);
        }

        if (block.Shape == BlockShape.OwnPace)
        {
            return new FitBlock([Branch(block, [], [OwnPace()])]);
        }

        var branches = ImmutableArray.CreateBuilder<FitBranch>();
        branches.Add(With(block.Rounds)!);
        for (var rounds = Math.Max(1, block.Rounds - Math.Max(terms.RoundsLess, block.OptionalRounds)); block.Rounds > 1
            && rounds <= Math.Min(20, block.Rounds + More); rounds++)
        {
            if (rounds != block.Rounds && With(rounds) is { } branch)
            {
                branches.Add(branch);
            }
        }

        return new FitBlock(branches.ToImmutable());
    }

    /// <summary>The block with other rounds; null if that passes the bounds of the language.</summary>
    private FitBranch? With(int rounds)
    {
        var changed = block with { Rounds = rounds };
        if (Length(changed) is null)
        {
            return null;
        }

        var levers = new List<FitLever?> { Rest(changed) };
        levers.AddRange(Changes(changed));
        if (block.Shape == BlockShape.Rotation)
        {
            levers.Add(Window(changed));
        }
        else if (block.Shape == BlockShape.OnTheClock)
        {
            levers.Add(StartEvery(changed));
        }
        else
        {
            levers.AddRange(Amounts(changed));
        }

        return Branch(changed, RoundsPick(rounds, changed), levers);
    }

    private static FitBranch Branch(Block changed, ImmutableArray<FitPick> rounds, IEnumerable<FitLever?> levers)
    {
        var real = levers.OfType<FitLever>().Where(l => l.Choices.Length > 1).ToImmutableArray();
        return new FitBranch(Length(changed)!.Value - real.Sum(l => l.Choices[0].Seconds), rounds, real);
    }

    private static int? Length(Block block)
    {
        try
        {
            var compilation = new Compilation();
            compilation.Block(block, 0);
            return compilation.Done().Length.Value;
        }
        catch (TooLargeException)
        {
            return null;
        }
    }

    /// <summary>A round for which a falling target says nothing is none that was asked for.</summary>
    private int More => block.Stations.Any(s => s.Dose.Any(p => p.Amount.Values.Length > 1)) ? 0 : terms.RoundsMore;

    private ImmutableArray<FitPick> RoundsPick(int rounds, Block changed)
    {
        var less = block.Rounds - rounds;
        if (less == 0)
        {
            return [];
        }

        var edits = ImmutableArray.Create(Edit.Set($"{at}/rounds", rounds));
        if (less > 0 && block.OptionalRounds > 0)
        {
            // The rounds that went are the optional ones.
            edits = edits.Add(Edit.Set($"{at}/optionalRounds", Math.Max(0, Math.Min(block.OptionalRounds - less, rounds - 1))));
        }

        var weight = less > 0 && less <= block.OptionalRounds ? terms.OptionalRoundWeight : terms.RoundWeight;
        var what = block.Shape.RoundWord + "s";
        var choice = new FitChoice(0, terms.Cost(weight, Math.Abs(less), block.Rounds),
            new FitStep($"{block.Name}: {block.Rounds} {what} → {rounds}", edits));
        return [new FitPick(FitKinds.Rounds, choice, Length(changed)!.Value - Length(block)!.Value)];
    }

    private FitLever? Rest(Block changed)
    {
        var sets = block.Shape == BlockShape.Sets;
        var (rest, gapsTimes) = sets
            ? (block.BetweenSets, Heads(block).Count(s => s.OwnBetweenSets is null))
            : (block.BetweenRounds, 1);
        int Total(ByRound<Seconds> rests) => Enumerable.Range(0, changed.Rounds - 1).Sum(gap => rests.At(gap).Value) * gapsTimes;
        ByRound<Seconds> Shift(int by) => new([.. rest.Values.Select(v => Shifted(v.Value, by))]);
        Seconds Shifted(int value, int by) => new(
            value == 0 ? 0
            : by < 0 ? Math.Min(value, Math.Max(terms.RestFloor, value + by))
            : Math.Max(value, Math.Min(terms.RestCeiling, value + by)));
        var before = Total(rest);
        var choices = ImmutableArray.CreateBuilder<FitChoice>();
        choices.Add(AsItIs with { Seconds = before });
        foreach (var way in new[] { -FitTerms.Step, FitTerms.Step })
        {
            var last = rest;
            for (var by = way; Math.Abs(by) <= 600; by += way)
            {
                var next = Shift(by);
                if (next == last)
                {
                    break;
                }

                last = next;
                choices.Add(new FitChoice(
                    Total(next),
                    terms.Cost(terms.RestWeight, Math.Abs(Sum(next) - Sum(rest)), Sum(rest)),
                    new FitStep(
                        $"{block.Name}: rest between {block.Shape.RoundWord}s {Words(rest)} → {Words(next)}",
                        [new Edit($"{at}/{block.Shape.RestField}", PlanWriter.Of(next))])));
            }
        }

        return before == 0 ? null : new FitLever(FitKinds.Rest, choices.ToImmutable());
    }

    /// <summary>The block's change, and those that stations have of their own; none goes below what it needs.</summary>
    private IEnumerable<FitLever?> Changes(Block changed)
    {
        if (!block.Shape.HasChanges)
        {
            yield break;
        }

        var needs = ChangeOver.Of(block, plan.Moves, terms.Changes);
        var shared = Enumerable.Range(0, block.Stations.Length)
            .Where(i => block.Shape == BlockShape.Rotation || (i > 0 && !block.Stations[i].HasOwnChange)).ToArray();
        var need = shared.Length == 0 ? 0 : shared.Max(i => needs[i].Seconds.Value);
        yield return Change(
            $"{at}/betweenStations", $"{block.Name}: changeovers", block.BetweenStations.Value, need, v => SharedChange(changed, v));
        if (block.Shape == BlockShape.Rotation)
        {
            yield break;
        }

        for (var i = 0; i < block.Stations.Length; i++)
        {
            var (station, place) = (block.Stations[i], i);
            if (station.OwnChange is { Values: [var own] })
            {
                yield return Change(
                    $"{at}/stations/{i}/changeSeconds", $"{block.Name}: changeover to {station.Name}", own.Value,
                    i == 0 && block.SidePass != SidePass.Round ? 0 : needs[i].Seconds.Value,
                    v => place > 0 ? v * Changes(changed, place) : changed.Passes == 2 ? Backs(changed, v) : 0);
            }
        }
    }

    /// <summary>Seconds of all changes that take the block's own value.</summary>
    private static int SharedChange(Block changed, int value)
    {
        if (changed.Shape == BlockShape.Rotation)
        {
            return changed.Rounds * (changed.Stations.Length - 1) * value;
        }

        var later = Enumerable.Range(1, changed.Stations.Length - 1)
            .Where(i => !changed.Stations[i].HasOwnChange)
            .Sum(i => Changes(changed, i)) * value;
        return later + (changed.Passes == 2 && !changed.Stations[0].HasOwnChange ? Backs(changed, value) : 0);
    }

    /// <summary>How often the change to a station other than the first is made in the whole block.</summary>
    private static int Changes(Block changed, int station)
    {
        var inString = changed.Stations[station - 1].WithNext;
        return inString ? 2 * changed.Rounds
            : changed.Shape == BlockShape.Sets ? 1
            : changed.Passes * changed.Rounds;
    }

    /// <summary>Seconds of all ways back to the first station before a second pass, in which the sides change too.</summary>
    private static int Backs(Block changed, int value) =>
        Enumerable.Range(0, changed.Rounds).Sum(round => Math.Max(value, changed.SwitchAt(changed.Stations[0], round).Value));

    /// <summary>The stations that are not tied to one before them: each has sets of its own.</summary>
    private static IEnumerable<Station> Heads(Block block) => block.Stations.Where((_, i) => i == 0 || !block.Stations[i - 1].WithNext);

    private FitLever? Change(string pointer, string what, int value, int need, Func<int, int> seconds)
    {
        if (value == 0)
        {
            return null;
        }

        var lowest = Math.Min(value, need);
        var choices = ImmutableArray.CreateBuilder<FitChoice>();
        choices.Add(AsItIs with { Seconds = seconds(value) });
        for (var v = value % FitTerms.Step; v <= Math.Min(600, value + 30); v += FitTerms.Step)
        {
            if (v != value && v >= lowest && v > 0)
            {
                choices.Add(Choice(seconds(v), terms.ChangeWeight, pointer, what, value, v));
            }
        }

        return new FitLever(FitKinds.Change, choices.ToImmutable());
    }

    private FitLever OwnPace() => Timed($"{at}/seconds", $"{block.Name}: own pace", block.Length.Value, 3600, terms.WorkFloor, v => v);

    private FitLever StartEvery(Block changed)
    {
        var every = block.StartEvery!.Value.Value;
        var longest = Enumerable.Range(0, changed.Rounds).Max(round => changed.Stations.Max(s => DoseClock.Total(DoseClock.Stretches(
            s,
            changed,
            round,
            Compiler.SideOfRound(changed, round, 0)))));
        return Timed(
            $"{at}/startEverySeconds",
            $"{block.Name}: a start every",
            every,
            1800,
            Math.Min(every, longest),
            v => v * changed.Stations.Length * changed.Rounds * changed.Passes);
    }

    /// <summary>A length of work in steps of five, within its percentage and its floor.</summary>
    private FitLever Timed(string pointer, string what, int value, int most, int floor, Func<int, int> seconds) => new(
        FitKinds.Work,
        [
            AsItIs with { Seconds = seconds(value) },
            .. terms.Steps(value, most, floor).Select(v => Choice(seconds(v), terms.WorkWeight, pointer, what, value, v)),
        ]);

    /// <summary>Another number of seconds in one place of the file.</summary>
    private FitChoice Choice(int seconds, int weight, string pointer, string what, int from, int to) =>
        new(seconds, terms.Cost(weight, Math.Abs(to - from), from), new FitStep($"{what} {from} s → {to} s", [Edit.Set(pointer, to)]));

    private static int Sum(ByRound<Seconds> rest) => rest.Values.Sum(v => v.Value);

    private static string Words(ByRound<Seconds> rest) => string.Join(", ", rest.Values);
}
