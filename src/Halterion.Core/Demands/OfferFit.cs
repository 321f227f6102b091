using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>What a coach offers beside a move, brought to how a main option does it, and tried against it.</summary>
internal static class OfferFit
{
    /// <summary>
    /// The offer beside this very main option: what it does not say of the same move is as main has it, and kilograms are relative to
    /// main's (docs/room.md). Null where there is no such weight.
    /// </summary>
    public static Option? To(Offered offered, Move move, Manner main, MoveLibrary moves, WeightsAtHand? weights)
    {
        var option = offered.Option;
        if (option.Move == move.Id)
        {
            option = option with { Manner = option.Manner.Over(main) };
        }

        if (offered.Option.Manner.Load is { Kg: not null } load)
        {
            if (Weighed(load, option.Tier, move, main, weights) is not { } weighed)
            {
                return null;
            }

            option = option with { Manner = option.Manner with { Load = weighed } };
        }
        else if (option.Tier == Tier.Harder && weights is not null && option.Move != move.Id && moves.Find(option.Move)?.Usual is { } usual
            && !weights.Lines.Any(l => l.Implement == ImplementOf(usual) && l.Kg >= (decimal)usual.Kg))
        {
            return null;
        }

        return option;
    }

    /// <summary>Lighter or heavier by the same share as the offer is than the move's usual weight.</summary>
    private static Load? Weighed(Load offered, Tier tier, Move move, Manner main, WeightsAtHand? weights)
    {
        var implement = offered.Implement!.Value;
        var count = offered.Count ?? 1;
        var wanted = offered.Kg!.Value.Value;
        var (limit, below) = ((decimal?)null, tier != Tier.Harder);
        if (move.Usual is { } usual)
        {
            var (mine, each) = (main.Load is { IsNone: false } l ? l : null, (decimal)usual.Kg);
            var now = mine?.Kg is { } kg ? kg.Value * (mine.Count ?? 1) : each * usual.Count;
            if (mine?.Implement is { } own && implement == ImplementOf(usual))
            {
                (implement, count) = (own, mine.Count ?? count);
            }

            wanted = now * wanted * (offered.Count ?? 1) / (each * usual.Count) / count;
            limit = tier == Tier.Instead ? null : now / count;
        }
        else if (main.Load is { Kg: { } held } has)
        {
            // A weight beside a main option that has one: it is another only where it is lighter, or heavier.
            limit = tier == Tier.Instead ? null : held.Value * (has.Count ?? 1) / count;
        }

        return WeightsAtHand.Nearest(weights, implement, wanted, limit, below) is { } found
            ? new Load(implement, count, new Kilograms(found), offered.Position ?? main.Load?.Position, offered.Side ?? main.Load?.Side)
            : null;
    }

    private static Implement ImplementOf(UsualLoad usual) => Enum.Parse<Implement>(usual.Implement, ignoreCase: true);

    /// <summary>So far may the model be from a coach's word: it does not see a smaller step to the side, or feet a little closer.</summary>
    private const double Doubt = 0.5;

    /// <summary>
    /// Easier is not higher on the whole, harder not lower, but for what the model does not see; where nothing is known of a move the
    /// coach's word stands.
    /// </summary>
    public static bool Keeps(Option option, Tier tier, Move move, Manner main, MoveLibrary moves)
    {
        if (tier == Tier.Instead
            || DemandModel.Of(move.Id, main, moves) is not { } here
            || DemandModel.Of(option.Move, option.Manner, moves) is not { } there)
        {
            return true;
        }

        return tier == Tier.Easier ? there.Overall < here.Overall + Doubt : there.Overall > here.Overall - Doubt;
    }

    /// <summary>
    /// Whether an option is anything else than the main one: a body that moves otherwise, another weight, band, tempo or amount.
    /// </summary>
    public static bool IsOther(Option option, Move move, Manner main)
    {
        if (option.Move != move.Id || option.Manner.Scale is not null)
        {
            return true;
        }

        var manner = option.Manner;
        if (manner.Equals(main))
        {
            return false;
        }

        if (manner.Tempo != main.Tempo && (manner.Tempo ?? move.Tempo)?.ToString() != (main.Tempo ?? move.Tempo)?.ToString()
            || manner.Band != main.Band && (manner.Band ?? BandStrength.None) != (main.Band ?? BandStrength.None))
        {
            return true;
        }

        if (manner.Impact != main.Impact && move.Asks is { Impact: > 0 })
        {
            return true;
        }

        return OptionPoses.Of(move, manner) is not { } poses || OptionPoses.Of(move, main) is not { } own
            || !poses.Poses.SequenceEqual(own.Poses) || poses.Holds != own.Holds || poses.Band != own.Band
            || !(poses.Props.IsDefault ? [] : poses.Props).SequenceEqual(own.Props.IsDefault ? [] : own.Props);
    }
}
