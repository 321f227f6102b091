using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Halterion.Formats;

/// <summary>The booked class as an iCalendar entry (RFC 5545), in UTC so that no time zone has to travel with it.</summary>
public static class CalendarEntry
{
    /// <param name="uid">Stays the same for a session, so that a later file replaces an earlier entry.</param>
    /// <param name="sequence">A higher one replaces a lower one.</param>
    public static string Of(RunSheet sheet, ClassPlan plan, string uid, int sequence, DateTimeOffset starts, DateTimeOffset now)
    {
        var calendar = new Calendar { ProductId = "-//Halterion//Class//EN", Method = "PUBLISH" };
        calendar.Events.Add(new CalendarEvent
        {
            Uid = $"{uid}@halterion",
            Sequence = sequence,
            DtStamp = Utc(now),
            Start = Utc(starts),
            End = Utc(starts.AddMinutes(plan.SlotMinutes)),
            Summary = plan.Title,
            Description = string.Join("\n", sheet.Blocks.Select(b => $"{b.At} {b.Name}, {b.Length}")),
        });
        return new CalendarSerializer().SerializeToString(calendar) ?? throw new InvalidOperationException("The calendar entry "
            + "came out empty.");
    }

    private static CalDateTime Utc(DateTimeOffset moment) => new(moment.UtcDateTime, "UTC");
}
