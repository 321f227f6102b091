using System.Collections.Immutable;
using System.Globalization;
using CsvHelper;

namespace Halterion.Formats;

/// <summary>Tables as text (RFC 4180): written with commas; read with whichever separator they have.</summary>
public static class CsvText
{
    /// <summary>The cells of a table. Text that is no good table is read as far as it makes sense; it never throws.</summary>
    /// <param name="most">Rows past so many are left.</param>
    public static ImmutableArray<ImmutableArray<string>> Read(string text, int most)
    {
        var rows = ImmutableArray.CreateBuilder<ImmutableArray<string>>();
        try
        {
            using var reader = CsvReader.FromText(
                text.TrimStart('\uFEFF'), new CsvReaderOptions { HasHeader = false, SkipEmptyLines = false });
            while (rows.Count < most && reader.Read())
            {
                rows.Add([.. Enumerable.Range(0, reader.FieldCount).Select(i => Plain(reader.GetString(i)))]);
            }
        }
        catch (CsvFormatException)
        {
            // What came before the part that cannot be read stands; that the rest is missing is seen in the preview.
        }

        return rows.ToImmutable();
    }

    /// <summary>What a spreadsheet could take for a formula is written behind an apostrophe.</summary>
    public static string Write(IEnumerable<IEnumerable<string>> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var writer = CsvWriter.Create(text, new CsvWriterOptions { Injection = CsvInjection.Escape }, true))
        {
            foreach (var row in rows)
            {
                writer.WriteRecord([.. row]);
            }
        }

        return text.ToString();
    }

    /// <summary>The apostrophe of <see cref="Write"/> taken off again.</summary>
    private static string Plain(string cell) => cell is ['\'', '=' or '@' or '+' or '-', ..] ? cell[1..] : cell;
}
