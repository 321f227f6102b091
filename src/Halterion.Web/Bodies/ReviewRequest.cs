using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Web.Answers;

namespace Halterion.Web.Bodies;

/// <summary>
/// A class with the people, kit and room it is held with, everything inline. All but the class may be left out; what is left out
/// is not judged.
/// </summary>
/// <param name="Plan">The class file.</param>
/// <param name="Date">The day, such as 2026-11-26, or the start, such as 2026-11-26T18:00.</param>
/// <param name="Groups">By block of a rotation: ids of people, a list a group.</param>
public sealed record ReviewRequest(
    JsonElement Plan,
    string? Date = null,
    IReadOnlyList<Person>? People = null,
    int? HeadCount = null,
    IReadOnlyList<Pin>? Pins = null,
    IReadOnlyList<Waiver>? Waivers = null,
    Preferences? Settings = null,
    IReadOnlyList<StockLine>? Kit = null,
    RoomSize? Room = null,
    IReadOnlyList<HeldClass>? History = null,
    IReadOnlyDictionary<string, ImmutableArray<ImmutableArray<PersonId>>>? Groups = null) : IRead<ReviewRequest>
{
    internal const int MostPeople = 500;

    /// <summary>The day it is held on; none said: nobody's limit has run out.</summary>
    public DateOnly Day => Date is null ? DateOnly.MinValue : DateOnly.ParseExact(Date[..10], "yyyy-MM-dd", CultureInfo.InvariantCulture);

    /// <summary>Where no time is given a class begins at six in the evening.</summary>
    private const int UsualHour = 18;

    /// <summary>What was held before, where both that and the day are known.</summary>
    public History? HistoryBefore =>
        Date is not null && History is not null && When(Date) is { } start ? new History(start, [.. History]) : null;

    public static ReviewRequest? Read(Fields body, Faults faults)
    {
        var plan = body.Json("plan", faults);
        var people = PeopleOf(body, faults);
        var date = StartOf(body);
        var waivers = body.List("waivers", 0, 200, "a waiver", WaiverOf);
        var settings = body.Object("settings") is { } set ? CheckReaders.Settings(set) : null;
        var kit = body.Has("kit")
            ? body.List("kit", 0, KitReader.MostLines, "a line of the stock", KitReader.Line)
            : (IReadOnlyList<StockLine>?)null;
        return new ReviewRequest(
            plan ?? default, date, people, body.Whole("headCount", 0, MostPeople), body.List(
                "pins", 0, 20_000, "a pin", PinOf), waivers, settings, kit,
            body.Object("room") is { } room ? SizeOf(room) : null,
            body.Has("history") ? body.List("history", 0, 1000, "a past class", HeldOf) : null,
            GroupsOf(body, faults));
    }

    public static ImmutableArray<PlanFault> Beside(ReviewRequest value, IServiceProvider services)
    {
        if (value.Plan.ValueKind != JsonValueKind.Object)
        {
            return value.FaultsFor(null);
        }

        var read = services.GetRequiredService<Evaluator>().Evaluate(value.Plan.GetRawText());
        return [.. read.Faults.At("", "/plan"), .. value.FaultsFor(read.Plan)];
    }

    /// <summary>
    /// What stands in this request that the class and the people in it do not have; without a class only what the people do not have.
    /// </summary>
    public ImmutableArray<PlanFault> FaultsFor(ClassPlan? plan)
    {
        var faults = new Faults();
        var people = (People ?? []).Select(p => p.Id).ToHashSet();
        var pins = Pins ?? [];
        for (var i = 0; i < pins.Count; i++)
        {
            if (!people.Contains(pins[i].Person))
            {
                faults.Add($"/pins/{i}/person", $"“{pins[i].Person}” is not in the list of people.", "the id of somebody in people");
            }

            if (plan is null)
            {
                continue;
            }

            if (plan.Find(pins[i].Station) is not { } found)
            {
                faults.Add($"/pins/{i}/station", $"The class has no station “{pins[i].Station}”.", "the id of one of its stations");
            }
            else if (!found.Station.Options.Any(o => o.Id == pins[i].Option))
            {
                faults.Add($"/pins/{i}/option", $"The station has no option “{pins[i].Option}”.", "the id of one of its options");
            }
        }

        foreach (var (block, groups) in Groups ?? ImmutableDictionary<string, ImmutableArray<ImmutableArray<PersonId>>>.Empty)
        {
            var at = JsonText.PointerTo("/groups", block);
            if (plan is null)
            {
                continue;
            }

            if (plan.Blocks.FirstOrDefault(b => b.Id.Value == block) is not { Shape: BlockShape.Rotation } rotation)
            {
                faults.Add(at, $"“{block}” is not a rotation in this class.", "the id of a block in which groups rotate");
                continue;
            }

            if (groups.Length != rotation.Stations.Length)
            {
                faults.Add(at, $"There are {groups.Length} groups.", $"as many as stations: {rotation.Stations.Length}");
            }

            var seen = new HashSet<PersonId>();
            foreach (var (person, where) in groups.SelectMany((g, i) => g.Select((p, j) => (p, $"{at}/{i}/{j}"))))
            {
                if (!people.Contains(person) || !seen.Add(person))
                {
                    faults.Add(where, people.Contains(person) ? $"“{person}” is in a group already."
                        : $"“{person}” is not in the list of people.", "the id of somebody in people, once");
                }
            }
        }

        return faults.All;
    }

    internal static ImmutableArray<Person> PeopleOf(Fields body, Faults faults)
    {
        var people = body.List("people", 0, MostPeople, "a person", fields => PersonReader.Read(fields, faults));
        var twice = people.Select((p, i) => (p.Id, i)).GroupBy(p => p.Id).SelectMany(g => g.Skip(1));
        foreach (var (id, at) in twice)
        {
            faults.Add($"/people/{at}/id", $"“{id}” is listed twice.", "an id of their own for each");
        }

        return people;
    }

    internal static string? StartOf(Fields body)
    {
        if (body.Text("date", 1, 40) is not { } text)
        {
            return null;
        }

        if (When(text) is not null)
        {
            return text;
        }

        body.Fault("date", $"“{text}” is not a date.", "a day such as 2026-11-26, or a start such as 2026-11-26T18:00");
        return null;
    }

    private static Pin? PinOf(Fields fields)
    {
        var person = fields.Text("person", 1, 64, required: true);
        var station = fields.Text("station", 1, 40, required: true);
        var option = fields.Text("option", 1, 40, required: true);
        var reason = fields.Text("reason", 0, 400);
        return person is null || station is null || option is null
            ? null
            : new Pin(new PersonId(person), new PlaceId(station), new PlaceId(option), reason);
    }

    private static Waiver? WaiverOf(Fields fields)
    {
        var code = fields.Text("code", 1, 120, required: true);
        var place = fields.Text("place", 1, 40, required: true);
        var reason = fields.Text("reason", 1, 400, required: true);
        return code is null || place is null || reason is null ? null : new Waiver(code, new PlaceId(place), reason);
    }

    private static Dictionary<string, ImmutableArray<ImmutableArray<PersonId>>> GroupsOf(Fields body, Faults faults)
    {
        var all = new Dictionary<string, ImmutableArray<ImmutableArray<PersonId>>>();
        if (body.Object("groups") is not { } groups)
        {
            return all;
        }

        foreach (var block in groups.Names.ToArray())
        {
            var lists = groups.Items(block, 0, 16, "groups");
            all[block] =
            [
                .. lists.Select((list, i) =>
                {
                    if (list.ValueKind != JsonValueKind.Array)
                    {
                        faults.Add(groups.PointerTo(block, i), $"This is {Fields.Kind(list)}.", "a list of ids");
                        return ImmutableArray<PersonId>.Empty;
                    }

                    return
                    [
                        .. list.EnumerateArray().Select((id, j) =>
                        {
                            if (id.ValueKind == JsonValueKind.String && JsonText.Of(id) is { } text)
                            {
                                return new PersonId(text);
                            }

                            faults.Add($"{groups.PointerTo(block, i)}/{j}", $"This is {Fields.Kind(id)}.", "the id of somebody in people");
                            return default;
                        }),
                    ];
                }),
            ];
        }

        return all;
    }

    internal static RoomSize? SizeOf(Fields fields)
    {
        var width = fields.Decimal("widthM", 1, 200) ?? fields.Missing<decimal>("widthM", "metres, 1–200");
        var length = fields.Decimal("lengthM", 1, 200) ?? fields.Missing<decimal>("lengthM", "metres, 1–200");
        fields.Close("a room");
        return width is { } w && length is { } l ? new RoomSize(w, l) : null;
    }

    internal static HeldClass? HeldOf(Fields fields)
    {
        var text = fields.Text("start", 1, 40, required: true);
        var start = text is null ? null : When(text);
        if (text is not null && start is null)
        {
            fields.Fault("start", $"“{text}” is not a start time.", "a start such as 2026-11-24T18:00");
        }

        var minutes = fields.Whole("minutes", 0, 1440);
        var effort = fields.Decimal("effort", 0, 10);
        var load = fields.Decimal("load", 0, 100_000);
        var sets = ImmutableSortedDictionary.CreateBuilder<Family, decimal>();
        if (fields.Object("hardSets") is { } map)
        {
            foreach (var name in map.Names.ToArray())
            {
                if (!WordsOf<Family>.All.TryGetValue(name, out var family))
                {
                    map.Fault(name, $"“{name}” is not a move family.", $"one of {string.Join(", ", WordsOf<Family>.All.Keys)}");
                }
                else if (map.Decimal(name, 0, 1000) is { } hard)
                {
                    sets[family] = hard;
                }
            }
        }

        var moves = fields.Items("moves", 0, 500, "moves");
        for (var i = 0; i < moves.Length; i++)
        {
            if (moves[i].ValueKind != JsonValueKind.String)
            {
                fields.FaultAt($"/moves/{i}", $"This is {Fields.Kind(moves[i])}.", "the id of a move");
            }
        }

        return start is { } at
            ? new HeldClass(at, minutes, effort, sets.ToImmutable(), [.. moves.Select(m => new MoveId(m.ToString()))], load)
            : null;
    }

    /// <summary>A day or a start; a day alone is taken as its evening.</summary>
    internal static DateTime? When(string text) =>
        DateTime.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day.AddHours(UsualHour)
        : DateTime.TryParseExact(text, ["yyyy-MM-ddTHH:mm", "yyyy-MM-ddTHH:mm:ss"], CultureInfo.InvariantCulture, DateTimeStyles.None,
            out var start) ? start : null;
}
