using System.Globalization;
using System.Text.Json;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>
/// All data of a studio as one JSON document: tables with their rows, column by column. What belongs to this machine alone is left out:
/// devices that were let in, changes that are still recognised, how healthy the file is.
/// </summary>
public sealed class StudioFile(Database database)
{
    /// <summary>What the document calls itself.</summary>
    public const string FormatName = "halterion-studio";

    private const int Version = 1;

    private static readonly string[] left = ["device", "document_change", "health"];

    /// <summary>Writes everything.</summary>
    public void Write(Stream output)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        using var json = new Utf8JsonWriter(output, new JsonWriterOptions { Indented = true });
        json.WriteStartObject();
        json.WriteString("format", FormatName);
        json.WriteNumber("version", Version);
        json.WriteNumber("schema", Schema.VersionOf(connection));
        json.WriteStartObject("tables");
        foreach (var table in Tables(connection))
        {
            json.WriteStartArray(table);
            foreach (var row in connection.Query($"SELECT * FROM \"{table}\" ORDER BY rowid", [], Row))
            {
                json.WriteStartObject();
                foreach (var (column, value) in row)
                {
                    json.WritePropertyName(column);
                    Write(json, value);
                }

                json.WriteEndObject();
            }

            json.WriteEndArray();
        }

        json.WriteEndObject();
        json.WriteEndObject();
    }

    /// <summary>Puts a document in the place of the data; what was there before is kept aside.</summary>
    /// <returns>Where it is kept; null: nothing was.</returns>
    /// <exception cref="StoreException">The document is none of these, or does not fit together; nothing was changed.</exception>
    public string? Bring(JsonElement document, TimeProvider clock)
    {
        if (document.ValueKind != JsonValueKind.Object || !document.TryGetProperty("format", out var format)
            || format.ValueKind != JsonValueKind.String || format.GetString() != FormatName
            || !document.TryGetProperty("schema", out var of) || !of.TryGetInt32(out var schema)
            || !document.TryGetProperty("tables", out var tables) || tables.ValueKind != JsonValueKind.Object)
        {
            throw new StoreException("it is no studio that Halterion has written");
        }

        if (schema < 1 || schema > Schema.Version)
        {
            throw new StoreException("it was written by a newer Halterion");
        }

        var file = Path.Combine(database.Folder, "brought-in.tmp");
        try
        {
            File.Delete(file);
            Fill(file, schema, tables);
            return DataFile.WhyNot(file, deep: true) is { } why ? throw new StoreException(why) : database.Replace(file, clock);
        }
        catch (Exception e) when (e is SqliteException or InvalidOperationException or FormatException or JsonException)
        {
            throw new StoreException("parts of it do not match");
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            File.Delete(file);
        }
    }

    private static void Fill(string file, int schema, JsonElement tables)
    {
        using var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder { DataSource = file, Pooling = false, ForeignKeys = false }.ConnectionString);
        connection.Open();
        Schema.Make(connection, schema);
        using (var transaction = connection.BeginTransaction())
        {
            foreach (var table in Tables(connection))
            {
                if (tables.TryGetProperty(table, out var rows))
                {
                    foreach (var row in rows.EnumerateArray())
                    {
                        Add(connection, table, row);
                    }
                }
            }

            transaction.Commit();
        }

        Schema.Upgrade(connection);
    }

    private static void Add(SqliteConnection connection, string table, JsonElement row)
    {
        // Only columns that the table has: a name from the document never becomes part of a statement.
        var columns = connection.Query("SELECT name FROM pragma_table_info(@table)", [("@table", table)], r => r.GetString(0))
            .Where(c => row.TryGetProperty(c, out _)).ToArray();
        var values = columns.Select((c, i) => ($"@v{i}", Read(row.GetProperty(c)))).ToArray();
        connection.Run(
            $"INSERT INTO \"{table}\" ({string.Join(", ", columns.Select(c => $"\"{c}\""))}) VALUES "
            + $"({string.Join(", ", values.Select(v => v.Item1))})",
            values);
    }

    private static IEnumerable<string> Tables(SqliteConnection connection) => connection.Query(
        @"SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite\_%' ESCAPE '\' ORDER BY rowid", [],
        r => r.GetString(0)).Except(left);

    private static (string, object?)[] Row(SqliteDataReader reader) =>
        [.. Enumerable.Range(0, reader.FieldCount).Select(i => (reader.GetName(i), reader.IsDBNull(i) ? null : reader.GetValue(i)))];

    private static void Write(Utf8JsonWriter json, object? value)
    {
        switch (value)
        {
            case null:
                json.WriteNullValue();
                break;
            case long whole:
                json.WriteNumberValue(whole);
                break;
            case double number:
                json.WriteNumberValue(number);
                break;
            case byte[] bytes:
                json.WriteStartObject();
                json.WriteBase64String("base64", bytes);
                json.WriteEndObject();
                break;
            default:
                json.WriteStringValue(Convert.ToString(value, CultureInfo.InvariantCulture));
                break;
        }
    }

    private static object? Read(JsonElement value) => value.ValueKind switch
    {
        JsonValueKind.Null => null,
        JsonValueKind.String => value.GetString(),
        JsonValueKind.Number => value.TryGetInt64(out var whole) ? whole : value.GetDouble(),
        JsonValueKind.Object => value.GetProperty("base64").GetBytesFromBase64(),
        JsonValueKind.Undefined or JsonValueKind.Array or JsonValueKind.True or JsonValueKind.False or _ =>
            throw new FormatException("A value is of no kind that a table holds."),
    };
}
