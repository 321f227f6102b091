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

/// <summary>
/// Finds moves by name, alias, family, kit, position, plane and limit. Whole names come first, with hyphens, plurals and one word or
/// two; several words narrow; typing mistakes are forgiven, and a word that nothing has empties nothing.
/// </summary>
public static class MoveSearch
{
    /// <summary>The moves that fit, the best first.</summary>
    public static ImmutableArray<Move> Find(IEnumerable<Move> moves, MoveQuery query)
    {
        var sifted = moves.Where(m =>
            (query.Family is null || m.Family == query.Family)
            && (query.Position is null || m.Position == query.Position)
            && (query.Plane is null || m.Plane == query.Plane)
            && (query.Kit is null || IsWith(m, query.Kit))
            && (query.Kind is not { } kind || kind(m))).ToArray();
        var typed = Words(query.Text ?? "");
        if (typed.Length == 0)
        {
            return [.. sifted];
        }

        var ranked = Ranks(sifted, typed);
        // A word that nothing has is left out; then all are wanted, or as many as any move has.
        string[] known = [.. typed.Where((_, w) => ranked.Any(r => r.Rank.Costs[w] < Other))];
        if (known.Length < typed.Length)
        {
            ranked = Ranks(sifted, known);
        }

        var most = ranked.Length == 0 ? 0 : ranked.Max(r => r.Rank.Has);
        return known.Length == 0
            ? []
            : [.. ranked.Where(r => r.Rank.Has == most).OrderBy(r => r.Rank.Cost).ThenBy(r => r.Order).Select(r => r.Move)];
    }

    private static (Move Move, int Order, Ranked Rank)[] Ranks(Move[] moves, string[] typed) =>
        [.. moves.Select((move, order) => (move, order, Rank(Named.Of(move), typed)))];

    /// <summary>Whether a move is done with a thing; "none": with nothing.</summary>
    private static bool IsWith(Move move, string kit)
    {
        if (kit == "none")
        {
            return move.Kit.IsEmpty;
        }

        var wanted = Words(kit);
        return move.Kit.Any(words => Named.KitWords(words) is var own && wanted.All(own.Contains));
    }

    // The nearer what was typed is to a word of the move, the less it counts; past the last one it is another word.
    private const int Beginning = 2;
    private const int Mistyped = 3;
    private const int Fragment = 8;
    private const int Other = 9;

    // Where a word stands: in the name it counts for more than among the other names, the kit or the muscles.
    private const int InAlias = 2;
    private const int InKit = 4;
    private const int InMuscles = 6;
    private const int Missing = 1000;

    /// <summary>The words by which a move is known.</summary>
    private sealed record Named(string[] Name, string[][] Aliases, (string Word, int Where)[] Own)
    {
        private static readonly System.Runtime.CompilerServices.ConditionalWeakTable<Move, Named> Known = [];

        public static Named Of(Move move) => Known.GetValue(move, m =>
        {
            var name = Words(m.Name);
            string[][] aliases = [.. m.Aliases.Select(Words), Words(m.Id.Value)];
            (string, int)[] own =
            [
                .. Joined(name).Select(w => (w, 0)),
                .. aliases.SelectMany(Joined).Select(w => (w, InAlias)),
                .. Words(m.Family.ToString())
                    .Concat(m.Kit.SelectMany(KitWords))
                    .Concat(Words(Spaced(m.Position.ToString())))
                    .Select(w => (w, InKit)),
                .. Words(m.Muscles).Select(w => (w, InMuscles)),
            ];
            // A word counts where it counts for most.
            return new Named(name, aliases, [.. own.GroupBy(w => w.Item1).Select(g => (g.Key, g.Min(w => w.Item2)))]);
        });

        /// <summary>A hand weight is a dumbbell.</summary>
        public static HashSet<string> KitWords(string words)
        {
            var own = Words(words).ToHashSet();
            if (own.Contains("weight"))
            {
                own.Add("dumbbell");
            }

            return own;
        }

        /// <summary>"onTheBack" in words.</summary>
        private static string Spaced(string word) => string.Concat(word.Select((c, i) => i > 0 && char.IsUpper(c) ? $" {c}" : $"{c}"));

        /// <summary>The words, and each two of them as one.</summary>
        private static IEnumerable<string> Joined(string[] words) => words.Concat(words.Zip(words.Skip(1), (a, b) => a + b));
    }

    /// <param name="Costs">Of each word that was typed; <see cref="Other"/> where it is not in it.</param>
    private sealed record Ranked(int[] Costs, int Has, int Cost);

    /// <summary>
    /// A whole name comes first, then a whole alias, then names and aliases that are all typed beside something else, then the rest word by
    /// word.
    /// </summary>
    private static Ranked Rank(Named move, string[] typed)
    {
        var costs = new int[typed.Length];
        var sum = 0;
        for (var i = 0; i < typed.Length; i++)
        {
            var word = typed[i];
            var (best, where) = (Other, 0);
            foreach (var (own, at) in move.Own)
            {
                var far = Distance(word, own);
                // Two words may be one, such as dead lift.
                far = i + 1 < typed.Length && own == word + typed[i + 1] || i > 0 && own == typed[i - 1] + word ? 0 : far;
                if (far < Other && far * 10 + at < best * 10 + where)
                {
                    (best, where) = (far, at);
                }
            }

            costs[i] = best;
            sum += best >= Other ? Missing : best * 10 + where;
        }

        var whole = string.Concat(typed);
        var named = string.Concat(move.Name);
        var bonus = named == whole ? -300
            : move.Aliases.Any(a => string.Concat(a) == whole) ? -200
            : Within(move.Name, typed) ? -90 - (5 * move.Name.Length)
            : move.Aliases.Where(a => Within(a, typed)).Select(a => a.Length).DefaultIfEmpty(0).Max() is > 0 and var longest
                ? -80 - (5 * longest)
            : named.StartsWith(whole, StringComparison.Ordinal) ? -10
            : 0;
        return new Ranked(costs, costs.Count(c => c < Other), sum + bonus);
    }

    /// <summary>Two words or more, all of them typed beside each other.</summary>
    private static bool Within(string[] words, string[] typed)
    {
        for (var from = 0; words.Length > 1 && from + words.Length <= typed.Length; from++)
        {
            if (typed.AsSpan(from, words.Length).SequenceEqual(words))
            {
                return true;
            }
        }

        return false;
    }

    /// <summary>How far what was typed is from a word: the word itself, its beginning, mistyped, or a fragment of it.</summary>
    private static int Distance(string typed, string word)
    {
        if (word == typed)
        {
            return 0;
        }

        if (typed.Length >= 2 && word.StartsWith(typed, StringComparison.Ordinal))
        {
            return Beginning;
        }

        // One mistake in four letters, two in seven.
        var allowed = typed.Length >= 7 ? 2 : typed.Length >= 4 ? 1 : 0;
        if (allowed == 0
            || word.Length < typed.Length - allowed
            || typed[0] != word[0] && (typed[1] != word[1] && typed[0] != word[1] && typed[1] != word[0]))
        {
            return typed.Length >= 3 && word.Contains(typed, StringComparison.Ordinal) ? Fragment : Other;
        }

        var whole = Edits(typed, word);
        var beginning = word.Length > typed.Length ? Edits(typed, word[..typed.Length]) : whole;
        var edits = Math.Min(whole, beginning);
        return edits <= allowed ? Mistyped + edits
            : word.Contains(typed, StringComparison.Ordinal) ? Fragment
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

    /// <summary>What is said in more than one way: one of them.</summary>
    private static readonly Dictionary<string, string> Same = new()
    {
        ["single"] = "one",
        ["1"] = "one",
        ["legged"] = "leg",
        ["armed"] = "arm",
        ["handed"] = "hand",
        ["sided"] = "side",
        ["db"] = "dumbbell",
        ["kb"] = "kettlebell",
        ["bb"] = "barbell",
        ["calve"] = "calf",
        ["feet"] = "foot",
        ["bodyweighted"] = "bodyweight",
    };

    /// <summary>What says nothing beside other words.</summary>
    private static readonly HashSet<string> Empty = ["a", "an", "the", "with", "on", "to", "of", "and", "in", "for"];

    /// <summary>Words in small letters, without accents, in the singular.</summary>
    private static string[] Words(string text)
    {
        var plain = new StringBuilder();
        foreach (var c in text.Normalize(NormalizationForm.FormD).ToLowerInvariant())
        {
            if (CharUnicodeInfo.GetUnicodeCategory(c) is not (UnicodeCategory.NonSpacingMark or UnicodeCategory.OtherPunctuation)
                || c is '.' or ',' or '/' or ':')
            {
                plain.Append(char.IsLetterOrDigit(c) ? c : ' ');
            }
        }

        var words = plain.ToString()
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(One)
            .Select(w => Same.GetValueOrDefault(w, w))
            .ToArray();
        return words.Any(w => !Empty.Contains(w)) ? [.. words.Where(w => !Empty.Contains(w))] : words;
    }

    private static string One(string word) =>
        word.Length <= 2 || !word.EndsWith('s') || word.EndsWith("ss", StringComparison.Ordinal) ? word
        : word.EndsWith("sses", StringComparison.Ordinal)
            || word.EndsWith("ches", StringComparison.Ordinal)
            || word.EndsWith("shes", StringComparison.Ordinal)
            ? word[..^2]
        : word[..^1];
}
