namespace Halterion.Web.Endpoints;

internal static class PageEndpoints
{
    /// <summary>The app's own files, its page for every address that is a screen, and the contract.</summary>
    public static void MapPages(this WebApplication app)
    {
        app.MapGet("/api/schema/class", () => TypedResults.PhysicalFile(Contract.ClassSchemaFile, "application/schema+json")).ExcludeFromDescription();
        app.MapOpenApi("/api/openapi.json");
        app.Map("/api/{**rest}", () => Problems.NotFound("address")).ExcludeFromDescription();
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
        app.MapStaticAssets();
        app.MapFallbackToFile("index.html", new StaticFileOptions
        {
            OnPrepareResponse = static file => file.Context.Response.Headers.CacheControl = "no-cache",
        });
    }
}
