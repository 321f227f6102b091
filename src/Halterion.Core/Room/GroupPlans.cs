using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>The groups of a rotation, made from what is known of the people.</summary>
public static class GroupPlans
{
    /// <summary>Groups that were chosen, where they are of exactly these people; else null.</summary>
    public static ImmutableArray<ImmutableArray<PersonId>>? AsChosen(
        Block block, ImmutableArray<Person> people, ImmutableDictionary<PersonId, int> were) =>
        people.Length > 0
            && were.Count == people.Length
            && people.All(p => were.TryGetValue(p.Id, out var group) && group < block.Stations.Length)
            ? [.. block.Stations.Select((_, g) => people.Where(p => were[p.Id] == g).Select(p => p.Id).ToImmutableArray())]
            : null;

    /// <param name="were">The group each was in.</param>
    /// <param name="circle">The circle somebody stays together with.</param>
    /// <param name="isNew">They have not been to a class yet.</param>
    public static ImmutableArray<ImmutableArray<PersonId>> Of(
        Block block, MoveLibrary moves, ImmutableArray<Person> people, int headCount, DateOnly day,
        ImmutableDictionary<PersonId, int> were, Func<PersonId, Guid?> circle, Func<PersonId, bool> isNew)
    {
        var hops = block.Stations.Select(s => IsHop(s, moves)).ToImmutableArray();
        var members = people.Select(p => new GroupMember(
            isNew(p.Id) || p.LimitsOn(day).Any(l => l.Strict),
            CannotHop(p, block, moves, day),
            circle(p.Id),
            were.TryGetValue(p.Id, out var was) ? was : null)).ToImmutableArray();
        var groups = Grouping.Make(members, Math.Max(0, headCount - people.Length), hops);
        return [
            .. Enumerable.Range(0, hops.Length).Select(g => people.Where((_, i) => groups[i] == g).Select(p => p.Id).ToImmutableArray())];
    }

    /// <summary>Whether the main option of a station is a hop or jump.</summary>
    public static bool IsHop(Station station, MoveLibrary moves) =>
        station.Main.In(station).Any(d => moves.Find(d.Move) is { } move && OptionFacts.Of(move, d.Manner, moves) is { Flight: true });

    /// <summary>Whether every hop or jump of the block is kept from them, or their landings have not been seen.</summary>
    private static bool CannotHop(Person person, Block block, MoveLibrary moves, DateOnly day) =>
        !person.Has(Tick.Land)
            || block.Stations.Any(s => IsHop(s, moves) && Allowance.WhyNot(person, s.Main, s, block, moves, day) is not null);
}
