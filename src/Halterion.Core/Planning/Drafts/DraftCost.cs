using System.Collections.Immutable;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning.Drafts;

/// <summary>
/// What a drafted class costs against its brief, in points, by the functions of the checks and of who does what. [M] All prices stand
/// here; the instructor weighs them as wishes.
/// </summary>
public static class DraftCost
{
    /// <summary>A percent of a family that is not as wished.</summary>
    public const decimal Share = 2;
    private const decimal LastClass = 12;
    private const decimal ClassBefore = 6;
    private const decimal AssignmentPart = 0.1m;
    private const int FreeChange = 8;
    /// <summary>A kind of kit that is fetched.</summary>
    public const decimal PerItem = 2;
    /// <summary>Nothing sideways or turning among four or more.</summary>
    public const decimal NoPlane = 8;
    /// <summary>Neighbours of one family.</summary>
    public const decimal SameFamily = 6;
    private const decimal OffAim = 3;
    private const decimal LateHardest = 5;
    /// <summary>A station outside the wished number.</summary>
    public const decimal StationOff = 15;

    /// <summary>The terms, in the order in which they are told.</summary>
    public static readonly ImmutableArray<string> Terms =
    [
        "shares", "recent", "findings", "assignment", "changes", "kit", "plane", "neighbours", "aim", "order", "stations",
    ];

    /// <summary>Findings that have a term of their own.</summary>
    private static readonly ImmutableHashSet<string> OwnTerm =
        ["mix.plane", "order.family", "week.same", "effort.reps", "effort.rest"];

    /// <summary>Points by term, to one decimal.</summary>
    /// <param name="findings">Those of the review, not waived.</param>
    public static ImmutableSortedDictionary<string, decimal> Of(
        DraftBrief brief, ClassReview review, ImmutableArray<Finding> findings, Assignment? given)
    {
        var main = review.MainStations.ToArray();
        var priced = new Dictionary<string, decimal>
        {
            ["shares"] = Shares(brief, review),
            ["recent"] = review.MainMoves().Sum(m => Recent(brief, m)),
            ["findings"] = Findings(findings),
            ["assignment"] = AssignmentOf(given),
            ["changes"] = review.Plan.Blocks.Where(ClassReview.IsMain).Sum(Changes),
            ["kit"] = PerItem * (given?.Kit.Count(k => k.Peak > 0) ?? 0),
            ["plane"] = main.Length >= Thresholds.StationsOfAMix
                && !main.SelectMany(s => review.Works(s)).Any(p => p.IsSideways) ? NoPlane : 0,
            ["neighbours"] = SameFamily * Neighbours(review),
            ["aim"] = OffAim * main.Count(s => IsOffAim(s, review)),
            ["order"] = HardestIsLate(main, review) ? LateHardest : 0,
            ["stations"] = StationOff * (Math.Max(0, brief.From - main.Length) + Math.Max(0, main.Length - brief.To)),
        };
        return priced.ToImmutableSortedDictionary(
            p => p.Key, p => Math.Round(p.Value * brief.Wishes.Of(p.Key), 1, MidpointRounding.AwayFromZero));
    }

    /// <summary>What the main work of one person is made of, in whole percent, the largest part first.</summary>
    public static ImmutableArray<(Family Family, int Percent)> MadeOf(ClassReview review)
    {
        var shares = FamilyShares.Of(review, s => s.IsMain);
        return [.. shares.By.Where(f => f.Value > 0).OrderByDescending(f => f.Value)
            .Select(f => (f.Key, (int)Math.Round(100 * shares.Of(f.Key))))];
    }

    /// <summary>What is found and has no term of its own, before it is weighed.</summary>
    internal static decimal Findings(ImmutableArray<Finding> findings) =>
        findings.Where(f => f.Waived is null && !OwnTerm.Contains(f.Code)).Sum(f => Price(f.Severity));

    /// <summary>What who does what costs, before it is weighed.</summary>
    internal static decimal AssignmentOf(Assignment? given) => (given?.Total ?? 0) * AssignmentPart;

    /// <summary>What a main move costs for having been one of the last classes.</summary>
    public static decimal Recent(DraftBrief brief, MoveId move) =>
        brief.Recent.Length > 0 && brief.Recent[0].Contains(move) ? LastClass
        : brief.Recent.Length > 1 && brief.Recent[1].Contains(move) ? ClassBefore : 0;

    private static decimal Price(Severity severity) => severity switch
    {
        Severity.Consider => 10,
        Severity.Note => 3,
        Severity.Stop or Severity.Fix => 0,
    };

    /// <summary>How far the families are from what was wished, in percent of their main work.</summary>
    private static decimal Shares(DraftBrief brief, ClassReview review)
    {
        var wished = brief.Shares.Where(s => s.Value > 0).ToArray();
        if (wished.Length == 0)
        {
            return 0;
        }

        var shares = FamilyShares.Of(review, s => s.IsMain);
        decimal all = wished.Sum(w => shares.By.GetValueOrDefault(w.Key));
        var sum = wished.Sum(w => w.Value);
        return Share * wished.Sum(w => Math.Abs(
            (all == 0 ? 0 : 100 * shares.By.GetValueOrDefault(w.Key) / all) - (100 * w.Value / sum)));
    }

    private static decimal Changes(Block block) => !block.Shape.HasChanges ? 0
        : block.Stations.Skip(1).Sum(s => Math.Max(0, block.ChangeTo(s, 0).Value - FreeChange));

    private static int Neighbours(ClassReview review)
    {
        var families = review.MainStations.Select(s => review.Moves.Find(s.Station.Main.Move)?.Family).ToArray();
        return families.Zip(families.Skip(1))
            .Count(p => p.First == p.Second && p.First is { } family && FamilyShares.Hard.Contains(family));
    }

    /// <summary>Reps or rests that are not those of the aim (handbook, section 3: reps, rest and effort).</summary>
    private static bool IsOffAim(StationAt at, ClassReview review)
    {
        var reps = at.Station.Dose.Where(p => p.Kind == PartKind.Reps).Select(p => p.Amount.At(0).To).ToArray();
        var loaded = review.Works(at).Any(p => p.IsLoaded);
        var rest = at.Block.Shape == BlockShape.Sets ? at.Block.RestOf(at.Station, 0) : at.Block.BetweenRounds.At(0);
        return review.Plan.Aim switch
        {
            Aim.Strength => loaded
                && (reps.Any(r => r > Thresholds.MostStrengthReps) || rest.Value < Thresholds.StrengthRest && at.Block.Rounds > 1),
            Aim.Endurance => reps.Any(r => r < Thresholds.LeastEnduranceReps),
            Aim.Conditioning or Aim.Technique => false,
        };
    }

    private static bool HardestIsLate(StationAt[] main, ClassReview review)
    {
        if (main.Length < 2)
        {
            return false;
        }

        var asks = main.Select(s => s.Station.Main.In(s.Station)
            .Max(d => DemandModel.Of(d.Move, d.Manner, review.Moves)?.Overall ?? 0)).ToArray();
        return Array.IndexOf(asks, asks.Max()) >= (main.Length + 1) / 2;
    }
}
