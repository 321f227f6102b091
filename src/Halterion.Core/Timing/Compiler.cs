using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>Puts a class on the clock, exactly as plan-language.md ("Seconds") says.</summary>
public static class Compiler
{
    /// <summary>The class to the second; or, where it passes the bounds of the language, the fault.</summary>
    public static (Timeline? Timeline, PlanFault? Fault) Compile(ClassPlan plan)
    {
        try
        {
            var compilation = new Compilation();
            for (var i = 0; i < plan.Blocks.Length; i++)
            {
                compilation.Block(plan.Blocks[i], i);
            }

            return (compilation.Done(), null);
        }
        catch (TooLargeException tooLarge)
        {
            return (null, tooLarge.Fault);
        }
    }

    /// <summary>The side that a round gives to all its stations, by the block's <c>sidePass</c>.</summary>
    internal static Side SideOfRound(Block block, int round, int pass) => block.SidePass switch
    {
        SidePass.Round => pass == 0 ? block.StartSide : block.StartSide.Other(),
        SidePass.Alternate => round % 2 == 0 ? block.StartSide : block.StartSide.Other(),
        SidePass.Station => Side.Both,
    };
}

/// <summary>One run of the compiler.</summary>
internal sealed class Compilation
{
    private readonly SpanWriter writer = new();
    private readonly ImmutableArray<Stay>.Builder stays = ImmutableArray.CreateBuilder<Stay>();
    private readonly ImmutableArray<CutDose>.Builder cuts = ImmutableArray.CreateBuilder<CutDose>();

    public Timeline Done() => new(writer.Done(), stays.ToImmutable(), cuts.ToImmutable());

    public void Block(Block block, int index)
    {
        writer.Open(index);
        if (block.Shape.HasStations)
        {
            writer.Add(SpanKind.LeadIn, block.LeadIn);
            if (block.Gate != Gate.Bell)
            {
                writer.Wait();
            }
        }

        switch (block.Shape)
        {
            case BlockShape.Talk:
                Talk(block);
                break;
            case BlockShape.OwnPace:
                writer.Add(SpanKind.Work, block.Length);
                break;
            case BlockShape.Rotation:
                Rotation(block);
                break;
            case BlockShape.Sets:
                Sets(block);
                break;
            case BlockShape.Circuit or BlockShape.OnTheClock:
                Circuit(block);
                break;
        }

        writer.Close();
        writer.Add(SpanKind.Rest, block.After, gap: Gap.End);
    }

    /// <summary>Station by station of a walk-through, then what is left of the talk.</summary>
    private void Talk(Block block)
    {
        var left = block.Length;
        foreach (var showing in block.Show)
        {
            writer.Add(SpanKind.Talk, showing.Seconds, shows: showing.Station);
            left -= showing.Seconds;
        }

        writer.Add(SpanKind.Talk, left);
    }

    private void Circuit(Block block)
    {
        for (var round = 0; round < block.Rounds; round++)
        {
            if (round > 0)
            {
                Rest(block, block.BetweenRounds.At(round - 1));
            }

            for (var pass = 0; pass < block.Passes; pass++)
            {
                for (var i = 0; i < block.Stations.Length; i++)
                {
                    CircuitStation(block, i, round, pass);
                    if (block.Stations[i].WithNext)
                    {
                        i = String(block, i, round);
                    }
                    else
                    {
                        Go(block, i, round, pass);
                    }
                }
            }
        }
    }

    /// <summary>What comes before a station: its demo, where it has one now, and its change.</summary>
    private void CircuitStation(Block block, int index, int round, int pass)
    {
        var station = block.Stations[index];
        if (pass == 0)
        {
            Demo(block, index, round);
        }

        if (block.Shape == BlockShape.OnTheClock)
        {
            return;
        }

        var change = block.ChangeTo(station, round);
        if (index > 0)
        {
            Change(block, change);
        }
        else if (pass > 0)
        {
            // Before a second pass people also change sides; that is no recovery.
            var turn = block.SwitchAt(station, round);
            writer.Add(SpanKind.Change, change > turn ? change : turn, gap: Gap.Stations);
        }
    }

    private void Demo(Block block, int index, int round)
    {
        var station = block.Stations[index];
        writer.Add(SpanKind.Talk, station.Demo.At(round), round, index, pass: block.Passes > 1 ? 0 : null, turn: station.Turns ? 0 : null);
    }

    /// <summary>A change between stations; recovery too where the block says so.</summary>
    private void Change(Block block, Seconds length) =>
        writer.Add(block.RecoveryIn == RecoveryIn.All ? SpanKind.Rest : SpanKind.Change, length, gap: Gap.Stations);

    private void Go(Block block, int index, int round, int pass)
    {
        var station = block.Stations[index];
        int? shownPass = block.Passes > 1 ? pass : null;
        var stretches = DoseClock.Stretches(station, block, round, Compiler.SideOfRound(block, round, pass));
        if (block.StartEvery is not { } every)
        {
            Write(stretches, station, round, index, shownPass, int.MaxValue);
            return;
        }

        Write(stretches, station, round, index, shownPass, every.Value);
        var needed = DoseClock.Total(stretches);
        if (needed > every.Value)
        {
            cuts.Add(new CutDose(writer.Block, round, index, every, new Seconds(needed)));
        }
        else
        {
            writer.Add(SpanKind.Wait, new Seconds(every.Value - needed), round, index, pass: shownPass, turn: station.Turns ? 1 : null);
        }
    }

    /// <summary>
    /// A string of stations, once on the start side and once on the other; the first one's demo and change are done already.
    /// </summary>
    /// <returns>The place of its last station.</returns>
    private int String(Block block, int first, int round)
    {
        var tied = block.StringFrom(first);
        var side = block.StartSideOf(tied[0]);
        for (var go = 0; go < 2; go++)
        {
            if (go > 0 && tied.Any(s => DoseClock.DoesAnything(s, block, round)))
            {
                writer.Add(SpanKind.Switch, block.SwitchAt(tied[0], round), round, first);
            }

            for (var i = 0; i < tied.Length; i++)
            {
                if (i > 0)
                {
                    if (go == 0)
                    {
                        Demo(block, first + i, round);
                    }

                    Change(block, block.ChangeTo(tied[i], round));
                }

                Write(
                    DoseClock.OneSide(tied[i], block, round, go == 0 ? side : side.Other()), tied[i], round, first + i, null, int.MaxValue);
            }
        }

        return first + tied.Length - 1;
    }

    private void Sets(Block block)
    {
        for (var i = 0; i < block.Stations.Length; i++)
        {
            var station = block.Stations[i];
            var last = i;
            for (var set = 0; set < block.Rounds; set++)
            {
                if (set > 0)
                {
                    Rest(block, block.RestOf(station, set - 1));
                }

                Demo(block, i, set);
                if (set == 0 && i > 0)
                {
                    Change(block, block.ChangeTo(station, 0));
                }

                if (station.WithNext)
                {
                    last = String(block, i, set);
                }
                else
                {
                    Go(block, i, set, 0);
                }
            }

            i = last;
        }
    }

    private void Rotation(Block block)
    {
        for (var round = 0; round < block.Rounds; round++)
        {
            if (round > 0)
            {
                Rest(block, block.BetweenRounds.At(round - 1));
            }

            var window = Stays(block, round);
            for (var leg = 0; leg < block.Stations.Length; leg++)
            {
                if (leg > 0)
                {
                    Change(block, block.BetweenStations);
                }

                writer.Add(SpanKind.Work, window, round, leg: leg);
            }
        }
    }

    /// <summary>A rest between two rounds or sets; one of 0 s has no gate either.</summary>
    private void Rest(Block block, Seconds length)
    {
        writer.Add(SpanKind.Rest, length, gap: Gap.Rounds);
        if (block.Gate == Gate.Rests && length > Seconds.Zero)
        {
            writer.Wait();
        }
    }

    /// <summary>What each station does inside the window of this round; returns the window.</summary>
    private Seconds Stays(Block block, int round)
    {
        var side = Compiler.SideOfRound(block, round, 0);
        var doses = block.Stations.Select(s => DoseClock.Stretches(s, block, round, side)).ToArray();
        var needed = Array.ConvertAll(doses, DoseClock.Total);
        var window = block.Window?.At(round) ?? new Seconds((needed.Max() + 4) / 5 * 5);
        for (var i = 0; i < doses.Length; i++)
        {
            stays.Add(new Stay(
                writer.Block, round, i, window, new Seconds(needed[i]), new Seconds(Math.Max(0, window.Value - needed[i])),
                Cut(doses[i], block.Stations[i].Turns, window.Value)));
        }

        return window;
    }

    private static ImmutableArray<StaySpan> Cut(List<Stretch> dose, bool turns, int bell)
    {
        var spans = ImmutableArray.CreateBuilder<StaySpan>();
        var now = 0;
        foreach (var stretch in dose)
        {
            if (now >= bell)
            {
                break;
            }

            var end = Math.Min(bell, now + stretch.Seconds);
            if (end > now)
            {
                var work = stretch.Kind == SpanKind.Work;
                spans.Add(new StaySpan(
                    new Seconds(now),
                    new Seconds(end),
                    stretch.Kind,
                    work ? stretch.Part : null,
                    work ? stretch.Side : null,
                    turns ? stretch.Turn : null));
            }

            now = end;
        }

        return spans.ToImmutable();
    }

    private void Write(List<Stretch> stretches, Station station, int round, int index, int? pass, int bell)
    {
        var left = bell;
        foreach (var stretch in stretches)
        {
            var length = Math.Min(left, stretch.Seconds);
            var work = stretch.Kind == SpanKind.Work;
            int? turn = station.Turns ? stretch.Turn : null;
            writer.Add(
                stretch.Kind, new Seconds(length), round, index, work ? stretch.Part : null, work ? stretch.Side : null, pass, turn,
                amount: work || stretch.Kind == SpanKind.Rest ? stretch.Amount : null);

            left -= length;
        }
    }
}
