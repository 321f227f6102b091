using System.Collections.Immutable;
using System.Net.ServerSentEvents;
using Halterion.Core;
using Halterion.Core.Leading;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Sheets;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Halterion.Web.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A class in progress.</summary>
/// <param name="StartedAt">Milliseconds since 1970 UTC.</param>
public sealed record ClassInProgress(Guid Session, string Title, long StartedAt);

/// <summary>What a screen shows: the class that it was paired from, else the one that was started last, else the next one.</summary>
/// <param name="InProgress">All that are in progress, where there are two or more and the screen was paired from none: it asks.</param>
public sealed record NowOn(Guid? Session, string Title, ImmutableArray<ClassInProgress> InProgress);

/// <summary>The time of the class, in milliseconds since 1970.</summary>
public sealed record TimeNow(long Now);

/// <summary>A class for everybody in the room to see.</summary>
/// <param name="Lead">Null: nobody has opened it yet.</param>
/// <param name="Now">The time of the class, in milliseconds since 1970.</param>
/// <param name="EndsAt">When the booked time is over; null: it has no date.</param>
/// <param name="StartsAt">When it begins; null: it has no date.</param>
public sealed record WallView(Guid? Lead, LeadScript Script, ImmutableArray<LeadCommand> Commands, ImmutableArray<WallFloor> Floors,
    long Now, long? EndsAt, long? StartsAt, ClockFormat Clock);

/// <summary>The screen for the room.</summary>
internal static class WallEndpoints
{
    public static void MapWall(this IEndpointRouteBuilder routes)
    {
        var wall = routes.MapGroup("/api/wall").WithTags("Wall");
        wall.MapGet("/", On).WithName("nowOn");
        wall.MapGet("/time", (SteadyClock clock) => TypedResults.Ok(new TimeNow(clock.Now))).WithName("timeNow");
        wall.MapGet("/digits", () => TypedResults.Ok(Legibility.Heights)).WithName("digitHeights");
        wall.MapGet("/{id:guid}", Show).ProducesProblem(404).ProducesProblem(422).WithName("wall");
        wall.MapGet("/{id:guid}/figures", Figures).ProducesProblem(404).ProducesProblem(422).WithName("wallFigures");
        wall.MapGet("/{id:guid}/film", OneFilm).ProducesProblem(404).ProducesProblem(422).WithName("wallFilm");
        wall.MapGet("/{id:guid}/events", Follow).ProducesProblem(404).WithName("followWall");
    }

    private static Ok<NowOn> On(Sessions sessions, Leads leads, Devices devices, SteadyClock clock, HttpContext http)
    {
        var (lines, _) = sessions.List(held: false, 0, Looked);
        var own = Roles.DeviceOf(http.User) is { } device ? devices.SessionOf(device) : null;
        if (own is not null && lines.FirstOrDefault(l => l.Id == own) is { } paired)
        {
            return TypedResults.Ok(new NowOn(paired.Id, paired.Title, []));
        }

        ImmutableArray<ClassInProgress> running =
        [
            .. lines.Where(l => l is { UnderWay: true, StartedAt: not null } && !IsLeft(l.Id, sessions, leads, clock))
                .OrderByDescending(l => l.StartedAt).Select(l => new ClassInProgress(l.Id, l.Title, l.StartedAt!.Value)),
        ];
        return TypedResults.Ok(
            running is [var last, ..] ? new NowOn(last.Session, last.Title, running.Length > 1 ? running : [])
            : lines.FirstOrDefault(l => !l.UnderWay) is { } next ? new NowOn(next.Id, next.Title, [])
            : new NowOn(null, "", []));
    }

    /// <summary>More than can be in progress or come next at once.</summary>
    private const int Looked = 50;

    /// <summary>It stands paused long past its booked end: nobody leads it any more.</summary>
    private static bool IsLeft(Guid id, Sessions sessions, Leads leads, SteadyClock clock) =>
        sessions.Find(id) is { } session && leads.OpenOf(id) is { } lead && ScriptFile.Read(lead.Format, lead.Script) is { } script
        && LeadRecord.IsLeft(lead.Commands, script.Times, clock.Now, LeadEndpoints.EndsAt(session.Booking, script));

    private static Results<Ok<WallView>, ProblemHttpResult> Show(
        Guid id, Sessions sessions, Classes classes, Leads leads, Rooms rooms, SessionRooms halls, Evaluator evaluator, SteadyClock clock)
    {
        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        var lead = leads.OpenOf(id);
        var (plan, timeline, problem) = LeadEndpoints.Held(session, lead, classes, evaluator);
        if (plan is null || timeline is null)
        {
            return problem!;
        }

        var script = (lead is null ? null : ScriptFile.Read(lead.Format, lead.Script))
            ?? LeadScript.Of(plan, timeline, evaluator.Preferences);
        var chosen = rooms.Of(id);
        var room = halls.Of(plan, session, chosen);
        return TypedResults.Ok(new WallView(
            lead?.Id,
            ForEveryone.Script(script, plan),
            ForEveryone.Commands(lead?.Commands ?? []),
            [
                .. plan.Blocks.Where(b => b is { Shape: BlockShape.Rotation, Stations.IsEmpty: false })
                    .Select(b => FloorOf(halls.FloorOf(b, room, chosen)))],
            LeadEndpoints.Now(clock, lead),
            LeadEndpoints.EndsAt(session.Booking, script),
            LeadEndpoints.StartsAt(session.Booking),
            evaluator.Preferences.Clock));
    }

    private static WallFloor FloorOf(FloorView floor) => new(
        floor.Block,
        (double)floor.Floor.Hall.WidthM,
        (double)floor.Floor.Hall.LengthM,
        [.. floor.Floor.Stations.Select(s => new WallSpot(s.Station, (double)s.X, (double)s.Y))]);

    private static Results<Ok<ImmutableArray<OptionPicture>>,
        ProblemHttpResult> Figures(Guid id, Sessions sessions, Classes classes, Leads leads, Evaluator evaluator) =>
        LeadEndpoints.Drawn(id, sessions, classes, leads, evaluator, ClassFigures.UnderWay);

    /// <summary>What is on, in motion.</summary>
    /// <param name="option">Of a station of the class, by its id.</param>
    /// <param name="part">Its place in the dose, from 1; left out: the option as a whole.</param>
    /// <param name="side">left, right, alternate (one rep on each) or both.</param>
    private static Results<Ok<StationFilm>, ProblemHttpResult> OneFilm(
        Guid id, string option, int? part, string? side, string? view, Sessions sessions, Classes classes, Leads leads, Evaluator evaluator)
    {
        var (works, bad) = Queries.Word<Side>("side", side);
        var (from, unseen) = Queries.Word<Viewpoint>("view", view);
        if ((bad ?? unseen) is { } problem)
        {
            return problem;
        }

        var drawn = LeadEndpoints.Drawn(
            id, sessions, classes, leads, evaluator, plan => ForEveryone.FilmOf(plan, new PlaceId(option), part, works ?? Side.Both, from));
        return drawn.Result switch
        {
            Ok<StationFilm?> { Value: { } film } => TypedResults.Ok(film),
            ProblemHttpResult other => other,
            _ => Problems.NotFound("film of that option and part"),
        };
    }

    private static Results<ServerSentEventsResult<LeadNews>, ProblemHttpResult> Follow(
        Guid id, Sessions sessions, SteadyClock clock, Followers followers, Pairing pairing, IHostApplicationLifetime life,
            HttpContext http) =>
        LeadEndpoints.Stream(id, sessions, clock, followers, pairing, life, http, ForEveryone.Commands);
}
