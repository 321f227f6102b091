using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>Statements with parameters, on plain ADO.NET.</summary>
internal static class Sql
{
    public static int Run(this SqliteConnection connection, string sql, ReadOnlySpan<(string Name, object? Value)> parameters)
    {
        using var command = Command(connection, sql, parameters);
        return command.ExecuteNonQuery();
    }

    public static object? Scalar(this SqliteConnection connection, string sql, ReadOnlySpan<(string Name, object? Value)> parameters)
    {
        using var command = Command(connection, sql, parameters);
        return command.ExecuteScalar();
    }

    public static List<T> Query<T>(
        this SqliteConnection connection,
        string sql,
        ReadOnlySpan<(string Name, object? Value)> parameters,
        Func<SqliteDataReader, T> read)
    {
        using var command = Command(connection, sql, parameters);
        using var reader = command.ExecuteReader();
        var rows = new List<T>();
        while (reader.Read())
        {
            rows.Add(read(reader));
        }

        return rows;
    }

    public static string? Text(this SqliteDataReader reader, int column) => reader.IsDBNull(column) ? null : reader.GetString(column);

    public static int? Whole(this SqliteDataReader reader, int column) => reader.IsDBNull(column) ? null : reader.GetInt32(column);

    public static string Iso(DateTimeOffset moment) => moment.UtcDateTime.ToString("O", CultureInfo.InvariantCulture);

    private static SqliteCommand Command(SqliteConnection connection, string sql, ReadOnlySpan<(string Name, object? Value)> parameters)
    {
        var command = connection.CreateCommand();
        command.CommandText = sql;
        foreach (var (name, value) in parameters)
        {
            command.Parameters.AddWithValue(name, value switch
            {
                null => DBNull.Value,
                Guid id => id.ToString("D"),
                DateTimeOffset moment => Iso(moment),
                _ => value,
            });
        }

        return command;
    }
}
