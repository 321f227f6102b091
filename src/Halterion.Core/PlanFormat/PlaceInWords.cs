using System.Collections.Frozen;
using System.Globalization;

namespace Halterion.Core.PlanFormat;

/// <summary>Where something stands in a file or a request, for people: "Block 3, station 1, target".</summary>
public static class PlaceInWords
{
    /// <summary>Lists: one of them by its number, from 1.</summary>
    private static readonly FrozenDictionary<string, string> Numbered = new Dictionary<string, string>
    {
        ["blocks"] = "block",
        ["stations"] = "station",
        ["options"] = "option",
        ["dose"] = "part of the target",
        ["moves"] = "move",
        ["show"] = "walk-through line",
        ["waivers"] = "accepted finding",
        ["waiting"] = "partner’s task",
        ["recovery"] = "easy movement",
        ["people"] = "person",
        ["rows"] = "row",
        ["rounds"] = "round",
    }.ToFrozenDictionary();

    private static readonly FrozenDictionary<string, string> Fields = new Dictionary<string, string>
    {
        ["slotMinutes"] = "booked time",
        ["startSide"] = "starting side",
        ["leadInSeconds"] = "get-ready time",
        ["switchSeconds"] = "time to switch sides",
        ["changeSeconds"] = "changeover",
        ["betweenStations"] = "changeover",
        ["betweenSets"] = "rest between sets",
        ["betweenRounds"] = "rest between rounds",
        ["afterSeconds"] = "rest after the block",
        ["windowSeconds"] = "work interval",
        ["startEverySeconds"] = "timed starts",
        ["optionalRounds"] = "rounds that may be left out",
        ["demoSeconds"] = "demo",
        ["goalReps"] = "goal",
        ["goalShared"] = "shared goal",
        ["sidePass"] = "sides",
        ["chunk"] = "switching every few reps",
        ["withNext"] = "link with the next station",
        ["dose"] = "target",
        ["loadKg"] = "weight",
        ["loadFactor"] = "share of their usual load",
        ["pulsesPerRep"] = "pulses",
        ["heightCm"] = "height",
        ["statureCm"] = "body height",
        ["warmUp"] = "warm-up",
        ["phase"] = "phase",
        ["base"] = "stance",
        ["load"] = "weight",
        ["scale"] = "share of the target",
        ["shownBy"] = "led by",
        ["say"] = "words before it",
    }.ToFrozenDictionary();

    /// <summary>What a request wraps around a class; it is no place for people.</summary>
    private static readonly FrozenSet<string> Around = FrozenSet.ToFrozenSet(["class", "plan", "block"]);

    /// <summary>The place with a capital; "The file" for the whole of it.</summary>
    /// <param name="pointer">A JSON Pointer (RFC 6901).</param>
    public static string Of(string pointer)
    {
        var steps = pointer.Split('/')[1..]
            .Select(s => s.Replace("~1", "/", StringComparison.Ordinal).Replace("~0", "~", StringComparison.Ordinal)).ToArray();
        var words = new List<string>();
        for (var i = 0; i < steps.Length; i++)
        {
            var step = steps[i];
            if (i == 0 && steps.Length > 1 && Around.Contains(step))
            {
                continue;
            }

            var number = i + 1 < steps.Length && int.TryParse(steps[i + 1], CultureInfo.InvariantCulture, out var at) ? at + 1 : (int?)null;
            if (number is { } n)
            {
                words.Add(string.Create(CultureInfo.InvariantCulture, $"{Numbered.GetValueOrDefault(step) ?? Said(step)} {n}"));
                i++;
            }
            else
            {
                words.Add(Said(step));
            }
        }

        return words.Count == 0 ? "The file" : string.Join(", ", words).Capital();
    }

    /// <summary>A field as it is called on screens, else its own name in words.</summary>
    private static string Said(string field) => Fields.GetValueOrDefault(field)
        ?? string.Concat(field.Select(c => char.IsUpper(c) ? $" {char.ToLowerInvariant(c)}" : $"{c}"));
}
