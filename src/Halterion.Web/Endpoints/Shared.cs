using System.Collections.Immutable;
using System.IO.Compression;
using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.ResponseCompression;

namespace Halterion.Web.Endpoints;

internal static class Conventions
{
    /// <summary>Says in the contract which body a route takes, and how it can fail.</summary>
    public static RouteHandlerBuilder Takes<T>(this RouteHandlerBuilder route) where T : class =>
        route.Accepts<T>("application/json").ProducesProblem(413).ProducesProblem(415).ProducesProblem(422);
}

/// <summary>What a document is now.</summary>
/// <param name="Revision">If-Match carries it with the next change.</param>
public sealed record Kept(int Revision);

/// <summary>Somebody else changed it since.</summary>
/// <param name="Current">What stands there now, as it is fetched; not of every kind the whole of it.</param>
/// <param name="Differences">Where that differs from what was sent.</param>
public sealed record ChangedProblem(string Title, int Status, object? Current, ImmutableArray<Difference> Differences);

/// <summary>Documents that are saved against the revision they were made from.</summary>
internal static class Saving
{
    /// <summary>Says in the contract that If-Match is needed, and what comes without it or against a newer one.</summary>
    public static RouteHandlerBuilder Revised(this RouteHandlerBuilder route) =>
        route.ProducesProblem(404).Produces<ChangedProblem>(412, "application/problem+json").ProducesProblem(428);

    /// <summary>Saves what was sent: 428 without If-Match, 404 where there is no such document, 412 where it was changed since.</summary>
    /// <param name="current">What stands there, and how that differs.</param>
    public static Results<Ok<Kept>, ProblemHttpResult> Answer(
        HttpContext http, string what, Func<Basis, Saved> save, Func<(object? Current, ImmutableArray<Difference> Differences)> current)
    {
        if (http.Request.Basis() is not { } basis)
        {
            return Problems.NoVersion();
        }

        var saved = save(basis);
        if (saved.Done)
        {
            http.Tagged(saved.Revision);
            return TypedResults.Ok(new Kept(saved.Revision));
        }

        if (saved.Revision == 0)
        {
            return Problems.NotFound(what);
        }

        http.Tagged(saved.Revision);
        var (stands, differences) = current();
        return Problems.Changed(what, stands, differences);
    }
}

/// <summary>Answers as they go over the wire.</summary>
internal static class Compression
{
    /// <summary>
    /// Data is compressed; streams of events are not, and what is answered line by line is sent on after each line. An answer names
    /// nothing that another site could have put into it, so that its length tells nothing over HTTPS either.
    /// </summary>
    public static void AddAnswerCompression(this IServiceCollection services) => services
        .AddResponseCompression(options =>
        {
            options.EnableForHttps = true;
            options.MimeTypes = [
                "application/json",
                "application/problem+json",
                "application/schema+json",
                LookEndpoints.Lines,
                "text/csv",
                "text/vtt",
                "image/svg+xml",
                "text/html"];
        })
        .Configure<BrotliCompressionProviderOptions>(o => o.Level = CompressionLevel.Fastest)
        .Configure<GzipCompressionProviderOptions>(o => o.Level = CompressionLevel.Fastest);
}

/// <summary>Work that has no bound of its own.</summary>
internal static class Bounds
{
    /// <summary>So long a request may go on trying things. [M]</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(0.8);

    /// <summary>Says when it has tried long enough, from now.</summary>
    public static Func<bool> Late(this TimeProvider clock)
    {
        var began = clock.GetTimestamp();
        return () => clock.GetElapsedTime(began) > Longest;
    }
}

/// <summary>Windows of long lists.</summary>
internal static class Windows
{
    public static ProblemHttpResult? Fault(int? skip, int? take, int most) =>
        skip is < 0 ? Problems.Query("skip", $"It is {skip}.", "0 or more")
        : take < 1 || take > most ? Problems.Query("take", $"It is {take}.", $"1–{most}")
        : null;
}

/// <summary>Stored lengths in words.</summary>
internal static class Lengths
{
    public static string Of(int? seconds) => seconds is { } length ? new Seconds(length).ToString() : "";

    public static string Verdict(int? over) => over is { } seconds ? Evaluator.Verdict(new Seconds(seconds)) : "not timed yet";
}

/// <summary>Words of the contract in an address.</summary>
internal static class Queries
{
    /// <summary>A word of an enumeration as the contract publishes it; null where it is left out.</summary>
    public static (T? Value, ProblemHttpResult? Problem) Word<T>(string name, string? text) where T : struct, Enum =>
        string.IsNullOrEmpty(text) ? (null, null)
        : WordsOf<T>.All.TryGetValue(text, out var value) ? (value, null)
        : (null, Problems.Query(name, $"It is “{(text.Length > 40 ? text[..40] + "…" : text)}”.", $"one of: {WordsOf<T>.Listed}"));
}
