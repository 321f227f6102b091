using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Views;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

internal static class Conventions
{
    /// <summary>Says in the contract which body a route takes, and how it can fail.</summary>
    public static RouteHandlerBuilder Takes<T>(this RouteHandlerBuilder route) where T : class =>
        route.Accepts<T>("application/json").ProducesProblem(413).ProducesProblem(415).ProducesProblem(422);
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

    public static string Verdict(int? over) => over is { } seconds ? Evaluator.Verdict(new Seconds(seconds)) : "a draft";
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
