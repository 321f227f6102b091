using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing.Fitting;

/// <summary>A change of the class: in words, and as edits of its file.</summary>
/// <param name="Alike">What is changed and how, where others may be changed the same way.</param>
public sealed record FitStep(string Words, ImmutableArray<Edit> Edits, FitAlike? Alike = null)
{
    /// <summary>What it makes of the spans of a class under way, whose file stays as it is.</summary>
    public ImmutableArray<NewLength> Lengths { get; init; } = [];
}

/// <summary>A span of a class under way with another length.</summary>
/// <param name="Span">Its place on the timeline, from 0.</param>
/// <param name="Seconds">All of it, with what has run of it.</param>
public readonly record struct NewLength(int Span, int Seconds);

/// <summary>A change that may be said once for several: "“Circuit”: Hip thrust and Squat 10 → 12 reps".</summary>
/// <param name="Shift">Such as "10 → 12 reps".</param>
public sealed record FitAlike(string Block, string Station, string Shift);

/// <summary>One value that a lever can take.</summary>
/// <param name="Seconds">What all that hangs on the lever takes in the class.</param>
/// <param name="Cost">0: left as it is.</param>
/// <param name="Step">What taking it changes; null: nothing. The solver looks at seconds and costs alone.</param>
public sealed record FitChoice(int Seconds, int Cost, FitStep? Step = null);

/// <summary>Something that may be longer or shorter. Its first choice leaves it as it is.</summary>
public sealed record FitLever(FitKinds Kind, ImmutableArray<FitChoice> Choices)
{
    /// <summary>The fewest seconds it can give.</summary>
    public int Least => Choices.Min(c => c.Seconds);
}

/// <summary>A block with what changes more than itself already decided, such as its rounds.</summary>
/// <param name="Fixed">Seconds that no lever moves.</param>
/// <param name="Picks">What is decided; its seconds are in <paramref name="Fixed"/> and the levers. None: as it is.</param>
public sealed record FitBranch(int Fixed, ImmutableArray<FitPick> Picks, ImmutableArray<FitLever> Levers)
{
    /// <summary>The fewest seconds it can take.</summary>
    public int Least => Fixed + Levers.Sum(l => l.Least);

    /// <summary>What its rounds cost.</summary>
    public int Cost => Picks.Sum(p => p.Choice.Cost);
}

/// <summary>The branches of a block; the first leaves it as it is.</summary>
public sealed record FitBlock(ImmutableArray<FitBranch> Branches)
{
    /// <summary>The fewest seconds it can take.</summary>
    public int Least => Branches.Min(b => b.Least);
}

/// <summary>
/// A class as a choice of one branch a block and one value a lever. Seconds and costs add up, so that the cheapest class
/// of a given length is a multiple-choice knapsack.
/// </summary>
public sealed record FitModel(ImmutableArray<FitBlock> Blocks, int Slot)
{
    /// <summary>The fewest seconds that all blocks together can take.</summary>
    public int Least => Blocks.Sum(b => b.Least);

    /// <param name="unlock">Protected blocks may be changed too.</param>
    public static FitModel Of(ClassPlan plan, FitTerms terms, bool unlock = false) => new(
        [.. plan.Blocks.Select((block, i) => new FitBlockBuilder(block, i, plan, terms).Build(unlock || block.Keep != Keep.Protected))],
        (terms.End ?? plan.Slot).Value);

    /// <summary>The same class with only some kinds of change allowed.</summary>
    public FitModel Only(FitKinds kinds) => kinds == FitKinds.All ? this : this with
    {
        Blocks =
        [
            .. Blocks.Select(block => new FitBlock(
            [
                .. block.Branches.Where(branch => branch.Picks.All(p => (p.Kind & kinds) != 0)).Select(branch => branch with
                {
                    Levers = [.. branch.Levers.Select(l => (l.Kind & kinds) != 0 ? l : l with { Choices = [l.Choices[0]] })],
                }),
            ])),
        ],
    };

    /// <summary>The same class where nothing may become longer than it is.</summary>
    public FitModel Shorter() => this with
    {
        Blocks =
        [
            .. Blocks.Select(block => new FitBlock(
            [
                .. block.Branches.Where(branch => branch.Picks.All(p => p.Delta <= 0)).Select(branch => branch with
                {
                    Levers =
                    [
                        .. branch.Levers.Select(l => l with { Choices = [.. l.Choices.Where(c => c.Seconds <= l.Choices[0].Seconds)] }),
                    ],
                }),
            ])),
        ],
    };
}
