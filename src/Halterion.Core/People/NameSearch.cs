using System.Globalization;
using System.Text.RegularExpressions;

namespace Halterion.Core.People;

/// <summary>
/// A name sought in texts of any kind: in any case, written plainly or with the escapes of JSON (RFC 8259, section 7), as a whole word
/// or words.
/// </summary>
public sealed class NameSearch
{
    private const string Before = """(?:(?<![\p{L}\p{N}])|(?<=\\[bfnrt])|(?<=\\u[0-9a-fA-F]{4}))""";
    private const string After = """(?![\p{L}\p{N}])""";

    /// <summary>What stands in a name's place afterwards.</summary>
    public const string Someone = "someone";

    /// <summary>A name alone may be part of an id, or the word of a field.</summary>
    private const string NotInWord = """(?<![_\-])""";
    private const string NotBeforeWord = """(?![_\-])""";

    private readonly Regex inText;
    private readonly Regex inData;

    /// <summary>Looks for a name, also where its accents are missing.</summary>
    public NameSearch(string name)
    {
        Name = name;
        var words = name.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        var written = string.Join("""(?:[\s\u00A0_]|\\u00(?:20|[aA]0)|\\[nrt])+""", words.Select(Word));
        const RegexOptions AnyCase = RegexOptions.IgnoreCase | RegexOptions.CultureInvariant;
        // In data a text that is nothing but a name alone is a word of the format, unless it stands in a field that people write in.
        inText = new Regex(IsWhole ? Before + written + After : Before + NotInWord + written + After + NotBeforeWord, AnyCase);
        var value = Before + NotInWord + written + After + NotBeforeWord;
        inData = IsWhole
            ? inText
            : new Regex(
                $"""(?:{value}(?!")|(?<!"){value}|(?<="(?:name|nick|title|note|say|reason|text|words|label)"\s*:\s*"){value})""", AnyCase);
    }

    /// <summary>The name that is looked for.</summary>
    public string Name { get; }

    /// <summary>It has a first and a last name, so that it is nobody else's and no word of the language.</summary>
    public bool IsWhole => Name.Trim().Any(char.IsWhiteSpace);

    /// <summary>The name stands in a text.</summary>
    public bool IsIn(string? text) => text is not null && In(text).IsMatch(text);

    /// <summary>A text without it.</summary>
    public string Without(string text) => In(text).Replace(text, Someone);

    private Regex In(string text) => text.AsSpan().TrimStart() is ['{' or '[', ..] ? inData : inText;

    /// <summary>The words around the first place in which it stands; null: it does not.</summary>
    /// <param name="most">So many characters on either side.</param>
    public string? Around(string text, int most)
    {
        if (In(text).Match(text) is not { Success: true } found)
        {
            return null;
        }

        var (from, to) = (Math.Max(0, found.Index - most), Math.Min(text.Length, found.Index + found.Length + most));
        return $"{(from > 0 ? "…" : "")}{text[from..to].ReplaceLineEndings(" ").Trim()}{(to < text.Length ? "…" : "")}";
    }

    private static string Word(string word) => string.Concat(word.Select(Letter));

    /// <summary>A letter as it is, or escaped in either case.</summary>
    private static string Letter(char letter)
    {
        var written = letter is '\'' or '’'
            ? ['\'', '’']
            : ((char[])[char.ToLowerInvariant(letter), char.ToUpperInvariant(letter)]).Distinct();
        var escapes = written.Select(c => string.Create(CultureInfo.InvariantCulture, $"""\\u{(int)c:x4}"""));
        return $"(?:{string.Join('|', written.Select(c => Regex.Escape(c.ToString())).Concat(escapes))})";
    }
}
