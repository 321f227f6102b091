using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>How a move may be done by somebody with a limit: plainly, or only in an option of it.</summary>
public static class KindOptions
{
    /// <summary>
    /// The move done plainly where that is allowed; else the first of its own options that is, a coach's before computed ones; null where
    /// none is.
    /// </summary>
    public static Option? Of(Move move, MoveLibrary moves, Limit limit, bool strict)
    {
        var plain = new Doing(move.Id, new Manner());
        var who = new ProposedFor(limit, strict);
        return LimitTable.WhyNot(move, plain.Manner, moves, limit, strict) is null ? Option.Of(Tier.Main, move.Id)
            : new[] { Tier.Easier, Tier.Instead }.SelectMany(tier => Proposals.All(plain, tier, moves, who))
                .Select(p => p.Of)
                .FirstOrDefault(o => o.Move == move.Id);
    }
}
