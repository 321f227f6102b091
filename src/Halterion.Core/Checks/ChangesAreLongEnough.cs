using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>A change-over must be as long as what has to happen in it takes.</summary>
public sealed class ChangesAreLongEnough : IRule
{
    private const string Why = "People are still on their way when the bell rings, and the next target cannot be reached.";
    private const string Source = "[M] our own times, handbook section 3; two paces in the settings";

    public IEnumerable<Finding> Check(ClassReview review) =>
        review.Plan.Blocks.SelectMany((block, index) =>
            block.Shape is BlockShape.Talk or BlockShape.OwnPace || block.StartEvery is not null
                ? []
                : Changes(review, block, index).Concat(Switches(review, block, index)));

    private static IEnumerable<Finding> Changes(ClassReview review, Block block, int index)
    {
        var needs = ChangeOver.Of(block, review.Moves, review.Preferences.Pace);
        if (block.Shape == BlockShape.Rotation)
        {
            var longest = needs.MaxBy(n => n.Seconds)!;
            if (longest.Seconds > block.BetweenStations)
            {
                yield return new Finding(
                    "time.change", Severity.Consider, block.Id,
                    $"Moving on in “{block.Name}” needs about {longest.Seconds} ({longest.Words}); it gets {block.BetweenStations}.",
                    Why, Source,
                    [new Repair($"{longest.Seconds} to move on", [Edit.Set($"/blocks/{index}/betweenStations", longest.Seconds)])]);
            }

            yield break;
        }

        for (var i = 1; i < needs.Length; i++)
        {
            var station = block.Stations[i];
            var shortest = Enumerable.Range(0, block.Shape == BlockShape.Sets ? 1 : block.Rounds).Min(round => block.ChangeTo(station, round));
            if (needs[i].Seconds > shortest)
            {
                var place = $"/blocks/{index}/stations/{i}/changeSeconds";
                yield return new Finding(
                    "time.change", Severity.Consider, station.Id,
                    $"Changing to {station.Name} needs about {needs[i].Seconds} ({needs[i].Words}); it gets {shortest}.",
                    Why, Source,
                    [
                        new Repair($"{needs[i].Seconds} to change to {station.Name}", [Edit.Set(place, needs[i].Seconds)]),
                    ]);
            }
        }

        if (block.Shape == BlockShape.Circuit && block.Rounds > 1 && needs[0].Seconds > block.BetweenRounds.At(0))
        {
            yield return new Finding(
                "time.change", Severity.Consider, block.Stations[0].Id,
                $"Going back to {block.Stations[0].Name} needs about {needs[0].Seconds} ({needs[0].Words}); the rest between rounds is {block.BetweenRounds.At(0)}.",
                Why, Source,
                [new Repair($"{needs[0].Seconds} between rounds", [Edit.Set($"/blocks/{index}/betweenRounds", needs[0].Seconds)])]);
        }
    }

    private static IEnumerable<Finding> Switches(ClassReview review, Block block, int index) =>
        from s in block.Stations.Select((station, i) => (Station: station, Index: i))
        where s.Station.Sides == SideRule.Each && (s.Index == 0 || !block.Stations[s.Index - 1].WithNext)
        let need = ChangeOver.Switch(s.Station, review.Moves, review.Preferences.Pace)
        let shortest = Enumerable.Range(0, block.Rounds).Min(round => block.SwitchAt(s.Station, round))
        where need > shortest
        select new Finding(
            "time.switch", Severity.Note, s.Station.Id,
            $"Switching sides in {s.Station.Name} takes about {need}; it gets {shortest}.",
            Why, Source,
            [new Repair($"{need} to switch sides", [Edit.Set($"/blocks/{index}/stations/{s.Index}/switchSeconds", need)])]);
}
