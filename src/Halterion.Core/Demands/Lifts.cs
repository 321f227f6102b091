using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>
/// Whether an option is done so that what its move says of itself does not count for it (docs/room.md). Thresholds are [M] our choice.
/// </summary>
public static class Lifts
{
    /// <summary>Hands up from here, and it is no plank any more; centimetres.</summary>
    internal const int HighHands = 40;

    /// <summary>Of a body of 170 cm: a quarter of the height; centimetres.</summary>
    internal const int KneeHeight = 42;

    /// <summary>A chair and a bench without a written height; centimetres.</summary>
    private const int UsualSeat = 45;

    /// <summary>Standing less deep than this is no bend to speak of; degrees.</summary>
    private const double Bent = 20;

    /// <summary>Whether any of what lifts the entry is in the manner.</summary>
    public static bool Any(MoveLimit entry, Move move, Manner manner, MoveLibrary moves)
    {
        foreach (var lift in entry.LiftedBy ?? [])
        {
            if (Has(lift, move, manner, moves))
            {
                return true;
            }
        }

        return false;
    }

    private static bool Has(Lift lift, Move move, Manner manner, MoveLibrary moves) => lift switch
    {
        Moves.Lift.Hold =>
            manner.Support is Support.Wall or Support.Chair or Support.Doorway or Support.Hand or Support.TwoHands or Support.Helper,
        Moves.Lift.Forearms => manner.Support == Support.Forearms,
        Moves.Lift.Knees => manner.Support == Support.Knees || HandsAreHigh(manner),
        Moves.Lift.Pad => manner.Surface is Surface.Pad or Surface.Mat or Surface.Soft,
        Moves.Lift.Depth => IsLessDeep(move, manner, moves),
        Moves.Lift.Impact => manner.Impact == Impact.None,
        Moves.Lift.Load =>
            manner.Load is { IsNone: true }
                || manner.Load is { Kg: { } kg } load && (double)kg.Value * (load.Count ?? 1) <= Carried(move) / 2,
        Moves.Lift.Seat => OptionFacts.Of(move, manner, moves) is { ToASeat: true },
        _ => false,
    };

    internal static bool HandsAreHigh(Manner manner) =>
        manner.Surface == Surface.Wall || manner.Surface is Surface.Box or Surface.Step or Surface.Bench or Surface.Chair
        && (manner.HeightCm ?? (manner.Surface is Surface.Bench or Surface.Chair ? UsualSeat : 0)) >= HighHands;

    /// <summary>Height of what is sat down to, in centimetres; one without a written height is of knee height. 0: nothing is.</summary>
    internal static int SeatCm(Manner manner, MovePoses poses) =>
        !poses.Props.IsDefault && poses.Props.Any(p => p is "box:under" or "chair:under" or "bench:under")
            ? manner.HeightCm ?? (manner.Surface == Surface.Step ? 0 : UsualSeat)
            : 0;

    private static double Carried(Move move) => move.Usual?.Kilograms
        ?? (move.Poses?.Holds is { } held ? held.Kg * (held.By == Body.CarriedBy.EachHand ? 2 : 1) : 0);

    /// <summary>By the bend that comes out where a standing knee bends; elsewhere by the word.</summary>
    private static bool IsLessDeep(Move move, Manner manner, MoveLibrary moves)
    {
        if (OptionFacts.Of(move, new Manner(), moves) is not { } own || OptionFacts.Of(move, manner, moves) is not { } now)
        {
            return false;
        }

        return own.StandingKnee > Bent
            ? now.StandingKnee < own.StandingKnee - 1
            : manner.Depth is Depth.Half or Depth.Quarter or Depth.Small && now.HipBend <= own.HipBend + 1;
    }
}
