using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Halterion.Core;

/// <summary>A named value that is one number or one text in JSON.</summary>
public interface IScalar<TSelf, TRaw> where TSelf : struct, IScalar<TSelf, TRaw>
{
    TRaw Value { get; }

    static abstract TSelf From(TRaw raw);
}

/// <summary>Writes a scalar as its bare value.</summary>
public sealed class ScalarJson<TSelf, TRaw> : JsonConverter<TSelf> where TSelf : struct, IScalar<TSelf, TRaw>
{
    public override TSelf Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        TSelf.From(JsonSerializer.Deserialize<TRaw>(ref reader, options)!);

    public override void Write(Utf8JsonWriter writer, TSelf value, JsonSerializerOptions options) =>
        JsonSerializer.Serialize(writer, value.Value, options);
}

/// <summary>A length of time, or a place on a timeline, in whole seconds.</summary>
[JsonConverter(typeof(ScalarJson<Seconds, int>))]
public readonly record struct Seconds(int Value) : IScalar<Seconds, int>, IComparable<Seconds>
{
    public static Seconds Zero => new(0);

    public static Seconds From(int raw) => new(raw);

    public static Seconds operator +(Seconds a, Seconds b) => new(a.Value + b.Value);

    public static Seconds operator -(Seconds a, Seconds b) => new(a.Value - b.Value);

    public static bool operator >(Seconds a, Seconds b) => a.Value > b.Value;

    public static bool operator <(Seconds a, Seconds b) => a.Value < b.Value;

    public static bool operator >=(Seconds a, Seconds b) => a.Value >= b.Value;

    public static bool operator <=(Seconds a, Seconds b) => a.Value <= b.Value;

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
}

/// <summary>The stable id of a move, as it stands in class files.</summary>
[JsonConverter(typeof(ScalarJson<MoveId, string>))]
public readonly record struct MoveId(string Value) : IScalar<MoveId, string>
{
    public static MoveId From(string raw) => new(raw);

    public override string ToString() => Value;
}

/// <summary>The name of a block, a station or an option within its class; it stays when things around it move.</summary>
[JsonConverter(typeof(ScalarJson<PlaceId, string>))]
public readonly record struct PlaceId(string Value) : IScalar<PlaceId, string>
{
    /// <summary>What belongs to no part of the class but to all of it.</summary>
    public static readonly PlaceId Class = new("class");

    public static PlaceId From(string raw) => new(raw);

    public override string ToString() => Value;
}

/// <summary>Names somebody on the roster.</summary>
[JsonConverter(typeof(ScalarJson<PersonId, string>))]
public readonly record struct PersonId(string Value) : IScalar<PersonId, string>
{
    public static PersonId From(string raw) => new(raw);

    public override string ToString() => Value;
}

/// <summary>A weight in kilograms, exact.</summary>
[JsonConverter(typeof(ScalarJson<Kilograms, decimal>))]
public readonly record struct Kilograms(decimal Value) : IScalar<Kilograms, decimal>
{
    public static Kilograms From(decimal raw) => new(raw);
}

/// <summary>Which side of the body a piece of work belongs to.</summary>
public enum Side
{
    Both,
    Left,
    Right,
    Alternate,
}

public static class Sides
{
    public static Side Other(this Side side) => side switch
    {
        Side.Left => Side.Right,
        Side.Right => Side.Left,
        Side.Both or Side.Alternate => side,
    };
}
