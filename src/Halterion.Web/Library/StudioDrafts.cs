using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Planning;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Words;
using Halterion.Store;
using Halterion.Web.Answers;
using Halterion.Web.Bodies;
using Halterion.Web.Endpoints;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Halterion.Web.Library;

/// <summary>A brief with what the studio knows of the evening: who comes, with which kit, where, and what was held before.</summary>
internal sealed class StudioDrafts(SessionRooms sessionRooms, SessionChecks checks, Sessions sessions, Rooms rooms, Current current)
{
    private const int RecentClasses = 2;

    /// <summary>The whole brief, or what is wrong with the request.</summary>
    public (DraftBrief? Brief, ProblemHttpResult? Problem) Of(StudioDraftRequest request)
    {
        var session = request.Session is { } id ? sessions.Find(id) : null;
        if (request.Session is not null && session is null)
        {
            return (null, Problems.NotFound("session"));
        }

        var faults = request.Brief.FaultsFor(current.Evaluator);
        if (!faults.IsEmpty)
        {
            return (null, Problems.Faults(faults.At("", "/brief"), Problems.Request));
        }

        var booking = request.Booking is { } asked ? SessionEndpoints.Stored(asked)
            : session?.Booking ?? new SessionBooking(null, "Etc/UTC", 0, []);
        var evening = new StoredSession(session?.Id ?? Guid.Empty, Guid.Empty, 0, null, booking);
        var chosen = rooms.Of(evening.Id);
        var hall = sessionRooms.HallOf(chosen);
        var history = checks.HistoryOf(evening);
        var brief = request.Brief.ToBrief() with
        {
            People = sessionRooms.Expected(evening),
            HeadCount = booking.HeadCount,
            Kit = request.WithoutKit == true ? [] : hall is { Stock: { IsEmpty: false } stock } ? stock : null,
            Room = hall is null ? null : new RoomSize(hall.Floor.WidthM, hall.Floor.LengthM),
            Day = sessionRooms.DayOf(evening),
            History = history,
            Recent = request.NotLastTime == true && history is not null
                ?
                [
                    .. history.Held.Where(h => h.Start < history.Start).OrderByDescending(h => h.Start).Take(RecentClasses)
                        .Select(h => h.Moves),
                ]
                : [],
        };
        if (request.Class is not { } file)
        {
            return (brief, null);
        }

        var named = Halterion.Core.PlanFormat.PlanIds.Written(file);
        var read = current.Evaluator.Evaluate(named.GetRawText());
        return read is { Plan: { } plan, Timeline: { } timeline }
            ? (DraftVariations.Of(request.Vary ?? DraftVariation.Redraw, plan, named, timeline, [.. request.Pinned ?? []], brief), null)
            : (null, Problems.Faults(read.Faults.At("", "/class"), Problems.Request));
    }

    /// <summary>What a draft has that the class before it has not, in words.</summary>
    public ImmutableArray<string> Changes(JsonElement before, JsonObject after) =>
        PlanChanges.Between(JsonNode.Parse(before.GetRawText())!, after, current.Evaluator.Moves);
}
