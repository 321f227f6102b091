using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Timing;

namespace Halterion.Core.Logbook;

/// <summary>How fast somebody really is between the work: real over brisk, by what it is.</summary>
/// <param name="Of">What it is: talk, or a kind of change-over.</param>
/// <param name="Factor">Times brisk, 0.5 to 4, to 0.05.</param>
/// <param name="Classes">How many classes stand behind it.</param>
public sealed record LearntPace(string Of, decimal Factor, int Classes)
{
    /// <summary>Talk, beside the kinds of change-over.</summary>
    public const string Talk = "talk";

    /// <summary>What it is, as one says it.</summary>
    public string Words => Of == Talk ? "Talk"
        : !WordsOf<ChangeKind>.All.TryGetValue(Of, out var kind) ? Of
        : kind switch
        {
            ChangeKind.Walk => "Walking to the next station",
            ChangeKind.Floor => "Down to the floor or up again",
            ChangeKind.Bench => "Onto a bench or machine",
            ChangeKind.Band => "Band on, off or changed",
            ChangeKind.Weights => "Weights up, down or changed",
            ChangeKind.Plates => "Plates on a bar",
            ChangeKind.PlatesShared => "Plates on a bar, with a partner",
            ChangeKind.SwitchStanding => "Changing sides, standing",
            ChangeKind.SwitchFloor => "Changing sides on the floor",
            ChangeKind.SwitchBench => "Changing sides on a bench or machine",
        };

    /// <summary>Fewer say nothing. [M]</summary>
    public const int Fewest = 3;

    /// <summary>Older ones no longer count. [M]</summary>
    public const int Lately = 5;

    private const decimal Least = 0.5m;
    private const decimal Most = 4;
    private const decimal Grain = 0.05m;

    /// <summary>The median of the last five classes that had it; null where fewer than three had.</summary>
    /// <param name="ratios">Real over brisk, one a class, the oldest first.</param>
    public static LearntPace? From(string of, IEnumerable<decimal> ratios)
    {
        var last = ratios.TakeLast(Lately).Order().ToArray();
        if (last.Length < Fewest)
        {
            return null;
        }

        var middle = last.Length / 2;
        var median = last.Length % 2 == 1 ? last[middle] : (last[middle - 1] + last[middle]) / 2;
        return new LearntPace(of, Math.Round(Math.Clamp(median, Least, Most) / Grain, MidpointRounding.AwayFromZero) * Grain, last.Length);
    }
}
