using Halterion.Core.Leading.Calling;
using Halterion.Core.Moves;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>What the instructor chose for all classes.</summary>
/// <param name="PreferencesRevision">Counts the changes of the preferences; If-Match carries it.</param>
/// <param name="FitRevision">The same of the limits for fitting.</param>
public sealed record SettingsView(Preferences Preferences, FitTerms Fit, int PreferencesRevision, int FitRevision);

internal static class SettingEndpoints
{
    public static void MapSettings(this IEndpointRouteBuilder routes)
    {
        var settings = routes.MapGroup("/api/settings").WithTags("Settings");
        settings.MapGet("/", (Settings store) => TypedResults.Ok(View(store))).WithName("settings");
        settings.MapGet("/heard", (Settings store, MoveLibrary moves) => TypedResults.Ok(CallPreview.Of(moves, store.Preferences())))
            .WithName("heard");
        settings.MapGet("/preferences", (Settings store, HttpContext http) =>
        {
            http.Tagged(store.Revisions().Preferences);
            return TypedResults.Ok(store.Preferences());
        }).WithName("preferences");
        settings.MapPut("/preferences", Save).Takes<Preferences>().Revised().WithName("savePreferences");
        settings.MapGet("/fit", (Settings store, HttpContext http) =>
        {
            http.Tagged(store.Revisions().Fit);
            return TypedResults.Ok(store.FitTerms());
        }).WithName("fitTerms");
        settings.MapPut("/fit", SaveFit).Takes<FitTerms>().Revised().WithName("saveFitTerms");
    }

    private static SettingsView View(Settings store)
    {
        var (preferences, fit) = store.Revisions();
        return new SettingsView(store.Preferences(), store.FitTerms(), preferences, fit);
    }

    private static Results<Ok<Kept>, ProblemHttpResult> Save(Body<SavePreferences> body, Settings store, Current current, HttpContext http)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var answer = Saving.Answer(http, "setting", basis => store.Save(request.Preferences, basis), () =>
        {
            var theirs = store.Preferences();
            return (View(store), Difference.Between(SettingWords.Lines(request.Preferences), SettingWords.Lines(theirs)));
        });
        current.Forget();
        return answer;
    }

    private static Results<Ok<Kept>, ProblemHttpResult> SaveFit(Body<SaveFitTerms> body, Settings store, HttpContext http) =>
        body.Value is not { } request ? body.Problem!
        : Saving.Answer(http, "setting", basis => store.Save(request.Terms, basis), () =>
            (View(store), Difference.Between(SettingWords.Lines(request.Terms), SettingWords.Lines(store.FitTerms()))));
}
