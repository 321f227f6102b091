using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Answers;

/// <summary>Errors as RFC 9457 problem details.</summary>
internal static class Problems
{
    public const string Class = "class";
    public const string Request = "request";

    /// <summary>Carries the id of a change.</summary>
    public const string ChangeHeader = "Change-Id";

    /// <summary>422 with every fault and its JSON Pointer, into the body that was sent, under <c>errors</c>.</summary>
    public static ProblemHttpResult Faults(ImmutableArray<PlanFault> faults, string what = Class) => TypedResults.Problem(
        title: what == Request ? "That could not be done."
            : $"{Counted.Of(faults.Length, "entry", "entries")} in this {what} must be put right.",
        detail: faults.Length > 0 ? faults[0].Sentence : null,
        statusCode: StatusCodes.Status422UnprocessableEntity,
        extensions: new Dictionary<string, object?> { ["errors"] = faults });

    /// <summary>Faults of something that stands further inside the body that was sent.</summary>
    /// <param name="from">Where its reader takes it to stand.</param>
    /// <param name="to">Where it stands in the body.</param>
    public static ImmutableArray<PlanFault> At(this ImmutableArray<PlanFault> faults, string from, string to) =>
        [
            .. faults.Select(
                f => f.Pointer.StartsWith(from, StringComparison.Ordinal) ? f with { Pointer = to + f.Pointer[from.Length..] } : f)];

    public static ProblemHttpResult NotFound(string what) =>
        TypedResults.Problem(title: $"There is no such {what}.", statusCode: StatusCodes.Status404NotFound);

    /// <summary>A query that makes no sense; its names and values are in the words.</summary>
    public static ProblemHttpResult Query(string name, string detail, string right) => TypedResults.Problem(
        title: $"The value of “{name}” does not work.",
        detail: $"{detail} Should be: {right}.",
        statusCode: StatusCodes.Status400BadRequest);

    public static ProblemHttpResult Bad(string pointer, string detail, string right) => TypedResults.Problem(
        title: "This could not be saved.",
        detail: detail,
        statusCode: StatusCodes.Status422UnprocessableEntity,
        extensions: new Dictionary<string, object?> { ["errors"] = ImmutableArray.Create(new PlanFault(pointer, detail, right)) });

    /// <summary>A write without the version that it was made from.</summary>
    public static ProblemHttpResult NoVersion() => TypedResults.Problem(
        title: "The version this was based on is missing (If-Match).", statusCode: StatusCodes.Status428PreconditionRequired);

    /// <summary>412: somebody else changed it since; with what stands there, and where it differs from what was sent.</summary>
    public static ProblemHttpResult Changed(string what, object? current, ImmutableArray<Difference> differences) => TypedResults.Problem(
        title: $"This {what} was changed in another tab or on another device.",
        statusCode: StatusCodes.Status412PreconditionFailed,
        extensions: new Dictionary<string, object?> { ["current"] = current, ["differences"] = differences });

    public static ProblemHttpResult Conflict(
        string title,
        string name,
        object? current,
        int status = StatusCodes.Status412PreconditionFailed,
        params PlanFault[] faults) => TypedResults.Problem(
        title: title,
        detail: faults.Length > 0 ? $"{faults[0].Detail} Should be: {faults[0].Right}." : null,
        statusCode: status,
        extensions: new Dictionary<string, object?> { [name] = current, ["errors"] = faults });

    /// <summary>What a change is made from, and its own id where it has one; null where If-Match is missing or no number.</summary>
    public static Basis? Basis(this HttpRequest request) => request.Version() is { } version ? new Basis(version, request.Change()) : null;

    /// <summary>The id of a change, the same when it is sent again because its answer was lost; what it adds gets this id.</summary>
    public static Guid? Change(this HttpRequest request) => Guid.TryParseExact(request.Headers[ChangeHeader], "D", out var id) ? id : null;

    /// <summary>Says in the answer, as it is in the body, which revision this is.</summary>
    public static void Tagged(this HttpContext http, int revision) =>
        http.Response.Headers.ETag = string.Create(System.Globalization.CultureInfo.InvariantCulture, $"\"{revision}\"");

    /// <summary>The version in If-Match; null if it is missing or none.</summary>
    private static int? Version(this HttpRequest request) =>
        int.TryParse(
            request.Headers.IfMatch.ToString().Trim('"'),
            System.Globalization.NumberStyles.None,
            System.Globalization.CultureInfo.InvariantCulture,
            out var version)
            ? version
            : null;
}
