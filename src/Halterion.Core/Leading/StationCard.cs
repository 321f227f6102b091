using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Leading;

/// <summary>An option beside the main one.</summary>
/// <param name="Differs">What is otherwise in it; of another move its name first.</param>
public sealed record ShownOption(PlaceId Id, Tier Tier, string Differs);

/// <summary>What is needed to see of one station, in the part, on the side and in the round in which it is shown.</summary>
/// <param name="Watch">The usual fault to look for, and what is said of it.</param>
/// <param name="Id">The station's id in the class that is led; null for what is done in a rest.</param>
public sealed record StationCard(
    string Name,
    Family Family,
    string Target,
    ImmutableArray<string> Harder, string Main, ImmutableArray<string> Easier,
    string Watch,
    PlaceId? Id = null)
{
    /// <summary>One thing of form that is good for everybody.</summary>
    public string Cue { get; init; } = "";

    /// <summary>The option that is drawn.</summary>
    public PlaceId? Option { get; init; }

    /// <summary>The part of the dose that it is drawn in, from 1; null: as a whole.</summary>
    public int? Part { get; init; }

    /// <summary>The side that works in the drawing.</summary>
    public Side Side { get; init; }

    /// <summary>From where it is looked at; null: as the move is best seen.</summary>
    public Viewpoint? View { get; init; }

    /// <summary>The easier, the harder and the alternatives.</summary>
    public ImmutableArray<ShownOption> Options { get; init; } = [];
}
