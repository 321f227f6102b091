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
    private const int MostKept = 20_000;

    /// <summary>What is large, such as a film of some hundred kilobytes. [M] As much as a long class needs.</summary>
    private const int MostLarge = 60;

    private readonly FrozenDictionary<MoveId, Move> byId;
    private readonly FrozenSet<MoveId> shipped;
    private readonly Worked once;
    private readonly Dictionary<MoveId, ImmutableArray<Move>> formsOf = [];

    private MoveLibrary(
        string version,
        ImmutableArray<Move> moves, ImmutableArray<Ladder> ladders, FrozenSet<MoveId>? shipped = null,
        Worked? once = null)
    {
        (Version, Moves, Ladders) = (version, moves, ladders);
        this.shipped = shipped ?? moves.Select(m => m.Id).ToFrozenSet();
        this.once = once ?? new Worked([], []);
        byId = moves.ToFrozenDictionary(m => m.Id);
        foreach (var move in moves.Where(m => m.FormOf is not null))
        {
            foreach (var of in move.Forms.Select(f => f.Move).Distinct())
            {
                formsOf[of] = formsOf.GetValueOrDefault(of, []).Add(move);
            }
        }
    }

    /// <summary>Of the data.</summary>
    public string Version { get; }

    /// <summary>All moves, in the order of the library.</summary>
    public ImmutableArray<Move> Moves { get; }

    /// <summary>From easy to hard, family by family.</summary>
    public ImmutableArray<Ladder> Ladders { get; }

    /// <summary>Reads the shipped library.</summary>
    public static MoveLibrary Load()
    {
        var moves = Enum.GetNames<Family>()
            .SelectMany(family => DataFile.Read<ImmutableArray<JsonObject>>(family.ToLowerInvariant()))
            .Select(Shipped)
            .ToImmutableArray();
        return new MoveLibrary("2", moves, DataFile.Read<ImmutableArray<Ladder>>("ladders"));
    }

    /// <summary>A move with its key poses, which stand in the data beside its texts.</summary>
    private static Move Shipped(JsonObject data)
    {
        var poses = data["poses"].Deserialize<MovePoses>(DataFile.Format);
        var offers = MoveOffers.Of(data["offers"]?.AsObject());
        data.Remove("poses");
        data.Remove("offers");
        return data.Deserialize<Move>(DataFile.Format)! with { Poses = poses, Offers = offers };
    }

    /// <summary>
    /// This library and a user's own moves beside it. A shipped move stays; an own move takes the place of an earlier own one.
    /// </summary>
    public MoveLibrary With(ImmutableArray<Move> own) => Over([.. own.Where(m => !IsShipped(m.Id))]);

    /// <summary>
    /// The same inside a class: the moves that it carries are its own, also where the library has taken an id of theirs since.
    /// </summary>
    public MoveLibrary Over(ImmutableArray<Move> own)
    {
        var fresh = own.Select(m => m.Id).ToHashSet();
        var taken = fresh.Where(IsShipped).ToArray();
        return fresh.Count == 0 ? this : new MoveLibrary(
            Version, [.. Moves.Where(m => !fresh.Contains(m.Id)), .. own], Ladders,
            taken.Length == 0 ? shipped : shipped.Except(taken).ToFrozenSet(),
            // What was worked out for a shipped move does not hold for one of the same id.
            taken.Length == 0 ? once : null);
    }

    /// <summary>Whether a move is of the library that ships, not a user's own.</summary>
    public bool IsShipped(MoveId id) => shipped.Contains(id);

    /// <summary>What follows from the library alone, worked out when it is first asked for.</summary>
    /// <param name="key">Says all that it depends on besides the library.</param>
    /// <param name="large">It takes much room: few of its kind are kept.</param>
    public T Once<T>(object key, Func<T> make, bool large = false)
    {
        var kept = large ? once.Large : once.Small;
        if (kept.TryGetValue(key, out var known))
        {
            return (T)known!;
        }

        var made = make();
        // Counting what is kept locks all of it: it is counted when something is added, not when something is asked for.
        if (kept.Count >= (large ? MostLarge : MostKept))
        {
            kept.Clear();
        }

        return (T)kept.GetOrAdd(key, made)!;
    }

    /// <summary>Which moves stand for what, where one is needed.</summary>
    public static UsualMoves Usual { get; } = DataFile.Read<UsualMoves>("usual");

    private sealed record Worked(ConcurrentDictionary<object, object?> Small, ConcurrentDictionary<object, object?> Large);

    /// <summary>Moves that another one amounts to when it is done in a certain way.</summary>
    public ImmutableArray<Move> FormsOf(MoveId id) => formsOf.GetValueOrDefault(id, []);

    /// <summary>The move of an id; null: there is none.</summary>
    public Move? Find(MoveId id) => byId.GetValueOrDefault(id);

    /// <summary>There is a move of that id.</summary>
    public bool Has(MoveId id) => byId.ContainsKey(id);
}
