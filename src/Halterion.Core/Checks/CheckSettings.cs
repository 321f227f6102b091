using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>What an instructor sets of the checks.</summary>
/// <param name="Limits">By code, for the rules of <see cref="Thresholds.Adjustable"/>.</param>
/// <param name="Off">Rules switched off, by code, with the reason.</param>
public sealed record CheckSettings(
    Pace Pace, ImmutableSortedDictionary<string, decimal> Limits, ImmutableSortedDictionary<string, string> Off)
{
    public static readonly CheckSettings Usual = new(Pace.Brisk, ImmutableSortedDictionary<string, decimal>.Empty,
        ImmutableSortedDictionary<string, string>.Empty);

    public static CheckSettings Of(Preferences preferences) => new(preferences.Pace, preferences.Limits, preferences.Off);

    public decimal Limit(string code) => Limits.TryGetValue(code, out var own) ? own : Thresholds.Adjustable[code].Usual;
}

/// <summary>A threshold that an instructor may change.</summary>
public sealed record AdjustableLimit(decimal Usual, decimal Least, decimal Most, string Unit);

/// <summary>
/// All thresholds of the checks. Those without a source are [M] our choice or common practice; docs/checks.md lists them, and a
/// test holds that list to these.
/// </summary>
public static class Thresholds
{
    /// <summary>Spare time up to this is no finding: a class may end a little early. Seconds.</summary>
    public const int Early = 60;

    /// <summary>A class of this many minutes or more has a warm-up and a cool-down of its own.</summary>
    public const int LongClass = 20;

    public const int LeastWarmUp = 180;
    public const int LeastCoolDown = 120;

    /// <summary>Of a short class, or where people warm up in their own time.</summary>
    public const int LeastOfShort = 60;

    /// <summary>A rest or change of so many seconds with water is a drink break.</summary>
    public const int DrinkBreak = 30;

    /// <summary>Talk for each different main move, seconds.</summary>
    public const int TalkEach = 10;

    public const decimal QuickestRep = 0.9m;
    public const decimal SlowestRep = 12;

    /// <summary>Rest between sets of strength, and the least of the longest gap in a circuit; what is offered instead. Seconds.</summary>
    public const int StrengthRest = 90;
    public const int StrengthGap = 30;
    public const int StrengthOffer = 120;

    /// <summary>Work over all of the main blocks: more is no strength, less is no conditioning.</summary>
    public const double DenseForStrength = 0.60;
    public const double LooseForConditioning = 0.35;

    public const int MostStrengthReps = 8;
    public const int LeastEnduranceReps = 12;

    /// <summary>Parts of one move with a rest up to this add up.</summary>
    public const int ClusterRest = 30;

    /// <summary>A gap that lets a family breathe, and one that lets a grip or a trunk.</summary>
    public const int FamilyGap = 30;
    public const int GripGap = 60;
    public const double TiringGrip = 3;

    /// <summary>Of all main work, before which jumps begin.</summary>
    public const double JumpsBefore = 0.60;

    /// <summary>Foot contacts of beginners and of the practised in one class [P: NSCA, plyometrics chapter; from memory].</summary>
    public const int Contacts = 80;
    public const int MostContacts = 120;

    /// <summary>Kilograms that want a go without first.</summary>
    public const double PractiseFrom = 8;

    /// <summary>On one leg without a break. Seconds.</summary>
    public const int LongOnOneLeg = 90;
    public const int LegBreak = 10;

    /// <summary>Left and right may differ by so many seconds, and so much of the larger.</summary>
    public const int UnevenSeconds = 10;
    public const double UnevenShare = 0.05;

    public const int LongHold = 60;

    /// <summary>Below so many stations there is no mix to speak of.</summary>
    public const int StationsOfAMix = 4;
    public const double LeastOfAFamily = 0.10;
    public const double MostOfAFamily = 0.50;
    public const double KneeToHip = 3;

    /// <summary>Less difference in demand nobody feels.</summary>
    public const double Felt = 0.3;

    public const double WobblyBalance = 3;
    public const double DeepKnee = 90;
    public const double LessDeep = 20;
    public const double HeavyForSideBounds = 5;

    public const int BandChanges = 3;
    public const int MostAtAStation = 4;

    /// <summary>Square metres a person, as the floor is laid out: on the spot, for jumps and swings, and a lane.</summary>
    public const double Spot = FloorLayout.Spot * FloorLayout.Spot;
    public const double HopSpot = FloorLayout.Spot * FloorLayout.HopLength;
    public const double LaneWidth = FloorLayout.LaneWidth;
    public const double LaneLength = FloorLayout.LaneLength;

    public const int HardSets = 10;
    public const int HardHours = 36;
    public const int UsualEffort = 5;
    public const double WeekRise = 1.5;
    public const int WeeksBack = 4;
    public const int LeastWeekSets = 10;
    public const int MostWeekSets = 20;

    /// <summary>What can be changed in the settings, by the code of its rule.</summary>
    public static readonly ImmutableSortedDictionary<string, AdjustableLimit> Adjustable = new Dictionary<string, AdjustableLimit>
    {
        ["time.drink"] = new(20, 5, 180, "min"),
        ["time.warmUp"] = new(300, 60, 1200, "s"),
        ["time.coolDown"] = new(240, 60, 1200, "s"),
        ["time.idle"] = new(0.5m, 0.1m, 1, "of the window"),
        ["leg.long"] = new(150, 30, 1200, "s"),
    }.ToImmutableSortedDictionary(StringComparer.Ordinal);
}
