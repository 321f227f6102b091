using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

public sealed record Health(string Status);

internal static class HealthEndpoints
{
    public static void MapHealth(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/health", Check).ProducesProblem(503).WithTags("Health").WithName("health");

    /// <summary>200 when the store can be written.</summary>
    private static Results<Ok<Health>, ProblemHttpResult> Check(Database database) =>
        database.CanWrite()
            ? TypedResults.Ok(new Health("ok"))
            : TypedResults.Problem(title: "The store cannot be written.", statusCode: StatusCodes.Status503ServiceUnavailable);
}
