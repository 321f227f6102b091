using System.Globalization;
using System.Text;
using Halterion.Core;
using Halterion.Core.Leading;

namespace Halterion.Formats;

/// <summary>What is called, as a WebVTT caption track (W3C WebVTT, 2019): a cue a scene.</summary>
public static class CueTrack
{
    public static string Of(LeadScript script)
    {
        var text = new StringBuilder("WEBVTT\n");
        for (var i = 0; i < script.Scenes.Length; i++)
        {
            var scene = script.Scenes[i];
            var words = new[] { scene.Headline, scene.Target, scene.SideWords, scene.Round }.Where(w => w.Length > 0);
            text.Append(CultureInfo.InvariantCulture, $"\n{i + 1}\n{Time(scene.Start)} --> "
                + $"{Time(scene.End)}\n{Escaped(string.Join(", ", words))}\n");
            if (scene.Next.Length > 0)
            {
                text.Append(CultureInfo.InvariantCulture, $"Next: {Escaped(scene.Next)}\n");
            }
        }

        return text.ToString();
    }

    private static string Time(Seconds at) =>
        string.Create(CultureInfo.InvariantCulture, $"{at.Value / 3600:00}:{at.Value / 60 % 60:00}:{at.Value % 60:00}.000");

    /// <summary>Cue text must hold no markup, no arrow and no line break.</summary>
    private static string Escaped(string words) =>
        string.Join(' ', words.Split(['\r', '\n'], StringSplitOptions.RemoveEmptyEntries))
            .Replace("&", "&amp;", StringComparison.Ordinal)
                .Replace("<", "&lt;", StringComparison.Ordinal)
                .Replace(">", "&gt;", StringComparison.Ordinal);
}
