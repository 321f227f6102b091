using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Web.Bodies;

/// <summary>Preferences as they were sent; what is left out is as usual.</summary>
public sealed record SavePreferences(Preferences Preferences) : IRead<SavePreferences>
{
    public static SavePreferences? Read(Fields body, Faults faults)
    {
        var usual = new Preferences();
        var startSide = body.Choice("startSide", ["left", "right"]) == "right" ? Side.Right : Side.Left;
        var heights = body.Has("heights") ? body.Items("heights", 0, 50, "heights") : [];
        return new SavePreferences(new Preferences
        {
            Count = body.Choice<Counting>("count") ?? usual.Count,
            StartSide = startSide,
            Facing = body.Choice<Facing>("facing") ?? usual.Facing,
            Sides = body.Choice<SideHabit>("sides") ?? usual.Sides,
            Rest = body.Choice<RestHabit>("rest") ?? usual.Rest,
            Pace = body.Choice<Pace>("pace") ?? usual.Pace,
            Weight = body.Choice<WeightUnit>("weight") ?? usual.Weight,
            Length = body.Choice<LengthUnit>("length") ?? usual.Length,
            Clock = body.Choice<ClockFormat>("clock") ?? usual.Clock,
            Week = body.Choice<FirstOfWeek>("week") ?? usual.Week,
            Scheme = body.Choice<Scheme>("scheme") ?? usual.Scheme,
            Silent = body.Has("silent") ? body.WordList<CallKind>("silent", Enum.GetValues<CallKind>().Length) : usual.Silent,
            Limits = CheckReaders.Limits(body),
            Off = CheckReaders.Off(body),
            Heights = [.. heights.Select((height, i) => body.Whole(height, "heights", i, 1, 120)).OfType<int>()],
        });
    }
}

/// <summary>The limits and weights of Fit as they were sent.</summary>
public sealed record SaveFitTerms(FitTerms Terms) : IRead<SaveFitTerms>
{
    public static SaveFitTerms? Read(Fields body, Faults faults) => new(SettingReaders.Terms(body));
}

internal static class SettingReaders
{
    /// <summary>Limits and weights; what is left out is as usual.</summary>
    public static FitTerms Terms(Fields fields)
    {
        var usual = new FitTerms();
        int Of(string name, int otherwise, int most) => fields.Whole(name, 0, most) ?? otherwise;
        var terms = new FitTerms
        {
            RestWeight = Of("restWeight", usual.RestWeight, FitTerms.MostWeight),
            ChangeWeight = Of("changeWeight", usual.ChangeWeight, FitTerms.MostWeight),
            WorkWeight = Of("workWeight", usual.WorkWeight, FitTerms.MostWeight),
            RepsWeight = Of("repsWeight", usual.RepsWeight, FitTerms.MostWeight),
            RoundWeight = Of("roundWeight", usual.RoundWeight, FitTerms.MostWeight),
            OptionalRoundWeight = Of("optionalRoundWeight", usual.OptionalRoundWeight, FitTerms.MostWeight),
            PerChange = Of("perChange", usual.PerChange, FitTerms.MostPoints),
            RestFloor = Of("restFloor", usual.RestFloor, FitTerms.MostSeconds),
            RestCeiling = Of("restCeiling", usual.RestCeiling, FitTerms.MostSeconds),
            WorkFloor = Of("workFloor", usual.WorkFloor, FitTerms.MostSeconds),
            WorkPercent = Of("workPercent", usual.WorkPercent, FitTerms.MostPercent),
            RepsPercent = Of("repsPercent", usual.RepsPercent, FitTerms.MostPercent),
            RoundsLess = Of("roundsLess", usual.RoundsLess, FitTerms.MostRounds),
            RoundsMore = Of("roundsMore", usual.RoundsMore, FitTerms.MostRounds),
            SpareWeight = Of("spareWeight", usual.SpareWeight, FitTerms.MostPoints),
            Changes = ChangeTimes.Of(
                fields.Choice<Pace>("pace") ?? Pace.Brisk, ImmutableSortedDictionary<string, decimal>.Empty),
        };
        fields.Close("these terms");
        return terms;
    }
}

/// <summary>What is set of the checks.</summary>
internal static class CheckReaders
{
    private const int LongestReason = 400;

    /// <summary>The settings of a review: pace, limits by code, and the codes of rules that are off.</summary>
    public static Preferences Settings(Fields fields)
    {
        var pace = fields.Choice<Pace>("pace") ?? default;
        var off = fields.Has("off") ? fields.Items("off", 0, Rules.All.Length * 2, "codes") : [];
        var codes = ImmutableSortedDictionary.CreateBuilder<string, string>(StringComparer.Ordinal);
        for (var i = 0; i < off.Length; i++)
        {
            if (off[i].ValueKind != JsonValueKind.String || !IsRule(JsonText.Of(off[i]) ?? ""))
            {
                fields.FaultAt($"/off/{i}", $"“{off[i]}” is not a check.", "the code of a check, such as time.drink");
            }
            else
            {
                codes[JsonText.Of(off[i])!] = "switched off";
            }
        }

        var limits = Limits(fields);
        fields.Close("the settings");
        return new Preferences { Pace = pace, Limits = limits, Off = codes.ToImmutable() };
    }

    public static ImmutableSortedDictionary<string, decimal> Limits(Fields body)
    {
        var limits = ImmutableSortedDictionary.CreateBuilder<string, decimal>(StringComparer.Ordinal);
        if (body.Object("limits") is { } map)
        {
            foreach (var code in map.Names.ToArray())
            {
                if (Thresholds.Adjustable.TryGetValue(code, out var bounds))
                {
                    if (map.Decimal(code, bounds.Least, bounds.Most) is { } limit)
                    {
                        limits[code] = limit;
                    }
                }
                else
                {
                    map.Fault(code, $"The check “{code}” has no limit you can set.", $"one of "
                        + $"{string.Join(", ", Thresholds.Adjustable.Keys)}");
                }
            }
        }

        return limits.ToImmutable();
    }

    /// <summary>Rules that are off, each with its reason.</summary>
    public static ImmutableSortedDictionary<string, string> Off(Fields body)
    {
        var off = ImmutableSortedDictionary.CreateBuilder<string, string>(StringComparer.Ordinal);
        if (body.Object("off") is { } map)
        {
            foreach (var code in map.Names.ToArray())
            {
                if (!IsRule(code))
                {
                    map.Fault(code, $"“{code}” is not a check.", "the code of a check, such as time.drink");
                }
                else if (map.Text(code, 1, LongestReason, required: true) is { } reason)
                {
                    off[code] = reason;
                }
            }
        }

        return off.ToImmutable();
    }

    private static bool IsRule(string code) => Rules.All.Any(r => r.Code == code);
}
