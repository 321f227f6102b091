using System.IO.Compression;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.People;
using Halterion.Formats;
using Halterion.Store;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;

namespace Halterion.Web.Library;

/// <summary>
/// All of a studio in one zip of open formats (docs/logbook.md): to be read by people and tables, and to be brought in again.
/// </summary>
internal sealed class Everything(
    Database database,
    Classes classes,
    SeriesBook series,
    SeriesMaker maker,
    OwnMoves moves,
    Store.People people,
    Settings settings,
    LogRows logs,
    Current current,
    TimeProvider clock,
    IOptions<JsonOptions> json)
{
    /// <summary>The document that is brought in; all else in the zip says the same for people and tables.</summary>
    private const string Whole = "studio.json";

    /// <summary>A document that unpacks to more is none of ours.</summary>
    private const long MostBytes = 1024L * 1024 * 1024;

    private const int Page = 10_000;

    public Stream Zip()
    {
        var output = new MemoryStream();
        using (var zip = new ZipArchive(output, ZipArchiveMode.Create, leaveOpen: true))
        {
            using (var whole = zip.CreateEntry(Whole).Open())
            {
                new StudioFile(database).Write(whole);
            }

            foreach (var line in classes.List(null, 0, Page).Lines)
            {
                Add(zip, $"classes/{Name(line.Title, line.Id)}.halterion.json", classes.Find(line.Id)!.Plan);
            }

            foreach (var one in series.List())
            {
                if (maker.FileOf(one.Id) is { } text)
                {
                    var name = (string)JsonNode.Parse(one.Series)!["name"]!;
                    Add(zip, $"series/{Name(name, one.Id)}.halterion-series.json", text);
                }
            }

            Add(zip, "moves.json", $"[{string.Join(",\n", moves.List())}]\n");
            Add(zip, "people.csv", CsvText.Write(
            [
                RosterTable.Written.Select(RosterCells.HeadingOf),
                .. people.List().Select(p => RosterTable.Written.Select(c => RosterCells.Write(p, c))),
            ]));
            Add(zip, "logs.csv", LogCsv.Of(logs.All()));
            Add(zip, "settings.json", JsonSerializer.Serialize(current.Preferences, json.Value.SerializerOptions));
            Add(zip, "fit.json", JsonSerializer.Serialize(settings.FitTerms(), json.Value.SerializerOptions));
        }

        output.Position = 0;
        return output;
    }

    /// <summary>Puts what a zip holds in the place of all data; what was there before is kept aside.</summary>
    /// <returns>Where it is kept; null: nothing was.</returns>
    /// <exception cref="StoreException">It is no such zip, or what it holds does not fit together; nothing was changed.</exception>
    public string? Bring(Stream file)
    {
        try
        {
            using var zip = new ZipArchive(file, ZipArchiveMode.Read, leaveOpen: true);
            if (zip.GetEntry(Whole) is not { } entry || entry.Length > MostBytes)
            {
                throw new StoreException("it holds no studio");
            }

            using var whole = entry.Open();
            using var document = JsonDocument.Parse(whole);
            return new StudioFile(database).Bring(document.RootElement, clock);
        }
        catch (Exception e) when (e is InvalidDataException or JsonException)
        {
            throw new StoreException("it cannot be read as a zip of Halterion");
        }
    }

    private static void Add(ZipArchive zip, string name, string text)
    {
        using var entry = new StreamWriter(zip.CreateEntry(name).Open(), new UTF8Encoding(false));
        entry.Write(text);
    }

    private static string Name(string title, Guid id) =>
        $"{Path.GetFileNameWithoutExtension(ClassText.FileName(title, "x"))}-{id.ToString("N")[^6..]}";
}
