using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Moves;
using Halterion.Core;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>Copies of the data: one each day of use, one before each change of schema, and those that the user asks for.</summary>
public sealed class Copies(Database database)
{
    private const int Kept = 14;
    private const string Daily = "day-";

    /// <summary>Where the copies lie.</summary>
    public static string FolderOf(string data) => Path.Combine(data, "copies");

    /// <summary>All copies, the newest first.</summary>
    public static ImmutableArray<string> In(string data) => Directory.Exists(FolderOf(data))
        ? [.. Directory.EnumerateFiles(FolderOf(data), "*.db").OrderByDescending(File.GetLastWriteTimeUtc).ThenByDescending(f => f, StringComparer.Ordinal)]
        : [];

    /// <summary>Whether a file is a sound Halterion data file that this version can read.</summary>
    public static bool IsSound(string file) => WhyNot(file) is null;

    /// <summary>Makes today's copy unless there is one; the oldest go when there are more than fourteen.</summary>
    public void OfToday(TimeProvider clock)
    {
        var day = clock.GetLocalNow().ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        var file = Path.Combine(FolderOf(database.Folder), $"{Daily}{day}.db");
        if (File.Exists(file))
        {
            return;
        }

        Make(file);
        foreach (var old in Directory.EnumerateFiles(FolderOf(database.Folder), Daily + "*.db").OrderDescending(StringComparer.Ordinal).Skip(Kept))
        {
            File.Delete(old);
        }
    }

    /// <summary>A copy of the data as it was under an older schema.</summary>
    internal void BeforeSchema(int version, TimeProvider clock) => Make(Path.Combine(
        FolderOf(database.Folder),
        string.Create(CultureInfo.InvariantCulture, $"before-schema-{version + 1}-{clock.GetLocalNow():yyyy-MM-dd-HHmmss}.db")));

    /// <summary>Erases a person from every copy; a copy from which that cannot be done is no copy worth keeping.</summary>
    public void Erase(PersonId person)
    {
        foreach (var file in In(database.Folder))
        {
            try
            {
                using var connection = new SqliteConnection(Database.ConnectionString(file, pooled: false));
                connection.Open();
                connection.Run("PRAGMA secure_delete = ON", []);
                People.Erase(connection, person);
                connection.Run("VACUUM", []);
            }
            catch (SqliteException)
            {
                File.Delete(file);
            }
        }
    }

    /// <summary>Copies a data folder to a file, whether a server has it open or not.</summary>
    /// <exception cref="StoreException">There is no data, the file is there already, or it cannot be written.</exception>
    public static void Backup(string data, string file)
    {
        var source = Path.Combine(data, Database.FileName);
        if (!File.Exists(source))
        {
            throw new StoreException($"There is no data in {data}.");
        }

        if (File.Exists(file) || Directory.Exists(file))
        {
            throw new StoreException($"{file} is there already. Choose another name.");
        }

        try
        {
            using var connection = new SqliteConnection(Database.ConnectionString(source, pooled: false));
            connection.Open();
            Into(connection, file);
        }
        catch (Exception e) when (e is SqliteException or IOException or UnauthorizedAccessException)
        {
            throw new StoreException($"The copy could not be written to {file} ({e.Message.TrimEnd('.')}).", e);
        }
    }

    /// <summary>Puts a copy in place of a folder's data; what was there is kept aside.</summary>
    /// <returns>Where the old data is; null if there was none.</returns>
    /// <exception cref="StoreException">The copy is not sound, or a server has the folder open.</exception>
    public static string? Restore(string data, string file, TimeProvider clock)
    {
        if (WhyNot(file) is { } why)
        {
            throw new StoreException($"{file} cannot be restored: {why} Nothing was changed.");
        }

        try
        {
            Database.MakeFolder(data);
            using var held = Database.Lock(data);
            Database.MakeFolder(FolderOf(data));
            var current = Path.Combine(data, Database.FileName);
            var incoming = current + ".incoming";
            File.Delete(incoming);
            using (var connection = new SqliteConnection(Database.ConnectionString(file, pooled: false)))
            {
                connection.Open();
                Into(connection, incoming);
            }

            var aside = Path.Combine(FolderOf(data), string.Create(CultureInfo.InvariantCulture, $"before-restore-{clock.GetLocalNow():yyyy-MM-dd-HHmmss}.db"));
            var old = File.Exists(current);
            if (old)
            {
                SetAside(current, aside);
            }

            File.Move(incoming, current, overwrite: true);
            Database.Private(data);
            return old ? aside : null;
        }
        catch (IOException e) when (e is not (DirectoryNotFoundException or FileNotFoundException))
        {
            throw new StoreException(
                $"The data folder {data} is in use or cannot be written ({e.Message.TrimEnd('.')}). Stop Halterion first. Nothing was changed.",
                e);
        }
        catch (Exception e) when (e is SqliteException or UnauthorizedAccessException)
        {
            throw new StoreException($"The data could not be restored ({e.Message.TrimEnd('.')}). Nothing was changed.", e);
        }
    }

    /// <summary>A whole copy of what was there, with what lies in its write-ahead log; the file itself where it is too damaged for that.</summary>
    private static void SetAside(string current, string aside)
    {
        try
        {
            using var connection = new SqliteConnection(Database.ConnectionString(current, pooled: false));
            connection.Open();
            Into(connection, aside);
        }
        catch (SqliteException)
        {
            File.Copy(current, aside, overwrite: true);
        }

        foreach (var ending in (string[])["-wal", "-shm"])
        {
            File.Delete(current + ending);
        }
    }

    private static string? WhyNot(string file)
    {
        if (!File.Exists(file))
        {
            return "there is no such file.";
        }

        try
        {
            using var connection = new SqliteConnection(new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Mode = SqliteOpenMode.ReadOnly,
                Pooling = false
            }.ToString());
            connection.Open();
            if (Database.Damage(connection) is { } wrong)
            {
                return $"it is damaged ({wrong.TrimEnd('.')}).";
            }

            var version = Convert.ToInt32(connection.Scalar("PRAGMA user_version", []), CultureInfo.InvariantCulture);
            return version == 0 || connection.Scalar(
                "SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'class'",
                []) is null ? "it holds no Halterion data."
                : version > Database.SchemaVersion ? "it was written by a newer Halterion."
                : null;
        }
        catch (SqliteException e)
        {
            return $"it cannot be read ({e.Message.TrimEnd('.')}).";
        }
    }

    private void Make(string file)
    {
        Database.MakeFolder(FolderOf(database.Folder));
        var half = file + ".part";
        File.Delete(half);
        using (var connection = database.Connect())
        {
            Into(connection, half);
        }

        File.Move(half, file, overwrite: true);
        Database.Private(FolderOf(database.Folder));
    }

    private static void Into(SqliteConnection connection, string file)
    {
        connection.Run("VACUUM INTO @file", [("@file", file)]);
        if (!OperatingSystem.IsWindows())
        {
            File.SetUnixFileMode(file, Database.FileMode600);
        }
    }
}
