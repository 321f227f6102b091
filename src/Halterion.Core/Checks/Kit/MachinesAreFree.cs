using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Checks;

/// <summary>At a machine there are as many as it takes.</summary>
public sealed class MachinesAreFree() : Rule(
    "room.machine",
    "Machines are not overbooked",
    "The others wait, cool down and miss their target.",
        "Common practice: one machine takes one person at a time")
{
    /// <inheritdoc/>
    public override string? Several => "stations have too few machines";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) => review.Occasion is not { } occasion ? [] :
        from moment in review.Moments
        from at in moment.Done.GroupBy(d => d.At)
        let users = at.Where(d => Machine(review, d) is not null).ToArray()
        where users.Length > 0
        let machine = Machine(review, users[0])!
        let stock = occasion.Room.Kit is { } kit && kit.Any(l => l.Item == KitItem.Machine && machine.IsServedBy(l))
            ? kit.Where(machine.IsServedBy).Sum(l => l.Count) : 1
        let room = at.Key.Station.Turns ? 2 * stock : stock
        where users.Length > room
        group (users.Length, stock) by at.Key into station
        let worst = station.MaxBy(s => s.Length)
        select Found(
            Severity.Fix, station.Key.Id,
                $"{station.Key.Name}: {Told.People(worst.Length)} at once for "
                + $"{Counted.Of(worst.stock, "machine", "machines")}.");

    private static Need? Machine(ClassReview review, (StationAt At, Option Option) done) =>
        review.Needs(done.Option, done.At).FirstOrDefault(n => n.Item == KitItem.Machine);
}
