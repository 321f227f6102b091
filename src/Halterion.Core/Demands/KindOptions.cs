using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>How a move may be done by somebody with a limit: plainly, or only in an option of it.</summary>
public static class KindOptions
{
    /// <summary>The move done plainly where that is allowed; else the first of its own options, as a coach gives them, that is; null where none is.</summary>
    public static Option? Of(Move move, MoveLibrary moves, Limit limit, bool strict)
    {
        bool Allowed(Manner manner) => LimitTable.WhyNot(move, manner, moves, limit, strict) is null;
        return Allowed(new Manner()) ? Option.Of(Tier.Main, move.Id)
            : Offers.Of(move, Tier.Easier, moves).Concat(Offers.Of(move, Tier.Instead, moves)).Select(o => o.Option)
                .FirstOrDefault(o => o.Move == move.Id && Allowed(o.Manner));
    }
}
