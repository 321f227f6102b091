using System.Collections.Concurrent;
using System.Collections.Frozen;
using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;

namespace Halterion.Core.Moves;

/// <summary>The moves and their ladders, read from the data files that ship with the program.</summary>
public sealed class MoveLibrary
{
    private static readonly JsonSerializerOptions DataFormat = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectRequiredConstructorParameters = false,
        RespectNullableAnnotations = true,
        NumberHandling = JsonNumberHandling.Strict,
    };

    private const int MostKept = 20_000;

    private readonly FrozenDictionary<MoveId, Move> byId;
    private readonly FrozenSet<MoveId> shipped;
    private readonly ConcurrentDictionary<object, object?> once;

    private MoveLibrary(string version, ImmutableArray<Move> moves, ImmutableArray<Ladder> ladders, FrozenSet<MoveId>? shipped = null, ConcurrentDictionary<object, object?>? once = null)
    {
        (Version, Moves, Ladders) = (version, moves, ladders);
        this.shipped = shipped ?? moves.Select(m => m.Id).ToFrozenSet();
        this.once = once ?? new();
        byId = moves.ToFrozenDictionary(m => m.Id);
    }

    public string Version { get; }

    public ImmutableArray<Move> Moves { get; }

    public ImmutableArray<Ladder> Ladders { get; }

    /// <summary>Reads the shipped library.</summary>
    public static MoveLibrary Load()
    {
        var moves = Enum.GetNames<Family>()
            .SelectMany(family => Read<ImmutableArray<Move>>(family.ToLowerInvariant()))
            .ToImmutableArray();
        return new MoveLibrary("2", moves, Read<ImmutableArray<Ladder>>("ladders"));
    }

    /// <summary>This library and a user's own moves beside it. A shipped move stays; an own move takes the place of an earlier own one.</summary>
    public MoveLibrary With(ImmutableArray<Move> own)
    {
        var fresh = own.Where(m => !IsShipped(m.Id)).Select(m => m.Id).ToHashSet();
        return fresh.Count == 0 ? this : new MoveLibrary(
            Version, [.. Moves.Where(m => !fresh.Contains(m.Id)), .. own.Where(m => fresh.Contains(m.Id))], Ladders, shipped, once);
    }

    /// <summary>Whether a move is of the library that ships, not a user's own.</summary>
    public bool IsShipped(MoveId id) => shipped.Contains(id);

    /// <summary>What follows from the library alone, worked out when it is first asked for.</summary>
    /// <param name="key">Says all that it depends on besides the library.</param>
    public T Once<T>(object key, Func<T> make)
    {
        if (once.Count > MostKept)
        {
            once.Clear();
        }

        return (T)once.GetOrAdd(key, _ => make())!;
    }

    public Move? Find(MoveId id) => byId.GetValueOrDefault(id);

    public bool Has(MoveId id) => byId.ContainsKey(id);

    /// <summary>The option one step easier and one step harder than a move done plainly; at the end of a ladder what the move's own page says.</summary>
    public Proposals Propose(MoveId id)
    {
        var own = Find(id) is { } move ? OwnLines(move) : new Proposals();
        foreach (var ladder in Ladders)
        {
            var at = PlainRung(ladder, id);
            if (at >= 0)
            {
                return new Proposals(Step(ladder, at, -1) ?? own.Easier, Step(ladder, at, +1) ?? own.Harder);
            }
        }

        return own;
    }

    /// <summary>Easier and harder as the move's own page says.</summary>
    private static Proposals OwnLines(Move move)
    {
        Proposal? Of(string tier, string line) => line.Length == 0 ? null : new Proposal(
            new JsonObject { ["tier"] = tier, ["move"] = move.Id.Value, ["note"] = line.TrimEnd('.') },
            move.Name,
            DimensionOf(line),
            line);
        return new Proposals(Of("easier", move.Easier), Of("harder", move.Harder));
    }

    private static string DimensionOf(string line)
    {
        (string Dimension, string[] Words)[] words =
        [
            ("support", ["hand", "wall", "chair", "hold on", "doorway", "cushion", "strap"]),
            ("impact", ["jump", "hop", "leap"]),
            ("load", ["weight", "heav", "light", "band", "peg"]),
            ("tempo", ["slow", "pause", "quick", "longer", "count", "still"]),
            ("depth", ["depth", "higher", "lower", "smaller", "deeper", "shallow", "shorter", "bend", "half", "further", "less"]),
            ("base", ["one leg", "foot", "feet", "stagger", "knees down", "knees bent"]),
        ];
        return words.FirstOrDefault(w => w.Words.Any(x => line.Contains(x, StringComparison.OrdinalIgnoreCase))).Dimension ?? "complexity";
    }

    private static int PlainRung(Ladder ladder, MoveId id)
    {
        for (var i = 0; i < ladder.Rungs.Length; i++)
        {
            if (ladder.Rungs[i].Move == id && ladder.Rungs[i].With is null)
            {
                return i;
            }
        }

        return -1;
    }

    private Proposal? Step(Ladder ladder, int at, int way)
    {
        var to = at + way;
        if (to < 0 || to >= ladder.Rungs.Length)
        {
            return null;
        }

        var rung = ladder.Rungs[to];
        return new Proposal(
            rung.AsOption(way < 0 ? "easier" : "harder"),
            byId[rung.Move].Name,
            way < 0 ? ladder.Rungs[at].Dimension : rung.Dimension,
            way < 0 ? rung.Down : rung.Up);
    }

    private static T Read<T>(string name)
    {
        using var data = typeof(MoveLibrary).Assembly.GetManifestResourceStream($"moves/{name}.json")
            ?? throw new InvalidOperationException($"The move library has no {name}.json.");
        return JsonSerializer.Deserialize<T>(data, DataFormat)!;
    }
}
