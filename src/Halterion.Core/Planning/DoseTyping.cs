using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Words;

namespace Halterion.Core.Planning;

/// <summary>What a typed dose was read as.</summary>
/// <param name="Block">The block with the dose in it.</param>
/// <param name="Words">What was understood, every round and every part of it.</param>
/// <param name="Takes">What it takes in the first round.</param>
/// <param name="Also">What it changes in the block beside its station, or what does not fit there; empty where neither is.</param>
/// <param name="Evaluation">Of the class with it; null while the class has faults elsewhere.</param>
public sealed record DoseRead(JsonElement Block, string Words, string Takes, string Also, Evaluation? Evaluation);

/// <summary>Why a typed dose cannot be taken.</summary>
/// <param name="At">The place in the text, from 0; null where the text can be read but does not fit its station.</param>
public sealed record DoseProblem(string Detail, string Right, int? At);

/// <summary>A dose that was typed: what it was read as, or why it cannot be. Half a dose is no error: it is typed all the time.</summary>
public sealed record TypedDoseResult(DoseRead? Read, DoseProblem? Problem);

/// <summary>A block with another number of rounds.</summary>
/// <param name="Evaluation">Of the class with it; null while the class has faults.</param>
public sealed record RoundsResult(JsonElement Block, Evaluation? Evaluation);

/// <summary>What is typed into a class file that may have faults elsewhere: the block that comes of it, and the class with it.</summary>
public static class DoseTyping
{
    /// <summary>Reads a dose as it is typed, puts it into its station and says what was understood.</summary>
    /// <returns>Null if the class has no such station.</returns>
    public static TypedDoseResult? Dose(string text, JsonElement file, string station, Evaluator evaluator)
    {
        var whole = JsonNode.Parse(file.GetRawText()) as JsonObject;
        if (Find(whole, station) is not var (block, written, index))
        {
            return null;
        }

        // As it stands first: “side hold” is a move to one and a way to hold to another.
        var (said, (typed, fault)) = (text, ShortDoseReader.Read(text));
        if (typed is null)
        {
            said = WithoutName(text, written, evaluator.Moves);
            (typed, fault) = ShortDoseReader.Read(said);
        }

        if (typed is null)
        {
            return new TypedDoseResult(null, Other(said, evaluator.Moves) ?? new DoseProblem(fault!.Detail, fault.Right, fault.At));
        }

        var before = block.DeepClone().AsObject();
        typed.PutInto(block, written);
        var result = evaluator.Evaluate(whole!.ToJsonString());

        // A class with faults elsewhere can still have a dose typed into it: then the block is judged alone.
        var judged = result.Evaluation is not null ? result : Alone(block, whole["moves"], evaluator);
        if (judged.Evaluation is null)
        {
            var place = $"/blocks/0/stations/{index}/";
            var first = judged.Faults.OrderByDescending(f => f.Pointer.StartsWith(place, StringComparison.Ordinal)).First();
            return new TypedDoseResult(null, new DoseProblem(first.Detail, first.Right, null));
        }

        var read = judged.Plan!.Find(new PlaceId(station))!.Value.Block;
        return new TypedDoseResult(
            new DoseRead(
                JsonElement.Parse(block.ToJsonString()),
                PlanWords.Whole(read.Stations[index], read),
                Outlines.Needs(read.Stations[index], read).ToString(),
                typed.Beside(before, read),
                result.Evaluation),
            null);
    }

    /// <summary>
    /// "8 split squats each side", typed at the split squat, says its move once more: blanks in its place, so that what is wrong in the
    /// rest is still where it was typed.
    /// </summary>
    private static string WithoutName(string text, JsonObject station, MoveLibrary moves)
    {
        var main = List(station, "options").FirstOrDefault(o => (string?)o["tier"] == "main")?["move"];
        var move = main is JsonValue value && value.TryGetValue<string>(out var id) ? moves.Find(new MoveId(id)) : null;
        foreach (var name in (move?.Aliases ?? []).Append(move?.Name ?? "").Where(n => n.Length > 0).OrderByDescending(n => n.Length))
        {
            text = Named(name).Replace(text, found => new string(' ', found.Length));
        }

        return text;
    }

    /// <summary>A target that names another move than the one it stands at; null where it names none.</summary>
    private static DoseProblem? Other(string text, MoveLibrary moves) => moves.Moves
        .Select(m => (m.Name, Found: Named(m.Name).Match(text)))
        .Where(m => m.Found.Success)
        .OrderByDescending(m => m.Name.Length)
        .Select(m => new DoseProblem(
            $"{m.Name} is another move.", "the target alone; another move is chosen at “main”", m.Found.Index))
        .FirstOrDefault();

    /// <summary>A name in a text, one or many of it.</summary>
    private static Regex Named(string name) => new($@"\b{Regex.Escape(name)}(e?s)?\b", RegexOptions.IgnoreCase);

    /// <summary>Gives a block another number of rounds; targets that are listed by round go on as they went.</summary>
    /// <returns>Null if the class has no such block.</returns>
    public static RoundsResult? Rounds(int rounds, JsonElement file, string block, Evaluator evaluator)
    {
        var whole = JsonNode.Parse(file.GetRawText()) as JsonObject;
        if (List(whole, "blocks").FirstOrDefault(b => IsCalled(b, block)) is not { } written)
        {
            return null;
        }

        MoreRounds.Put(written, rounds);
        return new RoundsResult(JsonElement.Parse(written.ToJsonString()), evaluator.Evaluate(whole!.ToJsonString()).Evaluation);
    }

    private static EvaluationResult Alone(JsonObject block, JsonNode? moves, Evaluator evaluator)
    {
        var reading = ClassReader.ReadBlock(block, evaluator.Moves, moves);
        return reading.IsValid ? evaluator.Evaluate(reading.Plan) : new EvaluationResult(null, null, null, reading.Faults);
    }

    private static (JsonObject Block, JsonObject Station, int Index)? Find(JsonObject? file, string id)
    {
        foreach (var block in List(file, "blocks"))
        {
            var stations = block["stations"] as JsonArray ?? [];
            for (var i = 0; i < stations.Count; i++)
            {
                if (stations[i] is JsonObject station && IsCalled(station, id))
                {
                    return (block, station, i);
                }
            }
        }

        return null;
    }

    private static IEnumerable<JsonObject> List(JsonObject? thing, string name) => (thing?[name] as JsonArray ?? []).OfType<JsonObject>();

    private static bool IsCalled(JsonObject thing, string id) =>
        thing["id"] is JsonValue written && written.TryGetValue<string>(out var own) && own == id;
}
