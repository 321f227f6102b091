using System.Collections.Immutable;
using System.Text.Json.Nodes;

namespace Halterion.Core.Moves;

/// <summary>What readies for a family of moves and what it ends with.</summary>
/// <param name="WarmUp">The plainest move that readies for it: standing, with nothing in the hands.</param>
/// <param name="Practise">The family without a weight.</param>
/// <param name="Stretch">What stretches that which it works.</param>
/// <param name="Depth">How deep it goes in a warm-up, as a word of the plan language; null: as it is.</param>
/// <param name="Everyday">Those that most people know, for a proposed class: they come before the rest of the library.</param>
/// <param name="Heavy">Those that a class for strength is made of, before the everyday ones.</param>
public sealed record FamilyMoves(
    MoveId WarmUp, MoveId Practise, MoveId Stretch, ImmutableArray<MoveId> Everyday, ImmutableArray<MoveId> Heavy, string? Depth = null);

/// <summary>A move in the plane that a class forgets.</summary>
/// <param name="Easier">Fields of an easier option.</param>
public sealed record SidewaysMove(MoveId Move, JsonObject Easier);

/// <summary>Which moves stand for what, where a repair or a new block needs one: common practice, no source. Data, not code.</summary>
/// <param name="KeepMoving">Goes on easily in a rest or a warm-up.</param>
/// <param name="KeepMovingElse">For whoever may not do that.</param>
/// <param name="Quiet">Ends a class that stretches nothing else.</param>
public sealed record UsualMoves(
    MoveId KeepMoving, MoveId KeepMovingElse, SidewaysMove Sideways, MoveId Quiet, ImmutableDictionary<Family, FamilyMoves> Families)
{
    /// <summary>Those of a family of the lower body; null of any other.</summary>
    public FamilyMoves? Of(Family family) => Families.GetValueOrDefault(family);

    /// <summary>How deep a move goes in a warm-up; null: as it is.</summary>
    public string? WarmUpDepthOf(MoveId move) => Families.Values.FirstOrDefault(f => f.WarmUp == move || f.Practise == move)?.Depth;
}
