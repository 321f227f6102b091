using Halterion.Core.Plans;

namespace Halterion.Core.Timing.Fitting;

/// <summary>What Fit may change.</summary>
[Flags]
public enum FitKinds
{
    None = 0,
    Rest = 1,
    Change = 2,
    Work = 4,
    Reps = 8,
    Rounds = 16,
    All = 31,
}

/// <summary>
/// What a change costs and how far it may go. [M] All of it is our choice, kept here, and editable on the screen.
/// A change costs <see cref="PerChange"/> points, for it has to be remembered, and one point for each percent by which it
/// changes a value, times the weight of its kind.
/// </summary>
public sealed record FitTerms
{
    public int RestWeight { get; init; } = 1;

    public int ChangeWeight { get; init; } = 1;

    public int WorkWeight { get; init; } = 2;

    public int RepsWeight { get; init; } = 2;

    public int RoundWeight { get; init; } = 3;

    /// <summary>Of a round that the class marks as optional.</summary>
    public int OptionalRoundWeight { get; init; } = 1;

    /// <summary>Points for each value changed.</summary>
    public int PerChange { get; init; } = 5;

    /// <summary>Rests go no lower than this many seconds.</summary>
    public int RestFloor { get; init; } = 15;

    /// <summary>Rests go no higher than this many seconds.</summary>
    public int RestCeiling { get; init; } = 180;

    /// <summary>Timed work goes no lower than this many seconds.</summary>
    public int WorkFloor { get; init; } = 15;

    /// <summary>Timed work changes by at most this many percent.</summary>
    public int WorkPercent { get; init; } = 33;

    /// <summary>Reps without a range of their own change by at most this many percent.</summary>
    public int RepsPercent { get; init; } = 20;

    /// <summary>How many rounds a block may lose; its optional rounds may always go.</summary>
    public int RoundsLess { get; init; } = 1;

    /// <summary>How many rounds a block may gain.</summary>
    public int RoundsMore { get; init; } = 1;

    /// <summary>
    /// Points for each second by which the class ends early. High, so that it ends to the second wherever that is not
    /// absurdly dear; 1000 buys exactness at any price.
    /// </summary>
    public int SpareWeight { get; init; } = 10;

    /// <summary>The pace that change-overs are measured by.</summary>
    public Pace Pace { get; init; }

    /// <summary>The first term that is out of bounds, as its name and what would be right; null if all are well.</summary>
    public (string Name, string Right)? Fault()
    {
        (string, int, int)[] bounds =
        [
            ("restWeight", RestWeight, 100), ("changeWeight", ChangeWeight, 100), ("workWeight", WorkWeight, 100), ("repsWeight", RepsWeight, 100),
            ("roundWeight", RoundWeight, 100), ("optionalRoundWeight", OptionalRoundWeight, 100), ("perChange", PerChange, 1000),
            ("restFloor", RestFloor, 600), ("restCeiling", RestCeiling, 600), ("workFloor", WorkFloor, 600), ("workPercent", WorkPercent, 90),
            ("repsPercent", RepsPercent, 90), ("roundsLess", RoundsLess, 19), ("roundsMore", RoundsMore, 19), ("spareWeight", SpareWeight, 1000),
        ];
        foreach (var (name, value, most) in bounds)
        {
            if (value < 0 || value > most)
            {
                return (name, $"a whole number 0–{most}");
            }
        }

        return null;
    }
}
