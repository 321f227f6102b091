using System.Collections.Immutable;
using System.Diagnostics.CodeAnalysis;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

/// <summary>What came of reading a class file: a plan, or every fault that kept it from being one.</summary>
public sealed record Reading(ClassPlan? Plan, ImmutableArray<PlanFault> Faults)
{
    [MemberNotNullWhen(true, nameof(Plan))]
    public bool IsValid => Plan is not null;
}

/// <summary>Reads a class file (plan-language.md). It never throws on bad input: it collects every fault.</summary>
public static class ClassReader
{
    /// <summary>The largest file, in bytes.</summary>
    public const int MaxBytes = 1_048_576;

    private const int MaxDepth = 32;

    /// <summary>Reads UTF-8 text, with or without a byte order mark.</summary>
    public static Reading Read(ReadOnlyMemory<byte> utf8, MoveLibrary moves)
    {
        var faults = new Faults();
        if (utf8.Length > MaxBytes)
        {
            faults.Add("", $"The file has {utf8.Length} bytes.", $"at most {MaxBytes} bytes");
            return new Reading(null, faults.All);
        }

        try
        {
            using var document = JsonDocument.Parse(WithoutMark(utf8), new JsonDocumentOptions { MaxDepth = MaxDepth });
            var plan = new Context(moves, faults).Class(document.RootElement);
            return faults.None ? new Reading(plan, []) : new Reading(null, faults.All);
        }
        catch (JsonException e)
        {
            var line = e.LineNumber is { } number ? $" in line {number + 1}" : "";
            faults.Add("", $"This cannot be read as JSON{line}.", $"JSON text, nested at most {MaxDepth} deep");
            return new Reading(null, faults.All);
        }
    }

    /// <summary>Reads one block as a class of its own.</summary>
    public static Reading ReadBlock(JsonObject block, MoveLibrary moves, JsonNode? own = null)
    {
        var file = new JsonObject { ["format"] = "halterion-class", ["version"] = 1, ["title"] = "Block", ["slotMinutes"] = 60, ["blocks"] = new JsonArray(block.DeepClone()) };
        if (own is not null)
        {
            file["moves"] = own.DeepClone();
        }

        return Read(Encoding.UTF8.GetBytes(file.ToJsonString()), moves);
    }

    /// <summary>Reads a list of own moves, as they stand under <c>moves</c> in a class file.</summary>
    public static (ImmutableArray<Move> Moves, ImmutableArray<PlanFault> Faults) ReadMoves(JsonElement list, MoveLibrary shipped)
    {
        var file = new JsonObject { ["moves"] = JsonNode.Parse(list.GetRawText()) };
        var faults = new Faults();
        using var document = JsonDocument.Parse(file.ToJsonString());
        var moves = new Context(shipped, faults).ReadOwnMoves(document.RootElement);
        return faults.None ? (moves, []) : ([], faults.All);
    }

    private static ReadOnlyMemory<byte> WithoutMark(ReadOnlyMemory<byte> utf8) =>
        utf8.Span.StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF]) ? utf8[3..] : utf8;
}

/// <summary>What every reader of a part of the class needs, and the class itself.</summary>
internal sealed partial class Context(MoveLibrary shipped, Faults faults)
{
    private MoveLibrary moves = shipped;
    private Seconds leadIn = new(10);
    private Seconds switchTime = new(3);
    private Side startSide = Side.Left;
    private Counting count;

    public ClassPlan? Class(JsonElement root)
    {
        var fields = new Fields(root, "", faults);
        if (!fields.IsObject)
        {
            return null;
        }

        if (fields.Text("format", 1, 120, required: true) is { } format && format != "halterion-class")
        {
            fields.Fault("format", $"This is “{format}”.", "halterion-class");
        }

        fields.Whole("version", 1, 1, required: true);
        fields.Text("library", 1, 120);
        OwnMoves(fields);

        leadIn = fields.Seconds("leadInSeconds", 0, 120) ?? leadIn;
        switchTime = fields.Seconds("switchSeconds", 0, 60) ?? switchTime;
        startSide = StartSide(fields) ?? startSide;
        count = fields.Choice<Counting>("count") ?? count;

        var plan = new ClassPlan
        {
            Title = fields.Text("title", 1, 120, required: true) ?? "",
            Notes = fields.Text("notes", 0, 4000) ?? "",
            SlotMinutes = fields.Whole("slotMinutes", 5, 180, required: true) ?? 0,
            Aim = fields.Choice<Aim>("aim") ?? Aim.Conditioning,
            StartSide = startSide,
            Facing = fields.Choice<Facing>("facing") ?? Facing.Mirror,
            Count = count,
            Moves = moves,
            Waivers = Waivers(fields),
            Blocks = [.. fields.Items("blocks", 1, 30, "blocks", required: true).Select((block, i) => Block(block, $"/blocks/{i}"))],
        };
        fields.Close("a class");
        return plan;
    }

    private static Side? StartSide(Fields fields) => fields.Choice("startSide", ["left", "right"]) switch
    {
        "left" => Side.Left,
        "right" => Side.Right,
        _ => null,
    };

    private MoveId? Move(Fields fields, string name, bool required)
    {
        if (fields.Text(name, 1, 120, required) is not { } text)
        {
            return null;
        }

        var id = new MoveId(text);
        if (moves.Has(id))
        {
            return id;
        }

        fields.Fault(name, $"“{text}” is not a move of the library.", "the id of a move, such as squat");
        return null;
    }
}
