using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Logbook;

/// <summary>What is suggested to somebody at a station of a class to come.</summary>
/// <param name="Takes">The station's own option that this is; null: none of them is, so that only weight or target change.</param>
/// <param name="Given">The option that they are given now.</param>
/// <param name="LastTime">"12, 12 with 8 kg"; what they did last.</param>
public sealed record StationSuggestion(
    PersonId Person, PlaceId Station, PlaceId? Given, PlaceId? Takes, Suggestion Next, string LastTime);

/// <summary>Moving on, for everyone and every station of a class.</summary>
public static class Suggestions
{
    /// <summary>Of those who have done a station's move before, in the order of people and stations; who begins anew has no line.</summary>
    /// <param name="history">What they did before, the oldest first.</param>
    public static ImmutableArray<StationSuggestion> Of(RoomOf room, Assignment given, IEnumerable<PastUse> history)
    {
        var moves = room.Plan.Moves;
        var known = history.ToLookup(u => (u.Person, u.Work.Move));
        return
        [
            .. from person in room.People
               from block in room.Plan.Blocks
               where block.Phase is Phase.Main or Phase.Finisher
               from station in block.Stations
               let uses = known[(person.Id, station.Main.Move)]
               let next = Next(room, given, person, block, station, uses, moves)
               where next is not null
               select next,
        ];
    }

    /// <summary>What is asked of moving on for somebody.</summary>
    public static MovingOnCase Case(
        Person person, ImmutableArray<PastWork> history, Option option, Target target, ImmutableArray<StockLine>? stock,
            DateOnly today, Move move) =>
        new(history, option, target, today, person.LevelFor(move.Family), stock, person.Ready ?? [], [.. person.Limits ?? []]);

    private static StationSuggestion? Next(
        RoomOf room, Assignment given, Person person, Block block, Station station, IEnumerable<PastUse> uses, MoveLibrary moves)
    {
        var now = given.People.First(p => p.Person == person.Id).Stations.FirstOrDefault(s => s.Station == station.Id)?.Option;
        var option = station.Options.FirstOrDefault(o => o.Id == now);
        if (option is null || Doses.Target(block, station, option) is not { } target || moves.Find(station.Main.Move) is not { } move)
        {
            return null;
        }

        var history = uses.Select(u => u.AsPast(moves)).OfType<PastWork>()
            .Where(p => p.Target.IsTime == target.IsTime && p.Date <= room.Day).ToImmutableArray();
        if (history.IsEmpty)
        {
            return null;
        }

        var next = MovingOn.Of(Case(person, history, option, target, room.Kit, room.Day, move), moves);
        bool May(Option o) => Allowance.WhyNot(person, o, station, block, moves, room.Day) is null
            && (next.Action != NextStep.Up || Allowance.Wants(o, station, moves).All(person.Has));
        return new StationSuggestion(person.Id, station.Id, now, Takes(next, option, station, May), next, LastTime(history[^1]));
    }

    /// <summary>
    /// The option that is done just so; else, where another is suggested, the station's own of its tier that they may do: what is
    /// suggested was tried against their care, what stands there was not.
    /// </summary>
    private static PlaceId? Takes(Suggestion next, Option now, Station station, Func<Option, bool> may) => next.Of is not { } of ? null
        : station.Options.Where(may).OrderByDescending(o => o.Move == of.Move && o.Manner.Equals(of.Manner))
            .FirstOrDefault(o => o.Move == of.Move && o.Manner.Equals(of.Manner)
                || (of.Tier == now.Tier && next.Action != NextStep.Leave ? o.Id == now.Id : o.Tier == of.Tier))?.Id;

    private static string LastTime(PastWork last) =>
        string.Join(", ", Amounts(last.Sets))
        + (last.Target.IsTime ? " s" : "")
        + (last.Sets[^1].Kg is { } kg ? FormattableString.Invariant($" with {kg:0.##} kg") : "");

    /// <summary>"12", and of two sides "12/10", left first.</summary>
    private static IEnumerable<string> Amounts(ImmutableArray<DoneSet> sets)
    {
        for (var i = 0; i < sets.Length; i++)
        {
            if (i + 1 < sets.Length && sets[i].Side is { } one && sets[i + 1].Side is { } other && one != other)
            {
                yield return one == BodySide.Left
                    ? $"{sets[i].Amount}/{sets[i + 1].Amount}" : $"{sets[i + 1].Amount}/{sets[i].Amount}";
                i++;
            }
            else
            {
                yield return $"{sets[i].Amount}";
            }
        }
    }
}
