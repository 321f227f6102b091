using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Body;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>What goes on in a stretch of the class.</summary>
public enum SpanKind
{
    /// <summary>From the start of a block to its first work.</summary>
    LeadIn,
    /// <summary>Work.</summary>
    Work,
    /// <summary>Changing sides, or places.</summary>
    Switch,
    /// <summary>Getting from station to station.</summary>
    Change,
    /// <summary>Rest, with recovery or without.</summary>
    Rest,
    /// <summary>What a start on the clock leaves.</summary>
    Wait,
    /// <summary>Words, or showing.</summary>
    Talk,
}

/// <summary>
/// A stretch of the class in which one thing goes on. Start and end are in seconds from the start of the class;
/// <paramref name="Shows"/> is the station that a walk-through shows; indices count from 0 and are null where plan-language.md ("What
/// evaluation returns") gives the span none.
/// </summary>
public sealed record Span(
    Seconds Start,
    Seconds End,
    SpanKind Kind,
    int Block,
    int? Round = null,
    int? Station = null,
    int? Part = null,
    Side? Side = null,
    int? Pass = null,
    int? Turn = null,
    int? Leg = null,
    PlaceId? Shows = null)
{
    /// <summary>The class waits for a tap before this span begins.</summary>
    [JsonIgnore]
    public bool Gated { get; init; }

    /// <summary>
    /// Reps, seconds, pulses or metres that this piece of work was to be; more than its length holds where the bell cuts it.
    /// </summary>
    [JsonIgnore]
    public int? Amount { get; init; }

    /// <summary>Where a change or a rest of the whole block stands; null for everything else.</summary>
    [JsonIgnore]
    public Gap? Gap { get; init; }

    /// <summary>A rest that belongs to a dose, such as plates off; not one between stations, sets or rounds.</summary>
    [JsonIgnore]
    public bool IsInsideDose => Kind == SpanKind.Rest && Gap is null;

    /// <summary>How long it is.</summary>
    public Seconds Length() => End - Start;

    /// <summary>People drink in it: in all of a talk with water; elsewhere in the pause that the block's shape has for it.</summary>
    /// <param name="block">The block that it belongs to.</param>
    public bool IsDrinkIn(Block block) => block.Water && (!block.Shape.HasStations || (Gap is { } gap && gap == block.Shape.DrinkGap));
}

/// <summary>A span of a station's own inside a window, in seconds from the bell that opens it.</summary>
public sealed record StaySpan(Seconds Start, Seconds End, SpanKind Kind, int? Part = null, Side? Side = null, int? Turn = null);

/// <summary>What a group does at a station of a rotation between two bells.</summary>
/// <param name="Needed">What the dose takes; more than the window where the bell cuts it.</param>
public sealed record Stay(
    int Block, int Round, int Station, Seconds Window, Seconds Needed, Seconds SpareSeconds, ImmutableArray<StaySpan> Spans);

/// <summary>A dose that the next start cuts off (<c>startEverySeconds</c>).</summary>
public sealed record CutDose(int Block, int Round, int Station, Seconds Window, Seconds Needed);

/// <summary>What own pace has for a goal: what the rounds take one person, without any gap, and the reps in them.</summary>
/// <param name="Block">Its place among the blocks, from 0.</param>
public sealed record Goal(int Block, int Rounds, Seconds Seconds, long LeftReps, long RightReps);

/// <summary>A class to the second.</summary>
public sealed record Timeline(ImmutableArray<Span> Spans, ImmutableArray<Stay> Stays, ImmutableArray<CutDose> Cuts)
{
    /// <summary>
    /// When the sides change inside a window of a rotation, from its bell; null if no station changes sides, or if
    /// they do so at different moments, which no single call can serve.
    /// </summary>
    public Seconds? SideChange(int block, int round)
    {
        var moments = Stays.Where(s => s.Block == block && s.Round == round)
            .SelectMany(s => s.Spans.Zip(s.Spans.Skip(1)))
            .Where(
                pair =>
                    pair is
                {
                    First.Side: Side.Left,
                    Second.Side: Side.Right
                } or { First.Side: Side.Right, Second.Side: Side.Left } or { Second.Kind: SpanKind.Switch })
            .Select(pair => pair.Second.Start)
            .Distinct().ToArray();
        return moments is [var only] ? only : null;
    }

    /// <summary>How long the class is.</summary>
    public Seconds Length => Spans.IsEmpty ? Seconds.Zero : Spans[^1].End;
}
