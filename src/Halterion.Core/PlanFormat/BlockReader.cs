using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

internal sealed partial class Context
{
    /// <summary>The fields a talk does not take: all that speak of stations.</summary>
    private static readonly string[] StationFields =
    [
        "order", "goalReps", "goalShared", "rounds", "sidePass", "windowSeconds", "startEverySeconds",
        "betweenStations", "betweenSets", "betweenRounds", "recovery", "recoveryIn", "say", "gate", "optionalRounds",
        "leadInSeconds", "startSide", "count", "stations",
    ];

    private Block Block(JsonElement element, string at, int index)
    {
        var fields = new Fields(element, at, faults);
        var shape = Shape(fields);
        var block = new Block
        {
            Id = ids.Take(fields, $"b{index + 1}"),
            Name = fields.Text("name", 1, 120, required: true) ?? "",
            Notes = fields.Text("notes", 0, 4000) ?? "",
            Phase = fields.Choice<Phase>("phase", required: true) ?? Phase.Main,
            Shape = shape ?? BlockShape.Circuit,
            Defaults = defaults,
            ShownBy = fields.Text("shownBy", 1, 120),
            After = fields.Seconds("afterSeconds", 0, 600) ?? Seconds.Zero,
            Water = fields.Flag("water") ?? false,
        };
        block = block with
        {
            Keep = fields.Choice<Keep>("keep") ?? (block.Phase == Phase.Cooldown ? Keep.Protected : Keep.Normal),
        };

        if (shape == BlockShape.Talk)
        {
            block = Talk(fields, block);
        }
        else
        {
            block = Worked(fields, block, shape, index);
        }

        fields.Close("a block");
        return block;
    }

    /// <summary>The block's shape; null if its format or order is faulty, so that nothing more is said about either.</summary>
    private static BlockShape? Shape(Fields fields)
    {
        var format = fields.Choice("format", ["together", "rotation", "talk"]);
        if (format is null && fields.Has("format"))
        {
            fields.Choice("order", ["circuit", "sets", "ownPace"]);
            fields.Take("seconds");
            fields.Take("show");
            return null;
        }

        if (format == "talk")
        {
            return BlockShape.Talk;
        }

        if (format == "rotation")
        {
            fields.Refuse("an order belongs to a block done together", "order");
            return BlockShape.Rotation;
        }

        return fields.Choice("order", ["circuit", "sets", "ownPace"]) switch
        {
            "circuit" => BlockShape.Circuit,
            "sets" => BlockShape.Sets,
            "ownPace" => BlockShape.OwnPace,
            _ when fields.Has("order") => null,
            _ => BlockShape.Circuit,
        };
    }

    /// <summary>A talk, or a walk-through: then its length may be left to what is shown.</summary>
    private Block Talk(Fields fields, Block block)
    {
        fields.Refuse("a talk takes only id, name, phase, seconds, show, keep, notes, shownBy, water and afterSeconds", StationFields);
        var show = Shows(fields);
        var length = fields.Seconds("seconds", 1, 3600, required: !fields.Has("show"));
        var shown = show.Sum(s => (long)s.Seconds.Value);
        if (length is { } given && shown > given.Value)
        {
            fields.Fault("show", $"What is shown takes {shown} s, the talk {given.Value} s.", "in all at most the seconds of the talk");
        }
        else if (!fields.Has("seconds") && shown > 3600)
        {
            fields.Fault("show", $"What is shown takes {shown} s.", "in all at most 3600 s");
        }

        return block with { Length = length ?? new Seconds((int)Math.Min(shown, 3600)), Show = show };
    }

    private ImmutableArray<Showing> Shows(Fields fields)
    {
        var items = fields.Has("show") ? fields.Items("show", 1, 60, "stations") : [];
        var shows = ImmutableArray.CreateBuilder<Showing>(items.Length);
        for (var i = 0; i < items.Length; i++)
        {
            var show = new Fields(items[i], $"{fields.At}/show/{i}", faults);
            var station = show.Text("station", 1, 120, required: true);
            shows.Add(new Showing(
                new PlaceId(station!),
                show.Seconds("seconds", 1, 600, required: true) ?? Seconds.Zero,
                show.Choice<Viewpoint>("view"),
                show.Choice<Tier>("first") ?? Tier.Main));
            show.Close("a walk-through");
        }

        return shows.ToImmutable();
    }

    private Block Worked(Fields fields, Block block, BlockShape? shape, int index)
    {
        var sure = shape is not null;
        block = block with
        {
            OwnLeadIn = fields.Seconds("leadInSeconds", 0, 120),
            OwnStartSide = StartSide(fields),
            OwnCount = fields.Choice<Counting>("count"),
            Gate = fields.Choice<Gate>("gate") ?? Gate.Bell,
            Recovery = Extra(fields, "recovery", $"b{index + 1}r"),
            RecoveryIn = fields.Choice<RecoveryIn>("recoveryIn") ?? RecoveryIn.Rests,
            Say = Say(fields),
        };
        if (sure)
        {
            fields.Refuse("a walk-through belongs to a talk", "show");
        }

        if (fields.Has("recoveryIn") && !fields.Has("recovery"))
        {
            fields.Fault("recoveryIn", "There is no recovery here to be put anywhere.", "recovery beside it, or leave it out");
        }

        block = shape == BlockShape.OwnPace ? OwnPace(fields, block) : InRounds(fields, block, sure);
        block = Timed(fields, block, shape);
        var stations = fields.Items("stations", 1, 16, "stations", required: true);
        block = block with
        {
            Stations = [.. stations.Select((station, i) => Station(
            station,
            $"{fields.At}/stations/{i}",
            block,
            sure,
            $"b{index + 1}s{i + 1}"))]
        };
        if (shape is BlockShape.Circuit or BlockShape.Sets)
        {
            CheckStrings(block, fields.At);
        }

        return block;
    }

    private static Block OwnPace(Fields fields, Block block)
    {
        fields.Refuse("an own-pace block has neither changes nor rounds that could be left out", "betweenStations", "optionalRounds");
        fields.Refuse("recovery is done in the rest at the end of an own-pace block", "recoveryIn");
        if (block.Gate == Gate.Rests)
        {
            fields.Fault("gate", "An own-pace block has no rests to wait in.", "bell or block");
        }

        var goal = fields.Whole("goalReps", 1, 100_000);
        if (!fields.Has("goalReps"))
        {
            fields.Refuse("a goal is shared only where there is one: goalReps", "goalShared");
        }

        var rounds = fields.Whole("rounds", 1, 20);
        return block with
        {
            Length = fields.Seconds("seconds", 1, 3600, required: true) ?? Seconds.Zero,
            GoalReps = goal,
            GoalShared = fields.Flag("goalShared") ?? false,
            Rounds = rounds ?? 1,
            GoalRounds = rounds is not null,
        };
    }

    private static Block InRounds(Fields fields, Block block, bool sure)
    {
        if (sure)
        {
            fields.Refuse("a goal belongs to an own-pace block", "goalReps", "goalShared");
            fields.Refuse("seconds belong to a talk or to an own-pace block", "seconds");
        }

        block = block with
        {
            Rounds = fields.Whole("rounds", 1, 20) ?? 1,
            BetweenStations = fields.Seconds("betweenStations", 0, 600) ?? Seconds.Zero,
        };

        // With faulty rounds there is nothing to compare with; one fault is enough.
        if (fields.Whole("optionalRounds", 0, 19) is { } optional)
        {
            if (optional >= block.Rounds && sure)
            {
                fields.Fault("optionalRounds", $"{optional} of {block.Rounds} rounds are optional.", "fewer than the rounds");
            }

            block = block with { OptionalRounds = optional };
        }

        return block;
    }

    private Saying? Say(Fields fields)
    {
        if (fields.Take("say") is not { } value)
        {
            return null;
        }

        var say = new Fields(value, fields.PointerTo("say"), faults);
        var text = say.Text("text", 1, 400, required: true);
        var seconds = say.Seconds("seconds", 1, 600, required: true);
        say.Close("what is said");
        return text is not null && seconds is { } takes ? new Saying(text, takes) : null;
    }

    private static Block Timed(Fields fields, Block block, BlockShape? shape)
    {
        if (shape is null)
        {
            // The format is faulty: what belongs to it cannot be known, so these are only marked as seen.
            foreach (var name in (ReadOnlySpan<string>)[.. StationFields, "seconds", "show"])
            {
                fields.Take(name);
            }

            return block;
        }

        block = block with { SidePass = fields.Choice<SidePass>("sidePass") ?? SidePass.Station };
        if ((block.SidePass == SidePass.Round && shape != BlockShape.Circuit) ||
            (block.SidePass == SidePass.Alternate && shape is not (BlockShape.Circuit or BlockShape.Rotation)))
        {
            fields.Fault("sidePass", "This block has no rounds to give the side.", "round in a circuit, alternate in a circuit or a "
                + "rotation, else station");
        }

        if (shape == BlockShape.Rotation)
        {
            block = block with { Window = fields.SecondsListed("windowSeconds", 5, 1800) };
        }
        else
        {
            fields.Refuse("a window belongs to a rotation", "windowSeconds");
        }

        if (shape == BlockShape.Circuit)
        {
            block = block with { StartEvery = fields.Seconds("startEverySeconds", 5, 1800) };
            if (block.StartEvery is not null && block.BetweenStations > Seconds.Zero)
            {
                fields.Fault("betweenStations", "With startEverySeconds there are no changes.", "0, or leave it out");
            }
        }
        else
        {
            fields.Refuse("a start every so many seconds belongs to a circuit", "startEverySeconds");
        }

        if (shape == BlockShape.Sets)
        {
            block = block with { BetweenSets = fields.SecondsListed("betweenSets", 0, 600) ?? block.BetweenSets };
        }
        else
        {
            fields.Refuse("rests between sets belong to sets", "betweenSets");
        }

        if (shape is BlockShape.Circuit or BlockShape.Rotation)
        {
            block = block with { BetweenRounds = fields.SecondsListed("betweenRounds", 0, 600) ?? block.BetweenRounds };
        }
        else
        {
            fields.Refuse("rests between rounds belong to a circuit or a rotation", "betweenRounds");
        }

        return block;
    }
}
