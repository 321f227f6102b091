using System.Collections.Immutable;
using System.Net;
using System.Text.Json;
using System.Text.Json.Serialization;
using Halterion.Core.Body;
using Halterion.Core.Views;

namespace Halterion.Formats;

/// <summary>
/// A class as one HTML file that leads it from any browser, with no server and no network: clock, bells, figures, calls. What is
/// private is not in it: it is made of what everybody in the room may see, and of the calls.
/// </summary>
public static class LeadPage
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    /// <summary>What the page's own program needs.</summary>
    private sealed record Data(string Title, int Length, ImmutableArray<DataScene> Scenes, ImmutableArray<DataCard> Cards, ImmutableArray<DataCue> Cues, ImmutableArray<DataCall> Calls);

    private sealed record DataScene(int Start, int End, string Kind, string Block, string Head, string Target, string Side, string Round, string Next, ImmutableArray<int> Cards, bool Gated);

    private sealed record DataCard(string Name, string Main, ImmutableArray<string> Easier, ImmutableArray<string> Harder, string Figure);

    private sealed record DataCue(int At, double Pitch, double Length, int Strikes);

    private sealed record DataCall(decimal At, string Text, decimal Seconds);

    /// <param name="pictures">The figures of the class.</param>
    public static string Of(LeadScript script, ImmutableArray<OptionPicture> pictures)
    {
        var mains = pictures.Where(p => p.Tier == Core.Plans.Tier.Main).ToLookup(p => p.Station);
        var data = new Data(
            script.Title,
            script.Length.Value,
            [.. script.Scenes.Select(s => new DataScene(
                s.Start.Value, s.End.Value, JsonNamingPolicy.CamelCase.ConvertName(s.Kind.ToString()), s.BlockName, s.Headline, s.Target, s.SideWords, s.Round, s.Next, s.Cards, s.Gated))],
            [.. script.Cards.Select(c => new DataCard(
                c.Name, c.Main, c.Easier, c.Harder,
                c.Id is { } id && mains[id].FirstOrDefault() is { } picture ? Svg(picture.Figure) : ""))],
            [.. script.Cues.Select(c => (Cue: c, Bell: BellTrack.BellFor(c.Kind))).Select(c => new DataCue(c.Cue.At.Value, c.Bell.Pitch, c.Bell.Length, c.Bell.Strikes))],
            [.. script.Calls.Select(c => new DataCall(c.At, c.Text, c.Seconds))]);
        // Nothing in a text can end the script it stands in.
        var json = JsonSerializer.Serialize(data, Json).Replace("<", "\\u003c", StringComparison.Ordinal);
        return Template.Replace("{{title}}", WebUtility.HtmlEncode(script.Title), StringComparison.Ordinal).Replace("\"{{data}}\"", json, StringComparison.Ordinal);
    }

    private static string Svg(Figure figure)
    {
        var stills = figure.Stills.Select(still =>
            FormattableString.Invariant($"<g transform='translate({still.X} {still.Y})'><path class='floor' d='{still.Floor}'/>")
            + string.Concat(still.Layers.Select(layer => $"<path class='{JsonNamingPolicy.CamelCase.ConvertName(layer.Ink.ToString())}' d='{layer.Path}'/>")) + "</g>");
        return $"<svg viewBox='{figure.ViewBox}' role='img' aria-label='{WebUtility.HtmlEncode(figure.Alt)}'>{string.Concat(stills)}</svg>";
    }

    private static string Template
    {
        get
        {
            using var stream = typeof(LeadPage).Assembly.GetManifestResourceStream("lead-page.html")!;
            using var reader = new StreamReader(stream);
            return reader.ReadToEnd();
        }
    }
}
