using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Where weight is on the knees there is a pad, or a way that stands or sits.</summary>
public sealed class KneesAreSpared() : OptionRule(
    "options.kneel",
    "Kneeling has a padded or standing option",
    "Bare knees on a hard floor end the class for some people.", Common)
{
    /// <inheritdoc/>
    public override string? Several => "kneeling stations have no padded or standing option";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        where review.Works(at).Any(p => p.Facts is { KneesOnFloor: true })
            && !at.Station.Options.Any(o => review.Works(o, at)
                .All(p => p.IsPadded || p.Move.Position is Position.Standing or Position.Seated && p.Facts is not { KneesOnFloor: true }))
        select Found(Severity.Consider, at.Id, $"{at.Name} puts weight on the knees and has no padded, "
            + "standing or seated option.", [.. Repairs(at)]);

    private static IEnumerable<Repair> Repairs(StationAt at) =>
    [
        new Repair("Put a pad under the knees", root =>
        {
            var main = root.OptionOf(at, at.Station.Options.IndexOf(at.Station.Main));
            main["surface"] = "pad";
            foreach (var part in main["parts"]?.AsObject().Select(p => p.Value!.AsObject()) ?? [])
            {
                part["surface"] = "pad";
            }
        }),
    ];
}
