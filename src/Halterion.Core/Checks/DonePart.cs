using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>What an option does in one part of a dose, and what the rules ask of it.</summary>
/// <param name="Facts">Null where nothing is known of the move's body.</param>
public sealed record DonePart(Part Part, int Index, Move Move, Manner Manner, OptionFacts? Facts, bool OfMain)
{
    private ImmutableArray<Need> Kit { get; init; } = [];

    /// <summary>A part as an option does it; null where its move is not known.</summary>
    public static DonePart? Of(Part part, int index, Option option, Station station, MoveLibrary moves)
    {
        var doing = option.In(station, index);
        return moves.Find(doing.Move) is { } move
            ? new DonePart(part, index, move, doing.Manner, OptionFacts.Of(move, doing.Manner, moves),
                option.Tier == Tier.Main)
            { Kit = Needs.KitOf(move, moves) }
            : null;
    }

    /// <summary>Of which family its move is.</summary>
    public Family Family => Move.Family;

    /// <summary>One of the four families of the lower body.</summary>
    public bool IsHard => Family is Family.Squat or Family.Lunge or Family.Hinge or Family.Bridge;

    /// <summary>Lands: by what is said of the option, else by what the move is.</summary>
    public bool HasImpact => Manner.Impact switch
    {
        Impact.Hop or Impact.Jump => true,
        Impact.None => false,
        _ => Facts?.Flight ?? false,
    };

    /// <summary>A weight is held; machines and bands are none. A weight that the dose names is the main option's.</summary>
    public bool IsLoaded => Manner.Load is { } load ? load.Implement is not (null or Implement.Machine)
        : OfMain && (Part.LoadKg is not null || Part.LoadFactor is not null) || NeedsWeight;

    private bool NeedsWeight => Move.Poses is { } poses ? poses.Holds is { Kind: not "stick" }
        : Has(KitItem.Dumbbell, KitItem.Kettlebell, KitItem.Barbell, KitItem.Plate, KitItem.Ball, KitItem.Bottle);

    /// <summary>Whether the move is done with one of these.</summary>
    private bool Has(params ReadOnlySpan<KitItem> items)
    {
        foreach (var need in Kit)
        {
            if (items.Contains(need.Item))
            {
                return true;
            }

            foreach (var or in need.Or ?? [])
            {
                if (items.Contains(or.Item))
                {
                    return true;
                }
            }
        }

        return false;
    }

    /// <summary>Of all that is held.</summary>
    public double Kilograms => !IsLoaded ? 0
        : OfMain && Part.LoadKg is { } kg ? (double)kg.Values.Max() * (Manner.Load?.Count ?? 1)
        : Manner.Load is { Kg: { } each } load ? (double)each.Value * (load.Count ?? 1)
        : Facts?.Kilograms ?? 0;

    /// <summary>A band round the legs, or any other.</summary>
    public bool HasBand => Manner.Band is { } band ? band != BandStrength.None : Has(KitItem.Band, KitItem.LongBand);

    /// <summary>The band that is put on; null: none.</summary>
    public BandStrength? BandOn =>
        Manner.Band is { } band ? band == BandStrength.None ? null : band : Has(KitItem.Band) ? BandStrength.Light : null;

    /// <summary>A hand, a wall, a chair, or whatever else holds up the balance.</summary>
    public bool IsHeld => Manner.Support is not (null or Support.None or Support.HandOnThigh or Support.Knees) || Manner.Support is null
        && (Facts?.HandHold ?? false);

    /// <summary>A knee or the back lies on something soft.</summary>
    public bool IsPadded => Manner.Surface is Surface.Pad or Surface.Soft;

    /// <summary>It goes sideways or turns.</summary>
    public bool IsSideways => Move.Plane is Plane.Frontal or Plane.Transverse;

    /// <summary>People travel while they do it.</summary>
    public bool Travels => Move.Poses?.Way == Body.Way.On;

    /// <summary>Its weight is swung or thrown.</summary>
    public bool IsSwing => Move.Ballistic;

    /// <summary>Landings in one rep: feet that land together are one.</summary>
    public int Landings => !HasImpact ? 0 : Math.Max(1, Move.Poses?.Poses.Count(p => p.Air > 0) ?? 1);
}
