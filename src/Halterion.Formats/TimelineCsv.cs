using System.Globalization;
using System.Text;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Leading;
using Halterion.Core.Plans;
using Halterion.Core.Sheets;
using Halterion.Core.Timing;

namespace Halterion.Formats;

/// <summary>A class as comma-separated values (RFC 4180): a row a span, times in seconds from the start.</summary>
public static class TimelineCsv
{
    private const string Header = "start,end,seconds,clock,kind,block,round,station,side,what,target";

    /// <summary>A cell that begins so would be taken for a formula by a spreadsheet.</summary>
    private const string FormulaStarts = "=+-@\t\r";

    /// <param name="startsAt">Wall-clock start for the column <c>clock</c>; without it the column counts from the start.</param>
    public static string Of(ClassPlan plan, Timeline timeline, DateTime? startsAt, Preferences preferences)
    {
        var script = LeadScript.Of(plan, timeline, preferences);
        var text = new StringBuilder(Header).Append("\r\n");
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            var (span, scene) = (timeline.Spans[i], script.Scenes[i]);
            var cells = new[]
            {
                Number(span.Start.Value), Number(span.End.Value), Number(span.Length().Value),
                ClockTime.At(startsAt, span.Start, preferences.Clock),
                JsonNamingPolicy.CamelCase.ConvertName(span.Kind.ToString()),
                scene.BlockName,
                span.Round is { } round ? Number(round + 1) : "",
                span.Station is { } station ? plan.Blocks[span.Block].Stations[station].Name : "",
                span.Side is { } side ? JsonNamingPolicy.CamelCase.ConvertName(side.ToString()) : "",
                scene.Headline,
                scene.Target,
            };
            text.AppendJoin(',', cells.Select(Cell)).Append("\r\n");
        }

        return text.ToString();
    }

    private static string Number(int value) => value.ToString(CultureInfo.InvariantCulture);

    private static string Cell(string text)
    {
        var safe = text.Length > 0 && FormulaStarts.Contains(text[0], StringComparison.Ordinal) ? "'" + text : text;
        return safe.AsSpan().IndexOfAny("\",\r\n") < 0 ? safe : $"\"{safe.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
    }
}
