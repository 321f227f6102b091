using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Words;

namespace Halterion.Core.Leading.Calling;

/// <summary>Something that would be said, and when.</summary>
/// <param name="At">The time from the start of the example, such as "0:35".</param>
public sealed record HeardCall(string At, string Text);

/// <summary>A short example as it would be heard.</summary>
/// <param name="About">What is done in it.</param>
public sealed record HeardExample(string About, ImmutableArray<HeardCall> Calls);

/// <summary>What an instructor's settings would say in a short example: one station on each side and one after it, at the bell.</summary>
public static class CallPreview
{
    private const string Example = """
        {"format":"halterion-class","version":1,"title":"Example","slotMinutes":30,"blocks":[
          {"name":"Example","phase":"main","rounds":1,"betweenStations":15,"stations":[
            {"sides":"each","dose":[{"kind":"reps","amount":8}],"options":[{"tier":"main","move":"split-squat"},
              {"tier":"easier","move":"split-squat","depth":"half"}]},
            {"dose":[{"kind":"time","amount":40}],"options":[{"tier":"main","move":"goblet-squat"}]}]}]}
        """;

    /// <summary>All that would be said, in order.</summary>
    /// <param name="preferences">The settings that are to be heard.</param>
    public static HeardExample Of(MoveLibrary moves, Preferences preferences)
    {
        var whole = JsonNode.Parse(Example)!.AsObject();
        foreach (var (field, value) in new Starters(moves, preferences).ClassFields())
        {
            whole[field] = value?.DeepClone();
        }

        var read = new Evaluator(moves, preferences).Evaluate(whole.ToJsonString());
        return read is { Plan: { } plan, Timeline: { } timeline }
            ? new HeardExample(
                string.Join("; ", plan.Blocks.SelectMany(b => b.Stations.Select(s => $"{s.Name}, {PlanWords.Whole(s, b)}"))),
                [.. Call.ListFor(plan, timeline, preferences).Select(c => new HeardCall(Clock(c.At), c.Text))])
            : throw new InvalidOperationException($"The example is no class: {string.Join("; ", read.Faults)}");
    }

    private static string Clock(decimal at) => $"{(int)at / 60}:{(int)at % 60:00}";
}
