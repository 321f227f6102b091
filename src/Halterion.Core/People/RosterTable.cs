using System.Collections.Immutable;

namespace Halterion.Core.People;

/// <summary>Something wrong in a cell of a table.</summary>
/// <param name="Column">From 0; null: the row as a whole.</param>
public sealed record RosterFault(int? Column, string What, string Right);

/// <summary>What a line of a list would do.</summary>
public enum RosterChange
{
    /// <summary>Somebody new.</summary>
    New,
    /// <summary>Somebody known is changed.</summary>
    Changed,
    /// <summary>Nothing is new.</summary>
    Same,
    /// <summary>It cannot be read.</summary>
    Faulty,
}

/// <summary>What a row of a table would do.</summary>
/// <param name="Row">Its number in the file, from 1, the heading counted.</param>
public sealed record RosterRow(int Row, string Name, RosterChange Change, ImmutableArray<RosterFault> Faults);

/// <summary>What taking a table in would do: all of it, or, with a single fault, nothing.</summary>
public sealed record RosterReading(ImmutableArray<RosterRow> Rows, ImmutableArray<Person> Fresh, ImmutableArray<Person> Changed);

/// <summary>A table of people, read against those who are known: by name, so that the same file taken in twice changes nothing.</summary>
public static class RosterTable
{
    /// <summary>The most rows that are read.</summary>
    public const int MostRows = 2000;
    /// <summary>The most columns that are read.</summary>
    public const int MostColumns = 60;

    /// <summary>The columns in which people are written out.</summary>
    public static readonly ImmutableArray<RosterColumn> Written =
    [
        RosterColumn.Name, RosterColumn.Nick, RosterColumn.Stature, RosterColumn.Mass, RosterColumn.BirthYear,
        RosterColumn.LevelSquat, RosterColumn.LevelLunge, RosterColumn.LevelHinge, RosterColumn.LevelBridge,
        RosterColumn.Limits, RosterColumn.Ready, RosterColumn.BoxCm, RosterColumn.BenchCm, RosterColumn.RearFootCm, RosterColumn.Band,
            RosterColumn.Note,
    ];

    /// <summary>Whether the first row is a heading: it has a word we know, and no number.</summary>
    public static bool HasHeading(ImmutableArray<ImmutableArray<string>> rows) =>
        rows.Length > 0 && rows[0].Any(c => RosterCells.Guess(c) != RosterColumn.Ignore) && !rows[0].Any(c => c.Any(char.IsAsciiDigit));

    /// <summary>What each column is by its heading, else by what stands in it.</summary>
    public static ImmutableArray<RosterColumn> Guess(ImmutableArray<ImmutableArray<string>> rows, bool heading)
    {
        var width = rows.IsEmpty ? 0 : rows.Max(r => r.Length);
        var taken = new HashSet<RosterColumn>();
        var guesses = new RosterColumn[width];
        for (var c = 0; c < width; c++)
        {
            var guess = heading && c < rows[0].Length
                ? RosterCells.Guess(rows[0][c])
                : heading ? RosterColumn.Ignore
                : ByContent(rows, c, taken);
            guesses[c] = guess == RosterColumn.Ignore || taken.Add(guess) ? guess : RosterColumn.Ignore;
        }

        return [.. guesses];
    }

    private static RosterColumn ByContent(ImmutableArray<ImmutableArray<string>> rows, int column, HashSet<RosterColumn> taken)
    {
        var cells = rows.Where(r => column < r.Length).Select(r => r[column].Trim()).Where(c => c.Length > 0).Take(50).ToArray();
        bool All(RosterColumn as_) =>
            cells.Length > 0 && Array.TrueForAll(cells, c => RosterCells.Set(new Person(default, ""), as_, c).Fault is null);
        return cells.Length == 0 ? RosterColumn.Ignore
            : All(RosterColumn.BirthYear) && cells.All(c => c.Length == 4) ? RosterColumn.BirthYear
            : All(RosterColumn.Stature) ? RosterColumn.Stature
            : All(RosterColumn.Mass) ? RosterColumn.Mass
            : All(RosterColumn.Level) ? RosterColumn.Level
            : All(RosterColumn.Limits) ? RosterColumn.Limits
            : taken.Contains(RosterColumn.Name) ? RosterColumn.Note
            : RosterColumn.Name;
    }

    /// <summary>Reads the rows as people; an empty cell leaves what is known.</summary>
    public static RosterReading Read(ImmutableArray<ImmutableArray<string>> rows, bool heading, ImmutableArray<RosterColumn> columns,
        ImmutableArray<Person> known)
    {
        var byName = known.GroupBy(p => Key(p.Name)).ToDictionary(g => g.Key, g => g.First());
        var seen = new Dictionary<string, int>();
        var (read, fresh, changed) = (ImmutableArray.CreateBuilder<RosterRow>(), ImmutableArray.CreateBuilder<Person>(),
            ImmutableArray.CreateBuilder<Person>());
        for (var r = heading ? 1 : 0; r < rows.Length; r++)
        {
            if (rows[r].All(string.IsNullOrWhiteSpace))
            {
                continue;
            }

            var faults = ImmutableArray.CreateBuilder<RosterFault>();
            var name = NameOf(rows[r], columns);
            if (name.Length == 0)
            {
                faults.Add(
                    new RosterFault(
                        columns.IndexOf(RosterColumn.Name) is >= 0 and var at ? at : null, "This row has no name.", "a name in every row"));
            }
            else if (name.Length > 120)
            {
                faults.Add(new RosterFault(null, "The name has more than 120 characters.", "at most 120"));
            }
            else if (!seen.TryAdd(Key(name), r + 1))
            {
                faults.Add(new RosterFault(null, $"“{name}” is already in row {seen[Key(name)]}.", "each person once"));
            }

            var before = byName.GetValueOrDefault(Key(name));
            var person = before ?? new Person(default, name);
            for (var c = 0; c < columns.Length && c < rows[r].Length; c++)
            {
                if (columns[c] is RosterColumn.Name or RosterColumn.FirstName or RosterColumn.LastName)
                {
                    if (rows[r][c].Any(char.IsControl))
                    {
                        faults.Add(new RosterFault(c, "There are control characters in it.", "plain text"));
                    }

                    continue;
                }

                (person, var fault) = RosterCells.Set(person, columns[c], rows[r][c]);
                if (fault is var (what, right))
                {
                    faults.Add(new RosterFault(c, what, right));
                }
            }

            var same = before is not null
                && RosterTable.Written.All(column => RosterCells.Write(before, column) == RosterCells.Write(person, column));
            var change = faults.Count > 0
                ? RosterChange.Faulty
                : before is null ? RosterChange.New
                : same ? RosterChange.Same
                : RosterChange.Changed;
            read.Add(new RosterRow(r + 1, name, change, faults.ToImmutable()));
            if (change is RosterChange.New or RosterChange.Changed)
            {
                (change == RosterChange.New ? fresh : changed).Add(person);
            }
        }

        return new RosterReading(read.ToImmutable(), fresh.ToImmutable(), changed.ToImmutable());
    }

    private static string NameOf(ImmutableArray<string> row, ImmutableArray<RosterColumn> columns)
    {
        string Cell(RosterColumn column) => columns.IndexOf(column) is >= 0 and var at && at < row.Length ? row[at].Trim() : "";
        return Cell(RosterColumn.Name) is { Length: > 0 } whole
            ? whole
            : $"{Cell(RosterColumn.FirstName)} {Cell(RosterColumn.LastName)}".Trim();
    }

    private static string Key(string name) => string.Join(' ', name.ToUpperInvariant().Split(' ', StringSplitOptions.RemoveEmptyEntries));
}
