using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Halterion.Core.Moves;

/// <summary>What is looked for; what is left out does not matter.</summary>
/// <param name="Kind">Whether a move is kind to a limit.</param>
public sealed record MoveQuery(
    string? Text = null,
    Family? Family = null,
    Position? Position = null,
    Plane? Plane = null,
    string? Kit = null,
    Func<Move, bool>? Kind = null);

/// <summary>Finds moves by name, alias, family, kit, position, plane and limit, and forgives typing mistakes.</summary>
public static class MoveSearch
{
    /// <summary>The moves that fit, the best first.</summary>
    public static ImmutableArray<Move> Find(IEnumerable<Move> moves, MoveQuery query)
    {
        var words = Words(query.Text ?? "");
        return
        [
            .. moves.Where(m =>
                    (query.Family is null || m.Family == query.Family)
                    && (query.Position is null || m.Position == query.Position)
                    && (query.Plane is null || m.Plane == query.Plane)
                    && (query.Kit is null || (query.Kit == "none" ? m.Kit.IsEmpty : m.Kit.Any(k => k.Contains(query.Kit, StringComparison.OrdinalIgnoreCase))))
                    && (query.Kind is not { } kind || kind(m)))
                .Select((move, order) => (Move: move, Order: order, Rank: Rank(move, words)))
                .Where(found => found.Rank is not null)
                .OrderBy(found => found.Rank).ThenBy(found => found.Order)
                .Select(found => found.Move),
        ];
    }

    // The nearer what was typed is to a word of the move, the less it counts; past the last one it is another word.
    private const int Beginning = 2;
    private const int Mistyped = 3;
    private const int Fragment = 8;
    private const int Other = 9;

    /// <summary>Less the better; null where a word is not in it. A whole name comes first, then a whole alias, then names that begin so.</summary>
    private static int? Rank(Move move, string[] words)
    {
        if (words.Length == 0)
        {
            return 0;
        }

        var typed = string.Join(' ', words);
        var name = Words(move.Name);
        var aliases = move.Aliases.Select(Words).Append(Words(move.Id.Value)).ToArray();
        string[] own = [.. name, .. aliases.SelectMany(a => a), move.Family.ToString().ToLowerInvariant()];
        var rank = 0;
        foreach (var word in words)
        {
            var best = own.Min(w => Distance(word, w));
            if (best >= Other)
            {
                return null;
            }

            rank += 10 * best;
        }

        return string.Join(' ', name) == typed ? -3
            : aliases.Any(alias => string.Join(' ', alias) == typed) ? -2
            : rank + (string.Join(' ', name).StartsWith(typed, StringComparison.Ordinal) ? 0 : 1);
    }

    /// <summary>How far what was typed is from a word: the word itself, its beginning, mistyped, or a fragment of it.</summary>
    private static int Distance(string typed, string word)
    {
        if (word == typed)
        {
            return 0;
        }

        if (word.StartsWith(typed, StringComparison.Ordinal))
        {
            return Beginning;
        }

        // One mistake in four letters, two in seven.
        var allowed = typed.Length >= 7 ? 2 : typed.Length >= 4 ? 1 : 0;
        var whole = Edits(typed, word);
        var beginning = word.Length > typed.Length ? Edits(typed, word[..typed.Length]) : whole;
        var edits = Math.Min(whole, beginning);
        return edits <= allowed ? Mistyped + edits
            : word.Contains(typed, StringComparison.Ordinal) && typed.Length >= 3 ? Fragment
            : Other;
    }

    /// <summary>Letters changed, missing, too many or swapped (optimal string alignment; Damerau 1964).</summary>
    private static int Edits(string a, string b)
    {
        var rows = new int[a.Length + 1, b.Length + 1];
        for (var i = 0; i <= a.Length; i++)
        {
            for (var j = 0; j <= b.Length; j++)
            {
                if (i == 0 || j == 0)
                {
                    rows[i, j] = i + j;
                    continue;
                }

                var same = a[i - 1] == b[j - 1] ? 0 : 1;
                rows[i, j] = Math.Min(Math.Min(rows[i - 1, j] + 1, rows[i, j - 1] + 1), rows[i - 1, j - 1] + same);
                if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                {
                    rows[i, j] = Math.Min(rows[i, j], rows[i - 2, j - 2] + 1);
                }
            }
        }

        return rows[a.Length, b.Length];
    }

    /// <summary>Words in small letters, without accents.</summary>
    private static string[] Words(string text)
    {
        var plain = new StringBuilder();
        foreach (var c in text.Normalize(NormalizationForm.FormD).ToLowerInvariant())
        {
            if (CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
            {
                plain.Append(char.IsLetterOrDigit(c) ? c : ' ');
            }
        }

        return plain.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries);
    }
}
