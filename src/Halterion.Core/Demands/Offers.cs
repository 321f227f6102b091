using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>An option as a coach gives it, read.</summary>
/// <param name="Differs">What is otherwise, in words that go after the move's name.</param>
/// <param name="For">Whom an alternative helps.</param>
public sealed record Offered(Option Option, string Differs, string? For);

/// <summary>What a coach offers beside a move, read once.</summary>
public static class Offers
{
    private sealed record Key(Move Move, Tier Tier)
    {
        public bool Equals(Key? other) => other is not null && ReferenceEquals(Move, other.Move) && Tier == other.Tier;

        public override int GetHashCode() => HashCode.Combine(RuntimeHelpers.GetHashCode(Move), Tier);
    }

    private static readonly Tier[] Tiers = [Tier.Easier, Tier.Harder, Tier.Instead];

    /// <summary>What a coach offers beside a move, as options.</summary>
    public static ImmutableArray<Offered> Of(Move move, Tier tier, MoveLibrary moves) => moves.Once(
        new Key(move, tier),
        () => Listed(move, tier).Where(o => moves.Has(o.Move)).Select(o => Read(o, tier, moves)).ToImmutableArray());

    /// <summary>All of them, whatever for.</summary>
    public static IEnumerable<Offered> Of(Move move, MoveLibrary moves) => Tiers.SelectMany(t => Of(move, t, moves));

    private static ImmutableArray<MoveOffer> Listed(Move move, Tier tier) => tier switch
    {
        Tier.Easier => move.Offers.Easier,
        Tier.Harder => move.Offers.Harder,
        Tier.Instead => move.Offers.Instead,
        Tier.Main => [],
    };

    private static Offered Read(MoveOffer offer, Tier tier, MoveLibrary moves)
    {
        var fields = offer.With.DeepClone().AsObject();
        SideRule? sides = fields["sides"]?.GetValue<string>() is { } word ? WordsOf<SideRule>.All[word] : null;
        fields.Remove("sides");
        var manner = ClassReader.ReadManner(JsonSerializer.SerializeToElement(fields), moves);
        return new Offered(Option.Of(tier, offer.Move, manner) with { Sides = sides }, offer.Differs, offer.For);
    }
}
