using System.Text.Json.Serialization;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing.Fitting;

/// <summary>What Fit may change.</summary>
[Flags]
public enum FitKinds
{
    /// <summary>Nothing.</summary>
    None = 0,
    /// <summary>Rests between rounds and sets.</summary>
    Rest = 1,
    /// <summary>The time to get from station to station.</summary>
    Change = 2,
    /// <summary>How long work is.</summary>
    Work = 4,
    /// <summary>How many reps.</summary>
    Reps = 8,
    /// <summary>How many rounds or sets.</summary>
    Rounds = 16,

    /// <summary>What is said and shown; of a class under way only.</summary>
    Talk = 32,

    /// <summary>A whole block left out; of a class under way only.</summary>
    Blocks = 64,
    /// <summary>Everything.</summary>
    All = 127,
}

/// <summary>
/// What a change costs and how far it may go. [M] All of it is our choice, kept here, and editable on the screen.
/// A change costs <see cref="PerChange"/> points, for it has to be remembered, and one point for each percent by which it
/// changes a value, times the weight of its kind.
/// </summary>
public sealed record FitTerms
{
    /// <summary>Bounds of the terms: each is a whole number from 0.</summary>
    public const int MostWeight = 100;
    /// <summary>The greatest weight that may be set.</summary>
    public const int MostPoints = 1000;
    /// <summary>The most seconds that may be set.</summary>
    public const int MostSeconds = 600;
    /// <summary>The greatest share that may be set, in per cent.</summary>
    public const int MostPercent = 90;
    /// <summary>The most rounds that may be set.</summary>
    public const int MostRounds = 19;

    /// <summary>What a hundredth of a rest costs.</summary>
    public int RestWeight { get; init; } = 1;

    /// <summary>What a hundredth of a change costs.</summary>
    public int ChangeWeight { get; init; } = 1;

    /// <summary>What a hundredth of work costs.</summary>
    public int WorkWeight { get; init; } = 2;

    /// <summary>What a hundredth of the reps costs.</summary>
    public int RepsWeight { get; init; } = 2;

    /// <summary>What a hundredth of the rounds costs.</summary>
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

    /// <summary>How long change-overs take at the pace they are measured by.</summary>
    [JsonIgnore]
    public ChangeTimes Changes { get; init; } = ChangeTimes.Brisk;

    /// <summary>Where it is to end, if not at its slot.</summary>
    [JsonIgnore]
    public Seconds? End { get; init; }

    /// <summary>Lengths change in steps of so many seconds.</summary>
    internal const int Step = 5;

    /// <summary>Points for changing a value by so much; none where it stays.</summary>
    internal int Cost(int weight, int change, int of) => change == 0 ? 0 : PerChange + weight * ((100 * change + of - 1) / of);

    /// <summary>
    /// So much of a change as one of several lengths may take that change together: each no more than its own percentage, and not under
    /// the floor.
    /// </summary>
    internal int Within(int value, int by)
    {
        var lowest = Math.Max(Math.Min(value, Math.Max(WorkFloor, 1)), (int)Math.Ceiling(value * (100 - WorkPercent) / 100m));
        return by < 0 ? -Math.Min(-by, Step * ((value - lowest) / Step)) : Math.Min(by, Step * (value * WorkPercent / 100 / Step));
    }

    /// <summary>The other lengths that timed work may have: in steps, within its percentage and its floor.</summary>
    /// <param name="most">In seconds.</param>
    internal IEnumerable<int> Steps(int value, int most, int floor)
    {
        var lowest = Math.Max(Math.Min(value, Math.Max(floor, 1)), (int)Math.Ceiling(value * (100 - WorkPercent) / 100m));
        var highest = Math.Min(most, value * (100 + WorkPercent) / 100);
        for (var v = value - Step * ((value - lowest) / Step); v <= highest; v += Step)
        {
            if (v != value)
            {
                yield return v;
            }
        }
    }
}
