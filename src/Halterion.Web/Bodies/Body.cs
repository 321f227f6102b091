using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.PlanFormat;
using Halterion.Web.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Bodies;

/// <summary>A request body that reads itself: what is wrong is noted with its place, never thrown.</summary>
public interface IRead<TSelf> where TSelf : class
{
    /// <summary>Reads the fields of the body. What it returns counts only where no fault was noted.</summary>
    static abstract TSelf? Read(Fields body, Faults faults);

    /// <summary>What is wrong beside that, such as in a class, where its own reader comes later: every fault is said at once.</summary>
    static virtual ImmutableArray<PlanFault> Beside(TSelf value, IServiceProvider services) => [];
}

/// <summary>
/// A body as it was sent, or the problem that it has: 413, 415, or 422 with every fault and its JSON Pointer into the body.
/// </summary>
public sealed record Body<T>(T? Value, ProblemHttpResult? Problem) where T : class, IRead<T>
{
    public static async ValueTask<Body<T>> BindAsync(HttpContext context)
    {
        var (bytes, problem) = await Raw.ReadAsync(context.Request, Raw.MaxBytes);
        if (problem is not null)
        {
            return new Body<T>(null, problem);
        }

        var (root, unsound) = Soundness.Read(bytes);
        if (root is not { } element)
        {
            return new Body<T>(null, Problems.Faults(unsound, Problems.Request));
        }

        var faults = new Faults { NullIsAbsent = true };
        var fields = new Fields(element, "", faults);
        var value = fields.IsObject ? T.Read(fields, faults) : null;
        if (fields.IsObject)
        {
            fields.Close("this request");
        }

        return faults.None && value is not null ? new Body<T>(value, null)
            : new Body<T>(
                null, Problems.Faults([.. faults.All, .. value is null ? [] : T.Beside(value, context.RequestServices)], Problems.Request));
    }
}

/// <summary>Bodies as bytes.</summary>
internal static class Raw
{
    /// <summary>A class file at its largest, and what stands around it in a request.</summary>
    public const int MaxBytes = ClassReader.MaxBytes + 16_384;

    /// <summary>The whole body; 413 above the limit, 415 where it says that it is no JSON.</summary>
    public static async Task<(ReadOnlyMemory<byte> Bytes, ProblemHttpResult? Problem)> ReadAsync(HttpRequest request, int limit)
    {
        if (!request.HasJsonContentType())
        {
            return (default, TypedResults.Problem(
                title: "This address takes JSON.",
                detail: "Send the body with the content type application/json.",
                statusCode: StatusCodes.Status415UnsupportedMediaType));
        }

        if (request.ContentLength > limit)
        {
            return (default, TooLarge(limit));
        }

        using var body = new MemoryStream((int)Math.Min(request.ContentLength ?? 4096, limit));
        var piece = new byte[16_384];
        int read;
        while ((read = await request.Body.ReadAsync(piece, request.HttpContext.RequestAborted)) > 0)
        {
            if (body.Length + read > limit)
            {
                return (default, TooLarge(limit));
            }

            body.Write(piece, 0, read);
        }

        return (body.GetBuffer().AsMemory(0, (int)body.Length), null);
    }

    private static ProblemHttpResult TooLarge(int limit) => TypedResults.Problem(
        title: "This file or request is too large.", detail: $"A body has at most {limit} "
            + $"bytes.", statusCode: StatusCodes.Status413PayloadTooLarge);
}

/// <summary>Parts that several bodies have.</summary>
internal static class Parts
{
    /// <summary>A field whose own reader comes later, such as a class: any object.</summary>
    public static JsonElement? Json(this Fields fields, string name, Faults faults)
    {
        if (fields.Take(name) is not { } value)
        {
            fields.Missing<int>(name, "an object { … }");
            return null;
        }

        return new Fields(value, fields.PointerTo(name), faults).IsObject ? value : null;
    }

    public static Guid? Id(this Fields fields, string name, bool required = false)
    {
        if (fields.Text(name, 1, 60, required) is not { } text)
        {
            return null;
        }

        if (Guid.TryParseExact(text, "D", out var id))
        {
            return id;
        }

        fields.Fault(name, $"“{text}” is not a valid id.", "an id as the server gave it");
        return null;
    }
}
