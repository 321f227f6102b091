using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Demands;
using Halterion.Core.Leading.Calling;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Planning;

/// <summary>A block as a screen lists it.</summary>
/// <param name="Id">Its id, written or given.</param>
/// <param name="Words">Its length, such as "12 min 30 s".</param>
/// <param name="Runs">How it runs: "circuit, 3 rounds, 15 s between stations".</param>
/// <param name="Before">What there is to say something in before its first work.</param>
/// <param name="Accounts">Where each of its seconds goes.</param>
public sealed record BlockOutline(
    PlaceId Id,
    int Block,
    Seconds Start,
    Seconds End,
    string Words,
    string Runs,
    Seconds Before,
    ImmutableArray<TimeAccount> Accounts,
    ImmutableArray<StationOutline> Stations);

/// <summary>What seconds of one kind a block has.</summary>
/// <param name="Words">Such as "15 × 3 s" or "between 5 s and 15 s, 12 times".</param>
/// <param name="Total">All of them in words.</param>
public sealed record TimeAccount(SpanKind Kind, Seconds Seconds, string Total, string Words);

/// <summary>A station as a screen lists it.</summary>
/// <param name="Id">Its id, written or given.</param>
/// <param name="Target">The target of the first round.</param>
/// <param name="Needs">Seconds the dose takes in the first round.</param>
/// <param name="Words">The same in words.</param>
/// <param name="Dose">The dose in the trade's short form, as it is typed.</param>
/// <param name="Options">Every option in words, in the order of the file.</param>
/// <param name="Trades">What each option asks instead of the main one: "knee 4 → 2, balance 1 → 2".</param>
/// <param name="Change">What getting here from the station before it needs.</param>
/// <param name="Before">What there is to say something in before its first work in the block.</param>
public sealed record StationOutline(
    PlaceId Id,
    string Name,
    Family Family,
    string Target,
    Seconds Needs,
    string Words,
    string Dose,
    ImmutableArray<string> Options, ImmutableArray<string> Trades,
    ChangeNeed Change,
    Seconds Before);

/// <summary>What each block adds up to.</summary>
public static class Outlines
{
    /// <summary>What a station's dose takes in the first round.</summary>
    public static Seconds Needs(Station station, Block block) =>
        new(DoseClock.Total(DoseClock.Stretches(station, block, 0, Compiler.SideOfRound(block, 0, 0))));

    /// <summary>The blocks of a class, with what each takes and why.</summary>
    public static ImmutableArray<BlockOutline> Of(ClassPlan plan, Timeline timeline, Preferences preferences)
    {
        var outlines = ImmutableArray.CreateBuilder<BlockOutline>(plan.Blocks.Length);
        var at = 0;
        var start = Seconds.Zero;
        for (var i = 0; i < plan.Blocks.Length; i++)
        {
            var first = at;
            while (at < timeline.Spans.Length && timeline.Spans[at].Block == i)
            {
                at++;
            }

            var spans = timeline.Spans[first..at];

            var end = at == 0 ? start : timeline.Spans[at - 1].End;
            outlines.Add(new BlockOutline(
                plan.Blocks[i].Id,
                i,
                start,
                end,
                (end - start).ToString(),
                PlanWords.Runs(plan.Blocks[i]),
                Before(spans, _ => true),
                Accounts(spans),
                Stations(plan.Blocks[i], spans, plan.Moves, preferences)));
            start = end;
        }

        return outlines.MoveToImmutable();
    }

    /// <summary>The time without work right before the first work of this kind.</summary>
    private static Seconds Before(ImmutableArray<Span> spans, Func<Span, bool> mine)
    {
        var work = spans.ToList().FindIndex(s => s.Kind == SpanKind.Work && mine(s));
        var from = work;
        while (from > 0 && spans[from - 1].Kind != SpanKind.Work)
        {
            from--;
        }

        return work < 0 ? Seconds.Zero : spans[work].Start - spans[from].Start;
    }

    private static ImmutableArray<TimeAccount> Accounts(ImmutableArray<Span> spans) =>
    [
        .. from span in spans
           group (span.End - span.Start).Value by span.Kind into kind
           orderby kind.Key
           let lengths = kind.Distinct().Order().ToArray()
           let words = lengths.Length == 1
               ? string.Create(CultureInfo.InvariantCulture, $"{kind.Count()} × {lengths[0]} s")
               : string.Create(CultureInfo.InvariantCulture, $"{kind.Count()} times, {lengths[0]}–{lengths[^1]} s each")
           select new TimeAccount(
               kind.Key, new Seconds(kind.Sum()), new Seconds(kind.Sum()).ToString(), kind.Count() == 1 ? "once" : words),
    ];

    private static ImmutableArray<StationOutline> Stations(
        Block block, ImmutableArray<Span> spans, MoveLibrary moves, Preferences preferences)
    {
        var changes = ChangeOver.Of(block, moves, ChangeTimes.Of(preferences));
        return [
            .. block.Stations.Select(
                (station, i) => Station(station, block, changes[i], Before(spans, s => s.Station == i), moves, preferences))];
    }

    private static StationOutline Station(
        Station station, Block block, ChangeNeed change, Seconds before, MoveLibrary moves, Preferences preferences)
    {
        var needs = Needs(station, block);
        return new StationOutline(
            station.Id,
            station.Name,
            moves.Find(station.Main.Move)!.Family,
            PlanWords.Target(station, block, 0),
            needs,
            // Where the bell rings later than the target takes, the row says both.
            block.Window?.At(0) is { } bell && needs < bell ? $"{needs} of {bell}" : needs.ToString(),
            ShortDose.Of(station),
            [.. station.Options.Select(o => PlanWords.Option(o, station, moves, preferences))],
            Trades(station, moves),
            change,
            before);
    }

    private static ImmutableArray<string> Trades(Station station, MoveLibrary moves)
    {
        var main = DemandModel.Of(station.Main.Move, station.Main.Manner, moves);
        return [
            .. station.Options.Select(
                o => main is not null && o.Tier != Tier.Main && DemandModel.Of(o.Move, o.Manner, moves) is { } demand
                    ? demand.From(main)
                    : "")];
    }
}
