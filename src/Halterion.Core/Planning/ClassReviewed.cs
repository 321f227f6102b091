using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Planning;

/// <summary>Somebody for whom a station has nothing, and what could be added for them; null where the library has nothing either.</summary>
public sealed record OpenGap(PersonId Person, PlaceId Station, JsonObject? Proposed);

/// <summary>Who does what, as a review gives it.</summary>
public sealed record Assigned(
    ImmutableArray<AssignedPerson> People,
    ImmutableArray<PersonChoice> Choices,
    int Total,
    bool Exact,
    ImmutableArray<OpenGap> Gaps,
    ImmutableArray<Shortage> Shortages)
{
    /// <summary>What each person does, as the contract gives it.</summary>
    public static Assigned Of(Assignment found, RoomOf room)
    {
        var places = Place.Of(room.Plan).ToDictionary(p => p.Station.Id);
        var people = room.People.ToDictionary(p => p.Id);
        return new Assigned(
            found.People, found.Choices, found.Total, found.Exact,
            [.. found.Gaps.Select(g =>
                new OpenGap(g.Person, g.Station,
                    GapProposals.For(people[g.Person], places[g.Station], room) is { } option ? PlanWriter.Of(option) : null))],
            found.Shortages);
    }
}

/// <summary>
/// A class with the people, the kit and the room it is held with: all that an evaluation says, and who does what with what.
/// </summary>
public sealed record ClassReviewed : Evaluation
{
    private ClassReviewed(Evaluation evaluated, Assignment found, RoomOf room)
        : base(evaluated)
    {
        Assignment = Assigned.Of(found, room);
        Kit = room.Kit is null ? [] : found.Kit;
        Groups = found.Groups;
    }

    /// <summary>Who does what; null where nobody is known.</summary>
    public Assigned Assignment { get; }

    /// <summary>The most that is asked of each kind of kit at once; none where no stock is known.</summary>
    public ImmutableArray<KitPeak> Kit { get; }

    /// <summary>Of rotations and own-pace blocks.</summary>
    public ImmutableArray<BlockGroups> Groups { get; }

    /// <param name="waived">What is waived for the occasion.</param>
    public static ClassReviewed Of(EvaluationResult evaluated, RoomOf room, CheckSettings settings, RoomSize? size, History? history,
        ImmutableArray<Waiver> waived)
    {
        var given = Assigning.Of(room);
        var review = new ClassReview(
            room.Plan, evaluated.Timeline!, settings, room.Heads > 0 ? new Occasion(room, given, size) : null, history);
        return new ClassReviewed(evaluated.Evaluation! with { Findings = Rules.Check(review, waived) }, given, room);
    }
}
