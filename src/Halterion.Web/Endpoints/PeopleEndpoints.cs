using System.Collections.Immutable;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Views;
using Halterion.Core.Words;
using Halterion.Store;
using Halterion.Web.Bodies;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>All that is kept of one person.</summary>
public sealed record PersonExport(Person Person, ImmutableArray<Attendance> Classes, ImmutableArray<Expectation> Expected);

/// <summary>What a log says of them; each station by the name it had in the class that was held.</summary>
public sealed record Attendance(string Title, bool Came, string Note, ImmutableArray<AttendedStation> Stations, string? StartsAt = null);

/// <param name="Did">The option in words; "left out" where there was none.</param>
public sealed record AttendedStation(string Station, string Did);

/// <summary>A session in which they are expected.</summary>
public sealed record Expectation(string Title, string? StartsAt = null);

internal static class PeopleEndpoints
{
    public static void MapPeople(this IEndpointRouteBuilder routes)
    {
        var people = routes.MapGroup("/api/people").WithTags("People");
        people.MapGet("/", (Store.People store) => TypedResults.Ok(store.List())).WithName("people");
        people.MapPost("/", Add).Takes<PersonDetails>().WithName("addPerson");
        people.MapPut("/{id:guid}", Change).Takes<PersonDetails>().ProducesProblem(404).WithName("changePerson");
        people.MapDelete("/{id:guid}", Erase).ProducesProblem(404).WithName("erasePerson");
        people.MapGet("/{id:guid}/export", Export).ProducesProblem(404).WithName("exportPerson");
    }

    private static Results<Ok<Person>, ProblemHttpResult> Add(Body<PersonDetails> body, Store.People store) =>
        body.Value is { } details ? TypedResults.Ok(store.Add(details.Name, details.UsualTier, details.StatureCm)) : body.Problem!;

    private static Results<NoContent, ProblemHttpResult> Change(Guid id, Body<PersonDetails> body, Store.People store) =>
        body.Value is not { } details ? body.Problem!
        : store.Change(new Person(id, details.Name, details.UsualTier, details.StatureCm)) ? TypedResults.NoContent()
        : Problems.NotFound("person");

    private static Results<NoContent, ProblemHttpResult> Erase(Guid id, Store.People store) =>
        store.Erase(id) ? TypedResults.NoContent() : Problems.NotFound("person");

    /// <summary>Everything that is held on them, in words that they can read.</summary>
    private static Results<Ok<PersonExport>, ProblemHttpResult> Export(Guid id, Store.People store, Logs logs, Classes classes, Evaluator evaluator) =>
        store.List().FirstOrDefault(p => p.Id == id) is { } person
            ? TypedResults.Ok(new PersonExport(
                person,
                [.. logs.Of(id).Select(a => new Attendance(a.Title, a.Came, a.Note, Stations(a, classes, evaluator), a.StartsAt))],
                [.. logs.Expecting(id).Select(e => new Expectation(e.Title, e.StartsAt))]))
            : Problems.NotFound("person");

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
                       : PlanWords.Option(option, evaluator.Moves, evaluator.Preferences)),
        ];
    }
}
