using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>What is said before some work fits the time before it.</summary>
public sealed class ThereIsTimeToSayIt() : Rule(
    "time.say",
    "There is time for what you say",
    "The work starts while you are still talking, and people miss half of both.",
    Common,
    "Some talk on into the first reps: then say only what can be missed.")
{
    /// <inheritdoc/>
    public override string? Several => "things to say do not fit before the work";

    private const int LongestDemo = 300;
    private const int LongestLeadIn = 120;

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review)
    {
        for (var b = 0; b < review.Plan.Blocks.Length; b++)
        {
            var block = review.Plan.Blocks[b];
            if (block.Say is { } said && Before(review, b, null) is { } time && said.Seconds > time)
            {
                yield return Found(
                    Severity.Note, block.Id, $"What you say before {block.Name} takes {said.Seconds}, but there is only {time}.",
                        [.. OfBlock(block, b, said.Seconds - time)]);
            }
        }

        foreach (var at in review.Stations)
        {
            if (at.Station.Say is { } said && Before(review, at.B, at.S) is { } time && said.Seconds > time)
            {
                yield return Found(
                    Severity.Note, at.Id, $"What you say before {at.Name} takes {said.Seconds}, but there is only {time}.",
                    [.. Demo($"{at.Pointer}/demoSeconds", at.Station, said.Seconds - time)]);
            }
        }
    }

    private static IEnumerable<Repair> OfBlock(Block block, int index, Seconds missing) =>
        block.Shape is BlockShape.Circuit or BlockShape.Sets
            ? Demo($"/blocks/{index}/stations/0/demoSeconds", block.Stations[0], missing)
        : (block.LeadIn + missing).Value <= LongestLeadIn
            ? [new Repair($"{missing} more to lead in", Edit.Set($"/blocks/{index}/leadInSeconds", block.LeadIn + missing))]
            : [];

    private static IEnumerable<Repair> Demo(string pointer, Station station, Seconds missing) =>
        !station.Demo.Listed && (station.Demo.At(0) + missing).Value <= LongestDemo
            ? [new Repair($"A demo of {station.Demo.At(0) + missing} before it", Edit.Set(pointer, station.Demo.At(0) + missing))]
            : [];

    /// <summary>The time in a block before its first work, or before the first of a station; null where there is none.</summary>
    private static Seconds? Before(ClassReview review, int block, int? station)
    {
        var time = Seconds.Zero;
        foreach (var span in review.Timeline.Spans)
        {
            if (span.Block != block)
            {
                continue;
            }

            if (span.Kind != SpanKind.Work)
            {
                time += span.Length();
            }
            else if (station is null || span.Station == station)
            {
                return time;
            }
            else
            {
                time = Seconds.Zero;
            }
        }

        return null;
    }
}
