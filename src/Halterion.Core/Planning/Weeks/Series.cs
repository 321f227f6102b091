using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;

namespace Halterion.Core.Planning.Weeks;

/// <summary>In what a class gets harder from week to week.</summary>
public enum HarderBy
{
    /// <summary>One rep more a part.</summary>
    Reps,
    /// <summary>One round more.</summary>
    Rounds,
    /// <summary>Ten seconds less rest.</summary>
    Rest,
    /// <summary>One step up the ladder.</summary>
    Options,
}

/// <summary>A day of the week on which a class is held.</summary>
/// <param name="Time">On the wall clock, such as 18:00.</param>
/// <param name="Class">Which of the series' classes, such as A.</param>
public sealed record SeriesDay(DayOfWeek Weekday, string Time, string Class);

/// <summary>Classes carried through some weeks, each a little harder than the one before, light ones between.</summary>
/// <param name="Harder">By turns, in this order; none: every week is the same.</param>
/// <param name="LightEvery">Every so many weeks one is light; null: none is.</param>
/// <param name="WeekStart">Monday, or Sunday.</param>
public sealed record Series(
    string Name,
    DateOnly FirstDay,
    int Weeks,
    ImmutableArray<SeriesDay> Days,
    ImmutableArray<HarderBy> Harder,
    int? LightEvery = null,
    DayOfWeek WeekStart = DayOfWeek.Monday)
{
    /// <summary>The days on which it is held, in order, with their week from 1.</summary>
    public ImmutableArray<(int Week, DateOnly Date, SeriesDay Day)> Dates()
    {
        var first = Logbook.WeekLoad.StartOf(FirstDay, WeekStart);
        return
        [
            .. from week in Enumerable.Range(0, Weeks)
               from day in Days
               let date = first.AddDays((7 * week) + (((int)day.Weekday - (int)WeekStart + 7) % 7))
               where date >= FirstDay
               orderby date, day.Time
               select (week + 1, date, day),
        ];
    }

    /// <param name="week">From 1.</param>
    public bool IsLight(int week) => LightEvery is { } every && week % every == 0;

    /// <summary>What gets harder in a week; null: nothing does, as in the first and in light ones.</summary>
    /// <param name="week">From 1.</param>
    public HarderBy? HarderIn(int week)
    {
        if (week <= 1 || IsLight(week) || Harder.IsEmpty)
        {
            return null;
        }

        var turn = Enumerable.Range(2, week - 1).Count(w => !IsLight(w));
        return Harder[(turn - 1) % Harder.Length];
    }
}

/// <summary>One class of a series, unrolled.</summary>
/// <param name="Week">From 1.</param>
/// <param name="Plan">The class as a file; ids are those of the class it began from.</param>
/// <param name="Changes">Against the strong week before, line by line.</param>
public sealed record SeriesClass(
    int Week,
    DateOnly Date,
    string Time,
    string Class,
    bool Light,
    JsonObject Plan,
    ImmutableArray<string> Changes,
    ImmutableArray<Finding> Findings)
{
    /// <summary>What it adds up to.</summary>
    [JsonIgnore]
    public Evaluation Evaluation { get; init; } = null!;
}

/// <summary>Reads a series as data.</summary>
public static class SeriesReader
{
    /// <summary>What a file of a series calls itself.</summary>
    public const string FormatName = "halterion-series";

    /// <summary>The edition of the format.</summary>
    public const int Version = 1;

    private const int MostWeeks = 52;
    private const int MostDays = 14;

    /// <summary>Reads the fields of a series; what is wrong is noted.</summary>
    public static Series? Read(Fields fields, Faults faults)
    {
        fields.Choice("format", [FormatName], required: true);
        fields.Whole("version", Version, Version, required: true);
        var name = fields.Text("name", 1, 120, required: true);
        var first = fields.Day("firstDay") ?? fields.Missing<DateOnly>("firstDay", "a day such as 2026-11-30");
        var weeks = fields.Whole("weeks", 1, MostWeeks, required: true);
        var days = fields.List("days", 1, MostDays, "a day of a series", f => DayOf(f), required: true);
        var harder = fields.WordList<HarderBy>("harder", 12);
        var light = fields.Whole("lightEvery", 2, MostWeeks);
        var start = fields.Choice("weekStart", ["monday", "sunday"]) == "sunday" ? DayOfWeek.Sunday : DayOfWeek.Monday;
        fields.Close("a series");
        if (days.GroupBy(d => (d.Weekday, d.Time)).FirstOrDefault(g => g.Count() > 1) is { } twice)
        {
            fields.Fault("days", $"Two classes on {twice.Key.Weekday} at {twice.Key.Time}.", "one class at a time");
        }

        return faults.None && name is not null && first is { } day && weeks is { } many
            ? new Series(name, day, many, days, harder, light, start)
            : null;
    }

    /// <summary>The series as it stands in a file.</summary>
    public static JsonObject Write(Series series)
    {
        var written = new JsonObject
        {
            ["format"] = FormatName,
            ["version"] = Version,
            ["name"] = series.Name,
            ["firstDay"] = series.FirstDay.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
            ["weeks"] = series.Weeks,
            ["days"] = new JsonArray([.. series.Days.Select(d => new JsonObject
            {
                ["weekday"] = WordsOf<DayOfWeek>.Of(d.Weekday),
                ["time"] = d.Time,
                ["class"] = d.Class,
            })]),
            ["harder"] = new JsonArray([.. series.Harder.Select(h => JsonValue.Create(WordsOf<HarderBy>.Of(h)))]),
        };
        if (series.LightEvery is { } every)
        {
            written["lightEvery"] = every;
        }

        if (series.WeekStart != DayOfWeek.Monday)
        {
            written["weekStart"] = WordsOf<DayOfWeek>.Of(series.WeekStart);
        }

        return written;
    }

    /// <summary>The classes that a series names, each read as one; what is wrong is noted under <c>/classes</c>.</summary>
    public static ImmutableDictionary<string, JsonElement> Classes(Fields body, Faults faults, Series? series, Evaluator evaluator)
    {
        var found = ImmutableDictionary.CreateBuilder<string, JsonElement>();
        if (body.Object("classes", required: true) is not { } map)
        {
            return found.ToImmutable();
        }

        foreach (var name in map.Names.ToArray())
        {
            var file = map.Take(name)!.Value;
            var reading = ClassReader.Read(System.Text.Encoding.UTF8.GetBytes(file.GetRawText()), evaluator.Moves);
            foreach (var fault in reading.Faults)
            {
                faults.Add(map.PointerTo(name) + fault.Pointer, fault.Detail, fault.Right);
            }

            found[name] = file;
        }

        for (var i = 0; series is not null && i < series.Days.Length; i++)
        {
            if (!found.ContainsKey(series.Days[i].Class))
            {
                faults.Add($"/series/days/{i}/class", $"There is no class “{series.Days[i].Class}”.", "the name of one under classes");
            }
        }

        return found.ToImmutable();
    }

    private static SeriesDay? DayOf(Fields fields)
    {
        var weekday = fields.Choice<DayOfWeek>("weekday", required: true);
        var time = fields.Text("time", 5, 5, required: true);
        var of = fields.Text("class", 1, 40, required: true);
        if (time is not null && !TimeOnly.TryParseExact(time, "HH:mm", System.Globalization.CultureInfo.InvariantCulture,
            System.Globalization.DateTimeStyles.None, out _))
        {
            fields.Fault("time", $"“{time}” is not a time of day.", "a time such as 18:00");
            time = null;
        }

        return weekday is { } day && time is not null && of is not null ? new SeriesDay(day, time, of) : null;
    }
}
