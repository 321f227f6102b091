using System.Globalization;
using System.Text;
using Halterion.Core.Plans;

namespace Halterion.Core.Formats;

/// <summary>The booked class as an iCalendar entry (RFC 5545), in UTC so that no time zone has to travel with it.</summary>
public static class CalendarEntry
{
    private const int LineOctets = 75;

    /// <param name="uid">Stays the same for a class, so that a later file replaces an earlier entry.</param>
    /// <param name="sequence">The class's version: a higher one replaces a lower one.</param>
    public static string Of(RunSheet sheet, ClassPlan plan, string uid, int sequence, DateTimeOffset starts, DateTimeOffset now)
    {
        var blocks = string.Join("\n", sheet.Blocks.Select(b => $"{b.At} {b.Name}, {b.Length}"));
        string[] lines =
        [
            "BEGIN:VCALENDAR",
            "VERSION:2.0",
            "PRODID:-//Halterion//Class//EN",
            "METHOD:PUBLISH",
            "BEGIN:VEVENT",
            $"UID:{uid}@halterion",
            $"SEQUENCE:{sequence}",
            $"DTSTAMP:{Utc(now)}",
            $"DTSTART:{Utc(starts)}",
            $"DTEND:{Utc(starts.AddMinutes(plan.SlotMinutes))}",
            $"SUMMARY:{Escaped(plan.Title)}",
            $"DESCRIPTION:{Escaped(blocks)}",
            "END:VEVENT",
            "END:VCALENDAR",
        ];
        return string.Concat(lines.Select(Folded));
    }

    private static string Utc(DateTimeOffset moment) => moment.UtcDateTime.ToString("yyyyMMdd'T'HHmmss'Z'", CultureInfo.InvariantCulture);

    private static string Escaped(string text) => text
        .Replace("\\", "\\\\", StringComparison.Ordinal).Replace(";", "\\;", StringComparison.Ordinal).Replace(",", "\\,", StringComparison.Ordinal)
        .Replace("\r", "", StringComparison.Ordinal).Replace("\n", "\\n", StringComparison.Ordinal);

    /// <summary>A line of at most 75 octets; the rest goes on after a line break and a space (section 3.1).</summary>
    private static string Folded(string line)
    {
        var text = new StringBuilder();
        var octets = 0;
        foreach (var rune in line.EnumerateRunes())
        {
            if (octets + rune.Utf8SequenceLength > LineOctets)
            {
                text.Append("\r\n ");
                octets = 1;
            }

            text.Append(rune.ToString());
            octets += rune.Utf8SequenceLength;
        }

        return text.Append("\r\n").ToString();
    }
}
