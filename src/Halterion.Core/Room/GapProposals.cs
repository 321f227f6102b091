using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;

namespace Halterion.Core.Room;

/// <summary>The best new option for somebody for whom a station has nothing.</summary>
public static class GapProposals
{
    // In steps of a dimension. [M] What has to be fetched, what is not in stock, another family, and a step above their level.
    private const double Fetched = 0.5;
    private const double NotInStock = 4;
    private const double OtherFamily = 3;
    private const double AboveLevel = 6;

    /// <summary>
    /// What is allowed to them, as <c>instead</c>: the main move done otherwise first, then what a coach gives beside it, then the
    /// nearest of the library in demand and kit; what the stock does not have comes after what it has. Null if nothing is.
    /// </summary>
    public static Option? For(Person person, Place place, RoomOf room)
    {
        var moves = room.Plan.Moves;
        var (station, main) = (place.Station, moves.Find(place.Station.Main.Move)!);
        var counted = station.Dose.Any(p => p.Kind == PartKind.Reps && p.OwnTempo is null);
        bool Fits(Option o) => (!counted || moves.Find(o.Move)!.Tempo is not null || o.Manner.Tempo is not null)
            && station.Options.All(s => s.Move != o.Move || !s.Manner.Equals(o.Manner))
            && Allowance.WhyNot(person, o, station, place.Block, moves, room.Day) is null
            && Allowance.Wants(o, station, moves).All(person.Has);
        bool InStock(Option o) =>
            room.Kit is not { } stock || Needs.Of(o, station, moves).All(n => !Supply.Lists(stock, n) || stock.Any(n.IsServedBy));

        var near = Near(person, main, station, room).Where(Fits).ToArray();
        return (near.FirstOrDefault(InStock) ?? near.FirstOrDefault() ?? Far(person, main, place, room).FirstOrDefault(Fits)) is { } found
            ? OptionEntry.Into(found, station, moves)
            : null;
    }

    /// <summary>The same move made otherwise, then a coach's lists: for what they have to care for, easier, then any other.</summary>
    private static IEnumerable<Option> Near(Person person, Move main, Station station, RoomOf room)
    {
        var moves = room.Plan.Moves;
        var doing = new Doing(main.Id, station.Main.Manner);
        var weights = StockWeights.Of(room.Kit);
        var easier = Proposals.All(doing, Tier.Easier, moves, weights: weights).Select(p => p.Of).ToArray();
        var instead = Offers.Of(main, Tier.Instead, moves);
        var cares = person.LimitsOn(room.Day).SelectMany(l => CaredFor(l.Limit)).ToHashSet();
        var own = easier.Concat(instead.Select(o => o.Option)).Where(o => o.Move == main.Id);
        var coached = instead.Where(o => o.For is { } whom && cares.Contains(whom)).Select(o => o.Option)
            .Concat(easier)
            .Concat(instead.Select(o => o.Option))
            .Where(o => o.Move != main.Id);
        return own.Concat(coached).Select(o => o with { Tier = Tier.Instead });
    }

    /// <summary>What an alternative says that it is for, where somebody has this limit.</summary>
    private static string[] CaredFor(Limit limit) => limit switch
    {
        Limit.Knee => ["knees", "jump"],
        Limit.LowerBack => ["back"],
        Limit.Balance => ["balance"],
        Limit.Pregnancy => ["pregnancy"],
        Limit.Ankle => ["ankle", "jump"],
        Limit.Wrist => ["wrists"],
        Limit.Hip => ["hip", "jump"],
        Limit.Neck => ["back", "shoulder"],
        Limit.Shoulder => ["shoulder"],
        Limit.PelvicFloor => ["pregnancy", "jump"],
        _ => [],
    };

    /// <summary>Every move of the library done plainly, or as a coach makes it easier, the nearest first.</summary>
    private static IEnumerable<Option> Far(Person person, Move main, Place place, RoomOf room)
    {
        var moves = room.Plan.Moves;
        if (DemandModel.Of(main.Id, place.Station.Main.Manner, moves) is not { } asked)
        {
            return [];
        }

        var level = person.LevelFor(main.Family);
        return moves.Moves.Where(m => m.Family != Family.Stretch || main.Family == Family.Stretch)
            .SelectMany(
                m => Offers.Of(m, Tier.Easier, moves)
                    .Select(o => o.Option)
                    .Where(o => o.Move == m.Id)
                    .Prepend(Option.Of(Tier.Instead, m.Id)))
            .Select(o => o with { Tier = Tier.Instead })
            .Select(option => (Option: option, Far: Distance(option)))
            .Where(c => c.Far < double.MaxValue)
            .OrderBy(c => c.Far).ThenBy(c => c.Option.Move.Value, StringComparer.Ordinal)
            .Select(c => c.Option);

        double Distance(Option option)
        {
            var move = moves.Find(option.Move)!;
            if (DemandModel.Of(option.Move, option.Manner, moves) is not { } demand)
            {
                return double.MaxValue;
            }

            var needs = Needs.Of(option, place.Station, moves);
            return demand.Dimensions.Zip(asked.Dimensions).Sum(d => Math.Abs(d.First.Value - d.Second.Value))
                + (move.Family == main.Family ? 0 : OtherFamily)
                + Fetched * needs.Length
                + (room.Kit is { } stock ? needs.Count(n => !stock.Any(n.IsServedBy)) * NotInStock : 0)
                + (level == Tier.Easier && demand.Overall > asked.Overall ? AboveLevel : 0);
        }
    }
}
