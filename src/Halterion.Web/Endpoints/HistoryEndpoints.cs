using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Halterion.Core;
using Halterion.Core.Leading;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;
using Halterion.Core.Views;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>How a date of a class went.</summary>
/// <param name="Words">Such as "12 came, 34 min, effort 6.5, load 221".</param>
public sealed record DateTold(Guid Session, string Words);

/// <summary>Weeks of classes, planned and held.</summary>
/// <param name="Today">In the studio's zone.</param>
public sealed record CalendarView(DateOnly Today, ImmutableArray<CalendarWeek> Weeks);

/// <summary>Suggestions for a session, with the names they are about.</summary>
public sealed record SuggestionList(ImmutableArray<NamedSuggestion> Suggestions);

/// <param name="Words">The option that is suggested.</param>
/// <param name="Taken">It stands in the assignment already.</param>
/// <param name="Takeable">The class has an option for it, or it is a weight to be remembered; else the instructor sees to it.</param>
public sealed record NamedSuggestion(string Name, string StationName, string Words, bool Taken, bool Takeable, StationSuggestion Of);

/// <summary>Suggestions to be taken: all that are named.</summary>
public sealed record TakeSuggestions(ImmutableArray<TakenPlace> Take) : IRead<TakeSuggestions>
{
    public static TakeSuggestions? Read(Fields body, Faults faults) =>
        new(body.List("take", 0, 5000, "a place", TakenPlace.Of, required: true));
}

/// <summary>Somebody at a station.</summary>
public sealed record TakenPlace(PersonId Person, PlaceId Station)
{
    internal static TakenPlace? Of(Fields fields) =>
        fields.Text("person", 1, 60, required: true) is { } person && fields.Text("station", 1, 40, required: true) is { } station
            ? new TakenPlace(new PersonId(person), new PlaceId(station)) : null;
}

/// <summary>What stood before, to be put back.</summary>
/// <param name="Option">What was pinned; null: nothing.</param>
/// <param name="Kg">What was remembered for the move, of all that is held; null: nothing, or it did not change.</param>
public sealed record TakenBefore(
    PersonId Person, PlaceId Station, PlaceId? Option, string Reason, MoveId? Move, Implement? Implement, decimal? Kg);

/// <param name="Before">Sent back it undoes all of it.</param>
public sealed record TakenSuggestions(int Taken, ImmutableArray<TakenBefore> Before);

/// <summary>Puts back what stood before suggestions were taken.</summary>
public sealed record PutBack(ImmutableArray<TakenBefore> Before) : IRead<PutBack>
{
    public static PutBack? Read(Fields body, Faults faults) => new(body.List("before", 0, 5000, "a place", f =>
    {
        var place = TakenPlace.Of(f);
        var option = f.Text("option", 1, 40);
        var before = new TakenBefore(
            place?.Person ?? default, place?.Station ?? default, option is null ? null
                : new PlaceId(option), f.Text("reason", 0, 400) ?? "",
            f.Text("move", 1, 80) is { } move ? new MoveId(move) : null, f.Choice<Implement>("implement"), f.Decimal("kg", 0.25m, 600));
        return place is null ? null : before;
    }, required: true));
}

/// <summary>What was, by person, by week and for what comes.</summary>
internal static class HistoryEndpoints
{
    private const int MostWeeks = 60;

    /// <summary>So many of somebody's classes are on their page: about a year of one a week.</summary>
    private const int Shown = 60;

    public static void MapHistory(this IEndpointRouteBuilder routes)
    {
        routes.MapGet("/api/people/{id}/progress", Progress).ProducesProblem(404).WithTags("Progress").WithName("personProgress");
        routes.MapGet("/api/calendar", Calendar).ProducesProblem(400).WithTags("Progress").WithName("calendar");
        routes.MapGet("/api/classes/{id:guid}/dates", Dates).WithTags("Progress").WithName("loggedDates");
        routes.MapGet("/api/log.csv", LogCsvFile).WithTags("Log").WithName("logFile");
        routes.MapGet("/api/pace", Paces).WithTags("Progress").WithName("learntPaces");
        var session = routes.MapGroup("/api/sessions/{id:guid}").WithTags("Progress");
        session.MapGet("/suggestions", Suggested).ProducesProblem(404).ProducesProblem(422).WithName("suggestions");
        session.MapPost("/suggestions", Take).Takes<TakeSuggestions>().ProducesProblem(404).WithName("takeSuggestions");
        session.MapPost("/suggestions/back", Back).Takes<PutBack>().ProducesProblem(404).WithName("putBackSuggestions");
        session.MapGet("/as-led", AsLed).ProducesProblem(404).ProducesProblem(422).WithName("classAsLed");
        session.MapGet("/log/past/{version:int}", PastLog).ProducesProblem(404).WithName("pastLog");
        session.MapGet("/carried-over", CarriedOver).ProducesProblem(404).WithName("carriedOver");
    }

    /// <summary>How each date of a class went; nothing where none was logged.</summary>
    private static Ok<ImmutableArray<DateTold>> Dates(Guid id, Logs logs) => TypedResults.Ok<ImmutableArray<DateTold>>(
        [.. logs.DatesOf(id).Select(d => new DateTold(d.Session, LogWords.Date(d.Came, d.Minutes, d.Effort)))]);

    private static DateOnly Today(TimeProvider clock, TimeZoneInfo zone) =>
        DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(clock.GetUtcNow(), zone).DateTime);

    private static Results<Ok<PersonProgress>, ProblemHttpResult> Progress(
        string id, Store.People people, Logs logs, Rooms rooms, Current current, TimeProvider clock, TimeZoneInfo zone)
    {
        if (people.Find(new PersonId(id)) is not { } person)
        {
            return Problems.NotFound("person");
        }

        return TypedResults.Ok(PersonProgress.Of(
            person, logs.ClassesOf(person.Id, Shown), logs.LastOf([person.Id], null, Shown),
            rooms.List().FirstOrDefault()?.Stock, Today(clock, zone),
            current.Preferences.WeekStart, current.Moves, current.Preferences));
    }

    private static Results<Ok<CalendarView>, ProblemHttpResult> Calendar(
        DateOnly? from, int? weeks, CalendarOf calendar, TimeProvider clock, TimeZoneInfo zone)
    {
        var (today, many) = (Today(clock, zone), weeks ?? 6);
        return many is < 1 or > MostWeeks
            ? Problems.Query("weeks", $"These are {many}.", $"1–{MostWeeks}")
            : TypedResults.Ok(new CalendarView(today, calendar.Weeks(from ?? today, many)));
    }

    private static Results<Ok<SuggestionList>, ProblemHttpResult> Suggested(
        Guid id, Sessions sessions, SessionSuggestions suggestions)
    {
        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        return TypedResults.Ok(new SuggestionList(suggestions.Of(session)));
    }

    private static Results<Ok<TakenSuggestions>, ProblemHttpResult> Take(
        Guid id, Body<TakeSuggestions> body, Sessions sessions, SessionSuggestions suggestions)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        var before = suggestions.Take(session, [.. request.Take.Select(t => (t.Person, t.Station))]);
        return TypedResults.Ok(new TakenSuggestions(before.Length, before));
    }

    private static Results<NoContent, ProblemHttpResult> Back(
        Guid id, Body<PutBack> body, Sessions sessions, SessionSuggestions suggestions)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (sessions.Find(id) is null)
        {
            return Problems.NotFound("session");
        }

        suggestions.PutBack(id, request.Before);
        return TypedResults.NoContent();
    }

    private static Results<Ok<ClassAsLed>, ProblemHttpResult> AsLed(
        Guid id, Sessions sessions, Classes classes, Leads leads, Evaluator evaluator, SteadyClock clock)
    {
        if (sessions.Find(id) is not { } session || LedClass.Of(session, classes, leads, evaluator) is not { } led)
        {
            return Problems.NotFound("class that was led");
        }

        return TypedResults.Ok(ClassAsLed.Of(led.Plan, led.Timeline, led.Commands, clock.Now));
    }

    private static Results<Ok<ClassLog>, ProblemHttpResult> PastLog(Guid id, int version, Logs logs) =>
        logs.At(id, version) is { } log ? TypedResults.Ok(log) : Problems.NotFound("log");

    /// <summary>What the class before left to be done: the next brief begins with it.</summary>
    private static Results<Ok<CarriedOverView>, ProblemHttpResult> CarriedOver(Guid id, Sessions sessions, Logs logs)
    {
        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        var found = session.Booking.StartsAt is { } at ? logs.CarriedOver(at, id) : null;
        return TypedResults.Ok(found is { } from
            ? new CarriedOverView(from.Text, from.Title, from.StartsAt, from.Session) : new CarriedOverView("", "", "", null));
    }

    /// <summary>How long things really take, from the classes that were led last.</summary>
    private static Ok<ImmutableArray<LearntPace>> Paces(LearntPaces paces) => TypedResults.Ok(paces.Now());

    private static FileContentHttpResult LogCsvFile(LogRows rows) =>
        TypedResults.File(Encoding.UTF8.GetBytes(LogCsv.Of(rows.All())), "text/csv; charset=utf-8", "halterion-logs.csv");
}

/// <param name="Text">Empty: nothing is.</param>
public sealed record CarriedOverView(string Text, string Title, string StartsAt, Guid? Session);
