using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Planning.Drafts;

namespace Halterion.Drafting;

/// <summary>A class that could be led as it is.</summary>
/// <param name="Cost">The terms in sum.</param>
/// <param name="Bound">No class that keeps the hard rules of the brief costs less.</param>
/// <param name="Proven">It costs no more than that.</param>
/// <param name="Why">In words: the whole, then a line a station.</param>
public sealed record Draft(
    JsonObject Plan,
    DraftShape Shape,
    decimal Cost,
    decimal Bound,
    bool Proven,
    ImmutableSortedDictionary<string, decimal> Terms,
    ImmutableArray<string> Why);

/// <summary>Up to three drafts, the best first; or none, with the reason and the way out.</summary>
/// <param name="Solved">The solver chose; false: the built-in search did.</param>
public sealed record DraftAnswer(ImmutableArray<Draft> Drafts, string? Reason = null, string? WayOut = null, bool Solved = false);
