using System.Collections.Immutable;
using System.Text;
using Halterion.Core;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Views;
using Halterion.Core.Words;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>All that is kept of one person.</summary>
/// <param name="Noted">What was tapped and written of them while a class was led.</param>
/// <param name="Booked">Where they stand on the booking desk's lists.</param>
public sealed record PersonExport(Person Person, ImmutableArray<string> Circles, ImmutableArray<Attendance> Classes,
    ImmutableArray<Expectation> Expected, ImmutableArray<string> Pinned, ImmutableArray<string> Noted, ImmutableArray<string> Booked);

/// <summary>Where the name of somebody stands besides with themselves.</summary>
/// <param name="Alone">They have one name only, so that it is taken out wherever it stands alone, unless that is not wanted.</param>
public sealed record PersonTraces(ImmutableArray<NameTrace> Traces, bool Alone);

/// <summary>What a log says of them; each station by the name it had in the class that was held.</summary>
/// <param name="Log">All that the row holds, its stations left out: effort, pain, the day after, wishes.</param>
public sealed record Attendance(
    string Title, bool Came, string Note, ImmutableArray<AttendedStation> Stations, LogRow Log, string? StartsAt = null);

/// <param name="Did">The option in words; "left out" where there was none.</param>
/// <param name="Log">All that the log says of it, set by set.</param>
public sealed record AttendedStation(string Station, string Did, StationUse Log);

/// <summary>A session in which they are expected.</summary>
public sealed record Expectation(string Title, string? StartsAt = null);

internal static class PeopleEndpoints
{
    public static void MapPeople(this IEndpointRouteBuilder routes)
    {
        var people = routes.MapGroup("/api/people").WithTags("People");
        people.MapGet("/", (Store.People store) => TypedResults.Ok(store.List())).WithName("people");
        people.MapGet("/{id:guid}", Get).ProducesProblem(404).WithName("person");
        people.MapPost("/", Add).Takes<Person>().WithName("addPerson");
        people.MapPut("/{id:guid}", Change).Takes<Person>().Revised().WithName("changePerson");
        people.MapGet("/{id:guid}/traces", TracesOf).ProducesProblem(404).WithName("personTraces");
        people.MapDelete("/{id:guid}", Erase).ProducesProblem(404).WithName("erasePerson");
        people.MapGet("/{id:guid}/export", Export).ProducesProblem(404).WithName("exportPerson");
        people.MapGet("/{id:guid}/export.txt", Read).ProducesProblem(404).WithName("readPerson");
        var circles = routes.MapGroup("/api/circles").WithTags("People");
        circles.MapGet("/", (Store.People store) => TypedResults.Ok(store.Circles())).WithName("circles");
        circles.MapPost("/", AddCircle).Takes<CircleDetails>().WithName("addCircle");
        circles.MapPut("/{id:guid}", Keep).Takes<CircleDetails>().Revised().WithName("keepCircle");
        circles.MapDelete("/{id:guid}", (Guid id, Store.People store) => Part(id, store)).ProducesProblem(404).WithName("partCircle");
    }

    private static PersonId Of(Guid id) => new(id.ToString());

    private static Results<Ok<Person>, ProblemHttpResult> Get(Guid id, Store.People store, HttpContext http)
    {
        if (store.Find(Of(id)) is not { } person)
        {
            return Problems.NotFound("person");
        }

        http.Tagged(person.Revision);
        return TypedResults.Ok(person);
    }

    private static Results<Ok<Person>, ProblemHttpResult> Add(Body<PersonBody> body, Store.People store, HttpRequest http) =>
        body.Value is { } details ? TypedResults.Ok(store.Add(details.Person, http.Change())) : body.Problem!;

    private static Results<Ok<Kept>, ProblemHttpResult> Change(
        Guid id, Body<PersonBody> body, Store.People store, Evaluator evaluator, HttpContext http)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        var mine = details.Person with { Id = Of(id) };
        return Saving.Answer(http, "person", basis => store.Change(mine, basis), () =>
        {
            var theirs = store.Find(mine.Id)!;
            return (theirs, Difference.Between(PersonWords.Lines(mine, evaluator.Moves), PersonWords.Lines(theirs, evaluator.Moves)));
        });
    }

    /// <summary>Where their name stands besides with themselves.</summary>
    private static Results<Ok<PersonTraces>, ProblemHttpResult> TracesOf(Guid id, Store.People store, Traces traces) =>
        store.Find(Of(id)) is { } person
            ? TypedResults.Ok(new PersonTraces(traces.Of(person), !new NameSearch(person.Name).IsWhole))
            : Problems.NotFound("person");

    /// <summary>Erases somebody, and their name wherever it stands.</summary>
    /// <param name="alone">A first or last name alone goes too; left out: only where they have no other name.</param>
    private static Results<NoContent, ProblemHttpResult> Erase(Guid id, bool? alone, Store.People store, Traces traces, Current current)
    {
        if (store.Find(Of(id)) is not { } person || !store.Erase(person.Id, traces.NamesOf(person, alone)))
        {
            return Problems.NotFound("person");
        }

        current.Forget();
        return TypedResults.NoContent();
    }

    private static Results<Ok<Circle>, ProblemHttpResult> AddCircle(Body<CircleDetails> body, Store.People store, HttpRequest http)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        var id = http.Change() ?? Guid.CreateVersion7();
        store.Keep(new Circle(id, details.Name, details.Together, details.People), new Basis(0, id));
        return TypedResults.Ok(store.Circles().First(c => c.Id == id));
    }

    /// <summary>Keeps people together under a name, as it was changed.</summary>
    private static Results<Ok<Kept>, ProblemHttpResult> Keep(Guid id, Body<CircleDetails> body, Store.People store, HttpContext http)
    {
        if (body.Value is not { } details)
        {
            return body.Problem!;
        }

        var mine = new Circle(id, details.Name, details.Together, details.People);
        return Saving.Answer(http, "circle", basis => store.Keep(mine, basis), () =>
        {
            var (theirs, names) = (store.Circles().First(c => c.Id == id), store.List().ToDictionary(p => p.Id, p => p.Name));
            return (theirs, Difference.Between(Lines(mine, names), Lines(theirs, names)));
        });
    }

    private static IEnumerable<string> Lines(Circle circle, Dictionary<PersonId, string> names) =>
    [
        $"Name: {circle.Name}",
        $"In one group of a rotation: {(circle.Together ? "yes" : "no")}",
        $"People: {PersonWords.Listed(circle.People, names)}",
    ];

    private static Results<NoContent, ProblemHttpResult> Part(Guid id, Store.People store) =>
        store.Part(id) ? TypedResults.NoContent() : Problems.NotFound("circle");

    /// <summary>Everything that is held on them, in words that they can read.</summary>
    private static Results<Ok<PersonExport>, ProblemHttpResult> Export(
        Guid id, Store.People store, Logs logs, Leads leads, Classes classes, Rooms rooms, DeskBook desk, Evaluator evaluator) =>
        AllOf(id, store, logs, leads, classes, rooms, desk, evaluator) is { } all ? TypedResults.Ok(all) : Problems.NotFound("person");

    /// <summary>The same to read.</summary>
    private static Results<FileContentHttpResult, ProblemHttpResult> Read(
        Guid id, Store.People store, Logs logs, Leads leads, Classes classes, Rooms rooms, DeskBook desk, Evaluator evaluator)
    {
        if (AllOf(id, store, logs, leads, classes, rooms, desk, evaluator) is not { } all)
        {
            return Problems.NotFound("person");
        }

        var lines = PersonWords.Lines(all.Person, evaluator.Moves)
            .Concat(all.Circles.Select(c => $"Group: {c}"))
            .Concat(all.Expected.Select(e => $"Expected: {e.Title} {e.StartsAt}".TrimEnd()))
            .Concat(all.Classes.SelectMany(c => (string[])
            [
                "", $"{c.Title} {c.StartsAt}: {(c.Came ? "came" : "did not come")}",
                .. LogWords.About(c.Log).Select(words => $"  {words}"),
                .. c.Stations.Select(s => $"  {string.Join(", ", LogWords.About(s.Log, id => id.Value).Prepend($"{s.Station}: {s.Did}"))}"),
            ]))
            .Concat(all.Pinned.Select(p => $"Chosen for them: {p}"))
            .Concat(all.Noted.Select(n => $"Note: {n}"))
            .Concat(all.Booked.Select(b => $"Booking: {b}"));
        return TypedResults.File(Encoding.UTF8.GetBytes(string.Join('\n', lines) + "\n"), "text/plain; charset=utf-8", "person.txt");
    }

    private static PersonExport? AllOf(
        Guid id, Store.People store, Logs logs, Leads leads, Classes classes, Rooms rooms, DeskBook desk, Evaluator evaluator) =>
        store.Find(Of(id)) is { } person
            ? new PersonExport(
                person,
                [.. store.Circles().Where(c => c.People.Contains(person.Id)).Select(c => c.Name)],
                [.. logs.Of(person.Id).Select(a => new Attendance(
                    a.Title, a.Came, a.Note, Stations(a, classes, evaluator), a.Row with { Uses = [] }, a.StartsAt))],
                [.. logs.Expecting(person.Id).Select(e => new Expectation(e.Title, e.StartsAt))],
                rooms.PinnedOf(person.Id),
                [
                    .. leads.NotesOf(person.Id).Select(n =>
                        $"{n.At:yyyy-MM-dd HH:mm} {n.Note.Tap?.ToString().ToLowerInvariant()} {n.Note.Text}".TrimEnd()),
                ],
                [.. desk.Of(person.Id).Select(d => $"{d.Title} {d.Starts:yyyy-MM-dd HH:mm}: {Words(d.Standing)}")])
            : null;

    private static string Words(DeskStanding standing) => standing switch
    {
        DeskStanding.Coming => "comes",
        DeskStanding.Waiting => "on the waiting list",
        DeskStanding.Gone => "cancelled",
    };

    private static ImmutableArray<AttendedStation> Stations(LoggedOf logged, Classes classes, Evaluator evaluator)
    {
        var stored = logged.ClassVersion is { } version ? classes.At(logged.ClassId, version) : classes.Find(logged.ClassId);
        var plan = stored is null ? null : evaluator.Evaluate(stored.Plan).Plan;
        return
        [
            .. from use in logged.Uses
               let station = plan?.Find(use.Station)?.Station
               let option = station?.Options.FirstOrDefault(o => o.Id == use.Option)
               select new AttendedStation(
                   station?.Name ?? use.Station.Value,
                   use.Option is null ? "left out"
                       : option is null ? use.Option.Value.Value
                       : PlanWords.Option(option, station!, evaluator.Moves, evaluator.Preferences),
                   use),
        ];
    }
}
