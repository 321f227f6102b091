using System.Collections.Immutable;

namespace Halterion.Core.Room;

/// <summary>Somebody who is to be put in a group.</summary>
/// <param name="Careful">They have a strict limit, or are new: such people are spread.</param>
/// <param name="NoHop">They should not begin at a hop or jump.</param>
/// <param name="With">The circle whose people stay together; null: none.</param>
/// <param name="Was">The group they were in.</param>
public sealed record GroupMember(bool Careful, bool NoHop, Guid? With, int? Was);

/// <summary>
/// Makes the groups of a rotation: sizes differ by at most one, the first ones larger; who belongs together stays together, careful
/// people are spread, nobody who should not hop begins at a hop, and most keep their group.
/// </summary>
public static class Grouping
{
    // [M] In this order of weight: being split from one's own, crowding care in one group, beginning at a hop, having to move.
    private const int Split = 1000;
    private const int Crowded = 100;
    private const int Hop = 50;
    private const int Moved = 10;

    /// <param name="unnamed">Heads without a name; they fill up what is left.</param>
    /// <param name="hops">For each station, whether it is a hop or jump.</param>
    /// <returns>For each member their group, from 0.</returns>
    public static ImmutableArray<int> Make(ImmutableArray<GroupMember> members, int unnamed, ImmutableArray<bool> hops)
    {
        var sizes = Groups.Sizes(members.Length + unnamed, hops.Length);
        var group = Start(members, sizes);
        var counts = Counts(group, hops.Length);
        var best = Cost(members, group, hops);
        for (var better = true; better;)
        {
            better = false;
            for (var a = 0; a < group.Length; a++)
            {
                for (var g = 0; g < sizes.Length; g++)
                {
                    if (g != group[a] && counts[g] < sizes[g])
                    {
                        var from = group[a];
                        group[a] = g;
                        if (Cost(members, group, hops) is var cost && cost < best)
                        {
                            (best, better) = (cost, true);
                            (counts[from], counts[g]) = (counts[from] - 1, counts[g] + 1);
                        }
                        else
                        {
                            group[a] = from;
                        }
                    }
                }

                for (var b = a + 1; b < group.Length; b++)
                {
                    if (group[a] == group[b])
                    {
                        continue;
                    }

                    (group[a], group[b]) = (group[b], group[a]);
                    if (Cost(members, group, hops) is var cost && cost < best)
                    {
                        (best, better) = (cost, true);
                    }
                    else
                    {
                        (group[a], group[b]) = (group[b], group[a]);
                    }
                }
            }
        }

        return [.. group];
    }

    /// <summary>Everyone where they were as long as there is room, circles first; then the rest where most room is left.</summary>
    private static int[] Start(ImmutableArray<GroupMember> members, ImmutableArray<int> sizes)
    {
        var left = sizes.ToArray();
        var group = Enumerable.Repeat(-1, members.Length).ToArray();
        foreach (var i in Enumerable.Range(0, members.Length).OrderBy(i => members[i].With is null))
        {
            if (members[i].Was is { } was && was >= 0 && was < left.Length && left[was] > 0)
            {
                group[i] = was;
                left[was]--;
            }
        }

        foreach (var circle in Enumerable.Range(0, members.Length).Where(i => group[i] < 0)
            .GroupBy(i => members[i].With is { } with ? with.ToString() : $"{i}").OrderByDescending(c => c.Count()))
        {
            foreach (var i in circle)
            {
                var near = members[i].With is { } with
                    ? Enumerable.Range(0, members.Length)
                        .Where(o => o != i && members[o].With == with && group[o] >= 0 && left[group[o]] > 0)
                            .Select(o => group[o])
                            .DefaultIfEmpty(-1)
                            .First()
                    : -1;
                var to = near >= 0 ? near : Enumerable.Range(0, left.Length).OrderByDescending(g => left[g]).ThenBy(g => g).First();
                group[i] = to;
                left[to]--;
            }
        }

        return group;
    }

    private static int[] Counts(int[] group, int groups)
    {
        var counts = new int[groups];
        foreach (var g in group)
        {
            counts[g]++;
        }

        return counts;
    }

    private static int Cost(ImmutableArray<GroupMember> members, int[] group, ImmutableArray<bool> hops)
    {
        var careful = new int[hops.Length];
        var cost = 0;
        for (var i = 0; i < members.Length; i++)
        {
            careful[group[i]] += members[i].Careful ? 1 : 0;
            cost += members[i].NoHop && hops[group[i]] ? Hop : 0;
            cost += members[i].Was is { } was && was != group[i] ? Moved : 0;
            for (var j = i + 1; members[i].With is { } with && j < members.Length; j++)
            {
                cost += members[j].With == with && group[i] != group[j] ? Split : 0;
            }
        }

        // The sum of squares is least where the counts differ by at most one.
        return cost + Crowded * careful.Sum(c => c * c);
    }
}
