using System.Collections.Immutable;
using Halterion.Core.People;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Halterion.Formats;

/// <summary>
/// The lists of a booking desk as iCalendar (RFC 5545, iTIP by RFC 5546): a VEVENT a class, an ATTENDEE a person. PARTSTAT says how they
/// stand: ACCEPTED comes, TENTATIVE waits for a place, DECLINED has cancelled; without one they come.
/// </summary>
public static class DeskCalendar
{
    /// <summary>More than the largest room takes.</summary>
    public const int MostGuests = 500;

    private const string Coming = "ACCEPTED";
    private const string Waiting = "TENTATIVE";
    private const string Gone = "DECLINED";

    /// <param name="zone">Of times that name no zone of their own.</param>
    /// <returns>The classes of a file; or none, and in words why.</returns>
    public static (ImmutableArray<DeskEvent> Events, string? Fault) Read(string text, TimeZoneInfo zone)
    {
        try
        {
            var calendars = CalendarCollection.Load(text);
            var events = calendars.SelectMany(c =>
                c.Events.Select(
                    e => Read(e, string.Equals(c.Method, "CANCEL", StringComparison.OrdinalIgnoreCase), zone))).ToImmutableArray();
            return events.IsEmpty ? ([], "It has no classes in it.") : (events, null);
        }
        catch (FormatException e)
        {
            return ([], e.Message);
        }
        // The library throws whatever its parser meets; a file from outside must not stop those that come after it.
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            return ([], "It is not a calendar file (.ics).");
        }
    }

    /// <summary>A file as a desk would write it.</summary>
    /// <param name="address">The address of a guest.</param>
    public static string Write(DeskEvent what, Func<DeskGuest, string> address, TimeSpan length, DateTimeOffset now)
    {
        var calendar = new Calendar { ProductId = "-//Simulated desk//EN", Method = what.Cancelled ? "CANCEL" : "REQUEST" };
        var entry = new CalendarEvent
        {
            Uid = what.Uid,
            Sequence = what.Sequence,
            Summary = what.Title,
            DtStamp = Utc(now),
            Start = Utc(what.Starts),
            End = Utc(what.Starts + length),
            Status = what.Cancelled ? "CANCELLED" : "CONFIRMED",
        };
        foreach (var guest in what.Guests)
        {
            entry.Attendees.Add(new Attendee($"mailto:{address(guest)}")
            {
                CommonName = guest.Name,
                ParticipationStatus = guest.Standing switch { DeskStanding.Coming => Coming, DeskStanding.Waiting => Waiting, _ => Gone },
            });
        }

        calendar.Events.Add(entry);
        return new CalendarSerializer().SerializeToString(calendar) ?? throw new InvalidOperationException("The list came out empty.");
    }

    private static DeskEvent Read(CalendarEvent entry, bool cancelled, TimeZoneInfo zone)
    {
        if (string.IsNullOrWhiteSpace(entry.Uid) || entry.Uid.Length > 200)
        {
            throw new FormatException("One of its classes has no ID (UID).");
        }

        if (entry.DtStart is not { HasTime: true } start)
        {
            throw new FormatException("One of its classes has no start time.");
        }

        if (entry.Attendees.Count > MostGuests)
        {
            throw new FormatException($"One of its classes has more than {MostGuests} people.");
        }

        var guests = entry.Attendees.Select(Read).OfType<DeskGuest>().GroupBy(g => g.Key).Select(g => g.Last());
        return new DeskEvent(
            entry.Uid, entry.Sequence, Shortened(entry.Summary ?? ""), start.IsFloating ? Local(start.Value, zone)
                : new DateTimeOffset(start.AsUtc, TimeSpan.Zero),
            cancelled || string.Equals(entry.Status, "CANCELLED", StringComparison.OrdinalIgnoreCase), [.. guests]);
    }

    private static DeskGuest? Read(Attendee attendee)
    {
        var address = attendee.Value?.OriginalString is { } uri && uri.StartsWith("mailto:", StringComparison.OrdinalIgnoreCase) ? uri[7..]
            : attendee.Value?.OriginalString;
        var name = Shortened(DeskGuest.NameOf(attendee.CommonName ?? ""));
        if (name.Length == 0)
        {
            // Before the at sign, as most programs show it.
            name = Shortened(address?.Split('@')[0] ?? "");
        }

        // A room or a projector is nobody who trains.
        return name.Length == 0 || attendee.Type is "RESOURCE" or "ROOM" ? null
            : new DeskGuest(DeskGuest.KeyOf(address, name), name, attendee.ParticipationStatus?.ToUpperInvariant() switch
            {
                Gone => DeskStanding.Gone,
                Waiting => DeskStanding.Waiting,
                _ => DeskStanding.Coming,
            });
    }

    private static DateTimeOffset Local(DateTime time, TimeZoneInfo zone)
    {
        var local = DateTime.SpecifyKind(time, DateTimeKind.Unspecified);
        return new DateTimeOffset(local, zone.GetUtcOffset(local));
    }

    private static string Shortened(string text) => text.Length <= 120 ? text : text[..120];

    private static CalDateTime Utc(DateTimeOffset moment) => new(moment.UtcDateTime, "UTC");
}
