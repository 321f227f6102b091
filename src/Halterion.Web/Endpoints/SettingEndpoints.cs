using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Halterion.Web.Endpoints;

/// <summary>What the instructor chose for all classes.</summary>
public sealed record SettingsView(Preferences Preferences, FitTerms Fit);

internal static class SettingEndpoints
{
    public static void MapSettings(this IEndpointRouteBuilder routes)
    {
        var settings = routes.MapGroup("/api/settings").WithTags("Settings");
        settings.MapGet("/", (Settings store) => TypedResults.Ok(new SettingsView(store.Preferences(), store.FitTerms()))).WithName("settings");
        settings.MapPut("/preferences", SavePreferences).ProducesProblem(422).WithName("savePreferences");
        settings.MapPut("/fit", SaveFit).ProducesProblem(422).WithName("saveFitTerms");
    }

    private static Results<NoContent, ProblemHttpResult> SavePreferences([FromBody] Preferences preferences, Settings store)
    {
        if (preferences.StartSide is not (Core.Side.Left or Core.Side.Right))
        {
            return Problems.Bad("/startSide", "A first side is left or right.", "left or right");
        }

        if (preferences.Heights.IsDefault || preferences.Heights.Length > 50 || preferences.Heights.Any(h => h is < 1 or > 120))
        {
            return Problems.Bad("/heights", "A height is out of bounds.", "at most 50 heights of 1–120 cm");
        }

        store.Save(preferences);
        return TypedResults.NoContent();
    }

    private static Results<NoContent, ProblemHttpResult> SaveFit(FitTerms terms, Settings store)
    {
        if (terms.Fault() is { } fault)
        {
            return Problems.Bad($"/{fault.Name}", "This limit or weight is out of bounds.", fault.Right);
        }

        store.Save(terms);
        return TypedResults.NoContent();
    }
}
