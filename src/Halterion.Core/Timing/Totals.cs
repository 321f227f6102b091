using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing;

/// <summary>What a class adds up to, under the names of plan-language.md. The shares sum to <see cref="Seconds"/>.</summary>
/// <param name="OverSeconds">Past the slot; negative: to spare.</param>
/// <param name="HoldSeconds">What one person holds, both sides.</param>
public sealed record Totals(
    Seconds Seconds,
    Seconds WorkSeconds,
    Seconds SwitchSeconds,
    Seconds ChangeSeconds,
    Seconds RestSeconds,
    Seconds WaitSeconds,
    Seconds LeadInSeconds,
    Seconds TalkSeconds,
    Seconds OverSeconds,
    long LeftReps,
    long RightReps,
    long LeftEstimatedReps,
    long RightEstimatedReps,
    long Pulses,
    long HoldSeconds)
{
    /// <summary>What a class adds up to: reps by side, pulses, seconds held.</summary>
    public static Totals Of(ClassPlan plan, Timeline timeline)
    {
        Span<int> shares = stackalloc int[Enum.GetValues<SpanKind>().Length];
        foreach (var span in timeline.Spans)
        {
            shares[(int)span.Kind] += span.Length().Value;
        }

        var counts = Counts.Of(plan);
        return new Totals(
            timeline.Length,
            new Seconds(shares[(int)SpanKind.Work]),
            new Seconds(shares[(int)SpanKind.Switch]),
            new Seconds(shares[(int)SpanKind.Change]),
            new Seconds(shares[(int)SpanKind.Rest]),
            new Seconds(shares[(int)SpanKind.Wait]),
            new Seconds(shares[(int)SpanKind.LeadIn]),
            new Seconds(shares[(int)SpanKind.Talk]),
            timeline.Length - plan.Slot,
            counts.Left,
            counts.Right,
            counts.LeftEstimated,
            counts.RightEstimated,
            counts.Pulses,
            counts.HoldSeconds);
    }
}

/// <summary>Reps a leg, estimated reps a leg, pulses and held seconds of one person (plan-language.md, "Counts").</summary>
internal sealed class Counts
{
    public long Left { get; private set; }

    public long Right { get; private set; }

    public long LeftEstimated { get; private set; }

    public long RightEstimated { get; private set; }

    public long Pulses { get; private set; }

    public long HoldSeconds { get; private set; }

    /// <param name="counted">Which parts count; all if none is given.</param>
    public static Counts Of(ClassPlan plan, Func<Part, bool>? counted = null)
    {
        var counts = new Counts();
        foreach (var block in plan.Blocks.Where(b => b.Shape.IsInRounds))
        {
            counts.Add(block, counted);
        }

        return counts;
    }

    /// <summary>What one person does of a block who gets through all its rounds.</summary>
    public static Counts Of(Block block)
    {
        var counts = new Counts();
        counts.Add(block, null);
        return counts;
    }

    private void Add(Block block, Func<Part, bool>? counted)
    {
        for (var round = 0; round < block.Rounds; round++)
        {
            Round(block, round, counted);
        }
    }

    private void Round(Block block, int round, Func<Part, bool>? counted)
    {
        foreach (var station in block.Stations)
        {
            foreach (var part in station.Dose)
            {
                if (part.Rounds.Has(round, block.Rounds) && (counted is null || counted(part)))
                {
                    Part(block, station, part, round);
                }
            }
        }
    }

    private void Part(Block block, Station station, Part part, int round)
    {
        var amount = part.Amount.At(round).To;
        var first = block.StartSideOf(station);
        if (station.Sides == SideRule.Split)
        {
            Go(part, (amount + 1) / 2, first, first);
            Go(part, amount / 2, first.Other(), first);
        }
        else if (station.Sides == SideRule.Each || block.SidePass == SidePass.Round)
        {
            Go(part, amount, Side.Left, first);
            Go(part, amount, Side.Right, first);
        }
        else
        {
            var given = Compiler.SideOfRound(block, round, 0);
            Go(part, amount, given == Side.Both ? part.Side : given, first);
        }
    }

    private void Go(Part part, int amount, Side side, Side startSide)
    {
        switch (part.Kind)
        {
            case PartKind.Reps:
                var (left, right) = Share(amount, side, startSide);
                (Left, Right, Pulses) = (Left + left, Right + right, Pulses + (long)amount * part.PulsesPerRep);
                break;
            case PartKind.Time or PartKind.Open when part.Tempo is { } tempo:
                var (leftEstimated, rightEstimated) = Share((int)Math.Floor(amount / tempo.RepSeconds(RepStyle.Full)), side, startSide);
                (LeftEstimated, RightEstimated) = (LeftEstimated + leftEstimated, RightEstimated + rightEstimated);
                break;
            case PartKind.Pulses:
                Pulses += amount;
                break;
            case PartKind.Hold:
                HoldSeconds += amount;
                break;
        }
    }

    private static (int Left, int Right) Share(int reps, Side side, Side startSide) => side switch
    {
        Side.Left => (reps, 0),
        Side.Right => (0, reps),
        Side.Both => (reps, reps),
        Side.Alternate => startSide == Side.Left ? ((reps + 1) / 2, reps / 2) : (reps / 2, (reps + 1) / 2),
    };
}
