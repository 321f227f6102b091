using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core;
using Halterion.Core.Moves;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>Copies of the data: one each day of use, one before each change of schema, and those that the user asks for.</summary>
public sealed class Copies(Database database)
{
    private const int Kept = 14;
    private const string Daily = "day-";

    /// <summary>Of files that are not finished.</summary>
    internal const string HalfEnding = ".part";

    /// <summary>Where the copies lie.</summary>
    public static string FolderOf(string data) => Path.Combine(data, "copies");

    /// <summary>All copies, the newest first.</summary>
    public static ImmutableArray<string> In(string data) => Directory.Exists(FolderOf(data))
        ? [
            .. Directory.EnumerateFiles(FolderOf(data), "*.db")
                .Where(RegularFile.Is)
                .OrderByDescending(File.GetLastWriteTimeUtc)
                .ThenByDescending(f => f, StringComparer.Ordinal)]
        : [];

    /// <summary>Whether a file is sound Halterion data that this version can read.</summary>
    public static bool IsSound(string file) => DataFile.WhyNot(file, deep: true) is null;

    /// <summary>The newest copy that can be put back; null: there is none.</summary>
    public static string? NewestGood(string data) => In(data).FirstOrDefault(IsSound);

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
        foreach (var old in Directory.EnumerateFiles(FolderOf(database.Folder), Daily + "*.db")
                .OrderDescending(StringComparer.Ordinal)
                .Skip(Kept))
        {
            File.Delete(old);
        }
    }

    /// <summary>A copy of the data as it was under an older schema.</summary>
    internal static void BeforeSchema(SqliteConnection connection, string data, int version, TimeProvider clock) => Make(
        connection,
        FreeName(
            data, string.Create(CultureInfo.InvariantCulture, $"before-schema-{version + 1}-{clock.GetLocalNow():yyyy-MM-dd-HHmmss}")));

    /// <summary>What was begun and not finished when the program ended: it may name people, and is of no use.</summary>
    internal static void ClearHalves(string data)
    {
        foreach (var folder in ((string[])[data, FolderOf(data)]).Where(Directory.Exists))
        {
            foreach (var half in Directory.EnumerateFiles(folder, "*" + HalfEnding + "*"))
            {
                File.Delete(half);
            }
        }
    }

    /// <summary>Brings a file that is nobody's data yet to this program's schema, and sees that it is good data then.</summary>
    /// <exception cref="StoreException">It is not.</exception>
    internal static void Upgrade(string half)
    {
        using var connection = DataFile.Open(half);
        connection.Run("PRAGMA secure_delete = ON", []);
        Schema.Upgrade(connection);
        if (DataFile.WhyNot(connection, deep: true) is { } why)
        {
            throw new StoreException(why);
        }

        connection.Run("VACUUM", []);
    }

    /// <summary>Erases a person from every copy; a copy from which that cannot be done is no copy worth keeping.</summary>
    public void Erase(PersonId person, NamesToErase names)
    {
        foreach (var file in In(database.Folder))
        {
            try
            {
                using var connection = DataFile.Open(file);
                connection.Run("PRAGMA secure_delete = ON", []);
                Erasing.From(connection, person, names);
                connection.Run("VACUUM", []);
            }
            catch (SqliteException)
            {
                foreach (var part in (string[])[file, .. DataFile.Beside(file)])
                {
                    File.Delete(part);
                }
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
            throw new StoreException($"{file} already exists. Choose another name.");
        }

        try
        {
            using var connection = DataFile.Open(source);
            if (DataFile.WhyNot(connection, deep: true) is { } why)
            {
                throw new StoreException($"The data in {data} could not be copied: {why}.");
            }

            Into(connection, file);
        }
        catch (Exception e) when (e is SqliteException or IOException or UnauthorizedAccessException)
        {
            throw new StoreException($"The copy could not be written to {file} ({e.Message.TrimEnd('.')}).", e);
        }
    }

    /// <summary>Puts a copy in place of a folder's data; what was there is kept aside.</summary>
    /// <returns>Where the old data is; null if there was none.</returns>
    /// <exception cref="StoreException">The copy cannot be used, or a server has the folder open.</exception>
    public static string? Restore(string data, string file, TimeProvider clock)
    {
        FileStream? held = null;
        try
        {
            // First of all: a copy that cannot be used changes nothing, not even a folder is made for it.
            Look(file);
            Database.MakeFolder(data);
            held = Database.Lock(data);
            return PutBack(data, file, clock);
        }
        catch (Exception e) when (held is null && e is IOException or UnauthorizedAccessException)
        {
            throw new StoreException(
                $"The data folder {data} is in use or cannot be written to ({DataFile.Plain(e.Message)}). Stop Halterion, then try "
                + $"again. Nothing was changed.",
                e);
        }
        finally
        {
            held?.Dispose();
        }
    }

    /// <summary>The same for who holds the folder. The copy is brought to this version and looked at before anything is touched.</summary>
    internal static string? PutBack(string data, string file, TimeProvider clock)
    {
        Look(file);
        var current = Database.FileIn(data);
        var half = current + HalfEnding;
        try
        {
            Database.MakeFolder(FolderOf(data));
            ClearHalves(data);
            using (var connection = DataFile.Open(file, SqliteOpenMode.ReadOnly))
            {
                Into(connection, half);
            }

            Upgrade(half);
            var aside = FreeName(
                data, string.Create(CultureInfo.InvariantCulture, $"before-restore-{clock.GetLocalNow():yyyy-MM-dd-HHmmss}"));
            var old = SetAside(current, aside);
            DataFile.PutInPlace(half, current);
            Database.Private(data);
            return old ? aside : null;
        }
        catch (StoreException e)
        {
            File.Delete(half);
            throw new StoreException($"{file} could not be restored: {DataFile.Plain(e.Message)}. Nothing was changed.", e);
        }
        catch (Exception e) when (e is SqliteException or IOException or UnauthorizedAccessException)
        {
            throw new StoreException($"The data could not be restored ({DataFile.Plain(e.Message)}). Nothing was changed.", e);
        }
    }

    private static void Look(string file)
    {
        if (DataFile.WhyNot(file, deep: true) is { } why)
        {
            throw new StoreException($"{file} could not be restored: {why}. Nothing was changed.");
        }
    }

    /// <summary>
    /// A whole copy of what was there, with what is in its write-ahead log; the file itself where it is too damaged for that.
    /// </summary>
    /// <returns>Whether there was anything.</returns>
    private static bool SetAside(string current, string aside)
    {
        if (!File.Exists(current))
        {
            return false;
        }

        try
        {
            using var connection = DataFile.Open(current);
            Into(connection, aside);
            // Whole by itself, whatever happens before its successor stands in its place.
            connection.Run("PRAGMA wal_checkpoint(TRUNCATE)", []);
            connection.Run("PRAGMA journal_mode = DELETE", []);
        }
        catch (SqliteException)
        {
            File.Copy(current, aside, overwrite: true);
            foreach (var (beside, to) in DataFile.Beside(current).Zip(DataFile.Beside(aside)).Where(b => File.Exists(b.First)))
            {
                File.Copy(beside, to, overwrite: true);
            }
        }

        return true;
    }

    /// <summary>A name in the folder of copies that nothing has yet.</summary>
    private static string FreeName(string data, string stem)
    {
        for (var i = 1; ; i++)
        {
            var file = Path.Combine(FolderOf(data), string.Create(CultureInfo.InvariantCulture, $"{stem}{(i == 1 ? "" : $"-{i}")}.db"));
            if (!Path.Exists(file))
            {
                return file;
            }
        }
    }

    private void Make(string file)
    {
        using var connection = database.Connect();
        Make(connection, file);
    }

    private static void Make(SqliteConnection connection, string file)
    {
        Database.MakeFolder(Path.GetDirectoryName(file)!);
        var half = file + HalfEnding;
        File.Delete(half);
        Into(connection, half);
        File.Move(half, file, overwrite: true);
    }

    internal static void Into(SqliteConnection connection, string file)
    {
        connection.Run("VACUUM INTO @file", [("@file", file)]);
        if (!OperatingSystem.IsWindows())
        {
            File.SetUnixFileMode(file, Database.FileMode600);
        }
    }
}
