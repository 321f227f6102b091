using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Halterion.Store;

/// <summary>
/// The data folder of one running server: its lock, its database, its copies. Where the file is damaged or gone the folder is held all
/// the same, and whoever asks for the data is told what is wrong, until a copy is put back.
/// </summary>
public sealed class Database : IDisposable
{
    internal const string FileName = "halterion.db";
    internal const UnixFileMode FolderMode = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;
    internal const UnixFileMode FileMode600 = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    private readonly string connectionString;
    private readonly string file;
    private readonly FileStream folderLock;
    private volatile DataTrouble? trouble;

    private Database(string folder, FileStream folderLock, TimeProvider clock)
    {
        Clock = clock;
        this.folderLock = folderLock;
        Folder = folder;
        file = FileIn(folder);
        connectionString = DataFile.ConnectionString(file, pooled: true);
    }

    public string Folder { get; }

    /// <summary>The time of what is noted beside the data.</summary>
    internal TimeProvider Clock { get; }

    public Copies Copies => new(this);

    /// <summary>What is wrong with the data; null: all is well.</summary>
    public DataTrouble? Trouble => trouble;

    internal static string FileIn(string folder) => Path.Combine(folder, FileName);

    /// <summary>
    /// Opens a data folder, makes it if it is missing, sees whether its file is sound, and brings it up to date. See <see cref="Trouble"/>.
    /// </summary>
    /// <exception cref="StoreException">The folder is not writable, or in use by another server.</exception>
    public static Database Open(string folder, TimeProvider clock)
    {
        FileStream? folderLock = null;
        try
        {
            MakeFolder(folder);
            folderLock = Lock(folder);
            var database = new Database(folder, folderLock, clock);
            database.Begin(clock);
            return database;
        }
        catch (Exception e) when (e is UnauthorizedAccessException or IOException)
        {
            var inUse = folderLock is null
                && File.Exists(Path.Combine(folder, "lock"))
                && e is IOException and not DirectoryNotFoundException;
            folderLock?.Dispose();
            throw new StoreException(
                inUse ? $"Another Halterion is using the data folder {folder}. Stop it, or use another folder with --data DIR."
                : $"The data folder {folder} cannot be written to ({DataFile.Plain(e.Message)}). Use another one with --data DIR.",
                e);
        }
    }

    /// <summary>An open connection; writes happen in the default, immediate transaction. What is deleted is overwritten.</summary>
    /// <exception cref="StoreException">The data is damaged or gone.</exception>
    public SqliteConnection Connect()
    {
        if ((trouble ?? Vanished()) is { } known)
        {
            throw new StoreException(known.Words);
        }

        var connection = new SqliteConnection(connectionString);
        connection.Open();
        connection.Run("PRAGMA secure_delete = ON", []);
        return connection;
    }

    /// <summary>Looks at the file again after something failed: from then on what is wrong is said to everybody.</summary>
    public DataTrouble? Examine() => trouble ??= Vanished() ?? (DataFile.WhyNot(file, deep: false) is { } why ? TroubleOf(why) : null);

    /// <summary>What is in the file cannot be read: that is said from now on.</summary>
    public void Distrust(string why) => trouble ??= TroubleOf(why);

    /// <summary>Puts a copy in the place of data that is damaged or gone, while the server runs.</summary>
    /// <returns>Where what was there is kept; null if nothing was.</returns>
    /// <exception cref="StoreException">The copy cannot be used, or nothing is wrong with the data.</exception>
    public string? Restore(string copy, TimeProvider clock)
    {
        if (trouble is null)
        {
            throw new StoreException("Nothing is wrong with the data, so nothing was changed. To go back to a copy, stop Halterion and "
                + "restore it by its name.");
        }

        return Replace(copy, clock);
    }

    /// <summary>Puts a file in the place of the data, whatever is there, while the server runs.</summary>
    /// <returns>Where what was there is kept; null if nothing was.</returns>
    /// <exception cref="StoreException">The file cannot be used; nothing was changed.</exception>
    internal string? Replace(string copy, TimeProvider clock)
    {
        ClearPool();
        var aside = Copies.PutBack(Folder, copy, clock);
        trouble = null;
        Begin(clock);
        return aside;
    }

    /// <summary>Writes a moment and reads it back.</summary>
    /// <exception cref="SqliteException">The store cannot be written or read.</exception>
    public bool Works(TimeProvider clock)
    {
        var now = Sql.Iso(clock.GetUtcNow());
        using var connection = Connect();
        connection.Run("INSERT INTO health (id, checked_at) VALUES (1, @now) ON CONFLICT (id) DO UPDATE SET checked_at = "
            + "excluded.checked_at", [("@now", now)]);
        return (string?)connection.Scalar("SELECT checked_at FROM health WHERE id = 1", []) == now;
    }

    /// <summary>Takes what was deleted out of the file's free pages and out of the log beside it.</summary>
    public void Scrub()
    {
        using var connection = Connect();
        connection.Run("VACUUM", []);
        for (var tries = 0; tries < 50; tries++)
        {
            // A reader that is still under way keeps the log; readers here are short.
            if (connection.Scalar("PRAGMA wal_checkpoint(TRUNCATE)", []) is long and 0)
            {
                return;
            }

            Thread.Sleep(20);
        }
    }

    public void Dispose()
    {
        ClearPool();
        folderLock.Dispose();
    }

    /// <summary>The lock of a folder, held as long as the stream is open.</summary>
    /// <exception cref="IOException">Somebody else holds it.</exception>
    internal static FileStream Lock(string folder) =>
        new(Path.Combine(folder, "lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);

    /// <summary>
    /// Nobody else on this machine may read what is kept: 0700 for folders, 0600 for files, also for those that were there before. What
    /// is only a link to somewhere else is left alone.
    /// </summary>
    internal static void Private(string folder)
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        File.SetUnixFileMode(folder, FolderMode);
        foreach (var inner in new DirectoryInfo(folder).EnumerateFileSystemInfos())
        {
            if (inner.LinkTarget is not null)
            {
                continue;
            }

            if (inner is DirectoryInfo)
            {
                Private(inner.FullName);
            }
            else if (RegularFile.Is(inner.FullName))
            {
                File.SetUnixFileMode(inner.FullName, FileMode600);
            }
        }
    }

    /// <summary>Makes a folder that nobody else on this machine may look into.</summary>
    public static void MakeFolder(string folder)
    {
        if (OperatingSystem.IsWindows())
        {
            Directory.CreateDirectory(folder);
        }
        else
        {
            Directory.CreateDirectory(folder, FolderMode);
        }
    }

    private void Begin(TimeProvider clock)
    {
        Copies.ClearHalves(Folder);
        try
        {
            if (IsEmpty)
            {
                if (Copies.In(Folder).IsEmpty)
                {
                    Make();
                }
                else
                {
                    trouble = Vanished();
                }
            }
            else if (DataFile.WhyNot(file, deep: false) is { } why)
            {
                trouble = TroubleOf(why);
            }
            else
            {
                Update(clock);
            }

            if (trouble is null)
            {
                using var connection = Connect();
                connection.Run("PRAGMA journal_mode = WAL", []);
            }
        }
        catch (Exception e) when (e is SqliteException or StoreException)
        {
            trouble = new DataTrouble(
                $"The data in {Folder} could not be updated to this version ({DataFile.Plain(e.Message)}). Nothing was changed; a copy "
                + $"is in {Copies.FolderOf(Folder)}.",
                Copies.NewestGood(Folder));
        }

        Private(Folder);
    }

    /// <summary>
    /// A new, empty studio. It is made beside its place, so that one that was begun and not finished is never taken for data.
    /// </summary>
    private void Make()
    {
        var next = file + Copies.HalfEnding;
        using (var connection = DataFile.Open(next, SqliteOpenMode.ReadWriteCreate))
        {
            Schema.Upgrade(connection);
        }

        DataFile.PutInPlace(next, file);
    }

    /// <summary>Brings the data to this program's schema: a copy is changed, looked at, and only then takes the data's place.</summary>
    private void Update(TimeProvider clock)
    {
        var next = file + Copies.HalfEnding;
        using (var connection = DataFile.Open(file))
        {
            var version = Schema.VersionOf(connection);
            if (version == Schema.Version)
            {
                return;
            }

            // Without its log the file is whole by itself: nothing is left beside it that would be taken for its successor's.
            connection.Run("PRAGMA wal_checkpoint(TRUNCATE)", []);
            connection.Run("PRAGMA journal_mode = DELETE", []);
            Copies.BeforeSchema(connection, Folder, version, clock);
            Copies.Into(connection, next);
        }

        Copies.Upgrade(next);
        DataFile.PutInPlace(next, file);
    }

    private bool IsEmpty => new FileInfo(file) is not { Exists: true, Length: > 0 };

    /// <summary>A file that is gone, or has nothing in it any more, where there was one.</summary>
    private DataTrouble? Vanished() => !IsEmpty ? null
        : trouble ??= new DataTrouble(
            File.Exists(file) ? $"The data file {file} is empty. Nothing was changed." : $"The data file {file} is gone. Nothing "
                + $"was changed.",
            Copies.NewestGood(Folder));

    private DataTrouble TroubleOf(string why) => new($"The data file {file} cannot be used: {why}. Nothing "
        + $"was changed.", Copies.NewestGood(Folder));

    /// <summary>Of this folder's file alone: others may be open in the same process.</summary>
    private void ClearPool()
    {
        using var connection = new SqliteConnection(connectionString);
        SqliteConnection.ClearPool(connection);
    }
}
