using System.Collections.Immutable;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A person as typed in.</summary>
/// <param name="StatureCm">Null: not told.</param>
public sealed record PersonDetails(string Name, Tier UsualTier, int? StatureCm = null);

/// <summary>All that is kept of one person.</summary>
public sealed record PersonExport(Person Person, ImmutableArray<Attendance> Classes);

public sealed record Attendance(string Title, bool Came, string Note, string? StartsAt = null);

internal static class PeopleEndpoints
{
    public static void MapPeople(this IEndpointRouteBuilder routes)
    {
        var people = routes.MapGroup("/api/people").WithTags("People");
        people.MapGet("/", (Store.People store) => TypedResults.Ok(store.List())).WithName("people");
        people.MapPost("/", Add).ProducesProblem(422).WithName("addPerson");
        people.MapPut("/{id:guid}", Change).ProducesProblem(404).ProducesProblem(422).WithName("changePerson");
        people.MapDelete("/{id:guid}", Erase).ProducesProblem(404).WithName("erasePerson");
        people.MapGet("/{id:guid}/export", Export).ProducesProblem(404).WithName("exportPerson");
    }

    private static Results<Ok<Person>, ProblemHttpResult> Add(PersonDetails details, Store.People store) =>
        NameFault(details) ?? (Results<Ok<Person>, ProblemHttpResult>)TypedResults.Ok(store.Add(details.Name.Trim(), details.UsualTier, details.StatureCm));

    private static Results<NoContent, ProblemHttpResult> Change(Guid id, PersonDetails details, Store.People store)
    {
        if (NameFault(details) is { } fault)
        {
            return fault;
        }

        return store.Change(new Person(id, details.Name.Trim(), details.UsualTier, details.StatureCm)) ? TypedResults.NoContent() : Problems.NotFound("person");
    }

    private static Results<NoContent, ProblemHttpResult> Erase(Guid id, Store.People store) =>
        store.Erase(id) ? TypedResults.NoContent() : Problems.NotFound("person");

    private static Results<Ok<PersonExport>, ProblemHttpResult> Export(Guid id, Store.People store, Logs logs) =>
        store.List().FirstOrDefault(p => p.Id == id) is { } person
            ? TypedResults.Ok(new PersonExport(person, [.. logs.Of(id).Select(a => new Attendance(a.Title, a.Came, a.Note, a.StartsAt))]))
            : Problems.NotFound("person");

    private static ProblemHttpResult? NameFault(PersonDetails details) =>
        details.Name.Trim().Length is 0 or > 120 ? Problems.Bad("/name", "A person needs a name.", "1–120 characters")
        : details.StatureCm is < 100 or > 230 ? Problems.Bad("/statureCm", $"A stature of {details.StatureCm} cm is out of bounds.", "100–230 cm, or leave it out")
        : null;
}
