using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>What is done at once in a moment of a block, one for each head.</summary>
public sealed record Moment(Block Block, IReadOnlyList<(StationAt At, Option Option)> Done)
{
    /// <summary>Every stretch of time in which kit is in use, with who needs what.</summary>
    public static IEnumerable<Moment> AllOf(ClassReview review, Occasion occasion)
    {
        var given = occasion.Given.People.Select(p => p.Stations.ToDictionary(s => s.Station, s => s.Option)).ToArray();
        (StationAt, Option) Done(int head, StationAt at)
        {
            var id = head < given.Length ? given[head].GetValueOrDefault(at.Id) : null;
            return (at, at.Station.Options.FirstOrDefault(o => o.Id == id) ?? at.Station.Main);
        }

        foreach (var block in review.Stations.GroupBy(s => s.B).Select(g => g.ToArray()))
        {
            if (!block[0].Block.Shape.IsSpread)
            {
                foreach (var at in block)
                {
                    yield return new(at.Block, [.. Enumerable.Range(0, occasion.Heads).Select(h => Done(h, at))]);
                }

                continue;
            }

            var groups = GroupsOf(occasion, block[0].Block);
            for (var window = 0; window < (block[0].Block.Shape == BlockShape.OwnPace ? 1 : block.Length); window++)
            {
                yield return new(
                    block[0].Block, [.. groups.SelectMany((group, g) => group.Select(h => Done(h, block[(g + window) % block.Length])))]);
            }
        }
    }

    /// <summary>Heads by group: the named ones by their place in the list, then those without a name.</summary>
    public static IReadOnlyList<int[]> GroupsOf(Occasion occasion, Block block)
    {
        var named = occasion.Room.People.Select((p, i) => (p.Id, i)).ToDictionary(p => p.Id, p => p.i);
        var groups = occasion.Given.Groups.First(g => g.Block == block.Id);
        var next = occasion.Room.People.Length;
        return [.. groups.Groups.Select((ids, g) =>
            (int[])[.. ids.Select(id => named[id]), .. Enumerable.Range(0, groups.Sizes[g] - ids.Length).Select(_ => next++)])];
    }
}
