using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>Something that is said while leading.</summary>
/// <param name="At">Seconds from the start of the planned class, in thousandths.</param>
/// <param name="Text">As it is said.</param>
/// <param name="Seconds">How long it takes to say.</param>
/// <param name="Priority">Of two that would overlap the higher is said.</param>
/// <param name="Scene">What it is about: it is not said where that scene is left out.</param>
/// <param name="Shift">How many scenes, from the first, move it when seconds are added to them.</param>
public sealed record Call(decimal At, CallKind Kind, string Text, decimal Seconds, int Priority, int Scene, int Shift)
{
    /// <summary>Recorded words that say the same, in order: of <see cref="Clip.All"/>; empty: none does.</summary>
    public ImmutableArray<string> Clips { get; init; } = [];

    /// <summary>[M] leading.md: 0.4 s a word.</summary>
    public const decimal SecondsAWord = 0.4m;

    /// <summary>When it has been said, in seconds from the start of the planned class.</summary>
    [JsonIgnore]
    public decimal Ends => At + Seconds;

    /// <summary>How long a text takes to say, in seconds.</summary>
    public static decimal SecondsFor(string text) => SecondsAWord * text.Split(' ', StringSplitOptions.RemoveEmptyEntries).Length;

    /// <summary>All calls of a class, in order. None overlaps another: what has no room is left out, the least important first.</summary>
    /// <param name="schools">What is not said, and how weights are said.</param>
    public static ImmutableArray<Call> ListFor(ClassPlan plan, Timeline timeline, Preferences schools) =>
        CallWriter.Write(plan, timeline, schools);

    /// <summary>Where a bell stands, in seconds: nothing begins to be said just before it.</summary>
    public static ImmutableArray<decimal> BellsOf(Timeline timeline) => [.. CallDiary.BellsOf(timeline)];
}
