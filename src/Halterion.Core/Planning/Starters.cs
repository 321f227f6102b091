using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Nodes;
using Halterion.Core.Demands;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;

namespace Halterion.Core.Planning;

/// <summary>A ready block to begin from.</summary>
/// <param name="Group">What one wants it for, such as "Sets".</param>
/// <param name="Words">What it makes.</param>
/// <param name="Also">What else the trade calls it: looked for, not shown.</param>
/// <param name="Moves">The moves that stand for it in a picture.</param>
/// <param name="Block">A block of the plan language.</param>
/// <param name="First">How it is called where an empty class offers its first blocks; null: it is not among them.</param>
public sealed record Starter(
    string Name, string Group, string Words, string Also, ImmutableArray<MoveId> Moves, JsonObject Block, string? First = null);

/// <summary>A ready station for a move, with the options the ladders propose and the reasons for them.</summary>
/// <param name="Station">A station of the plan language.</param>
public sealed record StationStarter(JsonObject Station, Proposals Proposals);

/// <summary>What a new block or station looks like before anybody has touched it. Usual doses: handbook, section 3 [C].</summary>
public sealed class Starters(MoveLibrary moves, Preferences preferences)
{
    /// <summary>Two moves in a floor position need longer to change sides than the class's usual three seconds.</summary>
    private const int FloorSwitch = 4;

    /// <summary>What a station should offer whatever its move: a new one has it from the beginning.</summary>
    private static readonly ImmutableHashSet<string> Offered = ["options.hop", "options.load", "options.band", "options.kneel",
        "options.hold", "options.depth"];

    private readonly Evaluator evaluator = new(moves, preferences);

    /// <summary>The ready blocks, in the instructor's habits.</summary>
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

    /// <summary>A ready block as the data has it: its fields in the plan language, its moves, and what they are given.</summary>
    /// <param name="Name">What it is called among the others.</param>
    /// <param name="Also">What else the trade calls it.</param>
    /// <param name="First">How it is called among the first blocks of an empty class.</param>
    /// <param name="Dose">In the trade's short form; null: as is usual for each move.</param>
    /// <param name="Rest">Seconds between rounds or sets of one who rests fully.</param>
    /// <param name="Layered">Each station comes in a round after the one before it, and stays.</param>
    /// <param name="Taught">Each station is shown first, the usual fault is said at the second, and the last is done with a band.</param>
    private sealed record Template(
        string Name, string Group, string Words, string Also, JsonObject Block, ImmutableArray<string>? Moves = null, string? Dose = null,
        int? Rest = null, bool Layered = false, bool Taught = false, string? First = null);

    private static readonly ImmutableArray<Template> Templates = DataFile.Read<ImmutableArray<Template>>("starters");

    private IEnumerable<Starter> All() => Templates.Select(t =>
    {
        var block = Block(Written(t.Block), [.. t.Moves ?? []]);
        block = t.Dose is { } dose ? Dosed(block, dose) : block;
        block = t.Layered ? Layered(block) : t.Taught ? Taught(block) : block;
        block = t.Rest is { } rest ? Rested(block, rest) : block;
        return new Starter(
            t.Name, t.Group, t.Words, t.Also, [.. block.Stations.Select(s => s.Main.Move).Distinct().Take(3)], PlanWriter.Of(block),
            t.First);
    });

    /// <summary>A block of the data, still without stations.</summary>
    private Block Written(JsonObject fields)
    {
        var whole = fields.DeepClone().AsObject();
        var talk = (string?)fields["format"] == "talk";
        if (!talk)
        {
            whole["stations"] = new JsonArray(new JsonObject
            {
                ["dose"] = new JsonArray(new JsonObject { ["kind"] = "time", ["amount"] = 30 }),
                ["options"] = new JsonArray(new JsonObject { ["tier"] = "main", ["move"] = moves.Moves[0].Id.Value }),
            });
        }

        return ClassReader.ReadBlock(whole, moves).Plan!.Blocks[0] with { Id = default, Stations = [] };
    }

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

    /// <summary>Shown station by station, with the usual fault of the move once it is done free, and a band at the end.</summary>
    private Block Taught(Block block)
    {
        var (free, banded) = (block.Stations[^2], block.Stations[^1]);
        var move = moves.Find(free.Main.Move)!;
        var fault = move.Faults[0];
        banded = banded with
        {
            Name = $"{move.Name} with a band",
            Options = [
                .. banded.Options.Select(o => o.Tier == Tier.Main ? o with { Manner = o.Manner with { Band = BandStrength.Light } } : o)],
        };
        var said = new Saying($"Watch for {char.ToLowerInvariant(fault.Seen[0])}{fault.Seen[1..]}: {fault.Fix}", new Seconds(8));
        ImmutableArray<Station> stations = [.. block.Stations[..^2], free with { Say = said }, banded];
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
            PartKind.Pulses or PartKind.Distance or PartKind.Rest => null,
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
        Position.OnTheBack or Position.SideLying or Position.HandsAndKnees or Position.Kneeling or Position.Seated
            or Position.Prone => new(new Seconds(FloorSwitch)),
    };

    private Block Block(Block block, ReadOnlySpan<string> ids)
    {
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
            RestHabit.Full or RestHabit.Active => usual,
        }));
        block = block.Shape == BlockShape.Sets ? block with { BetweenSets = rest } : block with { BetweenRounds = rest };
        return preferences.Rest == RestHabit.Active && moves.Has(MoveLibrary.Usual.KeepMoving)
            ? block with { Recovery = [Option.Of(Tier.Main, MoveLibrary.Usual.KeepMoving)] }
            : block;
    }
}
