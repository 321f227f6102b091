using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>
/// Which option helps where a fault stays after its fix (handbook, section 5: fault, fix, option): of what is easier, the one
/// that takes most away in what the fault is about. [M]
/// </summary>
public static class FaultRemedies
{
    /// <summary>Words of a fault, and the dimension in which it asks too much.</summary>
    private static readonly ImmutableArray<(string Word, Func<Demand, double> Of)> About =
    [
        ("knee", d => d.Knee), ("shin", d => d.Knee),
        ("wobbl", d => d.Balance), ("balance", d => d.Balance), ("tip", d => d.Balance), ("sway", d => d.Balance), ("foot", d => d.Balance),
        ("back", d => d.Back), (
            "round", d => d.Back), ("arch", d => d.Back), ("chest", d => d.Back), ("ribs", d => d.Back), ("sag", d => d.Back),
        ("heel", d => d.Mobility), ("land", d => d.Impact), ("loud", d => d.Impact),
        ("hip", d => d.Hip), ("pelvis", d => d.Hip), ("shoulder", d => d.Grip), ("arm", d => d.Grip),
    ];

    /// <summary>
    /// For each fault of the move, in order, an option; the move's easier one where no other takes away what it is about, null where there
    /// is none.
    /// </summary>
    public static ImmutableArray<Option?> Of(Move move, MoveLibrary moves) => moves.Once(new Key(move), () => Find(move, moves));

    private sealed record Key(Move Move)
    {
        public bool Equals(Key? other) => other is not null && ReferenceEquals(Move, other.Move);

        public override int GetHashCode() => Move.Id.GetHashCode();
    }

    private static ImmutableArray<Option?> Find(Move move, MoveLibrary moves)
    {
        var usual = Proposals.For(move.Id, moves).Easier?.Of;
        if (DemandModel.Of(move.Id, new Manner(), moves) is not { } here)
        {
            return [.. move.Faults.Select(_ => usual)];
        }

        var choices = Variations.Of(move, Tier.Easier).Select(v => v.Option)
            .Select(o => (Option: o, Demand: DemandModel.Of(o.Move, o.Manner, moves)!))
            .Where(c => c.Demand.Overall <= here.Overall - Proposals.Least)
            .ToArray();
        Option? Best(Func<Demand, double> of) => choices
            .Where(c => of(c.Demand) <= of(here) - Proposals.Least)
            .OrderBy(c => of(c.Demand)).ThenByDescending(c => c.Demand.Overall)
            .FirstOrDefault().Option;
        return
        [
            .. move.Faults.Select(fault => About
                .Where(a => fault.Seen.Contains(a.Word, StringComparison.OrdinalIgnoreCase))
                .Select(a => Best(a.Of))
                .FirstOrDefault(o => o is not null) ?? usual),
        ];
    }
}
