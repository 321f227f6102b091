using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>What was typed as a dose; null what was not named. Rounds and rest, in seconds, belong to the block.</summary>
public sealed record TypedDose(ImmutableArray<Part> Dose, SideRule? Sides, int? Chunk, bool Turns, int? Rounds, int? Rest)
{
    /// <summary>The fields of a station that a typed dose sets.</summary>
    public static readonly string[] StationFields = ["dose", "sides", "chunk", "sharing"];

    /// <summary>The station with this dose in place of its own.</summary>
    public Station PutInto(Station station) => station with
    {
        Dose = Dose,
        Sides = Sides ?? SideRule.AsWritten,
        Chunk = Chunk ?? 0,
        Turns = Turns,
        Waiting = Turns ? station.Waiting : [],
    };

    /// <summary>What it does to the block beside its station, in words: "and the block: 2 rounds".</summary>
    /// <param name="before">The block as it was written.</param>
    /// <param name="now">The block as it is read with this dose in it.</param>
    public string Beside(JsonObject before, Block now)
    {
        var word = now.Shape.RoundWord;
        var was = before["rounds"] is JsonValue written && written.TryGetValue<int>(out var number) ? number : 1;
        var changed = new List<string>();
        if (Rounds is { } rounds && rounds != was)
        {
            changed.Add(string.Create(CultureInfo.InvariantCulture, $"{rounds} {word}{(rounds == 1 ? "" : "s")}"));
        }

        if (Rest is { } rest
            && before[now.Shape.RestField]?.ToJsonString() != rest.ToString(CultureInfo.InvariantCulture))
        {
            changed.Add(string.Create(CultureInfo.InvariantCulture, $"{rest} s between {word}s"));
        }

        if (changed.Count > 0)
        {
            return $"This also changes the block: {string.Join(", ", changed)}.";
        }

        var told = Dose.Max(p => p.Amount.Values.Length);
        return told > now.Rounds
            ? string.Create(CultureInfo.InvariantCulture, $"The block stays: {now.Rounds} {word}{(now.Rounds == 1 ? "" : "s")}, so only "
                + $"the first {now.Rounds} of {told} targets are used.")
            : Rounds is null && Rest is null ? "" : "The block does not change.";
    }

    /// <summary>
    /// Puts the dose in place of the station's own in a file that may have faults elsewhere; rounds and rest, where typed, go to its block.
    /// </summary>
    public void PutInto(JsonObject block, JsonObject station)
    {
        var typed = PlanWriter.Dose(this);
        foreach (var field in StationFields)
        {
            station.Remove(field);
            if (typed[field] is { } value)
            {
                station[field] = value.DeepClone();
            }
        }

        if (!Turns)
        {
            station.Remove("waiting");
        }

        if (Rounds is { } rounds)
        {
            block["rounds"] = rounds;
        }

        if (Rest is { } rest)
        {
            block[(string?)block["order"] == "sets" ? "betweenSets" : "betweenRounds"] = rest;
        }
    }
}

/// <summary>Why a dose could not be read.</summary>
/// <param name="At">The place in the text, from 0.</param>
/// <param name="Right">What could stand there.</param>
public sealed record DoseFault(int At, string Detail, string Right);

/// <summary>Reads the short form of a dose (<see cref="ShortDose"/>). Words may come in any order after their amount.</summary>
public sealed partial class ShortDoseReader
{
    private readonly string text;
    private readonly List<Part> dose = [];
    private SideRule? sides;
    private int? chunk;
    private bool turns;
    private int at;
    private Part part = Nothing;

    private static readonly Part Nothing = new() { Kind = PartKind.Reps, Amount = new ByRound<Amount>(new Amount(1)) };

    private ShortDoseReader(string text) => this.text = text;

    /// <summary>Never throws on bad input: gives the dose, or the one place where it cannot be read.</summary>
    public static (TypedDose? Dose, DoseFault? Fault) Read(string text)
    {
        try
        {
            return (new ShortDoseReader(text).Whole(), null);
        }
        catch (FaultException e)
        {
            return (null, e.Fault);
        }
    }

    private TypedDose Whole()
    {
        int? rounds = Take(RoundsBefore()) is { } before ? Within(before.Groups[1].Value, 1, 20, "rounds") : null;
        int? rest = null;
        ReadPart();
        while (!Done())
        {
            if (Take(RestAfter()) is { } after)
            {
                rest = Within(after.Groups[1].Value, 0, 600, "seconds of rest") * (after.Groups[2].Value.StartsWith('m') ? 60 : 1);
            }
            else if (Take(Plus()) is not null)
            {
                dose.Add(part);
                ReadPart();
            }
            else if (part.Side is Side.Left or Side.Right && NextAmount().IsMatch(text, at))
            {
                // "5 right 5 left": the next side is the next part.
                dose.Add(part);
                ReadPart();
            }
            else if (Take(ToFailure()) is not null)
            {
                throw Fault("“To failure” needs a longest time, for the clock.", "max and a time, such as max 60 s", at);
            }
            else if (Take(Slowly()) is { } slowly)
            {
                throw Fault($"How slow is “{slowly.Value}”?", "a tempo, such as @ 4-1-2-0 (down 4 s, pause 1, up 2)", slowly.Index);
            }
            else if (Take(Comma()) is null && !Modifier())
            {
                throw Fault("This is not understood here.", "+ and the next part, or something like each side, @ 3-1-1-0, by 5, at 12 "
                    + "kg, rest 60");
            }
        }

        dose.Add(part);
        return new TypedDose([.. dose], sides, chunk, turns, rounds, rest);
    }

    private void ReadPart()
    {
        var open = Take(Max()) is not null;
        var led = open ? null : Take(HoldBefore())?.Value.ToLowerInvariant();
        if (Take(Clock()) is { } clock)
        {
            var seconds = 60 * Within(clock.Groups[1].Value, 0, 60, "minutes") + Within(clock.Groups[2].Value, 0, 59, "seconds");
            ReadKind(Amounted(seconds), timed: true, open, led, Take(Unit())?.Value.ToLowerInvariant() ?? "");
            return;
        }

        // "x20" is twenty; "3 x 20" was read before as three rounds of it.
        Take(TimesMark());
        if (Take(Amounts()) is not { } amounts)
        {
            throw Fault(
                Done() ? "A number is missing." : "No number found here.",
                "a number such as 12, a range such as 8–12, or a list such as 20/15/12");
        }

        var unit = Take(Unit())?.Value.ToLowerInvariant() ?? "";
        var times = unit.StartsWith("min", StringComparison.Ordinal) ? 60 : 1;
        var timed = led is not null
            || (
                unit is not ""
                    && !unit.StartsWith('r')
                    && !unit.StartsWith('p')
                    && unit is not ("m" or "metres" or "meters" or "metre" or "meter"));

        // Two numbers with a dash are a range; three and more are what people write for round after round.
        var listed = amounts.Value.Contains('/') || amounts.Value.Count(c => c is '-' or '–') < 2
            ? amounts.Value.Split('/')
            : amounts.Value.Split('-', '–');
        ReadKind(new ByRound<Amount>([.. listed.Select(v => ReadAmount(v, times))]), timed, open, led, unit);
    }

    private ByRound<Amount> Amounted(int seconds) => seconds is >= 1 and <= 3600
        ? new ByRound<Amount>(new Amount(seconds))
        : throw Fault("This is not a time.", "from 0:01 to 60:00");

    private void ReadKind(ByRound<Amount> amount, bool timed, bool open, string? led, string unit)
    {
        var held = led?[0] == 'h' || (timed && unit is "hold" or "held") || (timed && unit is not "rest" && Take(Hold()) is not null);
        var rest = led?[0] == 'r' || unit == "rest" || (timed && !held && Take(RestWord()) is not null);
        if (open && !timed)
        {
            throw Fault("“max” needs a time.", "a time, such as max 60 s");
        }

        part = Nothing with
        {
            Kind = open ? PartKind.Open : rest ? PartKind.Rest : held ? PartKind.Hold : timed ? PartKind.Time
                : unit.StartsWith('p') ? PartKind.Pulses : unit.StartsWith('m') ? PartKind.Distance : PartKind.Reps,
            Amount = amount,
        };
    }

    private Amount ReadAmount(string words, int times)
    {
        var ends = words.Split('-', '–').Select(w => Within(w.Trim(), 1, 3600, "") * times).ToArray();
        if (ends.Any(e => e > 3600))
        {
            throw Fault($"{words.Trim()} is too high.", "at most 3600");
        }

        return ends is not [var from, var to] ? new Amount(ends[0])
            : from <= to ? new Amount(from, to)
            : throw Fault($"The range goes from {from} to {to}.", "the smaller number first");
    }

    /// <summary>One word or phrase after an amount; false if there is none that is known.</summary>
    private bool Modifier()
    {
        if (Take(TempoWord()) is { } tempo)
        {
            var shape = tempo.Groups[1].Value.ToUpperInvariant();
            shape = Together().IsMatch(shape) ? string.Join('-', shape.ToCharArray()) : shape;
            part = Tempo.TryParse(shape, out var read)
                ? part with { OwnTempo = read }
                : throw Fault($"“{tempo.Groups[1].Value}” is not a tempo.", "lower-pause-lift-pause, each 0–60 or X, "
                    + "such as 3-1-1-0", tempo.Groups[1].Index);
        }
        else if (Take(EachSide()) is not null)
        {
            sides = SideRule.Each;
        }
        else if (Take(HalfSide()) is not null)
        {
            sides = SideRule.Split;
        }
        else if (Take(By()) is { } by)
        {
            sides = SideRule.Each;
            chunk = Within(by.Groups[1].Value, 1, 1000, "reps in a chunk");
        }
        else if (Take(Turns()) is not null)
        {
            turns = true;
        }
        else if (Take(SideWord()) is { } side)
        {
            var word = side.Value.ToLowerInvariant();
            part = part with { Side = word switch { "left" => Side.Left, "right" => Side.Right, _ => Side.Alternate } };
        }
        else if (Take(Of()) is { } of)
        {
            part = part with { OwnMove = new MoveId(of.Groups[1].Value) };
        }
        else if (Take(Style()) is { } style)
        {
            part = part with
            {
                Style = char.ToLowerInvariant(style.Value[0]) switch
                {
                    'd' => RepStyle.DeadStop,
                    'n' => RepStyle.ConstantTension,
                    _ => RepStyle.OneAndAHalf
                },
            };
        }
        else if (Take(WithPulses()) is { } pulses)
        {
            part = part with { PulsesPerRep = Within(pulses.Groups[1].Value, 0, 10, "pulses a rep") };
        }
        else if (Take(Pace()) is { } pace)
        {
            if (part.Kind != PartKind.Distance)
            {
                throw Fault("A pace only works with a distance.", "such as 20 m at 2 s/m", pace.Index);
            }

            part = part with { Pace = decimal.Parse(pace.Groups[1].Value, CultureInfo.InvariantCulture) };
        }
        else if (Take(LoadWord()) is { } load)
        {
            var factor = load.Groups[2].Value == "%";
            var values = new ByRound<decimal>(
                [.. load.Groups[1].Value.Split('/').Select(v => decimal.Parse(v, CultureInfo.InvariantCulture) / (factor ? 100 : 1))]);
            part = factor ? part with { LoadFactor = values } : part with { LoadKg = values };
        }
        else if (Take(Effort()) is { } effort)
        {
            part = part with { Effort = Within(effort.Groups[1].Value, 0, 10, "on the effort scale") };
        }
        else if (Take(InRounds()) is { } rounds)
        {
            part = part with
            {
                Rounds = rounds.Groups[1].Value.ToLowerInvariant() switch
                {
                    "first" => new PartRounds(true, false, []),
                    "last" => new PartRounds(false, true, []),
                    _ => new PartRounds(
                        false, false, [.. rounds.Groups[2].Value.Split(',').Select(r => Within(r.Trim(), 1, 9999, "as a round"))]),
                },
            };
        }
        else if (Take(Label()) is { } label)
        {
            part = part with { Label = label.Groups[1].Value.Replace("\"\"", "\"", StringComparison.Ordinal) };
        }
        else
        {
            return false;
        }

        return true;
    }

    private int Within(string digits, int min, int max, string what) =>
        int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number >= min && number <= max
            ? number
            : throw Fault($"{digits} {what} is outside the range.".Replace("  ", " ", StringComparison.Ordinal), $"{min}–{max}");

    private bool Done()
    {
        while (at < text.Length && char.IsWhiteSpace(text[at]))
        {
            at++;
        }

        return at == text.Length;
    }

    private Match? Take(Regex shape)
    {
        Done();
        var match = shape.Match(text, at);
        if (!match.Success || match.Index != at)
        {
            return null;
        }

        at += match.Length;
        return match;
    }

    private FaultException Fault(string detail, string right, int? place = null) => new(new DoseFault(place ?? at, detail, right));

    private sealed class FaultException(DoseFault fault) : Exception
    {
        public DoseFault Fault { get; } = fault;
    }

    private const RegexOptions Loose = RegexOptions.IgnoreCase | RegexOptions.CultureInvariant;

    [GeneratedRegex(@"\G([0-9]{1,3})\s*(?:[x×*]|sets? of|rounds? of)\s*", Loose)]
    private static partial Regex RoundsBefore();

    [GeneratedRegex(@"\G[,;]?\s*rest\s*([0-9]{1,4})\s*(s|secs?|seconds?|min|minutes?)?(?![\w])", Loose)]
    private static partial Regex RestAfter();

    [GeneratedRegex(@"\G(\+|,?\s*then\b|,(?=\s*(?:[0-9]|max|amrap|up to|hold|rest)))", Loose)]
    private static partial Regex Plus();

    [GeneratedRegex(@"\G[x×]\s*(?=[0-9])", Loose)]
    private static partial Regex TimesMark();

    [GeneratedRegex(@"\G[0-9]")]
    private static partial Regex NextAmount();

    [GeneratedRegex(@"\G(?:to|till|until) failure\b", Loose)]
    private static partial Regex ToFailure();

    [GeneratedRegex(@"\G(?:very\s+)?slow(?:ly)?\b", Loose)]
    private static partial Regex Slowly();

    /// <summary>Between an amount and its words: it says nothing.</summary>
    [GeneratedRegex(@"\G,(?=\s*\S)")]
    private static partial Regex Comma();

    [GeneratedRegex(@"\G(max|amrap|up to)\b", Loose)]
    private static partial Regex Max();

    [GeneratedRegex(@"\G(hold|rest)(?:\s+for)?(?=\s+[0-9])", Loose)]
    private static partial Regex HoldBefore();

    [GeneratedRegex(@"\G([0-9]{1,2}):([0-9]{2})(?![0-9])")]
    private static partial Regex Clock();

    /// <summary>A tempo without its dashes, such as 30X0.</summary>
    [GeneratedRegex(@"^[0-9X]{4}$")]
    private static partial Regex Together();

    [GeneratedRegex(
            @"\G[0-9]{1,5}(?:\s*[-–]\s*[0-9]{1,5}){2,19}|\G[0-9]{1,5}(\s*[-–]\s*[0-9]{1,5})?(\s*/\s*[0-9]{1,5}(\s*[-–]\s*[0-9]{1,5})?)*")]
    private static partial Regex Amounts();

    [GeneratedRegex(@"\G(seconds?|secs?|s|minutes?|min|reps?|pulses?|metres?|meters?|m|hold|held|rest)(?!\w|\s*/\s*m\b)", Loose)]
    private static partial Regex Unit();

    [GeneratedRegex(@"\G(hold|held)\b", Loose)]
    private static partial Regex Hold();

    [GeneratedRegex(@"\Grest\b", Loose)]
    private static partial Regex RestWord();

    [GeneratedRegex(@"\G@\s*(\S+?)(?=[\s,;+]|$)")]
    private static partial Regex TempoWord();

    [GeneratedRegex(
        @"\G(on each side|each side|each leg|a side|a leg|per side|per leg|/\s*side|/\s*leg|/\s*s\b|both sides|each|ea)\b\.?", Loose)]
    private static partial Regex EachSide();

    [GeneratedRegex(@"\G(half a side|half on each side|half each side|half/half|split)\b", Loose)]
    private static partial Regex HalfSide();

    [GeneratedRegex(@"\G(?:by|in chunks of)\s*([0-9]{1,5})\b", Loose)]
    private static partial Regex By();

    [GeneratedRegex(@"\Gin turns\b", Loose)]
    private static partial Regex Turns();

    [GeneratedRegex(@"\G(left|right|alternating|alternate|alt)\b", Loose)]
    private static partial Regex SideWord();

    [GeneratedRegex(@"\Gof\s+([a-z0-9]+(?:-[a-z0-9]+)*)", Loose)]
    private static partial Regex Of();

    [GeneratedRegex(@"\G(one[- ]and[- ]a[- ]half|1½|dead[- ]stop|no[- ]lock-?out)", Loose)]
    private static partial Regex Style();

    [GeneratedRegex(@"\Gwith\s+([0-9]{1,3})\s*pulses?\b", Loose)]
    private static partial Regex WithPulses();

    [GeneratedRegex(@"\Gat\s+([0-9]{1,3}(?:\.[0-9]{1,2})?)\s*s/m\b", Loose)]
    private static partial Regex Pace();

    [GeneratedRegex(@"\Gat\s+([0-9]{1,3}(?:\.[0-9]{1,2})?(?:\s*/\s*[0-9]{1,3}(?:\.[0-9]{1,2})?)*)\s*(kg\b|%)", Loose)]
    private static partial Regex LoadWord();

    [GeneratedRegex(@"\Geffort\s+([0-9]{1,3})\b", Loose)]
    private static partial Regex Effort();

    [GeneratedRegex(@"\G\((?:(first|last) round|rounds?\s+([0-9,\s]+))\)", Loose)]
    private static partial Regex InRounds();

    [GeneratedRegex("\\G\"((?:[^\"]|\"\")+)\"")]
    private static partial Regex Label();
}
