using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Leading;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Logbook;

/// <summary>
/// What a use of a station was, whatever becomes of the class: kept with the log, so that a history needs no class to be read.
/// </summary>
/// <param name="Move">The station's own move; its easier and its harder options count as this one, what is done instead as itself.</param>
/// <param name="IsMain">It was main work.</param>
/// <param name="Option">As in a class.</param>
/// <param name="Target">Of its last round; null: it counts neither reps nor seconds.</param>
public sealed record LoggedWork(MoveId Move, Family Family, bool IsMain, JsonObject Option, Target? Target = null)
{
    /// <summary>Of a use; null where it was left out, or the class has no such place.</summary>
    public static LoggedWork? Of(ClassPlan plan, StationUse use)
    {
        if (use.Last is not { } last || plan.Find(use.Station) is not { } place
            || place.Station.Options.FirstOrDefault(o => o.Id == last) is not { } option
            || plan.Moves.Find(option.Tier == Tier.Instead ? option.Move : place.Station.Main.Move) is not { } move)
        {
            return null;
        }

        return new LoggedWork(
            move.Id, move.Family, place.Block.Phase is Phase.Main or Phase.Finisher, PlanWriter.Of(option),
            Doses.Target(place.Block, place.Station, option));
    }
}

/// <summary>What a station asks for, set by set.</summary>
public static class Doses
{
    /// <summary>The part that counts: the first that is counted or held.</summary>
    private static Part? Counted(Station station) => station.Dose.FirstOrDefault(p => p.Kind.IsCounted || p.Kind.IsTimed);

    /// <summary>What is asked in the last round, of each side; null: neither reps nor seconds.</summary>
    public static Target? Target(Block block, Station station, Option option) =>
        Counted(station) is { } part ? In(part, station, option, Math.Max(0, block.Rounds - 1)) : null;

    /// <summary>All sets as they are asked for.</summary>
    /// <param name="ran">The share of a round that ran, from 0, of a side; null: all of it.</param>
    public static ImmutableArray<DoneSet> Sets(
        Block block, Station station, Option option, Person? person = null, Func<int, BodySide?, decimal>? ran = null)
    {
        if (Counted(station) is not { } part)
        {
            return [];
        }

        var sets = ImmutableArray.CreateBuilder<DoneSet>();
        var rounds = block.Shape.IsInRounds ? block.Rounds : 1;
        for (var round = 0; round < rounds; round++)
        {
            if (!part.Rounds.Has(round, rounds))
            {
                continue;
            }

            var target = In(part, station, option, round);
            var kg = Held(part, option, person, round);
            foreach (var side in SidesOf(block, station, part, round))
            {
                var share = ran?.Invoke(round, side) ?? 1;
                if (share <= 0)
                {
                    continue;
                }

                var amount = share >= Whole ? target.Amount : Math.Max(1, (int)Math.Floor(target.Amount * share));
                sets.Add(target.IsTime ? new DoneSet(Seconds: amount, Kg: kg, Side: side) : new DoneSet(amount, Kg: kg, Side: side));
            }
        }

        return sets.ToImmutable();
    }

    /// <summary>So much of a round is all of it: a tap is never to the second. [M]</summary>
    private const decimal Whole = 0.95m;

    private static Target In(Part part, Station station, Option option, int round)
    {
        var amount = part.Amount.At(round).To;
        amount = station.Sides == SideRule.Split ? (amount + 1) / 2 : amount;
        var scale = option.Parts.GetValueOrDefault(station.Dose.IndexOf(part) + 1)?.Manner.Scale ?? option.Manner.Scale ?? 1;
        var scaled = Math.Max(1, (int)Math.Round(amount * scale, MidpointRounding.AwayFromZero));
        return part.Kind.IsTimed ? new Target(Seconds: scaled) : new Target(Reps: scaled);
    }

    /// <summary>Kilograms of all that is held: as written, else as they usually hold.</summary>
    private static decimal? Held(Part part, Option option, Person? person, int round)
    {
        if (option.Manner.Load is not { IsNone: false } load)
        {
            return null;
        }

        var each = part.LoadKg?.At(round) ?? load.Kg?.Value;
        return each is { } kg ? kg * (load.Count ?? 1)
            : person?.Loads?.GetValueOrDefault(option.Move.Value) is { } known && known.Implement == load.Implement ? known.Kg
            : null;
    }

    private static IEnumerable<BodySide?> SidesOf(Block block, Station station, Part part, int round)
    {
        var first = block.StartSideOf(station) == Side.Right ? BodySide.Right : BodySide.Left;
        var other = first == BodySide.Left ? BodySide.Right : BodySide.Left;
        return station.Sides is SideRule.Each or SideRule.Split || block.SidePass == SidePass.Round ? [first, other]
            : block.SidePass == SidePass.Alternate ? [round % 2 == 0 ? first : other]
            : part.Side switch
            {
                Side.Left => [BodySide.Left],
                Side.Right => [BodySide.Right],
                Side.Both or Side.Alternate => [null],
            };
    }
}
