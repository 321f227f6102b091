using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>Blocks: their shape, and the rules that join their fields. Which fields there are <see cref="BlockTable"/> says.</summary>
internal sealed partial class Context
{
    private static readonly string[] Formats = ["together", "rotation", "talk"];
    private static readonly string[] Orders = ["circuit", "sets", "ownPace"];

    /// <param name="given">What the class gives to a block that says nothing else.</param>
    public ImmutableArray<Block> Blocks(Fields fields, ClassDefaults given)
    {
        var items = fields.Items("blocks", 1, ClassTable.MostBlocks, "blocks", required: true);
        return [.. items.Select((block, i) => Block(block, $"/blocks/{i}", $"b{i + 1}", given))];
    }

    private Block Block(JsonElement element, string at, string byId, ClassDefaults given)
    {
        var fields = new Fields(element, at, faults);
        var shape = Shape(fields);
        sure = shape is not null;
        var blank = PlanLanguage.BlankBlock with { Shape = shape ?? BlockShape.Circuit, Defaults = given };
        var block = PlanLanguage.Block.Read(this, fields, blank, new BlockPlace(byId), sure);
        if (sure)
        {
            JoinBlock(fields, block);
        }

        return block.Shape == BlockShape.Talk ? Talk(fields, block) : block;
    }

    /// <summary>The block's shape; null if its format or order is faulty, so that nothing more is said of what hangs on it.</summary>
    private static BlockShape? Shape(Fields fields)
    {
        switch (fields.Choice("format", Formats))
        {
            case null when fields.Has("format"):
                fields.Choice("order", Orders);
                return null;
            case "talk":
                return BlockShape.Talk;
            case "rotation":
                fields.Refuse("“order” only works in a circuit, straight sets or own pace", "order");
                return BlockShape.Rotation;
        }

        return fields.Choice("order", Orders) switch
        {
            "sets" => BlockShape.Sets,
            "ownPace" => BlockShape.OwnPace,
            null when fields.Has("order") => null,
            null or "circuit" => fields.Has("startEverySeconds") ? BlockShape.OnTheClock : BlockShape.Circuit,
            var other => throw new InvalidOperationException(other),
        };
    }

    /// <summary>A talk, or a walk-through: then its length may be left to what is shown.</summary>
    private static Block Talk(Fields fields, Block block)
    {
        var shown = block.Show.Sum(s => (long)s.Seconds.Value);
        if (block.Length > Seconds.Zero && shown > block.Length.Value)
        {
            fields.Fault(
                "show", $"The walk-through takes {shown} s, but the talk only {block.Length.Value} s.", "in all at "
                    + "most the seconds of the talk");
        }
        else if (!fields.Has("seconds") && shown > 3600)
        {
            fields.Fault("show", $"What is shown takes {shown} s.", "in all at most 3600 s");
        }

        return block.Length > Seconds.Zero ? block : block with { Length = new Seconds((int)Math.Min(shown, 3600)) };
    }

    /// <summary>The rules that join the fields of a block whose shape is known.</summary>
    private void JoinBlock(Fields fields, Block block)
    {
        if (block.Shape == BlockShape.OwnPace || (block.Shape == BlockShape.Talk && !fields.Has("show")))
        {
            fields.Missing<int>("seconds", Numbers.WholeWords(1, 3600));
        }

        if (!block.Shape.HasStations)
        {
            return;
        }

        if (fields.Has("recoveryIn") && !fields.Has("recovery"))
        {
            fields.Fault("recoveryIn", "This block has no easy movement to place.", "recovery beside it, or leave it out");
        }

        if (!block.Shape.IsInRounds && block.Gate == Gate.Rests)
        {
            fields.Fault("gate", "Own pace has no rests to wait in.", "bell or block");
        }

        if (block.GoalShared && !fields.Has("goalReps"))
        {
            fields.Refuse("only a goal in reps can be shared", "goalShared");
        }

        // With faulty rounds there is nothing to compare with; one fault is enough.
        if (block.OptionalRounds > 0 && block.OptionalRounds >= block.Rounds)
        {
            fields.Fault("optionalRounds", $"{block.OptionalRounds} of {block.Rounds} rounds are optional.", $"fewer than {block.Rounds}");
        }

        if (!block.Shape.Takes(block.SidePass))
        {
            fields.Fault("sidePass", "Sides by round do not work in this format.", "round in a circuit, alternate in a circuit or a "
                + "rotation, else station");
        }

        if (block.StartEvery is not null && block.BetweenStations > Seconds.Zero)
        {
            fields.Fault("betweenStations", "With timed starts there are no changeovers.", "0, or leave it out");
        }

        if (block.Shape.IsOneByOne)
        {
            CheckStrings(block, fields.At);
        }
    }

    /// <summary>A string is tied of stations that are done on each side, one after the other (plan-language.md, "Seconds").</summary>
    private void CheckStrings(Block block, string at)
    {
        for (var i = 0; i < block.Stations.Length; i++)
        {
            if (!block.Stations[i].WithNext)
            {
                continue;
            }

            var wrong = i + 1 == block.Stations.Length ? "The last station of a block cannot be linked with a next one."
                : block.StartEvery is not null ? "With startEverySeconds every station has its own start."
                : block.SidePass != SidePass.Station ? "The round gives the sides here."
                : !CanTie(block.Stations[i])
                    || !CanTie(block.Stations[i + 1]) ? "Linked stations must both be done on each side, without "
                        + "“switch every” and without pairs."
                : null;
            if (wrong is not null)
            {
                faults.Add($"{at}/stations/{i}/withNext", wrong, "two neighbours with sides each, without chunk and sharing, in a "
                    + "circuit or in sets");
            }
        }
    }

    private static bool CanTie(Station station) => station is { Sides: SideRule.Each, Chunk: 0, Turns: false };
}
