using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Planning.Drafts;

/// <summary>Where the stock has no mats, what is done lying or sitting is done on the floor as it is; nobody kneels on it.</summary>
internal sealed class BareFloor(DraftBrief brief, MoveLibrary moves)
{
    private readonly bool noMats = brief.Kit is { } kit && kit.All(l => l.Item != KitItem.Mat);

    /// <summary>Whether a move is done on the bare floor.</summary>
    public bool IsBare(MoveId move) => noMats
        && moves.Find(move) is { Position: Position.OnTheBack or Position.SideLying or Position.Seated or Position.Prone } known
        && Needs.KitOf(known, moves).All(n => n.Item == KitItem.Mat);

    /// <summary>The option as it is done there.</summary>
    public Option Of(Option option) => option.Manner.Surface is null && IsBare(option.Move)
        ? option with { Manner = option.Manner with { Surface = Surface.Floor } } : option;
}
