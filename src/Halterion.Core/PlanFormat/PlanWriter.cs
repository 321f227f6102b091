using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>
/// Writes parts of a class as they stand in a file (plan-language.md), beside the reader that reads them back. What is
/// as the language has it anyway is left out; an id that is not given yet too.
/// </summary>
public static class PlanWriter
{
    public static JsonObject Of(Block block)
    {
        var talk = block.Shape == BlockShape.Talk;
        var usualKeep = block.Phase == Phase.Cooldown ? Keep.Protected : Keep.Normal;
        return new JsonObject()
            .Put("id", block.Id.Value)
            .Put("name", block.Name)
            .Put("phase", Word(block.Phase))
            .Put("notes", Unless("", block.Notes))
            .Put("shownBy", block.ShownBy)
            .Put("format", talk ? "talk" : block.Shape == BlockShape.Rotation ? "rotation" : null)
            .Put("order", block.Shape switch { BlockShape.Sets => "sets", BlockShape.OwnPace => "ownPace", _ => null })
            .Put("seconds", talk || block.Shape == BlockShape.OwnPace ? block.Length.Value : null)
            .Put("show", List(block.Show, Of))
            .Put("goalReps", block.GoalReps)
            .Put("goalShared", Flag(block.GoalShared))
            .Put("rounds", block.GoalRounds ? block.Rounds : Unless(1, block.Rounds))
            .Put("optionalRounds", Unless(0, block.OptionalRounds))
            .Put("sidePass", Word(block.SidePass, SidePass.Station))
            .Put("windowSeconds", Seconds(block.Window))
            .Put("startEverySeconds", block.StartEvery?.Value)
            .Put("betweenStations", Unless(0, block.BetweenStations.Value))
            .Put("betweenSets", Seconds(block.BetweenSets, usual: 0))
            .Put("betweenRounds", Seconds(block.BetweenRounds, usual: 0))
            .Put("afterSeconds", Unless(0, block.After.Value))
            .Put("leadInSeconds", block.OwnLeadIn?.Value)
            .Put("startSide", Word(block.OwnStartSide))
            .Put("count", Word(block.OwnCount))
            .Put("gate", Word(block.Gate, Gate.Bell))
            .Put("keep", Word(block.Keep, usualKeep))
            .Put("water", Flag(block.Water))
            .Put("say", Of(block.Say))
            .Put("recovery", List(block.Recovery, Of))
            .Put("recoveryIn", block.Recovery.IsEmpty ? null : Word(block.RecoveryIn, RecoveryIn.Rests))
            .Put("stations", List(block.Stations, Of));
    }

    public static JsonObject Of(Station station) => new JsonObject()
        .Put("id", station.Id.Value)
        .Put("name", station.HasOwnName ? station.Name : null)
        .Put("sides", Word(station.Sides, SideRule.AsWritten))
        .Put("chunk", Unless(0, station.Chunk))
        .Put("sharing", station.Turns ? "turns" : null)
        .Put("waiting", List(station.Waiting, Of))
        .Put("switchSeconds", Seconds(station.OwnSwitch))
        .Put("changeSeconds", Seconds(station.OwnChange))
        .Put("betweenSets", Seconds(station.OwnBetweenSets))
        .Put("startSide", Word(station.OwnStartSide))
        .Put("withNext", Flag(station.WithNext))
        .Put("view", station.View is { } view ? Listed(view.Values, v => Word(v)) : null)
        .Put("count", Word(station.OwnCount))
        .Put("say", Of(station.Say))
        .Put("demoSeconds", station.Demo.Listed
            ? new JsonArray([.. station.Demo.Values.Select(v => (JsonNode)v.Value)])
            : station.Demo.Values is [var once] ? once.Value : null)
        .Put("dose", List(station.Dose, Of))
        .Put("options", List(station.Options, Of));

    /// <summary>The fields of a station that a typed dose sets (<see cref="TypedDose.StationFields"/>).</summary>
    public static JsonObject Dose(TypedDose typed) => new JsonObject()
        .Put("dose", List(typed.Dose, Of))
        .Put("sides", Word(typed.Sides))
        .Put("chunk", typed.Chunk)
        .Put("sharing", typed.Turns ? "turns" : null);

    /// <summary>A part with what it names itself; what it takes from its option stays there.</summary>
    public static JsonObject Of(Part part) => new JsonObject()
        .Put("kind", Word(part.Kind))
        .Put("amount", Listed(part.Amount.Values, Of))
        .Put("side", Word(part.Side, Side.Both))
        .Put("move", part.OwnMove?.Value)
        .Put("tempo", part.OwnTempo?.ToString())
        .Put("style", Word(part.Style, RepStyle.Full))
        .Put("pulsesPerRep", Unless(0, part.PulsesPerRep))
        .Put("pace", part.Kind == PartKind.Distance ? Unless(1.5m, part.Pace) : null)
        .Put("loadKg", part.LoadKg is { } kg ? Listed(kg.Values, v => v) : null)
        .Put("loadFactor", part.LoadFactor is { } factor ? Listed(factor.Values, v => v) : null)
        .Put("effort", part.Effort)
        .Put("rounds", Of(part.Rounds))
        .Put("label", part.Label);

    public static JsonNode Of(Amount amount) =>
        amount.From == amount.To ? amount.To : new JsonObject { ["from"] = amount.From, ["to"] = amount.To };

    public static JsonObject Of(Option option)
    {
        var written = new JsonObject()
            .Put("id", option.Id.Value)
            .Put("tier", Word(option.Tier))
            .Put("move", option.Move.Value)
            .Put("sides", Word(option.Sides))
            .Put("chunk", option.Chunk);
        Put(written, option.Manner);
        return written.Put("parts", Of(option.Parts)).Put("note", option.Note);
    }

    /// <summary>A value by round: alone where there is one, else a list.</summary>
    public static JsonNode Of(ByRound<Seconds> seconds) => Listed(seconds.Values, v => v.Value);

    private static JsonObject? Of(ImmutableSortedDictionary<int, PartManner> parts)
    {
        if (parts.IsEmpty)
        {
            return null;
        }

        var written = new JsonObject();
        foreach (var (number, part) in parts)
        {
            var own = new JsonObject().Put("move", part.Move?.Value);
            Put(own, part.Manner);
            written[number.ToString(CultureInfo.InvariantCulture)] = own;
        }

        return written;
    }

    private static void Put(JsonObject into, Manner manner) => into
        .Put("depth", Word(manner.Depth))
        .Put("support", Word(manner.Support))
        .Put("base", Word(manner.Base))
        .Put("toes", Word(manner.Toes))
        .Put("step", Word(manner.Step))
        .Put("trunk", Word(manner.Trunk))
        .Put("arms", Word(manner.Arms))
        .Put("surface", Word(manner.Surface))
        .Put("heightCm", manner.HeightCm)
        .Put("impact", Word(manner.Impact))
        .Put("band", Word(manner.Band))
        .Put("grip", Word(manner.Grip))
        .Put("tempo", manner.Tempo?.ToString())
        .Put("load", Of(manner.Load))
        .Put("scale", manner.Scale);

    private static JsonNode? Of(Load? load) => load is null ? null : load.IsNone ? JsonValue.Create("none") : new JsonObject()
        .Put("implement", Word(load.Implement))
        .Put("count", load.Count)
        .Put("kg", load.Kg?.Value)
        .Put("position", Word(load.Position))
        .Put("side", Word(load.Side));

    private static JsonObject Of(Showing showing) => new JsonObject()
        .Put("station", showing.Station.Value)
        .Put("seconds", showing.Seconds.Value)
        .Put("view", Word(showing.View))
        .Put("first", Word(showing.First, Tier.Main));

    private static JsonObject? Of(Saying? say) =>
        say is null ? null : new JsonObject().Put("text", say.Text).Put("seconds", say.Seconds.Value);

    private static JsonNode? Of(PartRounds rounds) => rounds switch
    {
        { Listed.Length: > 0 } => new JsonArray([.. rounds.Listed.Select(r => (JsonNode)r)]),
        { First: true, Last: true } => null,
        { First: true } => "first",
        _ => "last",
    };

    private static JsonNode? Seconds(ByRound<Seconds>? values, int? usual = null) =>
        values is null || (values.Values is [var only] && only.Value == usual) ? null : Of(values);

    private static JsonNode Listed<T>(ImmutableArray<T> values, Func<T, JsonNode?> write) =>
        values.Length == 1 ? write(values[0])! : new JsonArray([.. values.Select(write)]);

    private static JsonArray? List<T>(ImmutableArray<T> items, Func<T, JsonNode> write) =>
        items.IsEmpty ? null : new JsonArray([.. items.Select(write)]);

    private static JsonNode Word<T>(T word) where T : struct, Enum => WordsOf<T>.Of(word);

    private static JsonNode? Word<T>(T? word) where T : struct, Enum => word is { } w ? WordsOf<T>.Of(w) : null;

    private static JsonNode? Word<T>(T word, T usual) where T : struct, Enum => word.Equals(usual) ? null : WordsOf<T>.Of(word);

    private static JsonNode? Flag(bool value) => value ? true : null;

    private static T? Unless<T>(T usual, T value) where T : struct => value.Equals(usual) ? null : value;

    private static string? Unless(string usual, string value) => value == usual ? null : value;

    private static JsonObject Put(this JsonObject into, string name, JsonNode? value)
    {
        if (value is not null)
        {
            into[name] = value;
        }

        return into;
    }
}
