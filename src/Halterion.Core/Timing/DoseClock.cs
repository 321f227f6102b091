using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>A stretch of a dose: work, a rest inside it, a switch of sides or of turns.</summary>
/// <param name="Amount">Reps, seconds, pulses or metres of this go.</param>
internal readonly record struct Stretch(SpanKind Kind, int Seconds, int Part, Side Side, int Turn, int Amount);

/// <summary>The dose of one station in one round, stretch by stretch (plan-language.md, "Seconds").</summary>
internal static class DoseClock
{
    /// <param name="roundSide">The side that the round or the pass gives; <see cref="Side.Both"/> where the station has its own
    /// rule.</param>
    public static List<Stretch> Stretches(Station station, Block block, int round, Side roundSide)
    {
        var stretches = new List<Stretch>();
        if (!DoesAnything(station, block, round))
        {
            return stretches;
        }

        for (var turn = 0; turn < (station.Turns ? 2 : 1); turn++)
        {
            if (turn > 0)
            {
                Switch(stretches, block.SwitchAt(station, round), turn);
            }

            OneTurn(stretches, station, block, round, roundSide, turn);
        }

        return stretches;
    }

    public static bool DoesAnything(Station station, Block block, int round)
    {
        foreach (var part in station.Dose)
        {
            if (part.Rounds.Has(round, block.Rounds))
            {
                return true;
            }
        }

        return false;
    }

    public static int Total(List<Stretch> stretches)
    {
        var total = 0L;
        foreach (var stretch in stretches)
        {
            total += stretch.Seconds;
        }

        return (int)Math.Min(total, int.MaxValue / 2);
    }

    /// <summary>The dose of a station on one side, as one go of a string.</summary>
    public static List<Stretch> OneSide(Station station, Block block, int round, Side side)
    {
        var stretches = new List<Stretch>();
        if (DoesAnything(station, block, round))
        {
            AsWritten(stretches, station, block, round, side, 0);
        }

        return stretches;
    }

    private static void OneTurn(List<Stretch> stretches, Station station, Block block, int round, Side roundSide, int turn)
    {
        var first = block.StartSideOf(station);
        switch (station.Sides)
        {
            case SideRule.Each when station.Chunk > 0:
                Chunks(stretches, station, block, round, first, turn);
                break;
            case SideRule.Each:
                AsWritten(stretches, station, block, round, first, turn);
                Switch(stretches, block.SwitchAt(station, round), turn);
                AsWritten(stretches, station, block, round, first.Other(), turn);
                break;
            case SideRule.Split:
                var amount = station.Dose[0].Amount.At(round).To;
                stretches.Add(new Stretch(SpanKind.Work, (amount + 1) / 2, 0, first, turn, (amount + 1) / 2));
                stretches.Add(new Stretch(SpanKind.Work, amount / 2, 0, first.Other(), turn, amount / 2));
                break;
            default:
                AsWritten(stretches, station, block, round, roundSide, turn);
                break;
        }
    }

    /// <summary>The parts in a row. A switch comes between left and right unless the rests between them are long enough for it.</summary>
    private static void AsWritten(List<Stretch> stretches, Station station, Block block, int round, Side givenSide, int turn)
    {
        var before = Side.Both;
        var restSince = 0;
        for (var i = 0; i < station.Dose.Length; i++)
        {
            var part = station.Dose[i];
            if (!part.Rounds.Has(round, block.Rounds))
            {
                continue;
            }

            var amount = part.Amount.At(round).To;
            var seconds = part.SecondsFor(amount);
            if (!part.Kind.IsWork)
            {
                restSince += seconds;
                stretches.Add(new Stretch(SpanKind.Rest, seconds, i, Side.Both, turn, amount));
                continue;
            }

            var changesSide = (before, part.Side) is (Side.Left, Side.Right) or (Side.Right, Side.Left);
            if (changesSide && restSince < block.SwitchAt(station, round).Value)
            {
                Switch(stretches, block.SwitchAt(station, round), turn);
            }

            stretches.Add(new Stretch(SpanKind.Work, seconds, i, givenSide == Side.Both ? part.Side : givenSide, turn, amount));
            (before, restSince) = (part.Side, 0);
        }
    }

    private static void Chunks(List<Stretch> stretches, Station station, Block block, int round, Side first, int turn)
    {
        var part = station.Dose[0];
        var change = block.SwitchAt(station, round);
        var reps = part.Amount.At(round).To;
        for (var done = 0; done < reps; done += station.Chunk)
        {
            var go = Math.Min(station.Chunk, reps - done);
            var seconds = part.SecondsFor(go);
            if (done > 0)
            {
                Switch(stretches, change, turn);
            }

            stretches.Add(new Stretch(SpanKind.Work, seconds, 0, first, turn, go));
            Switch(stretches, change, turn);
            stretches.Add(new Stretch(SpanKind.Work, seconds, 0, first.Other(), turn, go));
        }
    }

    private static void Switch(List<Stretch> stretches, Seconds length, int turn) =>
        stretches.Add(new Stretch(SpanKind.Switch, length.Value, 0, Side.Both, turn, 0));
}
