using System.Collections.Immutable;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Halterion.Core.Leading;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;
using Halterion.Core.Views;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Library;
using Halterion.Web.Live;
using Halterion.Web.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Endpoints;

/// <summary>A class under way: its script and the commands so far.</summary>
/// <param name="Now">The time of the class, in milliseconds since 1970: taps are stamped with it.</param>
/// <param name="StartsAt">When it is booked to begin, in milliseconds since 1970 UTC; null: it has no date.</param>
/// <param name="EndsAt">When the booked slot is over, in milliseconds since 1970 UTC; null: it has no date.</param>
public sealed record LeadView(
    Guid Id, Guid SessionId, Guid ClassId, LeadScript Script, ImmutableArray<LeadCommand> Commands, long Now, long? EndsAt = null,
    long? StartsAt = null);

public sealed record CommandList(ImmutableArray<LeadCommand> Commands, long Now);

/// <summary>What a follower is told: the lead that is open, its commands, and the time.</summary>
/// <param name="Lead">Null: none is open.</param>
public sealed record LeadNews(long Now, Guid? Lead, ImmutableArray<LeadCommand> Commands);

internal static class LeadEndpoints
{
    /// <summary>A follower that hears nothing for longer than this knows that the server is gone.</summary>
    private static readonly TimeSpan Heartbeat = TimeSpan.FromSeconds(2);

    /// <summary>
    /// Taps may wait this long for the server, and clocks may be this far apart; anything beyond is no time of this class.
    /// </summary>
    private static readonly long Plausible = (long)TimeSpan.FromDays(1).TotalMilliseconds;

    public static void MapLeading(this IEndpointRouteBuilder routes)
    {
        routes.MapPost("/api/sessions/{id:guid}/lead", Open)
            .ProducesProblem(404)
            .ProducesProblem(422)
            .WithTags("Leading")
            .WithName("openLead");
        routes.MapGet("/api/sessions/{id:guid}/who", Who)
            .ProducesProblem(404)
            .ProducesProblem(422)
            .WithTags("Leading")
            .WithName("leadPeople");
        routes.MapGet("/api/sessions/{id:guid}/events", Follow).ProducesProblem(404).WithTags("Leading").WithName("followLead");
        routes.MapGet("/api/sessions/{id:guid}/script", Rehearse)
            .ProducesProblem(404)
            .ProducesProblem(422)
            .WithTags("Leading")
            .WithName("leadScript");
        routes.MapGet("/api/leads/{id:guid}/ways", Ways).ProducesProblem(404).WithTags("Leading").WithName("waysBack");
        routes.MapPost("/api/leads/{id:guid}/commands", Send).Takes<SendCommands>()
            .ProducesProblem(404).ProducesProblem(409).WithTags("Leading").WithName("sendCommands");
    }

    /// <summary>Opens the lead of a session: the one that is open, or a new one from the class as it is now.</summary>
    private static Results<Ok<LeadView>, ProblemHttpResult> Open(
        Guid id,
        Sessions sessions,
        Leads leads,
        Evaluator evaluator,
        SteadyClock clock,
        Followers followers)
    {
        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        ImmutableArray<PlanFault> faults = [];
        var lead = leads.Open(id, stored =>
        {
            var result = evaluator.Evaluate(stored.Plan);
            faults = result.Faults;
            return result.Timeline is { Spans.IsEmpty: false } timeline
                ? (ScriptFile.Format, ScriptFile.Write(LeadScript.Of(result.Plan!, timeline, evaluator.Preferences)))
                : null;
        });
        if (lead is null)
        {
            return Problems.Faults(faults);
        }

        if (ScriptFile.Read(lead.Format, lead.Script) is not { } script)
        {
            return TypedResults.Problem(
                title: "This class was led with a version that cannot be opened here.",
                statusCode: StatusCodes.Status422UnprocessableEntity);
        }

        followers.Changed(id);
        return TypedResults.Ok(
            new LeadView(
                lead.Id, id, session.ClassId, script, lead.Commands, Now(clock, lead), EndsAt(session.Booking, script),
                StartsAt(session.Booking)));
    }

    internal static long? StartsAt(SessionBooking booking) =>
        booking.StartsAt is { } starts ? BookingReader.Moment(starts, booking.Zone).ToUnixTimeMilliseconds() : null;

    internal static long? EndsAt(SessionBooking booking, LeadScript script) => StartsAt(booking) + 1000L * script.Slot.Value;

    /// <summary>The class as this session holds it: the version that is led, or was, else the latest.</summary>
    internal static (ClassPlan? Plan, Timeline? Timeline, ProblemHttpResult? Problem) Held(
        StoredSession session, StoredLead? lead, Classes classes, Evaluator evaluator)
    {
        var held = (lead?.ClassVersion ?? session.ClassVersion) is { } version
            ? classes.At(session.ClassId, version)
            : classes.Find(session.ClassId);
        if (held is null)
        {
            return (null, null, Problems.NotFound("class"));
        }

        var read = evaluator.Evaluate(held.Plan);
        return read is { Plan: { } plan, Timeline: { } timeline } ? (plan, timeline, null) : (null, null, Problems.Faults(read.Faults));
    }

    /// <summary>What is drawn of the class as this session holds it.</summary>
    internal static Results<Ok<T>, ProblemHttpResult> Drawn<T>(
        Guid id, Sessions sessions, Classes classes, Leads leads, Evaluator evaluator, Func<ClassPlan, T> draw)
    {
        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        var (plan, _, problem) = Held(session, leads.OpenOf(id), classes, evaluator);
        return plan is null ? problem! : TypedResults.Ok(draw(plan));
    }

    /// <summary>The script of a class to be rehearsed: nothing is opened or kept.</summary>
    private static Results<Ok<LeadScript>, ProblemHttpResult> Rehearse(
        Guid id, Sessions sessions, Classes classes, Leads leads, Evaluator evaluator)
    {
        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        var (plan, timeline, problem) = Held(session, leads.OpenOf(id), classes, evaluator);
        return plan is null || timeline is null ? problem! : TypedResults.Ok(LeadScript.Of(plan, timeline, evaluator.Preferences));
    }

    /// <summary>Who is expected, and what each needs where it is not the main option. For whoever leads alone.</summary>
    private static Results<Ok<ImmutableArray<LeadPerson>>, ProblemHttpResult> Who(
        Guid id, Sessions sessions, Classes classes, Leads leads, Rooms rooms, SessionRooms halls, Evaluator evaluator)
    {
        if (sessions.Find(id) is not { } session)
        {
            return Problems.NotFound("session");
        }

        var (plan, timeline, problem) = Held(session, leads.OpenOf(id), classes, evaluator);
        return plan is null || timeline is null
            ? problem!
            : TypedResults.Ok(LeadPerson.Of(
                RoomView.Of(halls.Of(plan, session, rooms.Of(id)), timeline, evaluator.Preferences), plan, evaluator.Preferences));
    }

    private static Results<Ok<CommandList>, ProblemHttpResult> Send(
        Guid id, Body<SendCommands> body, Leads leads, SteadyClock clock, Followers followers, Current current)
    {
        if (body.Value is not { } sent)
        {
            return body.Problem!;
        }

        for (var i = 0; i < sent.Commands.Length; i++)
        {
            if (Math.Abs(sent.Commands[i].At - clock.Now) > Plausible)
            {
                return Problems.Bad(
                    $"/commands/{i}/at",
                    "This action is more than a day old or ahead.",
                    "milliseconds since 1970, as the class's own clock has them");
            }
        }

        switch (leads.Append(id, sent.Expected, sent.Commands))
        {
            case null:
                return Problems.NotFound("lead");
            case { Sending: Sending.Taken } taken:
                followers.Changed(taken.SessionId);
                if (sent.Commands.Any(c => c.Kind is LeadCommandKind.Start or LeadCommandKind.Finish))
                {
                    // The pace as one really is, is learnt from classes that were led.
                    current.Forget();
                }

                return TypedResults.Ok(new CommandList(taken.Commands, clock.Now));
            case { Sending: Sending.Superseded, Open: { } open } other:
                return Problems.Conflict(
                    "Another screen is leading this class.",
                    "open",
                    new { session = other.SessionId, lead = open.Id },
                    StatusCodes.Status409Conflict);
            case { } behind:
                return Problems.Conflict(
                    "Another screen has led this class in the meantime.", "commands", behind.Commands, StatusCodes.Status409Conflict);
        }
    }

    /// <summary>
    /// How the class stands to its booked end, and the ways back, or what to do with time in hand. Nothing where it has no booked end.
    /// </summary>
    private static Results<Ok<WaysBack>, NoContent, ProblemHttpResult> Ways(
        Guid id, Sessions sessions, Classes classes, Leads leads, Evaluator evaluator, SteadyClock clock)
    {
        if (leads.SessionOf(id) is not { } of || sessions.Find(of) is not { } session || leads.OpenOf(of) is not { } lead || lead.Id != id)
        {
            return Problems.NotFound("lead");
        }

        var (plan, timeline, _) = Held(session, lead, classes, evaluator);
        if (plan is null || timeline is null || ScriptFile.Read(lead.Format, lead.Script) is not { } script
            || EndsAt(session.Booking, script) is not { } endsAt)
        {
            return TypedResults.NoContent();
        }

        var state = LeadFold.Fold(lead.Commands, script.Times);
        var ways = WaysBack.Of(
            plan, timeline, script.Times, state, Now(clock, lead), endsAt,
            new FitTerms { Changes = ChangeTimes.Of(evaluator.Preferences) });
        return ways is null ? TypedResults.NoContent() : TypedResults.Ok(ways);
    }

    /// <summary>Follows a session: what is led there, at once and at every change, and a heartbeat between.</summary>
    private static Results<ServerSentEventsResult<LeadNews>, ProblemHttpResult> Follow(
        Guid id, Sessions sessions, SteadyClock clock, Followers followers, Pairing pairing, IHostApplicationLifetime life,
            HttpContext http) =>
        Stream(id, sessions, clock, followers, pairing, life, http, commands => commands);

    /// <param name="shown">What of the commands is told.</param>
    internal static Results<ServerSentEventsResult<LeadNews>, ProblemHttpResult> Stream(
        Guid id,
        Sessions sessions,
        SteadyClock clock,
        Followers followers,
        Pairing pairing,
        IHostApplicationLifetime life,
        HttpContext http,
        Func<ImmutableArray<LeadCommand>, ImmutableArray<LeadCommand>> shown) =>
        sessions.Find(id) is null
            ? Problems.NotFound("session")
            : TypedResults.ServerSentEvents(NewsAsync(
                id,
                clock,
                followers,
                shown,
                CancellationTokenSource.CreateLinkedTokenSource(
                    http.RequestAborted, life.ApplicationStopping, pairing.WhileWelcome(Roles.DeviceOf(http.User))).Token));

    private static async IAsyncEnumerable<SseItem<LeadNews>> NewsAsync(
        Guid id,
        SteadyClock clock,
        Followers followers,
        Func<ImmutableArray<LeadCommand>, ImmutableArray<LeadCommand>> shown,
        [EnumeratorCancellation] CancellationToken cancel)
    {
        using var following = followers.Follow(id, out var signs);
        var changed = true;
        while (!cancel.IsCancellationRequested)
        {
            if (changed)
            {
                var lead = followers.LeadOf(id);
                yield return new SseItem<LeadNews>(new LeadNews(Now(clock, lead), lead?.Id, shown(lead?.Commands ?? [])), "lead");
            }
            else
            {
                yield return new SseItem<LeadNews>(new LeadNews(clock.Now, null, []), "beat");
            }

            changed = await SignAsync(signs, cancel);
        }
    }

    /// <summary>True at a change; false when it is time for a heartbeat.</summary>
    private static async Task<bool> SignAsync(System.Threading.Channels.ChannelReader<int> signs, CancellationToken cancel)
    {
        using var beat = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        beat.CancelAfter(Heartbeat);
        try
        {
            await signs.ReadAsync(beat.Token);
            return true;
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }

    /// <summary>
    /// After a clock was set back and the server started anew, the class goes on from its last tap instead of waiting for the clock.
    /// </summary>
    internal static long Now(SteadyClock clock, StoredLead? lead) =>
        Math.Max(clock.Now, lead is { Commands: [.., var last] } ? last.At : 0);
}
