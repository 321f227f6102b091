using System.Text;
using CsCheck;
using CsvHelper;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;
using Halterion.Formats;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Files for others, read back by independent readers: CsvHelper and Ical.Net.</summary>
public class FormatTests
{
    private static readonly DateTime Evening = new(2026, 11, 24, 18, 0, 0, DateTimeKind.Unspecified);

    [Fact]
    public void The_table_holds_every_span_whatever_the_names() => RandomClasses.Text.Sample(text =>
    {
        var file = Json(text);
        file["blocks"]![0]!["name"] = "=1+1, \"two\"\nlines";
        var evaluation = Desk.Evaluate(file.ToJsonString());
        using var bytes = new MemoryStream(
            Encoding.UTF8.GetBytes(TimelineCsv.Of(evaluation.Plan!, evaluation.Timeline!, Evening, new Preferences())));
        using var reader = CsvReader.Create(bytes);
        var rows = new List<(int Start, int End, string Clock, string Block)>();
        while (reader.Read())
        {
            rows.Add((reader.Parse<int>("start"), reader.Parse<int>("end"), reader.GetString("clock"), reader.GetString("block")));
        }

        Assert.Equal(evaluation.Timeline!.Spans.Select(s => (s.Start.Value, s.End.Value)), rows.Select(r => (r.Start, r.End)));
        Assert.All(rows, r => Assert.False(r.Block.StartsWith('=')));
        Assert.Equal("18:00:00", rows[0].Clock);
    }, iter: 200);

    [Fact]
    public void The_calendar_entry_is_the_booked_slot()
    {
        var plan = Plan(
            With(Block("", Station("""{"kind":"time","amount":30}""")))
                .Replace("\"Test\"", "\"Sails; ropes, and a very long title — with dashes that pass the seventy-five octets of a line\"",
                    StringComparison.Ordinal));
        var sheet = RunSheet.Of(plan, Timing.Compiler.Compile(plan).Timeline!, Evening, new Preferences());
        var starts = new DateTimeOffset(Evening, TimeSpan.FromHours(1));
        var text = CalendarEntry.Write(
            [new CalendarEntry("0198", 4, starts, plan.SlotMinutes, plan.Title, string.Join("\n", sheet.Blocks.Select(b =>
                $"{b.At} {b.Name}")))],
            starts.AddDays(-1));
        Assert.All(text.Split("\r\n"), line => Assert.True(Encoding.UTF8.GetByteCount(line) <= 75));
        var entry = Assert.Single(Ical.Net.Calendar.Load(text)!.Events);
        Assert.Equal(plan.Title, entry.Summary);
        Assert.Equal((starts.UtcDateTime, starts.UtcDateTime.AddMinutes(60)), (entry.DtStart!.AsUtc, entry.DtEnd!.AsUtc));
        Assert.Contains("18:00:00 Block", entry.Description, StringComparison.Ordinal);
        Assert.Equal(4, entry.Sequence);
    }

    [Fact]
    public void The_sheet_shows_times_as_the_instructor_reads_them()
    {
        var plan = Plan(
            With(
                Block(""" "rounds":2,"betweenRounds":60,"water":true """,
                    Station("""{"kind":"reps","amount":[12,8]}""", """ "sides":"each" """))));
        var timeline = Timing.Compiler.Compile(plan).Timeline!;
        var sheet = RunSheet.Of(plan, timeline, Evening, new Preferences { Clock = ClockFormat.H12 });
        Assert.Equal(("Tue 24 Nov 2026, 6:00 pm, 60 min", "6:00:00 pm"), (sheet.Booked, sheet.Blocks[0].At));
        Assert.Equal("2 rounds, 60 s between rounds with a drink break", sheet.Blocks[0].Words);
        Assert.Equal("12 reps each side / 8 reps each side", sheet.Blocks[0].Stations[0].Target);
        Assert.Equal("0:00", RunSheet.Of(plan, timeline, null, new Preferences()).Blocks[0].At);
    }
}
