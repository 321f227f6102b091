using System.Text.RegularExpressions;
using Halterion.Store;
using Halterion.Web.Security;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Data.Sqlite;

namespace Halterion.Web;

/// <summary>What a failure is for the one who asked: a full store, a damaged one, a request that could not be read, or a fault of ours.</summary>
internal sealed partial class Failures(IServiceProvider services, CommandLine settings) : IExceptionHandler
{
    private const int Busy = 5;
    private const int Locked = 6;
    private const int Full = 13;

    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellationToken)
    {
        var problem = exception switch
        {
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => TypedResults.Problem(
                title: "This file or request is too large.",
                statusCode: StatusCodes.Status413PayloadTooLarge),
            BadHttpRequestException bad when Unbound().Match(bad.Message) is { Success: true } value => Problems.Query(
                value.Groups["name"].Value, $"“{Short(value.Groups["value"].Value)}” does not work here.", $"{Named(value.Groups["type"].Value)}"),
            BadHttpRequestException bad => TypedResults.Problem(title: "This request could not be read.", detail: bad.Message, statusCode: bad.StatusCode),
            SqliteException { SqliteErrorCode: Full } => TypedResults.Problem(
                title: "The disk is full, so nothing can be saved.",
                detail: $"Free some space, then save again. Everything saved so far is safe. {CopyWords}",
                statusCode: StatusCodes.Status507InsufficientStorage),
            SqliteException { SqliteErrorCode: Busy or Locked } => TypedResults.Problem(
                title: "Halterion is busy. Try again in a moment.", statusCode: StatusCodes.Status503ServiceUnavailable),
            // Whatever failed there: from now on it is known whether the file itself is to blame.
            SqliteException or StoreException => services.GetRequiredService<Database>().Examine() is { } trouble
                ? TroubleAnswers.Of(trouble, context)
                : TypedResults.Problem(
                    title: "The data cannot be read or saved.",
                    detail: $"{exception.Message.TrimEnd('.')}. {CopyWords}",
                    statusCode: StatusCodes.Status503ServiceUnavailable),
            _ => null,
        };
        if (problem is null)
        {
            return false;
        }

        await problem.ExecuteAsync(context);
        return true;
    }

    /// <summary>How the framework says that a value of the address is of another type.</summary>
    [GeneratedRegex("""^Failed to bind parameter "(?<type>.*) (?<name>[^ ]+)" from "(?<value>.*)"\.$""", RegexOptions.Singleline)]
    private static partial Regex Unbound();

    private static string Named(string type) => type switch
    {
        _ when type.Contains("int", StringComparison.OrdinalIgnoreCase) => "a whole number",
        _ when type.Contains("bool", StringComparison.OrdinalIgnoreCase) => "true or false",
        _ when type.Contains("Guid", StringComparison.Ordinal) => "an id as the server gave it",
        _ => "a value of another kind",
    };

    private static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;

    private string CopyWords => Copies.In(settings.DataFolder) is { IsEmpty: false } copies
        ? $"Daily copies are in {Copies.FolderOf(settings.DataFolder)}; the newest is {Path.GetFileName(copies[0])}."
        : "There are no daily copies yet.";
}

/// <summary>What everybody is told while the data cannot be opened.</summary>
internal static class TroubleAnswers
{
    /// <summary>Where the question is still answered: what puts the data right.</summary>
    public const string Ways = "/api/data";

    /// <summary>Folders are named to this machine only; a phone or a wall learns that it must wait.</summary>
    public static ProblemHttpResult Of(DataTrouble trouble, HttpContext context) =>
        Doors.IsHere(context)
            ? TypedResults.Problem(
                title: "The data cannot be opened.",
                detail: trouble.Words,
                statusCode: StatusCodes.Status503ServiceUnavailable,
                extensions: new Dictionary<string, object?> { ["trouble"] = new DataTroubleView(trouble.Why, Path.GetFileName(trouble.Copy), trouble.Command) })
            : TypedResults.Problem(
                title: "The data cannot be opened.",
                detail: "The instructor’s screen says what to do.",
                statusCode: StatusCodes.Status503ServiceUnavailable);

    /// <summary>While the data cannot be used, every question to it is answered with why, and what puts it right.</summary>
    public static void UseTrouble(this WebApplication app, Database database) => app.Use(async (context, next) =>
    {
        if (database.Trouble is { } trouble && context.Request.Path.StartsWithSegments("/api") && !context.Request.Path.StartsWithSegments(Ways))
        {
            await Of(trouble, context).ExecuteAsync(context);
            return;
        }

        await next(context);
    });
}

/// <summary>What is wrong with the data.</summary>
/// <param name="Copy">The name of the newest good copy; null: there is none.</param>
/// <param name="Command">What puts it back.</param>
public sealed record DataTroubleView(string Why, string? Copy = null, string? Command = null);
