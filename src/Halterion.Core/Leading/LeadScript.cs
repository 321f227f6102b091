using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Leading.Calling;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading;

/// <summary>All that a screen needs to lead a class without asking again: the timeline in words, and the cues.</summary>
/// <param name="Focus">The cue of the day.</param>
/// <param name="Calls">What is said, in order.</param>
public sealed record LeadScript(
    string Title,
    Seconds Length,
    Seconds Slot,
    ImmutableArray<Scene> Scenes, ImmutableArray<StationCard> Cards, ImmutableArray<Cue> Cues, ImmutableArray<Call> Calls,
    string Focus = "")
{
    /// <summary>How what is left of the class is said, the shortest first: a class that was changed is not as long as planned.</summary>
    public ImmutableArray<TimeLeft> Left { get; init; } = [];

    /// <summary>How the cues sound.</summary>
    public ImmutableArray<Bell> Bells => Bell.Table;

    /// <summary>What the fold over the taps needs to know of the scenes.</summary>
    [JsonIgnore]
    public ImmutableArray<SceneTime> Times => [.. Scenes.Select(s => new SceneTime(s.End, s.Gated))];

    /// <summary>The same script with nothing missing: one that an older version wrote lacks what came later.</summary>
    public LeadScript Whole() => this with
    {
        Title = Title ?? "",
        Focus = Focus ?? "",
        Scenes = Scenes.IsDefault ? [] : [.. Scenes.Select(s => s with
        {
            BlockName = s.BlockName ?? "",
            Headline = s.Headline ?? "",
            Target = s.Target ?? "",
            SideWords = s.SideWords ?? "",
            MirrorSide = s.MirrorSide ?? "",
            Round = s.Round ?? "",
            Next = s.Next ?? "",
            Say = s.Say ?? "",
            Title = string.IsNullOrEmpty(s.Title) ? s.Headline ?? "" : s.Title,
            Hand = s.Hand ?? "",
            HandBrief = s.HandBrief ?? "",
            Load = s.Load ?? "",
            Others = s.Others ?? "",
            Cards = s.Cards.IsDefault ? [] : s.Cards,
        })],
        Cards = Cards.IsDefault ? [] : [.. Cards.Select(c => c with
        {
            Name = c.Name ?? "",
            Target = c.Target ?? "",
            Main = c.Main ?? "",
            Watch = c.Watch ?? "",
            Cue = c.Cue ?? "",
            Options = c.Options.IsDefault ? [] : c.Options,
            Harder = c.Harder.IsDefault ? [] : c.Harder,
            Easier = c.Easier.IsDefault ? [] : c.Easier,
        })],
        Cues = Cues.IsDefault ? [] : Cues,
        Calls = Calls.IsDefault ? [] : Calls,
    };

    /// <summary>The script of a class, in the order of its spans.</summary>
    public static LeadScript Of(ClassPlan plan, Timeline timeline, Preferences preferences)
    {
        var writer = new SceneWriter(plan, timeline, preferences);
        var scenes = timeline.Spans.Select((_, i) => writer.Scene(i)).ToImmutableArray();
        return new LeadScript(
            plan.Title, timeline.Length, plan.Slot, scenes, writer.Cards, Cue.ListFor(timeline),
            Call.ListFor(plan, timeline, preferences), plan.Focus ?? "")
        { Left = TimeLeft.UpTo(timeline.Length) };
    }
}
