using System.Collections.Immutable;
using Halterion.Core;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Live;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>Somebody on the desk's list of a class.</summary>
/// <param name="Key">By which they are answered for.</param>
/// <param name="Person">Who of the roster that is; null: not known, or nobody.</param>
/// <param name="Asked">It is not known who that is, and nobody has said yet.</param>
public sealed record DeskGuestView(string Key, string Name, DeskStanding Standing, bool Asked, PersonId? Person = null);

/// <summary>A class on the desk's list.</summary>
/// <param name="Starts">Milliseconds since 1970.</param>
/// <param name="Session">Which one it is here; null: none begins then, or more than one does.</param>
/// <param name="Revision">Of the session's booking.</param>
/// <param name="Held">It was led or logged: the desk changes nothing in it any more.</param>
public sealed record DeskClass(
    string Uid, string Title, long Starts, bool Cancelled, int Coming, int Waiting, ImmutableArray<DeskGuestView> Guests,
    bool Held = false, Guid? Session = null, Guid? ClassId = null, int? Revision = null);

/// <summary>A session that a class of the desk may be.</summary>
public sealed record DeskChoice(Guid Session, string Title, string StartsAt);

/// <summary>The booking desk.</summary>
/// <param name="Folder">Where its files are looked for.</param>
/// <param name="Simulated">A stand-in is at work; null: there is none, outside the demo.</param>
public sealed record DeskView(
    string Folder, ImmutableArray<DeskClass> Classes, ImmutableArray<DeskChoice> Choices, ImmutableArray<DeskFault> Faults,
        bool? Simulated = null);

/// <summary>Who a guest of the desk is; null: nobody of the roster.</summary>
public sealed record DeskAnswer(Guid? Person) : IRead<DeskAnswer>
{
    public static DeskAnswer? Read(Fields body, Faults faults) => new(body.Id("person"));
}

/// <summary>Which session a class of the desk is; null: none.</summary>
public sealed record DeskLink(string Uid, Guid? Session) : IRead<DeskLink>
{
    public static DeskLink? Read(Fields body, Faults faults)
    {
        var session = body.Id("session");
        return body.Text("uid", 1, 200, required: true) is { } uid ? new DeskLink(uid, session) : null;
    }
}

internal static class DeskEndpoints
{
    public static void MapDesk(this IEndpointRouteBuilder routes)
    {
        var desk = routes.MapGroup("/api/desk").WithTags("Desk");
        desk.MapGet("/", View).WithName("desk");
        desk.MapPut("/guests/{key}", Answer).Takes<DeskAnswer>().ProducesProblem(404).WithName("answerGuest");
        desk.MapPut("/link", Link).Takes<DeskLink>().ProducesProblem(404).WithName("linkDeskClass");
        desk.MapPut("/simulated", Simulate).Takes<SwitchedOn>().ProducesProblem(404).ProducesProblem(409).WithName("simulateDesk");
    }

    private static Ok<DeskView> View(BookingDesk desk, DeskBook book, Sessions sessions, SimulatedDesk simulated)
    {
        var names = book.Names();
        return TypedResults.Ok(new DeskView(
            desk.Folder,
            [.. book.List().Select(heard => ClassOf(heard, names, sessions))],
            [.. sessions.ToCome().Select(s => new DeskChoice(s.Id, s.Title, s.StartsAt))],
            desk.Faults,
            simulated.Offered ? simulated.On : null));
    }

    private static DeskClass ClassOf(HeardEvent heard, DeskNames names, Sessions sessions)
    {
        var session = heard.Session is { } id ? sessions.Find(id) : null;
        var held = session is not null && sessions.Of(session.ClassId).Any(s => s.Session.Id == session.Id && s.Held);
        return new DeskClass(
            heard.Event.Uid, heard.Event.Title, heard.Event.Starts.ToUnixTimeMilliseconds(), heard.Event.Cancelled,
            heard.Event.Coming, heard.Event.Guests.Count(g => g.Standing == DeskStanding.Waiting),
            [.. heard.Event.Guests.Select(g =>
                new DeskGuestView(g.Key, g.Name, g.Standing, names.Asks(g), heard.Who.TryGetValue(g.Key, out var who) ? who : null))],
            held, session?.Id, session?.ClassId, session?.Revision);
    }

    private static Results<NoContent, ProblemHttpResult> Answer(string key, Body<DeskAnswer> body, DeskBook book, Store.People people)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        var person = request.Person is { } id ? new PersonId(id.ToString()) : (PersonId?)null;
        return person is { } who && people.Find(who) is null ? Problems.NotFound("person")
            : book.Answer(key, person) ? TypedResults.NoContent()
            : Problems.NotFound("guest");
    }

    private static Results<NoContent, ProblemHttpResult> Link(Body<DeskLink> body, DeskBook book, Sessions sessions)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        return request.Session is { } session && sessions.Find(session) is null ? Problems.NotFound("session")
            : book.Link(request.Uid, request.Session) ? TypedResults.NoContent()
            : Problems.NotFound("class of the desk");
    }

    private static Results<NoContent, ProblemHttpResult> Simulate(Body<SwitchedOn> body, SimulatedDesk simulated)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (!simulated.Offered)
        {
            return Problems.NotFound("simulated desk");
        }

        if (!request.On)
        {
            simulated.Stop();
        }
        else if (!simulated.Start())
        {
            return Problems.Conflict("No class has a date to book. Add one in a brief.", "on", true,
                StatusCodes.Status409Conflict);
        }

        return TypedResults.NoContent();
    }
}
