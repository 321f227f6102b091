using System.Globalization;
using System.Text.Json.Nodes;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Tests;

/// <summary>
/// The plan language put on a clock a second time, written from docs/plan-language.md alone and on the bare JSON, to
/// hold the compiler against. It knows nothing of records, resolved values or ready sums. Durations are in hundredths
/// of a second until they are rounded.
/// </summary>
internal sealed class ReferenceClock
{
    private readonly JsonObject file;
    private readonly List<string> lines = [];
    private int now;

    private ReferenceClock(JsonObject file) => this.file = file;

    /// <summary>Every span as a line: start, end, kind, and its place in words.</summary>
    public static List<string> Spans(JsonNode file)
    {
        var clock = new ReferenceClock(file.AsObject());
        foreach (var (block, index) in file["blocks"]!.AsArray().Select((b, i) => (b!.AsObject(), i)))
        {
            clock.Block(block, index);
        }

        return clock.lines;
    }

    /// <param name="Own">A rest that stays at its own place: inside a dose, or at the end of the block.</param>
    private sealed record Go(string Kind, int Seconds, string Place, bool Own = false);

    private void Block(JsonObject block, int index)
    {
        var gos = new List<Go>();
        var talk = Word(block, "format", "together") == "talk";
        if (!talk)
        {
            gos.Add(new Go("leadIn", Number(block, "leadInSeconds", Number(file, "leadInSeconds", 10)), ""));
        }

        if (talk)
        {
            var shows = block["show"]?.AsArray().Select(s => s!.AsObject()).ToArray() ?? [];
            gos.AddRange(shows.Select(s => new Go("talk", (int)s["seconds"]!, $"shows-{(string)s["station"]!} ")));
            var shown = shows.Sum(s => (int)s["seconds"]!);
            gos.Add(new Go("talk", Number(block, "seconds", shown) - shown, ""));
        }
        else if (Word(block, "order", "circuit") == "ownPace")
        {
            gos.Add(new Go("work", Number(block, "seconds", 0), ""));
        }
        else if (Word(block, "format", "together") == "rotation")
        {
            Rotation(block, gos);
        }
        else if (Word(block, "order", "circuit") == "sets")
        {
            Sets(block, gos);
        }
        else
        {
            Circuit(block, gos);
        }

        gos.Add(new Go("rest", Number(block, "afterSeconds", 0), "", Own: true));
        Lay(gos, index);
    }

    /// <summary>The goals of own-pace blocks with rounds: the sum of their stations' seconds, without any gap.</summary>
    public static List<int> Goals(JsonNode file)
    {
        var clock = new ReferenceClock(file.AsObject());
        return [.. file["blocks"]!.AsArray().Select(b => b!.AsObject())
            .Where(b => Word(b, "order", "circuit") == "ownPace" && b["rounds"] is not null)
            .Select(
                b => Enumerable.Range(0, Rounds(b)).Sum(
                    round => Stations(b).Sum(s => clock.Dose(b, s, round, 0, "").Sum(g => g.Seconds))))];
    }

    /// <summary>Leaves out what takes no time; gives rests and changes the place of what follows them.</summary>
    private void Lay(List<Go> gos, int block)
    {
        var shown = gos.Where(g => g.Seconds > 0).ToList();
        for (var i = 0; i < shown.Count; i++)
        {
            var place = shown[i].Place;
            if (shown[i].Kind is "rest" or "change" && !shown[i].Own)
            {
                var next = shown.Skip(i).FirstOrDefault(g => g.Kind is not ("rest" or "change"));
                place = next is null
                    ? ""
                    : string.Concat(
                        next.Place.Split(' ', StringSplitOptions.RemoveEmptyEntries)
                            .Where(w => !w.StartsWith("part", StringComparison.Ordinal) && !w.StartsWith("side", StringComparison.Ordinal))
                            .Select(w => w + " "));
            }

            lines.Add($"{now}-{now + shown[i].Seconds} {shown[i].Kind} block{block} {place}".Trim());
            now += shown[i].Seconds;
        }
    }

    private void Circuit(JsonObject block, List<Go> gos)
    {
        var passes = Word(block, "sidePass", "station") == "round" ? 2 : 1;
        var every = block["startEverySeconds"] is { } e ? (int)e : 0;
        var stations = Stations(block);
        for (var round = 0; round < Rounds(block); round++)
        {
            if (round > 0)
            {
                gos.Add(new Go("rest", Listed(block["betweenRounds"], round - 1), ""));
            }

            for (var pass = 0; pass < passes; pass++)
            {
                for (var s = 0; s < stations.Length; s++)
                {
                    var place = $"round{round} station{s} " + (passes == 2 ? $"pass{pass} " : "");
                    if (pass == 0)
                    {
                        gos.Add(Demo(stations[s], round, place));
                    }

                    if (every == 0 && s > 0)
                    {
                        gos.Add(Change(block, stations[s], round));
                    }
                    else if (every == 0 && pass > 0)
                    {
                        gos.Add(new Go("change", Math.Max(Change(block, stations[s], round).Seconds, SwitchOf(stations[s], round)), ""));
                    }

                    if (Tied(stations[s]))
                    {
                        s = String(block, stations, s, round, gos);
                        continue;
                    }

                    var dose = Dose(block, stations[s], round, pass, place);
                    gos.AddRange(every == 0 ? dose : Cut(dose, every));
                    if (every > 0)
                    {
                        gos.Add(
                            new Go(
                                "wait", Math.Max(0, every - dose.Sum(g => g.Seconds)), place + (Turns(stations[s]) == 2 ? "turn1 " : "")));
                    }
                }
            }
        }
    }

    private void Sets(JsonObject block, List<Go> gos)
    {
        var stations = Stations(block);
        for (var s = 0; s < stations.Length; s++)
        {
            var last = s;
            for (var set = 0; set < Rounds(block); set++)
            {
                if (set > 0)
                {
                    gos.Add(new Go("rest", Listed(stations[s]["betweenSets"] ?? block["betweenSets"], set - 1), ""));
                }

                gos.Add(Demo(stations[s], set, $"round{set} station{s} "));
                if (set == 0 && s > 0)
                {
                    gos.Add(Change(block, stations[s], 0));
                }

                if (Tied(stations[s]))
                {
                    last = String(block, stations, s, set, gos);
                }
                else
                {
                    gos.AddRange(Dose(block, stations[s], set, 0, $"round{set} station{s} "));
                }
            }

            s = last;
        }
    }

    /// <summary>Tied stations: each dose on the start side of the first, then each on the other.</summary>
    private int String(JsonObject block, JsonObject[] stations, int first, int round, List<Go> gos)
    {
        var last = first;
        while (Tied(stations[last]))
        {
            last++;
        }

        var start = Word(stations[first], "startSide", Word(block, "startSide", Word(file, "startSide", "left")));
        foreach (var side in (string[])[start, start == "left" ? "right" : "left"])
        {
            if (side != start
                && stations[first..(last + 1)].Any(s => s["dose"]!.AsArray().Any(p => InRound(p!.AsObject(), round, Rounds(block)))))
            {
                gos.Add(new Go("switch", SwitchOf(stations[first], round), $"round{round} station{first} "));
            }

            for (var s = first; s <= last; s++)
            {
                if (s > first)
                {
                    gos.AddRange(side == start ? [Demo(stations[s], round, $"round{round} station{s} ")] : Array.Empty<Go>());
                    gos.Add(Change(block, stations[s], round));
                }

                // A dose done on each side is its first half, whatever lies between the two.
                var both = Dose(block, stations[s], round, 0, $"round{round} station{s} ");
                string Here(string place) => place.Replace("side-left", "side-" + side, StringComparison.Ordinal)
                    .Replace("side-right", "side-" + side, StringComparison.Ordinal);
                gos.AddRange(both.Take(both.Count / 2).Select(g => g with { Place = Here(g.Place) }));
            }
        }

        return last;
    }

    private static bool Tied(JsonObject station) => station["withNext"] is { } tied && (bool)tied;

    private static Go Demo(JsonObject station, int round, string place) => new(
        "talk",
        station["demoSeconds"] switch
        {
            null => 0,
            JsonArray list => round < list.Count ? (int)list[round]! : 0,
            var once => round == 0 ? (int)once : 0,
        },
        place + (Turns(station) == 2 ? "turn0 " : ""));

    private static Go Change(JsonObject block, JsonObject station, int round) =>
        new(
            Word(block, "recoveryIn", "rests") == "all" ? "rest" : "change",
            Listed(station["changeSeconds"] ?? block["betweenStations"], round),
            "");

    private void Rotation(JsonObject block, List<Go> gos)
    {
        var stations = Stations(block);
        for (var round = 0; round < Rounds(block); round++)
        {
            if (round > 0)
            {
                gos.Add(new Go("rest", Listed(block["betweenRounds"], round - 1), ""));
            }

            var longest = stations.Max(s => Dose(block, s, round, 0, "").Sum(g => g.Seconds));
            var window = block["windowSeconds"] is { } given ? Listed(given, round) : (longest + 4) / 5 * 5;
            for (var leg = 0; leg < stations.Length; leg++)
            {
                if (leg > 0)
                {
                    gos.Add(Change(block, [], 0));
                }

                gos.Add(new Go("work", window, $"round{round} leg{leg} "));
            }
        }
    }

    private List<Go> Dose(JsonObject block, JsonObject station, int round, int pass, string place)
    {
        var parts = station["dose"]!.AsArray()
            .Select((p, i) => (Part: p!.AsObject(), Index: i))
            .Where(p => InRound(p.Part, round, Rounds(block)))
            .ToArray();
        var gos = new List<Go>();
        for (var turn = 0; turn < Turns(station) && parts.Length > 0; turn++)
        {
            var here = place + (Turns(station) == 2 ? $"turn{turn} " : "");
            var change = new Go("switch", SwitchOf(station, round), here);
            if (turn > 0)
            {
                gos.Add(change);
            }

            var first = Word(station, "startSide", Word(block, "startSide", Word(file, "startSide", "left")));
            var second = first == "left" ? "right" : "left";
            var given = Word(block, "sidePass", "station") switch
            {
                "round" => pass == 0 ? first : second,
                "alternate" => round % 2 == 0 ? first : second,
                _ => "",
            };
            switch (Word(station, "sides", "asWritten"))
            {
                case "split":
                    var amount = Most(parts[0].Part["amount"], round);
                    gos.Add(new Go("work", amount - amount / 2, $"{here}part0 side-{first} "));
                    gos.Add(new Go("work", amount / 2, $"{here}part0 side-{second} "));
                    break;
                case "each" when station["chunk"] is { } chunk:
                    var left = Most(parts[0].Part["amount"], round);
                    for (var begun = false; left > 0; begun = true, left -= (int)chunk)
                    {
                        var seconds = Takes(parts[0].Part, Math.Min(left, (int)chunk));
                        gos.AddRange(begun ? [change] : Array.Empty<Go>());
                        gos.AddRange(
                            [new Go("work", seconds, $"{here}part0 side-{first} "), change,
                                new Go("work", seconds, $"{here}part0 side-{second} ")]);
                    }

                    break;
                case "each":
                    gos.AddRange(parts.Select(p => Line(p, first)));
                    gos.Add(change);
                    gos.AddRange(parts.Select(p => Line(p, second)));
                    break;
                default:
                    gos.AddRange(
                        WithSwitches(parts.Select(p => Line(p, given.Length > 0 ? given : Word(p.Part, "side", "both"))).ToList(), change));
                    break;
            }

            Go Line((JsonObject Part, int Index) p, string side) => Word(p.Part, "kind", "") == "rest"
                ? new Go("rest", Most(p.Part["amount"], round), here, Own: true)
                : new Go("work", Takes(p.Part, Most(p.Part["amount"], round)), $"{here}part{p.Index} side-{side} ");
        }

        return gos;
    }

    private static IEnumerable<Go> WithSwitches(List<Go> line, Go change)
    {
        for (var i = 0; i < line.Count; i++)
        {
            var before = line.Take(i).LastOrDefault(g => g.Kind == "work");
            var opposite = before is not null && line[i].Kind == "work"
                && (
                    (
                        before.Place.Contains("side-left", StringComparison.Ordinal)
                            && line[i].Place.Contains("side-right", StringComparison.Ordinal))
                    || (
                        before.Place.Contains("side-right", StringComparison.Ordinal)
                            && line[i].Place.Contains("side-left", StringComparison.Ordinal)));
            if (opposite && line.Take(i).Reverse().TakeWhile(g => g.Kind == "rest").Sum(g => g.Seconds) < change.Seconds)
            {
                yield return change;
            }

            yield return line[i];
        }
    }

    private static IEnumerable<Go> Cut(List<Go> dose, int bell)
    {
        foreach (var go in dose)
        {
            yield return go with { Seconds = Math.Min(bell, go.Seconds) };
            bell -= Math.Min(bell, go.Seconds);
        }
    }

    private static int Takes(JsonObject part, int amount)
    {
        if (Word(part, "kind", "") != "reps")
        {
            return amount;
        }

        // The random classes give every reps part a tempo of its own.
        var t = Word(part, "tempo", "")
            .Split('-')
            .Select(p => p == "X" ? 100 : (int)(100 * decimal.Parse(p, CultureInfo.InvariantCulture)))
            .ToArray();
        var twice = Word(part, "style", "full") switch
        {
            "oneAndAHalf" => 3 * (t[0] + t[2]) + 4 * t[1] + 2 * t[3],
            "deadStop" => 2 * (t[0] + Math.Max(t[1], 100) + t[2] + t[3]),
            "constantTension" => 2 * (t[0] + t[1] + t[2]),
            _ => 2 * t.Sum(),
        };
        return (amount * (twice + 200 * Number(part, "pulsesPerRep", 0)) + 199) / 200;
    }

    private static bool InRound(JsonObject part, int round, int rounds) => part["rounds"] switch
    {
        JsonArray listed => listed.Any(r => (int)r! == round + 1),
        { } word when (string)word! == "first" => round == 0,
        { } word when (string)word! == "last" => round == rounds - 1,
        _ => true,
    };

    private int SwitchOf(JsonObject station, int round) => Listed(station["switchSeconds"] ?? file["switchSeconds"] ?? 3, round);

    private static int Most(JsonNode? amount, int round) => amount switch
    {
        JsonArray list => Most(list[Math.Min(round, list.Count - 1)], 0),
        JsonObject range => (int)range["to"]!,
        _ => (int)amount!,
    };

    private static int Listed(JsonNode? value, int index) => value is null ? 0 : Most(value, index);

    private static int Turns(JsonObject station) => Word(station, "sharing", "own") == "turns" ? 2 : 1;

    private static int Rounds(JsonObject block) => Number(block, "rounds", 1);

    private static JsonObject[] Stations(JsonObject block) => [.. block["stations"]!.AsArray().Select(s => s!.AsObject())];

    private static int Number(JsonObject o, string name, int otherwise) => o[name] is { } value ? (int)value : otherwise;

    private static string Word(JsonObject o, string name, string otherwise) => o[name] is { } value ? (string)value! : otherwise;
}
