using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>A rep takes between 0.9 and 12 seconds.</summary>
public sealed class RepsAreAtAPace() : Rule(
    "time.pace",
    "Reps have a real-life pace",
    "Faster is a bounce, slower is a hold; it is usually a typing slip in the tempo.",
    "Our own limit; common practice is 1.3–7 s")
{
    /// <inheritdoc/>
    public override string? Several => "stations have an unlikely pace";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in review.Stations
        from done in review.Works(at)
        where done.Part.Kind == PartKind.Reps && done.Part.Tempo is not null && !done.Move.Quick
        let rep = done.Part.Tempo!.RepSeconds(done.Part.Style)
        where rep is < Thresholds.QuickestRep or > Thresholds.SlowestRep
        group (done, rep) by at into station
        let worst = station.First()
        select Found(
            Severity.Consider, station.Key.Id,
            FormattableString.Invariant($"{station.Key.Name}: each rep is planned at {worst.rep:0.##} s, outside 0.9–12 s."),
            [.. Own(station.Key, [.. station.Select(s => s.done)])]);

    private static IEnumerable<Repair> Own(StationAt at, DonePart[] done)
    {
        if (done.All(
                d => d.Move.Tempo is { } own && own.RepSeconds(d.Part.Style) is >= Thresholds.QuickestRep and <= Thresholds.SlowestRep))
        {
            yield return new Repair($"The move’s own tempo: {done[0].Move.Tempo}", root =>
            {
                foreach (var part in done)
                {
                    root.PartOf(at, part.Index).Remove("tempo");
                }

                var main = root.OptionOf(at, at.Station.Options.IndexOf(at.Station.Main));
                main.Remove("tempo");
            });
        }
    }
}
