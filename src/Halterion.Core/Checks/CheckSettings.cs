using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>What an instructor sets of the checks.</summary>
/// <param name="Changes">How long change-overs take.</param>
/// <param name="Limits">By code, for the rules of <see cref="Thresholds.Adjustable"/>.</param>
/// <param name="Off">Rules switched off, by code, with the reason.</param>
public sealed record CheckSettings(
    ChangeTimes Changes, ImmutableSortedDictionary<string, decimal> Limits, ImmutableSortedDictionary<string, string> Off)
{
    /// <summary>Every rule on, with its usual bound.</summary>
    public static readonly CheckSettings Usual = new(ChangeTimes.Brisk, ImmutableSortedDictionary<string, decimal>.Empty,
        ImmutableSortedDictionary<string, string>.Empty);

    /// <summary>What an instructor has set.</summary>
    public static CheckSettings Of(Preferences preferences) => new(ChangeTimes.Of(preferences), preferences.Limits, preferences.Off);

    /// <summary>The bound of a rule: the studio's own, else the usual one.</summary>
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

    /// <summary>Seconds of a warm-up.</summary>
    public const int LeastWarmUp = 180;
    /// <summary>Seconds of a cool-down.</summary>
    public const int LeastCoolDown = 120;

    /// <summary>Of a short class, or where people warm up in their own time.</summary>
    public const int LeastOfShort = 60;

    /// <summary>A rest or change of so many seconds with water is a drink break.</summary>
    public const int DrinkBreak = 30;

    /// <summary>Talk for each different main move, seconds.</summary>
    public const int TalkEach = 10;

    /// <summary>Seconds of a rep that is done with control.</summary>
    public const decimal QuickestRep = 0.9m;
    /// <summary>Seconds of a rep that can be kept up.</summary>
    public const decimal SlowestRep = 12;

    /// <summary>Rest between sets of strength, and the least of the longest gap in a circuit; what is offered instead. Seconds.</summary>
    public const int StrengthRest = 90;
    /// <summary>Least of the longest gap in a circuit for strength. Seconds.</summary>
    public const int StrengthGap = 30;
    /// <summary>Rest that is proposed for strength. Seconds.</summary>
    public const int StrengthOffer = 120;

    /// <summary>Work over all of the main blocks: more is no strength, less is no conditioning.</summary>
    public const double DenseForStrength = 0.60;
    /// <summary>Less work than this share of the main blocks is no conditioning.</summary>
    public const double LooseForConditioning = 0.35;

    /// <summary>Reps under load for strength.</summary>
    public const int MostStrengthReps = 8;
    /// <summary>Reps under load for endurance.</summary>
    public const int LeastEnduranceReps = 12;

    /// <summary>Parts of one move with a rest up to this add up.</summary>
    public const int ClusterRest = 30;

    /// <summary>A gap that lets a family breathe, and one that lets a grip or a trunk.</summary>
    public const int FamilyGap = 30;
    /// <summary>A gap that lets a grip or a trunk recover. Seconds.</summary>
    public const int GripGap = 60;
    /// <summary>Demand of grip, 0 to 5, that tires it.</summary>
    public const double TiringGrip = 3;

    /// <summary>Of all main work, before which jumps begin.</summary>
    public const double JumpsBefore = 0.60;

    /// <summary>Foot contacts of beginners and of the practised in one class [P: NSCA, plyometrics chapter; from memory].</summary>
    public const int Contacts = 80;
    /// <summary>Foot contacts of the practised in one class.</summary>
    public const int MostContacts = 120;

    /// <summary>Kilograms that want a go without first.</summary>
    public const double PractiseFrom = 8;

    /// <summary>On one leg without a break. Seconds.</summary>
    public const int LongOnOneLeg = 90;
    /// <summary>Seconds that a leg needs.</summary>
    public const int LegBreak = 10;

    /// <summary>Left and right may differ by so many seconds, and so much of the larger.</summary>
    public const int UnevenSeconds = 10;
    /// <summary>Left and right may differ by so much of the larger.</summary>
    public const double UnevenShare = 0.05;

    /// <summary>Seconds of a hold that is long.</summary>
    public const int LongHold = 60;

    /// <summary>Below so many stations there is no mix to speak of.</summary>
    public const int StationsOfAMix = 4;
    /// <summary>A family with less than this share of the main work is missing.</summary>
    public const double LeastOfAFamily = 0.10;
    /// <summary>A family with more than this share of the main work is too much of one.</summary>
    public const double MostOfAFamily = 0.50;
    /// <summary>More of knee than of hip work than so many to one, or the other way round, is lopsided.</summary>
    public const double KneeToHip = 3;

    /// <summary>Less difference in demand nobody feels.</summary>
    public const double Felt = 0.3;

    /// <summary>Demand of balance, 0 to 5, from which something to hold is offered.</summary>
    public const double WobblyBalance = 3;
    /// <summary>A knee bent further is deep. Degrees.</summary>
    public const double DeepKnee = 90;
    /// <summary>So much less is less deep. Degrees.</summary>
    public const double LessDeep = 20;
    /// <summary>Kilograms with which nobody bounds to the side.</summary>
    public const double HeavyForSideBounds = 5;

    /// <summary>Changes of band in a class that are still few.</summary>
    public const int BandChanges = 3;
    /// <summary>People at a station of a rotation.</summary>
    public const int MostAtAStation = 4;

    /// <summary>Square metres a person, as the floor is laid out: on the spot, for jumps and swings, and a lane.</summary>
    public const double Spot = FloorLayout.Spot * FloorLayout.Spot;
    /// <summary>Square metres that one who jumps or swings needs.</summary>
    public const double HopSpot = FloorLayout.Spot * FloorLayout.HopLength;
    /// <summary>Metres that a lane is wide.</summary>
    public const double LaneWidth = FloorLayout.LaneWidth;
    /// <summary>Metres of a lane for who travels.</summary>
    public const double LaneLength = FloorLayout.LaneLength;

    /// <summary>Sets that make a day hard.</summary>
    public const int HardSets = 10;
    /// <summary>Hours between two hard days of a family.</summary>
    public const int HardHours = 36;
    /// <summary>Effort of a class where none is said, 0 to 10.</summary>
    public const int UsualEffort = 5;
    /// <summary>A week may weigh so many times the mean of those before.</summary>
    public const double WeekRise = 1.5;
    /// <summary>Weeks that are looked at.</summary>
    public const int WeeksBack = 4;
    /// <summary>Hard sets of a family in a week.</summary>
    public const int LeastWeekSets = 10;
    /// <summary>Hard sets of a family in a week that are too many.</summary>
    public const int MostWeekSets = 20;

    /// <summary>What can be changed in the settings, by the code of its rule.</summary>
    public static readonly ImmutableSortedDictionary<string, AdjustableLimit> Adjustable = new Dictionary<string, AdjustableLimit>
    {
        ["time.drink"] = new(20, 5, 180, "min"),
        ["time.warmUp"] = new(300, 60, 1200, "s"),
        ["time.coolDown"] = new(240, 60, 1200, "s"),
        ["time.idle"] = new(0.5m, 0.1m, 1, "share of the interval"),
        ["leg.long"] = new(150, 30, 1200, "s"),
    }.ToImmutableSortedDictionary(StringComparer.Ordinal);
}
