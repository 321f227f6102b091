using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing.Fitting;

/// <summary>One change of a way out, and its points.</summary>
public sealed record FitChange(string Words, int Cost);

/// <summary>A way to end on time.</summary>
/// <param name="SpareSeconds">By how much it ends before the slot; 0: exactly on time.</param>
/// <param name="Ends">The same in words: "ends 2 min 5 s early".</param>
public sealed record FitWay(string Title, int Cost, Seconds SpareSeconds, string Ends, ImmutableArray<FitChange> Changes,
    [property: JsonIgnore] ImmutableArray<Edit> Edits);

/// <summary>A limit that stands in the way, and by how many seconds the class could be shorter without it.</summary>
public sealed record FitObstacle(string Limit, Seconds Seconds)
{
    /// <summary>What stands in the way and how much it holds.</summary>
    public string Words => Seconds.ToString();
}

/// <summary>What Fit found: up to three different ways, the cheapest first; or what stands in the way.</summary>
/// <param name="ShortBy">By how much the class is too long with everything at its limit; 0: it fits.</param>
public sealed record FitResult(ImmutableArray<FitWay> Ways, Seconds ShortBy, ImmutableArray<FitObstacle> Obstacles);

/// <summary>Brings a class to its slot by changing what may change, at the lowest cost (<see cref="FitTerms"/>).</summary>
public static class Fit
{
    private const int Offers = 3;

    /// <summary>Ways to bring a class to its slot, the cheapest first (plan-language.md, "Fit").</summary>
    public static FitResult Of(ClassPlan plan, FitTerms terms)
    {
        var model = FitModel.Of(plan, terms);
        if (FitSolver.Solve(model, terms.SpareWeight) is not { } best)
        {
            return new FitResult([], new Seconds(model.Least - model.Slot), Obstacles(plan, terms, model.Least));
        }

        var used = best.Picks.Aggregate(FitKinds.None, (kinds, pick) => kinds | pick.Kind);
        FitKinds[] others =
        [
            FitKinds.Rest | FitKinds.Change,
            FitKinds.Work | FitKinds.Reps,
            FitKinds.Rounds | FitKinds.Rest | FitKinds.Change,
            .. Enum.GetValues<FitKinds>()
                .Where(k => k is not (FitKinds.None or FitKinds.All) && (used & k) != 0)
                .Select(k => FitKinds.All & ~k),
        ];
        var found = new List<FitSolution> { best };
        foreach (var kinds in others)
        {
            if (FitSolver.Solve(model.Only(kinds), terms.SpareWeight) is { } other && !found.Exists(f => Same(f, other)))
            {
                found.Add(other);
            }
        }

        var rest = found.Skip(1).OrderBy(f => f.Cost + terms.SpareWeight * (model.Slot - f.Seconds));
        return new FitResult([.. rest.Take(Offers - 1).Prepend(best).Select(f => Way(f, model.Slot))], Seconds.Zero, []);
    }

    /// <summary>The cheapest way to end in time that makes nothing longer; null where there is none.</summary>
    /// <param name="kinds">What may be changed.</param>
    public static FitWay? Shorter(ClassPlan plan, FitTerms terms, FitKinds kinds)
    {
        var model = FitModel.Of(plan, terms).Only(kinds).Shorter();
        return FitSolver.Solve(model, terms.SpareWeight) is { } best ? Way(best, model.Slot) : null;
    }

    internal static bool Same(FitSolution a, FitSolution b) =>
        a.Picks.Select(p => p.Step.Words).SequenceEqual(b.Picks.Select(p => p.Step.Words));

    private static FitWay Way(FitSolution solution, int slot) => new(
        Title(solution),
        solution.Cost,
        new Seconds(slot - solution.Seconds),
        slot == solution.Seconds ? "ends exactly on time" : $"ends {new Seconds(slot - solution.Seconds).Apart()} early",
        [.. solution.Picks.GroupBy(p => p.Step.Alike is { } alike ? $"{alike.Block}\n{alike.Shift}" : p.Step.Words).Select(Change)],
        [.. solution.Picks.SelectMany(p => p.Step.Edits)]);

    /// <summary>Equal changes are one line.</summary>
    private static FitChange Change(IGrouping<string, FitPick> alike)
    {
        var picks = alike.ToArray();
        if (picks is [var only] || picks[0].Step.Alike is not { } first)
        {
            return new FitChange(picks[0].Step.Words, picks[0].Choice.Cost);
        }

        var names = picks.GroupBy(p => p.Step.Alike!.Station).Select(g => g.Count() switch
        {
            1 => g.Key,
            2 => $"{g.Key} (both parts)",
            3 => $"{g.Key}, all three parts",
            var n => string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{g.Key}, all {n} parts"),
        }).ToArray();
        var words = names.Length == 1 ? names[0] : $"{string.Join(", ", names[..^1])} and {names[^1]}";
        return new FitChange($"{first.Block}: {words} {first.Shift}", picks.Sum(p => p.Choice.Cost));
    }

    internal static string Title(FitSolution solution)
    {
        var kinds = solution.Picks.GroupBy(p => p.Kind).OrderByDescending(g => g.Key).Select(Words).ToArray();
        if (kinds.Length == 0)
        {
            return "No change";
        }

        var words = kinds.Length == 1 ? kinds[0] : $"{string.Join(", ", kinds[..^1])} and {kinds[^1]}";
        return char.ToUpperInvariant(words[0]) + words[1..];
    }

    private static string Words(IGrouping<FitKinds, FitPick> picks)
    {
        var less = picks.Sum(p => p.Delta) < 0;
        return (picks.Key, less) switch
        {
            (FitKinds.Rest, true) => "shorter rests",
            (FitKinds.Rest, _) => "longer rests",
            (FitKinds.Change, true) => "shorter changeovers",
            (FitKinds.Change, _) => "longer changeovers",
            (FitKinds.Work, true) => "shorter work intervals",
            (FitKinds.Work, _) => "longer work intervals",
            (FitKinds.Reps, true) => "fewer reps",
            (FitKinds.Reps, _) => "more reps",
            (FitKinds.Talk, _) => "less talk",
            (FitKinds.Blocks, _) => picks.Count() == 1 ? "one block fewer" : "fewer blocks",
            (_, true) => picks.Count() == 1 ? "one round fewer" : "fewer rounds",
            _ => picks.Count() == 1 ? "one extra round" : "more rounds",
        };
    }

    private static ImmutableArray<FitObstacle> Obstacles(ClassPlan plan, FitTerms terms, int least)
    {
        (string Limit, FitTerms Without, bool Unlock)[] limits =
        [
            ($"Shortest rest ({terms.RestFloor} s)", terms with { RestFloor = 0 }, false),
            ($"Shortest work interval ({terms.WorkFloor} s, at most {terms.WorkPercent}% "
                + $"shorter)", terms with { WorkFloor = 5, WorkPercent = 90 }, false),
            ($"Most change to reps ({terms.RepsPercent}%)", terms with { RepsPercent = 90 }, false),
            ($"Rounds it may take off a block ({terms.RoundsLess})", terms with { RoundsLess = 19 }, false),
            ("Blocks set to “keep in full”", terms, true),
        ];
        return
        [
            .. limits.Select(l => new FitObstacle(l.Limit, new Seconds(least - FitModel.Of(plan, l.Without, l.Unlock).Least)))
                .Where(o => o.Seconds > Seconds.Zero)
                .OrderByDescending(o => o.Seconds),
        ];
    }
}
