using System.Collections.Immutable;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading;

/// <summary>One stretch of the class as it is shown while leading.</summary>
/// <param name="Headline">What is going on now.</param>
/// <param name="Target">Of what is shown: one go of it.</param>
/// <param name="SideWords">Which side, for the class: "left foot in front".</param>
/// <param name="MirrorSide">Which side that is for an instructor who faces the class and mirrors it.</param>
/// <param name="Cards">What is shown, as indices into the script's cards.</param>
/// <param name="Next">What comes next, with its target.</param>
/// <param name="Gated">It begins with a tap only.</param>
/// <param name="Say">What is said in this time, before the work that follows.</param>
/// <param name="BlockId">The block's id in the class that is led.</param>
/// <param name="Reps">How many reps or pulses this go has, where they have a tempo.</param>
/// <param name="RepSeconds">How long each takes.</param>
public sealed record Scene(
    Seconds Start,
    Seconds End,
    SpanKind Kind,
    int Block,
    string BlockName,
    string Headline,
    string Target,
    string SideWords,
    string MirrorSide,
    string Round,
    ImmutableArray<int> Cards,
    string Next,
    bool Gated = false,
    Side? Side = null,
    string Say = "",
    PlaceId? BlockId = null,
    int? Reps = null,
    decimal? RepSeconds = null)
{
    /// <summary>What is shown, by its name; where it is under way, the headline.</summary>
    public string Title { get; init; } = "";

    /// <summary>What is shown is what comes next: nothing is worked now.</summary>
    public bool Ahead { get; init; }

    /// <summary>The hand that holds the weight, where one does: "weight in your right hand".</summary>
    public string Hand { get; init; } = "";

    /// <summary>The same in two words, to be read from afar: "weight right".</summary>
    public string HandBrief { get; init; } = "";

    /// <summary>In a drop set, how much: "42 kg".</summary>
    public string Load { get; init; } = "";

    /// <summary>Where two take turns: who works, and what the other does.</summary>
    public string Others { get; init; } = "";

    /// <summary>People are at all stations at once and move round: what is shown stands round the room.</summary>
    public bool TurnsRound { get; init; }

    /// <summary>The reps count down as they are counted aloud.</summary>
    public bool CountsDown { get; init; }
}
