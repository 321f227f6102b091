using System.Text.Json;

namespace Halterion.Core.Plans;

internal sealed partial class Context
{
    /// <summary>The fields a talk does not take: all that speak of stations.</summary>
    private static readonly string[] StationFields =
    [
        "order", "goalReps", "goalShared", "rounds", "sidePass", "windowSeconds", "startEverySeconds",
        "betweenStations", "betweenSets", "betweenRounds", "recovery", "water", "gate", "optionalRounds",
        "leadInSeconds", "startSide", "count", "stations",
    ];

    private Block Block(JsonElement element, string at)
    {
        var fields = new Fields(element, at, faults);
        var shape = Shape(fields);
        var block = new Block
        {
            Name = fields.Text("name", 1, 120, required: true) ?? "",
            Phase = fields.Choice<Phase>("phase", required: true) ?? Phase.Main,
            Shape = shape ?? BlockShape.Circuit,
        };
        fields.Text("notes", 0, 4000);
        block = block with
        {
            Keep = fields.Choice<Keep>("keep") ?? (block.Phase == Phase.Cooldown ? Keep.Protected : Keep.Normal),
        };

        if (shape is BlockShape.Talk or BlockShape.OwnPace)
        {
            block = block with { Length = fields.Seconds("seconds", 1, 3600, required: true) ?? Seconds.Zero };
        }
        else if (shape is not null)
        {
            fields.Refuse("seconds belong to a talk or to an own-pace block", "seconds");
        }

        if (shape == BlockShape.Talk)
        {
            fields.Refuse("a talk takes only name, phase, seconds, keep and notes", StationFields);
        }
        else
        {
            block = Worked(fields, block, shape);
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

    private Block Worked(Fields fields, Block block, BlockShape? shape)
    {
        var sure = shape is not null;
        block = block with
        {
            LeadIn = fields.Seconds("leadInSeconds", 0, 120) ?? leadIn,
            StartSide = StartSide(fields) ?? startSide,
            Count = fields.Choice<Counting>("count") ?? count,
            Water = fields.Flag("water") ?? false,
            Gate = fields.Choice<Gate>("gate") ?? Gate.Bell,
            Recovery = Extra(fields, "recovery"),
        };

        if (sure && shape != BlockShape.OwnPace)
        {
            fields.Refuse("a goal belongs to an own-pace block", "goalReps", "goalShared");
            block = block with
            {
                Rounds = fields.Whole("rounds", 1, 20) ?? 1,
                BetweenStations = fields.Seconds("betweenStations", 0, 600) ?? Seconds.Zero,
            };
        }
        else if (sure)
        {
            fields.Refuse("an own-pace block has neither rounds nor changes", "rounds", "betweenStations");
            block = block with { GoalReps = fields.Whole("goalReps", 1, 100_000), GoalShared = fields.Flag("goalShared") ?? false };
        }

        block = Timed(fields, block, shape);

        // With faulty rounds there is nothing to compare with; one fault is enough.
        if (fields.Whole("optionalRounds", 0, 19) is { } optional)
        {
            if (optional >= block.Rounds && sure)
            {
                fields.Fault("optionalRounds", $"{optional} of {block.Rounds} rounds are optional.", "fewer than the rounds");
            }

            block = block with { OptionalRounds = optional };
        }

        var stations = fields.Items("stations", 1, 16, "stations", required: true);
        return block with { Stations = [.. stations.Select((station, i) => Station(station, $"{fields.At}/stations/{i}", block, sure))] };
    }

    private static Block Timed(Fields fields, Block block, BlockShape? shape)
    {
        if (shape is null)
        {
            // The format is faulty: what belongs to it cannot be known, so these are only marked as seen.
            foreach (var name in StationFields)
            {
                fields.Take(name);
            }

            return block;
        }

        block = block with { SidePass = fields.Choice<SidePass>("sidePass") ?? SidePass.Station };
        if ((block.SidePass == SidePass.Round && shape != BlockShape.Circuit) ||
            (block.SidePass == SidePass.Alternate && shape is not (BlockShape.Circuit or BlockShape.Rotation)))
        {
            fields.Fault("sidePass", "This block has no rounds to give the side.", "round in a circuit, alternate in a circuit or a rotation, else station");
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
