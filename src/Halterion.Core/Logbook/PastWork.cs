using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.People;
using Halterion.Core.Plans;

namespace Halterion.Core.Logbook;

/// <summary>How much is asked of somebody at a station: reps, or seconds.</summary>
public sealed record Target(int? Reps = null, int? Seconds = null)
{
    /// <summary>The number alone.</summary>
    [JsonIgnore]
    public int Amount => Reps ?? Seconds ?? 0;

    /// <summary>It counts seconds.</summary>
    [JsonIgnore]
    public bool IsTime => Seconds is not null;

    /// <summary>So many of the same.</summary>
    public Target With(int amount) => IsTime ? new Target(Seconds: amount) : new Target(Reps: amount);

    /// <summary>"12", "40 s".</summary>
    [JsonIgnore]
    public string Words => IsTime ? $"{Amount} s" : $"{Amount}";
}

/// <summary>One set as it was done.</summary>
/// <param name="Reps">Or <paramref name="Seconds"/>.</param>
/// <param name="Kg">Of all that is held; null: without, or not noted.</param>
/// <param name="Side">Null: of both together.</param>
public sealed record DoneSet(int? Reps = null, int? Seconds = null, decimal? Kg = null, BodySide? Side = null)
{
    /// <summary>The number alone.</summary>
    [JsonIgnore]
    public int Amount => Reps ?? Seconds ?? 0;
}

/// <summary>Pain that was told of.</summary>
/// <param name="Where">In the words of whoever told it.</param>
public sealed record Pain(string Where = "", BodySide? Side = null);

/// <summary>What one person did of one move in one class.</summary>
/// <param name="Effort">0–10, Borg CR10; null: not given.</param>
/// <param name="Clean">Its form; null: not said.</param>
public sealed record PastWork(
    DateOnly Date,
    Option Option,
    Target Target,
    ImmutableArray<DoneSet> Sets,
    decimal? Effort = null,
    Pain? Pain = null,
    bool? Clean = null)
{
    /// <summary>What was done: of its last set; where sides have their own, of the weaker side.</summary>
    public int Done => Sets[^1].Side is null || Sides is not { } sides ? Sets[^1].Amount : Math.Min(sides.Left, sides.Right);

    /// <summary>The last set of each side; null where they were not counted apart.</summary>
    public (int Left, int Right)? Sides =>
        Sets.LastOrDefault(s => s.Side == BodySide.Left) is { } left && Sets.LastOrDefault(s => s.Side == BodySide.Right) is { } right
            ? (left.Amount, right.Amount)
            : null;

    /// <summary>Each one's kilograms: what was held in the last set, else what the option says; null: without, or not known.</summary>
    public decimal? Kg => Sets[^1].Kg is { } held ? held / (Option.Manner.Load?.Count ?? 1) : Option.Manner.Load?.Kg?.Value;
}
