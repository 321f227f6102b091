using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>The change before a station is as long as what has to happen in it takes.</summary>
public sealed class ChangesAreLongEnough() : Rule(
    "time.change",
    "Changeovers are long enough",
    "People are still on their way when the bell rings, so they miss part of the next target.",
    "Our own times; you choose the pace in Settings")
{
    /// <inheritdoc/>
    public override string? Several => "changeovers are too short";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Plan.Blocks.SelectMany((block, b) => block.Shape switch
    {
        BlockShape.Talk or BlockShape.OwnPace => [],
        BlockShape.Rotation => Rotation(review, block, b),
        BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Sets => Together(review, block, b),
    });

    private IEnumerable<Finding> Rotation(ClassReview review, Block block, int index)
    {
        var longest = ChangeOver.Of(block, review.Moves, review.Settings.Changes).MaxBy(n => n.Seconds)!;
        if (longest.Seconds > block.BetweenStations)
        {
            yield return Found(
                Severity.Consider, block.Id,
                $"{block.Name}: moving on takes about {longest.Seconds} ({longest.Words}), but the changeover is {block.BetweenStations}.",
                new Repair($"Make changeovers {longest.Seconds}", Edit.Set($"/blocks/{index}/betweenStations", longest.Seconds)));
        }
    }

    private sealed record Way(int From, int To, Seconds Gets, ChangeNeed Need)
    {
        public Seconds Short => Need.Seconds - Gets;
    }

    private IEnumerable<Finding> Together(ClassReview review, Block block, int index) =>
        from way in Ways(review, block)
        where way.Need.Seconds > Seconds.Zero && way.Short > Seconds.Zero
        group way by way.To into to
        let worst = to.MaxBy(w => w.Short)!
        let station = block.Stations[to.Key]
        select block.StartEvery is { } every
            ? Found(
                Severity.Consider, station.Id,
                $"{station.Name}: target and changeover ({worst.Need.Words}) are {worst.Short} too long for a start every "
                + $"{every}.",
                new Repair($"Start every {every + worst.Short}", Edit.Set($"/blocks/{index}/startEverySeconds", every + worst.Short)))
            : Found(
                Severity.Consider, station.Id,
                $"The changeover to {station.Name} takes about {worst.Need.Seconds} ({worst.Need.Words}), but it is only {worst.Gets}.",
                Longer(block, index, to.Key, worst));

    /// <summary>What leads to the round's first is the rest between rounds; what leads to another, its own change.</summary>
    private static Repair Longer(Block block, int index, int station, Way way) => way.From > way.To || way.From == way.To
        ? block.Passes > 1
            ? new Repair($"{way.Need.Seconds} before the second pass",
                Edit.Set($"/blocks/{index}/stations/{station}/changeSeconds", way.Need.Seconds),
                Edit.Set($"/blocks/{index}/betweenRounds", block.Rounds > 1 && block.BetweenRounds.At(0) < way.Need.Seconds
                    ? way.Need.Seconds : block.BetweenRounds.At(0)))
            : new Repair($"{way.Need.Seconds} between rounds", Edit.Set($"/blocks/{index}/betweenRounds", way.Need.Seconds))
        : new Repair($"{way.Need.Seconds} to change to {block.Stations[station].Name}",
            Edit.Set($"/blocks/{index}/stations/{station}/changeSeconds", way.Need.Seconds));

    /// <summary>Each way from a station to the next that is done; one of 0 s is passed over, and its change counts.</summary>
    private static IEnumerable<Way> Ways(ClassReview review, Block block)
    {
        ChangeNeed Needs(int from, int to) => from == to ? ChangeNeed.None
            : ChangeOver.Between(block.Stations[from], block.Stations[to], false, review.Moves, review.Settings.Changes);
        bool Done(int station, int round) => DoseClock.DoesAnything(block.Stations[station], block, round);
        if (block.Shape == BlockShape.Sets)
        {
            for (var i = 1; i < block.Stations.Length; i++)
            {
                yield return new Way(i - 1, i, block.ChangeTo(block.Stations[i], 0), Needs(i - 1, i));
            }

            yield break;
        }

        var last = -1;
        for (var round = 0; round < block.Rounds; round++)
        {
            for (var pass = 0; pass < block.Passes; pass++)
            {
                var gets = round > 0 && pass == 0 ? block.BetweenRounds.At(round - 1) : Seconds.Zero;
                for (var i = 0; i < block.Stations.Length; i++)
                {
                    var station = block.Stations[i];
                    if (block.StartEvery is null && (i > 0 || pass > 0))
                    {
                        var change = block.ChangeTo(station, round);
                        gets += i == 0 && change < block.SwitchAt(station, round) ? block.SwitchAt(station, round) : change;
                    }

                    if (!Done(i, round))
                    {
                        gets += block.StartEvery ?? Seconds.Zero;
                        continue;
                    }

                    if (last >= 0)
                    {
                        var dose = block.StartEvery is { } every
                            ? every - new Seconds(
                                DoseClock.Total(DoseClock.Stretches(station, block, round, Compiler.SideOfRound(block, round, pass))))
                            : Seconds.Zero;
                        yield return new Way(last, i, gets + dose, Needs(last, i));
                    }

                    (last, gets) = (i, Seconds.Zero);
                }
            }
        }
    }
}
