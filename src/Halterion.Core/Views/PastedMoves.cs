using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;

namespace Halterion.Core.Views;

/// <summary>A move that a name may mean.</summary>
public sealed record MoveChoice(MoveId Id, string Name);

/// <summary>A line of a pasted list.</summary>
/// <param name="Station">A station of the plan language; null where the name or the dose was not understood.</param>
/// <param name="Dose">What of the line is its dose, in the short form; empty without one.</param>
/// <param name="Choices">Moves that its name may mean, where it is none's.</param>
/// <param name="Trouble">What was not understood; empty where all was.</param>
public sealed record PastedLine(string Text, JsonObject? Station, string Name, string Dose, ImmutableArray<MoveChoice> Choices, string Trouble);

/// <summary>Stations read from a list as people write it: a move a line, its dose before or behind it.</summary>
public static partial class PastedMoves
{
    private const int MostLines = 16;
    private const int MostChoices = 5;

    /// <summary>Reads every line that is not empty; past the sixteenth none, as a block takes no more.</summary>
    public static ImmutableArray<PastedLine> Read(string text, MoveLibrary moves, Starters starters, bool roundGivesSide, TypedDose? like)
    {
        var names = new Dictionary<string, Move>(StringComparer.Ordinal);
        foreach (var move in moves.Moves)
        {
            foreach (var name in move.Aliases.Prepend(move.Id.Value).Prepend(move.Name))
            {
                names.TryAdd(Plain(name), move);
            }
        }

        return
        [
            .. text.Split('\n').Select(l => Marker().Replace(l, "").Trim()).Where(l => l.Length > 0).Take(MostLines)
                .Select(l => Line(l, names, moves, starters, roundGivesSide, like)),
        ];
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
                    ? new PastedLine(line, starters.Station(move, null, roundGivesSide, typed ?? like, typed is not null).Station, move.Name, dose, [], "")
                    : new PastedLine(line, null, move.Name, dose, [], $"“{dose}”: {fault.Detail} Right would be: {fault.Right}.");
            }
        }

        // No such name: what reads as a dose is taken off, and the rest is asked about.
        var (asked, rest) = splits.Where(s => s.Name.Length > 0 && (s.Dose.Length == 0 || ShortDoseReader.Read(s.Dose).Fault is null))
            .OrderBy(s => s.Name.Length).FirstOrDefault((line, ""));
        return new PastedLine(line, null, asked, rest, Choices(asked, moves), $"“{asked}” is no move of the library.");
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

    [GeneratedRegex(@"^\s*(?:[-*•–]|\d{1,2}[.)])\s+")]
    private static partial Regex Marker();

    [GeneratedRegex(@"[^\p{L}\p{N}]+")]
    private static partial Regex NotLetters();
}
