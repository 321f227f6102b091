using System.Globalization;
using System.Text.RegularExpressions;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Words;

/// <summary>What a class is, in the sentence with which it is announced, and its title held against the clock.</summary>
public static partial class Announcement
{
    /// <summary>
    /// Such as "Five moves, three rounds, 24 minutes, with a warm-up before and a cool-down after."; empty without a main part.
    /// </summary>
    public static string Of(ClassPlan plan, Timeline timeline)
    {
        var main = plan.Blocks.Select((block, i) => (Block: block, Index: i)).Where(b => IsMain(b.Block)).ToArray();
        if (main.Length == 0)
        {
            return "";
        }

        var indices = main.Select(b => b.Index).ToHashSet();
        var seconds = timeline.Spans.Where(s => indices.Contains(s.Block)).Sum(s => (s.End - s.Start).Value);
        var moves = main.SelectMany(b => b.Block.Stations).Select(s => s.Main.Move).Distinct().Count();
        var parts = new List<string> { Many(moves, "move") };
        if (main is [var only])
        {
            if (only.Block.Rounds > 1 && only.Block.Shape.IsInRounds)
            {
                parts.Add(Many(only.Block.Rounds, only.Block.Shape.RoundWord));
            }
        }
        else
        {
            parts.Add(Many(main.Length, "part"));
        }

        var minutes = (int)Math.Round(seconds / 60.0, MidpointRounding.AwayFromZero);
        parts.Add(minutes == 1 ? "1 minute" : string.Create(CultureInfo.InvariantCulture, $"{minutes} minutes"));
        var around = (plan.Blocks.Any(b => b.Phase == Phase.Warmup), plan.Blocks.Any(b => b.Phase == Phase.Cooldown)) switch
        {
            (true, true) => ", plus a warm-up and a cool-down",
            (true, false) => ", plus a warm-up",
            (false, true) => ", plus a cool-down",
            _ => "",
        };
        var words = string.Join(", ", parts) + around + ".";
        return char.ToUpperInvariant(words[0]) + words[1..];
    }

    /// <summary>What a title promises in minutes and the clock does not keep; empty where it does, or says nothing.</summary>
    public static string TitleAgainstClock(ClassPlan plan, Timeline timeline)
    {
        if (Minutes().Match(plan.Title) is not { Success: true } said
            || !int.TryParse(said.Groups[1].Value, CultureInfo.InvariantCulture, out var minutes))
        {
            return "";
        }

        var length = timeline.Length.Value / 60.0;
        return minutes == plan.SlotMinutes || Math.Abs(length - minutes) <= 1
            ? ""
            : string.Create(CultureInfo.InvariantCulture, $"The title says {minutes} minutes, but the class takes "
                + $"{timeline.Length} (booked: {plan.SlotMinutes} min).");
    }

    private static bool IsMain(Block block) =>
        block.Shape.HasStations && block.Phase is not (Phase.Warmup or Phase.Cooldown or Phase.Talk);

    private static string Many(int count, string of) =>
        $"{Counted.Spelled(count)} {of}{(count == 1 ? "" : "s")}";

    [GeneratedRegex(
            @"\b([0-9]{1,3})\s*[- ]?(?:min\b|mins\b|minute|minutes\b|′|')", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Minutes();
}
