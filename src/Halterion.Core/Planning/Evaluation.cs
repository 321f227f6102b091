using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Planning;

/// <summary>What a class adds up to, to the second, and what there is to say about it.</summary>
/// <param name="Verdict">Total against the slot in words: "70 s over", "2 min to spare", "on time".</param>
/// <param name="Fits">Whether that is well: a class that leaves more than a tenth of its slot empty is not done yet.</param>
/// <param name="Announcement">The class in the sentence with which it is announced; empty while it has no main part.</param>
/// <param name="TitleNote">What the title promises in minutes and the clock does not keep; else empty.</param>
/// <param name="Outline">The blocks as a screen lists them.</param>
/// <param name="SpanWords">What each span is, with its arithmetic.</param>
public record Evaluation(
    Totals Totals,
    ImmutableArray<Span> Spans,
    ImmutableArray<Stay> Stays,
    ImmutableArray<Goal> Goals,
    ImmutableArray<Finding> Findings,
    string Verdict,
    SlotFit Fits,
    string Announcement,
    string TitleNote,
    ImmutableArray<BlockOutline> Outline,
    ImmutableArray<string> SpanWords,
    Breakdown Breakdown);

/// <summary>How a class stands to its slot.</summary>
public enum SlotFit
{
    /// <summary>More than a tenth of the slot is over or empty.</summary>
    FarOver,
    /// <summary>It ends late.</summary>
    Over,
    /// <summary>It ends in time.</summary>
    Fits,
    /// <summary>Much of the booked time is not used.</summary>
    FarShort,
}

/// <summary>An evaluation, or the faults that kept a class from being evaluated.</summary>
public sealed record EvaluationResult(Evaluation? Evaluation, ClassPlan? Plan, Timeline? Timeline, ImmutableArray<PlanFault> Faults);

/// <summary>Reads, compiles and checks classes with a library and an instructor's preferences.</summary>
public sealed class Evaluator(MoveLibrary moves, Preferences preferences)
{
    private const int Remembered = 64;

    /// <summary>Results by the hash of their text; they follow from it alone.</summary>
    private readonly ConcurrentDictionary<string, EvaluationResult> lately = new();

    /// <summary>The library that classes are read with.</summary>
    public MoveLibrary Moves => moves;

    /// <summary>How the instructor teaches.</summary>
    public Preferences Preferences => preferences;

    /// <summary>Which rules hold, with which bounds.</summary>
    public CheckSettings Settings { get; } = CheckSettings.Of(preferences);

    /// <summary>
    /// Reads, compiles and checks a class file. One that was asked for lately, to the byte, is remembered: every screen of a
    /// class asks for the same.
    /// </summary>
    public EvaluationResult Evaluate(ReadOnlyMemory<byte> utf8)
    {
        var key = Convert.ToHexString(SHA256.HashData(utf8.Span));
        if (lately.TryGetValue(key, out var known))
        {
            return known;
        }

        var result = Look(utf8);
        if (lately.Count >= Remembered)
        {
            lately.Clear();
        }

        lately[key] = result;
        return result;
    }

    /// <summary>Reads a class, puts it on the clock and says what it adds up to; with faults, those alone.</summary>
    public EvaluationResult Evaluate(string text) => Evaluate(Encoding.UTF8.GetBytes(text));

    /// <summary>The same for a class that nobody will ask for again.</summary>
    public EvaluationResult Look(ReadOnlyMemory<byte> utf8)
    {
        var reading = ClassReader.Read(utf8, moves);
        return reading.IsValid ? Evaluate(reading.Plan) : new EvaluationResult(null, null, null, reading.Faults);
    }

    /// <summary>Compiles and checks a class; the only fault left to find is that it passes the bounds of the language.</summary>
    public EvaluationResult Evaluate(ClassPlan plan)
    {
        var (timeline, fault) = Compiler.Compile(plan);
        if (timeline is null)
        {
            return new EvaluationResult(null, plan, null, [fault!]);
        }

        var totals = Totals.Of(plan, timeline);
        var findings = Rules.Check(new ClassReview(plan, timeline, Settings));
        var evaluation = new Evaluation(
            totals,
            timeline.Spans,
            timeline.Stays,
            Goals.Of(plan),
            findings,
            Verdict(totals.OverSeconds),
            FitOf(totals.OverSeconds, new Seconds(60 * plan.SlotMinutes)),
            Words.Announcement.Of(plan, timeline),
            Words.Announcement.TitleAgainstClock(plan, timeline),
            Outlines.Of(plan, timeline, preferences),
            SpanWords.Of(plan, timeline),
            Breakdown.Of(plan, timeline));
        return new EvaluationResult(evaluation, plan, timeline, []);
    }

    /// <summary>A length against its slot in words: "70 s over", "2 min to spare", "on time".</summary>
    /// <param name="over">Past the slot; negative: to spare.</param>
    /// <summary>A tenth of the slot is what a class can be brought to it by. [M]</summary>
    private static SlotFit FitOf(Seconds over, Seconds slot) =>
        over.Value * 10 > slot.Value
            ? SlotFit.FarOver
            : over > Seconds.Zero ? SlotFit.Over
            : -over.Value * 10 > slot.Value ? SlotFit.FarShort
            : SlotFit.Fits;

    /// <summary>Whether a length fits the booked time, in words.</summary>
    public static string Verdict(Seconds over) =>
        over > Seconds.Zero ? $"{over.Apart()} over" : over < Seconds.Zero ? $"{(Seconds.Zero - over).Apart()} to spare" : "on time";
}
