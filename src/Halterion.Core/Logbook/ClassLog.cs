using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Logbook;

/// <summary>What one person did at one station: the option used; null: left out. Both by their ids in the class that was held.</summary>
public sealed record StationUse(PlaceId Station, PlaceId? Option = null)
{
    /// <summary>Set by set; none: not noted.</summary>
    public ImmutableArray<DoneSet> Sets { get; init; } = [];

    /// <summary>The option taken up on the way; null: none.</summary>
    public PlaceId? ChangedTo { get; init; }

    /// <summary>Where it hurt; null: it did not, or nobody said.</summary>
    public Pain? Pain { get; init; }

    /// <summary>0–10, Borg CR10, where it differs by station; null: as the row's.</summary>
    public decimal? Effort { get; init; }

    /// <summary>How the form was; null: not said.</summary>
    public bool? Clean { get; init; }

    /// <summary>In the instructor's words.</summary>
    public string Note { get; init; } = "";

    /// <summary>The option that they ended with.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public PlaceId? Last => Option is null ? null : ChangedTo ?? Option;
}

/// <summary>How somebody felt the day after.</summary>
public enum Feeling
{
    /// <summary>As if nothing had been.</summary>
    Fresh,
    /// <summary>As always after it.</summary>
    Usual,
    /// <summary>Sore.</summary>
    Sore,
}

/// <summary>The day after a class.</summary>
/// <param name="Where">What was sore.</param>
public sealed record DayAfter(Feeling How, string Where = "");

/// <summary>One person's row of a log.</summary>
public sealed record LogRow(PersonId PersonId, bool Came, ImmutableArray<StationUse> Uses, string Note)
{
    /// <summary>Of the whole class, 0–10, Borg CR10 (Borg, Med Sci Sports Exerc 14(5), 1982; from memory); null: not given.</summary>
    public decimal? Effort { get; init; }

    /// <summary>Where it hurt, at no station in particular.</summary>
    public Pain? Pain { get; init; }

    /// <summary>How they felt the day after; null: not told yet.</summary>
    public DayAfter? Felt { get; init; }

    /// <summary>What they asked for.</summary>
    public string Wishes { get; init; } = "";
}

/// <summary>What happened in a class.</summary>
public sealed record ClassLog(ImmutableArray<LogRow> Rows, string Note)
{
    /// <summary>When it began, in milliseconds since 1970 UTC; null: not known.</summary>
    public long? StartedAt { get; init; }

    /// <summary>When it ended.</summary>
    public long? EndedAt { get; init; }

    /// <summary>How long it took; null: not known, as planned then.</summary>
    public int? Minutes { get; init; }

    /// <summary>The station that they found hardest.</summary>
    public PlaceId? Hardest { get; init; }

    /// <summary>The station that they liked least.</summary>
    public PlaceId? LeastLiked { get; init; }

    /// <summary>What the next class begins with: stations left out, promises, questions.</summary>
    public string CarriedOver { get; init; } = "";

    /// <summary>The mean effort of those who came and told it; null: nobody did.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public decimal? Effort => Rows.Where(r => r.Came).Select(r => r.Effort).OfType<decimal>().ToArray() is { Length: > 0 } told
        ? Math.Round(told.Average(), 2) : null;
}
