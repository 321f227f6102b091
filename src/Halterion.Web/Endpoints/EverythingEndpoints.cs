using System.Collections.Immutable;
using System.IO.Compression;
using System.Text;
using System.Text.Json;
using Halterion.Core.People;
using Halterion.Core.Views;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Halterion.Web.Startup;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Endpoints;

/// <summary>Everything was brought in.</summary>
/// <param name="Aside">Where what was there before is kept; null: nothing was.</param>
public sealed record BroughtIn(string? Aside);

/// <summary>Takes everything along, and brings everything in.</summary>
internal static class EverythingEndpoints
{
    private const int MostBytes = 200 * 1024 * 1024;

    public static void MapEverything(this IEndpointRouteBuilder routes)
    {
        var all = routes.MapGroup("/api/everything").WithTags("Data");
        all.MapGet("/", TakeAsync).WithName("takeEverything");
        all.MapPost("/", BringAsync)
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("bringEverything");
    }

    private static async Task<FileStreamHttpResult> TakeAsync(Everything everything, TimeProvider clock, CancellationToken cancel)
    {
        var zip = await Task.Run(everything.Zip, cancel);
        return TypedResults.File(zip, "application/zip", $"halterion-{clock.GetLocalNow():yyyy-MM-dd}.zip");
    }

    private static async Task<Results<Ok<BroughtIn>, ProblemHttpResult>> BringAsync(
        HttpRequest request, Everything everything, Beginning beginning, CancellationToken cancel)
    {
        if (request.ContentType != "application/zip")
        {
            return TypedResults.Problem(title: "This address takes a zip.", detail: "Send the file with the content type application/zip.",
                statusCode: StatusCodes.Status415UnsupportedMediaType);
        }

        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
        {
            size.MaxRequestBodySize = MostBytes;
        }

        using var body = new MemoryStream();
        var piece = new byte[81_920];
        int read;
        while ((read = await request.Body.ReadAsync(piece, cancel)) > 0)
        {
            if (body.Length + read > MostBytes)
            {
                return TypedResults.Problem(title: "This file or request is too large.", detail: $"A file has at most "
                    + $"{MostBytes / 1024 / 1024} MB.",
                    statusCode: StatusCodes.Status413PayloadTooLarge);
            }

            await body.WriteAsync(piece.AsMemory(0, read), cancel);
        }

        try
        {
            body.Position = 0;
            var aside = everything.Bring(body);
            beginning.Begin();
            return TypedResults.Ok(new BroughtIn(aside is null ? null : Path.GetFileName(aside)));
        }
        catch (StoreException e)
        {
            return TypedResults.Problem(
                title: "This file was not brought in.",
                detail: $"It cannot be used: {e.Message.TrimEnd('.')}. Nothing here was changed.",
                statusCode: StatusCodes.Status422UnprocessableEntity);
        }
    }
}
