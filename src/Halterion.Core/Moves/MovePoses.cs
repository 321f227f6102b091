using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core.Body;

namespace Halterion.Core.Moves;

/// <summary>What is held, as the library says it.</summary>
public sealed record MoveLoad(string Kind, double Kg, CarriedBy By);

/// <summary>A move as key poses, what it is done at and with, and from where it is best seen.</summary>
/// <param name="View">The view that explains it.</param>
/// <param name="Poses">2–6 in order; each is the one before it but for what it names.</param>
/// <param name="Way">How a rep ends.</param>
/// <param name="Props">What stands there, and where: "chair:under", "wall:behind" …</param>
/// <param name="Arrow">The joint whose way the arrow shows, where it is not the one that goes furthest.</param>
/// <param name="Map">The stance is the point: a map of the feet stands beside it.</param>
[JsonConverter(typeof(MovePosesReader))]
public sealed record MovePoses(
    View View,
    ImmutableArray<KeyPose> Poses,
    Way Way = Way.Back,
    ImmutableArray<string> Props = default,
    BandAt Band = BandAt.None,
    MoveLoad? Holds = null,
    bool Map = false,
    Joint? Arrow = null)
{
    /// <summary>What is held; null: nothing.</summary>
    public Carried? Load =>
        Holds is { } h ? new Carried(h.Kind, h.Kg, h.Kg * (h.By == CarriedBy.EachHand ? 2 : 1) / Anthropometry.UsualMass, h.By) : null;
}

/// <summary>Reads key poses; a pose takes from the one before it what it does not name, and a foot or arm is replaced as a whole.</summary>
internal sealed class MovePosesReader : JsonConverter<MovePoses>
{
    private static readonly JsonSerializerOptions Plain = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase), new ArmReader() },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
    };

    private sealed record Raw(
        View View,
        ImmutableArray<JsonObject> Poses,
        Way Way,
        ImmutableArray<string> Props,
        BandAt Band,
        MoveLoad? Holds,
        bool Map,
        Joint? Arrow);

    public override MovePoses Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options)
    {
        var raw = JsonSerializer.Deserialize<Raw>(ref reader, Plain)!;
        var poses = ImmutableArray.CreateBuilder<KeyPose>();
        var so = new JsonObject();
        foreach (var said in raw.Poses)
        {
            so = (JsonObject)so.DeepClone();
            foreach (var once in (string[])["share", "arc", "through", "unseen"])
            {
                so.Remove(once);
            }

            foreach (var (name, value) in said)
            {
                so[name] = value?.DeepClone();
            }

            poses.Add(so.Deserialize<KeyPose>(Plain)!);
        }

        return new MovePoses(raw.View, poses.ToImmutable(), raw.Way, raw.Props, raw.Band, raw.Holds, raw.Map, raw.Arrow);
    }

    /// <summary>Not written: clients are given figures.</summary>
    public override void Write(Utf8JsonWriter writer, MovePoses value, JsonSerializerOptions options) => writer.WriteNullValue();

    /// <summary>A word, or an object that says where it is.</summary>
    private sealed class ArmReader : JsonConverter<ArmSpec>
    {
        private static readonly JsonSerializerOptions Inner = new(JsonSerializerDefaults.Web)
        {
            Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        };

        public override ArmSpec? Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String
                ? new ArmSpec(JsonSerializer.Deserialize<ArmWord>(ref reader, Inner))
                : JsonSerializer.Deserialize<ArmSpec>(ref reader, Inner);

        public override void Write(Utf8JsonWriter writer, ArmSpec value, JsonSerializerOptions options) => writer.WriteNullValue();
    }
}
