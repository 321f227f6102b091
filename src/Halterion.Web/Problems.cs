using System.Collections.Immutable;
using Halterion.Core.Plans;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web;

/// <summary>Errors as RFC 9457 problem details.</summary>
internal static class Problems
{
    /// <summary>422 with every fault and its JSON Pointer under <c>errors</c>.</summary>
    public static ProblemHttpResult Faults(ImmutableArray<PlanFault> faults) => TypedResults.Problem(
        title: faults.Length == 1 ? "This class has a fault." : $"This class has {faults.Length} faults.",
        detail: faults.Length > 0 ? $"{faults[0].Pointer}: {faults[0].Detail} Right would be: {faults[0].Right}." : null,
        statusCode: StatusCodes.Status422UnprocessableEntity,
        extensions: new Dictionary<string, object?> { ["errors"] = faults });

    public static ProblemHttpResult NotFound(string what) => TypedResults.Problem(title: $"There is no such {what}.", statusCode: StatusCodes.Status404NotFound);

    public static ProblemHttpResult Bad(string pointer, string detail, string right) => TypedResults.Problem(
        title: "This cannot be saved as it is.",
        detail: detail,
        statusCode: StatusCodes.Status422UnprocessableEntity,
        extensions: new Dictionary<string, object?> { ["errors"] = ImmutableArray.Create(new PlanFault(pointer, detail, right)) });

    public static ProblemHttpResult Conflict(string title, string name, object? current, int status = StatusCodes.Status412PreconditionFailed) => TypedResults.Problem(
        title: title,
        statusCode: status,
        extensions: new Dictionary<string, object?> { [name] = current });
}
