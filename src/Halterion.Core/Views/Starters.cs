using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Views;

/// <summary>A ready block to begin from.</summary>
/// <param name="Group">What one wants it for, such as "Sets".</param>
/// <param name="Words">What it makes.</param>
/// <param name="Moves">The moves that stand for it in a picture.</param>
/// <param name="Block">A block of the plan language.</param>
public sealed record Starter(string Name, string Group, string Words, ImmutableArray<MoveId> Moves, JsonObject Block);

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

    private static Block OnTheClock(int rounds, int every) =>
        Circuit(rounds) with { Shape = BlockShape.OnTheClock, StartEvery = new Seconds(every) };

    private static Block Sets(int sets, int change = 0) => Circuit(sets, change) with { Shape = BlockShape.Sets };

    /// <summary>What a station should offer whatever its move: a new one has it from the beginning.</summary>
    private static readonly ImmutableHashSet<string> Offered = ["options.hop", "options.load", "options.band", "options.kneel",
        "options.hold", "options.depth"];

    private readonly Evaluator evaluator = new(moves, preferences);

    public ImmutableArray<Starter> Blocks() => [.. All().Select(s => s with { Block = Complete(s.Block) })];

    /// <summary>A block whose stations offer what they should, as far as the library has it.</summary>
    private JsonObject Complete(JsonObject block)
    {
        var root = new JsonObject
        {
            ["format"] = "halterion-class",
            ["version"] = 1,
            ["title"] = "New",
            ["slotMinutes"] = 60,
            ["blocks"] = new JsonArray(block.DeepClone())
        };
        foreach (var code in Offered.Order(StringComparer.Ordinal))
        {
            var findings = evaluator.Look(Encoding.UTF8.GetBytes(root.ToJsonString())).Evaluation?.Findings ?? [];
            foreach (var repair in findings.Where(f => f.Code == code && !f.Repairs.IsEmpty).Select(f => f.Repairs[0]))
            {
                repair.Ways().First()(root);
            }
        }

        return root["blocks"]![0]!.DeepClone().AsObject();
    }

    private ImmutableArray<Starter> All() =>
    [
        Of("Circuit", Rounds, "Everyone does one station at a time; once through is a round. Three rounds of 40 s or reps.",
            Rested(Block("Circuit", Phase.Main, Circuit(3, 15), "squat"), 60)),
        Of("Superset", Rounds, "Two moves back to back, then a rest; three times.",
            Rested(Block("Superset", Phase.Main, Circuit(3, 10), "squat", "hip-hinge"), 90)),
        Of("Falling targets", Rounds, "Fewer reps each round: 20, 15, 12.",
            Rested(Dosed(Block("Falling targets", Phase.Main, Circuit(3, 10), "squat", "hip-hinge"), "20/15/12"), 60)),
        Of("Layers", Rounds, "One move, then two, then three: A; A and B; A, B and C.",
            Rested(Layered(Block("Layers", Phase.Main, Circuit(3, 10), "squat", "reverse-lunge", "glute-bridge")), 45)),
        Of("Follow-along flow", Rounds, "One after the other without a break, led from the front; twice through.",
            Dosed(Block("Flow", Phase.Main, Circuit(2), "squat", "side-lunge", "hip-hinge"), "30 s")),
        Of("Stations on the bell", Bells, "Groups work at all stations at once and move on at the bell, every 40 s.",
            Rested(Block("Stations on the bell", Phase.Main,
                Circuit(2, 20) with { Shape = BlockShape.Rotation, Window = new(new Seconds(Bell)) }, "squat", "split-squat"), 90)),
        Of("On the minute", Bells, "Each station starts on the minute; what the reps leave is rest. Four rounds.",
            Dosed(Block("On the minute", Phase.Main, OnTheClock(4, 60), "squat", "hip-hinge"), "12")),
        Of("Own pace", Bells, "Everyone goes round alone until the bell, five minutes.",
            Block("Own pace", Phase.Main, Plain with { Shape = BlockShape.OwnPace, Length = new Seconds(300) }, "squat", "hip-hinge")),
        Of("Straight sets", SetsOf, "All sets of a station, then the next one. Three sets.",
            Rested(Block("Straight sets", Phase.Main, Sets(3, 45), "goblet-squat"), 60)),
        Of("Ramp sets", SetsOf, "Heavier and fewer each set: 12, 10, 8, 6 with 50 to 100 % of each one's own.",
            Rested(Dosed(Block("Ramp sets", Phase.Main, Sets(4, 45), "goblet-squat"), "12/10/8/6 at 50/65/80/100 %"), 90)),
        Of("Drop set", SetsOf, "The same reps three times, lighter each time, with a breath to change weights.",
            Rested(Dosed(Block("Drop set", Phase.Main, Sets(2), "goblet-squat"), "10 at 100 % + 12 s rest + 10 at 70 % + 12 s rest "
                + "+ 10 at 40 %"), 150)),
        Of("Hundred in chunks", SetsOf, "A hundred reps, fifty a side, changing sides every ten.",
            Dosed(Block("Hundred in chunks", Phase.Finisher, Plain, "split-squat"), "50 each side by 10 @ 1-0-1-0")),
        Of("Left all through, then right", OneSide, "In every round all stations on one side, then all of them on the other: a round is "
            + "twice as long.",
            Rested(Dosed(Block("Left, then right", Phase.Main, Circuit(2, 10) with { SidePass = SidePass.Round }, "split-squat",
                "staggered-deadlift"), "40 s"), 60)),
        Of("Left round, right round", OneSide, "Round one on one side, round two on the other, and so on: an even number of rounds keeps "
            + "the legs alike.",
            Rested(Dosed(Block("Left round, right round", Phase.Main, Circuit(4, 10) with { SidePass = SidePass.Alternate }, "split-squat",
                "staggered-deadlift"), "40 s"), 45)),
        Of("Warm-up", Ends, "Once through, easy and without a break.",
            Dosed(Block("Warm-up", Phase.Warmup, Circuit(1, 5), "hip-hinge", "squat"), "40 s")),
        Of("Teach a move", Ends, "The squat to a seat, free, and with a band, each shown first; the usual fault is said.",
            Taught("squat", "chair-squat")),
        Of("Cool-down", Ends, "Held stretches at the end; protected when the class runs late.",
            Dosed(Block("Cool-down", Phase.Cooldown, Circuit(1, 5), "stand-quad-stretch", "forward-fold"),
                "30 s hold")),
        Of("Talk", Ends, "Welcome, walk-through: a stretch of time without stations, two minutes.",
            Plain with { Name = "Talk", Phase = Phase.Talk, Shape = BlockShape.Talk, Length = new Seconds(120) }),
    ];

    private const string Rounds = "Round after round";
    private const string Bells = "On the bell and the clock";
    private const string SetsOf = "Sets";
    private const string OneSide = "One side at a time";
    private const string Ends = "To begin, teach and end";

    private static Starter Of(string name, string group, string words, Block block) =>
        new(name, group, words, [.. block.Stations.Select(s => s.Main.Move).Distinct().Take(3)], PlanWriter.Of(block));

    /// <summary>Each station comes in a round after the one before it, and stays.</summary>
    private static Block Layered(Block block) => block with
    {
        Stations =
        [
            .. block.Stations.Select((station, i) => station with
            {
                Dose =
                [
                    .. station.Dose.Select(p => p with
                    {
                        Rounds = i == 0 ? PartRounds.All : new PartRounds(false, false, [.. Enumerable.Range(i + 1, block.Rounds - i)]),
                    }),
                ],
            }),
        ],
    };

    /// <summary>A move with a seat, free and banded, each shown before it is done.</summary>
    private Block Taught(string id, string seated)
    {
        var fault = moves.Find(new MoveId(id))!.Faults[0];
        var block = Dosed(Block("Teach the squat", Phase.Skill, Circuit(1, 10), seated, id, id), "8");
        var banded = block.Stations[2];
        banded = banded with
        {
            Name = $"{moves.Find(new MoveId(id))!.Name} with a band",
            Options = [
                .. banded.Options.Select(o => o.Tier == Tier.Main ? o with { Manner = o.Manner with { Band = BandStrength.Light } } : o)],
        };
        var said = new Saying($"The usual fault: {char.ToLowerInvariant(fault.Seen[0])}{fault.Seen[1..]}. {fault.Fix}", new Seconds(8));
        ImmutableArray<Station> stations = [block.Stations[0], block.Stations[1] with { Say = said }, banded];
        return block with { Stations = [.. stations.Select(s => s with { Demo = new Demo([new Seconds(15)], Listed: false) })] };
    }

    /// <summary>A station for a move of the library, dosed as is usual for it, or to fill a window.</summary>
    /// <param name="window">The bell of the rotation that it goes into; null elsewhere.</param>
    /// <param name="roundGivesSide">The block gives the side by round.</param>
    /// <param name="like">The dose of its neighbours, which it takes over where its move can be done so.</param>
    /// <param name="asTyped">That dose was typed for this very station: it is taken whole.</param>
    public StationStarter Station(
        Move move, Seconds? window = null, bool roundGivesSide = false, TypedDose? like = null, bool asTyped = false)
    {
        var proposals = Proposed(move);
        var ready = Ready(move, proposals, window, roundGivesSide, window is null ? like : null);
        if (asTyped && like is not null)
        {
            var sides = (ready.Sides, ready.Chunk);
            ready = like.PutInto(ready);
            var sided = like.Sides is not null || like.Dose.Length > 1 || like.Dose[0].Side != Side.Both;
            ready = roundGivesSide ? ready with { Sides = SideRule.AsWritten, Chunk = 0 } : sided ? ready
                : ready with { Sides = sides.Sides, Chunk = sides.Chunk };
        }

        var alone = new JsonObject { ["name"] = "New", ["phase"] = "main", ["stations"] = new JsonArray(PlanWriter.Of(ready)) };
        return new StationStarter(Complete(alone)["stations"]![0]!.DeepClone().AsObject(), proposals);
    }

    private Proposals Proposed(Move move) => Proposals.For(move.Id, moves);

    private Station Ready(Move move, Proposals proposals, Seconds? window, bool roundGivesSide, TypedDose? like = null)
    {
        var usual = WordsOf<PartKind>.All[move.Dose.Kind];
        var (kind, amount) = window is { } bell ? (usual == PartKind.Hold ? usual : PartKind.Time, bell.Value) : (usual, move.Dose.Amount);
        var part = Like(move, usual, like) ?? new Part { Kind = kind, Amount = new ByRound<Amount>(new Amount(amount)) };
        var options = new[] { proposals.Harder?.Of, Option.Of(Tier.Main, move.Id), proposals.Easier?.Of };
        var station = new Station { Id = default, Name = "", Dose = [part], Options = [.. options.OfType<Option>()] };
        station = roundGivesSide ? station : GiveSides(move, station, part);
        return station with { Options = [.. station.Options.Select(o => o.Tier == Tier.Main ? o : OptionEntry.Into(o, station, moves))] };
    }

    /// <summary>
    /// A block of forty seconds stays one: the amount of the neighbours in the kind that the move can be done in; null where it cannot.
    /// </summary>
    private static Part? Like(Move move, PartKind usual, TypedDose? like)
    {
        if (like?.Dose is not [{ OwnMove: null } neighbour, ..] || neighbour.Rounds.Listed.Length > 0)
        {
            return null;
        }

        return neighbour.Kind switch
        {
            PartKind.Reps => move.Tempo is null ? null : new Part { Kind = PartKind.Reps, Amount = neighbour.Amount },
            PartKind.Time or PartKind.Hold =>
                new Part { Kind = usual == PartKind.Hold ? PartKind.Hold : PartKind.Time, Amount = neighbour.Amount },
            PartKind.Open => new Part { Kind = PartKind.Open, Amount = neighbour.Amount },
            _ => null,
        };
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
            (Sided.Alternating, _, _) or (Sided.OneSided, PartKind.Reps, SideHabit.Alternate) =>
                station with { Dose = [part with { Side = Side.Alternate }] },
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
        if (preferences.Sides == SideHabit.Round && block is { Phase: Phase.Main, Shape: BlockShape.Circuit })
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
        var timed = typed.Dose is [{ Kind.CanSplit: true }];
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
