using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Tests;

/// <summary>Short ways to write a class file.</summary>
internal static class Classes
{
    public static readonly MoveLibrary Library = MoveLibrary.Load();

    public static readonly Evaluator Desk = new(Library, new Preferences());

    public static readonly Starters Ready = new(Library, new Preferences());

    public static string With(string blocks, string extra = "") =>
        $$"""{"format":"halterion-class","version":1,"title":"Test","slotMinutes":60,{{extra}}"blocks":[{{blocks}}]}""";

    public static string Block(string fields, params string[] stations) =>
        $$"""{"name":"Block","phase":"main",{{fields}}{{(fields.Length > 0 ? "," : "")}}"stations":[{{string.Join(",", stations)}}]}""";

    public static string Station(string dose, string fields = "") =>
        $$"""{{{fields}}{{(fields.Length > 0 ? "," : "")}}"dose":[{{dose}}],"options":[{"tier":"main","move":"squat"}]}""";

    public static EvaluationResult Evaluate(string text) => Desk.Evaluate(text);

    /// <summary>The evaluation of a class that must be valid.</summary>
    public static Evaluation Good(string text)
    {
        var result = Evaluate(text);
        Assert.True(result.Evaluation is not null, string.Join("\n", result.Faults));
        return result.Evaluation;
    }

    /// <summary>A class after a repair; null where it is not offered.</summary>
    public static string? Mended(string text, string finding, int repair = 0) =>
        Mender.Of(JsonElement.Parse(Encoding.UTF8.GetBytes(text)), Desk)?.Mend(finding, repair)?.Class.ToJsonString();

    public static ClassPlan Plan(string text)
    {
        var read = ClassReader.Read(Encoding.UTF8.GetBytes(text), Library);
        return read.Plan ?? throw new ArgumentException(string.Join("; ", read.Faults.Select(f => f.ToString())), nameof(text));
    }

    public static Timeline Timeline(string text) => Compiler.Compile(Plan(text)).Timeline!;

    public static JsonNode Json(string text) => JsonNode.Parse(text)!;
}
