using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>What an option has to be given: its load, band, surface and support, and the kit of its move.</summary>
public static class Needs
{
    private static readonly ImmutableHashSet<KitItem> Weights = [KitItem.Dumbbell, KitItem.Kettlebell, KitItem.Barbell, KitItem.Plate,
        KitItem.Ball, KitItem.Bottle, KitItem.Machine];
    private static readonly ImmutableHashSet<KitItem> Covers = [KitItem.Mat, KitItem.Pad];
    private static readonly ImmutableHashSet<KitItem> Raised = [KitItem.Step, KitItem.Box, KitItem.Bench];

    /// <summary>All that one person needs for an option at its station; what several parts need is needed once.</summary>
    public static ImmutableArray<Need> Of(Option option, Station station, MoveLibrary moves)
    {
        var all = new List<Need>();
        foreach (var doing in option.In(station))
        {
            if (moves.Find(doing.Move) is not { } move)
            {
                continue;
            }

            foreach (var need in Of(move, doing.Manner, moves))
            {
                var at = all.FindIndex(n => n.Kind == need.Kind);
                if (at < 0)
                {
                    all.Add(need);
                }
                else if (need.Count > all[at].Count)
                {
                    all[at] = need;
                }
            }
        }

        return [.. all];
    }

    private sealed record Key(Move Move)
    {
        public bool Equals(Key? other) => other is not null && ReferenceEquals(Move, other.Move);

        public override int GetHashCode() => Move.Id.GetHashCode();
    }

    /// <summary>What the words of a move's kit name; read once.</summary>
    public static ImmutableArray<Need> KitOf(Move move, MoveLibrary moves) =>
        moves.Once(new Key(move), () => move.Kit.SelectMany(words => KitWords.Read(words)).ToImmutableArray());

    private static List<Need> Of(Move move, Manner manner, MoveLibrary moves)
    {
        var kit = KitOf(move, moves).ToList();
        if (OnTheFloor(move) && !kit.Exists(n => n.Item is KitItem.Mat or KitItem.Bench or KitItem.Chair))
        {
            kit.Add(new Need(KitItem.Mat));
        }

        if (manner.Load is { } load)
        {
            var machine = kit.Find(n => n.Item == KitItem.Machine)?.Name;
            kit.RemoveAll(n => Weights.Contains(n.Item));
            Add(load.IsNone ? null : Of(load, machine));
            if (load is { Implement: Implement.Barbell, Kg: { } bar })
            {
                // What the bar itself does not weigh comes from plates.
                kit.Add(new Need(KitItem.Plate, load.Count ?? 1, BarKg: bar.Value));
            }
        }

        if (manner.Band is { } band)
        {
            kit.RemoveAll(n => n.Item == KitItem.Band);
            if (band != BandStrength.None)
            {
                kit.Add(new Need(KitItem.Band, Strength: band));
            }
        }

        if (manner.Surface is { } surface)
        {
            kit.RemoveAll(n => Covers.Contains(n.Item) || (Raises(surface) || surface == Surface.Floor) && Raised.Contains(n.Item)
                || surface == Surface.Chair && n.Item == KitItem.Chair);
            Add(On(surface));
        }

        if (manner.HeightCm is { } height)
        {
            kit = [.. kit.Select(n => Raised.Contains(n.Item) || n.Item == KitItem.Chair ? n with { HeightCm = height } : n)];
        }

        if (manner.Support is { } support)
        {
            Add(Held(support));
        }

        return kit;

        void Add(Need? need)
        {
            if (need is not null && !kit.Exists(n => n.Item == need.Item))
            {
                kit.Add(need);
            }
        }
    }

    /// <summary>Moves done on the floor want one mat each.</summary>
    private static bool OnTheFloor(Move move) =>
        move.Position is Position.OnTheBack or Position.SideLying or Position.HandsAndKnees or Position.Kneeling or Position.Prone;

    private static bool Raises(Surface surface) => surface is Surface.Step or Surface.Box or Surface.Bench or Surface.Chair;

    /// <summary>A machine's weight is set on it; a barbell's is made of plates.</summary>
    private static Need Of(Load load, string? machine) => load.Implement switch
    {
        Implement.Machine => new Need(KitItem.Machine, Name: machine),
        Implement.Barbell => new Need(KitItem.Barbell, load.Count ?? 1),
        var implement => new Need(Enum.Parse<KitItem>(implement.ToString()!), load.Count ?? 1, load.Kg?.Value),
    };

    private static Need? On(Surface surface) => surface switch
    {
        Surface.Mat => new Need(KitItem.Mat),
        Surface.Pad => new Need(KitItem.Pad),
        Surface.Soft => new Need(KitItem.Pad, Or: [new Need(KitItem.Mat)]),
        Surface.Step => new Need(KitItem.Step),
        Surface.Box => new Need(KitItem.Box),
        Surface.Bench => new Need(KitItem.Bench),
        Surface.Chair => new Need(KitItem.Chair),
        Surface.Wall => new Need(KitItem.Wall, Metres: Need.WallEach),
        Surface.Floor => null,
    };

    private static Need? Held(Support support) => support switch
    {
        Support.Wall => new Need(KitItem.Wall, Metres: Need.WallEach),
        Support.Chair or Support.TwoHands => new Need(KitItem.Chair),
        Support.Hand => new Need(KitItem.Chair, Or: [new Need(KitItem.Wall, Metres: Need.WallEach)]),
        Support.None or Support.HandOnThigh or Support.Doorway or Support.Knees or Support.Forearms or Support.Helper => null,
    };
}
