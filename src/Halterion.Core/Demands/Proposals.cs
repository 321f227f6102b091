using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>An option proposed beside a move, and why.</summary>
/// <param name="Option">The option in the plan language, ready to stand at a station.</param>
/// <param name="Dimension">In what it differs (handbook, section 5): depth, support, base, load, tempo, impact, complexity, surface, band,
/// kit or position.</param>
/// <param name="Why">A sentence that a participant may hear, with what it trades for what.</param>
public sealed record Proposal(JsonObject Option, string Name, string Dimension, string Why)
{
    /// <summary>The option, not named yet.</summary>
    [JsonIgnore]
    public Option Of { get; private init; } = null!;

    /// <summary>What is otherwise, as a coach says it; null where it is computed.</summary>
    public string? Differs { get; init; }

    /// <summary>A proposal for an option, with what it trades.</summary>
    public static Proposal For(Option option, string name, string dimension, string why) =>
        new(PlanWriter.Of(option), name, dimension, why) { Of = option };
}

/// <summary>For whom it is proposed: nobody in particular, or somebody with a limit.</summary>
public sealed record ProposedFor(Limit Limit, bool Strict);

/// <summary>
/// What is proposed beside a main option: what a coach gives first, in a coach's order, tried against the main one; then what the
/// numbers of the body find. Computed, easier is lower by 0.3 overall and higher in no dimension by more than 0.5, nor heavier, nor
/// with another implement, nor a hop; harder is the mirror of it; instead shares the main muscle and the family, is within 1 in
/// every dimension, and needs other kit or another position. A direction is missing where nothing keeps to that.
/// </summary>
public sealed record Proposals(Proposal? Easier = null, Proposal? Harder = null, Proposal? Instead = null)
{
    /// <summary>A smaller change is none.</summary>
    public const double Least = 0.3;

    /// <summary>So much may go the other way.</summary>
    public const double Against = 0.5;

    /// <summary>So near in every dimension is as hard.</summary>
    public const double AsHard = 1;

    /// <summary>Beyond this a step is no step any more.</summary>
    private const double Most = 7;

    private sealed record Key(Move Move, Manner Manner, ProposedFor? Who, WeightsAtHand? Weights)
    {
        public bool Equals(Key? other) =>
            other is not null && ReferenceEquals(Move, other.Move) && Manner.Equals(other.Manner) && Who == other.Who
            && ReferenceEquals(Weights, other.Weights);

        public override int GetHashCode() => HashCode.Combine(Move.Id, Manner, Who);
    }

    /// <summary>Beside a move done plainly.</summary>
    public static Proposals For(MoveId id, MoveLibrary moves, ProposedFor? who = null) => For(new Doing(id, new Manner()), moves, who);

    /// <summary>Beside a main option as it is done.</summary>
    public static Proposals For(Doing main, MoveLibrary moves, ProposedFor? who = null, WeightsAtHand? weights = null)
    {
        if (moves.Find(main.Move) is not { } move)
        {
            return new Proposals();
        }

        Proposals Find() => new(First(Tier.Easier), First(Tier.Harder), First(Tier.Instead));
        Proposal? First(Tier tier) => All(main, tier, moves, who, weights).FirstOrDefault();
        // A stock changes with the class: what was found beside one is not kept.
        return weights is null ? moves.Once(new Key(move, main.Manner, who, null), Find) : Find();
    }

    /// <summary>Everything that could be proposed in a direction, the best first.</summary>
    public static IEnumerable<Proposal> All(
        Doing main, Tier tier, MoveLibrary moves, ProposedFor? who = null, WeightsAtHand? weights = null)
    {
        if (moves.Find(main.Move) is not { } move)
        {
            return [];
        }

        var computed = tier == Tier.Harder && move.Offers.Nothing is not null || OptionFacts.Of(move, main.Manner, moves) is not { } here
            ? []
            : tier == Tier.Instead ? As(move, main.Manner, here, moves, who)
            : Steps(move, main.Manner, here, moves, who, tier == Tier.Easier, weights);
        return Coached(move, main.Manner, tier, moves, who, weights).Concat(computed).DistinctBy(p => (p.Of.Move, p.Of.Manner));
    }

    private static IEnumerable<Proposal> Coached(
        Move move, Manner main, Tier tier, MoveLibrary moves, ProposedFor? who, WeightsAtHand? weights)
    {
        var here = OptionFacts.Of(move, main, moves);
        var fitting = Offers.Of(move, tier, moves)
            .Select(o => (Offered: o, Option: OfferFit.To(o, move, main, moves, weights)!))
            .Where(o => o.Option is not null && !(o.Option.Move == move.Id && o.Option.Manner.Equals(main)) && Allowed(o.Option, moves, who)
                && OfferFit.Keeps(o.Option, tier, move, main, moves))
            .ToLookup(o => OfferFit.IsOther(o.Option, move, main));
        // What the body does not show, such as half the reach, comes where nothing else is left.
        foreach (var (offered, option) in fitting[true].Concat(fitting[false]))
        {
            var there = OptionFacts.Of(moves.Find(option.Move)!, option.Manner, moves);
            yield return Proposal.For(
                option,
                moves.Find(option.Move)!.Name,
                Dimension(option, move, main, moves),
                here is null || there is null
                    ? $"{offered.Differs.Capital()}."
                    : Sentence(offered.Differs.Capital(), there.Demand, here.Demand)) with
            { Differs = offered.Differs };
        }
    }

    /// <summary>In what an option differs most, as the handbook names it.</summary>
    private static string Dimension(Option option, Move move, Manner main, MoveLibrary moves)
    {
        var manner = option.Manner;
        return option.Move != move.Id
            ? moves.Find(option.Move) is { } other && !other.Kit.SequenceEqual(move.Kit)
            ? "other kit"
            : moves.Find(option.Move)!.Position != move.Position ? "position"
            : "complexity"
            : manner.Load != main.Load ? "load"
            : manner.Band != main.Band ? "band"
            : manner.Impact != main.Impact ? "impact"
            : manner.Support != main.Support ? "support"
            : manner.Surface != main.Surface || manner.HeightCm != main.HeightCm ? "surface"
            : manner.Depth != main.Depth ? "depth"
            : manner.Base != main.Base || manner.Step != main.Step || manner.Toes != main.Toes ? "base"
            : manner.Tempo != main.Tempo ? "tempo"
            : manner.Scale is not null ? "amount"
            : "complexity";
    }

    /// <summary>A step of a ladder as an option.</summary>
    public static Option OptionOf(Rung rung, Tier tier, MoveLibrary moves) =>
        Plans.Option.Of(tier, rung.Move, rung.With is { } fields ? ClassReader.ReadManner(fields, moves) : null);

    private static IEnumerable<Proposal> Steps(
        Move move, Manner main, OptionFacts here, MoveLibrary moves, ProposedFor? who, bool down, WeightsAtHand? weights)
    {
        var tier = down ? Tier.Easier : Tier.Harder;
        var kit = Kit(Plans.Option.Of(tier, move.Id, main), moves);
        bool Keeps(Option option, OptionFacts facts) => down
            ? IsEasier(facts, here, Kit(option, moves), kit) && SkillOf(option) <= SkillOf(Plans.Option.Of(tier, move.Id, main)) + 1e-9
            : IsEasier(here, facts, kit, Kit(option, moves), harder: true);
        double SkillOf(Option option) => DemandModel.Of(option.Move, option.Manner, moves)?.Skill ?? 0;
        return Candidates(move, main, moves, tier, down, weights)
            .Select(c => (Candidate: c, Facts: FactsOf(c.Option, moves)))
            .Where(c => c.Facts is not null && Allowed(c.Candidate.Option, moves, who) && Keeps(c.Candidate.Option, c.Facts)
                && OfferFit.IsOther(c.Candidate.Option, move, main))
            .Select(c => (c.Candidate, Facts: c.Facts!, Gap: Math.Abs(c.Facts!.Demand.Overall - here.Demand.Overall)))
            .Where(c => c.Gap <= Most)
            .OrderBy(c => c.Candidate.Rank).ThenBy(c => c.Gap)
            .Select(c => Proposal.For(
                c.Candidate.Option,
                moves.Find(c.Candidate.Option.Move)!.Name,
                c.Candidate.Dimension,
                Sentence(c.Candidate.Why, c.Facts.Demand, here.Demand)));
    }

    /// <summary>Whether one option is a step below another.</summary>
    /// <param name="harder">It is asked from below: a hop may be added, but not lost; a weight too.</param>
    public static bool IsEasier(OptionFacts easier, OptionFacts than, string? kit, string? thanKit, bool harder = false) =>
        easier.Demand.Overall <= than.Demand.Overall - Least
        && easier.Demand.Dimensions.Zip(than.Demand.Dimensions).All(d => d.First.Value <= d.Second.Value + Against)
        && easier.Kilograms <= than.Kilograms
        && (kit is null || kit == thanKit)
        && (!easier.Flight || harder && than.Flight);

    /// <summary>The implement that an option is done with.</summary>
    public static string? Kit(Option option, MoveLibrary moves) =>
        moves.Find(option.Move) is { } move ? OptionPoses.Of(move, option.Manner)?.Holds?.Kind : null;

    private static OptionFacts? FactsOf(Option option, MoveLibrary moves) =>
        moves.Find(option.Move) is { } move ? OptionFacts.Of(move, option.Manner, moves) : null;

    private static bool Allowed(Option option, MoveLibrary moves, ProposedFor? who) =>
        who is null || LimitTable.WhyNot(moves.Find(option.Move)!, option.Manner, moves, who.Limit, who.Strict) is null;

    /// <summary>
    /// What there is to choose from, the most fitting first: the move itself done otherwise, steps of its ladder, for harder its family.
    /// </summary>
    private static IEnumerable<Variation> Candidates(
        Move move, Manner main, MoveLibrary moves, Tier tier, bool down, WeightsAtHand? weights)
    {
        foreach (var variation in Variations.Of(move, tier, main, weights))
        {
            yield return variation;
        }

        foreach (var ladder in moves.Ladders)
        {
            var at = ladder.PlainRung(move.Id);
            for (var i = 1; at >= 0 && i <= 3; i++)
            {
                var to = down ? at - i : at + i;
                if (to >= 0 && to < ladder.Rungs.Length)
                {
                    var rung = ladder.Rungs[to];
                    yield return new Variation(
                        OptionOf(rung, tier, moves),
                        down ? ladder.Rungs[to + 1].Dimension : rung.Dimension,
                        i == 1 ? down ? rung.Down : rung.Up : "",
                        40 + i);
                }
            }
        }

        // An easier option is no other move to learn.
        foreach (var other in down
                ? []
                : moves.Moves.Where(
                    m => m.Family == move.Family && m.Id != move.Id && m.Position == move.Position && Main(m) == Main(move)))
        {
            yield return new Variation(Plans.Option.Of(tier, other.Id), "complexity", "", 50);
        }
    }

    /// <summary>The muscle that does most: the first that the move names.</summary>
    public static string Main(Move move) => move.Muscles.Split(',')[0].Trim();

    private static IEnumerable<Proposal> As(Move move, Manner main, OptionFacts here, MoveLibrary moves, ProposedFor? who) =>
        from other in moves.Moves
        where other.Family == move.Family && other.Id != move.Id && moves.IsShipped(other.Id) && Main(other) == Main(move)
            && (other.Position != move.Position || !other.Kit.SequenceEqual(move.Kit))
        let facts = OptionFacts.Of(other, new Manner(), moves)
        where facts is not null
            && (!facts.Flight || here.Flight)
            && IsAsHard(facts.Demand, here.Demand)
            && Allowed(Plans.Option.Of(Tier.Instead, other.Id), moves, who)
        orderby facts.Demand.Dimensions.Zip(here.Demand.Dimensions).Sum(
            d => Math.Abs(d.First.Value - d.Second.Value)) + 0.2 * other.Kit.Length
        let kit = !other.Kit.SequenceEqual(move.Kit)
        let lead = !kit ? "About as hard, in another position." : other.Kit.IsEmpty ? "About as hard, no kit." : $"About as hard, with "
            + $"{string.Join(" and ", other.Kit)}."
        select Proposal.For(
            Plans.Option.Of(Tier.Instead, other.Id), other.Name, kit ? "other kit" : "position", Sentence(lead, facts.Demand, here.Demand));

    /// <summary>Within 1 in every dimension.</summary>
    public static bool IsAsHard(Demand one, Demand other) =>
        one.Dimensions.Zip(other.Dimensions).All(d => Math.Abs(d.First.Value - d.Second.Value) <= AsHard);

    /// <summary>What is said, and what is traded for what: "The wall catches you: balance 3 → 1."</summary>
    private static string Sentence(string lead, Demand to, Demand from)
    {
        var trade = to.From(from);
        var said = lead.Trim().TrimEnd('.');
        return trade.Length == 0
            ? said.Length == 0
            ? to.Overall < from.Overall
            ? "A little easier all round."
            : "A little harder all round."
            : $"{said}."
            : said.Length == 0 ? $"{trade.Capital()}." : $"{said}: {trade}.";
    }
}

/// <summary>A way to do something else, or the same otherwise.</summary>
/// <param name="Rank">Less is preferred.</param>
internal sealed record Variation(Option Option, string Dimension, string Why, int Rank);
