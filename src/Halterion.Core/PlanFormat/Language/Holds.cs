using System.Collections.Immutable;
using System.Diagnostics.CodeAnalysis;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>What a field of the plan language may hold: how it is read, written, and described in the published schema.</summary>
/// <typeparam name="T">The value in the program.</typeparam>
internal abstract class Holds<T>
{
    /// <summary>What would be right, for a field that is missing.</summary>
    public abstract string Right { get; }

    /// <summary>Reads one value; what is wrong with it is noted among the faults.</summary>
    /// <param name="index">Its place in a list by round; null where there is no list.</param>
    public abstract bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out T read);

    public abstract JsonNode Write(T value);

    /// <summary>A new node with each call: a node of a JSON tree has one parent.</summary>
    public abstract JsonObject Schema();

    protected static bool Got<TValue>(TValue? value, out TValue read) where TValue : struct
    {
        read = value.GetValueOrDefault();
        return value is not null;
    }
}

/// <summary>A whole number within bounds.</summary>
internal sealed class WholeNumber(int least, int most) : Holds<int>
{
    public override string Right => Numbers.WholeWords(least, most);

    public override bool TryRead(Context context, Fields fields, JsonElement value, string name, int? index, out int read) =>
        Got(fields.Whole(value, name, index, least, most), out read);

    public override JsonNode Write(int value) => value;

    public override JsonObject Schema() => new() { ["type"] = "integer", ["minimum"] = least, ["maximum"] = most };
}

/// <summary>A length in whole seconds within bounds.</summary>
internal sealed class LengthInSeconds(int least, int most) : Holds<Seconds>
{
    private readonly WholeNumber number = new(least, most);

    public override string Right => number.Right;

    public override bool TryRead(Context context, Fields fields, JsonElement value, string name, int? index, out Seconds read)
    {
        var whole = number.TryRead(context, fields, value, name, index, out var seconds);
        read = new Seconds(seconds);
        return whole;
    }

    public override JsonNode Write(Seconds value) => value.Value;

    public override JsonObject Schema() => number.Schema();
}

/// <summary>A number with at most two decimal places.</summary>
internal sealed class DecimalNumber(decimal least, decimal most) : Holds<decimal>
{
    public override string Right => Numbers.DecimalWords(least, most);

    public override bool TryRead(Context context, Fields fields, JsonElement value, string name, int? index, out decimal read) =>
        Got(fields.Decimal(value, name, index, least, most), out read);

    public override JsonNode Write(decimal value) => value;

    public override JsonObject Schema() =>
        new() { ["type"] = "number", ["minimum"] = least, ["maximum"] = most, ["multipleOf"] = 0.01m };
}

/// <summary>A text; one that may not be empty may not be blank either.</summary>
internal sealed class PlainText(int least, int most) : Holds<string>
{
    public override string Right => Fields.TextWords(least, most);

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out string read)
    {
        read = fields.Text(value, name, index, least, most);
        return read is not null;
    }

    public override JsonNode Write(string value) => value;

    public override JsonObject Schema() => least == 0
        ? new() { ["type"] = "string", ["maxLength"] = most }
        : new() { ["type"] = "string", ["minLength"] = least, ["maxLength"] = most, ["pattern"] = "\\S" };
}

internal sealed class YesOrNo : Holds<bool>
{
    public override string Right => "true or false";

    public override bool TryRead(Context context, Fields fields, JsonElement value, string name, int? index, out bool read) =>
        Got(fields.Flag(value, name), out read);

    public override JsonNode Write(bool value) => value;

    public override JsonObject Schema() => new() { ["type"] = "boolean" };
}

/// <summary>One of the words of an enumeration.</summary>
/// <param name="words">Those that may stand here; none: all of them.</param>
internal sealed class OneWord<T>(params T[] words) : Holds<T> where T : struct, Enum
{
    private readonly string[] names = words.Length == 0 ? WordsOf<T>.Names : Array.ConvertAll(words, WordsOf<T>.Of);

    /// <summary>What else is said where another word stands here.</summary>
    public string? Elsewhere { get; init; }

    public override string Right => $"one of: {string.Join(", ", names)}{(Elsewhere is null ? "" : "; ")}{Elsewhere}";

    public override bool TryRead(Context context, Fields fields, JsonElement value, string name, int? index, out T read)
    {
        if (WordsOf<T>.TryRead(value, out read) && (words.Length == 0 || words.Contains(read)))
        {
            return true;
        }

        fields.Wrong(value, name, index, Right);
        return false;
    }

    public override JsonNode Write(T value) => WordsOf<T>.Of(value);

    public override JsonObject Schema() =>
        new() { ["type"] = "string", ["enum"] = new JsonArray([.. names.Select(n => (JsonNode)n)]) };
}

/// <summary>A value, or a list of 1–20 by round; the last one repeats.</summary>
internal sealed class EachRound<T>(Holds<T> one) : Holds<ByRound<T>> where T : struct
{
    public const int Most = 20;

    public override string Right => $"{one.Right}, or a list by round";

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out ByRound<T> read)
    {
        read = null;
        if (value.ValueKind != JsonValueKind.Array)
        {
            if (one.TryRead(context, fields, value, name, null, out var only))
            {
                read = new ByRound<T>(only);
            }

            return read is not null;
        }

        var items = fields.Items(value, name, 1, Most, "entries");
        var values = ImmutableArray.CreateBuilder<T>(items.Length);
        for (var i = 0; i < items.Length; i++)
        {
            if (one.TryRead(context, fields, items[i], name, i, out var item))
            {
                values.Add(item);
            }
        }

        if (items.Length > 0 && values.Count == items.Length)
        {
            read = new ByRound<T>(values.MoveToImmutable());
        }

        return read is not null;
    }

    /// <summary>Alone where there is one, else a list.</summary>
    public override JsonNode Write(ByRound<T> value) => value.Values.Length == 1
        ? one.Write(value.Values[0])
        : new JsonArray([.. value.Values.Select(one.Write)]);

    public override JsonObject Schema() => new()
    {
        ["oneOf"] = new JsonArray(one.Schema(), Schemas.List(one.Schema(), 1, Most)),
    };
}

/// <summary>A tempo; its pattern stands once in the schema.</summary>
/// <param name="moves">Also a rep of it must take time: it is not one part's alone.</param>
internal sealed class TempoWords(bool moves) : Holds<Tempo>
{
    public override string Right => "a tempo, such as 2-0-1-0";

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out Tempo read)
    {
        read = null;
        if (fields.Text(value, name, index, 1, 120) is not { } text)
        {
            return false;
        }

        if (!Tempo.TryParse(text, out read))
        {
            fields.Fault(name, $"“{Fields.Short(text)}” is not a tempo.", "lower-pause-lift-pause, each 0–60 or X, such as 3-1-1-0");
            return false;
        }

        if (moves && read.RepSeconds(RepStyle.Full) <= 0)
        {
            fields.Fault(name, $"A rep at {read} takes no time.", "a tempo that takes more than 0 s a rep");
        }

        return true;
    }

    public override JsonNode Write(Tempo value) => value.ToString();

    public override JsonObject Schema() => Schemas.Of("PlanTempo");
}

/// <summary>The id of a move of the library or of the class itself.</summary>
internal sealed class MoveName : Holds<MoveId>
{
    private static readonly PlainText Text = new(1, 120);

    public override string Right => Text.Right;

    public override bool TryRead(Context context, Fields fields, JsonElement value, string name, int? index, out MoveId read)
    {
        read = default;
        if (!Text.TryRead(context, fields, value, name, index, out var text))
        {
            return false;
        }

        read = new MoveId(text);
        if (context.Has(read))
        {
            return true;
        }

        fields.Fault(name, $"No move has the id “{text}”.", "the id of a move, such as squat");
        return false;
    }

    public override JsonNode Write(MoveId value) => value.Value;

    public override JsonObject Schema() => Text.Schema();
}

/// <summary>An amount, or a range of it.</summary>
internal sealed class AmountOrRange : Holds<Amount>
{
    public const int Most = 3600;

    private static readonly WholeNumber One = new(1, Most);

    public override string Right => $"a whole number 1–{Most}, a range";

    public override bool TryRead(Context context, Fields fields, JsonElement value, string name, int? index, out Amount read)
    {
        if (value.ValueKind != JsonValueKind.Object)
        {
            var whole = One.TryRead(context, fields, value, name, index, out var only);
            read = new Amount(only);
            return whole;
        }

        var range = fields.Inside(value, name, index);
        var (from, to) = (range.Whole("from", 1, Most, required: true), range.Whole("to", 1, Most, required: true));
        range.Close("a range");
        if (from > to)
        {
            range.Fault("to", $"The range goes from {from} to {to}.", "from no greater than to");
        }

        read = new Amount(from ?? 1, to ?? 1);
        return from is not null && to is not null;
    }

    public override JsonNode Write(Amount value) =>
        value.From == value.To ? value.To : new JsonObject { ["from"] = value.From, ["to"] = value.To };

    public override JsonObject Schema() => Schemas.Of("PlanAmount");

    public static JsonObject Whole() => new()
    {
        ["oneOf"] = new JsonArray(One.Schema(), Schemas.Object(null, [("from", One.Schema()), ("to", One.Schema())], ["from", "to"])),
    };
}

/// <summary>In which rounds a part is done.</summary>
internal sealed class WhichRounds : Holds<PartRounds>
{
    private static readonly WholeNumber Number = new(1, EachRound<int>.Most);
    private static readonly string[] Words = ["all", "first", "last"];

    public override string Right => "all, first, last or a list of round numbers";

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out PartRounds read)
    {
        read = PartRounds.All;
        if (value.ValueKind != JsonValueKind.Array)
        {
            var word = fields.Choice(name, Words);
            read = new PartRounds(word is null or "all" or "first", word is null or "all" or "last", []);
            return word is not null;
        }

        var items = fields.Items(value, name, 1, EachRound<int>.Most, "round numbers");
        var listed = ImmutableArray.CreateBuilder<int>(items.Length);
        for (var i = 0; i < items.Length; i++)
        {
            if (Number.TryRead(context, fields, items[i], name, i, out var round))
            {
                if (listed.Contains(round))
                {
                    fields.FaultAt($"/{name}/{i}", $"Round {round} is listed twice.", "different round numbers");
                }

                listed.Add(round);
            }
        }

        read = new PartRounds(false, false, listed.ToImmutable());
        return true;
    }

    public override JsonNode Write(PartRounds value) =>
        value.Listed.Length > 0 ? new JsonArray([.. value.Listed.Select(r => (JsonNode)r)])
        : value.First ? value.Last ? "all" : "first"
        : "last";

    public override JsonObject Schema()
    {
        var listed = Schemas.List(Number.Schema(), 1, EachRound<int>.Most);
        listed["uniqueItems"] = true;
        return new() { ["oneOf"] = new JsonArray(Schemas.Words(Words), listed) };
    }
}

/// <summary>What is held: a load, or the word that nothing is.</summary>
internal sealed class LoadOrNone : Holds<Load>
{
    private const string None = "none";

    public override string Right => "an object { … }, or none";

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out Load read)
    {
        read = value.ValueKind == JsonValueKind.String && value.ValueEquals(None)
            ? Load.None
            : PlanLanguage.Load.Read(context, fields.Inside(value, name, index), Load.None);
        return true;
    }

    public override JsonNode Write(Load value) => value.IsNone ? JsonValue.Create(None) : PlanLanguage.Load.Write(value);

    public override JsonObject Schema() => new()
    {
        ["anyOf"] = new JsonArray(
            Schemas.Of("PlanLoad"), new JsonObject { ["const"] = None, ["description"] = "Without what the move itself holds." }),
    };
}

/// <summary>Seconds for showing: one value for the first round, or a list by round with nothing past its end.</summary>
internal sealed class DemoSeconds : Holds<Demo>
{
    private static readonly EachRound<Seconds> Seconds = new(new LengthInSeconds(0, 300));

    public override string Right => Seconds.Right;

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out Demo read)
    {
        read = Seconds.TryRead(context, fields, value, name, index, out var seconds)
            ? new Demo(seconds.Values, value.ValueKind == JsonValueKind.Array)
            : null;
        return read is not null;
    }

    public override JsonNode Write(Demo value) =>
        value.Listed ? new JsonArray([.. value.Values.Select(v => (JsonNode)v.Value)]) : value.Values[0].Value;

    public override JsonObject Schema() => Seconds.Schema();
}

/// <summary>A thing with fields of its own.</summary>
internal sealed class Thing<T>(Table<T> table, T blank, string? definition = null) : Holds<T>
{
    public override string Right => "an object { … }";

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out T read)
    {
        read = table.Read(context, fields.Inside(value, name, index), blank);
        return true;
    }

    public override JsonNode Write(T value) => table.Write(value);

    public override JsonObject Schema() => definition is null ? table.Schema() : Schemas.Of(definition);
}

/// <summary>A list of things or words.</summary>
/// <param name="what">What they are, in the plural: "stations".</param>
internal sealed class ListOf<T>(Holds<T> one, int least, int most, string what) : Holds<ImmutableArray<T>>
{
    public override string Right => Fields.ListWords(least, most, what);

    public override bool TryRead(
        Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out ImmutableArray<T> read)
    {
        var items = fields.Items(value, name, least, most, what);
        var list = ImmutableArray.CreateBuilder<T>(items.Length);
        for (var i = 0; i < items.Length; i++)
        {
            if (one.TryRead(context, fields, items[i], name, i, out var item))
            {
                list.Add(item);
            }
        }

        read = list.ToImmutable();
        return true;
    }

    public override JsonNode Write(ImmutableArray<T> value) => new JsonArray([.. value.Select(one.Write)]);

    public override JsonObject Schema() => Schemas.List(one.Schema(), least, most);
}
