using Halterion.Core.PlanFormat;
using Halterion.Web.Answers;
using Halterion.Web.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Routing.Patterns;
using Microsoft.AspNetCore.Routing.Template;

namespace Halterion.Web.Endpoints;

internal static class PageEndpoints
{
    /// <summary>The app's own files, its page for every address that is a screen, and the contract.</summary>
    public static void MapPages(this WebApplication app)
    {
        app.MapGet("/api/schema/class", () => TypedResults.Text(PublishedSchema.Class().ToJsonString(), "application/schema+json"))
            .ExcludeFromDescription().RequireAuthorization(Roles.Owner);
        app.MapOpenApi("/api/openapi.json").RequireAuthorization(Roles.Owner);
        app.Map("/api/{**rest}", (HttpContext http, EndpointDataSource known) => Unserved(http, known)).ExcludeFromDescription()
            .RequireAuthorization(Roles.Wall);
        app.Use(async (context, next) =>
        {
            // Hashed names never change their content; the page itself must be asked for each time.
            if (context.Request.Path.StartsWithSegments("/assets"))
            {
                context.Response.OnStarting(() =>
                {
                    if (context.Response.StatusCode == StatusCodes.Status200OK)
                    {
                        context.Response.Headers.CacheControl = "public, max-age=31536000, immutable";
                    }

                    return Task.CompletedTask;
                });
            }

            await next(context);
        });
        // The pages hold no data: what they show they ask for. A file that is not there is not the page.
        app.MapStaticAssets().AllowAnonymous();
        foreach (var file in (string[])["/assets/{**rest}", "{**path:file}"])
        {
            // Not MapFallback: what the compiler writes for it forgets the pattern.
            app.Map(file, ProblemHttpResult (HttpContext http) =>
            {
                http.Response.Headers.CacheControl = "no-store";
                return Problems.NotFound("file");
            }).WithOrder(int.MaxValue).ExcludeFromDescription().AllowAnonymous();
        }

        app.MapFallbackToFile("index.html", new StaticFileOptions
        {
            OnPrepareResponse = static file => file.Context.Response.Headers.CacheControl = "no-cache",
        }).AllowAnonymous();
    }

    /// <summary>Why no route took a request: there is no such address, it takes another method, or another kind of body.</summary>
    private static ProblemHttpResult Unserved(HttpContext http, EndpointDataSource known)
    {
        var methods = known.Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText?.TrimStart('/').StartsWith("api/", StringComparison.Ordinal) == true
                && e.Metadata.GetMetadata<IHttpMethodMetadata>() is { HttpMethods.Count: > 0 }
                    && Matches(e.RoutePattern, http.Request.Path))
            .SelectMany(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()!.HttpMethods).Distinct().Order().ToArray();
        if (methods.Length == 0)
        {
            return Problems.NotFound("address");
        }

        if (methods.Contains(http.Request.Method))
        {
            return TypedResults.Problem(
                title: "This address expects JSON.",
                detail: "Send the body with the content type application/json.",
                statusCode: StatusCodes.Status415UnsupportedMediaType);
        }

        http.Response.Headers.Allow = string.Join(", ", methods);
        return TypedResults.Problem(title: $"This address does not support "
            + $"{http.Request.Method}.", statusCode: StatusCodes.Status405MethodNotAllowed);
    }

    private static bool Matches(RoutePattern pattern, PathString path)
    {
        var values = new RouteValueDictionary();
        return new TemplateMatcher(new RouteTemplate(pattern), []).TryMatch(path, values)
            && pattern.ParameterPolicies.All(
                p => p.Value.All(policy => policy.Content != "guid" || Guid.TryParse(values[p.Key]?.ToString(), out _)));
    }
}
