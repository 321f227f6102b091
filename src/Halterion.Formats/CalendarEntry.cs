using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Halterion.Formats;

/// <summary>A booked class as an iCalendar entry (RFC 5545), in UTC so that no time zone has to travel with it.</summary>
/// <param name="Uid">Stays the same for a session, so that a later file replaces an earlier entry.</param>
/// <param name="Sequence">A higher one replaces a lower one.</param>
/// <param name="Minutes">The booked time.</param>
public sealed record CalendarEntry(string Uid, int Sequence, DateTimeOffset Starts, int Minutes, string Title, string Text)
{
    /// <summary>A calendar file with some classes.</summary>
    /// <param name="now">When it is written.</param>
    public static string Write(IEnumerable<CalendarEntry> entries, DateTimeOffset now)
    {
        var calendar = new Calendar { ProductId = "-//Halterion//Class//EN", Method = "PUBLISH" };
        foreach (var entry in entries)
        {
            calendar.Events.Add(new CalendarEvent
            {
                Uid = $"{entry.Uid}@halterion",
                Sequence = entry.Sequence,
                DtStamp = Utc(now),
                Start = Utc(entry.Starts),
                End = Utc(entry.Starts.AddMinutes(entry.Minutes)),
                Summary = entry.Title,
                Description = entry.Text.Length > 0 ? entry.Text : null,
            });
        }

        return new CalendarSerializer().SerializeToString(calendar) ?? throw new InvalidOperationException("The calendar entry "
            + "came out empty.");
    }

    private static CalDateTime Utc(DateTimeOffset moment) => new(moment.UtcDateTime, "UTC");
}
