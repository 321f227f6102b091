using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>Where a block stands.</summary>
/// <param name="ById">Its id where it is given none: "b2".</param>
internal readonly record struct BlockPlace(string ById);

/// <summary>The block a station stands in, read but for its stations.</summary>
internal readonly record struct StationPlace(Block Block, string ById);

/// <summary>Whether an option has a dose to be done with.</summary>
internal enum OptionsAt
{
    Station,

    /// <summary>Recovery, and what the other one does while waiting.</summary>
    Apart,
}

internal readonly record struct OptionPlace(OptionsAt At, string ById);

/// <summary>Whose part a manner is.</summary>
internal enum PartOf
{
    MainOption,
    OtherOption,
}

/// <summary>How the id of an own move is read, which may not be taken.</summary>
internal readonly record struct MovePlace(Func<Fields, MoveId> Id);

/// <summary>
/// The plan language: every thing that a class file holds and its fields (plan-language.md). Reader, writer, published schema and, by
/// way of the contract, the bounds of the screens follow from these tables.
/// </summary>
internal static class PlanLanguage
{
    // A table that another one takes over stands before it.
    public static readonly LoadTable Load = new();
    public static readonly MannerTable Manner = new();
    public static readonly PartMannerTable PartManner = new();
    public static readonly SayingTable Saying = new();
    public static readonly ShowingTable Showing = new();
    public static readonly PartTable Part = new();
    public static readonly OptionTable Option = new();
    public static readonly StationTable Station = new();
    public static readonly BlockTable Block = new();
    public static readonly WaiverTable Waiver = new();
    public static readonly UsualDoseTable UsualDose = new();
    public static readonly StatedDemandTable StatedDemand = new();
    public static readonly FormFaultTable FormFault = new();
    public static readonly MoveLimitTable MoveLimit = new();
    public static readonly MoveTable Move = new();
    public static readonly ClassTable Class = new();

    public static readonly Block BlankBlock = new() { Id = default, Name = "", Phase = Phase.Main, Shape = BlockShape.Circuit };
    public static readonly Station BlankStation = new() { Id = default, Name = "", Dose = [], Options = [] };
    public static readonly Part BlankPart = new() { Kind = PartKind.Time, Amount = new(new Amount(1)) };
    public static readonly PartManner BlankPartManner = new(null, new Manner());
    public static readonly Option BlankOption = Plans.Option.Of(Tier.Easier, default);

    public static readonly Move BlankMove = new(
        new MoveId(""), "", [], Family.Squat, Plane.Sagittal, Position.Standing, Sided.TwoSided, "", MoveTable.BlankDose, [], "", "", "",
        "", [], "", "");
}

/// <summary>A list of written things.</summary>
internal readonly struct ListOfThings(IEnumerable<JsonObject> things)
{
    public JsonArray Json { get; } = new([.. things]);
}

/// <summary>The plan language as a JSON Schema, and what of it screens need to know.</summary>
public static class PublishedSchema
{
    private static readonly (string Name, Func<JsonObject> Schema)[] Definitions =
    [
        ("ClassPlan", PlanLanguage.Class.Schema),
        ("PlanBlock", PlanLanguage.Block.Schema),
        ("PlanStation", PlanLanguage.Station.Schema),
        ("PlanAmount", AmountOrRange.Whole),
        ("PlanPart", PlanLanguage.Part.Schema),
        ("PlanTempo", TempoSchema),
        ("PlanLoad", PlanLanguage.Load.Schema),
        ("PlanManner", PlanLanguage.PartManner.Schema),
        ("PlanOption", PlanLanguage.Option.Schema),
        ("PlanWaiver", PlanLanguage.Waiver.Schema),
        ("PlanMove", PlanLanguage.Move.Schema),
        ("PlanSaying", PlanLanguage.Saying.Schema),
        ("PlanShowing", PlanLanguage.Showing.Schema),
    ];

    /// <summary>The JSON Schema (draft 2020-12) of the class file.</summary>
    public static JsonObject Class()
    {
        var definitions = new JsonObject();
        foreach (var (name, schema) in Definitions)
        {
            definitions[name] = schema();
        }

        return new()
        {
            ["$schema"] = "https://json-schema.org/draft/2020-12/schema",
            ["title"] = "Halterion class",
            ["description"] = "One class as data, version 1. The schema says which fields there are and what they may hold; rules that "
                + "join fields (which belong where) are checked by the program.",
            ["$ref"] = "#/$defs/ClassPlan",
            ["$defs"] = definitions,
        };
    }

    /// <summary>Which fields a block and its stations take, by the block's shape; and a part, by its kind.</summary>
    public static JsonObject Taken() => new()
    {
        ["block"] = ByWord<BlockShape>(PlanLanguage.Block.TakenBy),
        ["station"] = ByWord<BlockShape>(shape => shape.HasStations ? PlanLanguage.Station.TakenIn(shape) : []),
        ["part"] = ByWord<PartKind>(PlanLanguage.Part.TakenBy),
    };

    private static JsonObject ByWord<T>(Func<T, IEnumerable<string>> taken) where T : struct, Enum
    {
        var all = new JsonObject();
        foreach (var word in Enum.GetValues<T>())
        {
            all[WordsOf<T>.Of(word)] = new JsonArray([.. taken(word).Select(n => (JsonNode)n)]);
        }

        return all;
    }

    private static JsonObject TempoSchema() => new()
    {
        ["type"] = "string",
        ["pattern"] = @"^(X|[0-9]{1,2}(\.[0-9]{1,2})?)(-(X|[0-9]{1,2}(\.[0-9]{1,2})?)){3}$",
        ["description"] = "lower-pause-lift-pause in seconds; X is as fast as is safe and counts 1.",
    };
}
