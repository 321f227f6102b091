using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;
using Halterion.Store;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>What the instructor chose for all classes.</summary>
public sealed record SettingsView(Preferences Preferences, FitTerms Fit);

internal static class SettingEndpoints
{
    public static void MapSettings(this IEndpointRouteBuilder routes)
    {
        var settings = routes.MapGroup("/api/settings").WithTags("Settings");
        settings.MapGet("/", (Settings store) => TypedResults.Ok(new SettingsView(store.Preferences(), store.FitTerms()))).WithName("settings");
        settings.MapPut("/preferences", Save).Takes<Preferences>().WithName("savePreferences");
        settings.MapPut("/fit", SaveFit).Takes<FitTerms>().WithName("saveFitTerms");
    }

    private static Results<NoContent, ProblemHttpResult> Save(Body<SavePreferences> body, Settings store, Current current)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        store.Save(request.Preferences);
        current.Forget();
        return TypedResults.NoContent();
    }

    private static Results<NoContent, ProblemHttpResult> SaveFit(Body<SaveFitTerms> body, Settings store)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        store.Save(request.Terms);
        return TypedResults.NoContent();
    }
}
