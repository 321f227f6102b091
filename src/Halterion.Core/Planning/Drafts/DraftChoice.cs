using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;

namespace Halterion.Core.Planning.Drafts;

/// <summary>What is known of a move in a shape before any class is put together: a line of the table that is chosen from.</summary>
/// <param name="Cost">What it costs wherever it stands: who does what, what is found at it, and for having been in the last classes; in
/// points, by the functions of the checks.</param>
/// <param name="Items">What is fetched for it.</param>
/// <param name="IsSideways">It goes sideways or turns.</param>
/// <param name="Demand">What its main option asks overall, 0–5.</param>
/// <param name="Place">How far down the list of everyday moves it stands; used between equals.</param>
public sealed record DraftChoice(
    MoveId Move, Family Family, decimal Cost, ImmutableArray<string> Items, bool IsSideways, double Demand, int Place, JsonObject Station);
