using System.Collections.Immutable;
using System.Diagnostics.CodeAnalysis;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>What came of reading a class file: a plan, or every fault that kept it from being one.</summary>
public sealed record Reading(ClassPlan? Plan, ImmutableArray<PlanFault> Faults)
{
    /// <summary>There are no faults.</summary>
    [MemberNotNullWhen(true, nameof(Plan))]
    public bool IsValid => Plan is not null;
}

/// <summary>Reads a class file (plan-language.md). It never throws on bad input: it collects every fault.</summary>
public static class ClassReader
{
    /// <summary>The largest file, in bytes.</summary>
    public const int MaxBytes = 1_048_576;

    /// <summary>Reads UTF-8 text, with or without a byte order mark.</summary>
    public static Reading Read(ReadOnlyMemory<byte> utf8, MoveLibrary moves)
    {
        var faults = new Faults();
        if (utf8.Length > MaxBytes)
        {
            faults.Add("", $"The file is too large ({utf8.Length} bytes).", $"at most {MaxBytes} bytes");
            return new Reading(null, faults.All);
        }

        try
        {
            using var document = JsonDocument.Parse(Soundness.WithoutMark(utf8), new JsonDocumentOptions { MaxDepth = Soundness.MaxDepth });
            var plan = new Context(moves, faults).Class(document.RootElement);
            return faults.None ? new Reading(plan, []) : new Reading(null, faults.All);
        }
        catch (JsonException e)
        {
            faults.Add("", Soundness.NoJson(e), $"JSON text, nested at most {Soundness.MaxDepth} deep");
            return new Reading(null, faults.All);
        }
    }

    /// <summary>Reads one block as a class of its own.</summary>
    public static Reading ReadBlock(JsonObject block, MoveLibrary moves, JsonNode? own = null)
    {
        var file = new JsonObject
        {
            ["format"] = ClassTable.FormatName,
            ["version"] = ClassTable.Version,
            ["title"] = "Block",
            ["slotMinutes"] = 60,
            ["blocks"] = new JsonArray(block.DeepClone())
        };
        if (own is not null)
        {
            file["moves"] = own.DeepClone();
        }

        return Read(Encoding.UTF8.GetBytes(file.ToJsonString()), moves);
    }

    /// <summary>Reads the manner of a ladder's step: the library's own data, without faults.</summary>
    /// <exception cref="JsonException">The fields are not of the plan language.</exception>
    public static Manner ReadManner(JsonElement fields, MoveLibrary moves)
    {
        var faults = new Faults();
        var manner = new Context(moves, faults).MannerOf(fields);
        return faults.None ? manner : throw new JsonException(string.Join(" ", faults.All.Select(f => $"{f.Pointer}: {f.Detail}")));
    }

    /// <summary>Reads one option as it stands at a station; what is wrong is noted. Null where its tier is missing.</summary>
    public static Option? ReadOption(Fields fields, MoveLibrary moves, Faults faults)
    {
        var tier = fields.Choice<Tier>("tier", required: true);
        var option = PlanLanguage.Option.Read(
            new Context(moves, faults), fields, PlanLanguage.BlankOption with { Tier = tier ?? Tier.Easier },
            new OptionPlace(OptionsAt.Station, "o"));
        return tier is null ? null : option;
    }

    /// <summary>Reads a dose alone; null where it has faults.</summary>
    public static ImmutableArray<Part>? ReadDose(JsonElement dose, MoveLibrary moves)
    {
        var faults = new Faults();
        var parts = new Context(moves, faults).DoseOf(dose);
        return faults.None ? parts : null;
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
}

/// <summary>What every reader of a part of the class needs, and the class itself.</summary>
internal sealed partial class Context(MoveLibrary shipped, Faults faults)
{
    private MoveLibrary moves = shipped;
    private ImmutableArray<Move> own = [];
    private PlaceIds ids = new();

    /// <summary>The shape of the block that is being read is known, so that faults which hang on it can be told.</summary>
    private bool sure = true;

    public ClassPlan? Class(JsonElement root)
    {
        var fields = new Fields(root, "", faults);
        if (!fields.IsObject)
        {
            return null;
        }

        ids = PlaceIds.Of(root);
        var plan = PlanLanguage.Class.Read(this, fields, new ClassPlan { Title = "", SlotMinutes = 0, Blocks = [], Moves = moves });
        CheckShows(plan);
        return plan;
    }

    public PlaceId IdOf(Fields fields, string byPlace) => ids.Take(fields, byPlace);

    /// <summary>A walk-through shows stations of this class, from the first to the last.</summary>
    private void CheckShows(ClassPlan plan)
    {
        for (var b = 0; b < plan.Blocks.Length; b++)
        {
            for (var i = 0; i < plan.Blocks[b].Show.Length; i++)
            {
                var showing = plan.Blocks[b].Show[i];
                if (showing.Station.Value is null)
                {
                    continue;
                }

                if (plan.Find(showing.Station) is not { } found)
                {
                    faults.Add($"/blocks/{b}/show/{i}/station", $"The walk-through names a station that is not in "
                        + $"this class (“{showing.Station}”).", "the id of a station");
                }
                else if (found.Station.Options.All(o => o.Tier != showing.First))
                {
                    faults.Add(
                        $"/blocks/{b}/show/{i}/first",
                        $"{found.Station.Name} has no {WordsOf<Tier>.Of(showing.First)} option.",
                        "a tier that the station has");
                }
            }
        }
    }
}
