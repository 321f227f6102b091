using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Planning.Weeks;
using Halterion.Formats;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A series laid out over its weeks.</summary>
public sealed record Unrolled(ImmutableArray<SeriesClass> Classes);

/// <summary>A series in a list.</summary>
public sealed record SeriesListed(Guid Id, int Revision, string Name, DateOnly FirstDay, int Weeks, int Made);

/// <summary>A class of a series, and what became of it.</summary>
/// <param name="StartsAt">On the wall clock.</param>
/// <param name="Notes">What is to be said of it among the others.</param>
/// <param name="ByHand">It was changed by hand and stays as it is.</param>
/// <param name="Followed">The weeks after it go on from it.</param>
/// <param name="UpToDate">Making the series would leave it as it is.</param>
public sealed record SeriesLine(
    int Week, string StartsAt, string Class, bool Light, ImmutableArray<string> Changes, string Verdict, int Seconds,
    ImmutableArray<string> Notes, Guid? Session, Guid? ClassId, bool ByHand, bool Followed, bool Held, bool UpToDate);

/// <summary>A series with its weeks.</summary>
/// <param name="Series">As in its file.</param>
/// <param name="Classes">Those that it begins from, by name.</param>
public sealed record SeriesView(
    Guid Id, int Revision, JsonObject Series, ImmutableDictionary<string, Guid> Classes, ImmutableArray<SeriesLine> Lines);

/// <summary>What became of it: made, written anew, left as they are.</summary>
public sealed record SeriesMade(int Made, int Renewed, int Kept);

/// <summary>A series to be kept.</summary>
public sealed record SaveSeries(Series Series, ImmutableDictionary<string, Guid> Classes) : IRead<SaveSeries>
{
    private const int Most = 14;

    public static SaveSeries? Read(Fields body, Faults faults)
    {
        var series = body.Object("series", required: true) is { } of ? SeriesReader.Read(of, faults) : null;
        var classes = ImmutableDictionary.CreateBuilder<string, Guid>();
        if (body.Object("classes", required: true) is { } map)
        {
            foreach (var name in map.Names.Take(Most).ToArray())
            {
                if (map.Id(name, required: true) is { } id)
                {
                    classes[name] = id;
                }
            }

            map.Close("the classes of a series");
        }

        for (var i = 0; series is not null && i < series.Days.Length; i++)
        {
            if (!classes.ContainsKey(series.Days[i].Class))
            {
                faults.Add($"/series/days/{i}/class", $"There is no class “{series.Days[i].Class}”.", "the name of one under classes");
            }
        }

        return series is null ? null : new SaveSeries(series, classes.ToImmutable());
    }
}

/// <summary>Whether weeks go on from a class that was changed by hand.</summary>
public sealed record FollowByHand(bool Followed) : IRead<FollowByHand>
{
    public static FollowByHand? Read(Fields body, Faults faults) =>
        (body.Flag("followed") ?? body.Missing<bool>("followed", "true or false")) is { } followed ? new FollowByHand(followed) : null;
}

/// <summary>Series of classes over some weeks.</summary>
internal static class SeriesEndpoints
{
    /// <summary>Several class files stand in one body.</summary>
    private const int MostBytes = 8 * Raw.MaxBytes;

    public static void MapSeries(this IEndpointRouteBuilder routes)
    {
        var series = routes.MapGroup("/api/series").WithTags("Series");
        series.MapPost("/unroll", UnrollAsync).Accepts<JsonElement>("application/json")
            .ProducesProblem(413).ProducesProblem(415).ProducesProblem(422).WithName("unrollSeries");
        series.MapGet("/", List).WithName("series");
        series.MapGet("/{id:guid}", Get).ProducesProblem(404).WithName("oneSeries");
        series.MapPut("/{id:guid}", Save).Takes<SaveSeries>().Revised().WithName("saveSeries");
        series.MapDelete("/{id:guid}", (Guid id, SeriesBook book) => Removed(book, id, true)).ProducesProblem(404).WithName("removeSeries");
        series.MapPost("/{id:guid}/restore", (Guid id, SeriesBook book) => Removed(book, id, false))
            .ProducesProblem(404).WithName("restoreSeries");
        series.MapPost("/{id:guid}/make", Make).ProducesProblem(404).WithName("makeSeries");
        series.MapPost("/{id:guid}/sessions/{session:guid}/follow", Follow)
            .Takes<FollowByHand>().ProducesProblem(404).WithName("followByHand");
        series.MapGet("/{id:guid}/calendar.ics", Ics).ProducesProblem(404).WithName("seriesCalendar");
        series.MapGet("/{id:guid}/file", FileOf).ProducesProblem(404).WithName("seriesFile");
    }

    /// <summary>Lays a series out over its weeks; nothing is kept of it.</summary>
    private static async Task<Results<Ok<Unrolled>, ProblemHttpResult>> UnrollAsync(HttpRequest request, Evaluator evaluator)
    {
        var (bytes, problem) = await Raw.ReadAsync(request, MostBytes);
        if (problem is not null)
        {
            return problem;
        }

        var (root, unsound) = Soundness.Read(bytes);
        if (root is not { } element)
        {
            return Problems.Faults(unsound, Problems.Request);
        }

        var faults = new Faults { NullIsAbsent = true };
        var fields = new Fields(element, "", faults);
        if (!fields.IsObject)
        {
            return Problems.Faults(faults.All, Problems.Request);
        }

        var series = fields.Object("series", required: true) is { } of ? SeriesReader.Read(of, faults) : null;
        var classes = SeriesReader.Classes(fields, faults, series, evaluator);
        fields.Close("this request");
        return faults.None && series is not null
            ? TypedResults.Ok(new Unrolled(Unroll.Of(series, classes, evaluator)))
            : Problems.Faults(faults.All, Problems.Request);
    }

    private static Ok<ImmutableArray<SeriesListed>> List(SeriesBook book) => TypedResults.Ok<ImmutableArray<SeriesListed>>(
    [
        .. book.List().Select(s =>
        {
            var faults = new Faults();
            var series = SeriesReader.Read(new Fields(ClassText.Parse(s.Series), "", faults), faults)!;
            return new SeriesListed(s.Id, s.Revision, series.Name, series.FirstDay, series.Weeks, book.SessionsOf(s.Id).Length);
        }),
    ]);

    private static Results<Ok<SeriesView>, ProblemHttpResult> Get(Guid id, SeriesMaker maker, HttpContext http)
    {
        if (maker.View(id) is not { } view)
        {
            return Problems.NotFound("series");
        }

        http.Tagged(view.Revision);
        return TypedResults.Ok(view);
    }

    private static Results<Ok<Kept>, ProblemHttpResult> Save(
        Guid id, Body<SaveSeries> body, SeriesBook book, Classes classes, HttpContext http)
    {
        if (body.Value is not { } request)
        {
            return body.Problem!;
        }

        if (request.Classes.FirstOrDefault(c => classes.Find(c.Value) is null) is { Key: not null } missing)
        {
            return Problems.Bad($"/classes/{missing.Key}", "There is no such class.", "the id of a class");
        }

        var written = SeriesReader.Write(request.Series).ToJsonString();
        return Saving.Answer(http, "series", basis => book.Keep(id, written, request.Classes, basis), () =>
            (book.Find(id) is { } stands ? JsonNode.Parse(stands.Series) : null, []));
    }

    private static Results<NoContent, ProblemHttpResult> Removed(SeriesBook book, Guid id, bool removed) =>
        book.SetRemoved(id, removed) ? TypedResults.NoContent() : Problems.NotFound("series");

    private static Results<Ok<SeriesMade>, ProblemHttpResult> Make(Guid id, SeriesMaker maker) =>
        maker.Make(id) is { } made ? TypedResults.Ok(made) : Problems.NotFound("series");

    private static Results<NoContent, ProblemHttpResult> Follow(Guid id, Guid session, Body<FollowByHand> body, SeriesBook book) =>
        body.Value is not { } request ? body.Problem!
        : book.Follow(id, session, request.Followed) ? TypedResults.NoContent()
        : Problems.NotFound("class of this series");

    private static Results<FileContentHttpResult, ProblemHttpResult> Ics(
        Guid id, SeriesBook book, SeriesMaker maker, Evaluator evaluator, TimeProvider clock)
    {
        if (book.Find(id) is not { } stored)
        {
            return Problems.NotFound("series");
        }

        var entries = maker.Made(id).Where(m => m.Session.Booking.StartsAt is not null)
            .Select(m => (m, Plan: evaluator.Evaluate(m.Class.Plan).Plan)).Where(m => m.Plan is not null)
            .Select(m => new CalendarEntry(
                m.m.Session.Id.ToString("D"), m.m.Class.Version + m.m.Session.Revision,
                BookingReader.Moment(m.m.Session.Booking.StartsAt!, m.m.Session.Booking.Zone), m.Plan!.SlotMinutes, m.Plan.Title, ""));
        return TypedResults.File(
            Encoding.UTF8.GetBytes(CalendarEntry.Write(entries, clock.GetUtcNow())), "text/calendar; charset=utf-8",
            ClassText.FileName((string)JsonNode.Parse(stored.Series)!["name"]!, "ics"));
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> FileOf(Guid id, SeriesMaker maker, SeriesBook book) =>
        maker.FileOf(id) is { } text
            ? TypedResults.File(Encoding.UTF8.GetBytes(text), "application/json; charset=utf-8",
                ClassText.FileName((string)JsonNode.Parse(book.Find(id)!.Series)!["name"]!, "halterion-series.json"))
            : Problems.NotFound("series");
}
