using System.Globalization;
using Halterion.Store;
using Halterion.Web.Security;
using Halterion.Web.Startup;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Data.Sqlite;

namespace Halterion.Web.Answers;

/// <summary>
/// What a failure is for the one who asked: a full store, a damaged one, a request that could not be read, or a fault of ours.
/// </summary>
internal sealed class Failures(IServiceProvider services, CommandLine settings) : IExceptionHandler
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
            BadHttpRequestException bad => TypedResults.Problem(title: "This request could "
                + "not be read.", detail: bad.Message, statusCode: bad.StatusCode),
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

    private string CopyWords => Copies.In(settings.DataFolder) is { IsEmpty: false } copies
        ? $"Daily copies are in {Copies.FolderOf(settings.DataFolder)}; the newest is {Path.GetFileName(copies[0])}."
        : "There are no daily copies yet.";
}

/// <summary>
/// A value of the address that is of another type is answered with nothing but 400 by the framework: here it is said which, and what would
/// do.
/// </summary>
internal static class WrongQueries
{
    public static async Task AnswerAsync(StatusCodeContext status)
    {
        var http = status.HttpContext;
        if (http.Response.StatusCode == StatusCodes.Status400BadRequest && Wrong(http) is { } problem)
        {
            await problem.ExecuteAsync(http);
            return;
        }

        await TypedResults.Problem(statusCode: http.Response.StatusCode).ExecuteAsync(http);
    }

    private static ProblemHttpResult? Wrong(HttpContext http)
    {
        foreach (var parameter in http.GetEndpoint()?.Metadata.GetOrderedMetadata<IParameterBindingMetadata>() ?? [])
        {
            var text = http.Request.Query[parameter.Name].ToString();
            if (text.Length > 0 && Right(parameter.ParameterInfo.ParameterType, text) is { } right)
            {
                return Problems.Query(parameter.Name, $"“{(text.Length > 40 ? text[..40] + "…" : text)}” does not work here.", right);
            }
        }

        return null;
    }

    /// <summary>What a value of this type would be; null where the text is one, or the type is none of an address.</summary>
    private static string? Right(Type type, string text) => Type.GetTypeCode(Nullable.GetUnderlyingType(type) ?? type) switch
    {
        TypeCode.Int32 => int.TryParse(text, CultureInfo.InvariantCulture, out _) ? null : "a whole number",
        TypeCode.Boolean => bool.TryParse(text, out _) ? null : "true or false",
        TypeCode.Double => double.TryParse(text, CultureInfo.InvariantCulture, out _) ? null : "a number",
        _ when type == typeof(Guid?) || type == typeof(Guid) => Guid.TryParse(text, out _) ? null : "an id as the server gave it",
        _ => null,
    };
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
                extensions: new Dictionary<string, object?>
                {
                    ["trouble"] = new DataTroubleView(trouble.Why, Path.GetFileName(trouble.Copy), trouble.Command),
                })
            : TypedResults.Problem(
                title: "The data cannot be opened.",
                detail: "The instructor’s screen says what to do.",
                statusCode: StatusCodes.Status503ServiceUnavailable);

    /// <summary>While the data cannot be used, every question to it is answered with why, and what puts it right.</summary>
    public static void UseTrouble(this WebApplication app, Database database) => app.Use(async (context, next) =>
    {
        if (database.Trouble is { } trouble
            && context.Request.Path.StartsWithSegments("/api")
            && !context.Request.Path.StartsWithSegments(Ways))
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
