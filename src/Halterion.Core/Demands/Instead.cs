using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>A move as hard as another, for other kit or another position.</summary>
public static class Instead
{
    /// <summary>Further apart than this is not "as hard". [M]</summary>
    private const double Apart = 2;

    /// <summary>Null where the family has nothing as hard that differs in kit or position.</summary>
    public static Proposal? Of(Move move, MoveLibrary moves)
    {
        if (DemandModel.Of(move.Id, new Manner(), moves) is not { } asked)
        {
            return null;
        }

        var best = moves.Moves
            .Where(m => m.Family == move.Family && m.Id != move.Id && (m.Position != move.Position || !m.Kit.SequenceEqual(move.Kit)))
            .Select(m => (Move: m, Demand: DemandModel.Of(m.Id, new Manner(), moves)))
            .Where(m => m.Demand is not null && Math.Abs(m.Demand.Overall - asked.Overall) <= Apart)
            .OrderBy(m => m.Demand!.Impact > asked.Impact).ThenBy(m => m.Move.Kit.Length).ThenBy(m => Math.Abs(m.Demand!.Overall - asked.Overall))
            .Select(m => m.Move).FirstOrDefault();
        return best is null ? null : Proposal.For(
            Option.Of(Tier.Instead, best.Id),
            best.Name,
            best.Kit.SequenceEqual(move.Kit) ? "position" : "kit",
            best.Kit.IsEmpty ? "As hard, and needs nothing."
                : best.Kit.SequenceEqual(move.Kit) ? "As hard, in another position."
                : $"As hard, with {string.Join(" and ", best.Kit)}.");
    }
}
