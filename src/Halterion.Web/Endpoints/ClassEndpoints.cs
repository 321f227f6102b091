using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A class with its sessions and what it adds up to; faults in place of the evaluation while it is a draft with faults.</summary>
/// <param name="Plan">The class file; every block, station and option in it has its id.</param>
/// <param name="Sessions">When it is and was held, by start.</param>
public sealed record ClassView(
    Guid Id,
    int Version,
    JsonElement Plan,
    ImmutableArray<SessionView> Sessions, ImmutableArray<PlanFault> Faults,
    Evaluation? Evaluation = null);

/// <summary>A class that was saved.</summary>
/// <param name="Plan">As it now stands, where ids were added to what was sent.</param>
public sealed record SavedClass(int Version, JsonElement? Plan = null);

/// <summary>A class in the list.</summary>
/// <param name="Held">On how many dates it was led or logged.</param>
/// <param name="ToCome">How many dates are still to come.</param>
/// <param name="Next">The one under way and those to come, three at most, where dates were asked for.</param>
/// <param name="Last">The last date it was held on, where dates were asked for and it was.</param>
/// <param name="CopyOf">The title of the class it was copied from.</param>
public sealed record ClassSummary(
    Guid Id, string Title, DateTimeOffset SavedAt, string Length, string Verdict, int Held, int ToCome,
    ImmutableArray<SessionSummary> Next, SessionSummary? Last = null, string? CopyOf = null);

/// <summary>A window of the plans.</summary>
/// <param name="All">How many there are in all.</param>
public sealed record ClassList(ImmutableArray<ClassSummary> Classes, int All);

internal static class ClassEndpoints
{
    private const int Window = 50;
    private const int LargestWindow = 2000;

    /// <summary>So many dates to come stand with a class in the list; the rest is a number.</summary>
    private const int NextDates = 3;

    public static void MapClasses(this IEndpointRouteBuilder routes)
    {
        var classes = routes.MapGroup("/api/classes").WithTags("Classes");
        classes.MapGet("/", List).ProducesProblem(400).WithName("classes");
        classes.MapPost("/", Create).Takes<NewClass>().ProducesProblem(404).WithName("createClass");
        classes.MapGet("/{id:guid}", Get).ProducesProblem(404).WithName("class");
        classes.MapPut("/{id:guid}", Save).Takes<SaveClass>().Revised().WithName("saveClass");
        classes.MapDelete("/{id:guid}", (Guid id, Classes store) => Removed(store, id, true)).ProducesProblem(404).WithName("removeClass");
        classes.MapPost("/{id:guid}/restore", (Guid id, Classes store) => Removed(store, id, false))
            .ProducesProblem(404)
            .WithName("restoreClass");
        classes.MapGet("/{id:guid}/file", Download).ProducesProblem(404).WithName("downloadClass");
        classes.MapPost("/file", OpenAsync).Accepts<JsonElement>("application/json")
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("openClassFile");
    }

    /// <summary>A window of the classes: what is under way, what comes next, then what was saved last.</summary>
    private static Results<Ok<ClassList>, ProblemHttpResult> List(
        string? search, int? skip, int? take, bool? dates, Classes store, Sessions sessions)
    {
        if (Windows.Fault(skip, take, LargestWindow) is { } fault)
        {
            return fault;
        }

        var (lines, all) = store.List(search, skip ?? 0, take ?? Window);
        return TypedResults.Ok(new ClassList(
            [.. lines.Select(l => new ClassSummary(
                l.Id,
                l.Title,
                l.SavedAt,
                Lengths.Of(l.Seconds),
                Lengths.Verdict(l.OverSeconds),
                l.Held,
                l.ToCome,
                dates == true ? Lines(sessions, held: false, NextDates, l.Id) : [],
                dates == true ? Lines(sessions, held: true, 1, l.Id).FirstOrDefault() : null,
                l.CopyOf))],
            all));
    }

    private static ImmutableArray<SessionSummary> Lines(Sessions sessions, bool held, int most, Guid of) =>
        [.. sessions.List(held, 0, most, of).Lines.Select(SessionEndpoints.Summary)];

    private static Results<Ok<ClassView>, ProblemHttpResult> Create(
        Body<NewClass> body,
        Classes store,
        Sessions sessions,
        Evaluator evaluator,
        Starters starters,
        HttpRequest http)
    {
        if (body.Value is not { } wanted)
        {
            return body.Problem!;
        }

        var source = wanted.CopyOf is { } copied ? store.Find(copied) : null;
        if (wanted.CopyOf is not null && source is null)
        {
            return Problems.NotFound("class");
        }

        var from = source?.Plan ?? wanted.Plan?.GetRawText();
        var plan = ClassText.New(wanted.Title, wanted.SlotMinutes, wanted.Aim, from, starters.ClassFields());
        var (id, _) = store.Add(ClassText.Revision(plan, evaluator), SessionEndpoints.Stored(wanted.Booking), wanted.CopyOf, http.Change());
        return Get(id, store, sessions, evaluator, http.HttpContext);
    }

    private static Results<Ok<ClassView>, ProblemHttpResult> Get(
        Guid id, Classes store, Sessions sessions, Evaluator evaluator, HttpContext http)
    {
        if (store.Find(id) is not { } found)
        {
            return Problems.NotFound("class");
        }

        http.Tagged(found.Version);
        return TypedResults.Ok(View(found, sessions, evaluator));
    }

    /// <summary>Saves a class, whether it has faults or not. If-Match carries the version it was made from.</summary>
    private static Results<Ok<SavedClass>, ProblemHttpResult> Save(
        Guid id,
        Body<SaveClass> body,
        HttpRequest http,
        Classes store,
        Sessions sessions,
        OwnMoves own,
        Evaluator evaluator)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (http.Basis() is not { } basis)
        {
            return Problems.NoVersion();
        }

        if (store.Find(id) is not { } current)
        {
            return Problems.NotFound("class");
        }

        var whole = PlanIds.Written(ShippedMoves.Carrying(request.Plan, evaluator.Moves, own));
        var plan = ClassText.Unchanged(current.Plan, whole) ? current.Plan : ClassText.Written(whole);
        if (Encoding.UTF8.GetByteCount(plan) > ClassReader.MaxBytes)
        {
            return Problems.Bad("/plan", "The class is too large.", $"at most {ClassReader.MaxBytes} bytes");
        }

        return store.Save(id, basis, ClassText.Revision(plan, evaluator)) switch
        {
            null => Problems.NotFound("class"),
            { Saved: true } saved =>
                TypedResults.Ok(new SavedClass(saved.Class.Version, JsonElement.DeepEquals(whole, request.Plan) ? null : whole)),
            { } other =>
                Problems.Changed(
                    "class", View(other.Class, sessions, evaluator), VersionEndpoints.Differences(plan, other.Class.Plan, evaluator)),
        };
    }

    private static Results<NoContent, ProblemHttpResult> Removed(Classes store, Guid id, bool removed) =>
        store.SetRemoved(id, removed) ? TypedResults.NoContent() : Problems.NotFound("class");

    private static Results<FileContentHttpResult, ProblemHttpResult> Download(Guid id, Classes store) =>
        store.Find(id) is { } found
            ? TypedResults.File(Encoding.UTF8.GetBytes(found.Plan), "application/json", ClassText.FileName(found.Title))
            : Problems.NotFound("class");

    /// <summary>Takes in a class file as it is, to the byte; one with faults changes nothing.</summary>
    private static async Task<Results<Ok<ClassView>, ProblemHttpResult>> OpenAsync(
        HttpRequest request,
        Classes store,
        Sessions sessions,
        Evaluator evaluator,
        TimeZoneInfo zone)
    {
        var (file, problem) = await Raw.ReadAsync(request, ClassReader.MaxBytes);
        if (problem is not null)
        {
            return problem;
        }

        var result = evaluator.Evaluate(file);
        if (result.Evaluation is null)
        {
            return Problems.Faults(result.Faults);
        }

        var (id, _) = store.Add(
            ClassText.Revision(Encoding.UTF8.GetString(file.Span), evaluator),
            new SessionBooking(null, zone.Id, SessionEndpoints.UsualHeads, []),
            change: request.Change());
        return Get(id, store, sessions, evaluator, request.HttpContext);
    }

    internal static ClassView View(StoredClass found, Sessions sessions, Evaluator evaluator)
    {
        var result = evaluator.Evaluate(found.Plan);
        return new ClassView(
            found.Id, found.Version, PlanIds.Written(ClassText.Parse(found.Plan)),
            [.. sessions.Of(found.Id).Select(s => SessionEndpoints.View(s.Session, s.Held))], result.Faults, result.Evaluation);
    }
}
