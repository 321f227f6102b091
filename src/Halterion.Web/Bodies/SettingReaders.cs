using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
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
            Scheme = body.Choice<Scheme>("scheme") ?? usual.Scheme,
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
            Pace = fields.Choice<Pace>("pace") ?? usual.Pace,
        };
        fields.Close("these terms");
        return terms;
    }
}
