using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;

namespace Halterion.Core.Planning;

/// <summary>A move that a name may mean.</summary>
public sealed record MoveChoice(MoveId Id, string Name);

/// <summary>A line of a pasted list.</summary>
/// <param name="Station">A station of the plan language; null where the name or the dose was not understood.</param>
/// <param name="Dose">What of the line is its dose, in the short form; empty without one.</param>
/// <param name="Choices">Moves that its name may mean, where it is none's.</param>
/// <param name="Trouble">What was not understood; empty where all was.</param>
public sealed record PastedLine(
    string Text, JsonObject? Station, string Name, string Dose, ImmutableArray<MoveChoice> Choices, string Trouble);

/// <summary>What was read of a pasted list.</summary>
/// <param name="Left">Lines after those that were read; 0: all were.</param>
public sealed record PastedList(ImmutableArray<PastedLine> Lines, int Left);

/// <summary>Stations read from a list as people write it: a move a line, its dose before or behind it.</summary>
public static partial class PastedMoves
{
    /// <summary>As many as a class has room for: 30 blocks of 16.</summary>
    private const int MostLines = 480;

    /// <summary>Lines that are read however long it takes: more stations than a class has that is led. [M]</summary>
    private const int Always = 64;

    /// <summary>A line longer than this names no move and gives no target. [M]</summary>
    private const int LongestLine = 200;
    private const int MostChoices = 5;

    /// <summary>Reads every line that is not empty; of a very long list for as long as there is time.</summary>
    /// <param name="late">Says when no more is to be read: what is left is counted.</param>
    public static PastedList Read(string text, MoveLibrary moves, Starters starters, bool roundGivesSide, TypedDose? like, Func<bool> late)
    {
        var names = new Dictionary<string, Move>(StringComparer.Ordinal);
        foreach (var move in moves.Moves)
        {
            foreach (var name in move.Aliases.Prepend(move.Id.Value).Prepend(move.Name))
            {
                names.TryAdd(Plain(name), move);
            }
        }

        var lines = text.Split('\n').Select(l => Marker().Replace(l, "").Trim()).Where(l => l.Length > 0).ToArray();
        var read = lines.Take(MostLines).TakeWhile((_, i) => i < Always || !late()).Select(l => l.Length > LongestLine
            ? new PastedLine(l, null, "", "", [], $"This line is too long for a move and its target (the most is {LongestLine} "
                + $"characters).")
            : Line(l, names, moves, starters, roundGivesSide, like)).ToImmutableArray();
        return new PastedList(read, lines.Length - read.Length);
    }

    private static PastedLine Line(
        string line, Dictionary<string, Move> names, MoveLibrary moves, Starters starters, bool roundGivesSide, TypedDose? like)
    {
        var words = line.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var splits = Enumerable.Range(0, words.Length).SelectMany(at => new[]
        {
            (Name: string.Join(' ', words[..^at]), Dose: string.Join(' ', words[^at..])),
            (Name: string.Join(' ', words[at..]), Dose: string.Join(' ', words[..at])),
        }).Select(s => (Name: s.Name.Trim(Between), Dose: s.Dose.Trim(Between))).ToArray();

        foreach (var (name, dose) in splits)
        {
            if (names.TryGetValue(Plain(name), out var move))
            {
                var (typed, fault) = dose.Length == 0 ? (null, null) : ShortDoseReader.Read(dose);
                return fault is null
                    ? new PastedLine(
                        line,
                        starters.Station(move, null, roundGivesSide, typed ?? like, typed is not null).Station,
                        move.Name,
                        dose,
                        [],
                        "")
                    : new PastedLine(line, null, move.Name, dose, [], $"“{dose}”: {fault.Detail} Should be: {fault.Right}.");
            }
        }

        // No such name: what reads as a dose is taken off, and the rest is asked about.
        var (asked, rest) = splits.Where(s => s.Name.Length > 0 && (s.Dose.Length == 0 || ShortDoseReader.Read(s.Dose).Fault is null))
            .OrderBy(s => s.Name.Length).FirstOrDefault((line, ""));
        return new PastedLine(line, null, asked, rest, Choices(asked, moves), $"No move is called “{asked}”.");
    }

    private static ImmutableArray<MoveChoice> Choices(string name, MoveLibrary moves)
    {
        var found = MoveSearch.Find(moves.Moves, new MoveQuery(name));
        if (found.IsEmpty)
        {
            // One word of it may say enough.
            found = [.. name.Split(' ').Reverse().SelectMany(word => MoveSearch.Find(moves.Moves, new MoveQuery(word))).Distinct()];
        }

        return [.. found.Take(MostChoices).Select(m => new MoveChoice(m.Id, m.Name))];
    }

    private static readonly char[] Between = [' ', ':', ',', ';', '-', '–', '—', '.', '(', ')'];

    /// <summary>A name without capitals, dashes and the s of several.</summary>
    private static string Plain(string name) =>
        string.Join(' ', NotLetters().Replace(name.ToLowerInvariant(), " ").Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(w => w.Length > 3 && w[^1] == 's' && w[^2] != 's' ? w[..^1] : w));

    [GeneratedRegex(@"^\s*(?:[-*•–]|[0-9]{1,2}[.)])\s+")]
    private static partial Regex Marker();

    [GeneratedRegex(@"[^\p{L}\p{N}]+")]
    private static partial Regex NotLetters();
}
