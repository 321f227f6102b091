using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.People;

/// <summary>What a column of a table of people holds.</summary>
public enum RosterColumn
{
    /// <summary>Not read.</summary>
    Ignore,
    /// <summary>The whole name.</summary>
    Name,
    /// <summary>First name.</summary>
    FirstName,
    /// <summary>Last name.</summary>
    LastName,
    /// <summary>What they are called.</summary>
    Nick,

    /// <summary>Bare numbers are centimetres; metres, feet and inches are read with their signs.</summary>
    Stature,

    /// <summary>Bare numbers are inches.</summary>
    StatureInches,

    /// <summary>Bare numbers are kilograms.</summary>
    Mass,

    /// <summary>Bare numbers are pounds.</summary>
    MassPounds,

    /// <summary>A year, or a date in which one stands.</summary>
    BirthYear,

    /// <summary>Of all four families.</summary>
    Level,
    /// <summary>The option they take in squats.</summary>
    LevelSquat,
    /// <summary>The option they take in lunges.</summary>
    LevelLunge,
    /// <summary>The option they take in hinges.</summary>
    LevelHinge,
    /// <summary>The option they take in bridges.</summary>
    LevelBridge,
    /// <summary>What they may not.</summary>
    Limits,
    /// <summary>What was seen to be sound.</summary>
    Ready,
    /// <summary>Height of their box, in centimetres.</summary>
    BoxCm,
    /// <summary>Height of their bench, in centimetres.</summary>
    BenchCm,
    /// <summary>Height of what their rear foot stands on, in centimetres.</summary>
    RearFootCm,
    /// <summary>The band they use.</summary>
    Band,
    /// <summary>A note on them.</summary>
    Note,
}

/// <summary>Reads and writes single cells of such a table.</summary>
public static partial class RosterCells
{
    private static readonly (RosterColumn Column, string[] Words)[] Headings =
    [
        (RosterColumn.FirstName, ["first name", "given name", "forename", "first"]),
        (RosterColumn.LastName, ["last name", "surname", "family name", "last"]),
        (RosterColumn.Nick, ["nick", "nickname", "called", "known as"]),
        (RosterColumn.Name, ["name", "full name", "person", "participant", "who"]),
        (RosterColumn.StatureInches, ["height (in)", "stature (in)", "inches", "height in"]),
        (RosterColumn.Stature,
            ["stature", "height", "stature (cm)", "height (cm)", "cm", "tall", "height (ft)", "stature (m)", "height (m)"]),
        (RosterColumn.MassPounds, ["weight (lb)", "mass (lb)", "lb", "lbs", "pounds", "weight (lbs)"]),
        (RosterColumn.Mass, ["weight", "mass", "weight (kg)", "mass (kg)", "kg"]),
        (RosterColumn.BirthYear, ["born", "birth", "birth year", "year of birth", "date of birth", "dob", "birthday", "year"]),
        (RosterColumn.LevelSquat, ["squat", "level squat", "squats"]),
        (RosterColumn.LevelLunge, ["lunge", "level lunge", "lunges"]),
        (RosterColumn.LevelHinge, ["hinge", "level hinge", "hinges"]),
        (RosterColumn.LevelBridge, ["bridge", "level bridge", "bridges"]),
        (RosterColumn.Level, ["level", "usual option", "option"]),
        (RosterColumn.Limits, ["limits", "limit", "care", "injuries", "injury", "health", "needs care"]),
        (RosterColumn.Ready, ["ready", "ticks", "ready for"]),
        (RosterColumn.BoxCm, ["box", "box (cm)"]),
        (RosterColumn.BenchCm, ["bench", "bench (cm)"]),
        (RosterColumn.RearFootCm, ["rear foot", "rear foot (cm)"]),
        (RosterColumn.Band, ["band"]),
        (RosterColumn.Note, ["note", "notes", "comment", "comments", "remarks"]),
    ];

    private static readonly (string Word, Limit Limit)[] LimitWords =
    [
        ("pelvic floor", Limit.PelvicFloor), ("pelvicfloor", Limit.PelvicFloor), ("lower back", Limit.LowerBack),
            ("lowerback", Limit.LowerBack), ("back", Limit.LowerBack),
        ("knees", Limit.Knee), ("knee", Limit.Knee), ("balance", Limit.Balance), ("pregnancy", Limit.Pregnancy),
            ("pregnant", Limit.Pregnancy), ("ankles", Limit.Ankle),
        ("ankle", Limit.Ankle), ("wrists", Limit.Wrist), ("wrist", Limit.Wrist), ("hips", Limit.Hip), ("hip", Limit.Hip),
            ("neck", Limit.Neck), ("shoulders", Limit.Shoulder),
        ("shoulder", Limit.Shoulder),
    ];

    /// <summary>The column that a heading means; ignored where it is none we know.</summary>
    public static RosterColumn Guess(string heading)
    {
        var word = heading.Trim().ToLowerInvariant().Replace('_', ' ');
        return Headings.FirstOrDefault(h => h.Words.Contains(word)).Column;
    }

    /// <summary>The heading under which a column is written.</summary>
    public static string HeadingOf(RosterColumn column) => Headings.First(h => h.Column == column).Words[0];

    /// <summary>Sets what a cell says; what is wrong comes back in words, with what would be right.</summary>
    public static (Person Person, (string What, string Right)? Fault) Set(Person person, RosterColumn column, string cell)
    {
        var text = cell.Trim();
        if (text.Length == 0 || column == RosterColumn.Ignore)
        {
            return (person, null);
        }

        if (JsonText.HasControls(text))
        {
            return (person, ("This has characters that cannot be read.", "plain text"));
        }

        var setUp = person.SetUp ?? new PersonSetUp();
        return column switch
        {
            RosterColumn.Name => Text(text, 120, t => person with { Name = t }),
            RosterColumn.FirstName => Text(text, 60, t => person with { Name = $"{t} {person.Name}".Trim() }),
            RosterColumn.LastName => Text(text, 60, t => person with { Name = $"{person.Name} {t}".Trim() }),
            RosterColumn.Nick => Text(text, 60, t => person with { Nick = t }),
            RosterColumn.Note => Text(text, 4000, t => person with { Note = t }),
            RosterColumn.Stature or RosterColumn.StatureInches => Number(
                Centimetres(text, column == RosterColumn.StatureInches), 100, 230, "centimetres, such as 168, 1.68 m or 5 ft 7", text,
                n => person with { StatureCm = (int)n }),
            RosterColumn.Mass or RosterColumn.MassPounds => Number(
                Kilograms(text, column == RosterColumn.MassPounds), 25, 300, "kilograms, such as 64.5, or pounds, such as 142 lb", text,
                n => person with { MassKg = n }),
            RosterColumn.BirthYear => Number(Year(text), 1900, 2100, "a year, such as 1984", text, n => person with { BirthYear = (int)n }),
            RosterColumn.Level => LevelOf(person, text, Person.Levelled),
            RosterColumn.LevelSquat => LevelOf(person, text, [Family.Squat]),
            RosterColumn.LevelLunge => LevelOf(person, text, [Family.Lunge]),
            RosterColumn.LevelHinge => LevelOf(person, text, [Family.Hinge]),
            RosterColumn.LevelBridge => LevelOf(person, text, [Family.Bridge]),
            RosterColumn.BoxCm => Height(text, n => person with { SetUp = setUp with { BoxCm = n } }),
            RosterColumn.BenchCm => Height(text, n => person with { SetUp = setUp with { BenchCm = n } }),
            RosterColumn.RearFootCm => Height(text, n => person with { SetUp = setUp with { RearFootCm = n } }),
            RosterColumn.Band => WordsOf<BandStrength>.All.TryGetValue(text.ToLowerInvariant(), out var band)
                ? (person with { SetUp = setUp with { Band = band } }, null)
                : (person, ($"“{Short(text)}” is not a band strength.", WordsOf<BandStrength>.Listed)),
            RosterColumn.Ready => TicksOf(person, text),
            RosterColumn.Ignore or RosterColumn.Limits => LimitsOf(person, text),
        };
    }

    /// <summary>What a person has in a column, so that reading it again gives the same.</summary>
    public static string Write(Person person, RosterColumn column) => column switch
    {
        RosterColumn.Name => person.Name,
        RosterColumn.Nick => person.Nick ?? "",
        RosterColumn.Stature => person.StatureCm?.ToString(CultureInfo.InvariantCulture) ?? "",
        RosterColumn.Mass => person.MassKg?.ToString("0.##", CultureInfo.InvariantCulture) ?? "",
        RosterColumn.BirthYear => person.BirthYear?.ToString(CultureInfo.InvariantCulture) ?? "",
        RosterColumn.LevelSquat => Level(person, Family.Squat),
        RosterColumn.LevelLunge => Level(person, Family.Lunge),
        RosterColumn.LevelHinge => Level(person, Family.Hinge),
        RosterColumn.LevelBridge => Level(person, Family.Bridge),
        RosterColumn.Limits => string.Join("; ", (person.Limits ?? []).Select(Write)),
        RosterColumn.Ready => string.Join(", ", (person.Ready ?? []).Select(WordsOf<Tick>.Of)),
        RosterColumn.BoxCm => person.SetUp?.BoxCm?.ToString(CultureInfo.InvariantCulture) ?? "",
        RosterColumn.BenchCm => person.SetUp?.BenchCm?.ToString(CultureInfo.InvariantCulture) ?? "",
        RosterColumn.RearFootCm => person.SetUp?.RearFootCm?.ToString(CultureInfo.InvariantCulture) ?? "",
        RosterColumn.Band => person.SetUp?.Band is { } band ? WordsOf<BandStrength>.Of(band) : "",
        RosterColumn.Note => person.Note ?? "",
        RosterColumn.Ignore or RosterColumn.FirstName or RosterColumn.LastName or RosterColumn.StatureInches
            or RosterColumn.MassPounds or RosterColumn.Level => "",
    };

    private static string Write(PersonLimit limit)
    {
        var words = new[]
        {
            Demands.LimitTable.Named(limit.Limit),
            limit.Side is { } side ? WordsOf<BodySide>.Of(side) : null,
            limit.Strict ? "strict" : null,
            limit.Until is { } until ? $"until {until:yyyy-MM-dd}" : null,
        };
        var note = limit.Note?.Replace(';', ',').ReplaceLineEndings(" ");
        return string.Join(' ', words.OfType<string>()) + (string.IsNullOrWhiteSpace(note) ? "" : $": {note}");
    }

    private static string Level(Person person, Family family) =>
        person.Level?.TryGetValue(WordsOf<Family>.Of(family), out var tier) == true ? WordsOf<Tier>.Of(tier) : "";

    private static (Person, (string, string)?) Text(string text, int most, Func<string, Person> set) =>
        text.EnumerateRunes().Count() > most
            ? (set(text[..Math.Min(text.Length, most)]),
                ($"This is too long.", $"at most {most} characters")) : (set(text), null);

    private static (Person, (string, string)?) Number(
        decimal? number, decimal least, decimal most, string right, string text, Func<decimal, Person> set) =>
        number is { } n && n >= least && n <= most ? (set(n), null)
        : (set(least),
            (number is null ? $"“{Short(text)}” is not a number we can read."
                : string.Create(CultureInfo.InvariantCulture, $"{Short(text)} is outside {least}–{most}."), right));

    private static (Person, (string, string)?) Height(string text, Func<int, Person> set) =>
        Number(Plain(text, "cm"), 1, 120, "centimetres, 1–120", text, n => set((int)n));

    private static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;

    private static (Person, (string, string)?) LevelOf(Person person, string text, ImmutableArray<Family> families)
    {
        var tier = text.ToLowerInvariant() switch
        {
            "easier" or "easy" or "easier option" => Tier.Easier,
            "main" or "medium" or "usual" or "main option" => Tier.Main,
            "harder" or "hard" or "harder option" => Tier.Harder,
            _ => (Tier?)null,
        };
        if (tier is not { } level)
        {
            return (person, ($"“{Short(text)}” is not an option.", "easier, main or harder"));
        }

        var levels = person.Level ?? ImmutableSortedDictionary.Create<string, Tier>(StringComparer.Ordinal);
        return (person with { Level = levels.SetItems(families.Select(f => KeyValuePair.Create(WordsOf<Family>.Of(f), level))) }, null);
    }

    private static (Person, (string, string)?) TicksOf(Person person, string text)
    {
        var ticks = new SortedSet<Tick>();
        foreach (var word in text.Split([',', ';', '/', '|', ' '], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (!WordsOf<Tick>.All.TryGetValue(word.ToLowerInvariant(), out var tick))
            {
                return (person, ($"“{Short(word)}” is not a skill to sign off.", WordsOf<Tick>.Listed));
            }

            ticks.Add(tick);
        }

        return (person with { Ready = [.. ticks] }, null);
    }

    /// <summary>"knee left strict until 2026-12-01: likes a pad; balance".</summary>
    private static (Person, (string, string)?) LimitsOf(Person person, string text)
    {
        const string Right = "care notes such as: knee left strict until 2026-12-31; lower back";
        var limits = new List<PersonLimit>();
        foreach (var item in text.Split([';', '|'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var colon = item.IndexOf(':', StringComparison.Ordinal);
            var (words, note) = colon < 0 ? (item, null) : (item[..colon], item[(colon + 1)..].Trim());
            var rest = words.Trim().ToLowerInvariant();
            var known = LimitWords.FirstOrDefault(l => rest.StartsWith(l.Word, StringComparison.Ordinal));
            if (known.Word is null)
            {
                return (person, ($"“{Short(item)}” is not a care note we know.", Right));
            }

            var limit = new PersonLimit(known.Limit, Note: string.IsNullOrEmpty(note) ? null : note);
            var more = rest[known.Word.Length..].Split([' ', ','], StringSplitOptions.RemoveEmptyEntries);
            for (var i = 0; i < more.Length; i++)
            {
                switch (more[i])
                {
                    case "care":
                        break;
                    case "left" or "right":
                        limit = limit with { Side = more[i] == "left" ? BodySide.Left : BodySide.Right };
                        break;
                    case "strict" or "strictly":
                        limit = limit with { Strict = true };
                        break;
                    case "until" when i + 1 < more.Length
                        && DateOnly.TryParseExact(
                            more[i + 1], "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day):
                        limit = limit with { Until = day };
                        i++;
                        break;
                    default:
                        return (person, ($"“{Short(more[i])}” in “{Short(item)}” could not be read.", Right));
                }
            }

            limits.Add(limit);
        }

        return limits.Count > 20
            ? (person, ("That is more than 20 care notes.", "at most 20"))
            : (person with { Limits = [.. limits] }, null);
    }

    /// <summary>Exactly 2.54 cm an inch, 30.48 cm a foot (international yard and pound agreement, 1959).</summary>
    private static decimal? Centimetres(string text, bool inches)
    {
        if (Feet().Match(text) is { Success: true } feet)
        {
            var more = feet.Groups["in"].Length > 0 ? Parse(feet.Groups["in"].Value) : 0;
            return more is { } i and < 12 ? Math.Round(Parse(feet.Groups["ft"].Value)!.Value * 30.48m + i * 2.54m) : null;
        }

        if (Plain(text, "cm") is { } number)
        {
            return inches && !text.EndsWith("cm", StringComparison.OrdinalIgnoreCase) ? Math.Round(number * 2.54m) : number < 3
                ? Math.Round(number * 100) : Math.Round(number);
        }

        return Plain(text, "m") is { } metres ? Math.Round(metres * 100) : Plain(text, "in") is { } inch ? Math.Round(inch * 2.54m) : null;
    }

    /// <summary>Exactly 0.45359237 kg a pound (international avoirdupois pound, 1959).</summary>
    private static decimal? Kilograms(string text, bool pounds)
    {
        var bare = Plain(text, "");
        if (bare is { } number)
        {
            return pounds ? Math.Round(number * 0.45359237m, 1) : number;
        }

        return Plain(text, "kg") is { } kg
            ? kg
            : (Plain(text, "lbs") ?? Plain(text, "lb")) is { } lb ? Math.Round(lb * 0.45359237m, 1)
            : null;
    }

    private static decimal? Year(string text) =>
        FourDigits().Matches(text) is { Count: 1 } year ? decimal.Parse(year[0].Value, CultureInfo.InvariantCulture) : null;

    /// <summary>A number with at most two decimals behind a point or a comma, and its unit or none.</summary>
    private static decimal? Plain(string text, string unit)
    {
        var bare = text.EndsWith(unit, StringComparison.OrdinalIgnoreCase) ? text[..^unit.Length].TrimEnd() : text;
        return Parse(bare);
    }

    private static decimal? Parse(string text) =>
        Decimal().IsMatch(text)
            ? decimal.Parse(text.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture)
            : null;

    [GeneratedRegex(@"^[0-9]{1,4}([.,][0-9]{1,2})?$")]
    private static partial Regex Decimal();

    [GeneratedRegex("""^(?<ft>[0-9])\s*('|′|ft\.?|feet|foot)\s*((?<in>[0-9]{1,2}([.,][0-9]{1,2})?)\s*("|″|''|in\.?|inches)?)?$""",
            RegexOptions.IgnoreCase)]
    private static partial Regex Feet();

    [GeneratedRegex(@"(?<![0-9])(19|20|21)[0-9][0-9](?![0-9])")]
    private static partial Regex FourDigits();
}
