using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Startup;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>What is known of the data file and its copies.</summary>
/// <param name="Trouble">Null: all is well.</param>
/// <param name="Copies">The newest first.</param>
public sealed record DataView(ImmutableArray<CopyLine> Copies, DataTroubleView? Trouble = null);

/// <summary>A copy of the data.</summary>
public sealed record CopyLine(string Name, DateTimeOffset MadeAt);

/// <summary>A copy is to be put back.</summary>
/// <param name="Copy">Its name in the folder of copies.</param>
public sealed record RestoreCopy(string Copy) : IRead<RestoreCopy>
{
    public static RestoreCopy? Read(Fields body, Faults faults) =>
        body.Text("copy", 1, 200, required: true) is { } copy ? new RestoreCopy(copy) : null;
}

/// <param name="Aside">Where what was there before is kept; null: nothing was.</param>
public sealed record RestoredCopy(string? Aside = null);

/// <summary>The data file itself: answered also while it cannot be opened.</summary>
internal static class DataEndpoints
{
    public static void MapData(this IEndpointRouteBuilder routes)
    {
        var data = routes.MapGroup(TroubleAnswers.Ways).WithTags("Data");
        data.MapGet("/", Get).WithName("data");
        data.MapPost("/restore", Restore).Takes<RestoreCopy>().ProducesProblem(404).ProducesProblem(409).WithName("restoreCopy");
    }

    private static Ok<DataView> Get(Database database) => TypedResults.Ok(new DataView(
        [.. Copies.In(database.Folder).Select(f => new CopyLine(Path.GetFileName(f), File.GetLastWriteTimeUtc(f)))],
        database.Trouble is { } trouble ? new DataTroubleView(trouble.Why, Path.GetFileName(trouble.Copy), trouble.Command) : null));

    /// <summary>Puts a copy in the place of data that cannot be opened; the server goes on with it at once.</summary>
    private static Results<Ok<RestoredCopy>, ProblemHttpResult> Restore(
        Body<RestoreCopy> body, Database database, Beginning beginning, TimeProvider clock)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (Copies.In(database.Folder).FirstOrDefault(f => Path.GetFileName(f) == request.Copy) is not { } copy)
        {
            return Problems.NotFound("copy");
        }

        try
        {
            var aside = database.Restore(copy, clock);
            beginning.Begin();
            return TypedResults.Ok(new RestoredCopy(aside));
        }
        catch (StoreException e)
        {
            return TypedResults.Problem(title: "The copy was not put back.", detail: e.Message, statusCode: StatusCodes.Status409Conflict);
        }
    }
}
