using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>What a class adds up to, to the second, and what there is to say about it.</summary>
/// <param name="Verdict">Total against the slot in words: "70 s over", "2 min to spare", "on time".</param>
/// <param name="Outline">The blocks as a screen lists them.</param>
public sealed record Evaluation(
    Totals Totals,
    ImmutableArray<Span> Spans,
    ImmutableArray<Stay> Stays,
    ImmutableArray<Finding> Findings,
    string Verdict,
    ImmutableArray<BlockOutline> Outline);

/// <summary>An evaluation, or the faults that kept a class from being evaluated.</summary>
public sealed record EvaluationResult(Evaluation? Evaluation, ClassPlan? Plan, Timeline? Timeline, ImmutableArray<PlanFault> Faults);

public static class Evaluator
{
    /// <summary>Reads, compiles and checks a class file.</summary>
    public static EvaluationResult Evaluate(ReadOnlyMemory<byte> utf8, MoveLibrary moves)
    {
        var reading = ClassReader.Read(utf8, moves);
        return reading.IsValid ? Evaluate(reading.Plan, moves) : new EvaluationResult(null, null, null, reading.Faults);
    }

    /// <summary>Compiles and checks a class; the only fault left to find is that it passes the bounds of the language.</summary>
    public static EvaluationResult Evaluate(ClassPlan plan, MoveLibrary moves)
    {
        var (timeline, fault) = Compiler.Compile(plan);
        if (timeline is null)
        {
            return new EvaluationResult(null, plan, null, [fault!]);
        }

        var totals = Totals.Of(plan, timeline);
        var findings = Rules.Check(new ClassReview(plan, timeline, moves));
        var evaluation = new Evaluation(totals, timeline.Spans, timeline.Stays, findings, Verdict(totals.OverSeconds), Outlines.Of(plan, timeline, moves));
        return new EvaluationResult(evaluation, plan, timeline, []);
    }

    /// <summary>The class file after a repair; null if the class has no such finding or repair.</summary>
    /// <param name="finding">The finding's key.</param>
    /// <param name="repair">Which of its repairs, from 0.</param>
    public static JsonNode? Mend(JsonElement classFile, string finding, int repair, MoveLibrary moves)
    {
        var text = classFile.GetRawText();
        var found = Evaluate(Encoding.UTF8.GetBytes(text), moves).Evaluation?.Findings.FirstOrDefault(f => f.Key == finding);
        if (found is null || repair < 0 || repair >= found.Repairs.Length)
        {
            return null;
        }

        var root = JsonNode.Parse(text)!;
        foreach (var edit in found.Repairs[repair].Edits)
        {
            edit.ApplyTo(root);
        }

        return root;
    }

    private static string Verdict(Seconds over) =>
        over > Seconds.Zero ? $"{over} over" : over < Seconds.Zero ? $"{Seconds.Zero - over} to spare" : "on time";
}
