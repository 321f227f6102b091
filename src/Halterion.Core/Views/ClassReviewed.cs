using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

namespace Halterion.Core.Views;

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
    public static Assigned Of(Assignment found, RoomOf room)
    {
        var places = Place.Of(room.Plan).ToDictionary(p => p.Station.Id);
        var people = room.People.ToDictionary(p => p.Id);
        return new Assigned(
            found.People, found.Choices, found.Total, found.Exact,
            [.. found.Gaps.Select(g => new OpenGap(g.Person, g.Station, GapProposals.For(people[g.Person], places[g.Station], room) is { } option ? PlanWriter.Of(option) : null))],
            found.Shortages);
    }
}

/// <summary>A class with the people, the kit and the room it is held with: all that an evaluation says, and who does what with what.</summary>
public sealed record ClassReviewed(
    Totals Totals,
    ImmutableArray<Span> Spans,
    ImmutableArray<Stay> Stays,
    ImmutableArray<Goal> Goals,
    ImmutableArray<Finding> Findings,
    string Verdict,
    SlotFit Fits,
    string Announcement,
    string TitleNote,
    ImmutableArray<BlockOutline> Outline,
    ImmutableArray<string> SpanWords,
    Breakdown Breakdown,
    Assigned Assignment,
    ImmutableArray<KitPeak> Kit,
    ImmutableArray<BlockGroups> Groups)
{
    public static ClassReviewed Of(Evaluation evaluated, RoomOf room)
    {
        var found = Assigning.Of(room);
        return new ClassReviewed(
            evaluated.Totals, evaluated.Spans, evaluated.Stays, evaluated.Goals, evaluated.Findings, evaluated.Verdict, evaluated.Fits, evaluated.Announcement,
            evaluated.TitleNote, evaluated.Outline, evaluated.SpanWords, evaluated.Breakdown, Assigned.Of(found, room), room.Kit is null ? [] : found.Kit, found.Groups);
    }
}
