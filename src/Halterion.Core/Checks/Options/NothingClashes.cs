using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>Jumps go with nothing that makes them a fall.</summary>
public sealed class NothingClashes() : OptionRule(
    "options.clash",
    "No risky combinations",
    "One bad landing, and the weight comes down too.",
    Common)
{
    /// <inheritdoc/>
    public override string? Several => "options combine a jump with something risky";

    /// <inheritdoc/>
    public override IEnumerable<Finding> Check(ClassReview review) =>
        from at in Judged(review)
        from option in at.Station.Options
        let clash = review.Works(option, at).Select(p => (Part: p, Why: Clash(p))).FirstOrDefault(c => c.Why is not null)
        where clash.Why is not null
        select Found(Severity.Stop, option.Id, $"{at.Name}, {Named(review, at, option)}: "
            + $"{clash.Why}.", [.. Repairs(at, option, clash.Part)]);

    private static string? Clash(DonePart part) => part switch
    {
        { HasImpact: false } => null,
        { Facts.RearRaised: true } or { Manner.Base: Footing.RearRaised } => "a jump with the rear foot raised",
        { IsLoaded: true, Facts.LoadOnBack: true } or { IsLoaded: true, Manner.Load.Position: LoadPosition.Back } => "a jump with a load "
            + "on the back",
        { IsLoaded: true, Facts.LoadOverhead: true } or { IsLoaded: true, Manner.Load.Position: LoadPosition.Overhead } =>
            "a jump with a load overhead",
        {
            Kilograms: >= Thresholds.HeavyForSideBounds,
            Manner.Load: not { Position: LoadPosition.Hips }
        } when part.Move.Plane == Moves.Plane.Frontal =>
            FormattableString.Invariant($"{part.Kilograms:0.##} kg in the hands in a bound to the side"),
        { Kilograms: >= Thresholds.HeavyForSideBounds, Manner: { Impact: Impact.Hop, Load: not { Position: LoadPosition.Hips } } } =>
            FormattableString.Invariant($"{part.Kilograms:0.##} kg in the hands in a hop"),
        _ => null,
    };

    private static IEnumerable<Repair> Repairs(StationAt at, Option option, DonePart part)
    {
        var index = at.Station.Options.IndexOf(option);
        if (option.Manner.Load is { IsNone: false })
        {
            yield return new Repair("Take the weight out", root => root.OptionOf(at, index).Remove("load"));
        }

        if (part.Manner.Impact is Impact.Hop or Impact.Jump || part.Move.Asks is { Impact: > 0 })
        {
            yield return new Repair("Take the hop out", root => root.OptionOf(at, index)["impact"] = "none");
        }

        yield return new Repair("Take the hop out", root => root.OptionOf(at, index)["impact"] = "none");
    }
}
