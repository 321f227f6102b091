using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>An option proposed beside a move, and why.</summary>
/// <param name="Option">The option in the plan language, ready to stand at a station.</param>
/// <param name="Dimension">In what it differs (handbook, section 5): depth, support, base, load, tempo, impact, complexity, surface, band, kit or position.</param>
/// <param name="Why">A sentence that a participant may hear, with what it trades for what.</param>
public sealed record Proposal(JsonObject Option, string Name, string Dimension, string Why)
{
    /// <summary>The option, not named yet.</summary>
    [JsonIgnore]
    public Option Of { get; private init; } = null!;

    public static Proposal For(Option option, string name, string dimension, string why) =>
        new(PlanWriter.Of(option), name, dimension, why) { Of = option };
}

/// <summary>For whom it is proposed: nobody in particular, or somebody with a limit.</summary>
public sealed record ProposedFor(Limit Limit, bool Strict);

/// <summary>
/// What is proposed beside a move done plainly, each by the numbers of the body. Easier is lower by 0.3 overall and higher in no
/// dimension by more than 0.5, nor heavier, nor with another implement, nor a hop; harder is the mirror of it; instead shares the
/// main muscle and the family, is within 1 in every dimension, and needs other kit or another position. A direction is missing
/// where nothing keeps to that.
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

    private sealed record Key(MoveId Id, ProposedFor? Who, Move Move)
    {
        public bool Equals(Key? other) => other is not null && Id == other.Id && Who == other.Who && ReferenceEquals(Move, other.Move);

        public override int GetHashCode() => HashCode.Combine(Id, Who);
    }

    public static Proposals For(MoveId id, MoveLibrary moves, ProposedFor? who = null) =>
        moves.Find(id) is { } move ? moves.Once(new Key(id, who, move), () => Find(move, moves, who)) : new Proposals();

    /// <summary>A step of a ladder as an option.</summary>
    public static Option OptionOf(Rung rung, Tier tier, MoveLibrary moves) =>
        Plans.Option.Of(tier, rung.Move, rung.With is { } fields ? ClassReader.ReadManner(fields, moves) : null);

    private static Proposals Find(Move move, MoveLibrary moves, ProposedFor? who)
    {
        if (OptionFacts.Of(move, new Manner(), moves) is not { } here)
        {
            return new Proposals();
        }

        return new Proposals(Step(move, here, moves, who, down: true), Step(move, here, moves, who, down: false), As(move, here, moves, who));
    }

    private static Proposal? Step(Move move, OptionFacts here, MoveLibrary moves, ProposedFor? who, bool down)
    {
        var tier = down ? Tier.Easier : Tier.Harder;
        var (above, below) = (down ? here : null, down ? null : here);
        var chosen = Candidates(move, moves, tier, down)
            .Select(c => (Candidate: c, Facts: FactsOf(c.Option, moves)))
            .Where(c => c.Facts is not null && Allowed(c.Candidate.Option, moves, who) && (down ? IsEasier(c.Facts, here, Kit(c.Candidate.Option, moves), Kit(Plans.Option.Of(tier, move.Id), moves)) : IsEasier(here, c.Facts, Kit(Plans.Option.Of(tier, move.Id), moves), Kit(c.Candidate.Option, moves), harder: true)))
            .Select(c => (c.Candidate, c.Facts, Gap: Math.Abs(c.Facts!.Demand.Overall - here.Demand.Overall)))
            .Where(c => c.Gap <= Most)
            .OrderBy(c => c.Candidate.Rank).ThenBy(c => c.Gap)
            .FirstOrDefault();
        return chosen.Candidate is null ? null : Proposal.For(
            chosen.Candidate.Option,
            moves.Find(chosen.Candidate.Option.Move)!.Name,
            chosen.Candidate.Dimension,
            Sentence(chosen.Candidate.Why, chosen.Facts!.Demand, here.Demand));
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

    private static OptionFacts? FactsOf(Option option, MoveLibrary moves) => moves.Find(option.Move) is { } move ? OptionFacts.Of(move, option.Manner, moves) : null;

    private static bool Allowed(Option option, MoveLibrary moves, ProposedFor? who) =>
        who is null || LimitTable.WhyNot(moves.Find(option.Move)!, option.Manner, moves, who.Limit, who.Strict) is null;

    /// <summary>What there is to choose from, the most fitting first: steps of its ladder, the move itself done otherwise, its family.</summary>
    private static IEnumerable<Variation> Candidates(Move move, MoveLibrary moves, Tier tier, bool down)
    {
        foreach (var ladder in moves.Ladders)
        {
            var at = ladder.PlainRung(move.Id);
            for (var i = 1; at >= 0 && i <= 3; i++)
            {
                var to = down ? at - i : at + i;
                if (to >= 0 && to < ladder.Rungs.Length)
                {
                    var rung = ladder.Rungs[to];
                    yield return new Variation(OptionOf(rung, tier, moves), down ? ladder.Rungs[to + 1].Dimension : rung.Dimension, i == 1 ? down ? rung.Down : rung.Up : "", i);
                }
            }
        }

        foreach (var variation in Variations.Of(move, tier))
        {
            yield return variation;
        }

        foreach (var other in moves.Moves.Where(m => m.Family == move.Family && m.Id != move.Id && m.Position == move.Position && Main(m) == Main(move)))
        {
            yield return new Variation(Plans.Option.Of(tier, other.Id), "complexity", "", 40);
        }
    }

    /// <summary>The muscle that does most: the first that the move names.</summary>
    public static string Main(Move move) => move.Muscles.Split(',')[0].Trim();

    private static Proposal? As(Move move, OptionFacts here, MoveLibrary moves, ProposedFor? who)
    {
        var best = moves.Moves
            .Where(m => m.Family == move.Family && m.Id != move.Id && moves.IsShipped(m.Id) && Main(m) == Main(move) && (m.Position != move.Position || !m.Kit.SequenceEqual(move.Kit)))
            .Select(m => (Move: m, Facts: OptionFacts.Of(m, new Manner(), moves)))
            .Where(m => m.Facts is not null && (!m.Facts.Flight || here.Flight) && Allowed(Plans.Option.Of(Tier.Instead, m.Move.Id), moves, who))
            .Where(m => m.Facts!.Demand.Dimensions.Zip(here.Demand.Dimensions).All(d => Math.Abs(d.First.Value - d.Second.Value) <= AsHard))
            .OrderBy(m => m.Facts!.Demand.Dimensions.Zip(here.Demand.Dimensions).Sum(d => Math.Abs(d.First.Value - d.Second.Value)) + 0.2 * m.Move.Kit.Length)
            .FirstOrDefault();
        if (best.Move is null)
        {
            return null;
        }

        var kit = !best.Move.Kit.SequenceEqual(move.Kit);
        var lead = !kit ? "As hard, in another position." : best.Move.Kit.IsEmpty ? "As hard, and needs nothing." : $"As hard, with {string.Join(" and ", best.Move.Kit)}.";
        return Proposal.For(Plans.Option.Of(Tier.Instead, best.Move.Id), best.Move.Name, kit ? "kit" : "position", Sentence(lead, best.Facts!.Demand, here.Demand));
    }

    /// <summary>What is said, and what is traded for what: "The wall catches you: balance 3 → 1."</summary>
    private static string Sentence(string lead, Demand to, Demand from)
    {
        var trade = to.From(from);
        var said = lead.Trim().TrimEnd('.');
        return trade.Length == 0 ? said.Length == 0 ? to.Overall < from.Overall ? "A little less of everything." : "A little more of everything." : $"{said}."
            : said.Length == 0 ? $"{char.ToUpperInvariant(trade[0])}{trade[1..]}." : $"{said}: {trade}.";
    }
}

/// <summary>A way to do something else, or the same otherwise.</summary>
/// <param name="Rank">Less is preferred.</param>
internal sealed record Variation(Option Option, string Dimension, string Why, int Rank);
