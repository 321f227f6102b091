using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Views;

/// <summary>A ready block to begin from.</summary>
/// <param name="Words">What it is for.</param>
/// <param name="Block">A block of the plan language.</param>
public sealed record Starter(string Name, string Words, JsonObject Block);

/// <summary>A ready station for a move, with the options the ladders propose and the reasons for them.</summary>
/// <param name="Station">A station of the plan language.</param>
public sealed record StationStarter(JsonObject Station, Proposals Proposals);

/// <summary>What a new block or station looks like before anybody has touched it. Usual doses: handbook, section 3 [C].</summary>
public sealed class Starters(MoveLibrary moves, Preferences preferences)
{
    private const int Bell = 40;

    /// <summary>Two moves in a floor position need longer to change sides than the class's usual three seconds.</summary>
    private const int FloorSwitch = 4;

    /// <summary>Done in the rests by those who rest actively.</summary>
    private static readonly MoveId March = new("march");

    /// <summary>What a block is before it has a name, a phase and stations.</summary>
    private static readonly Block Plain = new() { Id = default, Name = "", Phase = Phase.Main, Shape = BlockShape.Circuit };

    private static Block Circuit(int rounds, int change = 0) => Plain with { Rounds = rounds, BetweenStations = new Seconds(change) };

    private static Block Sets(int sets, int change = 0) => Circuit(sets, change) with { Shape = BlockShape.Sets };

    public ImmutableArray<Starter> Blocks() =>
    [
        Of("Circuit", "Everyone does one station at a time; once through is a round.",
            Rested(Block("Circuit", Phase.Main, Circuit(3, 15), "squat"), 60)),
        Of("Stations on the bell", "Groups work at all stations at once and move on at the bell.",
            Rested(Block("Stations on the bell", Phase.Main, Circuit(2, 20) with { Shape = BlockShape.Rotation, Window = new(new Seconds(Bell)) }, "squat", "split-squat"), 90)),
        Of("Superset", "Two moves back to back, then a rest.",
            Rested(Block("Superset", Phase.Main, Circuit(3, 10), "squat", "hip-hinge"), 90)),
        Of("Straight sets", "All sets of a station, then the next one.",
            Rested(Block("Straight sets", Phase.Main, Sets(3, 45), "goblet-squat"), 60)),
        Of("Falling targets", "Fewer reps each round: 20, 15, 12.",
            Rested(Dosed(Block("Falling targets", Phase.Main, Circuit(3, 10), "squat", "hip-hinge"), "20/15/12"), 60)),
        Of("Drop set", "The same reps three times, lighter each time, with a breath to change weights.",
            Rested(Dosed(Block("Drop set", Phase.Main, Sets(2), "goblet-squat"), "10 at 100 % + 12 s rest + 10 at 70 % + 12 s rest + 10 at 40 %"), 150)),
        Of("On the minute", "Each station starts on the minute; what the reps leave is rest.",
            Dosed(Block("On the minute", Phase.Main, Circuit(4) with { StartEvery = new Seconds(60) }, "squat", "hip-hinge"), "12")),
        Of("One side a round", "First all stations on one side, then all on the other.",
            Rested(Dosed(Block("One side a round", Phase.Main, Circuit(2, 10) with { SidePass = SidePass.Round }, "split-squat", "staggered-deadlift"), "40 s"), 60)),
        Of("Hundred in chunks", "A hundred reps, fifty a side, changing sides every ten.",
            Dosed(Block("Hundred in chunks", Phase.Finisher, Plain, "split-squat"), "50 each side by 10 @ 1-0-1-0")),
        Of("Follow-along flow", "One after the other without a break, led from the front.",
            Dosed(Block("Flow", Phase.Main, Circuit(2), "squat", "side-lunge", "hip-hinge"), "30 s")),
        Of("Own pace", "Everyone goes round alone until the bell.",
            Block("Own pace", Phase.Main, Plain with { Shape = BlockShape.OwnPace, Length = new Seconds(300) }, "squat", "hip-hinge")),
        Of("Warm-up", "Once through, easy and without a break.",
            Dosed(Block("Warm-up", Phase.Warmup, Circuit(1, 5), "hip-hinge", "squat"), "40 s")),
        Of("Cool-down", "Held stretches at the end; protected when the class runs late.",
            Dosed(Block("Cool-down", Phase.Cooldown, Circuit(1, 5) with { Keep = Keep.Protected }, "stand-quad-stretch", "forward-fold"), "30 s hold")),
        Of("Talk", "Welcome, walk-through: a stretch of time without stations.",
            Plain with { Name = "Talk", Phase = Phase.Talk, Shape = BlockShape.Talk, Length = new Seconds(120) }),
    ];

    private static Starter Of(string name, string words, Block block) => new(name, words, PlanWriter.Of(block));

    /// <summary>A station for a move of the library, dosed as is usual for it, or to fill a window.</summary>
    /// <param name="window">The bell of the rotation that it goes into; null elsewhere.</param>
    /// <param name="roundGivesSide">The block gives the side by round.</param>
    public StationStarter Station(Move move, Seconds? window = null, bool roundGivesSide = false)
    {
        var proposals = Proposed(move);
        return new StationStarter(PlanWriter.Of(Ready(move, proposals, window, roundGivesSide)), proposals);
    }

    private Proposals Proposed(Move move) => Proposals.For(move.Id, moves);

    private Station Ready(Move move, Proposals proposals, Seconds? window, bool roundGivesSide)
    {
        var usual = WordsOf<PartKind>.All[move.Dose.Kind];
        var (kind, amount) = window is { } bell ? (usual == PartKind.Hold ? usual : PartKind.Time, bell.Value) : (usual, move.Dose.Amount);
        var part = new Part { Kind = kind, Amount = new ByRound<Amount>(new Amount(amount)) };
        var options = new[] { proposals.Harder?.Of, Option.Of(Tier.Main, move.Id), proposals.Easier?.Of };
        var station = new Station { Id = default, Name = "", Dose = [part], Options = [.. options.OfType<Option>()] };
        return roundGivesSide ? station : GiveSides(move, station, part);
    }

    /// <summary>A new class file's own fields for the schools that differ from the language's defaults.</summary>
    public JsonObject ClassFields()
    {
        var fields = new JsonObject();
        if (preferences.Count != Counting.Down)
        {
            fields["count"] = WordsOf<Counting>.Of(preferences.Count);
        }

        if (preferences.StartSide == Side.Right)
        {
            fields["startSide"] = "right";
        }

        if (preferences.Facing == Facing.Same)
        {
            fields["facing"] = "same";
        }

        return fields;
    }

    /// <summary>The station's sides as this instructor does them, and its one part.</summary>
    private Station GiveSides(Move move, Station station, Part part)
    {
        var each = station with { Dose = [part], Sides = SideRule.Each, OwnSwitch = SwitchOf(move) };
        return (move.Sided, part.Kind, preferences.Sides) switch
        {
            (Sided.Alternating, _, _) or (Sided.OneSided, PartKind.Reps, SideHabit.Alternate) => station with { Dose = [part with { Side = Side.Alternate }] },
            (Sided.OneSided, PartKind.Reps, SideHabit.Chunks) => each with { Chunk = 5 },
            (Sided.OneSided, PartKind.Reps or PartKind.Pulses, _) => each,
            (Sided.OneSided, _, _) => station with { Dose = [part], Sides = SideRule.Split },
            _ => station with { Dose = [part] },
        };
    }

    /// <summary>Standing: as the class has it.</summary>
    private static ByRound<Seconds>? SwitchOf(Move move) => move.Position switch
    {
        Position.Standing => null,
        Position.Bench or Position.Machine => new(new Seconds(2 * FloorSwitch)),
        _ => new(new Seconds(FloorSwitch)),
    };

    private Block Block(string name, Phase phase, Block timing, params ReadOnlySpan<string> ids)
    {
        var block = timing with { Name = name, Phase = phase };
        if (preferences.Sides == SideHabit.Round && block is { Phase: Phase.Main, Shape: BlockShape.Circuit, StartEvery: null })
        {
            block = block with { SidePass = SidePass.Round };
        }

        var stations = ImmutableArray.CreateBuilder<Station>(ids.Length);
        foreach (var id in ids)
        {
            var move = moves.Find(new MoveId(id)) ?? throw new InvalidOperationException($"The library has no {id}.");
            stations.Add(Ready(move, Proposed(move), block.Window?.At(0), block.SidePass != SidePass.Station));
        }

        return block with { Stations = stations.MoveToImmutable() };
    }

    /// <summary>Gives every station of a block the same dose, in the trade's short form.</summary>
    private static Block Dosed(Block block, string dose)
    {
        var typed = ShortDoseReader.Read(dose).Dose!;
        var timed = typed.Dose is [{ Kind: PartKind.Time or PartKind.Hold }];
        return block with { Stations = [.. block.Stations.Select(Give)] };

        Station Give(Station station)
        {
            // A held stretch or a timed go of a one-sided move is shared between the sides.
            var given = typed.PutInto(station);
            given = timed && station.Sides != SideRule.AsWritten ? given with { Sides = SideRule.Split } : given;
            return given.Sides == SideRule.Each ? given : given with { OwnSwitch = null };
        }
    }

    /// <summary>Rests as this instructor is used to.</summary>
    private Block Rested(Block block, int usual)
    {
        var rest = new ByRound<Seconds>(new Seconds(preferences.Rest switch
        {
            RestHabit.Short => Math.Min(30, usual),
            RestHabit.None => 0,
            _ => usual,
        }));
        block = block.Shape == BlockShape.Sets ? block with { BetweenSets = rest } : block with { BetweenRounds = rest };
        return preferences.Rest == RestHabit.Active && moves.Has(March)
            ? block with { Recovery = [Option.Of(Tier.Main, March)] }
            : block;
    }
}
