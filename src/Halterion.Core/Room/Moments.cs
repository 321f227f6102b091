using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>Somebody at a station: both by their place in the list; people past the named ones have no name.</summary>
public readonly record struct Spot(int Person, int Station);

/// <summary>A time at which certain people are at certain stations, so that they share the kit.</summary>
/// <param name="Station">The only station; null where the block's stations are all in use.</param>
/// <param name="Window">Of a rotation, from 0; null elsewhere.</param>
public sealed record Moment(PlaceId Block, PlaceId? Station, int? Window, ImmutableArray<Spot> Spots);

/// <summary>A station with its block, in the order of the class.</summary>
public sealed record Place(Block Block, Station Station)
{
    /// <summary>Every station of a class with its block.</summary>
    public static ImmutableArray<Place> Of(ClassPlan plan) =>
        [.. plan.Blocks.Where(b => b.Shape.HasStations).SelectMany(b => b.Stations.Select(s => new Place(b, s)))];
}

/// <summary>Groups of a rotation, or of an own-pace block: people by their place in the list.</summary>
public static class Groups
{
    /// <summary>As even as can be, the first ones larger, in list order.</summary>
    public static ImmutableArray<ImmutableArray<int>> InOrder(int people, int groups)
    {
        var sizes = Sizes(people, groups);
        return [.. sizes.Select((size, g) => Enumerable.Range(sizes.Take(g).Sum(), size).ToImmutableArray())];
    }

    /// <summary>The sizes of groups that differ by at most one, the first ones larger.</summary>
    public static ImmutableArray<int> Sizes(int people, int groups) =>
        [.. Enumerable.Range(0, groups).Select(g => people / groups + (g < people % groups ? 1 : 0))];

    /// <summary>Groups as they were given, those who stand in none and those without a name filling up the smallest.</summary>
    public static ImmutableArray<ImmutableArray<int>> Filled(ImmutableArray<ImmutableArray<int>> given, int people)
    {
        var groups = given.Select(g => g.ToList()).ToArray();
        foreach (var person in Enumerable.Range(0, people).Except(given.SelectMany(g => g)))
        {
            groups.MinBy(g => g.Count)!.Add(person);
        }

        return [.. groups.Select(g => g.ToImmutableArray())];
    }
}

/// <summary>The moments of a class: what counts twice with the same people at the same stations stands here once.</summary>
public static class Moments
{
    /// <param name="groups">Of rotations and own-pace blocks, by block.</param>
    public static IEnumerable<Moment> Of(
        ImmutableArray<Place> places, int people, IReadOnlyDictionary<PlaceId, ImmutableArray<ImmutableArray<int>>> groups)
    {
        foreach (var block in places.Select(p => p.Block).DistinctBy(b => b.Id))
        {
            var first = places.IndexOf(places.First(p => p.Block.Id == block.Id));
            var many = block.Stations.Length;
            if (!block.Shape.IsSpread)
            {
                for (var s = 0; s < many; s++)
                {
                    yield return new Moment(
                        block.Id, block.Stations[s].Id, null, [.. Enumerable.Range(0, people).Select(p => new Spot(p, first + s))]);
                }

                continue;
            }

            // At their own pace people spread over the stations as at the first bell of a rotation.
            var windows = block.Shape == BlockShape.OwnPace ? 1 : many;
            for (var w = 0; w < windows; w++)
            {
                yield return new Moment(block.Id, null, w,
                    [
                        .. groups[block.Id]
                            .SelectMany((group, g) => group.Select(p => new Spot(p, first + (g + w) % many)))
                            .OrderBy(s => s.Person)]);
            }
        }
    }
}
