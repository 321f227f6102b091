using Halterion.Store;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;

namespace Halterion.Web;

/// <summary>What a failure is for the one who asked: a full store, a damaged one, a request that could not be read, or a fault of ours.</summary>
internal sealed class Failures(StoreTrouble trouble) : IExceptionHandler
{
    private const int Busy = 5;
    private const int Locked = 6;
    private const int Full = 13;

    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken cancellationToken)
    {
        var problem = exception switch
        {
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => TypedResults.Problem(
                title: "This is too large.",
                statusCode: StatusCodes.Status413PayloadTooLarge),
            BadHttpRequestException bad => TypedResults.Problem(title: "This request cannot be read.", detail: bad.Message, statusCode: bad.StatusCode),
            SqliteException { SqliteErrorCode: Full } => TypedResults.Problem(
                title: "The disk is full: nothing more can be saved.", detail: $"Make room, then save again; nothing that was saved is lost. {trouble.CopyWords}", statusCode: StatusCodes.Status507InsufficientStorage),
            SqliteException { SqliteErrorCode: Busy or Locked } => TypedResults.Problem(
                title: "The store is busy. Try again.", statusCode: StatusCodes.Status503ServiceUnavailable),
            SqliteException or StoreException => TypedResults.Problem(
                title: "The store cannot be read or written.", detail: $"{exception.Message.TrimEnd('.')}. {trouble.CopyWords}", statusCode: StatusCodes.Status503ServiceUnavailable),
            _ => null,
        };
        if (problem is null)
        {
            return false;
        }

        await problem.ExecuteAsync(context);
        return true;
    }
}

/// <summary>What is wrong with the data folder, if anything was when the program started, and where its copies are.</summary>
/// <param name="Why">Null: all is well.</param>
internal sealed record StoreTrouble(string? Why, string Folder)
{
    public string CopyWords => Copies.In(Folder) is { IsEmpty: false } copies
        ? $"Copies are in {Copies.FolderOf(Folder)}, the newest is {Path.GetFileName(copies[0])}."
        : "There are no copies yet.";
}
