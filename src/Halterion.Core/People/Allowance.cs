using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.People;

/// <summary>Whether somebody may do an option, and what they would want to be ready for first.</summary>
public static class Allowance
{
    /// <summary>A hinge with so much wants to be sound first; any load from so much wants clean reps without. Kilograms, [M].</summary>
    private const double HeavyHinge = 12;

    private const double Heavy = 8;

    /// <summary>Why they are not offered it, in the words of the first limit that forbids a part of it; null where they may.</summary>
    public static (PersonLimit Limit, string Why)? WhyNot(
        Person person, Option option, Station station, Block block, MoveLibrary moves, DateOnly day)
    {
        foreach (var limit in person.LimitsOn(day))
        {
            foreach (var doing in option.In(station))
            {
                if (moves.Find(doing.Move) is { } move
                    && LimitTable.WhyNot(move, doing.Manner, moves, limit.Limit, limit.Strict, block.Phase != Phase.Cooldown) is { } why)
                {
                    return (limit, why);
                }
            }
        }

        return null;
    }

    /// <summary>What should be sound before an option (handbook, section 5, common practice, no source).</summary>
    public static ImmutableArray<Tick> Wants(Option option, Station station, MoveLibrary moves)
    {
        var wants = new SortedSet<Tick>();
        foreach (var doing in option.In(station))
        {
            if (moves.Find(doing.Move) is not { } move)
            {
                continue;
            }

            wants.UnionWith(move.Wants);
            if (OptionFacts.Of(move, doing.Manner, moves) is not { } facts)
            {
                continue;
            }

            Add(Tick.Hinge, move.Family == Family.Hinge && facts.Kilograms >= HeavyHinge);
            Add(Tick.Split, facts.RearRaised);
            Add(Tick.Land, facts.Flight);
            Add(Tick.Load, facts.Kilograms >= Heavy);
        }

        return [.. wants];

        void Add(Tick tick, bool wanted)
        {
            if (wanted)
            {
                wants.Add(tick);
            }
        }
    }

    /// <summary>A tick in words, as what is not seen yet.</summary>
    public static string Named(Tick tick) => tick switch
    {
        Tick.Hinge => "a clean hinge",
        Tick.Split => "ten split squats hands-free",
        Tick.Step => "steady reverse lunges",
        Tick.Land => "quiet landings",
        Tick.Load => "8–12 clean reps without weight",
    };

    /// <summary>A care note in words: "left knee (strict)".</summary>
    public static string Named(PersonLimit limit) =>
        (limit.Side is { } side ? $"{side.ToString().ToLowerInvariant()} " : "")
            + LimitTable.Named(limit.Limit)
            + (limit.Strict ? " (strict)" : "");
}
