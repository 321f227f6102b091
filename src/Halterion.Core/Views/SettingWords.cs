using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Views;

/// <summary>What is kept for all classes, a line each: "what: value".</summary>
public static class SettingWords
{
    /// <summary>Settings in lines, for seeing what differs.</summary>
    public static IEnumerable<string> Lines(Preferences preferences) =>
    [
        $"Reps are counted: {WordsOf<Counting>.Of(preferences.Count)}",
        $"Side to start: {WordsOf<Side>.Of(preferences.StartSide)}",
        $"You face the class: {WordsOf<Facing>.Of(preferences.Facing)}",
        $"Sides in new stations: {WordsOf<SideHabit>.Of(preferences.Sides)}",
        $"Rest in new blocks: {WordsOf<RestHabit>.Of(preferences.Rest)}",
        $"Pace of changeovers: {(preferences.Pace == Pace.Real ? "as you really are" : WordsOf<Pace>.Of(preferences.Pace))}",
        $"Weights: {WordsOf<WeightUnit>.Of(preferences.Weight)}",
        $"Heights: {WordsOf<LengthUnit>.Of(preferences.Length)}",
        $"Clock: {(preferences.Clock == ClockFormat.H24 ? "24 hours" : "12 hours")}",
        $"Colours: {WordsOf<Scheme>.Of(preferences.Scheme)}",
        $"Not said: {string.Join(", ", preferences.Silent.Select(WordsOf<CallKind>.Of))}",
        $"Box and bench heights: {string.Join(", ", preferences.Heights.Select(cm => $"{cm} cm"))}",
        .. preferences.Limits.Select(l => $"Limit of {l.Key}: {l.Value}"),
        .. preferences.Off.Select(o => $"Off ({o.Key}): {o.Value}"),
    ];

    /// <summary>Settings in lines, for seeing what differs.</summary>
    public static IEnumerable<string> Lines(FitTerms terms) =>
    [
        $"Cost of changing rests: {terms.RestWeight}",
        $"Cost of changing changeovers: {terms.ChangeWeight}",
        $"Cost of changing work: {terms.WorkWeight}",
        $"Cost of changing reps: {terms.RepsWeight}",
        $"Cost of changing rounds: {terms.RoundWeight}",
        $"Cost of an optional round: {terms.OptionalRoundWeight}",
        $"Cost of each change: {terms.PerChange}",
        $"Shortest rest: {terms.RestFloor} s",
        $"Longest rest: {terms.RestCeiling} s",
        $"Shortest work: {terms.WorkFloor} s",
        $"Work changes by at most: {terms.WorkPercent}%",
        $"Reps change by at most: {terms.RepsPercent}%",
        $"Rounds a block may lose: {terms.RoundsLess}",
        $"Rounds a block may gain: {terms.RoundsMore}",
        $"Cost of ending early: {terms.SpareWeight}",
    ];
}
