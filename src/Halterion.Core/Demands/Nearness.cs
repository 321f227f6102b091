using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>How far one move is from another: what it asks first, then where it belongs.</summary>
public static class Nearness
{
    // In steps of a dimension. [M] Another family is further than two steps of anything.
    private const double OtherFamily = 3;
    private const double OtherMuscle = 2;
    private const double OtherPosition = 1.5;

    /// <summary>0 for the same move; what nothing is known of is furthest.</summary>
    public static double Between(Move a, Move b, MoveLibrary moves)
    {
        if (a.Id == b.Id)
        {
            return 0;
        }

        if (DemandModel.Of(a.Id, new Manner(), moves) is not { } asked || DemandModel.Of(b.Id, new Manner(), moves) is not { } other)
        {
            return double.MaxValue;
        }

        return asked.Dimensions.Zip(other.Dimensions).Sum(d => Math.Abs(d.First.Value - d.Second.Value))
            + (a.Family == b.Family ? 0 : OtherFamily)
            + (Proposals.Main(a) == Proposals.Main(b) ? 0 : OtherMuscle)
            + (a.Position == b.Position ? 0 : OtherPosition);
    }
}
