using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>What a proposed option needs to say to be done inside a station's time: its sides, and how much of the target fits.</summary>
public static class OptionEntry
{
    /// <summary>
    /// A two-legged option of a one-sided main is done as written, an alternating one in turn, a one-sided one of a two-legged main
    /// each side with half the amount; slower reps come with as many as the time holds (docs/room.md).
    /// </summary>
    public static Option Into(Option option, Station station, MoveLibrary moves)
    {
        if (moves.Find(option.Move) is not { } move || moves.Find(station.Main.Move) is not { } main)
        {
            return option;
        }

        if (option.Move != main.Id)
        {
            option = Sided(option, move, main, station);
        }
        else if (option.Sides == station.Sides)
        {
            option = option with { Sides = null };
        }

        return option.Manner.Scale is null && Slower(option, move, main, station) is { } scale
            ? option with { Manner = option.Manner with { Scale = scale } }
            : option;
    }

    private static Option Sided(Option option, Move move, Move main, Station station)
    {
        var oneByOne = station.Sides != SideRule.AsWritten || station.Dose.Any(p => p.Side is Side.Left or Side.Right);
        var inTurn = station.Dose.Any(p => p.Side == Side.Alternate) || station.Sides == SideRule.Alternate;
        var splits = station.Dose is [{ Kind.CanSplit: true }];
        return (move.Sided, main.Sided) switch
        {
            (Moves.Sided.TwoSided, _) when oneByOne || inTurn => option with { Sides = SideRule.AsWritten },
            (Moves.Sided.Alternating, _) when !inTurn => option with { Sides = SideRule.Alternate },
            (Moves.Sided.OneSided, not Moves.Sided.OneSided) when !oneByOne && !inTurn => splits
                ? option with { Sides = SideRule.Split }
                : option with { Sides = SideRule.Each, Manner = option.Manner with { Scale = option.Manner.Scale ?? 0.5m } },
            _ => option.Sides == station.Sides ? option with { Sides = null } : option,
        };
    }

    /// <summary>Of slower reps as many as main's take; two decimals, rounded down. Null where they are not slower.</summary>
    private static decimal? Slower(Option option, Move move, Move main, Station station)
    {
        var reps = station.Dose.Where(p => p.Kind == PartKind.Reps).ToArray();
        if (reps.Length == 0 || (option.Manner.Tempo ?? move.Tempo) is not { } tempo)
        {
            return null;
        }

        var (own, now) = (reps.Max(p => (p.OwnTempo ?? station.Main.Manner.Tempo ?? main.Tempo)?.RepSeconds(p.Style) ?? 0),
            reps.Max(p => (p.OwnTempo is { } fixedTempo && option.Manner.Tempo is null ? fixedTempo : tempo).RepSeconds(p.Style)));
        return own > 0 && now > own ? Math.Max(0.1m, Math.Floor(own / now * 100) / 100) : null;
    }
}
