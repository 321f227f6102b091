using System.Collections.Immutable;
using System.Net;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Halterion.Core.Body;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Sheets;

namespace Halterion.Formats;

/// <summary>
/// A class as one HTML file that leads it from any browser, with no server and no network: clock, bells, figures, calls. What is
/// private is not in it: it is made of what everybody in the room may see, and of the calls.
/// </summary>
public static partial class LeadPage
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    /// <summary>What the page's own program needs (web/src/leading/takeAlong/page.ts), named as in the contract.</summary>
    private sealed record Data(
        string Key,
        string Title,
        ImmutableArray<DataScene> Scenes,
        ImmutableArray<DataCard> Cards,
        ImmutableArray<DataCue> Cues,
        ImmutableArray<Call> Calls,
        ImmutableArray<Bell> Bells);

    private sealed record DataScene(
        int End,
        bool Gated,
        string BlockName,
        string Headline,
        string Target,
        string SideWords,
        string Round,
        string Next,
        ImmutableArray<int> Cards);

    private sealed record DataCard(string Main, ImmutableArray<string> Easier, ImmutableArray<string> Harder, string Figure);

    private sealed record DataCue(int At, CueKind Kind, int Shift, int? Scene);

    /// <param name="pictures">The figures of the class.</param>
    public static string Of(LeadScript script, ImmutableArray<OptionPicture> pictures)
    {
        var mains = pictures.Where(p => p.Tier == Core.Plans.Tier.Main).ToLookup(p => p.Station);
        string Picture(StationCard card) => card.Id is { } id && mains[id].FirstOrDefault() is { } picture ? Svg(picture.Figure) : "";
        var data = new Data(
            "",
            script.Title,
            [
                .. script.Scenes.Select(
                    s => new DataScene(s.End.Value, s.Gated, s.BlockName, s.Headline, s.Target, s.SideWords, s.Round, s.Next, s.Cards))],
            [.. script.Cards.Select(c => new DataCard(c.Main, c.Easier, c.Harder, Picture(c)))],
            [.. script.Cues.Select(c => new DataCue(c.At.Value, c.Kind, c.Shift, c.Scene))],
            script.Calls,
            script.Bells);
        // Taps that a browser kept are of this class as it is now, and of no other.
        data = data with { Key = Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(data, Json)))[..16] };
        // Nothing in a text can end the script it stands in.
        var json = JsonSerializer.Serialize(data, Json).Replace("<", "\\u003c", StringComparison.Ordinal);
        var program = Resource("lead-page.js");
        return Places().Replace(Resource("lead-page.html"), place => place.Groups[1].Value switch
        {
            "title" => WebUtility.HtmlEncode(script.Title),
            "script" => program,
            _ => json,
        });
    }

    private static string Svg(Figure figure)
    {
        var stills = figure.Stills.Select(still =>
            FormattableString.Invariant($"<g transform='translate({still.X} {still.Y})'><path class='floor' d='{still.Floor}'/>")
            + string.Concat(still.Layers.Select(layer => $"<path class='{JsonNamingPolicy.CamelCase.ConvertName(layer.Ink.ToString())}' "
                + $"d='{layer.Path}'/>")) + "</g>");
        return $"<svg viewBox='{figure.ViewBox}' role='img' aria-label='{WebUtility.HtmlEncode(figure.Alt)}'>{string.Concat(stills)}</svg>";
    }

    [GeneratedRegex("{{(title|script|data)}}")]
    private static partial Regex Places();

    private static string Resource(string name)
    {
        using var stream = typeof(LeadPage).Assembly.GetManifestResourceStream(name)!;
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
