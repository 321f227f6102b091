using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

public sealed record Health(string Status);

internal static class HealthEndpoints
{
    public static void MapHealth(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/health", Check).ProducesProblem(503).ProducesProblem(507).WithTags("Health").WithName("health");

    /// <summary>200 when something could be written to the store and read back.</summary>
    private static Results<Ok<Health>, ProblemHttpResult> Check(Database database, TimeProvider clock) =>
        database.Works(clock)
            ? TypedResults.Ok(new Health("ok"))
            : TypedResults.Problem(title: "The data folder does not return what was saved. Stop and check the "
                + "disk.", statusCode: StatusCodes.Status503ServiceUnavailable);
}
