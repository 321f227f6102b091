using System.Globalization;
using Halterion.Core;
using Halterion.Core.PlanFormat;

namespace Halterion.Web.Bodies;

/// <summary>When and for how many the room is booked.</summary>
/// <param name="StartsAt">
/// Wall-clock start in <paramref name="Zone"/>, such as 2026-11-24T18:00; null: not fixed yet. Where the clocks go back and a
/// time comes twice, its distance from UTC stands behind it: 2026-10-25T02:30+01:00.
/// </param>
/// <param name="Zone">IANA time zone.</param>
/// <param name="Expected">Who is expected; left out or empty: not said.</param>
public sealed record Booking(string Zone, int HeadCount, string? StartsAt = null, IReadOnlyList<PersonId>? Expected = null);

/// <summary>Reads a booking. A start that the zone skips is refused; one that it has twice is asked about.</summary>
internal static class BookingReader
{
    public const string Format = "yyyy-MM-ddTHH:mm";
    private const int MostPeople = 500;

    public static Booking? Read(Fields request, Faults faults)
    {
        if (request.Object("booking", required: true) is not { } fields)
        {
            return null;
        }

        var zone = Zone(fields);
        var starts = StartsAt(fields, zone);
        var heads = fields.Whole("headCount", 0, MostPeople, required: true);
        var expected = People(fields, faults, "expected");
        fields.Close("a booking");
        return zone is not null && heads is { } count ? new Booking(zone.Id, count, starts, expected) : null;
    }

    /// <summary>The moment at which a booking begins.</summary>
    public static DateTimeOffset Moment(string startsAt, string zone)
    {
        var local = DateTime.ParseExact(startsAt[..16], Format, CultureInfo.InvariantCulture);
        return new DateTimeOffset(
            local, startsAt.Length > 16 ? Offset(startsAt[16..]) : TimeZoneInfo.FindSystemTimeZoneById(zone).GetUtcOffset(local));
    }

    private static TimeZoneInfo? Zone(Fields fields)
    {
        if (fields.Text("zone", 1, 120, required: true) is not { } name)
        {
            return null;
        }

        if (TimeZoneInfo.TryFindSystemTimeZoneById(name, out var zone))
        {
            return zone;
        }

        fields.Fault("zone", $"“{name}” is not a time zone.", "an IANA time zone, such as Europe/Lisbon");
        return null;
    }

    private static string? StartsAt(Fields fields, TimeZoneInfo? zone)
    {
        if (fields.Text("startsAt", 1, 40) is not { } text)
        {
            return null;
        }

        var given = text.Length > 16 ? text[16..] : null;
        if (!DateTime.TryParseExact(
                text[..Math.Min(16, text.Length)], Format, CultureInfo.InvariantCulture, DateTimeStyles.None, out var local)
            || local.Year is < 2000 or > 2199
            || (given is not null && !IsOffset(given)))
        {
            fields.Fault("startsAt", $"“{text}” is not a start time.", "a day and a time from 2000 to 2199, such as 2026-11-24T18:00");
            return null;
        }

        if (zone is null)
        {
            return text;
        }

        if (zone.IsInvalidTime(local))
        {
            fields.Fault(
                "startsAt",
                $"{local:HH:mm} does not exist on that day because the clocks go forward.",
                $"an earlier time, or {AfterGap(zone, local):HH:mm}");
            return null;
        }

        var offsets = zone.IsAmbiguousTime(local)
            ? zone.GetAmbiguousTimeOffsets(local).OrderDescending().ToArray()
            : [zone.GetUtcOffset(local)];
        if (given is null && offsets.Length > 1)
        {
            fields.Fault(
                "startsAt", $"{local:HH:mm} happens twice on that day because the clocks go back.",
                $"{text}{Words(offsets[0])} for the first, {text}{Words(offsets[1])} for the second");
            return null;
        }

        if (given is not null && !offsets.Contains(Offset(given)))
        {
            fields.Fault("startsAt", $"{zone.Id} is not {given} from UTC at that time.",
                string.Join(" or ", offsets.Select(o => text[..16] + Words(o))));
            return null;
        }

        return offsets.Length > 1 ? text : text[..16];
    }

    private static DateTime AfterGap(TimeZoneInfo zone, DateTime local)
    {
        while (zone.IsInvalidTime(local))
        {
            local = local.AddMinutes(1);
        }

        return local;
    }

    private static bool IsOffset(string text) =>
        text.Length == 6 && text[0] is '+' or '-' && TimeSpan.TryParseExact(
            text[1..],
            @"hh\:mm",
            CultureInfo.InvariantCulture,
            out var length) && length <= TimeSpan.FromHours(14);

    private static TimeSpan Offset(string text)
    {
        var length = TimeSpan.ParseExact(text[1..], @"hh\:mm", CultureInfo.InvariantCulture);
        return text[0] == '-' ? -length : length;
    }

    private static string Words(TimeSpan offset) => $"{(offset < TimeSpan.Zero ? '-' : '+')}{offset:hh\\:mm}";

    /// <summary>A list of ids of people.</summary>
    public static List<PersonId> People(Fields fields, Faults faults, string name)
    {
        var items = fields.Has(name) ? fields.Items(name, 0, MostPeople, "people") : [];
        var people = new List<PersonId>();
        for (var i = 0; i < items.Length; i++)
        {
            if (items[i].ValueKind == System.Text.Json.JsonValueKind.String && Guid.TryParseExact(items[i].GetString(), "D", out var id))
            {
                people.Add(new PersonId(id.ToString()));
            }
            else
            {
                faults.Add(fields.PointerTo(name, i), $"This is {Fields.Kind(items[i])}.", "the id of a person");
            }
        }

        return people;
    }
}
