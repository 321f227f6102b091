using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning.Weeks;
using Halterion.Store;
using Halterion.Web.Bodies;
using Halterion.Web.Endpoints;

namespace Halterion.Web.Library;

/// <summary>Makes the occasions of a series, and brings those that it made up to date.</summary>
internal sealed class SeriesMaker(SeriesBook book, Classes classes, Sessions sessions, Current current, TimeZoneInfo zone)
{
    /// <summary>A series with what it begins from.</summary>
    private sealed record Open(StoredSeries Stored, Series Series, ImmutableDictionary<string, JsonElement> Plans);

    /// <summary>The series laid out, with what became of each class.</summary>
    /// <returns>Null where there is none, or one of its classes cannot be read.</returns>
    public SeriesView? View(Guid id)
    {
        if (Opened(id) is not { } open)
        {
            return null;
        }

        var made = book.SessionsOf(id).ToDictionary(s => s.Starts);
        return new SeriesView(
            id,
            open.Stored.Revision,
            SeriesReader.Write(open.Series),
            open.Stored.Classes,
            [
                .. Unrolled(open, made.Values).Select(c =>
                {
                    var stands = made.GetValueOrDefault(StartsOf(c));
                    var next = stands is not null && (stands.IsHeld || IsByHand(stands) || Same(stands.Plan, c.Plan));
                    return new SeriesLine(
                        c.Week, StartsOf(c), c.Class, c.Light, [.. c.Changes], c.Evaluation.Verdict, c.Evaluation.Totals.Seconds.Value,
                        [.. c.Findings.Where(f => f.Code.StartsWith("week.", StringComparison.Ordinal)).Select(f => f.What)],
                        stands?.Session, stands?.Class, stands is not null && IsByHand(stands), stands?.Followed ?? false,
                        stands?.IsHeld ?? false, next);
                }),
            ]);
    }

    /// <summary>Makes what is not there yet, and writes anew what the series made and nobody has changed; what was held stays.</summary>
    public SeriesMade? Make(Guid id)
    {
        if (Opened(id) is not { } open)
        {
            return null;
        }

        var (fresh, renewed, kept) = (0, 0, 0);
        var made = book.SessionsOf(id).ToDictionary(s => s.Starts);
        foreach (var of in Unrolled(open, made.Values))
        {
            var plan = of.Plan.DeepClone().AsObject();
            var revision = ClassText.Revision(ClassText.Written(JsonElement.Parse(Encoding.UTF8.GetBytes(plan.ToJsonString()))),
                current.Evaluator);
            if (!made.TryGetValue(StartsOf(of), out var stands))
            {
                var from = open.Stored.Classes[of.Class];
                var booking = sessions.Of(from).Select(s => s.Session.Booking).LastOrDefault() ?? new SessionBooking(null, zone.Id, 12, []);
                var (made0, session) = classes.Add(revision, booking with { StartsAt = StartsOf(of) }, from);
                book.Made(id, session!.Value, StartsOf(of), 1);
                fresh++;
            }
            else if (stands.IsHeld || IsByHand(stands))
            {
                kept++;
            }
            else if (!Same(stands.Plan, of.Plan) && classes.Save(stands.Class, new Basis(stands.Latest), revision) is ({ } saved, true))
            {
                book.Made(id, stands.Session, StartsOf(of), saved.Version);
                renewed++;
            }
        }

        return new SeriesMade(fresh, renewed, kept);
    }

    /// <summary>The classes of the calendar file: those that were made, by start.</summary>
    public ImmutableArray<(StoredSession Session, StoredClass Class)> Made(Guid id) =>
    [
        .. book.SessionsOf(id).Select(s => (sessions.Find(s.Session)!, classes.Find(s.Class)!)),
    ];

    public string? FileOf(Guid id)
    {
        if (Opened(id) is not { } open)
        {
            return null;
        }

        var file = SeriesReader.Write(open.Series);
        return ClassText.Written(JsonElement.Parse(Encoding.UTF8.GetBytes(file.ToJsonString())));
    }

    private Open? Opened(Guid id)
    {
        if (book.Find(id) is not { } stored)
        {
            return null;
        }

        var faults = new Faults();
        var series = SeriesReader.Read(new Fields(ClassText.Parse(stored.Series), "", faults), faults);
        var plans = stored.Classes.ToImmutableDictionary(c => c.Key, c => classes.Find(c.Value));
        if (series is null || series.Days.Any(d => !plans.ContainsKey(d.Class))
            || plans.Values.Any(p => p is null || current.Evaluator.Evaluate(p.Plan).Timeline is null))
        {
            return null;
        }

        return new Open(stored, series, plans.ToImmutableDictionary(p => p.Key, p => ClassText.Parse(p.Value!.Plan)));
    }

    private ImmutableArray<SeriesClass> Unrolled(Open open, IEnumerable<SeriesSession> made) => Unroll.Of(
        open.Series,
        open.Plans,
        current.Evaluator,
        made.Where(s => IsByHand(s) && current.Evaluator.Evaluate(s.Plan).Timeline is not null).ToDictionary(
            s => (DateOnly.ParseExact(s.Starts[..10], "yyyy-MM-dd", CultureInfo.InvariantCulture), s.Starts[11..16]),
            s => new ByHand(JsonNode.Parse(ClassText.Parse(s.Plan).GetRawText())!.AsObject(), s.Followed)));

    private static bool IsByHand(SeriesSession session) => session.Latest > session.Version;

    private static bool Same(string stands, JsonObject plan) =>
        JsonNode.DeepEquals(JsonNode.Parse(PlanIds.Written(ClassText.Parse(stands)).GetRawText()), plan);

    private static string StartsOf(SeriesClass of) =>
        $"{of.Date.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}T{of.Time}";
}
