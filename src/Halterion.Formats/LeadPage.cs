using System.Collections.Immutable;
using System.Net;
using System.Security.Cryptography;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Halterion.Core;
using Halterion.Core.Body;
using Halterion.Core.Leading;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Plans;
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
        ImmutableArray<string> Figures,
        ImmutableArray<DataCue> Cues,
        ImmutableArray<Call> Calls,
        ImmutableArray<TimeLeft> Left,
        ImmutableArray<Bell> Bells,
        ImmutableDictionary<string, string> Clips);

    private sealed record DataScene(
        int End,
        bool Gated,
        string BlockName,
        string Headline,
        string Target,
        string SideWords,
        string Round,
        string Next,
        ImmutableArray<int> Cards,
        string Title,
        bool Ahead,
        string Hand,
        string Load,
        string Others,
        int? Reps,
        decimal? RepSeconds,
        bool CountsDown);

    /// <param name="Figure">Which of the figures; null: it has none.</param>
    private sealed record DataCard(
        string Name, string Target, string Main, ImmutableArray<string> Easier, ImmutableArray<string> Harder, string Cue, int? Figure);

    private sealed record DataCue(int At, CueKind Kind, int Shift, int? Scene);

    /// <param name="pictures">The figures of the class.</param>
    /// <param name="clips">What the instructor recorded, by its words: said where the browser has no voice.</param>
    public static string Of(
        LeadScript script, ImmutableArray<OptionPicture> pictures, ImmutableDictionary<string, (string Type, byte[] Sound)> clips)
    {
        var drawn = pictures.ToDictionary(p => (p.Option, p.Part, p.Side));
        var figures = new List<OptionPicture>();
        int? Picture(StationCard card)
        {
            if (card.Option is not { } option || Found(drawn, option, card.Part, card.Side) is not { } picture)
            {
                return null;
            }

            if (!figures.Contains(picture))
            {
                figures.Add(picture);
            }

            return figures.IndexOf(picture);
        }

        ImmutableArray<DataCard> cards =
            [.. script.Cards.Select(c => new DataCard(c.Name, c.Target, c.Main, Of(c, Tier.Easier), Of(c, Tier.Harder), c.Cue,
                Picture(c)))];
        var data = new Data(
            "",
            script.Title,
            [
                .. script.Scenes.Select(
                    s => new DataScene(
                        s.End.Value, s.Gated, s.BlockName, s.Headline, s.Target, s.SideWords, s.Round, s.Next, s.Cards, s.Title, s.Ahead,
                        s.Hand, s.Load, s.Others, s.Reps, s.RepSeconds, s.CountsDown))],
            cards,
            [.. figures.Select(f => Svg(f.Figure))],
            [.. script.Cues.Select(c => new DataCue(c.At.Value, c.Kind, c.Shift, c.Scene))],
            script.Calls,
            script.Left,
            script.Bells,
            clips.ToImmutableDictionary(c => c.Key, c => $"data:{c.Value.Type};base64,{Convert.ToBase64String(c.Value.Sound)}"));
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

    private static ImmutableArray<string> Of(StationCard card, Tier tier) =>
        [.. card.Options.Where(o => o.Tier == tier).Select(o => o.Differs)];

    /// <summary>Drawn for that part and side, or else as near to it as it is drawn at all.</summary>
    private static OptionPicture? Found(
        Dictionary<(PlaceId, int?, Side), OptionPicture> drawn, PlaceId option, int? part, Side side) =>
        drawn.GetValueOrDefault((option, part, side)) ?? drawn.GetValueOrDefault((option, part, Side.Both))
        ?? drawn.GetValueOrDefault((option, null, side)) ?? drawn.GetValueOrDefault((option, null, Side.Both));

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
