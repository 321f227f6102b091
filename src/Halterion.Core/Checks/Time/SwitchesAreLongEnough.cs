using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>A switch of sides is as long as the position needs.</summary>
public sealed class SwitchesAreLongEnough() : Rule(
    "time.switch",
    "Time to switch sides is long enough",
    "People are still turning over when the second side starts.",
    "Our own times; you choose the pace in Settings",
    "Some let the switch run into the other side: then that side is done for less long.")
{
    /// <inheritdoc/>
    public override string? Several => "stations have too little time to switch sides";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in review.Stations
        where at.Block.Shape.IsInRounds
        where at.Station.Sides == SideRule.Each && (at.S == 0 || !at.Block.Stations[at.S - 1].WithNext)
        let need = ChangeOver.Switch(at.Station, review.Moves, review.Settings.Changes)
        let shortest = Enumerable.Range(0, at.Block.Rounds).Where(r => DoseClock.DoesAnything(at.Station, at.Block, r))
            .Select(r => at.Block.SwitchAt(at.Station, r)).DefaultIfEmpty(need).Min()
        where need > shortest
        select Found(
            Severity.Note, at.Id, $"{at.Name}: switching sides takes about {need}, but there is only {shortest}.",
            new Repair($"Allow {need} to switch sides", Edit.Set($"{at.Pointer}/switchSeconds", need)));
}
