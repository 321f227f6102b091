using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Halterion.Core;

/// <summary>A named value that is one number or one text in JSON.</summary>
public interface IScalar<TSelf, TRaw> where TSelf : struct, IScalar<TSelf, TRaw>
{
    /// <summary>The raw value.</summary>
    TRaw Value { get; }

    /// <summary>The value of a raw one.</summary>
    static abstract TSelf From(TRaw raw);
}

/// <summary>Writes a scalar as its bare value.</summary>
public sealed class ScalarJson<TSelf, TRaw> : JsonConverter<TSelf> where TSelf : struct, IScalar<TSelf, TRaw>
{
    /// <inheritdoc/>
    public override TSelf Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        TSelf.From(JsonSerializer.Deserialize<TRaw>(ref reader, options)!);

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, TSelf value, JsonSerializerOptions options) =>
        JsonSerializer.Serialize(writer, value.Value, options);
}

/// <summary>A length of time, or a place on a timeline, in whole seconds.</summary>
[JsonConverter(typeof(ScalarJson<Seconds, int>))]
public readonly record struct Seconds(int Value) : IScalar<Seconds, int>, IComparable<Seconds>
{
    /// <summary>No time.</summary>
    public static Seconds Zero => new(0);

    /// <inheritdoc/>
    public static Seconds From(int raw) => new(raw);

    /// <summary>The sum.</summary>
    public static Seconds operator +(Seconds a, Seconds b) => new(a.Value + b.Value);

    /// <summary>The difference.</summary>
    public static Seconds operator -(Seconds a, Seconds b) => new(a.Value - b.Value);

    /// <summary>Longer than.</summary>
    public static bool operator >(Seconds a, Seconds b) => a.Value > b.Value;

    /// <summary>Shorter than.</summary>
    public static bool operator <(Seconds a, Seconds b) => a.Value < b.Value;

    /// <summary>Not shorter than.</summary>
    public static bool operator >=(Seconds a, Seconds b) => a.Value >= b.Value;

    /// <summary>Not longer than.</summary>
    public static bool operator <=(Seconds a, Seconds b) => a.Value <= b.Value;

    /// <inheritdoc/>
    public int CompareTo(Seconds other) => Value.CompareTo(other.Value);

    /// <summary>As it is said: "70 s", "2 min", "4 min 10 s". Up to 90 s it stays in seconds.</summary>
    public override string ToString()
    {
        var size = Math.Abs(Value);
        var sign = Value < 0 ? "-" : "";
        return size <= 90 ? string.Create(CultureInfo.InvariantCulture, $"{sign}{size} s")
            : size % 60 == 0 ? string.Create(CultureInfo.InvariantCulture, $"{sign}{size / 60} min")
            : string.Create(CultureInfo.InvariantCulture, $"{sign}{size / 60} min {size % 60} s");
    }

    /// <summary>As it is said of what is over, to spare, late or early: from a minute on in minutes: "1 min 18 s", "1 min".</summary>
    public string Apart() => Math.Abs(Value) is > 60 and <= 90
        ? string.Create(CultureInfo.InvariantCulture, $"{(Value < 0 ? "-" : "")}1 min {Math.Abs(Value) - 60} s")
        : Math.Abs(Value) == 60 ? "1 min" : ToString();
}

/// <summary>The stable id of a move, as it stands in class files.</summary>
[JsonConverter(typeof(ScalarJson<MoveId, string>))]
public readonly record struct MoveId(string Value) : IScalar<MoveId, string>
{
    /// <inheritdoc/>
    public static MoveId From(string raw) => new(raw);

    /// <inheritdoc/>
    public override string ToString() => Value;
}

/// <summary>The name of a block, a station or an option within its class; it stays when things around it move.</summary>
[JsonConverter(typeof(ScalarJson<PlaceId, string>))]
public readonly record struct PlaceId(string Value) : IScalar<PlaceId, string>
{
    /// <summary>What belongs to no part of the class but to all of it.</summary>
    public static readonly PlaceId Class = new("class");

    /// <inheritdoc/>
    public static PlaceId From(string raw) => new(raw);

    /// <inheritdoc/>
    public override string ToString() => Value;
}

/// <summary>Names somebody on the roster.</summary>
[JsonConverter(typeof(ScalarJson<PersonId, string>))]
public readonly record struct PersonId(string Value) : IScalar<PersonId, string>
{
    /// <inheritdoc/>
    public static PersonId From(string raw) => new(raw);

    /// <inheritdoc/>
    public override string ToString() => Value;
}

/// <summary>A weight in kilograms, exact.</summary>
[JsonConverter(typeof(ScalarJson<Kilograms, decimal>))]
public readonly record struct Kilograms(decimal Value) : IScalar<Kilograms, decimal>
{
    /// <inheritdoc/>
    public static Kilograms From(decimal raw) => new(raw);
}

/// <summary>Which side of the body a piece of work belongs to.</summary>
public enum Side
{
    /// <summary>Both at once.</summary>
    Both,
    /// <summary>The left.</summary>
    Left,
    /// <summary>The right.</summary>
    Right,
    /// <summary>Rep by rep in turn.</summary>
    Alternate,
}

/// <summary>What sides do.</summary>
public static class Sides
{
    /// <summary>The other of left and right; what is neither stays.</summary>
    public static Side Other(this Side side) => side switch
    {
        Side.Left => Side.Right,
        Side.Right => Side.Left,
        Side.Both or Side.Alternate => side,
    };
}
