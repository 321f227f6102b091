using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>
/// The fields of one JSON object, taken one by one. Whatever is wrong is noted, never thrown: duplicates,
/// nulls, wrong kinds, values out of bounds, fields that do not belong, and, on <see cref="Close"/>, unknown ones.
/// </summary>
public sealed class Fields
{
    /// <summary>An object has few fields: a list that is searched through is smaller and quicker than a table.</summary>
    private readonly List<Entry> entries = [];
    private readonly Faults faults;

    private sealed record Entry(string Name, JsonElement Value, bool Faulty)
    {
        public bool Known { get; set; }
    }

    /// <summary>The fields of a value that should be an object.</summary>
    public Fields(JsonElement element, string at, Faults faults)
    {
        (At, this.faults) = (at, faults);
        if (element.ValueKind != JsonValueKind.Object)
        {
            IsObject = false;
            faults.Add(at, $"This is {Kind(element)}.", "an object { … }");
            return;
        }

        IsObject = true;
        foreach (var property in element.EnumerateObject())
        {
            if (JsonText.NameOf(property) is not { } name)
            {
                faults.Add(at, "A field name is not valid text.", "names in plain Unicode");
                continue;
            }

            if (Find(name) is not null)
            {
                faults.Add(PointerTo(name), $"“{name}” is given twice.", "each field once");
            }
            else if (property.Value.ValueKind == JsonValueKind.Null && faults.NullIsAbsent)
            {
                continue;
            }
            else if (property.Value.ValueKind == JsonValueKind.Null)
            {
                entries.Add(new Entry(name, default, Faulty: true));
                faults.Add(PointerTo(name), $"“{name}” has no value.", "a value, or no such field");
            }
            else
            {
                entries.Add(new Entry(name, property.Value, Faulty: false));
            }
        }
    }

    /// <summary>Where the object stands, as a JSON Pointer.</summary>
    public string At { get; }

    /// <summary>The value is an object.</summary>
    public bool IsObject { get; }

    /// <summary>The names of the fields that are not faulty.</summary>
    public IEnumerable<string> Names => entries.Where(e => !e.Faulty).Select(e => e.Name);

    /// <summary>Where a field stands, as a JSON Pointer.</summary>
    public string PointerTo(string name) => JsonText.PointerTo(At, name);

    /// <summary>A field of that name stands here, whatever it holds.</summary>
    public bool Has(string name) => Find(name) is not null;

    /// <summary>The field's value, marked as known; null where it is absent or already faulty.</summary>
    public JsonElement? Take(string name)
    {
        if (Find(name) is not { } entry)
        {
            return null;
        }

        entry.Known = true;
        return entry.Faulty ? null : entry.Value;
    }

    /// <summary>The field's value as it stands; it is not marked as known.</summary>
    public JsonElement? Peek(string name) => Find(name) is { Faulty: false } entry ? entry.Value : null;

    /// <summary>Notes a fault where a field stands that does not belong here, whatever its value.</summary>
    public void Refuse(string why, params ReadOnlySpan<string> names)
    {
        foreach (var name in names)
        {
            if (Find(name) is { } entry)
            {
                entry.Known = true;
                faults.Add(PointerTo(name), $"“{name}” does not work here.", why);
            }
        }
    }

    /// <summary>Notes a fault at a field; where the field is absent, at the object that should have it.</summary>
    public void Fault(string name, string detail, string right) => faults.Add(Has(name) ? PointerTo(name) : At, detail, right);

    /// <summary>Notes a fault further inside this object.</summary>
    public void FaultAt(string below, string detail, string right) => faults.Add(At + below, detail, right);

    /// <summary>Notes every field that nobody asked for.</summary>
    public void Close(string what)
    {
        foreach (var name in entries.Where(e => !e.Known).Select(e => e.Name))
        {
            faults.Add(PointerTo(name), $"“{name}” is not known in {what}.", "left out, or spelled as in the schema");
        }
    }

    /// <summary>A whole number within bounds; null, with a fault, where it is not.</summary>
    public int? Whole(string name, int min, int max, bool required = false)
    {
        if (Take(name) is { } value)
        {
            return Whole(value, name, null, min, max);
        }

        return required ? Missing<int>(name, Numbers.WholeWords(min, max)) : null;
    }

    /// <summary>A length in whole seconds within bounds.</summary>
    public Seconds? Seconds(string name, int min, int max, bool required = false) =>
        Whole(name, min, max, required) is { } whole ? new Seconds(whole) : null;

    /// <summary>A number within bounds; null, with a fault, where it is not.</summary>
    public decimal? Decimal(string name, decimal min, decimal max) =>
        Take(name) is { } value ? Decimal(value, name, null, min, max) : null;

    /// <summary>True or false; null where it is absent, and, with a fault, where it is neither.</summary>
    public bool? Flag(string name) => Take(name) is { } value ? Flag(value, name) : null;

    /// <summary>True or false; a fault where it is neither.</summary>
    public bool? Flag(JsonElement value, string name)
    {
        if (value.ValueKind is JsonValueKind.True or JsonValueKind.False)
        {
            return value.ValueKind == JsonValueKind.True;
        }

        return Wrong<bool>(PointerTo(name), value, "true or false");
    }

    /// <param name="controls">A text whose control characters are somebody else's to judge, such as a whole table.</param>
    public string? Text(string name, int least, int most, bool required = false, bool controls = false)
    {
        if (Take(name) is not { } value)
        {
            if (required)
            {
                Missing<int>(name, TextWords(least, most));
            }

            return null;
        }

        return Text(value, name, null, least, most, controls);
    }

    /// <summary>A text of so many characters that is not blank, unless it may be empty; a fault where it is not.</summary>
    public string? Text(JsonElement value, string name, int? index, int least, int most, bool controls = false)
    {
        if (value.ValueKind != JsonValueKind.String || JsonText.Of(value) is not { } text)
        {
            faults.Add(PointerTo(name, index), $"This is {Kind(value)}.", TextWords(least, most));
            return null;
        }

        if (!controls && JsonText.HasControls(text))
        {
            faults.Add(PointerTo(name, index), "This text has characters that cannot be shown.", "plain text; only "
                + "tabs and line ends are taken");
            return null;
        }

        var length = text.EnumerateRunes().Count();
        if (length < least || length > most || (least > 0 && string.IsNullOrWhiteSpace(text)))
        {
            faults.Add(PointerTo(name, index), length > most ? $"This text is too long ({length} characters)." : "This text is empty.",
                TextWords(least, most));
            return null;
        }

        return text;
    }

    /// <summary>One of the words of an enumeration; null, with a fault, where it is another.</summary>
    public T? Choice<T>(string name, bool required = false) where T : struct, Enum
    {
        if (Take(name) is not { } value)
        {
            return required ? Missing<T>(name, $"one of: {WordsOf<T>.Listed}") : null;
        }

        if (WordsOf<T>.TryRead(value, out var choice))
        {
            return choice;
        }

        return Wrong<T>(PointerTo(name), value, $"one of: {WordsOf<T>.Listed}");
    }

    /// <summary>One of some words; null, with a fault, where it is another.</summary>
    public string? Choice(string name, string[] words, bool required = false)
    {
        if (Take(name) is not { } value)
        {
            if (required)
            {
                Missing<int>(name, $"one of: {string.Join(", ", words)}");
            }

            return null;
        }

        if (value.ValueKind == JsonValueKind.String && JsonText.Of(value) is { } word && words.Contains(word))
        {
            return word;
        }

        faults.Add(PointerTo(name), $"This is {Kind(value)}.", $"one of: {string.Join(", ", words)}");
        return null;
    }

    /// <summary>The items of a list, none where it is absent, faulty or of the wrong length.</summary>
    public JsonElement[] Items(string name, int least, int most, string what, bool required = false)
    {
        if (Take(name) is not { } value)
        {
            if (required)
            {
                Missing<int>(name, ListWords(least, most, what));
            }

            return [];
        }

        return Items(value, name, least, most, what);
    }

    private static string ListHas(int length, string what) => length == 0
        ? what == "blocks" ? "This class has no blocks yet." : $"There are no {what} yet."
        : string.Create(System.Globalization.CultureInfo.InvariantCulture,
            $"There {(length == 1 ? "is" : "are")} {length} {(length == 1 && what.EndsWith('s') ? what[..^1] : what)} here.");

    /// <summary>The items of a value that should be a list; none, and a fault, where it is none or of the wrong length.</summary>
    public JsonElement[] Items(JsonElement value, string name, int least, int most, string what)
    {
        var length = value.ValueKind == JsonValueKind.Array ? value.GetArrayLength() : -1;
        if (length < least || length > most)
        {
            faults.Add(PointerTo(name), length < 0 ? $"This is {Kind(value)}." : ListHas(length, what),
                ListWords(least, most, what));
            return [];
        }

        return [.. value.EnumerateArray()];
    }

    /// <summary>A field that is an object of its own; null where it is absent, and, with a fault, where it is none.</summary>
    public Fields? Object(string name, bool required = false)
    {
        if (Take(name) is { } value)
        {
            var inner = new Fields(value, PointerTo(name), faults);
            return inner.IsObject ? inner : null;
        }

        if (required)
        {
            Missing<int>(name, "an object { … }");
        }

        return null;
    }

    /// <summary>A list of objects, each read by itself and then closed.</summary>
    /// <param name="what">What each of them is, such as "a row".</param>
    public ImmutableArray<T> List<T>(
        string name, int least, int most, string what, Func<Fields, T?> read, bool required = false) where T : class
    {
        var items = Items(name, least, most, what, required);
        var list = ImmutableArray.CreateBuilder<T>(items.Length);
        for (var i = 0; i < items.Length; i++)
        {
            var inner = new Fields(items[i], PointerTo(name, i), faults);
            if (inner.IsObject && read(inner) is { } value)
            {
                list.Add(value);
            }

            inner.Close(what);
        }

        return list.ToImmutable();
    }

    /// <summary>A list of words of the contract, each once, in their own order; null where it is absent.</summary>
    public ImmutableArray<T>? Choices<T>(string name, int most) where T : struct, Enum =>
        Has(name) ? [.. WordList<T>(name, most).Distinct().Order()] : null;

    /// <summary>A list of words of the contract as it stands.</summary>
    public ImmutableArray<T> WordList<T>(string name, int most) where T : struct, Enum
    {
        var items = Items(name, 0, most, "words");
        var words = ImmutableArray.CreateBuilder<T>(items.Length);
        for (var i = 0; i < items.Length; i++)
        {
            if (WordsOf<T>.TryRead(items[i], out var word))
            {
                words.Add(word);
            }
            else
            {
                Wrong<T>(PointerTo(name, i), items[i], $"one of: {WordsOf<T>.Listed}");
            }
        }

        return words.ToImmutable();
    }

    /// <summary>A day such as 2026-11-26.</summary>
    public DateOnly? Day(string name)
    {
        if (Text(name, 1, 40) is not { } text)
        {
            return null;
        }

        if (DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
        {
            return day;
        }

        Fault(name, $"“{text}” is not a date.", "a day such as 2026-11-26");
        return null;
    }

    /// <summary>
    /// A whole number within bounds; a fault where it is not. Pointers and words are only made for faults: most fields have none.
    /// </summary>
    public int? Whole(JsonElement value, string name, int? index, int min, int max) =>
        Numbers.Whole(value, min, max) ?? Wrong<int>(PointerTo(name, index), value, Numbers.WholeWords(min, max));

    /// <summary>A number within bounds; null, with a fault, where it is not.</summary>
    public decimal? Decimal(JsonElement value, string name, int? index, decimal min, decimal max) =>
        Numbers.Decimal(value, min, max) ?? Wrong<decimal>(PointerTo(name, index), value, Numbers.DecimalWords(min, max));

    /// <summary>Notes what a value is and what would be right.</summary>
    public void Wrong(JsonElement value, string name, int? index, string right) =>
        faults.Add(PointerTo(name, index), $"This is {Kind(value)}.", right);

    /// <summary>The fields of an object that stands in this one, or in a list of it.</summary>
    public Fields Inside(JsonElement value, string name, int? index) => new(value, PointerTo(name, index), faults);

    /// <summary>What a text should be, in words.</summary>
    public static string TextWords(int least, int most) => $"a text of {least}–{most} characters";

    /// <summary>What a list should be, in words.</summary>
    public static string ListWords(int least, int most, string what) => $"a list of {least}–{most} {what}";

    /// <summary>A text cut to what a sentence can hold.</summary>
    public static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;

    /// <summary>Where a field stands, as a JSON Pointer.</summary>
    public string PointerTo(string name, int? index) => index is { } i ? $"{PointerTo(name)}/{i}" : PointerTo(name);

    /// <summary>Notes that a field is missing from this object, unless it stands here with a fault of its own.</summary>
    public T? Missing<T>(string name, string right) where T : struct
    {
        if (IsObject && Find(name) is null)
        {
            faults.Add(At, $"“{name}” is missing.", right);
        }

        return null;
    }

    private Entry? Find(string name)
    {
        foreach (var entry in entries)
        {
            if (entry.Name == name)
            {
                return entry;
            }
        }

        return null;
    }

    private T? Wrong<T>(string at, JsonElement value, string right) where T : struct
    {
        faults.Add(at, $"This is {Kind(value)}.", right);
        return null;
    }

    /// <summary>What a value is, in words.</summary>
    public static string Kind(JsonElement value) => value.ValueKind switch
    {
        JsonValueKind.Object => "an object",
        JsonValueKind.Array => "a list",
        JsonValueKind.String =>
            JsonText.Of(value) is { } text ? $"the text “{Short(text)}”" : "not valid text",
        JsonValueKind.Number => value.GetRawText() is { Length: <= 40 } raw ? raw : "a very long number",
        JsonValueKind.Null => "null",
        _ => value.GetRawText(),
    };
}
