using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Serialization;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>What a span is called, its target and its side.</summary>
public sealed record Announced(string Headline, string Target, string Side);

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
    /// <param name="words">What the script says of each span.</param>
    /// <param name="schools">What is not said, and how weights are said.</param>
    public static ImmutableArray<Call> ListFor(ClassPlan plan, Timeline timeline, ImmutableArray<Announced> words, Preferences schools) =>
        CallDiary.Place(new CallWriter(plan, timeline, words, schools).Wishes().Where(w => !schools.Silent.Contains(w.Kind)));

    /// <summary>A number as it is called; ten always says of what.</summary>
    internal static string Number(int n) => n == 10 ? "10 reps" : n.ToString(CultureInfo.InvariantCulture);
}
