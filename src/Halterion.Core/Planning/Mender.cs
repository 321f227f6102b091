using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Words;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Planning;

/// <summary>A repair that was tried and keeps its word.</summary>
/// <param name="Finding">The key of what it clears.</param>
/// <param name="Repair">Which of the finding's repairs, from 0.</param>
/// <param name="Words">What it changes, line by line.</param>
/// <param name="Verdict">How the class then stands to its slot.</param>
public sealed record RepairOffer(string Finding, int Repair, string Title, ImmutableArray<string> Words, string Verdict);

/// <summary>What was found to put right, and how much was not tried for want of time.</summary>
/// <param name="Untried">0: all were tried.</param>
public sealed record RepairOffers(ImmutableArray<RepairOffer> Offers, int Untried);

/// <summary>A class after a repair.</summary>
public sealed record Mended(JsonObject Class, Evaluation Evaluation, ImmutableArray<string> Words);

/// <summary>
/// Tries repairs before they are offered: one clears its finding and causes none that is worse; one that makes the class longer
/// than its slot takes as much back by Fit in the same step. What cannot do that is not offered.
/// </summary>
public sealed class Mender
{
    /// <summary>Ways tried for one repair: every other place in a block.</summary>
    private const int MostWays = 40;

    private readonly Evaluator evaluator;
    private readonly JsonObject file;
    private readonly EvaluationResult before;

    private Mender(Evaluator evaluator, JsonObject file, EvaluationResult before) =>
        (this.evaluator, this.file, this.before) = (evaluator, file, before);

    /// <summary>Null for a class with faults. Places are named first, so that what moves keeps its name.</summary>
    public static Mender? Of(JsonElement classFile, Evaluator evaluator)
    {
        var named = PlanIds.Written(classFile);
        var before = evaluator.Evaluate(named.GetRawText());
        return before.Evaluation is null ? null : new Mender(evaluator, JsonNode.Parse(named.GetRawText())!.AsObject(), before);
    }

    /// <summary>The same of a class that was read already.</summary>
    public static Mender? Of(JsonElement classFile, EvaluationResult read, Evaluator evaluator)
    {
        var named = PlanIds.Written(classFile);
        return !JsonElement.DeepEquals(named, classFile) ? Of(classFile, evaluator)
            : read.Evaluation is null ? null
            : new Mender(evaluator, JsonNode.Parse(named.GetRawText())!.AsObject(), read);
    }

    private Evaluation Before => before.Evaluation!;

    /// <summary>
    /// Every repair that keeps its word, the gravest findings first. One after the other: whoever goes on typing needs the machine more.
    /// </summary>
    /// <param name="late">Says when no more is to be tried.</param>
    /// <exception cref="OperationCanceledException">Nobody waits for them any more.</exception>
    public RepairOffers Offers(Func<bool> late, CancellationToken stop = default)
    {
        var offers = ImmutableArray.CreateBuilder<RepairOffer>();
        var untried = 0;
        foreach (var finding in Before.Findings.Where(f => f.Waived is null).OrderBy(f => f.Severity))
        {
            for (var i = 0; i < finding.Repairs.Length; i++)
            {
                stop.ThrowIfCancellationRequested();
                if (late())
                {
                    untried++;
                }
                else if (Try(finding, finding.Repairs[i], late) is { } mended)
                {
                    offers.Add(new RepairOffer(finding.Key, i, finding.Repairs[i].Title, mended.Words, mended.Evaluation.Verdict));
                }
            }
        }

        return new RepairOffers(offers.ToImmutable(), untried);
    }

    /// <summary>The class after a repair; null if it has no such finding, or the repair does not keep its word.</summary>
    public Mended? Mend(string finding, int repair) =>
        Before.Findings.FirstOrDefault(f => f.Key == finding) is { } found && repair >= 0 && repair < found.Repairs.Length
            ? Try(found, found.Repairs[repair], () => false) : null;

    private Mended? Try(Finding finding, Repair repair, Func<bool> late)
    {
        foreach (var way in repair.Ways().Take(MostWays).TakeWhile((_, i) => i == 0 || !late()))
        {
            var root = file.DeepClone().AsObject();
            way(root);
            var named = Named(root);
            if (Look(named) is not { Evaluation: { } after } result || !Clears(finding, after))
            {
                continue;
            }

            var end = Math.Max(before.Plan!.Slot.Value, before.Timeline!.Length.Value);
            if (result.Timeline!.Length.Value <= end)
            {
                return Done(named, after);
            }

            if (TakeBack(named, result, finding, new Seconds(end)) is { } shorter)
            {
                return shorter;
            }
        }

        return null;
    }

    private Mended? TakeBack(JsonObject root, EvaluationResult longer, Finding finding, Seconds end)
    {
        foreach (var fit in Fit.Of(longer.Plan!, new FitTerms { Changes = ChangeTimes.Of(evaluator.Preferences), End = end }).Ways)
        {
            var shorter = root.DeepClone().AsObject();
            foreach (var edit in fit.Edits)
            {
                edit.ApplyTo(shorter);
            }

            if (Look(shorter) is { Evaluation: { } after, Timeline: { } timeline } && timeline.Length <= end && Clears(finding, after))
            {
                return Done(shorter, after);
            }
        }

        return null;
    }

    /// <summary>What is only moved to another place is not cleared.</summary>
    private bool Clears(Finding finding, Evaluation after) =>
        after.Findings.Where(f => f.Waived is null).All(f => f.Key != finding.Key
            && (f.Severity >= finding.Severity && f.Code != finding.Code
                || Before.Findings.Any(b => b.Key == f.Key && b.Waived is null && b.Severity <= f.Severity)));

    private Mended Done(JsonObject root, Evaluation after) => new(root, after, PlanChanges.Between(file, root, evaluator.Moves));

    private EvaluationResult Look(JsonObject root) => evaluator.Look(Encoding.UTF8.GetBytes(root.ToJsonString()));

    private static JsonObject Named(JsonObject root) =>
        JsonNode.Parse(PlanIds.Written(JsonElement.Parse(Encoding.UTF8.GetBytes(root.ToJsonString()))).GetRawText())!.AsObject();
}
