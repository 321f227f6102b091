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
    /// The option of the library that is allowed to them and nearest to the main one in demand and kit, as <c>instead</c>; null
    /// if nothing is.
    /// </summary>
    public static Option? For(Person person, Place place, RoomOf room)
    {
        var moves = room.Plan.Moves;
        var main = moves.Find(place.Station.Main.Move)!;
        if (DemandModel.Of(main.Id, place.Station.Main.Manner, moves) is not { } asked)
        {
            return null;
        }

        var level = person.LevelFor(main.Family);
        return Candidates(main, place.Station, moves)
            .Select(option => (Option: option, Far: Far(option)))
            .Where(c => c.Far < double.MaxValue)
            .OrderBy(c => c.Far).ThenBy(c => c.Option.Move.Value, StringComparer.Ordinal)
            .Select(c => c.Option)
            .FirstOrDefault(o => Allowance.WhyNot(person, o, place.Station, place.Block, moves, room.Day) is null
                && Allowance.Wants(o, place.Station, moves).All(person.Has));

        double Far(Option option)
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

    /// <summary>The station's own moves done easier, then every move of the library done plainly. A dose of reps needs a move with a tempo.</summary>
    private static IEnumerable<Option> Candidates(Move main, Station station, MoveLibrary moves)
    {
        var counted = station.Dose.Any(p => p.Kind == PartKind.Reps && p.OwnTempo is null);
        var own = station.Options.Select(o => o.Move).Distinct().Select(moves.Find).OfType<Move>();
        var eased = own.SelectMany(m => Variations.Of(m, Tier.Easier)).Select(v => v.Option with { Tier = Tier.Instead });
        return eased.Concat(moves.Moves.Where(m => m.Family != Family.Stretch || main.Family == Family.Stretch).Select(m => Option.Of(Tier.Instead, m.Id)))
            .Where(o => !counted || moves.Find(o.Move)!.Tempo is not null);
    }
}
