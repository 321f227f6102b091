using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Demands;

/// <summary>An option proposed beside a move, and why.</summary>
/// <param name="Option">The option in the plan language, ready to stand at a station.</param>
public sealed record Proposal(JsonObject Option, string Name, string Dimension, string Why)
{
    /// <summary>The option, not named yet.</summary>
    [JsonIgnore]
    public Option Of { get; private init; } = null!;

    public static Proposal For(Option option, string name, string dimension, string why) =>
        new(PlanWriter.Of(option), name, dimension, why) { Of = option };
}

/// <summary>What the ladders propose for a move. A direction is missing only where the move stands at the end of its ladder.</summary>
public sealed record Proposals(Proposal? Easier = null, Proposal? Harder = null, Proposal? Instead = null)
{
    /// <summary>The option one step easier and one step harder than a move done plainly; at the end of a ladder what the move's own page says.</summary>
    public static Proposals For(MoveId id, MoveLibrary moves)
    {
        var own = moves.Find(id) is { } move ? OwnLines(move) : new Proposals();
        foreach (var ladder in moves.Ladders)
        {
            var at = ladder.PlainRung(id);
            if (at >= 0)
            {
                return new Proposals(Step(ladder, at, -1, moves) ?? own.Easier, Step(ladder, at, +1, moves) ?? own.Harder);
            }
        }

        return own;
    }

    /// <summary>A step of a ladder as an option.</summary>
    public static Option OptionOf(Rung rung, Tier tier, MoveLibrary moves) =>
        Plans.Option.Of(tier, rung.Move, rung.With is { } fields ? ClassReader.ReadManner(fields, moves) : null);

    private static Proposal? Step(Ladder ladder, int at, int way, MoveLibrary moves)
    {
        var to = at + way;
        if (to < 0 || to >= ladder.Rungs.Length)
        {
            return null;
        }

        var rung = ladder.Rungs[to];
        return Proposal.For(
            OptionOf(rung, way < 0 ? Tier.Easier : Tier.Harder, moves),
            moves.Find(rung.Move)!.Name,
            way < 0 ? ladder.Rungs[at].Dimension : rung.Dimension,
            way < 0 ? rung.Down : rung.Up);
    }

    /// <summary>Easier and harder as the move's own page says.</summary>
    private static Proposals OwnLines(Move move)
    {
        Proposal? Of(Tier tier, string line) => line.Length == 0 ? null : Proposal.For(
            Plans.Option.Of(tier, move.Id, note: line.TrimEnd('.')), move.Name, DimensionOf(line), line);
        return new Proposals(Of(Tier.Easier, move.Easier), Of(Tier.Harder, move.Harder));
    }

    private static string DimensionOf(string line)
    {
        (string Dimension, string[] Words)[] words =
        [
            ("support", ["hand", "wall", "chair", "hold on", "doorway", "cushion", "strap"]),
            ("impact", ["jump", "hop", "leap"]),
            ("load", ["weight", "heav", "light", "band", "peg"]),
            ("tempo", ["slow", "pause", "quick", "longer", "count", "still"]),
            ("depth", ["depth", "higher", "lower", "smaller", "deeper", "shallow", "shorter", "bend", "half", "further", "less"]),
            ("base", ["one leg", "foot", "feet", "stagger", "knees down", "knees bent"]),
        ];
        return words.FirstOrDefault(w => w.Words.Any(x => line.Contains(x, StringComparison.OrdinalIgnoreCase))).Dimension ?? "complexity";
    }
}
